import { CRITICAL_SHARE, criticalSpeed, entryBase, jointAngle, spline, torsion, type Spline } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { gearRatios, rangeRatio } from '../gearing/axle-gearing';
import { ringEnds, ringTorque } from '../road/ring-torque';
import { axleShare } from '../road/vehicle';
import type { UnitState } from '../unit/derive';
import { MATERIALS, type Material, type Twisted } from './schema';

const GRAVITY = 9.80665;

/** Shear yield that is reckoned with, MPa. */
export const shearOf = ({ shear, material }: { readonly shear: number | null; readonly material: Material }): number =>
  shear ?? MATERIALS[material].shearMPa;

/** The spline of an end. @throws InputError naming the field */
export const splineOf = (end: Twisted): Spline =>
  spline({
    teeth: end.splines,
    diametralPitch: end.pitch,
    pressureAngleDeg: end.angle,
    shearLimitMPa: shearOf(end),
    ...(end.bore ? { boreMm: entryBase(end.bore) } : {}),
  });

/** The thinnest place of a shaft, mm: the root of its spline, or its neck. */
export function thinnestMm(shaft: Twisted): number {
  const { minorMm } = splineOf(shaft);
  return shaft.neck ? Math.min(minorMm, entryBase(shaft.neck)) : minorMm;
}

/** The most that reaches one shaft, with what it was worked out of. */
export interface ShaftTorque {
  /** N·m at the shaft, ahead of a hub reduction. */
  readonly nm: number;
  readonly limitedBy: 'engine' | 'tyre';
  /** Share of the torque at the ring that one shaft can get. */
  readonly share: number;
  /** Most that the engine brings to the ring in the lowest gear, with losses and shock, N·m; what the tyres hold for one without a most. */
  readonly ringNm: number;
  /** On the wheel of that shaft, N. */
  readonly wheelLoadN: number;
  readonly grip: number;
  readonly hubRatio: number;
  readonly rollingRadiusMm: number;
}

type ShaftInputs = Pick<ShaftTorque, 'ringNm' | 'share' | 'grip' | 'wheelLoadN' | 'rollingRadiusMm' | 'hubRatio'>;

/** What the driveline gives to one shaft, and what the tyre of its wheel holds, N·m; the less of both reaches it. */
export function shaftBounds(of: ShaftInputs): { readonly engineNm: number; readonly tyreNm: number } {
  return {
    engineNm: of.ringNm * of.share,
    tyreNm: (of.grip * of.wheelLoadN * of.rollingRadiusMm) / 1000 / of.hubRatio,
  };
}

/**
 * The most that reaches one shaft: torque at the ring in the lowest gear by the share that the unit can give to one side, or what
 * the tyre of that wheel holds, whichever is less. A unit that locks gives all of it to one. The wheel is taken to carry half of
 * the axle, and the axle half as much again as it does standing; where one side can get all, all of the axle as it stands: the
 * other wheel is in the air. Both are guards of ours. Shock is the build's, losses are counted. Not counted: wheels that hop.
 */
export function shaftTorque(build: Build, axle: AxleName, own: AxleGearingState, unit: UnitState | null): ShaftTorque {
  const { engineNm: brought, tyresNm } = ringEnds(build, axle, own);
  const [ringNm, arrives] = [brought ?? tyresNm, Math.min(brought ?? tyresNm, tyresNm)];
  // A unit that is asked for more than it holds gives the slow wheel half of the torque and half of its lock.
  const share =
    unit === null || unit.locked ? 1 : Math.min(1, 0.5 + unit.lock('drive', arrives).lockNm / (2 * arrives));
  const stands = axleShare(build, axle);
  const carried = Math.max(Math.min(1, 1.5 * stands) / 2, share === 1 ? stands : 0);
  const of: ShaftInputs = {
    ringNm,
    share,
    grip: entryBase(build.road.grip),
    wheelLoadN: entryBase(build.road.mass) * GRAVITY * carried,
    rollingRadiusMm: own.circumferenceMm / (2 * Math.PI),
    hubRatio: own.hubRatio,
  };
  const { engineNm, tyreNm } = shaftBounds(of);
  return { ...of, nm: Math.min(engineNm, tyreNm), limitedBy: engineNm <= tyreNm ? 'engine' : 'tyre' };
}

/** How often a shaft holds what reaches it, in plain torsion at its thinnest place. */
export const shaftMargin = (shaft: Twisted, nm: number): ReturnType<typeof torsion> =>
  torsion({
    diameterMm: thinnestMm(shaft),
    torqueNm: nm,
    shearYieldMPa: shearOf(shaft),
    ...(shaft.bore ? { boreMm: entryBase(shaft.bore) } : {}),
  });

/** Most that reaches the pinion and the prop shaft, N·m: what reaches the ring, less by the final drive. */
export const propTorque = (build: Build, axle: AxleName, own: AxleGearingState): number =>
  ringTorque(build, axle, own) / own.finalRatio;

/** The fastest that the prop shaft turns, rpm: the limiter in the tallest gear, high range. */
export function fastestProp({ engine, ...build }: Build): number {
  const tallest = Math.min(...gearRatios({ engine, ...build }));
  const high = Math.min(1, ...(build.transfer?.ranges ?? []).map((_, i) => rangeRatio({ engine, ...build }, i)));
  return engine.limitRpm / (tallest * high);
}

export interface PropState {
  readonly rpm: number;
  readonly criticalRpm: number;
  readonly usableRpm: number;
  readonly outerMm: number;
  readonly boreMm: number;
  /** Both joints together: the swing that is left, and the larger angle. */
  readonly joints: ReturnType<typeof jointAngle>;
  /** The worse joint alone: what lies between the joints swings by it. */
  readonly worst: ReturnType<typeof jointAngle>;
}

/** The prop shaft: critical speed, and its joints at the fastest that it turns; null where it is not described. */
export function propState(build: Build, axle: AxleName): PropState | null {
  const prop = build.axles[axle]?.shafts?.prop;
  if (!prop) return null;
  const outer = entryBase(prop.outer);
  const bore = Math.max(0, outer - 2 * entryBase(prop.wall));
  const { criticalRpm } = criticalSpeed({
    outerDiameterMm: outer,
    innerDiameterMm: bore,
    lengthMm: entryBase(prop.between),
    youngGPa: 206,
    densityKgM3: 7850,
  });
  const rpm = fastestProp(build);
  const [front, rear] = [entryBase(prop.frontAngle), entryBase(prop.rearAngle)];
  return {
    rpm,
    criticalRpm,
    usableRpm: CRITICAL_SHARE * criticalRpm,
    outerMm: outer,
    boreMm: bore,
    joints: jointAngle({ rpm, angleDeg: front, otherAngleDeg: rear, inPhase: prop.inPhase }),
    worst: jointAngle({ rpm, angleDeg: Math.max(front, rear) }),
  };
}
