import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { frictionRadius, packBreakaway, type PackFriction } from './breakaway';
import { columnPeak, columnTravel, groupFreeHeight, springColumn, type SpringGroup } from './spring-column';
import { type PackMember } from './interfaces';
import { shimsFrom, type ShimStock } from './shims';

export interface WantedSide {
  /** Plates in their present order, outwards from the side gear; shims and springs lie outside of them. */
  readonly plates: readonly PackMember[];
  /** Height of these plates together. */
  readonly platesMm: number;
  /** From the side gear's back face to the case wall. */
  readonly caseDepthMm: number;
  /** Dished springs in force order. */
  readonly springs: readonly SpringGroup[];
}

export interface WantedProblem {
  readonly sides: readonly WantedSide[];
  readonly friction: Omit<PackFriction, 'interfaces' | 'clampN'>;
  /** What one pack should hold, N·m. */
  readonly bandNm: readonly [number, number];
  readonly stock: readonly ShimStock[];
  readonly maxPiecesPerSide: number;
}

export interface WantedSideResult {
  /** Places of the plates in their present order, as they should lie. */
  readonly order: readonly number[];
  /** Plates that lie elsewhere than now. */
  readonly moved: number;
  readonly shimsMm: readonly number[];
  readonly stackMm: number;
  /** Room that is left for the springs. */
  readonly installedMm: number;
  readonly clampN: number;
  readonly breakawayNm: number;
  /** What one more mm of shim does, N·m per mm. */
  readonly slopeNmPerMm: number;
  /** Share of its way to flat of the spring that is nearest to it. */
  readonly flattest: number;
  /** Wear of the stack after which the pack holds less than the band asks; negative where it does already. */
  readonly reserveMm: number;
}

export interface Plan {
  readonly interfaces: number;
  readonly sides: readonly WantedSideResult[];
  readonly inBand: boolean;
  /** How far the packs hold apart, as a share of their mean. */
  readonly uneven: number;
  /** The smaller reserve of the two. */
  readonly reserveMm: number;
  /** Whether no shims of the drawer come nearer to what was aimed at; the best that was met, where it is too large to know. */
  readonly provenBest: boolean;
}

export interface WantedResult {
  /** Best first. */
  readonly plans: readonly Plan[];
  /** Orders whose springs can't press hard enough for the band, with what they would hold at most. */
  readonly tooWeak: readonly { readonly interfaces: number; readonly mostNm: number }[];
}

export const WANTED_LIMITS = { plates: { min: 1, max: 30, integer: true }, sides: { min: 1, max: 2, integer: true } };
/** Where in the band the plans aim: at its middle, and high up, which leaves more to wear. */
const AIMS = [0.5, 0.85];
const SLOPE_STEP_MM = 1e-3;
/** Springs further on their way to flat than this tire early (EN 16983 tables, from memory): such plans come later. */
export const LISTED_TRAVEL = 0.75;
/** Packs that hold apart by less than this share are told apart by nothing on the bench: ours. */
const EVEN = 0.01;
/** Partial stacks looked at in all: every height that is aimed at has its share, so that a large drawer takes seconds, not minutes; ours. */
const BUDGET = 12_000_000;
const LEAST_SHARE = 50_000;
const TRIES = 12;

export interface PlateOrder {
  readonly order: readonly number[];
  readonly moved: number;
}

const rubs = (a: PackMember, b: PackMember): 'works' | 'bare' | 'idle' =>
  a.keyedTo === b.keyedTo ? 'idle' : a.lined || b.lined ? 'works' : 'bare';
const GEAR: PackMember = { keyedTo: 'gear', lined: false };
const CASE: PackMember = { keyedTo: 'case', lined: false };

/**
 * For every number of friction interfaces that some order of these plates makes, the order with the fewest plates moved.
 * Orders in which two bare plates would rub on each other are left out; the gear's back face is bare and may [exact, by
 * dynamic programming over how many plates of each kind are laid].
 * @param plates 1 to 30, in their present order outwards from the side gear; the case side (shim, spring, wall) is bare
 * @throws InputError on `plates`
 */
