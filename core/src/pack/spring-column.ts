import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import {
  SNAP_THROUGH_RATIO,
  SPRING_STEEL,
  discRisingTravel,
  discSpringForce,
  discSpringRate,
  requireDisc,
  type DiscSpring,
} from './disc-spring';

/**
 * Discs nested in the same direction, of one cone height: each carries its own load at the same travel, F = Σ F_i [exact].
 * Not counted: friction between them, which adds some per cent while they are pressed.
 */
export interface DiscGroup {
  readonly discs: readonly DiscSpring[];
}

/** Equal discs nested. */
export const nestedDiscs = (spring: DiscSpring, count: number): DiscGroup => ({
  discs: Array.from({ length: count }, () => spring),
});

/** Force in proportion to travel: coil springs side by side (their rates added), a wave plate. */
export interface LinearGroup {
  readonly rateNPerMm: number;
  readonly freeMm: number;
  /** Coil on coil, or flat. */
  readonly solidMm: number;
}

/** A spring whose force was measured at some heights; straight lines between, nothing below the lowest. */
export interface MeasuredGroup {
  readonly freeMm: number;
  /** Heights fall, forces rise. */
  readonly points: readonly { readonly heightMm: number; readonly forceN: number }[];
}

export type SpringGroup = DiscGroup | LinearGroup | MeasuredGroup;

export const isDiscs = (group: SpringGroup): group is DiscGroup => 'discs' in group;

const RATE = { above: 0, max: 1e6, unit: 'N/mm' };

function requireGroup(group: SpringGroup): void {
  if (isDiscs(group)) {
    const { discs } = group;
    requireNumber('nested', discs.length, { min: 1, max: 20, integer: true });
    for (const spring of discs) {
      requireDisc(spring);
      if (spring.coneHeightMm / spring.thicknessMm > SNAP_THROUGH_RATIO) {
        throw new InputError(
          'coneHeightMm',
          'coneHeightMm: cone height over thickness is above 2√2, so the spring snaps through and can hold no preload.',
          `at most ${(SNAP_THROUGH_RATIO * spring.thicknessMm).toFixed(2)} mm at this thickness`,
        );
      }
      if (Math.abs(spring.coneHeightMm - coneHeight(group)) > 1e-9)
        throw new InputError(
          'coneHeightMm',
          'coneHeightMm: nested dished springs must have one cone height.',
          `${coneHeight(group)} mm, or turn one round`,
        );
    }
    return;
  }
  const free = requireNumber('freeMm', group.freeMm, LIMITS.thicknessMm);
  if ('rateNPerMm' in group) {
    requireNumber('rateNPerMm', group.rateNPerMm, RATE);
    requireNumber('solidMm', group.solidMm, LIMITS.thicknessMm);
    if (group.solidMm >= free)
      throw new InputError('solidMm', 'solidMm is not below the free height.', `below ${free} mm`);
    return;
  }
  if (group.points.length === 0) throw new InputError('points', 'points is empty.', 'at least one measured force');
  group.points.reduce(
    (before, point, i) => {
      requireNumber(`points[${i}].heightMm`, point.heightMm, LIMITS.thicknessMm);
      requireNumber(`points[${i}].forceN`, point.forceN, LIMITS.forceN);
      if (point.heightMm >= before.heightMm || point.forceN <= before.forceN)
        throw new InputError(
          `points[${i}]`,
          `points[${i}]: heights must fall from the free height, and forces rise.`,
          'a lower height with a higher force',
        );
      return point;
    },
    { heightMm: free, forceN: 0 },
  );
}

const coneHeight = ({ discs }: DiscGroup): number => discs[0]?.coneHeightMm ?? 0;

/** Free height in mm: Σt + h₀ of nested discs. */
export function groupFreeHeight(group: SpringGroup): number {
  return isDiscs(group) ? sum(group.discs.map(({ thicknessMm }) => thicknessMm)) + coneHeight(group) : group.freeMm;
}

/** The way in mm from free to flat, to coil on coil, or to the lowest height that was measured. */
export function groupReach(group: SpringGroup): number {
  if (isDiscs(group)) return coneHeight(group);
  if ('rateNPerMm' in group) return group.freeMm - group.solidMm;
  return group.freeMm - (group.points.at(-1)?.heightMm ?? group.freeMm);
}

