import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';
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

/**
 * A full-load curve through the two peaks that a data sheet gives, for want of a measured one. Between the peaks a
 * parabola that is level at peak torque and meets the torque of peak power; beyond, the same fall goes on; below, it
 * falls to 0.7 of the peak at a quarter of its speed. Ours, no published source: a stand-in until the curve is measured.
 * @returns seven points or so, rpm ascending up to the limiter
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
  const torqueAt = (rpm: number): number => {
    if (rpm < torqueRpm) {
      const share = (torqueRpm - rpm) / (0.75 * torqueRpm);
      return peakTorque * (1 - 0.3 * share * share);
    }
    const share = (rpm - torqueRpm) / (powerRpm - torqueRpm);
    return Math.max(0, peakTorque - (peakTorque - atPower) * share * share);
  };
  const marks = [0.25, 0.5, 0.75, 1].map((share) => share * torqueRpm);
  for (const share of [0.25, 0.5, 0.75, 1]) marks.push(torqueRpm + share * (powerRpm - torqueRpm));
  if (limit > powerRpm) marks.push((powerRpm + limit) / 2, limit);
  return marks.map((rpm) => ({ rpm: Math.round(rpm), torqueNm: torqueAt(Math.round(rpm)) }));
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
