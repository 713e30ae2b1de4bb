import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { lockingValue } from './bias';
import { preloadThat, type Preload, type PreloadActs } from './unit-lock';

/**
 * Locking torque against input torque: the larger of what springs in series hold, and of a base, a slope, and from a
 * threshold on a second slope on top.
 */
export interface LockLaw {
  /** Of springs in series: counts where it is more than all the rest. */
  readonly seriesNm: number;
  /** Adds to the slope: springs in parallel. */
  readonly baseNm: number;
  /** Locking torque per input torque. */
  readonly slope: number;
  readonly lateFromNm?: number;
  readonly lateSlope?: number;
}

/** Every type of unit as what it can hold; radii in mm, angles in degrees. */
export type CompareUnit =
  | { readonly type: 'open' }
  | { readonly type: 'plate'; readonly preload: Preload; readonly driveSlope: number; readonly overrunSlope: number }
  | {
      readonly type: 'side-gear-thrust';
      readonly preloadN: number;
      readonly preloadActs: PreloadActs;
      readonly frictionCoefficient: number;
      readonly interfacesPerPack: number;
      readonly meanRadiusMm: number;
      readonly gear: BevelGear;
    }
  | {
      readonly type: 'cone';
      readonly preloadN: number;
      readonly frictionCoefficient: number;
      readonly meanRadiusMm: number;
      readonly halfAngleDeg: number;
      readonly gear: BevelGear;
    }
  | { readonly type: 'helical'; readonly biasRatio: number; readonly preloadNm: number }
  | {
      readonly type: 'hybrid';
      readonly biasRatio: number;
      readonly preloadNm: number;
      readonly platesFromNm: number;
      readonly platesSlope: number;
    }
  | { readonly type: 'friction-insert'; readonly preloadNm: number }
  | { readonly type: 'selectable-locker'; readonly engaged: boolean }
  | { readonly type: 'automatic-locker' }
  | { readonly type: 'spool' };

export type CompareType = CompareUnit['type'];

/** Side gear of a bevel differential: mean radius, pressure angle φ and pitch cone angle Γ. */
export interface BevelGear {
  readonly meanRadiusMm: number;
  readonly pressureAngleDeg: number;
  readonly coneAngleDeg: number;
}

const ANGLE = { above: 0, max: 90, unit: '°' };
const SLOPE = { min: 0, max: 20 };
const BIAS = { min: 1, max: 100 };

/**
 * Axial thrust of one side gear per unit of torque into the unit, N per N·m: F = (T/2)/r_g·tan φ·sin Γ
 * [std: Shigley, bevel gear forces, from memory].
 * Not counted: friction of the teeth, and thrust washers.
 * @throws InputError naming the field
 */
export function sideGearThrust(gear: BevelGear): number {
  const { radius, phi, cone } = requireBevel(gear);
  return (Math.tan(phi) * Math.sin(cone)) / (2 * radius);
}

/** A side gear in m and radians. @throws InputError naming the field */
export function requireBevel(gear: BevelGear): { radius: number; phi: number; cone: number } {
  return {
    radius: requireNumber('gear.meanRadiusMm', gear.meanRadiusMm, LIMITS.radiusMm) / 1000,
    phi: (requireNumber('gear.pressureAngleDeg', gear.pressureAngleDeg, ANGLE) * Math.PI) / 180,
    cone: (requireNumber('gear.coneAngleDeg', gear.coneAngleDeg, ANGLE) * Math.PI) / 180,
  };
}

/**
 * Friction torque of one cone per axial force, N·m per N: T = μ·F·r_m/sin(half angle)
 * [std: Shigley, cone clutch, from memory].
 * Not counted: wedging, and oil in the cone.
 * @throws InputError naming the field
 */
export function coneTorquePerNewton(frictionCoefficient: number, meanRadiusMm: number, halfAngleDeg: number): number {
  const half = (requireNumber('halfAngleDeg', halfAngleDeg, ANGLE) * Math.PI) / 180;
  return (
    (requireNumber('frictionCoefficient', frictionCoefficient, LIMITS.frictionCoefficient) *
      requireNumber('meanRadiusMm', meanRadiusMm, LIMITS.radiusMm)) /
    1000 /
    Math.sin(half)
  );
}

/**
 * What a unit can hold between its wheels under power or on overrun. A locked one holds without limit.
 * Not counted: drag of oil, wear, and the snap of dogs.
 * @throws InputError naming the field
 */
