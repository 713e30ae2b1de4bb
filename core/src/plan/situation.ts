import { InputError } from '../errors';
import type { MeshConstruction } from '../mesh/construction';

/** What the work on an axle is. */
export const JOBS = ['ratio-swap', 'unit-change', 'overhaul', 'insert', 'locker', 'full-build'] as const;
export type Job = (typeof JOBS)[number];

/** What holds the axle shafts. */
export const RETENTIONS = ['c-clips', 'flange', 'unit-bearing', 'stub'] as const;
export type Retention = (typeof RETENTIONS)[number];

/** Kinds of unit as far as they change what is done. */
export const UNIT_KINDS = ['plate', 'geared', 'insert', 'locker', 'plain'] as const;
export type UnitKind = (typeof UNIT_KINDS)[number];

/** Whether a gearbox is opened with the axle, and what kind. */
export const BOXES = ['stays', 'synchro', 'sequential'] as const;
export type Box = (typeof BOXES)[number];

/** Everything that decides which steps a job has. */
export interface Situation {
  readonly job: Job;
  readonly construction: MeshConstruction;
  /** The unit that goes in. */
  readonly unit: UnitKind;
  readonly retention: Retention;
  /** The gearbox that is opened as well. */
  readonly box: Box;
  readonly spacer: 'collapsible' | 'solid';
  readonly depth: 'gauge-first' | 'pattern-first';
  readonly bearings: 'set-up' | 'press-on';
  readonly ringGear: 'heated' | 'pulled-on';
  /** Thread of the ring bolts; null: nobody knows yet. */
  readonly ringHand: 'right' | 'left' | null;
}

/** A situation with what follows from it. */
export interface Case extends Situation {
  /** It has a ring and a pinion that mesh at an angle. */
  readonly mesh: boolean;
  /** Its carrier lies under bearing caps. */
  readonly caps: boolean;
  readonly newGears: boolean;
  readonly newCarrier: boolean;
  readonly pinionOut: boolean;
  readonly ringOff: boolean;
  /** A plate unit is taken apart. */
  readonly unitOpened: boolean;
  readonly newSideBearings: boolean;
  /** After Gate A the carrier comes out once more. */
  readonly carrierAgain: boolean;
}

/** A drop-out carrier closes the axle itself; an electric unit closes by its case. */
export const hasCover = ({ mesh, construction }: Pick<Case, 'mesh' | 'construction'>): boolean =>
  mesh && construction !== 'drop-out';

/**
 * What follows from a situation (common practice, no published source).
 * @throws InputError on `job` where the unit is none that the job puts in
 */
export function caseOf(situation: Situation): Case {
  const { job, construction, unit } = situation;
  for (const kind of ['insert', 'locker'] as const)
    if (job === kind && unit !== kind)
      throw new InputError('job', `job ${job} needs a unit of that kind, not ${unit}.`, `a unit that is ${kind}`);
  const mesh = construction !== 'electric-reduction';
  const newGears = job === 'ratio-swap' || job === 'full-build';
  const newCarrier = job === 'unit-change' || job === 'locker' || job === 'full-build';
  const pinionOut = mesh && (newGears || job === 'overhaul');
  const newSideBearings = job !== 'insert';
  return {
    ...situation,
    mesh,
    caps: mesh && construction !== 'independent' && construction !== 'transaxle',
    newGears,
    newCarrier,
    pinionOut,
    ringOff: mesh && (newGears || newCarrier),
    unitOpened: unit === 'plate' && (job === 'overhaul' || newCarrier),
    newSideBearings,
    carrierAgain: pinionOut || (construction === 'integral-inboard' && newSideBearings),
  };
}