export function plateOrders(plates: readonly PackMember[]): Map<number, PlateOrder> {
  requireNumber('plates', plates.length, WANTED_LIMITS.plates);
  const kindOf = ({ keyedTo, lined }: PackMember): string => `${keyedTo}${lined ? '+' : ''}`;
  const kinds = [...new Map(plates.map((plate) => [kindOf(plate), plate])).values()];
  const have = kinds.map((kind) => plates.filter((plate) => kindOf(plate) === kindOf(kind)).length);
  const now = plates.map((plate) => kinds.findIndex((kind) => kindOf(kind) === kindOf(plate)));

  interface Laid {
    readonly used: readonly number[];
    readonly last: number;
    readonly interfaces: number;
    readonly moved: number;
    readonly before: Laid | null;
  }
  let level = new Map<string, Laid>([
    ['', { used: kinds.map(() => 0), last: -1, interfaces: 0, moved: 0, before: null }],
  ]);
  plates.forEach((_, place) => {
    const next = new Map<string, Laid>();
    for (const laid of level.values()) {
      kinds.forEach((kind, k) => {
        if ((laid.used[k] as number) >= (have[k] as number)) return;
        const meets = rubs(laid.last < 0 ? GEAR : (kinds[laid.last] as PackMember), kind);
        if (meets === 'bare' && laid.last >= 0) return;
        const used = laid.used.map((count, i) => count + Number(i === k));
        const interfaces = laid.interfaces + Number(meets === 'works');
        const moved = laid.moved + Number(now[place] !== k);
        const key = `${used.join()}|${k}|${interfaces}`;
        if (moved < (next.get(key)?.moved ?? Number.POSITIVE_INFINITY))
          next.set(key, { used, last: k, interfaces, moved, before: laid });
      });
    }
    level = next;
  });
  const best = new Map<number, Laid>();
  for (const laid of level.values()) {
    const meets = rubs(kinds[laid.last] as PackMember, CASE);
    if (meets === 'bare') continue;
    const interfaces = laid.interfaces + Number(meets === 'works');
    if (laid.moved < (best.get(interfaces)?.moved ?? Number.POSITIVE_INFINITY)) best.set(interfaces, laid);
  }
  return new Map(
    [...best].sort(([a], [b]) => a - b).map(([interfaces, laid]) => [interfaces, placed(sequence(laid), now)]),
  );

  function sequence(end: Laid): number[] {
    const kindsLaid: number[] = [];
    for (let at: Laid | null = end; at && at.last >= 0; at = at.before) kindsLaid.unshift(at.last);
    return kindsLaid;
  }
}

/** Real plates for a sequence of kinds: whoever lies right already stays, the rest keep their order. */
function placed(wanted: readonly number[], now: readonly number[]): PlateOrder {
  const stays = wanted.map((kind, place) => now[place] === kind);
  const free = now.map((kind, place) => ({ kind, place })).filter(({ place }) => !stays[place]);
  const order = wanted.map((kind, place) => {
    if (stays[place]) return place;
    const at = free.findIndex((plate) => plate.kind === kind);
    return (free.splice(at, 1)[0] as { place: number }).place;
  });
  return { order, moved: stays.filter((one) => !one).length };
}

function check({ sides, friction, bandNm: [low, high] }: WantedProblem): void {
  requireNumber('sides', sides.length, WANTED_LIMITS.sides);
  requireNumber('frictionCoefficient', friction.frictionCoefficient, LIMITS.frictionCoefficient);
  requireNumber('bandNm[0]', low, { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });
  requireNumber('bandNm[1]', high, { above: low, max: LIMITS.torqueNm.max, unit: 'N·m' });
  sides.forEach(({ platesMm, caseDepthMm, springs }, i) => {
    requireNumber(`sides[${i}].caseDepthMm`, caseDepthMm, LIMITS.thicknessMm);
    requireNumber(`sides[${i}].platesMm`, platesMm, { above: 0, max: caseDepthMm, unit: 'mm (case depth)' });
    if (springs.length === 0)
      throw new InputError(
        `sides[${i}].springs`,
        `sides[${i}].springs is empty.`,
        'dished springs: without them, no height makes a preload',
      );
  });
}

type Peak = ReturnType<typeof columnPeak>;

/** Travel at which springs hold a force; where they never hold so much, the travel of their peak. */
function travelFor(springs: readonly SpringGroup[], forceN: number, peak: Peak): number {
  return forceN >= peak.forceN ? peak.travelMm : (columnTravel(springs, forceN) ?? peak.travelMm);
}

/**
 * From a wanted breakaway to the packs that give it: every number of interfaces that both packs can be laid for, the
 * clamp force that the band then asks for, the spring travel that gives it, and the shims from stock that come nearest to
 * that height. Ranked: inside the band first, then springs within their listed travel, then packs that hold alike, then
 * what is left to wear, then few plates moved.
 * Not counted: drag of oil, wear of single plates, springs between the gears.
 * @param problem one side or two; the band is that of one pack, not of the torque wrench
 * @throws InputError naming the field
 */
