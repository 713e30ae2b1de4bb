import { InputError } from '../base/errors';
import type { DepthShimPlace, MeshConstruction } from '../mesh/construction';

/** How it comes to us. `parts`: in pieces or new; nothing is stripped or read before. */
export const ARRIVALS = ['car', 'axle', 'loose-unit', 'parts'] as const;
export type Arrival = (typeof ARRIVALS)[number];

/** Where the shim of the pinion's depth sits. */
export type DepthShim = DepthShimPlace;

/** What places the ring. */
export const RING_PLACES = ['outboard-shims', 'inboard-shims', 'adjusters', 'covers', 'none'] as const;
export type RingPlace = (typeof RING_PLACES)[number];

export const GEARS = ['stay', 'new', 'used'] as const;
export type Gears = (typeof GEARS)[number];

/** What happens to the unit: how it is, not what kind it is. */
export const UNIT_WORK = ['stays', 'new-closed', 'new-opened', 'own-overhauled', 'insert', 'locker', 'spool'] as const;
export type UnitWork = (typeof UNIT_WORK)[number];

export const BEARINGS = ['stay', 'new'] as const;
export type Bearings = (typeof BEARINGS)[number];

export const SPACERS = ['collapsible', 'solid', 'none'] as const;
export type Spacer = (typeof SPACERS)[number];

/** What holds the axle shafts. */
export const RETENTIONS = ['c-clips', 'flange', 'unit-bearing', 'stub'] as const;
export type Retention = (typeof RETENTIONS)[number];

export const BRAKES = ['disc', 'drum'] as const;
export type Brake = (typeof BRAKES)[number];

/** Where a wheel’s bearing is: bolted on as a unit, pressed on the shaft, in the end of the tube, in the hub. */
export const WHEEL_BEARINGS = ['unit', 'on-shaft', 'in-tube', 'in-hub'] as const;
export type WheelBearing = (typeof WHEEL_BEARINGS)[number];

export const OUTER_SEALS = ['tube-end', 'none'] as const;
export type OuterSeal = (typeof OUTER_SEALS)[number];

/** What opens the case for a carrier under preload. */
export const SPREADS = ['spreader', 'lever', 'none'] as const;
export type Spread = (typeof SPREADS)[number];

/** What happens to a gearbox with the axle; `input-float`: its input shaft alone. */
export const BOXES = ['stays', 'input-float', 'synchro', 'dog', 'sequential', 'transaxle'] as const;
export type Box = (typeof BOXES)[number];

/** Kinds of unit as far as they change what is done. */
export const UNIT_KINDS = ['plate', 'geared', 'insert', 'locker', 'plain'] as const;
export type UnitKind = (typeof UNIT_KINDS)[number];

/** What an order of work follows from: common practice, no published source. Each is a switch that somebody can see. */
export interface Facts {
  readonly arrives: Arrival;
  readonly construction: MeshConstruction;
  readonly depthShim: DepthShim;
  readonly ringPlacedBy: RingPlace;
  readonly gears: Gears;
  readonly unit: UnitWork;
  readonly sideBearings: Bearings;
  readonly pinionBearings: Bearings;
  readonly spacer: Spacer;
  readonly retention: Retention;
  /** Whether the ring comes off its carrier, the pinion out of its case; null: as it follows from the rest. */
  readonly ringOff: boolean | null;
  readonly pinionOut: boolean | null;
  readonly box: Box;
  /** The unit that runs in the end. */
  readonly unitKind: UnitKind;
  /** How depth is judged: by the gauge before the pattern, by the pattern, by the gauge alone. */
  readonly depth: 'gauge-first' | 'pattern-first' | 'gauge-decides';
  readonly bearings: 'set-up' | 'press-on';
  readonly ringGear: 'heated' | 'pulled-on';
  /** Thread of the ring bolts; null: nobody knows yet. */
  readonly ringHand: 'right' | 'left' | null;
  /** When the sealing rings of a locker go on. */
  readonly lockerRings: 'after-dry-trial' | 'first-fitting';
  /** What is at the ends of the axle; null: nobody has said. */
  readonly brake: Brake | null;
  readonly wheelBearing: WheelBearing | null;
  readonly outerSeal: OuterSeal | null;
  /** null: nobody has said: a spreader where outboard shims are pressed in between carrier and case, else none. */
  readonly spread: Spread | null;
}