export function lockLaw(unit: CompareUnit, flank: 'drive' | 'overrun'): LockLaw {
  const torque = (field: string, value: number): number => requireNumber(field, value, LIMITS.torqueNm);
  const thrust = (perNewton: number, preloadN: number, gear: BevelGear, acts: PreloadActs): LockLaw => {
    const { seriesNm, parallelNm } = preloadThat(
      acts,
      2 * perNewton * requireNumber('preloadN', preloadN, LIMITS.forceN),
    );
    return { seriesNm, baseNm: parallelNm, slope: 2 * perNewton * sideGearThrust(gear) };
  };
  const base = (baseNm: number): LockLaw => ({ seriesNm: 0, baseNm, slope: 0 });
  switch (unit.type) {
    case 'open':
      return base(0);
    case 'plate':
      return {
        seriesNm: torque('preload.seriesNm', unit.preload.seriesNm),
        baseNm: torque('preload.parallelNm', unit.preload.parallelNm),
        slope:
          flank === 'drive'
            ? requireNumber('driveSlope', unit.driveSlope, SLOPE)
            : requireNumber('overrunSlope', unit.overrunSlope, SLOPE),
      };
    case 'side-gear-thrust': {
      const perNewton =
        (requireNumber('frictionCoefficient', unit.frictionCoefficient, LIMITS.frictionCoefficient) *
          requireNumber('interfacesPerPack', unit.interfacesPerPack, LIMITS.interfaces) *
          requireNumber('meanRadiusMm', unit.meanRadiusMm, LIMITS.radiusMm)) /
        1000;
      return thrust(perNewton, unit.preloadN, unit.gear, unit.preloadActs);
    }
    case 'cone':
      // Springs between the side gears push the cones outwards along with the thrust.
      return thrust(
        coneTorquePerNewton(unit.frictionCoefficient, unit.meanRadiusMm, unit.halfAngleDeg),
        unit.preloadN,
        unit.gear,
        'parallel',
      );
    case 'helical':
    case 'hybrid': {
      const slope = lockingValue(requireNumber('biasRatio', unit.biasRatio, BIAS));
      const law = { seriesNm: 0, baseNm: torque('preloadNm', unit.preloadNm), slope };
      return unit.type === 'helical'
        ? law
        : {
            ...law,
            lateFromNm: torque('platesFromNm', unit.platesFromNm),
            lateSlope: requireNumber('platesSlope', unit.platesSlope, SLOPE),
          };
    }
    case 'friction-insert':
      return base(torque('preloadNm', unit.preloadNm));
    case 'selectable-locker':
      return base(unit.engaged ? Number.POSITIVE_INFINITY : 0);
    case 'automatic-locker':
    case 'spool':
      return base(Number.POSITIVE_INFINITY);
  }
}

/** Locking torque of a law at an input torque, N·m. */
export const lockAtInput = (law: LockLaw, inputNm: number): number =>
  Math.max(
    law.seriesNm,
    law.baseNm + law.slope * inputNm + (law.lateSlope ?? 0) * Math.max(0, inputNm - (law.lateFromNm ?? 0)),
  );

export interface WheelGround {
  readonly loadN: number;
  readonly grip: number;
  /** Brake on this wheel alone, N·m: what the unit has to turn against. */
  readonly brakeNm?: number;
}

export interface CompareSituation {
  /** Torque into the axle, N·m; negative on overrun. */
  readonly inputNm: number;
  readonly left: WheelGround;
  readonly right: WheelGround;
  readonly tyreRadiusMm: number;
  readonly trackMm: number;
  /** The wheel on the outside of the turn, which has to turn faster; none straight ahead. */
  readonly outer?: 'left' | 'right';
}

export interface CompareResult {
  readonly type: CompareType;
  /** Torque that reaches the road at each wheel, N·m; the brake's share is not in it. */
  readonly leftNm: number;
  readonly rightNm: number;
  readonly thrustN: number;
  /** Torque that goes through the unit; less than the input where a wheel spins it away. */
  readonly deliveredNm: number;
  readonly slips: 'none' | 'left' | 'right' | 'both';
  /** About the upright axis, positive to the left. */
  readonly yawNm: number;
  /** Largest torque in one shaft. */
  readonly shaftNm: number;
}

/**
 * Most torque that goes through before the weaker wheel spins: the first T at which T − T_lock(T) is twice its hold. Of the
 * larger of two it is the later one.
 */
function mostStraight(law: LockLaw, weakNm: number, togetherNm: number): number {
  return Math.max(Math.min(2 * weakNm + law.seriesNm, togetherNm), mostByTorque(law, weakNm, togetherNm));
}

