import { INERTIA, LIMITS, VEHICLE_LIMITS, type NumberRange } from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';
import { number } from '../frame/calc-keys';

const limits = VEHICLE_LIMITS;
export const speed: NumberRange = { min: 0, max: LIMITS.speedKmh.max / 3.6 };

export const vehicleKeys = {
  massKg: number(limits.massKg),
  engine: z.union([
    z.strictObject({
      torqueCurve: z
        .array(z.strictObject({ rpm: number(LIMITS.rpm), torqueNm: number(LIMITS.torqueNm) }))
        .min(1)
        .max(500),
      limitRpm: number({ above: 0, max: LIMITS.rpm.max }),
    }),
    z.strictObject({ constantPowerW: number(limits.constantPowerW) }),
  ]),
  gears: z.array(number(LIMITS.ratio)).max(limits.gears.max).default([]),
  finalRatio: number(LIMITS.ratio),
  rangeRatio: number(LIMITS.ratio).default(1),
  hubRatio: number(LIMITS.ratio).default(1),
  driveline: z.strictObject({
    efficiency: number(limits.efficiency),
    /** Acts while the engine is the limit with speeds locked. */
    inertiaFactor: z.union([z.literal('wong'), number(limits.inertiaFactor)]).default('wong'),
    /** Acts while the tyre is the limit. */
    freeInertiaFactor: number(limits.inertiaFactor).default(INERTIA.free),
    /** Acts while clutch or converter slips, and between gears. */
    rollingInertiaFactor: number(limits.inertiaFactor).default(INERTIA.rolling),
  }),
  tyre: z.strictObject({
    rollingRadiusMm: number(LIMITS.radiusMm),
    grip: number(limits.grip),
    growth: z
      .strictObject({ share: number({ min: 0, max: 0.5 }), speedMps: number({ above: 0, max: speed.max }) })
      .optional(),
  }),
  aero: z.strictObject({
    dragAreaM2: number(limits.dragAreaM2),
    airDensity: number(limits.airDensity).default(1.2),
    downforceAreaM2: number(limits.downforceAreaM2).default(0),
    /** That of the centre of gravity unless told. */
    dragHeightMm: number(limits.dragHeightMm).optional(),
  }),
  rollingCoefficient: number(limits.rollingCoefficient),
  driven: z.strictObject({
    staticShare: number(limits.staticShare),
    cgHeightMm: number(limits.cgHeightMm),
    wheelbaseMm: number(limits.wheelbaseMm),
    axle: z.enum(['rear', 'front', 'both']).default('rear'),
  }),
  launchRpm: number(LIMITS.rpm).optional(),
  clutchCapacityNm: number(limits.clutchCapacityNm).optional(),
  converter: z
    .strictObject({
      stallRpm: number({ above: 0, max: LIMITS.rpm.max }),
      torqueRatio: number(limits.torqueRatio),
      couplingRatio: number(limits.couplingRatio),
      slip: number(limits.slip).default(0),
      fullUpTo: number(limits.fullUpTo).optional(),
      shareAtCoupling: number(limits.shareAtCoupling).optional(),
    })
    .optional(),
  shiftTimeS: number(limits.shiftTimeS).default(0),
  wheelSlip: number(limits.wheelSlip).default(0),
  gradePercent: number(limits.gradePercent).default(0),
};
export const vehicleSchema = z.strictObject(vehicleKeys);

/** The invented circuit coupé of `demo/`. */
export const exampleVehicle = {
  massKg: 1165,
  engine: {
    torqueCurve: [
      { rpm: 1800, torqueNm: 190 },
      { rpm: 3400, torqueNm: 372 },
      { rpm: 4300, torqueNm: 398 },
      { rpm: 6800, torqueNm: 324 },
    ],
    limitRpm: 6900,
  },
  gears: [2.929, 2.056, 1.545, 1.24, 0.964],
  finalRatio: 3.917,
  rangeRatio: 1,
  driveline: { efficiency: 0.88, inertiaFactor: 'wong' as const },
  tyre: { rollingRadiusMm: 306, grip: 1.25 },
  aero: { dragAreaM2: 0.72, airDensity: 1.2 },
  rollingCoefficient: 0.013,
  driven: { staticShare: 0.47, cgHeightMm: 455, wheelbaseMm: 2515 },
  launchRpm: 3900,
  shiftTimeS: 0.15,
};

export const distanceM = number({ above: 0, max: 100_000 });
