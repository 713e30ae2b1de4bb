import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { powerTorque, type TorquePoint } from './engine-torque';

const POWER = { above: 0, max: 1e7, unit: 'W' };
const TORQUE = { above: 0, max: 20000, unit: 'N·m' };
const RPM = { above: 0, max: LIMITS.rpm.max, unit: 'rpm' };

export interface EnginePeaks {
  readonly peakTorqueNm: number;
  readonly peakTorqueRpm: number;
  readonly peakPowerW: number;
  readonly peakPowerRpm: number;
  readonly limitRpm: number;
}

/** Steps of the curve between its peaks. */
const BETWEEN = 12;

/**
 * A full-load curve through the two peaks that a data sheet gives, for want of a measured one. Between the peaks power
 * rises as a monotone cubic that leaves peak torque level and comes level to peak power where both can be had, so that
 * torque only falls; straight lines between the points exceed neither peak. Past peak power torque falls at one and a half
 * times the rate that would hold power; below peak torque it falls to 0.7 of the peak at a quarter of its speed. Ours, no
 * published source: a stand-in until the curve is measured.
 * Not counted: everything that a measured curve shows.
 * @returns some twenty points, rpm ascending up to the limiter
 * @throws InputError naming the field; on `peakPowerW` where power at peak torque would be above the peak power
 */
export function quickCurve(peaks: EnginePeaks): TorquePoint[] {
  const peakTorque = requireNumber('peakTorqueNm', peaks.peakTorqueNm, TORQUE);
  const torqueRpm = requireNumber('peakTorqueRpm', peaks.peakTorqueRpm, RPM);
  const powerRpm = requireNumber('peakPowerRpm', peaks.peakPowerRpm, RPM);
  const limit = requireNumber('limitRpm', peaks.limitRpm, RPM);
  if (powerRpm <= torqueRpm)
    throw new InputError('peakPowerRpm', 'peakPowerRpm must be above peakTorqueRpm.', `more than ${torqueRpm} rpm`);
  if (limit < powerRpm) throw new InputError('limitRpm', 'limitRpm is below peak power.', `at least ${powerRpm} rpm`);
  const atPower = powerTorque(requireNumber('peakPowerW', peaks.peakPowerW, POWER), powerRpm);
  const least = (peakTorque * torqueRpm) / powerRpm;
  if (atPower > peakTorque || atPower < least) {
    const kW = (torque: number): string => ((torque * 2 * Math.PI * powerRpm) / 60000).toFixed(1);
    throw new InputError(
      'peakPowerW',
      `peakPowerW does not go with ${peakTorque} N·m at ${torqueRpm} rpm.`,
      `${kW(least)} to ${kW(peakTorque)} kW at ${powerRpm} rpm`,
    );
  }
  const below = [0.25, 0.5, 0.75].map((share): TorquePoint => {
    const rpm = Math.round(share * torqueRpm);
    return { rpm, torqueNm: peakTorque * (1 - 0.3 * ((torqueRpm - rpm) / (0.75 * torqueRpm)) ** 2) };
  });
  const between = betweenPeaks({ rpm: torqueRpm, torqueNm: peakTorque }, { rpm: powerRpm, torqueNm: atPower });
  const beyond = (limit > powerRpm ? [(powerRpm + limit) / 2, limit] : []).map((rpm): TorquePoint => {
    const left = 1 - (1.5 * (rpm - powerRpm)) / powerRpm;
    // Past there an engine makes no torque at all.
    return { rpm, torqueNm: left > 0 ? atPower * left : 0 };
  });
  return [...below, ...between, ...beyond].filter(
    ({ rpm }, i, all) => i === 0 || rpm > (all[i - 1] as TorquePoint).rpm,
  );
}