function mostByTorque(law: LockLaw, weakNm: number, togetherNm: number): number {
  const late = law.lateFromNm ?? Number.POSITIVE_INFINITY;
  const first = law.slope >= 1 ? Number.POSITIVE_INFINITY : (2 * weakNm + law.baseNm) / (1 - law.slope);
  if (first <= late) return Math.min(first, togetherNm);
  const slope = law.slope + (law.lateSlope ?? 0);
  const base = law.baseNm - (law.lateSlope ?? 0) * late;
  const second = slope >= 1 ? Number.POSITIVE_INFINITY : (2 * weakNm + base) / (1 - slope);
  return Math.min(Math.max(second, late), togetherNm);
}

function holdOf(field: string, wheel: WheelGround, radiusM: number): { road: number; brake: number } {
  const load = requireNumber(`${field}.loadN`, wheel.loadN, LIMITS.forceN);
  const grip = requireNumber(`${field}.grip`, wheel.grip, { min: 0, max: 10 });
  const brake = requireNumber(`${field}.brakeNm`, wheel.brakeNm ?? 0, LIMITS.torqueNm);
  return { road: load * grip * radiusM, brake };
}

/**
 * What one unit does in one situation: torques from equilibrium, tyres as dry friction. Straight ahead, or once a wheel
 * spins, the two torques differ by at most the locking torque; in a turn the slower wheel gets the larger part under power,
 * the faster one the larger part of the braking on overrun [exact, equilibrium].
 * Not counted: slip of the tyres, inertia of the wheels, the driver.
 * @throws InputError naming the field
 */
export function compareUnit(unit: CompareUnit, situation: CompareSituation): CompareResult {
  const radiusM = requireNumber('tyreRadiusMm', situation.tyreRadiusMm, LIMITS.radiusMm) / 1000;
  const trackM = requireNumber('trackMm', situation.trackMm, { above: 0, max: 10_000, unit: 'mm' }) / 1000;
  const input = requireNumber('inputNm', situation.inputNm, { min: -1e6, max: 1e6, unit: 'N·m' });
  const left = holdOf('left', situation.left, radiusM);
  const right = holdOf('right', situation.right, radiusM);
  const overrun = input < 0;
  if (overrun && (left.brake > 0 || right.brake > 0))
    throw new InputError('inputNm', 'inputNm is negative: a dabbed brake is for power.', 'power, or no brake');
  const demand = Math.abs(input);
  const law = lockLaw(unit, overrun ? 'overrun' : 'drive');
  const hold = { left: left.road + left.brake, right: right.road + right.brake };
  // A wheel that the shaft holds back is turned by the road, and its brake works against the road too.
  const drag = { left: Math.max(0, left.road - left.brake), right: Math.max(0, right.road - right.brake) };
  const together = hold.left + hold.right;
  const weak = hold.left <= hold.right ? ('left' as const) : ('right' as const);
  const other = (side: 'left' | 'right'): 'left' | 'right' => (side === 'left' ? 'right' : 'left');

  const shares = (side: 'left' | 'right', ofIt: number, all: number): Record<'left' | 'right', number> =>
    side === 'left' ? { left: ofIt, right: all - ofIt } : { left: all - ofIt, right: ofIt };
  let slips: CompareResult['slips'] = 'none';
  let torques: Record<'left' | 'right', number> | null = null;

  if (situation.outer !== undefined) {
    // The wheel that gets more: the inner one under power, the outer one of braking.
    const gets = overrun ? situation.outer : other(situation.outer);
    const free = unit.type === 'automatic-locker';
    const wanted = free ? demand : demand / 2 + lockAtInput(law, demand) / 2;
    // A locked axle scrubs: the wheel that gets more takes all that its tyre holds, the other one may be dragged.
    const most = Math.min(wanted, hold[gets], demand + drag[other(gets)]);
    const rest = demand - most;
    if (rest <= hold[other(gets)] && rest - most <= lockAtInput(law, demand)) {
      torques = shares(gets, most, demand);
      // What the lock would take past what a tyre holds, the tyre slides at.
      const slides = most < wanted - 1e-9 && most >= hold[gets] - 1e-9;
      const dragged = rest < 0 && -rest >= drag[other(gets)] - 1e-9;
      if (slides || dragged) slips = slides && dragged ? 'both' : slides ? gets : other(gets);
    }
  }
  if (!torques) {
    const delivered = Math.min(demand, mostStraight(law, hold[weak], together));
    const even = delivered / 2 <= hold[weak];
    torques = even ? { left: delivered / 2, right: delivered / 2 } : shares(weak, hold[weak], delivered);
    if (delivered < demand - 1e-9) slips = delivered >= together - 1e-9 ? 'both' : weak;
  }
  const sign = overrun ? -1 : 1;
  const leftNm = sign * (torques.left - Math.min(left.brake, Math.max(torques.left, 0)));
  const rightNm = sign * (torques.right - Math.min(right.brake, Math.max(torques.right, 0)));
  return {
    type: unit.type,
    leftNm,
    rightNm,
    thrustN: (leftNm + rightNm) / radiusM,
    deliveredNm: sign * (torques.left + torques.right),
    slips,
    yawNm: (((rightNm - leftNm) / radiusM) * trackM) / 2,
    shaftNm: Math.max(Math.abs(torques.left), Math.abs(torques.right)),
  };
}

