import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { growthFactor, grownSpeed, slippingRpm, type TyreGrowth } from './corrections';

/** Everything between crankshaft and ground. Ratios are numerically higher when shorter. */
export interface Gearing {
  readonly rollingCircumferenceMm: number;
  readonly gearRatio: number;
  /** Transfer-case range; 1 if there is none. */
  readonly rangeRatio?: number;
  readonly finalRatio: number;
  /** Reduction in the hub; 1 if there is none. */
  readonly hubRatio?: number;
  /** Slip of the converter as a share of engine speed, of the wheels as a share of theirs; 0 if left out. */
  readonly converterSlip?: number;
  readonly wheelSlip?: number;
  /** Of the tyre with speed; none if left out. */
  readonly growth?: TyreGrowth;
}

const slipFactor = (gearing: Gearing): number =>
  slippingRpm(1, { converter: gearing.converterSlip ?? 0, wheel: gearing.wheelSlip ?? 0 });

/** Crankshaft turns for one turn of the wheel. */
export function totalRatio(gearing: Pick<Gearing, 'gearRatio' | 'rangeRatio' | 'finalRatio' | 'hubRatio'>): number {
  return (
    requireNumber('gearRatio', gearing.gearRatio, LIMITS.ratio) *
    requireNumber('rangeRatio', gearing.rangeRatio ?? 1, LIMITS.ratio) *
    requireNumber('finalRatio', gearing.finalRatio, LIMITS.ratio) *
    requireNumber('hubRatio', gearing.hubRatio ?? 1, LIMITS.ratio)
  );
}

/**
 * Road speed in m/s at an engine speed in rpm: v = C·n·(1−c)·(1−s) / (60·i_total), c the slip of the converter as a
 * share of engine speed, s of the wheel as a share of its speed, 0 unless given; then larger by the growth of the tyre at that speed [exact].
 * Not counted: how slip changes with torque, and a tyre that squats.
 * @throws InputError naming the field
 */
export function roadSpeed(gearing: Gearing, rpm: number): number {
  const circumferenceM =
    requireNumber('rollingCircumferenceMm', gearing.rollingCircumferenceMm, LIMITS.circumferenceMm) / 1000;
  const ungrown =
    (circumferenceM * requireNumber('rpm', rpm, LIMITS.rpm)) / (60 * totalRatio(gearing) * slipFactor(gearing));
  return gearing.growth ? grownSpeed(gearing.growth, ungrown) : ungrown;
}

/**
 * Engine speed in rpm at a road speed in m/s: n = 60·v·i_total / (C·(1−c)·(1−s)), the inverse of {@link roadSpeed} [exact].
 * Not counted: how slip changes with torque, and a tyre that squats.
 * @throws InputError naming the field
 */
export function engineRpm(gearing: Gearing, speedMps: number): number {
  const circumferenceM =
    requireNumber('rollingCircumferenceMm', gearing.rollingCircumferenceMm, LIMITS.circumferenceMm) / 1000;
  const speed = requireNumber('speedMps', speedMps, { min: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' });
  const ungrown = gearing.growth ? speed / growthFactor(gearing.growth, speed) : speed;
  return (60 * ungrown * totalRatio(gearing) * slipFactor(gearing)) / circumferenceM;
}

/**
 * Engine speed after a shift at `rpm` from ratio `from` to ratio `to`, at one road speed: n₂ = n₁·i₂/i₁ [exact].
 * Not counted: the speed that the car loses during the shift.
 * @throws InputError naming the field
 */
export function rpmAfterShift(rpm: number, from: number, to: number): number {
  return (
    (requireNumber('rpm', rpm, LIMITS.rpm) * requireNumber('to', to, LIMITS.ratio)) /
    requireNumber('from', from, LIMITS.ratio)
  );
}

export interface AxleGearing {
  readonly rollingCircumferenceMm: number;
  /** Final drive times hub reduction. */
  readonly axleRatio: number;
}

/**
 * How much faster the front prop shaft turns than the rear one at one road speed, as a fraction:
 * (i_f/C_f)/(i_r/C_r) − 1 [exact]. Positive: the front axle is geared shorter than the rear.
 * Not counted: tyre pressure and wear, and what the inside wheel of a turn adds.
 * @throws InputError naming the field
 */
export function axleMismatch(front: AxleGearing, rear: AxleGearing): number {
  const turnsPerMm = (name: string, axle: AxleGearing): number =>
    requireNumber(`${name}.axleRatio`, axle.axleRatio, LIMITS.ratio) /
    requireNumber(`${name}.rollingCircumferenceMm`, axle.rollingCircumferenceMm, LIMITS.circumferenceMm);
  return turnsPerMm('front', front) / turnsPerMm('rear', rear) - 1;
}
