import {
  INERTIA,
  LIMITS,
  MARKS_M,
  ROLLOUT_M,
  explain,
  roadRun,
  type Quantity,
  type Run,
  type RunOptions,
  type Vehicle,
} from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import { distanceM, exampleVehicle, vehicleKeys } from './vehicle-keys';

const runSchema = z.strictObject({
  ...vehicleKeys,
  distanceM,
  shiftRpm: number({ above: 0, max: LIMITS.rpm.max }).optional(),
  rolloutM: number({ min: 0, max: 2 }).default(ROLLOUT_M),
});
const mark = z.object({ distanceM: out, timeS: out, speedMps: out });

/** What a working of a run ends in. */
export interface RunRead {
  readonly label: string;
  readonly quantity: Quantity;
  readonly read: (run: Run) => number;
}

export function explainRun(
  vehicle: Vehicle,
  { distanceM: metres, shiftRpm }: RunOptions,
  { label, quantity, read }: RunRead = { label: 'time', quantity: 'time', read: (run) => run.timeS },
) {
  return explain({
    title: `Standing start: ${label}`,
    formula:
      'a = the least of: engine (T·i·η ÷ r − R) ÷ (m·λ), slipping clutch or converter the same with λ_w, tyre (μ·N − R_u) ÷ (m·λ_f), wheelstand g·b ÷ h',
    inputs: [
      { key: 'mass', label: 'mass', value: vehicle.massKg, quantity: 'mass' },
      { key: 'grip', label: 'grip μ', value: vehicle.tyre.grip, quantity: 'coefficient' },
      { key: 'final', label: 'final drive', value: vehicle.finalRatio, quantity: 'ratio' },
      { key: 'drag', label: 'drag area', value: vehicle.aero.dragAreaM2, quantity: 'area' },
      { key: 'distance', label: 'distance', value: metres, quantity: 'distance' },
    ],
    sources: [
      { kind: 'exact', text: 'Newton’s law along the road, Dormand–Prince steps at 1e-7' },
      {
        kind: 'guard-band' as const,
        text: `ours: λ_f ${vehicle.driveline.freeInertiaFactor ?? INERTIA.free} of the wheels that roll along, λ_w ${vehicle.driveline.rollingInertiaFactor ?? INERTIA.rolling} behind a slipping clutch${vehicle.aero.dragHeightMm === undefined ? ', drag at the height of the centre of gravity' : ''}`,
      },
      ...(vehicle.driveline.inertiaFactor === 'wong'
        ? [
            {
              kind: 'standard' as const,
              text: 'λ = 1.04 + 0.0025·i², Wong, Theory of Ground Vehicles',
              fromMemory: true,
            },
          ]
        : []),
    ],
    result: { label, quantity },
    compute: ({ mass = 0, grip = 0, final = 0, drag = 0, distance = 0 }) => {
      const run = roadRun(
        {
          ...vehicle,
          massKg: mass,
          finalRatio: final,
          tyre: { ...vehicle.tyre, grip },
          aero: { ...vehicle.aero, dragAreaM2: drag },
        },
        { distanceM: distance, ...(shiftRpm === undefined ? {} : { shiftRpm }) },
      );
      return {
        value: read(run),
        steps: [
          ...run.marks.map((one) => ({
            label: `at ${one.distanceM} m: ${(one.speedMps * 3.6).toFixed(1)} km/h after, s`,
            value: one.timeS,
            quantity: 'time' as const,
          })),
          { label: 'tyre is the limit for', value: run.limitTimesS.tyre, quantity: 'time' },
          { label: 'engine is the limit for', value: run.limitTimesS.engine, quantity: 'time' },
          { label: 'clutch is the limit for', value: run.limitTimesS.clutch, quantity: 'time' },
          { label: 'front wheels would lift for', value: run.limitTimesS.wheelstand, quantity: 'time' },
        ],
      };
    },
  });
}

/** One standing start. */
export const runCalculation = defineCalculation({
  name: 'road.run',
  summary: 'Standing start over a distance: times and speeds at the marks, shifts, what was the limit.',
  input: runSchema,
  output: z.object({
    timeS: out,
    speedMps: out,
    rpm: out,
    gear: out,
    marks: z.array(mark),
    shifts: z.array(z.object({ gear: out, timeS: out, distanceM: out, speedMps: out, rpm: out, rpmAfter: out })),
    gearTimesS: z.array(out),
    limitTimesS: z.object({ tyre: out, wheelstand: out, clutch: out, engine: out, shift: out, limiter: out }),
    slip: z.object({
      rolloutM: out,
      rolloutS: out,
      marks: z.array(z.object({ distanceM: out, timeS: out, speedMps: out.nullable() })),
    }),
    zeroTo100S: out.nullable(),
    eightyTo120S: out.nullable(),
    energy: z.object({ drive: out, kinetic: out, rotating: out, drag: out, rolling: out, grade: out }),
  }),
  example: { ...exampleVehicle, distanceM: MARKS_M[4] },
  run: ({ distanceM: metres, shiftRpm, rolloutM, ...vehicle }) => {
    const run = roadRun(plain<Vehicle>(vehicle), {
      distanceM: metres,
      rolloutM,
      ...(shiftRpm === undefined ? {} : { shiftRpm }),
    });
    return {
      ...run,
      gear: run.gear + 1,
      marks: [...run.marks],
      slip: { ...run.slip, marks: [...run.slip.marks] },
      shifts: run.shifts.map((shift) => ({ ...shift, gear: shift.gear + 1 })),
      gearTimesS: [...run.gearTimesS],
    };
  },
  explain: ({ distanceM: metres, shiftRpm, rolloutM: _, ...vehicle }) =>
    explainRun(plain<Vehicle>(vehicle), { distanceM: metres, ...(shiftRpm === undefined ? {} : { shiftRpm }) }),
});
