import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { normalFrom, oneByOne, uniformBlocks } from '../base/random';
import { frictionRadius, type WearModel } from './breakaway';
import { columnPeak, groupFreeHeight, groupReach, sameGroup, springColumn, type SpringGroup } from './spring-column';

/** How a value may lie off what was read: `normal` with ± as two deviations, `uniform` anywhere within ±. */
export type Spread = 'normal' | 'uniform';

export interface UncertainValue {
  readonly label: string;
  readonly value: number;
  /** Half of the range that it is taken to lie in. */
  readonly plusMinus: number;
  readonly spread: Spread;
}

export interface SurePack {
  /** Pieces of the stack without springs, mm. */
  readonly pieces: readonly UncertainValue[];
  /** From the gear's back face to the case wall, mm. */
  readonly caseDepth: UncertainValue;
  /** In series, as the pack has them. */
  readonly springs: readonly SpringGroup[];
  /** Springs between the side gears, which press outwards across the gap between them; the stronger of the two clamps. */
  readonly between?: { readonly springs: readonly SpringGroup[]; readonly gap: UncertainValue };
  /**
   * How far the load of the springs may lie below and above its nominal value, as shares; anywhere in there. EN 16983 has about
   * 0.075 and 0.15 for discs of 1.25 to 3 mm (from memory). None unless told.
   */
  readonly springLoad?: { readonly minus: number; readonly plus: number };
  readonly frictionCoefficient: UncertainValue;
  readonly interfaces: number;
  readonly outerRadiusMm: number;
  readonly innerRadiusMm: number;
  readonly wearModel: WearModel;
  /** Band that the stack height and the breakaway should land in; not judged where it is left out. */
  readonly heightBandMm?: readonly [number, number];
  readonly breakawayBandNm?: readonly [number, number];
}

export interface Outcome {
  readonly nominal: number;
  /** Both ends with every value at its worst. */
  readonly worstCase: readonly [number, number];
  /** Two deviations by root of the sum of squares, slopes at the nominal values. */
  readonly rss: number;
  readonly mean: number;
  readonly deviation: number;
  /** 2.5, 50 and 97.5 percent of the samples. */
  readonly percentiles: readonly [number, number, number];
  /** Share of the samples inside the band; a pack that won't close never is. Null without a band. */
  readonly chance: number | null;
  /** Counts over equal steps from `from` to `to`. */
  readonly histogram: { readonly from: number; readonly to: number; readonly counts: readonly number[] };
}

/** What one value alone does to the breakaway, N·m, between its two ends. */
export interface Influence {
  readonly label: string;
  readonly lowNm: number;
  readonly highNm: number;
}

export interface PackSure {
  readonly height: Outcome;
  readonly clearance: Outcome;
  readonly breakaway: Outcome;
  /** Largest first. */
  readonly tornado: readonly Influence[];
  /** Share of the samples in which the springs would have to go past flat: the cover does not close. */
  readonly wontClose: number;
  readonly samples: number;
}

export const SURE_LIMITS = {
  springLoad: { min: 0, max: 0.9 },
  plusMinus: { min: 0, max: 10 },
  samples: { min: 100, max: 5_000_000, integer: true },
  seed: { min: 0, max: 4_294_967_295, integer: true },
  nested: { min: 1, max: 20, integer: true },
} as const;

const BINS = 48;

/** Height, spring room and breakaway of one draw. */
interface Draw {
  height: number;
  clearance: number;
  breakaway: number;
  closes: boolean;
}