/** Facts with what follows from them. */
export interface Case extends Omit<Facts, 'spread'> {
  readonly spread: Spread;
  /** It has a ring and a pinion that mesh at an angle. */
  readonly mesh: boolean;
  /** Its carrier lies under bearing caps. */
  readonly caps: boolean;
  /** The job opens the axle at all. */
  readonly opened: boolean;
  readonly ringComesOff: boolean;
  readonly pinionComesOut: boolean;
  /** Another pair than before. */
  readonly newGears: boolean;
  /** The carrier that goes in is not the one that came out. */
  readonly newCarrier: boolean;
  /** A plate unit is taken apart. */
  readonly unitOpened: boolean;
  /** Side bearings are pressed on that run. */
  readonly sidePress: boolean;
  /** Settings that are still open: the pinion's depth, the ring's position, the float of an electric unit. */
  readonly depthOpen: boolean;
  readonly positionOpen: boolean;
  readonly floatOpen: boolean;
  /** Something waits for Gate A. */
  readonly gateA: boolean;
  /** After Gate A the carrier comes out once more. */
  readonly carrierAgain: boolean;
  /** The pinion is finished before the carrier is tried: under a support, or where its depth is not open. */
  readonly pinionFirst: boolean;
  /** Raised, on wheels, run in by us. */
  readonly inCar: boolean;
  /** It has its shafts and its oil with it. */
  readonly whole: boolean;
  /** The unit itself comes out of the car, and goes back in. */
  readonly unitOut: boolean;
  readonly propOff: boolean;
  /** The drag of a pinion that stays can be read. */
  readonly dragRead: boolean;
}

/** Of each construction, where its depth shim can sit and what can place its ring. */
export const PERMITTED: Readonly<
  Record<MeshConstruction, { readonly depthShim: readonly DepthShim[]; readonly ringPlacedBy: readonly RingPlace[] }>
> = {
  'integral-head-shim': { depthShim: ['head-bearing', 'cup'], ringPlacedBy: ['outboard-shims'] },
  'integral-inboard': { depthShim: ['head-bearing', 'cup'], ringPlacedBy: ['inboard-shims'] },
  'integral-adjusters': { depthShim: ['head-bearing', 'cup'], ringPlacedBy: ['adjusters'] },
  'drop-out': { depthShim: ['support'], ringPlacedBy: ['adjusters'] },
  independent: { depthShim: ['head-bearing', 'cup'], ringPlacedBy: ['covers', 'outboard-shims'] },
  transaxle: { depthShim: ['box-shaft'], ringPlacedBy: ['covers', 'inboard-shims', 'adjusters'] },
  'electric-reduction': { depthShim: ['none'], ringPlacedBy: ['none'] },
};

const integral = (construction: MeshConstruction): boolean => construction.startsWith('integral-');

/** A cover lies over the mesh of an integral axle, a cover or case closes an independent unit and a transaxle. */
export const hasCover = ({ construction }: Pick<Facts, 'construction'>): boolean =>
  construction !== 'drop-out' && construction !== 'electric-reduction';
/** The mesh is seen through the cover opening, without taking anything out of the car. */
export const seenThroughCover = ({ construction }: Pick<Facts, 'construction'>): boolean => integral(construction);
/** The ring is moved by threaded adjusters. */
export const hasAdjusters = ({ ringPlacedBy }: Pick<Facts, 'ringPlacedBy'>): boolean => ringPlacedBy === 'adjusters';

/** Stripped here, of what came whole. */
export const stripped = (c: Case): boolean => c.opened && c.arrives !== 'parts';
/** A mesh that is tried before it is closed: a setting is still open. */
export const tried = (c: Case): boolean => c.depthOpen || c.positionOpen;
/** A spacer is crushed; on a box shaft nut and plate give the preload. */
export const crushes = (c: Case): boolean => c.spacer === 'collapsible' && c.depthShim !== 'box-shaft';
/** The bearing on the pinion may be the one that runs before depth is settled: no shim lies under it. */
export const bearingEarly = (c: Case): boolean => c.pinionFirst || c.depthShim !== 'head-bearing';
/** The side bearings are pressed behind Gate A: the shims that place the ring lie under them. */
export const pressedLate = (c: Case): boolean => c.positionOpen && c.ringPlacedBy === 'inboard-shims';
/** The bearing on a shaft has nuts of its own: those of a flange that holds the shaft are the same ones. */
export const ownRetainer = ({ wheelBearing, retention }: Pick<Case, 'wheelBearing' | 'retention'>): boolean =>
  wheelBearing === 'on-shaft' && retention !== 'flange';