export interface AxleGround {
  readonly axleLoadN: number;
  readonly grip: number;
  readonly tyreRadiusMm: number;
  readonly trackMm: number;
  readonly cgHeightMm: number;
}

/** Situations that units are compared in. */
export const SITUATIONS = [
  'split-grip',
  'wheel-in-air',
  'wheel-in-air-braked',
  'corner-exit',
  'overrun-into-corner',
  'drift-transition',
  'crossed-axle',
] as const;
export type SituationName = (typeof SITUATIONS)[number];

export interface SituationSettings {
  readonly inputNm: number;
  /** Engine braking at the axle, positive. */
  readonly overrunNm: number;
  /** Grip of the slippery side as a share of the other. */
  readonly splitShare: number;
  readonly lateralG: number;
  readonly brakeNm: number;
}

/**
 * The wheels' ground in a named situation. Left is the inner wheel of a turn to the left, the slippery and the lifted one.
 * In a turn m·a·h/track moves from the inner wheel to the outer one, at most all of it [exact].
 * Not counted: squat, roll stiffness front to rear, and tyres whose grip falls with load.
 * @throws InputError naming the field
 */
export function factsOf(name: SituationName, ground: AxleGround, settings: SituationSettings): CompareSituation {
  const load = requireNumber('axleLoadN', ground.axleLoadN, LIMITS.forceN);
  const grip = requireNumber('grip', ground.grip, { above: 0, max: 10 });
  const track = requireNumber('trackMm', ground.trackMm, { above: 0, max: 10_000, unit: 'mm' });
  const height = requireNumber('cgHeightMm', ground.cgHeightMm, { min: 0, max: 5000, unit: 'mm' });
  // More than that no tyre holds, and nothing would be left to drive with.
  const lateral = requireNumber('lateralG', settings.lateralG, { min: 0, max: grip, unit: 'g (grip)' });
  const share = requireNumber('splitShare', settings.splitShare, { min: 0, max: 1 });
  const common = { inputNm: settings.inputNm, tyreRadiusMm: ground.tyreRadiusMm, trackMm: track };
  const half = { loadN: load / 2, grip };
  const air = { loadN: 0, grip };
  // An inner wheel that has given all its load lifts: there is no more to move.
  const moved = Math.min((load * lateral * height) / track, load / 2);
  // Cornering takes its part of the friction circle; what is left drives or brakes.
  const left = Math.sqrt(grip * grip - lateral * lateral);
  const inner = { loadN: load / 2 - moved, grip: left };
  const outer = { loadN: load / 2 + moved, grip: left };
  switch (name) {
    case 'split-grip':
      return { ...common, left: { loadN: load / 2, grip: grip * share }, right: half };
    case 'wheel-in-air':
      return { ...common, left: air, right: { loadN: load, grip } };
    case 'wheel-in-air-braked':
      return { ...common, left: { ...air, brakeNm: settings.brakeNm }, right: { loadN: load, grip } };
    case 'corner-exit':
      return { ...common, left: inner, right: outer, outer: 'right' };
    case 'overrun-into-corner':
      return { ...common, inputNm: -Math.abs(settings.overrunNm), left: inner, right: outer, outer: 'right' };
    // Both wheels are over-spun, so that no difference of speed is forced; the load still sits on the outer one.
    case 'drift-transition':
      return { ...common, left: inner, right: outer };
    case 'crossed-axle':
      return { ...common, left: { loadN: 0.05 * load, grip }, right: { loadN: 0.95 * load, grip } };
  }
}
