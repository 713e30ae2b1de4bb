import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { SNAP_THROUGH_RATIO, discRisingTravel, discSpringForce, requireDisc, type DiscSpring } from './disc-spring';

/** Identical discs nested in the same direction: forces add, the cone height stays [exact]. */
export interface DiscGroup {
  readonly spring: DiscSpring;
  readonly nested: number;
}

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

export const isDiscs = (group: SpringGroup): group is DiscGroup => 'spring' in group;

const RATE = { above: 0, max: 1e6, unit: 'N/mm' };

function requireGroup(group: SpringGroup): void {
  if (isDiscs(group)) {
    const { spring, nested } = group;
    requireDisc(spring);
    requireNumber('nested', nested, { min: 1, max: 20, integer: true });
    if (spring.coneHeightMm / spring.thicknessMm > SNAP_THROUGH_RATIO) {
      throw new InputError(
        'coneHeightMm',
        'coneHeightMm: cone height over thickness is above 2√2, so the spring snaps through and can hold no preload.',
        `at most ${(SNAP_THROUGH_RATIO * spring.thicknessMm).toFixed(2)} mm at this thickness`,
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

/** Free height in mm: n·t + h₀ of nested discs. */
export function groupFreeHeight(group: SpringGroup): number {
  return isDiscs(group) ? group.nested * group.spring.thicknessMm + group.spring.coneHeightMm : group.freeMm;
}

/** The way in mm from free to flat, to coil on coil, or to the lowest height that was measured. */
export function groupReach(group: SpringGroup): number {
  if (isDiscs(group)) return group.spring.coneHeightMm;
  if ('rateNPerMm' in group) return group.freeMm - group.solidMm;
  return group.freeMm - (group.points.at(-1)?.heightMm ?? group.freeMm);
}

function groupForce(group: SpringGroup, travelMm: number): number {
  const travel = Math.min(travelMm, groupReach(group));
  if (isDiscs(group)) return group.nested * discSpringForce(group.spring, travel);
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

const risingTravel = (group: SpringGroup): number =>
  isDiscs(group) ? discRisingTravel(group.spring) : groupReach(group);

/** Whether two groups press the same at every travel, as far as it is seen at a glance. */
export function sameGroup(a: SpringGroup, b: SpringGroup): boolean {
  if (a === b) return true;
  if (!isDiscs(a) || !isDiscs(b)) return false;
  return (
    a.nested === b.nested &&
    a.spring.outerDiameterMm === b.spring.outerDiameterMm &&
    a.spring.innerDiameterMm === b.spring.innerDiameterMm &&
    a.spring.thicknessMm === b.spring.thicknessMm &&
    a.spring.coneHeightMm === b.spring.coneHeightMm
  );
}

export interface ColumnState {
  /** The same through the whole column. */
  readonly forceN: number;
  /** Travel of each group, mm. */
  readonly travelsMm: readonly number[];
  /** The largest share of its own travel that a group has used: 1 is flat. */
  readonly flattest: number;
}

function travelAtForce(group: SpringGroup, forceN: number): number {
  let low = 0;
  let high = risingTravel(group);
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (groupForce(group, middle) < forceN) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** Largest force in N that groups in series hold on their rising part, and the travel in mm at which they do. */
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
 * Force and travels of groups of springs in series, pressed together by `travelMm` in all. In series travels add and the
 * force is one [exact].
 * @param groups from one end to the other
 * @throws InputError on `travelMm` for travel past flat, on `coneHeightMm` for a spring that snaps through
 *   (h₀/t > 2√2), and for mixed groups past the limit of the weakest of them
 */
export function springColumn(groups: readonly SpringGroup[], travelMm: number): ColumnState {
  groups.forEach(requireGroup);
  const flat = sum(groups.map(groupReach));
  requireNumber('travelMm', travelMm, { min: 0, max: flat * (1 + 1e-12), unit: 'mm (flat)' });
  const first = groups[0];
  if (!first || travelMm === 0) return { forceN: 0, travelsMm: groups.map(() => 0), flattest: 0 };
  const state = (forceN: number, travelsMm: number[]): ColumnState => ({
    forceN,
    travelsMm,
    flattest: Math.max(...groups.map((group, i) => (travelsMm[i] ?? 0) / groupReach(group))),
  });
  if (groups.every((group) => sameGroup(group, first))) {
    const each = travelMm / groups.length;
    return state(
      groupForce(first, each),
      groups.map(() => each),
    );
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
