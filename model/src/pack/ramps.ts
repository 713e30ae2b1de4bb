import {
  entryBase,
  rampLockCoefficient,
  sideGearThrust,
  type BevelGear,
  type PlateUnit,
  type Ramp,
} from '@hot-spline/core';
import type { PlateSpec } from './schema';
import { plateRadius, slidingFriction, type PackSideState } from './state';

export type Flank = 'drive' | 'overrun';
/** What clamps the plates beside their springs: ramps, or the thrust of these side gears. */
export type Thrust = 'ramps' | BevelGear;

interface Sides {
  readonly left: PackSideState;
  readonly right: PackSideState;
}

const NO_RAMP: Ramp = { angleDeg: 90, from: 'rotation-plane' };

/** The ramp that works on a flank: the drive ramp both ways for a two-way unit, none on overrun for a one-way one. */
export function rampOn(plate: PlateSpec, flank: Flank): Ramp {
  const from = plate.rampFrom;
  if (flank === 'drive' || plate.action === 'two-way') return { angleDeg: entryBase(plate.driveRamp), from };
  if (plate.action === 'one-way') return NO_RAMP;
  return { angleDeg: entryBase(plate.overrunRamp), from };
}

/** Interfaces of one pack, the mean of both. */
const interfacesOf = ({ left, right }: Sides): number => (left.interfaces + right.interfaces) / 2;

/** What the core needs of a plate unit on one flank, while it slips. */
export function plateUnit(plate: PlateSpec, packs: Sides, flank: Flank): PlateUnit {
  return {
    frictionCoefficient: slidingFriction(plate),
    interfacesPerPack: interfacesOf(packs),
    meanRadiusMm: plateRadius(plate),
    pinRadiusMm: entryBase(plate.pinRadius),
    ramp: rampOn(plate, flank),
    rampFriction: entryBase(plate.rampFriction),
  };
}

/** Friction torque of one slipping pack per N of clamp, N·m. */
export function packTorquePerNewton(plate: PlateSpec, packs: Sides): number {
  return (slidingFriction(plate) * interfacesOf(packs) * plateRadius(plate)) / 1000;
}

/** Locking torque per input torque on a flank, while it slips. */
export function lockSlope(plate: PlateSpec, packs: Sides, flank: Flank, thrust: Thrust): number {
  return thrust === 'ramps'
    ? rampLockCoefficient(plateUnit(plate, packs, flank))
    : 2 * packTorquePerNewton(plate, packs) * sideGearThrust(thrust);
}