function groupForce(group: SpringGroup, travelMm: number): number {
  // Bisection may ask for the last digit beyond flat; more than that is refused before.
  const travel = Math.min(travelMm, groupReach(group));
  if (isDiscs(group)) return sum(group.discs.map((spring) => discSpringForce(spring, travel)));
  if ('rateNPerMm' in group) return group.rateNPerMm * travel;
  const height = group.freeMm - travel;
  let above = { heightMm: group.freeMm, forceN: 0 };
  for (const point of group.points) {
    if (height >= point.heightMm) {
      const share = (above.heightMm - height) / (above.heightMm - point.heightMm);
      return above.forceN + share * (point.forceN - above.forceN);
    }
    above = point;
  }
  return above.forceN;
}

/** Stiffness of nested discs, N/mm. */
const discsRate = ({ discs }: DiscGroup, travelMm: number): number =>
  sum(discs.map((spring) => discSpringRate(spring, travelMm)));

/** Travel up to which a group holds more and more. */
function risingTravel(group: SpringGroup): number {
  if (!isDiscs(group)) return groupReach(group);
  const rises = group.discs.map(discRisingTravel);
  let [low, high] = [Math.min(...rises), Math.max(...rises)];
  if (high - low < 1e-12 || discsRate(group, high) >= 0) return high;
  // Between the peaks of the single discs lies that of their sum.
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (discsRate(group, middle) > 0) low = middle;
    else high = middle;
  }
  return low;
}

const DISC_KEYS = ['outerDiameterMm', 'innerDiameterMm', 'thicknessMm', 'coneHeightMm'] as const;
const sameDisc = (a: DiscSpring, b: DiscSpring): boolean =>
  DISC_KEYS.every((key) => a[key] === b[key]) &&
  (a.youngGPa ?? SPRING_STEEL.youngGPa) === (b.youngGPa ?? SPRING_STEEL.youngGPa) &&
  (a.poisson ?? SPRING_STEEL.poisson) === (b.poisson ?? SPRING_STEEL.poisson);

/** Whether two groups press the same at every travel, as far as it is seen at a glance. */
export function sameGroup(a: SpringGroup, b: SpringGroup): boolean {
  if (a === b) return true;
  if (!isDiscs(a) || !isDiscs(b)) return false;
  return a.discs.length === b.discs.length && a.discs.every((disc, i) => sameDisc(disc, b.discs[i] as DiscSpring));
}

export interface ColumnState {
  /** The same through the whole column. */
  readonly forceN: number;
  /** Travel of each group, mm. */
  readonly travelsMm: readonly number[];
  /** The largest share of its own travel that a group has used: 1 is flat. */
  readonly flattest: number;
  /** Equal springs that don't share the travel: past the peak one gives way and the others stay. */
  readonly apart: boolean;
}

const travelAtForce = (group: SpringGroup, forceN: number): number => leastTravelAt(group, forceN, risingTravel(group));

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/**
 * Largest force in N that groups in series hold on their rising part, and the travel in mm at which they do. Not counted: friction between springs.
 */
export function columnPeak(groups: readonly SpringGroup[]): { forceN: number; travelMm: number } {
  const forceN = Math.min(...groups.map((group) => groupForce(group, risingTravel(group))));
  if (groups.length === 0) return { forceN: 0, travelMm: 0 };
  return { forceN, travelMm: sum(groups.map((group) => travelAtForce(group, forceN))) };
}

/**
 * Travel in mm at which groups in series hold `forceN`, on the rising part: the inverse of {@link springColumn}.
 * @returns null where they can't hold so much
 */
export function columnTravel(groups: readonly SpringGroup[], forceN: number): number | null {
  if (groups.length === 0 || forceN > columnPeak(groups).forceN) return null;
  return sum(groups.map((group) => travelAtForce(group, forceN)));
}

/**
 * Equal groups in series, pressed past the travel at which they hold most: they don't share it. One after the other gives way;
 * what is stable has the rest on their rising part, those that gave way flat, and at most one in between [exact: the
 * stationary state whose stiffness matrix under a given travel is positive]. Of several such states the one with the fewest
 * that gave way is where pressing together ends.
 */
