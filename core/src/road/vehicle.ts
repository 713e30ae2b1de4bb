import { GRAVITY, VEHICLE_LIMITS } from './limits';
import { InputError, requireNumber } from '../base/errors';
import { growthFactor, type TyreGrowth } from '../gearing/corrections';
import { LIMITS } from '../base/limits';
import { contactForms, contactLimits, noLimit, undrivenLoad, type ContactForms } from './contact';
import { requireConverter, type Converter } from './converter';
import { torqueLookup, type TorquePoint } from './engine-torque';
import { CurvedGear, PoweredGear, engineside, type Engineside, type GearState, type Wheels } from './gear-state';

export type Engine =
  | { readonly torqueCurve: readonly TorquePoint[]; readonly limitRpm: number }
  | { readonly constantPowerW: number };

/** Everything that the longitudinal equation needs. */
export interface Vehicle {
  readonly massKg: number;
  readonly engine: Engine;
  /** First gear first. */
  readonly gears: readonly number[];
  readonly finalRatio: number;
  readonly rangeRatio?: number;
  readonly hubRatio?: number;
  readonly driveline: {
    readonly efficiency: number;
    /** λ of everything that turns with the engine; acts only while the engine is the limit with speeds locked. */
    readonly inertiaFactor: 'wong' | number;
    /** λ_f of the wheels that roll along; acts while the tyre is the limit. 1.02 unless told [ours]. */
    readonly freeInertiaFactor?: number;
    /** λ_w of what lies behind the clutch; acts while clutch or converter slips and between gears. 1.04 unless told. */
    readonly rollingInertiaFactor?: number;
  };
  readonly tyre: { readonly rollingRadiusMm: number; readonly grip: number; readonly growth?: TyreGrowth };
  readonly aero: {
    readonly dragAreaM2: number;
    readonly airDensity?: number;
    readonly downforceAreaM2?: number;
    /** Height at which drag pulls; that of the centre of gravity unless told. */
    readonly dragHeightMm?: number;
  };
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
  /** Torque that the clutch passes before it slips; as much as comes unless told. */
  readonly clutchCapacityNm?: number;
  readonly converter?: Converter;
  readonly shiftTimeS?: number;
  /** Slip of the driven wheels as a share of their speed; 0 unless told. The engine turns by so much faster than the road. */
  readonly wheelSlip?: number;
  /** Upwards positive. */
  readonly gradePercent?: number;
}

/**
 * λ of rotating parts from the total ratio: 1.04 + 0.0025·i² [std: Wong, Theory of Ground Vehicles, from memory]. Not counted: the engine at hand: a heavy flywheel is more.
 */
export const wongInertiaFactor = (totalRatio: number): number => 1.04 + 0.0025 * totalRatio * totalRatio;

/** Wheels that roll along, and everything behind the clutch, where nobody says better [Wong's constant term; ours]. */
export const INERTIA = { free: 1.02, rolling: 1.04 } as const;

/** What holds the car back at a moment while it is in gear. */
export type DriveLimit = 'tyre' | 'wheelstand' | 'clutch' | 'engine';

/** How the car moves at a speed. */
export interface Push {
  /** Acceleration, m/s². */
  mps2: number;
  limit: DriveLimit;
  /** λ that goes with what is the limit. */
  factor: number;
  /** Thrust that the driveline brings to the tyres, N: m·λ·a + resistance, with the λ of what is the limit. */
  thrustN: number;
  /**
   * Force at the contact of the driven tyres, N: m·λ_f·a + what air, slope and the undriven wheels take. The rolling resistance of the
   * driven wheels is a moment that the axle pays: no force of the patch.
   */
  contactN: number;
  /** Rolling resistance that is not inside the contact force, N. */
  rollingN: number;
}

