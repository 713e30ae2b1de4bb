import { InputError } from '@hot-spline/core';
import type { Capability, Given, Inputs } from './capability';
import { Assumptions, Derivation, bySeriousness } from './derivation';
import type { Figure } from './figure';
import type { Finding } from './finding';
import { watch, type Watched } from './seen';
import { allWork, knownWork, type AllWork, type AxleWork } from './work';

type AnyCapability = Capability<never, unknown>;

type Taken = Readonly<Record<string, unknown>>;

interface Kept {
  readonly watched: Watched;
  /** What it took of others, each to be asked whether it still is the same. */
  readonly needs: readonly Need[];
  readonly result: unknown;
  readonly figures: ReadonlyMap<string, Figure>;
  readonly findings: readonly Finding[];
}

/** Whether what was taken is what there is now. */
type Need = () => boolean;

export interface Results {
  readonly figures: ReadonlyMap<string, Figure>;
  /** Most serious first. */
  readonly findings: readonly Finding[];
  of<R>(capability: Capability<never, R>): R | null;
}

/** What a list of capabilities brings to the order of work, put together once. */
const works = new WeakMap<readonly AnyCapability[], AllWork>();

function workOf(capabilities: readonly AnyCapability[]): AllWork {
  const known = works.get(capabilities);
  if (known) return known;
  const made = allWork(capabilities.map(({ work }) => work));
  works.set(capabilities, made);
  return made;
}

/** What it stops, as far as anybody else can see it. */
const stopsOf = (kept: Kept | undefined): string =>
  JSON.stringify(
    kept?.findings
      .filter(({ verdict }) => verdict === 'stop')
      .map(({ id, facts, place, figures }) => [id, facts, place, figures]),
  );

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
  /** What each capability is given this time, whether it is worked out again or not. */
  private readonly taken = new Map<AnyCapability, Taken>();

  constructor(
    private readonly capabilities: readonly AnyCapability[],
    private readonly contain = false,
  ) {
    this.all = workOf(capabilities);
  }

  derive(all: Inputs): Results {
    const results = new Map<AnyCapability, unknown>();
    /** What was looked at to know of the work, by capability. */
    const asked = new Map<AnyCapability, Watched>();
    const before = (): AnyCapability[] => this.capabilities.filter((one) => results.has(one));
    const given: Given = {
      of: <R>(capability: Capability<never, R>): R | null => {
        if (!results.has(capability)) throw new Error(`${capability.name} is not worked out before it is asked for`);
        const result = results.get(capability);
        return result === FAILED ? null : (result as R);
      },
      stops: () =>
        before().flatMap((one) => this.kept.get(one)?.findings.filter(({ verdict }) => verdict === 'stop') ?? []),
      work: (axle) => {
        const works: AxleWork[] = [];
        const failed: string[] = [];
        for (const one of before()) {
          const kept = this.kept.get(one);
          if (!kept || !one.knows) continue;
          if (kept.result === FAILED) failed.push(one.name);
          else {
            const watched = asked.get(one) ?? watch(this.taken.get(one) as Taken, all);
            asked.set(one, watched);
            works.push(one.knows(axle, kept.result, watched.inputs as never, given));
          }
        }
        return knownWork(works, failed);
      },
      all: this.all,
    };
    const figures = new Map<string, Figure>();
    const findings: Finding[] = [];
    for (const capability of this.capabilities) {
      const kept = this.one(capability, all, given, asked);
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

  private one(capability: AnyCapability, all: Inputs, given: Given, asked: ReadonlyMap<AnyCapability, Watched>): Kept {
    const before = this.kept.get(capability);
    const { assumed } = all.build;
    const taken: Taken = { ...(capability.inputs(all) as object), assumed };
    this.taken.set(capability, taken);
    if (before?.watched.same(taken) && before.needs.every((same) => same())) return before;
    const watched = watch(taken, all);
    const d = new Derivation(new Assumptions(assumed));
    const result = this.run(capability, watched.inputs, d, given);
    const needs =
      capability.needs === 'all-before'
        ? this.capabilities.slice(0, this.capabilities.indexOf(capability)).map((one) => this.told(one, asked.get(one)))
        : capability.needs.map((need) => this.given(need));
    return { watched, needs, result, figures: d.figures, findings: d.findings };
  }

  /** The result of another. */
  private given(need: AnyCapability): Need {
    const kept = this.kept.get(need);
    return () => this.kept.get(need) === kept;
  }

  /** What one that stands before another tells it: what it knows of the work, and what it stops; the rest stays its own. */
  private told(one: AnyCapability, asked: Watched | undefined): Need {
    const kept = this.kept.get(one);
    if (one.knows || kept?.result === FAILED)
      return () => this.kept.get(one) === kept && (asked?.same(this.taken.get(one) as Taken) ?? true);
    const stops = stopsOf(kept);
    return () => this.kept.get(one) === kept || stopsOf(this.kept.get(one)) === stops;
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