function pastPeak(group: SpringGroup, count: number, travelMm: number): { forceN: number; travelsMm: number[] } {
  const flat = groupReach(group);
  const peak = risingTravel(group);
  const flatN = groupForce(group, flat);
  const list = (gone: number, between: number | null, each: number): number[] => [
    ...Array.from({ length: gone }, () => flat),
    ...(between === null ? [] : [between]),
    ...Array.from({ length: count - gone - Number(between !== null) }, () => each),
  ];
  /** Where on its falling part a group holds as much as one on its rising part does. */
  const falling = (forceN: number): number => {
    let [low, high] = [peak, flat];
    for (let i = 0; i < 60; i++) {
      const middle = (low + high) / 2;
      if (groupForce(group, middle) > forceN) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  for (let gone = 0; gone < count; gone++) {
    const left = travelMm - gone * flat;
    const each = left / (count - gone);
    if (gone > 0 && each >= 0 && each <= peak && groupForce(group, each) >= flatN)
      return { forceN: groupForce(group, each), travelsMm: list(gone, null, each) };
    const rest = count - gone - 1;
    if (rest === 0) {
      if (left >= peak && left <= flat) return { forceN: groupForce(group, left), travelsMm: list(gone, left, 0) };
      continue;
    }
    // One in between, the rest rising: from the peak downwards, the first place at which it goes up to this travel.
    const total = (s: number): number => falling(groupForce(group, s)) + rest * s;
    const least = leastTravelAt(group, flatN, peak);
    const steps = 200;
    for (let i = 0; i < steps; i++) {
      let [near, far] = [peak - ((peak - least) * i) / steps, peak - ((peak - least) * (i + 1)) / steps];
      if (!(total(near) <= left && total(far) >= left)) continue;
      for (let k = 0; k < 60; k++) {
        const middle = (near + far) / 2;
        if (total(middle) <= left) near = middle;
        else far = middle;
      }
      const s = (near + far) / 2;
      return { forceN: groupForce(group, s), travelsMm: list(gone, falling(groupForce(group, s)), s) };
    }
  }
  return { forceN: flatN, travelsMm: list(count, null, 0) };
}

/** Travel on the rising part at which a group holds `forceN`. */
function leastTravelAt(group: SpringGroup, forceN: number, peak: number): number {
  let [low, high] = [0, peak];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (groupForce(group, middle) < forceN) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Force and travels of groups of springs in series, pressed together by `travelMm` in all. In series travels add and the
 * force is one [exact]. Equal groups past their peak: see `apart`. Not counted: friction between springs, and what they take
 * to come back.
 * @param groups from one end to the other
 * @throws InputError on `travelMm` for travel past flat, on `coneHeightMm` for a spring that snaps through
 *   (h₀/t > 2√2), and for mixed groups past the limit of the weakest of them
 */
export function springColumn(groups: readonly SpringGroup[], travelMm: number): ColumnState {
  groups.forEach(requireGroup);
  const flat = sum(groups.map(groupReach));
  requireNumber('travelMm', travelMm, { min: 0, max: flat * (1 + 1e-12), unit: 'mm (flat)' });
  const first = groups[0];
  if (!first || travelMm === 0) return { forceN: 0, travelsMm: groups.map(() => 0), flattest: 0, apart: false };
  const state = (forceN: number, travelsMm: readonly number[], apart = false): ColumnState => ({
    forceN,
    travelsMm,
    flattest: Math.max(...groups.map((group, i) => (travelsMm[i] ?? 0) / groupReach(group))),
    apart,
  });
  if (groups.every((group) => sameGroup(group, first))) {
    const each = travelMm / groups.length;
    if (groups.length === 1 || each <= risingTravel(first)) {
      return state(
        groupForce(first, each),
        groups.map(() => each),
      );
    }
    const { forceN, travelsMm } = pastPeak(first, groups.length, travelMm);
    return state(forceN, travelsMm, true);
  }
  const { forceN: strongest, travelMm: reach } = columnPeak(groups);
  const travelAt = (forceN: number): number[] => groups.map((group) => travelAtForce(group, forceN));
  if (travelMm > reach) {
    throw new InputError(
      'travelMm',
      `travelMm: the weakest spring of the mixed column is at its limit after ${reach.toFixed(3)} mm.`,
      `from 0 to ${reach.toFixed(3)} mm`,
    );
  }
  let low = 0;
  let high = strongest;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (sum(travelAt(middle)) < travelMm) low = middle;
    else high = middle;
  }
  const forceN = (low + high) / 2;
  return state(forceN, travelAt(forceN));
}
