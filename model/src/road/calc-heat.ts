import {
  InputError,
  LIMITS,
  converterHeat,
  explain,
  type Climb,
  type ConverterHeat,
  type Vehicle,
} from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import { distanceM, exampleVehicle, vehicleKeys } from './vehicle-keys';

const heatSchema = z.strictObject({
  ...vehicleKeys,
  converter: vehicleKeys.converter.unwrap(),
  /** 1 for first. */
  gear: number({ min: 1, max: 20, integer: true }),
  speedKmh: number(LIMITS.speedKmh),
  gradePercent: number({ min: 0, max: 200 }),
  /** Of `road.run`; not used here. */
  distanceM: distanceM.optional(),
});

function asked({ gear, speedKmh, gradePercent, distanceM: _, ...car }: z.output<typeof heatSchema>) {
  const count = car.gears.length;
  if (gear > count) throw new InputError('gear', `gear ${gear} is none of this car.`, `1 to ${count}`);
  return { vehicle: plain<Vehicle>(car), climb: { gear: gear - 1, speedMps: speedKmh / 3.6, gradePercent } };
}

/** Working of the heat in a converter at a steady climb. */
export function explainHeat(vehicle: Vehicle, climb: Climb, title = 'Heat in the converter') {
  return explain({
    title,
    formula:
      'heat = engine power × (1 − speed ratio × torque ratio); turbine torque = (drag + rolling + slope) × radius ÷ (ratio × η)',
    inputs: [
      { key: 'mass', label: 'mass, load included', value: vehicle.massKg, quantity: 'mass' },
      { key: 'speed', label: 'speed', value: climb.speedMps, quantity: 'speed' },
      { key: 'grade', label: 'slope', value: climb.gradePercent, quantity: 'percent' },
      { key: 'gear', label: 'gear', value: vehicle.gears[climb.gear] ?? 1, quantity: 'ratio' },
      { key: 'final', label: 'final drive', value: vehicle.finalRatio, quantity: 'ratio' },
      { key: 'stall', label: 'rated stall', value: vehicle.converter?.stallRpm ?? 0, quantity: 'rotation' },
    ],
    sources: [
      { kind: 'exact', text: 'what goes in and does not come out is heat; no lock-up clutch counted' },
      {
        kind: 'guard-band',
        text: 'ours: impeller torque C·f·n², C from the engine’s full torque at stall, f whole up to a speed ratio of 0.7, then straight to a half at coupling, unless told',
      },
    ],
    result: { label: 'heat', quantity: 'power' },
    compute: ({ mass = 0, speed = 0, grade = 0, gear = 1, final = 1, stall = 1 }) => {
      const converter = vehicle.converter && { ...vehicle.converter, stallRpm: stall };
      const { heatW, engineRpm, speedRatio, torqueRatio, impellerNm } = converterHeat(
        { ...vehicle, massKg: mass, finalRatio: final, gears: [gear], ...(converter ? { converter } : {}) },
        { gear: 0, speedMps: speed, gradePercent: grade },
      );
      return {
        value: heatW,
        steps: [
          { label: 'engine speed', value: engineRpm, quantity: 'rotation' },
          { label: 'engine torque', value: impellerNm, quantity: 'torque' },
          { label: 'speed ratio', value: speedRatio, quantity: 'ratio' },
          { label: 'torque ratio', value: torqueRatio, quantity: 'ratio' },
        ],
      };
    },
  });
}

/** Heat in a torque converter on a climb at a steady speed. */
export const heatCalculation = defineCalculation({
  name: 'road.converterHeat',
  summary: 'Heat in a torque converter on a climb at a steady speed, and where it works.',
  input: heatSchema,
  output: z.object({
    heatW: out,
    speedRatio: out,
    torqueRatio: out,
    engineRpm: out,
    engineTorqueNm: out,
    thrustN: out,
    holds: z.boolean(),
  }),
  example: {
    ...exampleVehicle,
    converter: { stallRpm: 2200, torqueRatio: 2, couplingRatio: 0.88 },
    gear: 1,
    speedKmh: 30,
    gradePercent: 12,
  },
  run: (input) => {
    const { vehicle, climb } = asked(input);
    const { impellerNm, ...point }: ConverterHeat = converterHeat(vehicle, climb);
    return { ...point, engineTorqueNm: impellerNm };
  },
  explain: (input) => {
    const { vehicle, climb } = asked(input);
    return explainHeat(vehicle, climb);
  },
});
