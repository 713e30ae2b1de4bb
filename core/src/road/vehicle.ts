import { InputError, requireNumber, type NumberRange } from '../errors';
import { growthFactor, grownSpeed, type TyreGrowth } from '../gearing/corrections';
import { LIMITS } from '../limits';
import { torqueLookup, type TorquePoint } from './engine-torque';

/** Standard gravity in m/s² [exact, by definition]. */
export const GRAVITY = 9.80665;

export type Engine =
  { readonly torqueCurve: readonly TorquePoint[]; readonly limitRpm: number } | { readonly constantPowerW: number };

export interface Converter {
  /** Engine speed that it holds until the turbine has caught up. */
  readonly stallRpm: number;
  /** Torque multiplication at standstill. */
  readonly torqueRatio: number;
  /** Speed ratio at which the multiplication has fallen to 1. */
  readonly couplingRatio: number;
  /** What it slips beyond that, as a fraction. */
  readonly slip?: number;
}

/** Everything that the longitudinal equation needs. */
export interface Vehicle {
  readonly massKg: number;
  readonly engine: Engine;
  /** First gear first. */
  readonly gears: readonly number[];
  readonly finalRatio: number;
  readonly rangeRatio?: number;
  readonly hubRatio?: number;
  readonly driveline: { readonly efficiency: number; readonly inertiaFactor: 'wong' | number };
  readonly tyre: { readonly rollingRadiusMm: number; readonly grip: number; readonly growth?: TyreGrowth };
  readonly aero: { readonly dragAreaM2: number; readonly airDensity?: number; readonly downforceAreaM2?: number };
  readonly rollingCoefficient: number;
  readonly driven: {
    /** Share of the standing weight on the driven axle. */
    readonly staticShare: number;
    readonly cgHeightMm: number;
    readonly wheelbaseMm: number;
    readonly axle?: 'rear' | 'front' | 'both';
  };
  /** At which the clutch slips until the speeds meet. */
  readonly launchRpm?: number;
  readonly converter?: Converter;
  readonly shiftTimeS?: number;
  /** Upwards positive. */
  readonly gradePercent?: number;
}

const FRACTION: NumberRange = { above: 0, max: 1 };
export const VEHICLE_LIMITS = {
  massKg: { above: 0, max: 200_000, unit: 'kg' },
  constantPowerW: { above: 0, max: 1e8, unit: 'W' },
  efficiency: FRACTION,
  inertiaFactor: { min: 1, max: 10 },
  grip: { above: 0, max: 1e6 },
  dragAreaM2: { min: 0, max: 50, unit: 'm²' },
  airDensity: { min: 0, max: 5, unit: 'kg/m³' },
  downforceAreaM2: { min: -20, max: 50, unit: 'm²' },
  rollingCoefficient: { min: 0, max: 1 },
  staticShare: FRACTION,
  cgHeightMm: { min: 0, max: 5000, unit: 'mm' },
  wheelbaseMm: { above: 0, max: 20_000, unit: 'mm' },
  shiftTimeS: { min: 0, max: 5, unit: 's' },
  gradePercent: { min: -100, max: 200, unit: '%' },
  torqueRatio: { min: 1, max: 5 },
  couplingRatio: { above: 0, max: 1 },
  slip: { min: 0, max: 0.9 },
  gears: { min: 1, max: 20 },
} as const satisfies Record<string, NumberRange>;

/** λ of rotating parts from the total ratio: 1.04 + 0.0025·i² [std: Wong, Theory of Ground Vehicles, from memory]. */
export const wongInertiaFactor = (totalRatio: number): number => 1.04 + 0.0025 * totalRatio * totalRatio;

