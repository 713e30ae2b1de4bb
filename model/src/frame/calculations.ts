import { cutText, InputError, type Working } from '@hot-spline/core';
import { parseOrRefuse } from '../base/refuse';
import { unattended, type HeavyContext } from './heavy';
import '../base/zod';
import * as z from 'zod';

/** One public calculation. Its name and keys are a public interface. */
export interface Calculation<I extends z.ZodType = z.ZodType, O extends z.ZodType = z.ZodType> {
  readonly name: string;
  readonly summary: string;
  readonly input: I;
  readonly output: O;
  readonly example: z.input<I>;
  /** @param context whether it may go on: one that may not ends with the best that it has, or does not end */
  run(input: z.output<I>, context: HeavyContext): z.input<O>;
  /** @param output what {@link run} gave for this input, so that it is not worked out twice */
  explain(input: z.output<I>, output: z.output<O>): Working;
}

export function defineCalculation<I extends z.ZodType, O extends z.ZodType>(
  calculation: Calculation<I, O>,
): Calculation {
  return calculation as unknown as Calculation;
}

/** Calculations by name, and the one way to run them for every edge. */
export class Registry {
  private readonly byName = new Map<string, Calculation>();

  constructor(calculations: readonly Calculation[]) {
    for (const calculation of calculations) {
      const { name } = calculation;
      if (this.byName.has(name)) throw new Error(`calculation ${name} is registered twice`);
      this.byName.set(name, calculation);
    }
  }

  names(): string[] {
    return [...this.byName.keys()].sort();
  }

  all(): Calculation[] {
    return this.names().map((name) => this.get(name));
  }

  /** @throws InputError on `name` for a name that is not registered */
  get(name: string): Calculation {
    const calculation = this.byName.get(name);
    if (!calculation)
      throw new InputError('name', `There is no calculation “${cutText(name, 60)}”.`, this.names().join(', '));
    return calculation;
  }

  /**
   * Runs a calculation on JSON from outside.
   * @throws InputError naming the field
   */
  run(name: string, input: unknown, withWorking = false, context = unattended): Record<string, unknown> {
    const calculation = this.get(name);
    const parsed = parseOrRefuse(calculation.input, input, 'input');
    const output = calculation.output.parse(calculation.run(parsed, context)) as Record<string, unknown>;
    return withWorking ? { ...output, working: calculation.explain(parsed, output) } : output;
  }

  describe(name: string): { name: string; summary: string; input: object; output: object; example: unknown } {
    const { summary, input, output, example } = this.get(name);
    return {
      name,
      summary,
      input: z.toJSONSchema(input, { io: 'input' }),
      output: z.toJSONSchema(output),
      example,
    };
  }
}
