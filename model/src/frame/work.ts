import {
  orderFrom,
  recipesOf,
  type Asked,
  type Facts,
  type Operation,
  type Recipe,
  type StepRun,
} from '@hot-spline/core';
import type { InForce } from './readings';

export const GATES = ['A', 'B'] as const;
export type GateName = (typeof GATES)[number];
export type GateAsks = Readonly<Record<GateName, readonly Asked[]>>;

/** Something that a step buys: common practice, no published source. */
export interface Part {
  readonly name: string;
  readonly count: number;
  /** Why so many, or what to look at. */
  readonly mind: string;
}

/** What a capability brings to the order of work: its steps, and what they buy. */
export interface Work<Id extends string = string, Ref extends string = string> {
  readonly steps: readonly StepRun<Id, Ref>[];
  readonly parts?: Readonly<Record<string, Part>>;
}

/** A number that a step is worked by, before it is done. */
export interface StepNumber {
  readonly label: string;
  /** As it was typed where it was read; null where nobody has said it, or where it is a length that was measured. */
  readonly typed: string | null;
  /** A length that was measured or approved, mm; null where it is not one. */
  readonly mm: number | null;
  /** Where it stands, or when it was so. */
  readonly where: string;
  /** The field where it is said. */
  readonly place: { readonly sheet: string; readonly tab?: string; readonly field: string };
}

/** What a capability knows of a step of its own on an axle; `facts` of the job, null where nobody has planned it. */
export interface StepKnowledge {
  /** What has to be read before it is done; null: nothing is missing. */
  readonly missing?: (facts: Facts | null) => string | null;
  /**
   * The reading that does it by itself: of steps that are nothing but reading, and never where it is out of what it is held
   * against. Where nobody has said what that is, having read it is all that there is.
   */
  readonly proof?: (facts: Facts | null) => InForce | null;
  readonly numbers?: () => readonly StepNumber[];
}

/** What a need of a gate is about, in the order in which it is read at the axle. */
const READ_IN = [
  ...['sheet', 'together', 'pinion-preload', 'drag-compared', 'repeats-before', 'backlash', 'pattern', 'depth'],
  ...['side-preload', 'ring-bolts', 'float', 'leak', 'total', 'worked-out'],
] as const;

/** One thing that a gate needs. */
export interface GateNeed {
  /** What of it: something that a gate can ask, or that goes with it. */
  readonly of: Asked | 'sheet' | 'together' | 'total' | 'worked-out';
  readonly need: string;
  readonly met: boolean;
  /** What was read, or what is missing. */
  readonly says: string;
}

/** What is known of the job when a gate is looked at. */
export interface GateContext {
  readonly asks: GateAsks;
  /** What a step wrote down, in its base unit; null: nothing. */
  readonly said: (step: string, record: string) => number | null;
}
type Needs = Readonly<Record<GateName, (context: GateContext) => readonly GateNeed[]>>;

/** What a capability knows of the work on an axle. */
export interface AxleWork<Id extends string = string> {
  readonly steps?: Readonly<Partial<Record<Id, StepKnowledge>>>;
  /** What it has to say at a gate that something waits for. */
  readonly needs?: Partial<Needs>;
  /** Figures that a signature stands for. */
  readonly figures?: Readonly<Record<string, number>>;
  /** What the gates of this axle are signed for: without anybody saying it there are none. */
  readonly signs?: {
    readonly about: Readonly<Record<GateName, string>>;
    /** Figures of which another value closes it again. */
    readonly keys: Readonly<Record<GateName, readonly string[]>>;
    /** Why a signature does not stand any more. */
    readonly stale: string;
  };
  /** It begins to be said among the findings. */
  readonly begun?: boolean;
}

/** What every capability together knows of the work on an axle. */
export interface KnownWork {
  readonly steps: ReadonlyMap<string, StepKnowledge>;
  readonly needs: readonly Partial<Needs>[];
  readonly figures: Readonly<Record<string, number>>;
  readonly signs: AxleWork['signs'] | null;
  readonly begun: boolean;
}

/** Puts together what each knows. @param failed capabilities that could not be worked out: no gate is met without them */
export function knownWork(all: readonly AxleWork[], failed: readonly string[]): KnownWork {
  const lost = (): readonly GateNeed[] =>
    failed.map((name) => ({ of: 'worked-out', need: 'Everything can be worked out', met: false, says: `not ${name}` }));
  return {
    steps: new Map(all.flatMap(({ steps = {} }) => Object.entries(steps) as [string, StepKnowledge][])),
    needs: [...all.flatMap(({ needs }) => needs ?? []), ...(failed.length > 0 ? [{ A: lost, B: lost }] : [])],
    figures: Object.assign({}, ...all.map(({ figures }) => figures ?? {})) as Record<string, number>,
    signs: all.find(({ signs }) => signs !== undefined)?.signs ?? null,
    begun: all.some(({ begun }) => begun === true),
  };
}

/** What a gate needs, in the order in which it is read. */
export const needsOf = (gate: GateName, { needs }: KnownWork, context: GateContext): readonly GateNeed[] =>
  needs.flatMap((one) => one[gate]?.(context) ?? []).sort((a, b) => READ_IN.indexOf(a.of) - READ_IN.indexOf(b.of));

/** Every step and part that a list of capabilities brings. */
export interface AllWork {
  readonly recipes: readonly Recipe[];
  readonly parts: Readonly<Record<string, Part>>;
  /** The order of work of a job (see `orderFrom`); the same list for the same facts. */
  order(facts: Facts): readonly Operation[];
}

/** Orders of work that are remembered: the axles of some builds. */
const REMEMBERED = 32;

/** @throws RangeError where steps stand behind one that none of them brings */
export function allWork(works: readonly (Work | undefined)[]): AllWork {
  const recipes = recipesOf(works.flatMap((work) => work?.steps ?? []));
  const orders = new Map<string, readonly Operation[]>();
  return {
    recipes,
    order: (facts) => {
      const key = JSON.stringify(facts);
      const known = orders.get(key);
      if (known) return known;
      const made = orderFrom(recipes, facts);
      if (orders.size === REMEMBERED) orders.clear();
      orders.set(key, made);
      return made;
    },
    parts: Object.assign({}, ...works.map((work) => work?.parts ?? {})) as Record<string, Part>,
  };
}

/** Something to have in the house, with the steps that it is for. */
export interface NeededPart extends Part {
  readonly id: string;
  readonly steps: readonly string[];
}

/**
 * What an order of work needs in the house before it is begun, in the order in which it is used.
 * @throws RangeError naming a part that no capability brings
 */
export function neededParts(steps: readonly Operation[], parts: AllWork['parts']): readonly NeededPart[] {
  const needed = new Map<string, string[]>();
  for (const { id, parts: of } of steps) for (const part of of) needed.set(part, [...(needed.get(part) ?? []), id]);
  return [...needed].map(([id, of]) => {
    const part = parts[id];
    if (!part) throw new RangeError(`no capability brings the part ${id}`);
    return { id, ...part, steps: of };
  });
}