/** One gear of a checked vehicle; speeds in m/s, forces in N. */
export interface GearState {
  readonly index: number;
  readonly totalRatio: number;
  /** λ·m: mass that has to be accelerated, rotating parts included, kg. */
  readonly inertiaKg: number;
  /** Road speed at the limiter. */
  readonly limitMps: number;
  /** Engine speed at a road speed, slip of clutch or converter included. */
  rpm(speedMps: number): number;
  /** Thrust that the engine could make at the tyre, grip not counted. */
  engineThrust(speedMps: number): number;
  /** Road speeds at which the slope of the thrust jumps, ascending. */
  readonly kinks: readonly number[];
}

/** A vehicle that was checked and made ready to be asked many times. */
export interface Car {
  readonly gears: readonly GearState[];
  /** Another ratio in the place `index`; the clutch slips at a launch in place 0 only. */
  gear(ratio: number, index: number): GearState;
  readonly massKg: number;
  /** ½·ρ·C_d·A, N/(m/s)². */
  readonly drag: number;
  /** Rolling resistance on the slope, N. */
  readonly rollingN: number;
  /** Weight along the slope, N, upwards positive. */
  readonly gradeN: number;
  readonly shiftTimeS: number;
  resistance(speedMps: number): number;
  /**
   * Most thrust that the driven tyres can take at a speed, N, load transfer under that thrust and downforce counted:
   * F ≤ μ·N, N = N₀ ± (F − R)/λ·h/L.
   */
  gripThrust(speedMps: number, gear: GearState): number;
  /** Thrust at the tyre: the smaller of engine and grip, N. */
  thrust(speedMps: number, gear: GearState): number;
}

interface Engineside {
  rpm(kinematicRpm: number): number;
  /** Torque into the gearbox at the engine's speed. */
  torque(kinematicRpm: number): number;
  /** Kinematic speeds at which something bends. */
  readonly kinks: readonly number[];
}

function engineside(vehicle: Vehicle, engine: Extract<Engine, { torqueCurve: unknown }>, first: boolean): Engineside {
  const torque = torqueLookup(engine.torqueCurve);
  const marks = engine.torqueCurve.map((point) => point.rpm);
  const { converter } = vehicle;
  if (converter) {
    const { stallRpm, torqueRatio, couplingRatio, slip = 0 } = converter;
    const rpm = (kinematic: number): number => Math.max(stallRpm, kinematic * (1 + slip));
    const multiplication = (kinematic: number): number =>
      Math.max(1, torqueRatio - ((torqueRatio - 1) * kinematic) / (couplingRatio * stallRpm));
    return {
      rpm,
      torque: (kinematic) => torque(rpm(kinematic)) * multiplication(kinematic),
      kinks: [couplingRatio * stallRpm, stallRpm / (1 + slip), ...marks.map((mark) => mark / (1 + slip))],
    };
  }
  const launchRpm = first ? (vehicle.launchRpm ?? marks[0] ?? 0) : 0;
  const rpm = (kinematic: number): number => Math.max(launchRpm, kinematic);
  return { rpm, torque: (kinematic) => torque(rpm(kinematic)), kinks: [launchRpm, ...marks] };
}

function checkConverter({ stallRpm, torqueRatio, couplingRatio, slip = 0 }: Converter): void {
  requireNumber('converter.stallRpm', stallRpm, { above: 0, max: LIMITS.rpm.max, unit: 'rpm' });
  requireNumber('converter.torqueRatio', torqueRatio, VEHICLE_LIMITS.torqueRatio);
  requireNumber('converter.couplingRatio', couplingRatio, VEHICLE_LIMITS.couplingRatio);
  requireNumber('converter.slip', slip, VEHICLE_LIMITS.slip);
}

/**
 * Checks a vehicle and makes it ready.
 * @throws InputError naming the field
 */
