import { SITUATIONS, lockAtInput, lockLaw, type CompareResult, type SituationName } from '@hot-spline/core';
import type { Use } from '../base/names';
import { CRITERIA, type Criterion } from '../identity/schema';
import type { ComparedUnit } from './compare';
import type { Unit } from './schema';

export interface CriterionWords {
  readonly name: string;
  readonly how: string;
}

/** What each criterion is, and how it is measured: ours, from 0 to 100 of the best of the units compared. */
export const CRITERION_WORDS: Readonly<Record<Criterion, CriterionWords>> = {
  'drive-out': {
    name: 'drive out of the corner',
    how: 'Thrust at corner exit (drift: in the transition), of the best.',
  },
  'power-steer': {
    name: 'steers under power',
    how: 'Yaw moment at corner exit: 100 where it turns in or leaves it alone, 0 for what pushes wide the most.',
  },
  'split-grip': { name: 'drive on split grip', how: 'Thrust with one wheel on slippery ground, of the best.' },
  'wheel-lift': {
    name: 'drive with a wheel up',
    how: 'Mean thrust of crossed axle and wheel in the air, of the best.',
  },
  'lift-steady': {
    name: 'steady on lift',
    how: 'Yaw moment against the turn on overrun, of what steadies the most.',
  },
  'low-speed': {
    name: 'steers at low speed',
    how: 'What it holds between the wheels creeping along at a twentieth of the torque, against what one tyre holds.',
  },
  quiet: { name: 'quiet, wears little', how: 'By type: common practice, our numbers.' },
  price: { name: 'price', how: 'By type: common practice, our numbers; ask for offers.' },
  tunable: { name: 'tunable', how: 'By type: common practice, our numbers.' },
};

/** By type, of 100: common practice, no published source; the numbers are ours. */
const BY_TYPE: Readonly<Record<Unit['type'], Readonly<Record<'quiet' | 'price' | 'tunable', number>>>> = {
  open: { quiet: 100, price: 100, tunable: 0 },
  'side-gear-thrust': { quiet: 70, price: 60, tunable: 60 },
  plate: { quiet: 45, price: 35, tunable: 100 },
  cone: { quiet: 70, price: 65, tunable: 20 },
  helical: { quiet: 95, price: 40, tunable: 5 },
  hybrid: { quiet: 75, price: 15, tunable: 45 },
  'friction-insert': { quiet: 60, price: 85, tunable: 35 },
  'selectable-locker': { quiet: 85, price: 25, tunable: 30 },
  'automatic-locker': { quiet: 15, price: 60, tunable: 0 },
  spool: { quiet: 30, price: 90, tunable: 0 },
};

export type CriterionWeights = Readonly<Record<Criterion, number>>;
const weights = (given: Partial<CriterionWeights>): CriterionWeights =>
  Object.fromEntries(CRITERIA.map((key) => [key, given[key] ?? 0])) as Record<Criterion, number>;

/** What each use asks of a unit. Ours, after what each type is for in common practice; no published source. */
export const USE_WEIGHTS: Readonly<Record<Use, CriterionWeights>> = {
  street: weights({
    'drive-out': 13,
    'power-steer': 8,
    'split-grip': 28,
    'lift-steady': 10,
    'low-speed': 20,
    quiet: 16,
    price: 5,
  }),
  drag: weights({ 'split-grip': 65, 'lift-steady': 5, quiet: 5, price: 15, tunable: 10 }),
  circuit: weights({
    'drive-out': 26,
    'power-steer': 20,
    'split-grip': 8,
    'lift-steady': 14,
    'low-speed': 4,
    quiet: 4,
    price: 2,
    tunable: 22,
  }),
  'hill-climb': weights({
    'drive-out': 27,
    'power-steer': 17,
    'split-grip': 14,
    'lift-steady': 10,
    'low-speed': 6,
    quiet: 2,
    price: 4,
    tunable: 20,
  }),
  drift: weights({ 'drive-out': 42, 'split-grip': 10, 'lift-steady': 18, quiet: 4, price: 8, tunable: 18 }),
  oval: weights({ 'drive-out': 46, 'split-grip': 10, 'power-steer': 6, 'lift-steady': 14, price: 14, tunable: 10 }),
  rock: weights({ 'wheel-lift': 62, 'split-grip': 10, 'low-speed': 16, quiet: 4, price: 4, tunable: 4 }),
  raid: weights({
    'drive-out': 8,
    'power-steer': 8,
    'split-grip': 16,
    'wheel-lift': 38,
    'lift-steady': 6,
    'low-speed': 8,
    quiet: 12,
    price: 4,
  }),
};

export interface UnitRank {
  /** 0 to 100: the weighted mean of its parts. */
  readonly score: number;
  /** 0 to 100 by criterion. */
  readonly parts: CriterionWeights;
}