/** A vehicle that was checked and made ready to be asked many times. */
export interface Car {
  readonly gears: readonly GearState[];
  /** Another ratio in the place `index`; the clutch slips at a launch in place 0 only. */
  gear(ratio: number, index: number): GearState;
  readonly massKg: number;
  /** λ_w·m, kg: clutch or converter slipping, and between gears. */
  readonly rollingKg: number;
  /** ½·ρ·C_d·A, N/(m/s)². */
  readonly drag: number;
  /** Weight along the slope, N, upwards positive. */
  readonly gradeN: number;
  readonly shiftTimeS: number;
  /** λ_f: the wheels that roll along. */
  readonly freeFactor: number;
  readonly rollingCoefficient: number;
  /** What tyres and weight allow, as formulas. */
  readonly contact: ContactForms;
  /** Engine speed below which no gear can be taken: launch or stall speed, 0 for neither. */
  readonly launchRpm: number;
  /** Rolling resistance of all wheels, N, downforce counted. */
  rolling(speedMps: number): number;
  resistance(speedMps: number): number;
  /** Contact force at which the tyres of the driven axle let go, N; all of the weight where the other axle lifts first. */
  gripThrust(speedMps: number): number;
  /**
   * The least acceleration that engine, clutch, tyres and weight allow.
   * @param locked whether the engine is tied to the road; by the speed unless told
   */
  push(speedMps: number, gear: GearState, into: Push, locked?: boolean): void;
  /** The acceleration alone, m/s². */
  acceleration(speedMps: number, gear: GearState): number;
}

/** Launch or stall speed against the limiter. @throws InputError naming the field */
function requireBelowLimiter(vehicle: Vehicle, limitRpm: number): void {
  const { converter, launchRpm } = vehicle;
  const [field, rpm] = converter ? ['converter.stallRpm', converter.stallRpm] : ['launchRpm', launchRpm ?? 0];
  if (rpm > limitRpm)
    throw new InputError(
      field,
      `${field} is ${rpm} rpm, above the limiter at ${limitRpm} rpm.`,
      `at most ${limitRpm} rpm`,
    );
}

/** What presses a car to the road and holds it back, whatever gear it is in. @throws InputError naming the field */
function standing({ tyre, aero, driven, rollingCoefficient: rolls, gradePercent = 0 }: Vehicle, massKg: number) {
  const grip = requireNumber('tyre.grip', tyre.grip, VEHICLE_LIMITS.grip);
  const density = requireNumber('aero.airDensity', aero.airDensity ?? 1.2, VEHICLE_LIMITS.airDensity);
  const drag = 0.5 * density * requireNumber('aero.dragAreaM2', aero.dragAreaM2, VEHICLE_LIMITS.dragAreaM2);
  const downArea = requireNumber('aero.downforceAreaM2', aero.downforceAreaM2 ?? 0, VEHICLE_LIMITS.downforceAreaM2);
  const down = 0.5 * density * downArea;
  const rollingCoefficient = requireNumber('rollingCoefficient', rolls, VEHICLE_LIMITS.rollingCoefficient);
  const axle = driven.axle ?? 'rear';
  const share =
    axle === 'both' ? 1 : requireNumber('driven.staticShare', driven.staticShare, VEHICLE_LIMITS.staticShare);
  const cgHeightM = requireNumber('driven.cgHeightMm', driven.cgHeightMm, VEHICLE_LIMITS.cgHeightMm) / 1000;
  const wheelbaseM = requireNumber('driven.wheelbaseMm', driven.wheelbaseMm, VEHICLE_LIMITS.wheelbaseMm) / 1000;
  const dragHeightM =
    requireNumber('aero.dragHeightMm', aero.dragHeightMm ?? driven.cgHeightMm, VEHICLE_LIMITS.dragHeightMm) / 1000;
  const slope = Math.atan(requireNumber('gradePercent', gradePercent, VEHICLE_LIMITS.gradePercent) / 100);
  const weightN = massKg * GRAVITY * Math.cos(slope);
  const gradeN = massKg * GRAVITY * Math.sin(slope);
  return {
    grip,
    drag,
    down,
    rollingCoefficient,
    axle,
    share,
    cgHeightM,
    wheelbaseM,
    dragHeightM,
    weightN,
    gradeN,
  };
}

/**
 * Checks a vehicle and makes it ready.
 *
 * Laws [exact, Newton]: the engine is the limit: m·λ·a = T·i·η/r − R; clutch or converter slips: m·λ_w·a = T·i·η/r − R;
 * the tyres are: m·λ_f·a = μ·N − R without the rolling resistance of the driven wheels. The least of them, and of the
 * wheelstand limit, is how the car moves. Not counted: wheel slip that grows with thrust (one share of it throughout is told), the engine's own rise while a clutch
 * slips, turbo lag, suspension.
 * @throws InputError naming the field
 */
