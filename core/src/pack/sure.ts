import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { normalFrom, seededRandom } from '../random';
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
  /** Share of the samples inside the band; null without one. */
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
  readonly samples: number;
}

export const SURE_LIMITS = {
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
  if (pack.springs.length === 0) throw new InputError('springs', 'springs is empty.', 'at least one spring');
  springColumn(pack.springs, 0);
  for (const band of ['heightBandMm', 'breakawayBandNm'] as const) {
    const ends = pack[band];
    if (ends && !(ends[1] >= ends[0])) throw new InputError(band, `${band} is upside down.`, 'low, high');
  }
}

/**
 * Force of the spring column against its travel as a table, so that a million draws don't work the polynomial out again.
 * Slack springs press with nothing; springs at flat press as flat ones do.
 */
function forceTable(pack: SurePack): (travelMm: number) => number {
  const { springs } = pack;
  const [first] = springs;
  // Unlike springs are followed as far as the weakest of them holds more and more.
  const alike = springs.every((group) => first !== undefined && sameGroup(group, first));
  const flat = alike ? springs.reduce((sum, group) => sum + groupReach(group), 0) : columnPeak(springs).travelMm;
  const steps = 512;
  const forces = Float64Array.from({ length: steps + 1 }, (_, i) => springColumn(springs, (flat * i) / steps).forceN);
  return (travel) => {
    if (travel <= 0) return 0;
    const at = Math.min((travel / flat) * steps, steps);
    const j = Math.min(Math.floor(at), steps - 1);
    const low = forces[j] as number;
    return low + ((forces[j + 1] as number) - low) * (at - j);
  };
}

function evaluator(pack: SurePack): (height: number, depth: number, friction: number, into: Draw) => void {
  const force = forceTable(pack);
  const radius = frictionRadius(pack.outerRadiusMm, pack.innerRadiusMm, pack.wearModel);
  const free = pack.springs.reduce((sum, group) => sum + groupFreeHeight(group), 0);
  const perNewton = (pack.interfaces * radius) / 1000;
  return (height, depth, friction, into) => {
    into.height = height;
    into.clearance = depth - height;
    into.breakaway = Math.max(friction, 0) * perNewton * force(free - into.clearance);
  };
}

/** Collects draws without keeping them: sums for the moments, fine bins for percentiles and picture. */
class Tally {
  private readonly bins: Float64Array;
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
  }

  add(value: number): void {
    const off = value - this.nominal;
    this.sum += off;
    this.squares += off * off;
    this.count++;
    if (this.band && value >= this.band[0] && value <= this.band[1]) this.inside++;
    const { length } = this.bins;
    const at = Math.floor(((value - this.from) / (this.to - this.from)) * length);
    const bin = Math.min(Math.max(at, 0), length - 1);
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

  outcome(worstCase: readonly [number, number], rss: number): Outcome {
    const mean = this.sum / this.count;
    const counts = Array.from({ length: BINS }, (_, i) =>
      this.bins.slice((i * this.bins.length) / BINS, ((i + 1) * this.bins.length) / BINS).reduce((a, b) => a + b, 0),
    );
    return {
      nominal: this.nominal,
      worstCase,
      rss,
      mean: this.nominal + mean,
      deviation: Math.sqrt(Math.max(0, (this.squares - this.count * mean * mean) / Math.max(1, this.count - 1))),
      percentiles: [this.percentile(0.025), this.percentile(0.5), this.percentile(0.975)],
      chance: this.band ? this.inside / this.count : null,
      histogram: { from: this.from, to: this.to, counts },
    };
  }
}

/** One deviation of a value: ± is two of a normal one, √3 of a uniform one [exact]. */
const deviationOf = ({ plusMinus, spread }: UncertainValue): number =>
  spread === 'normal' ? plusMinus / 2 : plusMinus / Math.sqrt(3);

/**
 * How sure height, spring room and breakaway of one pack are: worst case, root of the sum of squares, and a seeded Monte
 * Carlo of so many draws. The same seed gives the same answer anywhere.
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
  const values = [...pack.pieces, pack.caseDepth, pack.frictionCoefficient];
  const count = pack.pieces.length;
  const nominalHeight = pack.pieces.reduce((sum, piece) => sum + piece.value, 0);
  const at = (change: (value: UncertainValue, i: number) => number): Draw => {
    const moved = values.map((value, i) => value.value + change(value, i));
    const draw = { height: 0, clearance: 0, breakaway: 0 };
    const height = moved.slice(0, count).reduce((a, b) => a + b, 0);
    evaluate(height, moved[count] as number, moved[count + 1] as number, draw);
    return draw;
  };
  const nominal = at(() => 0);

  // Every value at its worst: heights add up; force is followed over the whole span, since it may have a top inside.
  const spread = pack.pieces.reduce((sum, piece) => sum + piece.plusMinus, 0);
  const { caseDepth, frictionCoefficient: friction } = pack;
  const worstHeight = [nominalHeight - spread, nominalHeight + spread] as const;
  const room = spread + caseDepth.plusMinus;
  const worstClearance = [nominal.clearance - room, nominal.clearance + room] as const;
  let [lowest, highest] = [Number.POSITIVE_INFINITY, 0];
  const probe = { height: 0, clearance: 0, breakaway: 0 };
  for (let i = 0; i <= 200; i++) {
    const clearance = worstClearance[0] + ((worstClearance[1] - worstClearance[0]) * i) / 200;
    for (const mu of [friction.value - friction.plusMinus, friction.value + friction.plusMinus]) {
      evaluate(0, clearance, mu, probe);
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
  const uniform = seededRandom(seed);
  const normal = normalFrom(uniform);
  const draw = { height: 0, clearance: 0, breakaway: 0 };
  const drawn = (value: UncertainValue): number =>
    value.plusMinus === 0
      ? value.value
      : value.spread === 'normal'
        ? value.value + (normal() * value.plusMinus) / 2
        : value.value + (2 * uniform() - 1) * value.plusMinus;
  for (let i = 0; i < samples; i++) {
    if (i % 50_000 === 0 && onProgress && !onProgress(i / samples)) return null;
    let height = 0;
    for (const piece of pack.pieces) height += drawn(piece);
    evaluate(height, drawn(caseDepth), drawn(friction), draw);
    tallies.height.add(draw.height);
    tallies.clearance.add(draw.clearance);
    tallies.breakaway.add(draw.breakaway);
  }

  const tornado = values
    .map((value, i): Influence => {
      const low = at((_, k) => (k === i ? -value.plusMinus : 0)).breakaway;
      const high = at((_, k) => (k === i ? value.plusMinus : 0)).breakaway;
      return { label: value.label, lowNm: low, highNm: high };
    })
    .sort((a, b) => Math.abs(b.highNm - b.lowNm) - Math.abs(a.highNm - a.lowNm));
  return {
    height: tallies.height.outcome(
      worstHeight,
      rssOf((d) => d.height),
    ),
    clearance: tallies.clearance.outcome(
      worstClearance,
      rssOf((d) => d.clearance),
    ),
    breakaway: tallies.breakaway.outcome(
      [lowest, highest],
      rssOf((d) => d.breakaway),
    ),
    tornado,
    samples,
  };
}
