import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

export interface TorquePoint {
  readonly rpm: number;
  readonly torqueNm: number;
}

/**
 * A curve checked once, to be asked often: full-load torque in N·m at any engine speed in rpm.
 * @param curve at least one point, rpm ascending
 * @throws InputError on `torqueCurve` for an empty curve, rpm that don't ascend, or numbers out of range
 */
export function torqueLookup(curve: readonly TorquePoint[]): (rpm: number) => number {
  if (curve.length === 0) throw new InputError('torqueCurve', 'torqueCurve is empty.', 'at least one point');
  // Plain lists: a typed one of a few numbers costs more to make than all that is asked of it.
  const rpms = curve.map((point, i) => requireNumber(() => `torqueCurve[${i}].rpm`, point.rpm, LIMITS.rpm));
  const torques = curve.map((point, i) =>
    requireNumber(() => `torqueCurve[${i}].torqueNm`, point.torqueNm, LIMITS.torqueNm),
  );
  for (let i = 1; i < rpms.length; i++) {
    const [low, high] = [rpms[i - 1] as number, rpms[i] as number];
    if (high <= low)
      throw new InputError('torqueCurve', `torqueCurve: ${high} rpm follows ${low} rpm.`, 'rpm ascending');
  }
  const last = rpms.length - 1;
  return (rpm) => {
    if (rpm <= (rpms[0] as number)) return torques[0] as number;
    if (rpm >= (rpms[last] as number)) return torques[last] as number;
    let [low, high] = [0, last];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((rpms[middle] as number) <= rpm) low = middle;
      else high = middle;
    }
    const share = (rpm - (rpms[low] as number)) / ((rpms[high] as number) - (rpms[low] as number));
    return (torques[low] as number) + ((torques[high] as number) - (torques[low] as number)) * share;
  };
}

/**
 * Full-load torque in N·m at an engine speed, by straight lines between the points of the curve; level outside them.
 * Not counted: boost that builds up, temperature and altitude; level outside the curve.
 * @param curve at least one point, rpm ascending
 * @throws InputError on `torqueCurve` for an empty curve or rpm that don't ascend
 */
export function engineTorque(curve: readonly TorquePoint[], rpm: number): number {
  requireNumber('rpm', rpm, LIMITS.rpm);
  return torqueLookup(curve)(rpm);
}

/** Engine power in W from torque in N·m and speed in rpm: P = T·2π·n/60 [exact]. */
export function enginePower(torqueNm: number, rpm: number): number {
  return (torqueNm * 2 * Math.PI * rpm) / 60;
}

/** Torque in N·m from power in W and speed in rpm: T = 60·P/(2π·n) [exact]. */
export function powerTorque(powerW: number, rpm: number): number {
  return (60 * powerW) / (2 * Math.PI * requireNumber('rpm', rpm, { above: 0, max: LIMITS.rpm.max, unit: 'rpm' }));
}