export function readyCar(vehicle: Vehicle): Car {
  const massKg = requireNumber('massKg', vehicle.massKg, VEHICLE_LIMITS.massKg);
  const { driveline, tyre, engine, converter } = vehicle;
  const efficiency = requireNumber('driveline.efficiency', driveline.efficiency, VEHICLE_LIMITS.efficiency);
  const { inertiaFactor } = driveline;
  if (inertiaFactor !== 'wong') requireNumber('driveline.inertiaFactor', inertiaFactor, VEHICLE_LIMITS.inertiaFactor);
  const factor = (field: 'freeInertiaFactor' | 'rollingInertiaFactor', usual: number): number =>
    requireNumber(() => `driveline.${field}`, driveline[field] ?? usual, VEHICLE_LIMITS.inertiaFactor);
  const freeFactor = factor('freeInertiaFactor', INERTIA.free);
  const rollingFactor = factor('rollingInertiaFactor', INERTIA.rolling);
  const radiusM = requireNumber('tyre.rollingRadiusMm', tyre.rollingRadiusMm, LIMITS.radiusMm) / 1000;
  const { growth } = tyre;
  const stands = standing(vehicle, massKg);
  const { grip, drag, down, rollingCoefficient, axle, share, cgHeightM, wheelbaseM, dragHeightM, weightN, gradeN } =
    stands;
  const shiftTimeS = requireNumber('shiftTimeS', vehicle.shiftTimeS ?? 0, VEHICLE_LIMITS.shiftTimeS);
  if (converter) requireConverter(converter);
  if (vehicle.launchRpm !== undefined) requireNumber('launchRpm', vehicle.launchRpm, LIMITS.rpm);
  const capacityNm = vehicle.clutchCapacityNm;
  if (capacityNm !== undefined) requireNumber('clutchCapacityNm', capacityNm, VEHICLE_LIMITS.clutchCapacityNm);
  if (growth) growthFactor(growth, 0);

  const common =
    requireNumber('finalRatio', vehicle.finalRatio, LIMITS.ratio) *
    requireNumber('rangeRatio', vehicle.rangeRatio ?? 1, LIMITS.ratio) *
    requireNumber('hubRatio', vehicle.hubRatio ?? 1, LIMITS.ratio);
  const wheels: Wheels = {
    inertiaKg: (total) => massKg * (inertiaFactor === 'wong' ? wongInertiaFactor(total) : inertiaFactor),
    efficiency,
    holds: 1 - requireNumber('wheelSlip', vehicle.wheelSlip ?? 0, VEHICLE_LIMITS.wheelSlip),
    radiusM,
    growth: growth ?? null,
    clutchNm: capacityNm === undefined || converter ? Number.POSITIVE_INFINITY : capacityNm,
  };
  let full: ((rpm: number) => number) | null = null;
  let launched: Engineside | null = null;
  let rolls: Engineside | null = null;
  /** First gear slips its clutch; in all others, and with a converter, the side is the same. */
  const sideOf = (curved: Extract<Engine, { torqueCurve: unknown }>, first: boolean): Engineside => {
    full ??= torqueLookup(curved.torqueCurve);
    if (first && !converter) return (launched ??= engineside(vehicle, curved, full, true));
    return (rolls ??= engineside(vehicle, curved, full, false));
  };
  const stateOf = (total: number, index: number): GearState => {
    if ('constantPowerW' in engine) return new PoweredGear(index, total, wheels, engine.constantPowerW);
    const limitRpm = requireNumber('engine.limitRpm', engine.limitRpm, { above: 0, max: LIMITS.rpm.max, unit: 'rpm' });
    requireBelowLimiter(vehicle, limitRpm);
    return new CurvedGear(index, total, wheels, sideOf(engine, index === 0), limitRpm * (1 - (converter?.slip ?? 0)));
  };
  if ('constantPowerW' in engine)
    requireNumber('engine.constantPowerW', engine.constantPowerW, VEHICLE_LIMITS.constantPowerW);
  const ratios = 'constantPowerW' in engine && vehicle.gears.length === 0 ? [1] : vehicle.gears;
  if (ratios.length < VEHICLE_LIMITS.gears.min || ratios.length > VEHICLE_LIMITS.gears.max)
    throw new InputError('gears', `gears has ${ratios.length} entries.`, '1 to 20 ratios');
  const gear = (ratio: number, i: number): GearState =>
    stateOf(requireNumber(() => `gears[${i}]`, ratio, LIMITS.ratio) * common, i);
  const gears = ratios.map((ratio, i) => {
    const before = ratios[i - 1];
    if (before !== undefined && ratio >= before)
      throw new InputError(`gears[${i}]`, `gears[${i}] is not taller than the gear before it.`, `below ${before}`);
    return gear(ratio, i);
  });

  const contact = contactForms({
    massKg,
    freeFactor,
    grip,
    axle,
    share,
    cgHeightM,
    wheelbaseM,
    dragHeightM,
    weightN,
    gradeN,
    drag,
    down,
    rollingCoefficient,
  });
  const limits = contactLimits(contact, grip);
  const rolling = (speed: number): number => rollingCoefficient * (weightN + down * speed * speed);
  const resistance = (speed: number): number => drag * speed * speed + rolling(speed) + gradeN;
  const rollingKg = massKg * rollingFactor;
  const limit = noLimit();
  const push = (speed: number, state: GearState, into: Push, locked = speed >= state.lockMps): void => {
    const against = resistance(speed);
    const clutch = state.clutchThrust(speed);
    const thrust = state.engineThrust(speed);
    into.limit = 'engine';
    into.rollingN = rolling(speed);
    let kg = locked ? state.inertiaKg : rollingKg;
    into.mps2 = (thrust - against) / kg;
    // What a clutch lets pass while it slips; a closed one carries the engine's torque less what spins up the engine.
    const slipping = (clutch - against) / rollingKg;
    if (slipping < into.mps2) {
      into.mps2 = slipping;
      into.limit = 'clutch';
      kg = rollingKg;
    }
    into.factor = kg / massKg;
    limits(speed, limit);
    if (limit.tyreMps2 < into.mps2) {
      into.mps2 = limit.tyreMps2;
      into.limit = 'tyre';
      into.factor = freeFactor;
      into.rollingN = rollingCoefficient * limit.undrivenN;
    }
    if (limit.wheelstandMps2 < into.mps2) {
      into.mps2 = limit.wheelstandMps2;
      into.limit = 'wheelstand';
      // The undriven wheels are in the air: they neither roll nor spin up.
      into.factor = 1;
      into.rollingN = 0;
    }
    const outside = drag * speed * speed + gradeN;
    into.thrustN = massKg * into.factor * into.mps2 + outside + into.rollingN;
    const undriven = rollingCoefficient * undrivenLoad(limit, into.mps2);
    into.contactN = massKg * Math.min(into.factor, freeFactor) * into.mps2 + outside + undriven;
  };
  const scratch: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
  return {
    gears,
    gear,
    massKg,
    rollingKg,
    drag,
    gradeN,
    shiftTimeS,
    freeFactor,
    rollingCoefficient,
    contact,
    launchRpm:
      'constantPowerW' in engine ? 0 : (converter?.stallRpm ?? vehicle.launchRpm ?? engine.torqueCurve[0]?.rpm ?? 0),
    rolling,
    resistance,
    gripThrust: (speed) => {
      limits(speed, limit);
      return limit.gripN;
    },
    push,
    acceleration: (speed, state) => {
      push(speed, state, scratch);
      return scratch.mps2;
    },
  };
}

/**
 * Road speed at which the next gear pulls harder, grip not counted, or the limiter if it never does before, m/s.
 * From the limiter downwards, so that a dip in the curve below does not make a shift. Not counted: what a taller gear saves
 * by spinning up less of the engine, and what the shift itself costs.
 */
export function bestShiftSpeed(gear: GearState, next: GearState): number {
  const better = (speed: number): boolean => next.engineThrust(speed) > gear.engineThrust(speed);
  const top = gear.limitMps;
  if (!better(top)) return top;
  const marks = [0, ...gear.kinks(), ...next.kinks().filter((kink) => kink < top), top].sort((a, b) => a - b);
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
