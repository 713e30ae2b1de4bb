import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { normalAbove } from '../normal';
import { requireTorqueBand } from './band';

export interface NutReading {
  /** Nut angle from where counting began; ascending. */
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
}

/** Ours: never more than a quarter turn between readings (common practice), and not where one in fifty goes too far. */
export const CRUSH_GUARD = { stepDeg: 90, leastStepDeg: 2, chanceOver: 0.02 } as const;

/** Ours, from memory: how steeply it rises once the spacer gives, N·m a degree, and how much it drifts before. */
const RISES = [0.003, 0.0045, 0.0065, 0.0095, 0.014, 0.02, 0.03, 0.045, 0.065];
const DRIFTS = [0, 0.0004, 0.001, 0.002, 0.004];
/** How the crush is begun: by the nut alone, or in the press before the spacer goes in. */
export const CRUSH_STARTS = ['nut', 'press'] as const;
export type CrushStart = (typeof CRUSH_STARTS)[number];

/** How far ahead the knee may still lie, degrees, ours; its place is as likely anywhere. Begun in the press it is near. */
const AHEAD: Readonly<Record<CrushStart, number>> = { nut: 240, press: 60 };
const KNEE_STEPS = 80;

interface Hypothesis {
  readonly knee: number;
  readonly rise: number;
  readonly drift: number;
  /** Torque at angle 0 that fits the readings best. */
  readonly base: number;
  weight: number;
}

const torqueAt = ({ base, drift, rise, knee }: Hypothesis, angle: number): number =>
  base + drift * angle + rise * Math.max(0, angle - knee);

function hypotheses(readings: readonly NutReading[], sigma: number, start: CrushStart): readonly Hypothesis[] {
  const [first, last] = [readings[0] as NutReading, readings.at(-1) as NutReading];
  const span = last.angleDeg + AHEAD[start] - first.angleDeg;
  const list: Hypothesis[] = [];
  for (let k = 0; k < KNEE_STEPS; k++)
    for (const rise of RISES)
      for (const drift of DRIFTS) {
        const knee = first.angleDeg + (span * (k + 0.5)) / KNEE_STEPS;
        const off = readings.map(
          ({ angleDeg, torqueNm }) => torqueNm - drift * angleDeg - rise * Math.max(0, angleDeg - knee),
        );
        const base = off.reduce((a, b) => a + b, 0) / off.length;
        const misfit = off.reduce((sum, one) => sum + ((one - base) / sigma) ** 2, 0);
        list.push({ knee, rise, drift, base, weight: -misfit / 2 });
      }
  const most = Math.max(...list.map(({ weight }) => weight));
  for (const one of list) one.weight = Math.exp(one.weight - most);
  const total = list.reduce((sum, { weight }) => sum + weight, 0);
  for (const one of list) one.weight /= total;
  return list.filter(({ weight }) => weight > 1e-7);
}

const NOTHING = {
  nextAngleDeg: null,
  expectedNm: null,
  deviationNm: null,
  chanceOver: null,
  kneeDeg: null,
  chanceRising: null,
} as const;

/**
 * How far a nut on a collapsible spacer may be turned before it is read again. Torque stands nearly still, then rises from a knee
 * on: knee, steepness and drift are weighed by how well they fit the readings, and the angle is the farthest, a quarter turn at
 * most, at which less than one in fifty of them is above the band. `over`: a new spacer, never back off. `cannot-judge`: the
 * instrument's ± is half of the band or more.
 * Not counted: seal drag, a dry bearing, bearings that bed in.
 * @param readings 1 to 60, by ascending angle
 * @param instrumentUncertaintyNm ±, taken as two deviations
 * @param aimFromNm what is aimed at begins here, inside the band; its lower end unless told
 * @param start begun in the press, the knee is expected within 60° instead of 240°
 * @throws InputError naming the field
 */
export function collapsiblePreload(
  readings: readonly NutReading[],
  bandNm: readonly [number, number],
  instrumentUncertaintyNm: number,
  aimFromNm = bandNm[0],
  start: CrushStart = 'nut',
): CollapsibleNext {
  const [low, high] = requireTorqueBand(bandNm);
  const plusMinus = requireNumber('instrumentUncertaintyNm', instrumentUncertaintyNm, LIMITS.torqueNm);
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
  const list = hypotheses(readings, sigma, start);
  const mean = (of: (one: Hypothesis) => number): number => list.reduce((sum, one) => sum + one.weight * of(one), 0);
  const kneeDeg = mean(({ knee }) => knee);
  const chanceRising = mean(({ knee }) => (knee < last.angleDeg ? 1 : 0));
  if (last.torqueNm >= from) return { ...NOTHING, verdict: 'in-band', kneeDeg, chanceRising };
  // The level itself is known to a deviation over the root of the number of readings.
  const level = sigma / Math.sqrt(readings.length);
  const overAt = (angle: number): number => mean((one) => normalAbove((high - torqueAt(one, angle)) / level));
  const aim = (from + high) / 2;
  const tooFar = (turn: number): boolean => {
    const angle = last.angleDeg + turn;
    return overAt(angle) > CRUSH_GUARD.chanceOver || mean((one) => torqueAt(one, angle)) > aim;
  };
  // Torque never falls with the nut: halving finds the last degree that is not too far.
  let [step, beyond]: [number, number] = [CRUSH_GUARD.leastStepDeg, CRUSH_GUARD.stepDeg + 1];
  while (beyond - step > 1) {
    const middle = (step + beyond) >> 1;
    if (tooFar(middle)) beyond = middle;
    else step = middle;
  }
  const nextAngleDeg = last.angleDeg + step;
  const expectedNm = mean((one) => torqueAt(one, nextAngleDeg));
  const deviationNm = Math.sqrt(level ** 2 + mean((one) => (torqueAt(one, nextAngleDeg) - expectedNm) ** 2));
  return {
    verdict: 'go-on',
    nextAngleDeg,
    expectedNm,
    deviationNm,
    chanceOver: overAt(nextAngleDeg),
    kneeDeg,
    chanceRising,
  };
}
