import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { frictionRadius, packBreakaway } from './breakaway';
import { columnTravel, groupFreeHeight, isDiscs, springColumn, type SpringGroup } from './spring-column';
import { LISTED_TRAVEL, plateOrders, type WantedProblem } from './wanted';

/** One pack of a way, as it would stand with the middle of the band held. */
export interface WaySide {
  /** Plates and springs as they stand then: the least depth that the case has to have. */
  readonly needsMm: number;
  /** Case depth less that: shims fill it; below nought the case is that much too shallow. */
  readonly roomMm: number;
  readonly clampN: number;
  readonly breakawayNm: number;
  /** Share of its way to flat of the spring that is nearest to it. */
  readonly flattest: number;
}

/** What would have to be there for packs whose springs are too weak. */
export interface Way {
  /** So many dished springs nested where one lies now; or so many working surfaces a side with the springs as they are. */
  readonly kind: 'nested' | 'surfaces';
  readonly count: number;
  readonly sides: readonly WaySide[];
  /** Whether every case has the room. */
  readonly fits: boolean;
}

/** More springs, or more surfaces, than these are no advice any more; ours. */
const MOST_NESTED = 6;
const MOST_SURFACES = 30;

const nestedMore = (springs: readonly SpringGroup[], times: number): readonly SpringGroup[] | null =>
  springs.every((group) => isDiscs(group) && group.discs.length * times <= 20)
    ? springs.map((group) =>
        isDiscs(group) ? { discs: Array.from({ length: times }, () => group.discs).flat() } : group,
      )
    : null;

/**
 * What reaches the middle of a band that these springs are too weak for, with the room that it takes: the fewest springs
 * nested where one lies now, and the fewest working surfaces, each computed through to the depth that the case has to have.
 * The fewest whose springs stay within their listed travel; where none do, the fewest at all. Nesting takes room: every
 * spring more is one thickness more, at the same travel [exact]. A surface more is taken to be one plate more of the mean
 * thickness of those that are there.
 * Not counted: shims (what room is left is theirs), friction between nested springs, whether a plate of that thickness is made.
 * @param problem as for `wantedPack`
 * @returns none for packs that have no order at all, or no way within 6 springs and 30 surfaces
 * @throws InputError naming the field
 */
export function waysToReach({ sides, friction, bandNm: [low, high] }: WantedProblem): Way[] {
  requireNumber('bandNm[0]', low, { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });
  requireNumber('bandNm[1]', high, { above: low, max: LIMITS.torqueNm.max, unit: 'N·m' });
  const aimNm = (low + high) / 2;
  const orders = sides.map(({ plates }) => plateOrders(plates));
  const most = Math.max(0, ...[...(orders[0]?.keys() ?? [])].filter((n) => orders.every((map) => map.has(n))));
  if (most === 0) return [];
  const armM = frictionRadius(friction.outerRadiusMm, friction.innerRadiusMm, friction.wearModel) / 1000;

  const standing = (
    side: (typeof sides)[number],
    springs: readonly SpringGroup[],
    interfaces: number,
    platesMm: number,
  ): WaySide | null => {
    const travel = columnTravel(springs, aimNm / (friction.frictionCoefficient * interfaces * armM));
    if (travel === null) return null;
    const { forceN, flattest } = springColumn(springs, travel);
    const free = springs.reduce((sum, group) => sum + groupFreeHeight(group), 0);
    const needsMm = platesMm + free - travel;
    return {
      needsMm,
      roomMm: side.caseDepthMm - needsMm,
      clampN: forceN,
      breakawayNm: packBreakaway({ ...friction, interfaces, clampN: forceN }),
      flattest,
    };
  };
  const first = (
    kind: Way['kind'],
    counts: readonly number[],
    of: (count: number, i: number) => WaySide | null,
  ): Way[] => {
    const ways = counts
      .map((count) => ({ kind, count, sides: sides.map((_, i) => of(count, i)).filter((side) => side !== null) }))
      .filter((way) => way.sides.length === sides.length);
    const way = ways.find((one) => one.sides.every(({ flattest }) => flattest <= LISTED_TRAVEL)) ?? ways[0];
    return way ? [{ ...way, fits: way.sides.every(({ roomMm }) => roomMm >= 0) }] : [];
  };
  const range = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i);

  return [
    ...first('nested', range(2, MOST_NESTED), (count, i) => {
      const side = sides[i] as (typeof sides)[number];
      const springs = nestedMore(side.springs, count);
      return springs && standing(side, springs, most, side.platesMm);
    }),
    ...first('surfaces', range(most + 1, Math.max(most + 1, MOST_SURFACES)), (count, i) => {
      const side = sides[i] as (typeof sides)[number];
      const plateMm = side.platesMm / side.plates.length;
      return standing(side, side.springs, count, side.platesMm + (count - most) * plateMm);
    }),
  ].sort((a, b) => Number(b.fits) - Number(a.fits));
}