export function wantedPack(problem: WantedProblem): WantedResult {
  check(problem);
  const { sides, friction, bandNm, stock, maxPiecesPerSide } = problem;
  const [low, high] = bandNm;
  const orders = sides.map(({ plates }) => plateOrders(plates));
  const counts = [...(orders[0]?.keys() ?? [])].filter((n) => n > 0 && orders.every((map) => map.has(n)));
  const newtonMetres = frictionRadius(friction.outerRadiusMm, friction.innerRadiusMm, friction.wearModel) / 1000;
  const clampFor = (torqueNm: number, interfaces: number): number =>
    torqueNm / (friction.frictionCoefficient * interfaces * newtonMetres);
  const free = sides.map(({ springs }) => springs.reduce((sum, group) => sum + groupFreeHeight(group), 0));
  const plans: Plan[] = [];
  const tooWeak: { interfaces: number; mostNm: number }[] = [];
  const share = BUDGET / Math.max(1, counts.length * AIMS.length * (TRIES + 1));
  const drawer = shimsFrom(stock, maxPiecesPerSide, Math.max(LEAST_SHARE, share));

  for (const interfaces of counts) {
    const peaks = sides.map(({ springs }) => columnPeak(springs));
    const mostNm = Math.min(...peaks.map(({ forceN }) => packBreakaway({ ...friction, interfaces, clampN: forceN })));
    if (mostNm < low) {
      tooWeak.push({ interfaces, mostNm });
      continue;
    }
    for (const aim of AIMS) {
      const wantedN = clampFor(low + aim * (high - low), interfaces);
      const targets = sides.map(({ springs, caseDepthMm, platesMm }, i) => {
        const room = (free[i] as number) - travelFor(springs, wantedN, peaks[i] as Peak);
        return { fixedMm: platesMm, targetMm: Math.max(0, caseDepthMm - room) };
      });
      // The nearest shims may press a spring past its peak: then a little less is aimed at, until they don't.
      const past = (heightMm: number, i: number): number =>
        (free[i] as number) - ((sides[i] as WantedSide).caseDepthMm - heightMm) - (peaks[i] as Peak).travelMm;
      let { sides: chosen, provenBest } = drawer(targets);
      for (let tries = 0; tries < TRIES && chosen.some(({ heightMm }, i) => past(heightMm, i) > 0); tries++) {
        chosen.forEach(({ heightMm }, i) => {
          const target = targets[i] as (typeof targets)[number];
          const over = past(heightMm, i);
          if (over > 0) target.targetMm = Math.max(0, target.targetMm - over - 1e-9);
        });
        ({ sides: chosen, provenBest } = drawer(targets));
      }
      const planned = sides.map((side, i): WantedSideResult | null => {
        const { piecesMm: shimsMm, heightMm: stackMm } = chosen[i] as (typeof chosen)[number];
        const installedMm = side.caseDepthMm - stackMm;
        const travel = (free[i] as number) - installedMm;
        const reach = (peaks[i] as { travelMm: number }).travelMm;
        if (travel < 0 || travel > reach) return null;
        const torqueAt = (mm: number): number =>
          packBreakaway({ ...friction, interfaces, clampN: springColumn(side.springs, mm).forceN });
        const column = springColumn(side.springs, travel);
        const [under, over] = [Math.max(0, travel - SLOPE_STEP_MM), Math.min(reach, travel + SLOPE_STEP_MM)];
        return {
          ...((orders[i] as Map<number, PlateOrder>).get(interfaces) as PlateOrder),
          shimsMm,
          stackMm,
          installedMm,
          clampN: column.forceN,
          breakawayNm: torqueAt(travel),
          slopeNmPerMm: (torqueAt(over) - torqueAt(under)) / (over - under),
          flattest: column.flattest,
          reserveMm: travel - travelFor(side.springs, clampFor(low, interfaces), peaks[i] as Peak),
        };
      });
      const whole = planned.filter((side) => side !== null);
      if (whole.length < sides.length) continue;
      const held = whole.map(({ breakawayNm }) => breakawayNm);
      const [least, most] = [Math.min(...held), Math.max(...held)];
      plans.push({
        interfaces,
        sides: whole,
        inBand: least >= low && most <= high,
        uneven: (2 * (most - least)) / (most + least),
        reserveMm: Math.min(...whole.map(({ reserveMm }) => reserveMm)),
        provenBest,
      });
    }
  }
  return { plans: ranked(plans, bandNm), tooWeak };
}

function ranked(plans: readonly Plan[], [low, high]: readonly [number, number]): Plan[] {
  const outside = ({ sides }: Plan): number =>
    Math.max(...sides.map(({ breakawayNm }) => Math.max(low - breakawayNm, breakawayNm - high, 0)));
  const moved = ({ sides }: Plan): number => sides.reduce((sum, side) => sum + side.moved, 0);
  const even = ({ uneven }: Plan): number => Math.floor(uneven / EVEN);
  const hard = ({ sides }: Plan): number => Number(sides.some(({ flattest }) => flattest > LISTED_TRAVEL));
  const same = (a: Plan, b: Plan): boolean =>
    a.interfaces === b.interfaces && a.sides.every(({ stackMm }, i) => stackMm === b.sides[i]?.stackMm);
  return plans
    .filter((plan, i) => !plans.slice(0, i).some((other) => same(plan, other)))
    .sort(
      (a, b) =>
        outside(a) - outside(b) ||
        hard(a) - hard(b) ||
        even(a) - even(b) ||
        b.reserveMm - a.reserveMm ||
        moved(a) - moved(b),
    );
}