function check(pack: SurePack, samples: number, seed: number): void {
  requireNumber('samples', samples, SURE_LIMITS.samples);
  requireNumber('seed', seed, SURE_LIMITS.seed);
  if (pack.pieces.length === 0 || pack.pieces.length > LIMITS.packMembers.max)
    throw new InputError('pieces', `pieces has ${pack.pieces.length} entries.`, `1 to ${LIMITS.packMembers.max}`);
  pack.pieces.forEach((piece, i) => {
    requireNumber(`pieces[${i}].value`, piece.value, LIMITS.thicknessMm);
    requireNumber(`pieces[${i}].plusMinus`, piece.plusMinus, SURE_LIMITS.plusMinus);
  });
  requireNumber('caseDepth.value', pack.caseDepth.value, LIMITS.thicknessMm);
  requireNumber('caseDepth.plusMinus', pack.caseDepth.plusMinus, SURE_LIMITS.plusMinus);
  requireNumber('frictionCoefficient.value', pack.frictionCoefficient.value, LIMITS.frictionCoefficient);
  requireNumber('frictionCoefficient.plusMinus', pack.frictionCoefficient.plusMinus, SURE_LIMITS.plusMinus);
  requireNumber('interfaces', pack.interfaces, LIMITS.interfaces);
  const { between, springLoad } = pack;
  if (pack.springs.length === 0 && !between)
    throw new InputError('springs', 'springs is empty.', 'at least one spring');
  springColumn(pack.springs, 0);
  if (between) {
    requireNumber('between.gap.value', between.gap.value, LIMITS.thicknessMm);
    requireNumber('between.gap.plusMinus', between.gap.plusMinus, SURE_LIMITS.plusMinus);
    if (between.springs.length === 0)
      throw new InputError('between.springs', 'between.springs is empty.', 'at least one spring');
    springColumn(between.springs, 0);
  }
  if (springLoad) {
    requireNumber('springLoad.minus', springLoad.minus, SURE_LIMITS.springLoad);
    requireNumber('springLoad.plus', springLoad.plus, SURE_LIMITS.springLoad);
  }
  for (const band of ['heightBandMm', 'breakawayBandNm'] as const) {
    const ends = pack[band];
    if (ends && !(ends[1] >= ends[0])) throw new InputError(band, `${band} is upside down.`, 'low, high');
  }
}

const STEPS = 512;

/** A spring column as a table of force over travel, so that a million draws don't work the polynomial out again. */
interface ForceTable {
  readonly freeMm: number;
  /** Flat, or as far as the weakest of unlike springs holds more and more. */
  readonly flatMm: number;
  readonly forces: Float64Array;
}

function forceTable(springs: readonly SpringGroup[]): ForceTable {
  const [first] = springs;
  const alike = springs.every((group) => first !== undefined && sameGroup(group, first));
  const flatMm = alike ? springs.reduce((sum, group) => sum + groupReach(group), 0) : columnPeak(springs).travelMm;
  const forces = Float64Array.from({ length: STEPS + 1 }, (_, i) => springColumn(springs, (flatMm * i) / STEPS).forceN);
  return { freeMm: springs.reduce((sum, group) => sum + groupFreeHeight(group), 0), flatMm, forces };
}

/** Slack springs press with nothing; flat ones as they do at flat, and whoever asks has to see that it won't close. */
function forceAt({ flatMm, forces }: ForceTable, travelMm: number): number {
  if (travelMm <= 0 || flatMm === 0) return 0;
  const at = (travelMm / flatMm) * STEPS;
  if (at >= STEPS) return forces[STEPS] as number;
  const j = at | 0;
  const low = forces[j] as number;
  return low + ((forces[j + 1] as number) - low) * (at - j);
}

/** What is drawn beside the height: room, friction, gap, load factor. */
type Evaluate = (height: number, depth: number, friction: number, gap: number, load: number, into: Draw) => void;

