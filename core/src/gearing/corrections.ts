import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

const WEAR = { min: 0, max: 50, unit: 'mm' };
const SPEED = { min: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
const SLIP = { min: 0, max: 0.9 };

/** Growth of a tyre with speed: `share` of the radius at `speedMps`. */
export interface TyreGrowth {
  readonly share: number;
  readonly speedMps: number;
}

/**
 * Overall diameter in mm of a worn tyre: D − 2·wear [exact].
 * Not counted: the casing, which settles as the tread goes.
 * @throws InputError naming the field; on `wearMm` where nothing would be left
 */
export function wornDiameter(overallDiameterMm: number, wearMm: number): number {
  const diameter = requireNumber('overallDiameterMm', overallDiameterMm, LIMITS.diameterMm);
  const wear = requireNumber('wearMm', wearMm, WEAR);
  if (2 * wear >= diameter)
    throw new InputError('wearMm', `wearMm is ${wear}: nothing of the tyre is left.`, `below ${diameter / 2} mm`);
  return diameter - 2 * wear;
}

/**
 * How much larger the rolling radius is at a speed: 1 + g·(v/v_ref)², g = 0 for a tyre that doesn't grow [trade].
 * Not counted: load and pressure, which hold a tyre down.
 * @throws InputError naming the field
 */
export function growthFactor(growth: TyreGrowth, speedMps: number): number {
  const share = requireNumber('growth.share', growth.share, { min: 0, max: 0.5 });
  const reference = requireNumber('growth.speedMps', growth.speedMps, { above: 0, max: SPEED.max, unit: 'm/s' });
  return 1 + share * (requireNumber('speedMps', speedMps, SPEED) / reference) ** 2;
}

/**
 * Road speed in m/s of a growing tyre, from the speed that the tyre would make without growth: the smaller root of
 * v = v₀·(1 + g·(v/v_ref)²) [exact].
 * Not counted: load and pressure, which hold a tyre down.
 * @throws InputError on `growth` where the tyre would grow faster than it turns
 */
export function grownSpeed(growth: TyreGrowth, ungrownMps: number): number {
  growthFactor(growth, ungrownMps);
  const a = (growth.share * ungrownMps) / growth.speedMps ** 2;
  const under = 1 - 4 * a * ungrownMps;
  if (under < 0) {
    throw new InputError('growth', 'growth: the tyre would grow without end at this speed.', 'less growth, or slower');
  }
  return (2 * ungrownMps) / (1 + Math.sqrt(under));
}

/**
 * Final drive that keeps rpm at a road speed on a tyre of another size: i_new = i_old·D_new/D_old [exact].
 * Not counted: that the two tyres may roll by different factors.
 * @throws InputError naming the field
 */
export function equalGearing(oldRatio: number, oldDiameterMm: number, newDiameterMm: number): number {
  return (
    (requireNumber('oldRatio', oldRatio, LIMITS.ratio) *
      requireNumber('newDiameterMm', newDiameterMm, LIMITS.diameterMm)) /
    requireNumber('oldDiameterMm', oldDiameterMm, LIMITS.diameterMm)
  );
}

/**
 * What the old axle feels like on the new tyre: i_old·D_old/D_new [exact].
 * Not counted: that the two tyres may roll by different factors, and the weight of the larger one.
 * @throws InputError naming the field
 */
export function effectiveRatio(oldRatio: number, oldDiameterMm: number, newDiameterMm: number): number {
  return equalGearing(oldRatio, newDiameterMm, oldDiameterMm);
}

/**
 * Turns of the engine for one of the wheel in the lowest gear and range: first × low range × final × hub [exact]. Not counted: converter multiplication, and what is lost on the way.
 */
export function crawlRatio(firstRatio: number, lowRange: number, finalRatio: number, hubRatio = 1): number {
  return (
    requireNumber('firstRatio', firstRatio, LIMITS.ratio) *
    requireNumber('lowRange', lowRange, LIMITS.ratio) *
    requireNumber('finalRatio', finalRatio, LIMITS.ratio) *
    requireNumber('hubRatio', hubRatio, LIMITS.ratio)
  );
}

export interface SpeedReading {
  /** `gearbox`: the sender turns ahead of the final drive; `wheel`: the tyre alone touches it. */
  readonly sender: 'gearbox' | 'wheel';
  readonly oldRatio: number;
  readonly newRatio: number;
  /** Rolling circumferences in force: a measured rollout beats the designation, the rolling factor counts. */
  readonly oldCircumferenceMm: number;
  readonly newCircumferenceMm: number;
}

/**
 * True speed for what the speedometer shows, as a factor: (i_old·C_new)/(i_new·C_old) ahead of the final drive,
 * C_new/C_old at the wheel [exact]. Multiply the reading by it; above 1 it reads low. Not counted: growth with speed, and
 * what the speedometer was off before.
 * @throws InputError naming the field
 */
export function speedReadingCorrection(reading: SpeedReading): number {
  const tyre =
    requireNumber('newCircumferenceMm', reading.newCircumferenceMm, LIMITS.circumferenceMm) /
    requireNumber('oldCircumferenceMm', reading.oldCircumferenceMm, LIMITS.circumferenceMm);
  const ratio =
    requireNumber('oldRatio', reading.oldRatio, LIMITS.ratio) /
    requireNumber('newRatio', reading.newRatio, LIMITS.ratio);
  return reading.sender === 'gearbox' ? ratio * tyre : tyre;
}

/**
 * Engine speed with slip in the converter and at the wheel: n = n_kinematic/((1−c)·(1−s)) [exact]: converter slip is a
 * share of engine speed (10 % → 1.111), wheel slip a share of wheel speed.
 * Not counted: how slip changes with torque.
 * @param slip fractions: 0.03 is 3 %
 * @throws InputError naming the field
 */
export function slippingRpm(kinematicRpm: number, slip: { converter?: number; wheel?: number }): number {
  return (
    requireNumber('kinematicRpm', kinematicRpm, LIMITS.rpm) /
    ((1 - requireNumber('slip.converter', slip.converter ?? 0, SLIP)) *
      (1 - requireNumber('slip.wheel', slip.wheel ?? 0, SLIP)))
  );
}