/** From peak torque to peak power: power concave and rising, torque falling, and no chord above the peak power. */
function betweenPeaks(torquePeak: TorquePoint, powerPeak: TorquePoint): TorquePoint[] {
  const [from, to] = [torquePeak.rpm, powerPeak.rpm];
  // In N·m·rpm; the factor to watts cancels.
  const [low, high] = [torquePeak.torqueNm * from, powerPeak.torqueNm * to];
  const rise = (high - low) / (to - from);
  // Slopes over the chord's: level torque at the start is ≥ 1; above 3 a cubic would overshoot (Fritsch & Carlson 1980),
  // below 1.5 it needs a slope at its end to stay concave.
  const start = Math.min(3, torquePeak.torqueNm / Math.max(rise, 1e-12));
  const end = Math.max(0, 3 - 2 * start);
  const powerAt = (s: number): number =>
    low + (high - low) * (start * s * (1 - s) ** 2 + s * s * (3 - 2 * s) - end * s * s * (1 - s));
  const points = Array.from({ length: BETWEEN + 1 }, (_, i) => {
    const rpm = i === 0 ? from : i === BETWEEN ? to : Math.round(from + ((to - from) * i) / BETWEEN);
    return { rpm, torqueNm: powerAt((rpm - from) / (to - from)) / rpm };
  });
  points[0] = torquePeak;
  points[BETWEEN] = powerPeak;
  // A chord in torque is a parabola in power: it rises up to its end where T_a ≤ T_b·(2 − n_a/n_b) [exact].
  for (let i = BETWEEN - 1; i > 0; i--) {
    const [a, b] = [points[i] as TorquePoint, points[i + 1] as TorquePoint];
    points[i] = { rpm: a.rpm, torqueNm: Math.min(a.torqueNm, b.torqueNm * (2 - a.rpm / b.rpm)) };
  }
  // The first chord starts at a torque that is given: it has to fall so fast that its top is no more than peak power.
  const under = (2 * high - low) ** 2 - low ** 2;
  const fall = (2 * high - low - Math.sqrt(Math.max(under, 0))) / from ** 2;
  const first = points[1] as TorquePoint;
  const held = torquePeak.torqueNm - fall * (first.rpm - from);
  const top = (torquePeak.torqueNm + fall * from) / (2 * Math.max(fall, 1e-12));
  if (top < first.rpm) points[1] = { rpm: first.rpm, torqueNm: Math.min(first.torqueNm, held) };
  return points;
}

export interface MotorPeaks {
  readonly peakTorqueNm: number;
  /** Where constant torque ends, if the sheet gives it: a check on the other two. */
  readonly baseRpm?: number;
  readonly peakPowerW: number;
  readonly limitRpm: number;
}

/**
 * Full-load curve of an electric motor: constant torque up to the base speed, constant power from there to the limit
 * [exact, definition]. Torque and power fix the base speed; one that is given too has to agree.
 * Not counted: battery, temperature, torque that falls off at standstill.
 * @returns points, rpm ascending, at most 1.15 between neighbouring speeds in the constant-power range
 * @throws InputError naming the field; on `baseRpm` where it is more than 5 % off the speed at which torque and power meet
 */
export function motorCurve(peaks: MotorPeaks): TorquePoint[] {
  const torque = requireNumber('peakTorqueNm', peaks.peakTorqueNm, TORQUE);
  const power = requireNumber('peakPowerW', peaks.peakPowerW, POWER);
  const limit = requireNumber('limitRpm', peaks.limitRpm, RPM);
  const corner = (60 * power) / (2 * Math.PI * torque);
  const base = requireNumber('baseRpm', peaks.baseRpm ?? corner, RPM);
  if (Math.abs(base / corner - 1) > 0.05) {
    throw new InputError(
      'baseRpm',
      `baseRpm is ${Math.round(base)}; peak torque and peak power meet at ${Math.round(corner)} rpm.`,
      `${Math.ceil(0.95 * corner)} to ${Math.floor(1.05 * corner)} rpm, or nothing`,
    );
  }
  const points: TorquePoint[] = [
    { rpm: 0, torqueNm: torque },
    { rpm: Math.min(corner, limit), torqueNm: torque },
  ];
  const steps = limit > corner ? Math.ceil(Math.log(limit / corner) / Math.log(1.15)) : 0;
  for (let i = 1; i <= steps; i++) {
    const rpm = corner * (limit / corner) ** (i / steps);
    points.push({ rpm, torqueNm: powerTorque(power, rpm) });
  }
  return points;
}