function evaluator(pack: SurePack): Evaluate {
  const series = forceTable(pack.springs);
  const between = pack.between ? forceTable(pack.between.springs) : null;
  const radius = frictionRadius(pack.outerRadiusMm, pack.innerRadiusMm, pack.wearModel);
  const perNewton = (pack.interfaces * radius) / 1000;
  const { freeMm, flatMm } = series;
  const inPack = pack.springs.length > 0;
  const past = flatMm * (1 + 1e-9);
  return (height, depth, friction, gap, load, into) => {
    const clearance = depth - height;
    const travel = freeMm - clearance;
    let force = inPack ? forceAt(series, travel) : 0;
    let closes = inPack ? travel <= past : clearance >= 0;
    if (between) {
      const pressed = between.freeMm - gap;
      force = Math.max(force, forceAt(between, pressed));
      closes &&= pressed <= between.flatMm * (1 + 1e-9);
    }
    into.height = height;
    into.clearance = clearance;
    // No coefficient is below nothing, however wide its spread [physics].
    into.breakaway = (friction > 0 ? friction : 0) * perNewton * load * force;
    into.closes = closes;
  };
}

/** Collects draws without keeping them: sums for the moments, fine bins for percentiles and picture. */
class Tally {
  private readonly bins: Float64Array;
  private readonly scale: number;
  private readonly low: number;
  private readonly high: number;
  private sum = 0;
  private squares = 0;
  private inside = 0;
  private count = 0;

  constructor(
    private readonly from: number,
    private readonly to: number,
    private readonly nominal: number,
    private readonly band: readonly [number, number] | undefined,
    fine = BINS * 40,
  ) {
    this.bins = new Float64Array(fine);
    this.scale = fine / (to - from);
    this.low = band?.[0] ?? Number.POSITIVE_INFINITY;
    this.high = band?.[1] ?? Number.NEGATIVE_INFINITY;
  }

  /** @param closes whether the pack goes together at all; a height counts in any case, a place in the band does not */
  add(value: number, closes: boolean): void {
    const off = value - this.nominal;
    this.sum += off;
    this.squares += off * off;
    this.count++;
    if (closes && value >= this.low && value <= this.high) this.inside++;
    // The outermost bins hold what lies beyond the picture as well.
    const at = (value - this.from) * this.scale;
    const last = this.bins.length - 1;
    const bin = at > 0 ? (at < last ? at | 0 : last) : 0;
    this.bins[bin] = (this.bins[bin] as number) + 1;
  }

  private percentile(share: number): number {
    const { length } = this.bins;
    let passed = 0;
    for (let i = 0; i < length; i++) {
      const here = this.bins[i] as number;
      if (passed + here >= share * this.count && here > 0) {
        const within = (share * this.count - passed) / here;
        return this.from + ((this.to - this.from) * (i + within)) / length;
      }
      passed += here;
    }
    return this.to;
  }

  /** @param all number of draws that the chance is a share of */
  outcome(worstCase: readonly [number, number], rss: number, all: number): Outcome {
    const count = Math.max(this.count, 1);
    const mean = this.sum / count;
    const counts = Array.from({ length: BINS }, (_, i) =>
      this.bins.slice((i * this.bins.length) / BINS, ((i + 1) * this.bins.length) / BINS).reduce((a, b) => a + b, 0),
    );
    return {
      nominal: this.nominal,
      worstCase,
      rss,
      mean: this.nominal + mean,
      deviation: Math.sqrt(Math.max(0, (this.squares - count * mean * mean) / Math.max(1, count - 1))),
      percentiles: [this.percentile(0.025), this.percentile(0.5), this.percentile(0.975)],
      chance: this.band ? this.inside / all : null,
      histogram: { from: this.from, to: this.to, counts },
    };
  }
}

/** One deviation of a value: ± is two of a normal one, √3 of a uniform one [exact]. */
const deviationOf = ({ plusMinus, spread }: UncertainValue): number =>
  spread === 'normal' ? plusMinus / 2 : plusMinus / Math.sqrt(3);

/** A load that may lie unevenly about 1, as an even spread about its middle. */
function loadOf({ springLoad }: SurePack): UncertainValue {
  const { minus = 0, plus = 0 } = springLoad ?? {};
  return { label: 'spring load', value: 1 + (plus - minus) / 2, plusMinus: (plus + minus) / 2, spread: 'uniform' };
}

const NO_GAP: UncertainValue = { label: 'gap between the gears', value: 0, plusMinus: 0, spread: 'uniform' };