export function readyCar(vehicle: Vehicle): Car {
  const massKg = requireNumber('massKg', vehicle.massKg, VEHICLE_LIMITS.massKg);
  const efficiency = requireNumber('driveline.efficiency', vehicle.driveline.efficiency, VEHICLE_LIMITS.efficiency);
  const { inertiaFactor } = vehicle.driveline;
  if (inertiaFactor !== 'wong') requireNumber('driveline.inertiaFactor', inertiaFactor, VEHICLE_LIMITS.inertiaFactor);
  const radiusM = requireNumber('tyre.rollingRadiusMm', vehicle.tyre.rollingRadiusMm, LIMITS.radiusMm) / 1000;
  const grip = requireNumber('tyre.grip', vehicle.tyre.grip, VEHICLE_LIMITS.grip);
  const { growth } = vehicle.tyre;
  const density = requireNumber('aero.airDensity', vehicle.aero.airDensity ?? 1.2, VEHICLE_LIMITS.airDensity);
  const drag = 0.5 * density * requireNumber('aero.dragAreaM2', vehicle.aero.dragAreaM2, VEHICLE_LIMITS.dragAreaM2);
  const down =
    0.5 *
    density *
    requireNumber('aero.downforceAreaM2', vehicle.aero.downforceAreaM2 ?? 0, VEHICLE_LIMITS.downforceAreaM2);
  const rolling = requireNumber('rollingCoefficient', vehicle.rollingCoefficient, VEHICLE_LIMITS.rollingCoefficient);
  const { driven } = vehicle;
  const axle = driven.axle ?? 'rear';
  const share =
    axle === 'both' ? 1 : requireNumber('driven.staticShare', driven.staticShare, VEHICLE_LIMITS.staticShare);
  const lever =
    requireNumber('driven.cgHeightMm', driven.cgHeightMm, VEHICLE_LIMITS.cgHeightMm) /
    requireNumber('driven.wheelbaseMm', driven.wheelbaseMm, VEHICLE_LIMITS.wheelbaseMm);
  const shiftTimeS = requireNumber('shiftTimeS', vehicle.shiftTimeS ?? 0, VEHICLE_LIMITS.shiftTimeS);
  const slope = Math.atan(requireNumber('gradePercent', vehicle.gradePercent ?? 0, VEHICLE_LIMITS.gradePercent) / 100);
  const weight = massKg * GRAVITY * Math.cos(slope);
  const gradeN = massKg * GRAVITY * Math.sin(slope);
  const rollingN = rolling * weight;
  if (vehicle.converter) checkConverter(vehicle.converter);
  if (vehicle.launchRpm !== undefined) requireNumber('launchRpm', vehicle.launchRpm, LIMITS.rpm);
  if (growth) growthFactor(growth, 0);

  const common =
    requireNumber('finalRatio', vehicle.finalRatio, LIMITS.ratio) *
    requireNumber('rangeRatio', vehicle.rangeRatio ?? 1, LIMITS.ratio) *
    requireNumber('hubRatio', vehicle.hubRatio ?? 1, LIMITS.ratio);
  const inertia = (total: number): number =>
    massKg * (inertiaFactor === 'wong' ? wongInertiaFactor(total) : inertiaFactor);
  const perMps = 60 / (2 * Math.PI * radiusM);
  const ungrown = (speed: number): number => (growth ? speed / growthFactor(growth, speed) : speed);
  const grown = (speed: number): number => (growth ? grownSpeed(growth, speed) : speed);

  const { engine } = vehicle;
  const powered = (total: number, index: number): GearState => {
    const power = (engine as { constantPowerW: number }).constantPowerW * efficiency;
    return {
      index,
      totalRatio: total,
      inertiaKg: inertia(total),
      limitMps: Number.POSITIVE_INFINITY,
      rpm: (speed) => ungrown(speed) * total * perMps,
      engineThrust: (speed) => (speed <= 0 ? Number.MAX_VALUE : power / speed),
      kinks: [],
    };
  };
  const geared = (total: number, index: number): GearState => {
    const curved = engine as Extract<Engine, { torqueCurve: unknown }>;
    const limitRpm = requireNumber('engine.limitRpm', curved.limitRpm, { above: 0, max: LIMITS.rpm.max, unit: 'rpm' });
    const side = engineside(vehicle, curved, index === 0);
    const slip = vehicle.converter?.slip ?? 0;
    const perRpm = total * perMps;
    const limitMps = grown(limitRpm / (1 + slip) / perRpm);
    return {
      index,
      totalRatio: total,
      inertiaKg: inertia(total),
      limitMps,
      rpm: (speed) => side.rpm(ungrown(speed) * perRpm),
      engineThrust: (speed) => {
        const bigger = growth ? growthFactor(growth, speed) : 1;
        return (side.torque(ungrown(speed) * perRpm) * total * efficiency) / (radiusM * bigger);
      },
      kinks: [...new Set(side.kinks.map((kink) => (kink > 0 && kink / perRpm < limitMps ? grown(kink / perRpm) : 0)))]
        .filter((speed) => speed > 0 && speed < limitMps)
        .sort((a, b) => a - b),
    };
  };
  if ('constantPowerW' in engine)
    requireNumber('engine.constantPowerW', engine.constantPowerW, VEHICLE_LIMITS.constantPowerW);
  const ratios = 'constantPowerW' in engine && vehicle.gears.length === 0 ? [1] : vehicle.gears;
  if (ratios.length < VEHICLE_LIMITS.gears.min || ratios.length > VEHICLE_LIMITS.gears.max)
    throw new InputError('gears', `gears has ${ratios.length} entries.`, '1 to 20 ratios');
  const gear = (ratio: number, i: number): GearState => {
    const total = requireNumber(`gears[${i}]`, ratio, LIMITS.ratio) * common;
    return 'constantPowerW' in engine ? powered(total, i) : geared(total, i);
  };
  const gears = ratios.map((ratio, i) => {
    const before = ratios[i - 1];
    if (before !== undefined && ratio >= before)
      throw new InputError(`gears[${i}]`, `gears[${i}] is not taller than the gear before it.`, `below ${before}`);
    return gear(ratio, i);
  });

  const resistance = (speed: number): number => drag * speed * speed + rollingN + gradeN;
  const gripThrust = (speed: number, gear: GearState): number => {
    const press = down * speed * speed;
    const whole = weight + press;
    if (axle === 'both') return Math.max(0, grip * whole);
    const sign = axle === 'rear' ? 1 : -1;
    // m·a·h/L of load moves to the rear; m·a = (F − R)·m/λm. The slope moves load back as well.
    const move = (sign * lever * massKg) / gear.inertiaKg;
    const still = share * whole + sign * lever * gradeN - move * resistance(speed);
    const under = 1 - grip * move;
    // Nothing of the weight is left on the other axle: all of it is what grips.
    const most = grip * whole;
    return Math.max(0, under <= 0 ? most : Math.min(most, (grip * still) / under));
  };
  return {
    gears,
    gear,
    massKg,
    drag,
    rollingN,
    gradeN,
    shiftTimeS,
    resistance,
    gripThrust,
    thrust: (speed, gear) => Math.min(gear.engineThrust(speed), gripThrust(speed, gear)),
  };
}

/**
 * Road speed at which the next gear pulls harder, grip not counted, or the limiter if it never does before, m/s.
 * From the limiter downwards, so that a dip in the curve below does not make a shift.
 */
export function bestShiftSpeed(gear: GearState, next: GearState): number {
  const better = (speed: number): boolean => next.engineThrust(speed) > gear.engineThrust(speed);
  const top = gear.limitMps;
  if (!better(top)) return top;
  const marks = [0, ...gear.kinks, ...next.kinks.filter((kink) => kink < top), top].sort((a, b) => a - b);
  for (let i = marks.length - 2; i >= 0; i--) {
    if (better(marks[i] as number)) continue;
    let [low, high] = [marks[i] as number, marks[i + 1] as number];
    for (let k = 0; k < 48; k++) {
      const middle = (low + high) / 2;
      if (better(middle)) high = middle;
      else low = middle;
    }
    return high;
  }
  return top;
}
