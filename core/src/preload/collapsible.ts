import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { normalAbove } from '../base/normal';
import { requireTorqueBand } from './band';

export interface NutReading {
  /** Nut angle against the flange from where counting began; ascending. */
  readonly angleDeg: number;
  /** Turning torque there, oiled, turning steadily. */
  readonly torqueNm: number;
}

export interface CollapsibleNext {
  readonly verdict: 'go-on' | 'in-band' | 'over' | 'cannot-judge';
  /** Turn to here at most, then read again; null where there is nothing more to turn. */
  readonly nextAngleDeg: number | null;
  /** What is expected there, and one deviation of it. */
  readonly expectedNm: number | null;
  readonly deviationNm: number | null;
  /** That it is above the band there. */
  readonly chanceOver: number | null;
  /** Where torque began to rise, or is expected to; and the chance that it has begun. */
  readonly kneeDeg: number | null;
  readonly chanceRising: number | null;
  /** About how many more readings it takes, this one included; null where none is needed. */
  readonly readingsExpected: number | null;
}

/** Ours: over at most once in fifty spacers, all its steps together; no step under 2°, which no hand turns. */
export const CRUSH_GUARD = { leastStepDeg: 2, chanceOver: 0.02 } as const;

/** Most that the n-th step may risk: 0.02/(n·(n + 1)) adds up to 0.02 however many there are [exact]. */
export const stepRisk = (step: number): number => CRUSH_GUARD.chanceOver / (step * (step + 1));

/**
 * How steeply turning torque rises once the play is gone, N·m a degree at 1.5 mm of pitch, by its quantiles: middle 0.08, 5 to 95 %
 * 0.03 to 0.15 [stiffness of tapered bearings after Palmgren, estimates from memory; ends ours]. It grows with the pitch.
 */
const RISE_QUANTILES = [
  [0, 0.01],
  [0.05, 0.03],
  [0.5, 0.08],
  [0.95, 0.15],
  [1, 0.24],
] as const;
const PITCH_MM = 1.5;
/** How steeply the spacer at a share of all rises, N·m a degree at 1.5 mm of pitch: the law that is expected, drawn from for practice. */
export function crushRise(share: number): number {
  const above = Math.max(
    1,
    RISE_QUANTILES.findIndex(([to]) => to >= share),
  );
  const [[from, low], [to, high]] = [RISE_QUANTILES[above - 1], RISE_QUANTILES[above]] as [
    readonly [number, number],
    readonly [number, number],
  ];
  return low + ((high - low) * (share - from)) / (to - from);
}

/** Share of spacers that rise less steeply: straight between the quantiles. */
function risesLess(rise: number): number {
  const above = RISE_QUANTILES.findIndex(([, one]) => one >= rise);
  if (above <= 0) return above === 0 ? 0 : 1;
  const [[from, low], [to, high]] = [RISE_QUANTILES[above - 1], RISE_QUANTILES[above]] as [
    readonly [number, number],
    readonly [number, number],
  ];
  return from + ((to - from) * (rise - low)) / (high - low);
}
/** Rises, each a twentieth steeper than the one before, with the logarithm of their share. */
const STEEPER = 1.05;
const RISES = Array.from({ length: 66 }, (_, i) => {
  const rise = RISE_QUANTILES[0][1] * STEEPER ** i;
  const half = Math.sqrt(STEEPER);
  return { rise, log: Math.log(risesLess(rise * half) - risesLess(rise / half)) };
}).filter(({ log }) => Number.isFinite(log));
/** How much torque drifts before it rises, N·m a degree, ours. */
const DRIFTS = [0, 0.0005, 0.0015];
/** How the crush is begun: by the nut alone, or in the press before the spacer goes in. */
export const CRUSH_STARTS = ['nut', 'press'] as const;
export type CrushStart = (typeof CRUSH_STARTS)[number];

/** How far ahead the knee may still lie, degrees, ours; its place is as likely anywhere. Begun in the press it is near. */
const AHEAD: Readonly<Record<CrushStart, number>> = { nut: 240, press: 60 };
/** Knees so near are looked at degree by degree. */
const NEAR_DEG = 40;
/** Farthest that one turn is looked at. */
const FARTHEST_DEG = 240;
/** Logarithm of how likely a spacer has to be beside the best one so far, not to be left out: far below what a step may risk. */
const LEAST_FIT = Math.log(1e-9);

/** What may be so of a spacer, weighed: knee, rise, drift and the torque at angle 0 that fits the readings best, side by side. */
interface Spacers {
  readonly count: number;
  readonly knee: Float64Array;
  readonly rise: Float64Array;
  readonly drift: Float64Array;
  readonly base: Float64Array;
  readonly weight: Float64Array;
}