/** Closed on the bench, before it goes where its shafts are: not where clips are reached through the opening. */
export const coverFirst = (c: Case): boolean => !seenThroughCover(c) && !(c.whole && c.retention === 'c-clips');

function refuse(facts: Facts): void {
  const { construction } = facts;
  const permitted = PERMITTED[construction];
  for (const field of ['depthShim', 'ringPlacedBy'] as const) {
    const may: readonly string[] = permitted[field];
    if (!may.includes(facts[field]))
      throw new InputError(
        field,
        `${field} ${facts[field]} does not go with ${construction}.`,
        `one of ${may.join(', ')}`,
      );
  }
  if (facts.ringOff === false && facts.gears !== 'stay')
    throw new InputError('ringOff', 'ringOff can’t be false with another pair: its ring goes on.', 'true or null');
  if (facts.pinionOut === false && (facts.gears !== 'stay' || facts.pinionBearings === 'new'))
    throw new InputError(
      'pinionOut',
      'pinionOut can’t be false with another pair or new pinion bearings.',
      'true or null',
    );
}

/**
 * What follows from the facts (common practice, no published source).
 * @throws InputError on `depthShim` or `ringPlacedBy` that the construction does not have, on `ringOff` or `pinionOut`
 * that says no where other facts say yes
 */
export function caseOf(facts: Facts): Case {
  refuse(facts);
  const { arrives, construction, gears, unit, depthShim, ringPlacedBy } = facts;
  const mesh = construction !== 'electric-reduction';
  const inPieces = arrives === 'parts';
  const newGears = gears !== 'stay';
  const newCarrier = unit === 'new-closed' || unit === 'new-opened' || unit === 'locker' || unit === 'spool';
  const touched =
    newGears ||
    unit !== 'stays' ||
    facts.sideBearings === 'new' ||
    facts.pinionBearings === 'new' ||
    facts.ringOff === true ||
    facts.pinionOut === true;
  // What comes in pieces is put together whole, unless the job is another’s.
  const opened = touched || (inPieces && facts.box === 'stays');
  const ringComesOff = facts.ringOff ?? (newGears || newCarrier || (inPieces && opened));
  const pinionComesOut = facts.pinionOut ?? (newGears || facts.pinionBearings === 'new' || (inPieces && opened));
  const depthOpen = mesh && pinionComesOut && (newGears || facts.pinionBearings === 'new' || inPieces);
  const moved = newGears || newCarrier || facts.sideBearings === 'new' || (inPieces && opened);
  const positionOpen = mesh && moved;
  const floatOpen = !mesh && moved;
  const dryTrial = mesh && unit === 'locker' && facts.lockerRings === 'after-dry-trial';
  const byPosition = positionOpen && (ringPlacedBy === 'inboard-shims' || ringPlacedBy === 'covers');
  const whole = arrives === 'car' || arrives === 'axle';
  const outOfCar = construction === 'independent' || construction === 'transaxle' || !mesh;
  const hasProp = mesh && construction !== 'transaxle';
  return {
    ...facts,
    mesh,
    spread: facts.spread ?? (construction === 'integral-head-shim' ? 'spreader' : 'none'),
    caps: mesh && construction !== 'independent' && construction !== 'transaxle',
    opened,
    ringComesOff,
    pinionComesOut,
    newGears,
    newCarrier,
    unitOpened: facts.unitKind === 'plate' && (unit === 'new-opened' || unit === 'own-overhauled'),
    sidePress:
      opened && (facts.sideBearings === 'new' || newCarrier || (positionOpen && ringPlacedBy === 'inboard-shims')),
    depthOpen,
    positionOpen,
    floatOpen,
    gateA: depthOpen || floatOpen || byPosition || dryTrial,
    carrierAgain: (depthOpen && depthShim !== 'support') || byPosition || dryTrial,
    pinionFirst: mesh && pinionComesOut && (depthShim === 'support' || !depthOpen),
    inCar: arrives === 'car',
    whole,
    unitOut: arrives === 'car' && opened && outOfCar,
    propOff: arrives === 'car' && opened && hasProp && (pinionComesOut || !integral(construction)),
    dragRead: opened && hasProp && !pinionComesOut && !inPieces && (arrives !== 'car' || !integral(construction)),
  };
}