const WHEEL_LIFT: readonly SituationName[] = ['crossed-axle', 'wheel-in-air'];
const AT_SPEED: readonly SituationName[] = ['corner-exit', 'overrun-into-corner', 'drift-transition'];
/** Share of the torque at which low speed is judged. */
const CREEP = 0.05;

/**
 * How well each unit serves a use: what it gives of the best by each criterion, weighed. A yaw moment that turns in is no
 * push; a selectable locker is judged off where the car is fast.
 * @param results for each unit, its results in the order of `SITUATIONS`
 * @param inputNm torque into the unit
 * @param wheelNm what one tyre of the axle holds
 */
export function rankUnits(
  use: Use,
  units: readonly ComparedUnit[],
  results: readonly (readonly CompareResult[])[],
  { inputNm, wheelNm }: { readonly inputNm: number; readonly wheelNm: number },
  weighs: CriterionWeights = USE_WEIGHTS[use],
): UnitRank[] {
  const open = units.findIndex(({ unit }) => unit.type === 'open');
  // At speed a selectable locker is off, and off it is open [common practice].
  const at = (i: number, name: SituationName): CompareResult | undefined => {
    const off = units[i]?.type === 'selectable-locker' && AT_SPEED.includes(name) && open >= 0;
    return results[off ? open : i]?.[SITUATIONS.indexOf(name)];
  };
  const thrust = (i: number, name: SituationName): number => Math.abs(at(i, name)?.thrustN ?? 0);
  const out: SituationName = use === 'drift' ? 'drift-transition' : 'corner-exit';
  const raw = units.map(({ unit, type }, i) => {
    const held = Math.min(lockAtInput(lockLaw(unit, 'drive'), CREEP * inputNm), 2 * wheelNm);
    return {
      driveOut: thrust(i, out),
      pushes: Math.max(0, -(at(i, 'corner-exit')?.yawNm ?? 0)),
      split: thrust(i, 'split-grip'),
      lift: WHEEL_LIFT.reduce((sum, name) => sum + thrust(i, name), 0),
      steadies: Math.max(0, -(at(i, 'overrun-into-corner')?.yawNm ?? 0)),
      // An automatic locker frees the faster wheel, but with a bang; a selectable one is off until it is asked for.
      free: type === 'automatic-locker' ? 0.4 : type === 'selectable-locker' ? 1 : 1 - held / (2 * wheelNm),
    };
  });
  const most = (key: keyof (typeof raw)[number]): number => Math.max(1e-9, ...raw.map((one) => one[key]));
  const top = { driveOut: most('driveOut'), pushes: most('pushes'), split: most('split'), lift: most('lift') };
  const steadiest = most('steadies');
  const all = CRITERIA.reduce((sum, key) => sum + weighs[key], 0);
  return units.map(({ type }, i) => {
    const one = raw[i] as (typeof raw)[number];
    const parts: CriterionWeights = {
      'drive-out': (100 * one.driveOut) / top.driveOut,
      'power-steer': 100 * (1 - one.pushes / top.pushes),
      'split-grip': (100 * one.split) / top.split,
      'wheel-lift': (100 * one.lift) / top.lift,
      'lift-steady': (100 * one.steadies) / steadiest,
      'low-speed': 100 * one.free,
      ...BY_TYPE[type],
    };
    return {
      score: all === 0 ? 0 : CRITERIA.reduce((sum, key) => sum + weighs[key] * parts[key], 0) / all,
      parts,
    };
  });
}

/** Points of the score that a criterion has to make or cost against the mean of all before it is said. Ours. */
const SAID_POINTS = 1.5;

export interface Speaks {
  readonly for: readonly Criterion[];
  readonly against: readonly Criterion[];
}

/**
 * What speaks most for each unit and most against it, at most two of each, the weightiest first: by how many points of the score a
 * criterion lifts it above the mean of all the units compared, or sets it below. What is not weighed speaks neither way.
 */
export function speaks(ranks: readonly UnitRank[], weighs: CriterionWeights): Speaks[] {
  const all = CRITERIA.reduce((sum, key) => sum + weighs[key], 0);
  const mean = (key: Criterion): number => ranks.reduce((sum, { parts }) => sum + parts[key], 0) / ranks.length;
  const means = new Map(CRITERIA.map((key) => [key, mean(key)]));
  return ranks.map(({ parts }) => {
    const points = CRITERIA.map((key) => ({
      key,
      gain: all === 0 ? 0 : (weighs[key] * (parts[key] - (means.get(key) ?? 0))) / all,
    })).sort((a, b) => b.gain - a.gain);
    const keys = (list: typeof points): Criterion[] => list.slice(0, 2).map(({ key }) => key);
    return {
      for: keys(points.filter(({ gain }) => gain >= SAID_POINTS)),
      against: keys(points.filter(({ gain }) => gain <= -SAID_POINTS).reverse()),
    };
  });
}
