import { InputError } from '@hot-spline/core';
import type { Capability, Given, Inputs } from './capability';
import { Assumptions, Derivation, bySeriousness } from './derivation';
import type { Figure } from './figure';
import type { Finding } from './finding';
import { allWork, knownWork, type AllWork, type AxleWork } from './work';

type AnyCapability = Capability<never, unknown>;

interface Kept {
  readonly inputs: Readonly<Record<string, unknown>>;
  readonly needs: readonly unknown[];
  readonly result: unknown;
  readonly figures: ReadonlyMap<string, Figure>;
  readonly findings: readonly Finding[];
}

export interface Results {
  readonly figures: ReadonlyMap<string, Figure>;
  /** Most serious first. */
  readonly findings: readonly Finding[];
  of<R>(capability: Capability<never, R>): R | null;
}

const sameValues = (a: Readonly<Record<string, unknown>>, b: Readonly<Record<string, unknown>>): boolean =>
  Object.keys(a).length === Object.keys(b).length && Object.keys(a).every((key) => Object.is(a[key], b[key]));

/** In place of the result of a capability that failed. */
const FAILED = Symbol('failed');

/**
 * Derives builds, one after the other, and works out again only those capabilities whose inputs have changed since the
 * last one. Same in, same out: what is kept is never seen from outside.
 * @param contain whether a mistake in one capability becomes a finding that says so; otherwise it is thrown
 */
export class Deriver {
  private readonly kept = new Map<AnyCapability, Kept>();
  private readonly all: AllWork;

  constructor(
    private readonly capabilities: readonly AnyCapability[],
    private readonly contain = false,
  ) {
    this.all = allWork(capabilities.map(({ work }) => work));
  }

  derive(all: Inputs): Results {
    const results = new Map<AnyCapability, unknown>();
    const before = (): AnyCapability[] => this.capabilities.filter((one) => results.has(one));
    const given: Given = {
      of: <R>(capability: Capability<never, R>): R | null => {
        if (!results.has(capability)) throw new Error(`${capability.name} is not worked out before it is asked for`);
        const result = results.get(capability);
        return result === FAILED ? null : (result as R);
      },
      findings: () => before().flatMap((one) => this.kept.get(one)?.findings ?? []),
      work: (axle) => {
        const works: AxleWork[] = [];
        const failed: string[] = [];
        for (const one of before()) {
          const kept = this.kept.get(one);
          if (!kept || !one.knows) continue;
          if (kept.result === FAILED) failed.push(one.name);
          else works.push(one.knows(axle, kept.result, kept.inputs as never, given));
        }
        return knownWork(works, failed);
      },
      all: this.all,
    };
    const figures = new Map<string, Figure>();
    const findings: Finding[] = [];
    for (const capability of this.capabilities) {
      const kept = this.one(capability, all, results, given);
      this.kept.set(capability, kept);
      results.set(capability, kept.result);
      for (const [id, figure] of kept.figures) {
        if (figures.has(id)) throw new Error(`figure ${id} is made by two capabilities`);
        figures.set(id, figure);
      }
      findings.push(...kept.findings);
    }
    return { figures, findings: bySeriousness(findings), of: given.of };
  }

  private one(
    capability: AnyCapability,
    all: Inputs,
    results: ReadonlyMap<AnyCapability, unknown>,
    given: Given,
  ): Kept {
    const before = this.kept.get(capability);
    const needed =
      capability.needs === 'all-before'
        ? this.capabilities.slice(0, this.capabilities.indexOf(capability))
        : capability.needs;
    const needs = needed.flatMap((need) => [results.get(need), this.kept.get(need)?.findings]);
    const { assumed } = all.build;
    const inputs: Readonly<Record<string, unknown>> = { ...(capability.inputs(all) as object), assumed };
    if (before && sameValues(before.inputs, inputs) && needs.every((need, i) => Object.is(need, before.needs[i])))
      return before;
    const d = new Derivation(new Assumptions(assumed));
    const result = this.run(capability, inputs, d, given);
    return { inputs, needs, result, figures: d.figures, findings: d.findings };
  }

  private run(capability: AnyCapability, inputs: object, d: Derivation, given: Given): unknown {
    const { place, station, name } = capability;
    const refusing = { result: FAILED as unknown };
    try {
      d.attempt(place, station, () => (refusing.result = capability.derive(inputs as never, d, given)));
      return refusing.result;
    } catch (error) {
      if (!this.contain || error instanceof InputError) throw error;
      const message = error instanceof Error ? error.message : String(error);
      d.findings.push({
        id: `${name}.mistake`,
        verdict: 'stop',
        place,
        station,
        figures: [],
        rests: 'said',
        rule: 'a mistake of this program, not of yours',
        facts: { capability: name, message },
        say: () => ({
          title: 'A part of this sheet can’t be worked out',
          detail: `A mistake of Hot Spline’s in “${name}”: ${message}. Everything else stands.`,
        }),
      });
      return FAILED;
    }
  }
}