/** What is expected at an angle: torque, its square about a level, and the chance that a reading there is above a limit. */
function expectedAt(
  { count, base, drift, rise, knee, weight }: Spacers,
  angle: number,
  limit: number,
  scatter: number,
): { readonly mean: number; readonly deviation: number; readonly over: number } {
  // One plain loop: it is gone through some hundred thousand times for each turn of the nut.
  let [mean, square, over] = [0, 0, 0];
  for (let i = 0; i < count; i++) {
    const w = weight[i] as number;
    const past = angle - (knee[i] as number);
    const torque = (base[i] as number) + (drift[i] as number) * angle + (past > 0 ? (rise[i] as number) * past : 0);
    const below = torque - limit;
    mean += w * below;
    square += w * below * below;
    const away = -below / scatter;
    // So far away it adds nothing that a step may not risk.
    if (away <= 7) over += w * (away < -7 ? 1 : normalAbove(away));
  }
  return { mean: limit + mean, deviation: Math.sqrt(Math.max(0, square - mean * mean)), over };
}

/** Knees a degree apart, every rise and drift, weighed by how well each fits; sums over the readings once a knee. */
function spacersOf(readings: readonly NutReading[], sigma: number, start: CrushStart, pitchMm: number): Spacers {
  const [first, last] = [readings[0] as NutReading, readings.at(-1) as NutReading];
  const n = readings.length;
  const meanOf = (of: (one: NutReading) => number): number => readings.reduce((sum, one) => sum + of(one), 0) / n;
  const [meanAngle, meanTorque] = [meanOf(({ angleDeg }) => angleDeg), meanOf(({ torqueNm }) => torqueNm)];
  const end = last.angleDeg + AHEAD[start];
  const knees: { readonly at: number; readonly wide: number }[] = [];
  for (let at = first.angleDeg; at < end;) {
    // Far ahead a degree matters to no step.
    const wide = Math.min(at < last.angleDeg + NEAR_DEG ? 1 : 6, end - at);
    knees.push({ at: at + wide / 2, wide });
    at += wide;
  }
  const room = knees.length * RISES.length * DRIFTS.length;
  const [knee, rise, drift, base, weight] = Array.from({ length: 5 }, () => new Float64Array(room)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  let [count, most] = [0, Number.NEGATIVE_INFINITY];
  for (const { at, wide } of knees) {
    let meanBeyond = 0;
    for (const { angleDeg } of readings) meanBeyond += Math.max(0, angleDeg - at) / n;
    // Misfit is a quadratic form in drift and rise: six sums hold all of it.
    let [yy, yr, rr, dd, yd, dr] = [0, 0, 0, 0, 0, 0];
    for (const { angleDeg, torqueNm } of readings) {
      const [y, d, r] = [torqueNm - meanTorque, angleDeg - meanAngle, Math.max(0, angleDeg - at) - meanBeyond];
      yy += y * y;
      yr += y * r;
      rr += r * r;
      dd += d * d;
      yd += y * d;
      dr += d * r;
    }
    const width = Math.log(wide);
    for (const unit of RISES) {
      const up = (unit.rise * pitchMm) / PITCH_MM;
      for (const drifts of DRIFTS) {
        const misfit = yy + up * up * rr + drifts * drifts * dd - 2 * up * yr - 2 * drifts * yd + 2 * up * drifts * dr;
        const fits = unit.log + width - misfit / (2 * sigma * sigma);
        if (fits < most + LEAST_FIT) continue;
        most = Math.max(most, fits);
        knee[count] = at;
        rise[count] = up;
        drift[count] = drifts;
        base[count] = meanTorque - drifts * meanAngle - up * meanBeyond;
        weight[count] = fits;
        count++;
      }
    }
  }
  // What seemed to fit before the best one was known is left out now.
  let [kept, total] = [0, 0];
  for (let i = 0; i < count; i++) {
    const fits = weight[i] as number;
    if (fits < most + LEAST_FIT) continue;
    for (const column of [knee, rise, drift, base]) column[kept] = column[i] as number;
    total += weight[kept] = Math.exp(fits - most);
    kept++;
  }
  for (let i = 0; i < kept; i++) weight[i] = (weight[i] as number) / total;
  return { count: kept, knee, rise, drift, base, weight };
}

const NOTHING = {
  nextAngleDeg: null,
  expectedNm: null,
  deviationNm: null,
  chanceOver: null,
  kneeDeg: null,
  chanceRising: null,
  readingsExpected: null,
} as const;

/**
 * How far a nut on a collapsible spacer may be turned before it is read again. Until play is gone torque stands nearly still; from a
 * knee on it rises fast: knee, steepness and drift are weighed by how well they fit the readings. The n-th step goes as far as it may
 * risk 0.02/(n·(n + 1)) to read above the band, the scatter of that reading counted: at most one spacer in fifty goes over, all of its
 * steps together, as far as it belongs to what is expected of spacers. `over`: a new spacer, never back off. `cannot-judge`: the
 * instrument's ± is half of the band or more.
 * Not counted: seal drag, a dry bearing, bearings that bed in; a step of 2°, the least, may risk more than its share.
 * @param readings 1 to 60, by ascending angle of the nut against its flange
 * @param instrumentUncertaintyNm ±, taken as two deviations
 * @param aimFromNm what is aimed at begins here, inside the band; its lower end unless told
 * @param start begun in the press, the knee is expected within 60° instead of 240°
 * @param pitchMm of the pinion thread: the rise grows with it
 * @throws InputError naming the field
 */
export function collapsiblePreload(
  readings: readonly NutReading[],
  bandNm: readonly [number, number],
  instrumentUncertaintyNm: number,
  aimFromNm = bandNm[0],
  start: CrushStart = 'nut',
  pitchMm: number = PITCH_MM,
): CollapsibleNext {
  const [low, high] = requireTorqueBand(bandNm);
  const plusMinus = requireNumber('instrumentUncertaintyNm', instrumentUncertaintyNm, LIMITS.torqueNm);
  const pitch = requireNumber('pitchMm', pitchMm, { above: 0, max: 10, unit: 'mm' });
  if (readings.length === 0 || readings.length > 60)
    throw new InputError('readings', `readings has ${readings.length} entries.`, '1 to 60');
  readings.forEach(({ angleDeg, torqueNm }, i) => {
    requireNumber(`readings[${i}].angleDeg`, angleDeg, { min: -10_000, max: 10_000, unit: '°' });
    requireNumber(`readings[${i}].torqueNm`, torqueNm, LIMITS.torqueNm);
    const before = readings[i - 1];
    if (before && angleDeg <= before.angleDeg)
      throw new InputError(
        `readings[${i}].angleDeg`,
        `readings[${i}].angleDeg ${angleDeg} is not past ${before.angleDeg}: the nut is never backed off.`,
        'ascending angles',
      );
  });
  const last = readings.at(-1) as NutReading;
  const from = requireNumber('aimFromNm', aimFromNm, { min: low, max: high, unit: 'N·m' });
  if (2 * plusMinus >= high - low - 1e-9) return { verdict: 'cannot-judge', ...NOTHING };
  if (last.torqueNm > high) return { verdict: 'over', ...NOTHING };
  // An instrument without any scatter would leave one hypothesis only: a hundredth of the band at least.
  const sigma = Math.max(plusMinus / 2, 0.01 * (high - low));
  const spacers = spacersOf(readings, sigma, start, pitch);
  const mean = (of: (i: number) => number): number => {
    let sum = 0;
    for (let i = 0; i < spacers.count; i++) sum += (spacers.weight[i] as number) * of(i);
    return sum;
  };
  const kneeDeg = mean((i) => spacers.knee[i] as number);
  const chanceRising = mean((i) => ((spacers.knee[i] as number) < last.angleDeg ? 1 : 0));
  if (last.torqueNm >= from) return { ...NOTHING, verdict: 'in-band', kneeDeg, chanceRising };
  // The level is known to a deviation over the root of the number of readings; the next reading scatters by itself.
  const scatter = sigma * Math.sqrt(1 + 1 / readings.length);
  const at = (angle: number) => expectedAt(spacers, angle, high, scatter);
  const aim = (from + high) / 2;
  const risk = stepRisk(readings.length);
  const tooFar = (turn: number): boolean => {
    const { mean: torque, over } = at(last.angleDeg + turn);
    return torque > aim || over > risk;
  };
  // Torque never falls with the nut: halving finds the last half degree that is not too far.
  let [step, beyond] = [2 * CRUSH_GUARD.leastStepDeg, 2 * FARTHEST_DEG];
  while (beyond - step > 1) {
    const middle = (step + beyond) >> 1;
    if (tooFar(middle / 2)) beyond = middle;
    else step = middle;
  }
  const turn = step / 2;
  const nextAngleDeg = last.angleDeg + turn;
  const { mean: expectedNm, deviation, over: chanceOver } = at(nextAngleDeg);
  // How far the aim lies, by every hypothesis, in turns of this length.
  const toGo = mean((i) => Math.max(0, reachedAt(spacers, i, from) - last.angleDeg));
  return {
    verdict: 'go-on',
    nextAngleDeg,
    expectedNm,
    deviationNm: Math.hypot(scatter, deviation),
    chanceOver,
    kneeDeg,
    chanceRising,
    readingsExpected: Math.max(1, Math.ceil(toGo / turn)),
  };
}

/** Where torque comes to a value. */
function reachedAt({ base, drift, rise, knee }: Spacers, i: number, torqueNm: number): number {
  const [at, drifts] = [knee[i] as number, drift[i] as number];
  const atKnee = (base[i] as number) + drifts * at;
  return atKnee >= torqueNm ? at : at + (torqueNm - atKnee) / (drifts + (rise[i] as number));
}
