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

/** Beyond these no length, force or time is one, and a few factors of it leave what a double can hold. Ours. */
const MOST = 1e60;
const LEAST = 1e-60;
/** Within these nothing overflows: a result that is no number is our mistake then. Ours. */
const USUAL = 1e12;
const USUAL_LEAST = 1e-12;

/** Every number in a value, with its path. */
function numbersIn(value: unknown, path = ''): [string, number][] {
  if (typeof value === 'number') return [[path, value]];
  if (typeof value !== 'object' || value === null) return [];
  const at = (key: string): string => (Array.isArray(value) ? `${path}[${key}]` : path === '' ? key : `${path}.${key}`);
  return Object.entries(value).flatMap(([key, one]) => numbersIn(one, at(key)));
}

const beyond = (value: number, least: number, most: number): boolean =>
  value !== 0 && Number.isFinite(value) && (Math.abs(value) > most || Math.abs(value) < least);

function requireComputable(input: unknown): void {
  const [out] = numbersIn(input).filter(([, value]) => beyond(value, LEAST, MOST));
  if (out)
    throw new InputError(
      out[0] || 'input',
      `${out[0] || 'input'} is ${out[1]}.`,
      `0, or ${LEAST} to ${MOST} either side of it`,
    );
}

/** Where a result is no number: names what led there. */
function requireUsual(input: unknown): void {
  const far = ([, value]: [string, number]): number => Math.abs(Math.log10(Math.abs(value)));
  const [out] = numbersIn(input)
    .filter(([, value]) => beyond(value, USUAL_LEAST, USUAL))
    .sort((a, b) => far(b) - far(a));
  if (out)
    throw new InputError(
      out[0],
      `${out[0]} is ${out[1]}: with it the result leaves what can be computed.`,
      `0, or ${USUAL_LEAST} to ${USUAL} either side of it`,
    );
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
    requireComputable(input);
    const parsed = parseOrRefuse(calculation.input, input, 'input');
    const result = calculation.run(parsed, context);
    if (numbersIn(result).some(([, value]) => !Number.isFinite(value))) requireUsual(input);
    const output = calculation.output.parse(result) as Record<string, unknown>;
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