/** Draws that are made at a time: one value after the other for all of them, which is many times faster than draw by draw. */
const BLOCK = 1000;

/** Draws block after block: what the pieces add up to, and the values beside. The arrays are the same ones each time. */
function columnsOf(pack: SurePack, seed: number) {
  const fill = uniformBlocks(seed);
  const normal = normalFrom(oneByOne(fill));
  const blank = (): Float64Array => new Float64Array(BLOCK);
  const scratch = blank();
  /** Writes over a column, or adds to it. */
  const drawn = ({ value, plusMinus, spread }: UncertainValue, column: Float64Array, add = false): void => {
    const target = add ? scratch : column;
    if (spread === 'normal') for (let i = 0; i < BLOCK; i++) target[i] = value + (normal() * plusMinus) / 2;
    else {
      const [from, width] = [value - plusMinus, 2 * plusMinus];
      fill(target);
      for (let i = 0; i < BLOCK; i++) target[i] = from + width * (target[i] as number);
    }
    if (add) for (let i = 0; i < BLOCK; i++) column[i] = (column[i] as number) + (target[i] as number);
  };
  const sure = pack.pieces.reduce((sum, { value, plusMinus }) => sum + (plusMinus === 0 ? value : 0), 0);
  const unsure = pack.pieces.filter(({ plusMinus }) => plusMinus > 0);
  const columns = { height: blank(), depth: blank(), mu: blank(), between: blank(), factor: blank() };
  const beside = [
    [pack.caseDepth, columns.depth],
    [pack.frictionCoefficient, columns.mu],
    [pack.between?.gap ?? NO_GAP, columns.between],
    [loadOf(pack), columns.factor],
  ] as const;
  for (const [{ value }, column] of beside) column.fill(value);
  return (): typeof columns => {
    columns.height.fill(sure);
    for (const piece of unsure) drawn(piece, columns.height, true);
    for (const [value, column] of beside) if (value.plusMinus > 0) drawn(value, column);
    return columns;
  };
}

/**
 * How sure height, spring room and breakaway of one pack are: worst case, root of the sum of squares, and a seeded Monte
 * Carlo of so many draws. The same seed gives the same answer anywhere. A draw in which the springs would have to go past flat
 * is a cover that does not close: it is never in band, and its breakaway is in no other number of `breakaway`. The nominal
 * value has the springs at their nominal load. Not counted: friction between nested springs, values that go together.
 * @param onProgress told by the share of the draws that is done; return false to stop, and null comes back
 * @throws InputError naming the field
 */
