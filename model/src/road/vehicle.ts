import { entryBase, type Vehicle } from '@hot-spline/core/page';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import { gearRatios, rangeRatio, type AxleGearingState } from '../gearing/axle-gearing';
import { torqueCurve } from './torque-curve';

/** Share of the standing weight on one axle. */
export function axleShare({ road }: Build, axle: AxleName): number {
  const rear = entryBase(road.rearShare) / 100;
  return axle === 'rear' ? rear : 1 - rear;
}

/** What the simulation needs of a build, driven as its followed axle is geared. */
export function vehicleOf(build: Build, main: AxleName, own: AxleGearingState, range = 0): Vehicle {
  const { road, coupling, engine, gearbox } = build;
  return {
    massKg: entryBase(road.mass),
    engine: { torqueCurve: torqueCurve(build), limitRpm: engine.limitRpm },
    gears: gearRatios(build),
    finalRatio: own.finalRatio,
    rangeRatio: rangeRatio(build, range),
    hubRatio: own.hubRatio,
    driveline: {
      efficiency: entryBase(road.efficiency) / 100,
      inertiaFactor: road.inertiaFactor ? entryBase(road.inertiaFactor) : 'wong',
    },
    tyre: {
      rollingRadiusMm: own.circumferenceMm / (2 * Math.PI),
      grip: entryBase(road.grip),
      ...(own.growth ? { growth: own.growth } : {}),
    },
    aero: {
      dragAreaM2: entryBase(road.dragArea),
      downforceAreaM2: entryBase(road.downforceArea),
      ...(road.dragHeight ? { dragHeightMm: entryBase(road.dragHeight) } : {}),
    },
    rollingCoefficient: entryBase(road.rollingCoefficient),
    driven: {
      staticShare: axleShare(build, main),
      cgHeightMm: entryBase(road.cgHeight),
      wheelbaseMm: entryBase(road.wheelbase),
      axle: build.driven,
    },
    ...(coupling.kind === 'clutch'
      ? {
          launchRpm: engine.launchRpm,
          // A stand-in that nobody has said limits no launch.
          ...(build.assumed.includes('coupling') ? {} : { clutchCapacityNm: entryBase(coupling.capacity) }),
        }
      : {}),
    ...(coupling.kind === 'converter'
      ? {
          converter: {
            stallRpm: coupling.stallRpm,
            torqueRatio: entryBase(coupling.torqueRatio),
            couplingRatio: entryBase(coupling.couplingRatio),
            slip: entryBase(coupling.slip) / 100,
            fullUpTo: entryBase(coupling.fullUpTo),
            shareAtCoupling: entryBase(coupling.shareAtCoupling) / 100,
          },
        }
      : {}),
    shiftTimeS: entryBase(gearbox.shiftTime),
    wheelSlip: entryBase(road.wheelSlip) / 100,
    gradePercent: entryBase(road.grade),
  };
}
