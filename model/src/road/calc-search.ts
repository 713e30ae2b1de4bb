import {
  GRADE,
  LIMITS,
  MOST_CORNERS,
  MOST_SLOPES,
  SEARCH_LIMITS,
  coursePace,
  explain,
  roadSearch,
  type Course,
  type SearchProblem,
  type Vehicle,
} from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import type { HeavyContext } from '../frame/heavy';
import { exampleVehicle, speed, vehicleSchema } from './vehicle-keys';

const courseSchema = z.strictObject({
  lengthM: number({ above: 0, max: 1e6 }),
  startMps: number(speed).default(0),
  fastestMps: number(speed).nullable().default(null),
  corners: z
    .array(
      z.strictObject({
        atM: number({ min: 0, max: 1e6 }),
        lengthM: number({ min: 0, max: 1e6 }).default(0),
        speedMps: number({ above: 0, max: speed.max }),
        brakingMps2: number({ above: 0, max: 60 }).default(9),
      }),
    )
    .max(MOST_CORNERS),
  slopes: z
    .array(z.strictObject({ atM: number({ min: 0, max: 1e6 }), gradePercent: number(GRADE) }))
    .max(MOST_SLOPES)
    .default([]),
});
const pairSchema = z.strictObject({
  driver: number(LIMITS.teeth),
  driven: number(LIMITS.teeth),
  positions: z.array(z.int().min(1).max(SEARCH_LIMITS.positions)).optional(),
  torqueLimitNm: number(LIMITS.torqueNm).optional(),
});
const finalSchema = z.strictObject({ ring: number(LIMITS.teeth), pinion: number(LIMITS.teeth) });
const searchSchema = z.strictObject({
  vehicle: vehicleSchema,
  course: courseSchema,
  pairs: z.array(pairSchema).max(SEARCH_LIMITS.pairs),
  finals: z.array(finalSchema).min(1).max(SEARCH_LIMITS.finals),
  rules: z
    .strictObject({
      steps: z.enum(['shrinking', 'descending']).default('shrinking'),
      floorRpm: number(SEARCH_LIMITS.floorRpm).default(0),
      limiterMargin: number(SEARCH_LIMITS.limiterMargin).default(0.02),
    })
    .prefault({}),
  /** Bounds the work: looks at so many thousand beginnings of sets at the most, then says how far its bound is. */
  mostThousandBranches: number({ min: 1, max: 1000, integer: true }).default(200),
});
const searchOutput = z.object({
  best: z.array(z.object({ final: finalSchema, pairs: z.array(pairSchema), timeS: out, line: out })),
  provenBest: z.boolean(),
  boundS: out,
  combinations: out,
  evaluated: out,
  visited: out,
  presentS: out,
  gainS: out.nullable(),
});

function search(input: z.output<typeof searchSchema>, { goOn }: HeavyContext) {
  const { mostThousandBranches, ...problem } = input;
  const asked = plain<SearchProblem>(problem);
  let looks = 0;
  const result = roadSearch(asked, () => ++looks < 5 * mostThousandBranches && goOn());
  const presentS = coursePace(asked.vehicle, asked.course).timeS;
  const bestS = result.best[0]?.timeS ?? null;
  return plain<z.output<typeof searchOutput>>({ ...result, presentS, gainS: bestS === null ? null : presentS - bestS });
}

const exampleCourse = {
  lengthM: 600,
  startMps: 0,
  corners: [
    { atM: 140, lengthM: 14, speedMps: 14, brakingMps2: 9 },
    { atM: 360, lengthM: 10, speedMps: 22, brakingMps2: 9 },
  ],
};

/** Course time of a set, driven again: the best found, or the present one where none was found. */
function explainSearch(
  { vehicle: asked, course: courseAsked }: z.output<typeof searchSchema>,
  { best: [best], presentS, boundS, provenBest }: z.output<typeof searchOutput>,
) {
  const vehicle = plain<Vehicle>(asked);
  const course = plain<Course>(courseAsked);
  const gears = best && best.pairs.length > 0 ? best.pairs.map(({ driver, driven }) => driven / driver) : vehicle.gears;
  return explain({
    title: best ? 'Course time of the best set' : 'Course time of the present set; none other was found',
    formula:
      'course time = ∫ dx/v: full thrust up through the gears to the braking point of each corner, t_shift without thrust at each shift',
    inputs: [
      { key: 'mass', label: 'mass', value: vehicle.massKg, quantity: 'mass' },
      { key: 'grip', label: 'grip μ', value: vehicle.tyre.grip, quantity: 'coefficient' },
      {
        key: 'final',
        label: 'final drive',
        value: best ? best.final.ring / best.final.pinion : vehicle.finalRatio,
        quantity: 'ratio',
      },
      { key: 'shift', label: 'shift time', value: vehicle.shiftTimeS ?? 0, quantity: 'time' },
    ],
    sources: [
      {
        kind: 'exact',
        text: 'Newton’s law along the road, summed over the speed; sets built up gear by gear, those dropped that others are ahead of',
      },
    ],
    result: { label: 'course time', quantity: 'time' },
    compute: ({ mass = 0, grip = 0, final = 0, shift = 0 }) => {
      const driven = {
        ...vehicle,
        gears,
        massKg: mass,
        finalRatio: final,
        tyre: { ...vehicle.tyre, grip },
        shiftTimeS: shift,
      };
      return {
        value: coursePace(driven, course).timeS,
        steps: [
          { label: 'present set', value: presentS, quantity: 'time' },
          {
            label: provenBest ? 'proven: no set is faster than' : 'not proven; no set is faster than',
            value: boundS,
            quantity: 'time',
          },
        ],
      };
    },
  });
}

/** Sets of gear pairs for a course. */
export const searchCalculation = defineCalculation({
  name: 'road.search',
  summary: 'Gear pairs and final drive off a shelf for the least course time, and whether that is proven best.',
  input: searchSchema,
  output: searchOutput,
  example: {
    vehicle: { ...exampleVehicle, gears: [2.929, 2.056, 1.545] },
    course: exampleCourse,
    pairs: [
      { driver: 14, driven: 41, positions: [1] },
      { driver: 15, driven: 40, positions: [1] },
      { driver: 18, driven: 37, positions: [2] },
      { driver: 19, driven: 36, positions: [2] },
      { driver: 22, driven: 34, positions: [3] },
      { driver: 23, driven: 33, positions: [3] },
    ],
    finals: [
      { ring: 47, pinion: 12 },
      { ring: 43, pinion: 12 },
    ],
    rules: { steps: 'shrinking' as const, floorRpm: 3500 },
  },
  run: search,
  explain: explainSearch,
});