export function packSure(
  pack: SurePack,
  samples: number,
  seed: number,
  onProgress?: (share: number) => boolean,
): PackSure | null {
  check(pack, samples, seed);
  const evaluate = evaluator(pack);
  const gap = pack.between?.gap ?? NO_GAP;
  const load = loadOf(pack);
  const { caseDepth, frictionCoefficient: friction, pieces } = pack;
  const values = [...pieces, caseDepth, friction, gap, load];
  const count = pieces.length;
  const blank = (): Draw => ({ height: 0, clearance: 0, breakaway: 0, closes: true });
  const at = (change: (value: UncertainValue, i: number) => number): Draw => {
    // The load is counted from its nominal 1, though its spread may lie unevenly about it.
    const moved = values.map((value, i) => (value === load ? 1 : value.value) + change(value, i));
    const draw = blank();
    const height = moved.slice(0, count).reduce((a, b) => a + b, 0);
    const [depth = 0, mu = 0, between = 0, factor = 1] = moved.slice(count);
    evaluate(height, depth, mu, between, factor, draw);
    return draw;
  };
  /** The two ends of a value, from its nominal one. */
  const ends = (value: UncertainValue): readonly [number, number] =>
    value === load
      ? [load.value - load.plusMinus - 1, load.value + load.plusMinus - 1]
      : [-value.plusMinus, value.plusMinus];
  const nominal = at(() => 0);

  // Every value at its worst: heights add up; force is followed over the whole span, since it may have a top inside.
  const spread = pieces.reduce((sum, piece) => sum + piece.plusMinus, 0);
  const worstHeight = [nominal.height - spread, nominal.height + spread] as const;
  const room = spread + caseDepth.plusMinus;
  const worstClearance = [nominal.clearance - room, nominal.clearance + room] as const;
  let [lowest, highest] = [Number.POSITIVE_INFINITY, 0];
  const probe = blank();
  for (let i = 0; i <= 200; i++) {
    const clearance = worstClearance[0] + ((worstClearance[1] - worstClearance[0]) * i) / 200;
    const between = gap.value + gap.plusMinus * (i / 100 - 1);
    for (const mu of [friction.value - friction.plusMinus, friction.value + friction.plusMinus])
      for (const factor of [load.value - load.plusMinus, load.value + load.plusMinus]) {
        evaluate(0, clearance, mu, between, factor, probe);
        lowest = Math.min(lowest, probe.breakaway);
        highest = Math.max(highest, probe.breakaway);
      }
  }

  const rssOf = (read: (draw: Draw) => number): number => {
    const squares = values.map((value, i) => {
      const step = Math.max(value.plusMinus, 1e-9) / 100;
      const up = read(at((_, k) => (k === i ? step : 0)));
      const down = read(at((_, k) => (k === i ? -step : 0)));
      return (((up - down) / (2 * step)) * deviationOf(value)) ** 2;
    });
    return 2 * Math.sqrt(squares.reduce((a, b) => a + b, 0));
  };

  const span = (worst: readonly [number, number]): readonly [number, number] => {
    const half = Math.max((worst[1] - worst[0]) / 2, 1e-9);
    // A normal value can lie past its two deviations: half as much room again holds three.
    return [(worst[0] + worst[1]) / 2 - 1.5 * half, (worst[0] + worst[1]) / 2 + 1.5 * half];
  };
  const tallies = {
    height: new Tally(...span(worstHeight), nominal.height, pack.heightBandMm),
    clearance: new Tally(...span(worstClearance), nominal.clearance, undefined),
    breakaway: new Tally(...span([lowest, highest]), nominal.breakaway, pack.breakawayBandNm),
  };
  const columns = columnsOf(pack, seed);
  const draw = blank();
  let open = 0;
  for (let done = 0; done < samples; done += BLOCK) {
    if (done % (50 * BLOCK) === 0 && onProgress && !onProgress(done / samples)) return null;
    const { height, depth, mu, between, factor } = columns();
    const here = Math.min(BLOCK, samples - done);
    for (let i = 0; i < here; i++) {
      evaluate(
        height[i] as number,
        depth[i] as number,
        mu[i] as number,
        between[i] as number,
        factor[i] as number,
        draw,
      );
      const { closes } = draw;
      tallies.height.add(draw.height, closes);
      tallies.clearance.add(draw.clearance, closes);
      if (closes) tallies.breakaway.add(draw.breakaway, true);
      else open++;
    }
  }

  const tornado = values
    .filter(({ plusMinus }) => plusMinus > 0)
    .map((value): Influence => {
      const i = values.indexOf(value);
      const [low, high] = ends(value).map((off) => at((_, k) => (k === i ? off : 0)).breakaway) as [number, number];
      return { label: value.label, lowNm: low, highNm: high };
    })
    .sort((a, b) => Math.abs(b.highNm - b.lowNm) - Math.abs(a.highNm - a.lowNm));
  return {
    height: tallies.height.outcome(
      worstHeight,
      rssOf((d) => d.height),
      samples,
    ),
    clearance: tallies.clearance.outcome(
      worstClearance,
      rssOf((d) => d.clearance),
      samples,
    ),
    breakaway: tallies.breakaway.outcome(
      [lowest, highest],
      rssOf((d) => d.breakaway),
      samples,
    ),
    tornado,
    wontClose: open / samples,
    samples,
  };
}
