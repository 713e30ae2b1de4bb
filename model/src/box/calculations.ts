import {
  ARRANGEMENTS,
  BOX_LIMITS,
  LIFE_EXPONENT,
  LIMITS,
  MESH_LIMITS,
  checkDrum,
  dogsMeet,
  faceOverlap,
  floatShim,
  gearLadder,
  heatedFloat,
  pairOnCentres,
  reduction,
  wearAgainst,
  type Drum,
  type HeatedFloat,
  type PairOnCentres,
  type Reduction,
} from '@hot-spline/core';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import { explainFloat } from '../mesh/float';
import '../base/zod';
import * as z from 'zod';
import {
  explainDogs,
  explainDrum,
  explainHeated,
  explainLadder,
  explainLife,
  explainOverlap,
  explainPair,
  explainReduction,
} from './explain';

const pair = z.strictObject({ driver: number(LIMITS.teeth), driven: number(LIMITS.teeth) });
const stage = pair.extend({
  normalModuleMm: number(BOX_LIMITS.normalModuleMm).optional(),
  helixDeg: number(BOX_LIMITS.helixDeg).optional(),
  driverHand: z.enum(['right', 'left']).optional(),
});
const floatKeys = {
  shimMm: number(MESH_LIMITS.shimMm),
  measuredMm: number(MESH_LIMITS.floatMm),
  wantedMm: number(MESH_LIMITS.floatMm),
};
const face = z.strictObject({
  fromMm: number(BOX_LIMITS.placeMm),
  toMm: number(BOX_LIMITS.placeMm),
  floatMm: number(BOX_LIMITS.floatMm),
});
const interval = z.tuple([out, out]);
const loads = z
  .array(z.strictObject({ turns: number(BOX_LIMITS.turns), torqueNm: number(LIMITS.torqueNm) }))
  .min(1)
  .max(BOX_LIMITS.spectrum.max);
const drumInput = z.strictObject({
  tracks: z
    .array(
      z.strictObject({
        name: z.string().max(40),
        points: z
          .array(z.tuple([number(BOX_LIMITS.drumDeg), number(BOX_LIMITS.travelMm)]))
          .min(2)
          .max(BOX_LIMITS.points.max),
      }),
    )
    .min(1)
    .max(BOX_LIMITS.tracks.max),
  touchMm: number({ above: 0, max: BOX_LIMITS.travelMm.max, unit: 'mm' }),
  radiusMm: number(BOX_LIMITS.radiusMm),
  period: number({ above: 0, max: 3600, unit: '°' }).optional(),
  inMm: number({ above: 0, max: BOX_LIMITS.travelMm.max, unit: 'mm' }).optional(),
  detentsDeg: z.array(number(BOX_LIMITS.drumDeg)).max(100).optional(),
});

/** Gearboxes and reduction units. The figures of the examples are ours. */
export const boxCalculations = [
  defineCalculation({
    name: 'box.pair',
    summary:
      'Whether a pair of gears fits the centre distance of a box, and the profile shifts that it needs together.',
    input: z.strictObject({
      teeth: z.tuple([number(LIMITS.teeth), number(LIMITS.teeth)]),
      normalModuleMm: number(BOX_LIMITS.normalModuleMm),
      helixDeg: number(BOX_LIMITS.helixDeg).default(0),
      pressureAngleDeg: number(BOX_LIMITS.pressureAngleDeg).default(20),
      centreMm: number(BOX_LIMITS.centreMm),
      shiftSumGiven: number(BOX_LIMITS.shiftSum).optional(),
    }),
    output: z.object({
      plainCentreMm: out,
      workingAngleDeg: out,
      shiftSum: out,
      playMm: out.nullable(),
      verdict: z.enum(['fits', 'can-fit', 'jams', 'loose']),
    }),
    example: {
      teeth: [18, 33] as [number, number],
      normalModuleMm: 2.75,
      helixDeg: 0,
      pressureAngleDeg: 20,
      centreMm: 71,
    },
    run: (input) => pairOnCentres(plain<PairOnCentres>(input)),
    explain: (input) => explainPair(plain<PairOnCentres>(input)),
  }),
  defineCalculation({
    name: 'box.ladder',
    summary: 'Gears of a box by their teeth: ratio, step to the next, speed at the limiter, rpm after the shift.',
    input: z.strictObject({
      pairs: z.array(pair).min(1).max(BOX_LIMITS.gears.max),
      inputPair: pair.optional(),
      finalRatio: number(LIMITS.ratio),
      limitRpm: number(LIMITS.rpm),
      rollingCircumferenceMm: number(LIMITS.circumferenceMm),
    }),
    output: z.object({
      gears: z.array(
        z.object({ ratio: out, stepTo: out.nullable(), speedAtLimitKmh: out, rpmAfterShift: out.nullable() }),
      ),
    }),
    example: {
      pairs: [
        { driver: 13, driven: 37 },
        { driver: 17, driven: 34 },
        { driver: 21, driven: 32 },
      ],
      finalRatio: 3.9,
      limitRpm: 9400,
      rollingCircumferenceMm: 1720,
    },
    run: (input) => ({ gears: gearLadder(plain<Parameters<typeof gearLadder>[0]>(input)) }),
    explain: (input) => explainLadder(plain<Parameters<typeof gearLadder>[0]>(input)),
  }),
  defineCalculation({
    name: 'box.reduction',
    summary:
      'Ratio and top speed of a reduction of parallel stages; with a torque the axial force on each shaft, away from the motor positive, under power.',
    input: z.strictObject({
      stages: z.array(stage).min(1).max(BOX_LIMITS.stages.max),
      motorLimitRpm: number(LIMITS.rpm),
      rollingCircumferenceMm: number(LIMITS.circumferenceMm),
      torqueNm: number(LIMITS.torqueNm).optional(),
    }),
    output: z.object({ ratio: out, speedAtLimitKmh: out, thrustsN: z.array(out).nullable() }),
    example: {
      stages: [
        { driver: 27, driven: 64, normalModuleMm: 1.8, helixDeg: 28, driverHand: 'right' as const },
        { driver: 21, driven: 73, normalModuleMm: 2.4, helixDeg: 19, driverHand: 'left' as const },
      ],
      motorLimitRpm: 15_000,
      rollingCircumferenceMm: 1940,
      torqueNm: 240,
    },
    run: (input) =>
      plain<{ ratio: number; speedAtLimitKmh: number; thrustsN: number[] | null }>(reduction(plain<Reduction>(input))),
    explain: (input) => explainReduction(plain<Reduction>(input)),
  }),
  defineCalculation({
    name: 'box.overlap',
    summary:
      'How far two faces lie on each other, centred and at the worst of both end floats, as a share of the narrower.',
    input: z.strictObject({ first: face, second: face }),
    output: z.object({ overlapMm: out, share: out, worstShare: out }),
    example: {
      first: { fromMm: 12, toMm: 31, floatMm: 0.12 },
      second: { fromMm: 12.6, toMm: 33, floatMm: 0.18 },
    },
    run: faceOverlap,
    explain: explainOverlap,
  }),
  defineCalculation({
    name: 'box.endFloat',
    summary: 'The shim that brings a measured end float to the wanted one; the law of shim.float.',
    input: z.strictObject(floatKeys),
    output: z.object({ shimMm: out }),
    example: { shimMm: 1.62, measuredMm: 0.31, wantedMm: 0.14 },
    run: (of) => ({ shimMm: floatShim(of) }),
    explain: explainFloat,
  }),
  defineCalculation({
    name: 'box.float',
    summary: 'The shim for an end float that is set cold, and what heat makes of it; below nought it is squeeze.',
    input: z.strictObject({
      ...floatKeys,
      lengthMm: number(BOX_LIMITS.lengthMm),
      caseRiseK: number(BOX_LIMITS.riseK),
      shaftRiseK: number(BOX_LIMITS.riseK),
      caseExpansion: number(BOX_LIMITS.expansion),
      shaftExpansion: number(BOX_LIMITS.expansion),
      arrangement: z.enum(ARRANGEMENTS),
    }),
    output: z.object({ shimMm: out, coldMm: out, hotMm: out }),
    example: {
      shimMm: 1.62,
      measuredMm: 0.31,
      wantedMm: 0.14,
      lengthMm: 260,
      caseRiseK: 70,
      shaftRiseK: 75,
      caseExpansion: 21.5e-6,
      shaftExpansion: 11.7e-6,
      arrangement: 'X' as const,
    },
    run: (input) => heatedFloat(plain<HeatedFloat>(input)),
    explain: (input) => explainHeated(plain<HeatedFloat>(input)),
  }),
  defineCalculation({
    name: 'box.drum',
    summary:
      'Whether a drum touches one gear at a time with a neutral between any two, and its steepest ramp, over all angles.',
    input: drumInput,
    output: z.object({
      ok: z.boolean(),
      both: z.array(interval),
      neutral: z.array(interval),
      steepestDeg: out,
      faults: z.array(z.string()),
      gears: z
        .array(z.object({ atDeg: out, track: z.string().nullable(), side: z.enum(['+', '-']).nullable() }))
        .nullable(),
    }),
    example: {
      tracks: [
        {
          name: '1-2',
          points: [
            [0, 7.5],
            [12, 7.5],
            [48, -7.5],
            [60, -7.5],
            [80, 0],
            [160, 0],
          ] as [number, number][],
        },
        {
          name: '3-4',
          points: [
            [0, 0],
            [80, 0],
            [100, 7.5],
            [112, 7.5],
            [148, -7.5],
            [160, -7.5],
          ] as [number, number][],
        },
      ],
      touchMm: 3.2,
      radiusMm: 28,
      inMm: 6.5,
      detentsDeg: [6, 54, 106, 154],
    },
    run: (input) => plain<Output>(checkDrum(plain<Drum>(input))),
    explain: (input) => explainDrum(plain<Drum>(input)),
  }),
  defineCalculation({
    name: 'box.dogs',
    summary:
      'The chance that dogs meet face to face standing still, their play when in, and by how much to turn to clear them.',
    input: z.strictObject({
      count: number(BOX_LIMITS.dogs),
      widthsDeg: z.tuple([number(BOX_LIMITS.widthDeg), number(BOX_LIMITS.widthDeg)]),
    }),
    output: z.object({ chanceFaceToFace: out, playDeg: out, turnAtMostDeg: out }),
    example: { count: 5, widthsDeg: [26, 24] as [number, number] },
    run: dogsMeet,
    explain: explainDogs,
  }),
  defineCalculation({
    name: 'box.life',
    summary: 'How fast one spectrum of loads wears a gear against another, never a life in hours.',
    input: z.strictObject({
      spectrum: loads,
      against: loads,
      exponent: number(BOX_LIMITS.exponent).default(LIFE_EXPONENT.flank),
    }),
    output: z.object({ damageRatio: out, equivalentTorqueNm: out }),
    example: {
      spectrum: [
        { turns: 9000, torqueNm: 260 },
        { turns: 30_000, torqueNm: 140 },
      ],
      against: [{ turns: 14_000, torqueNm: 240 }],
      exponent: LIFE_EXPONENT.flank,
    },
    run: wearAgainst,
    explain: explainLife,
  }),
];

interface Output {
  ok: boolean;
  both: [number, number][];
  neutral: [number, number][];
  steepestDeg: number;
  faults: string[];
  gears: { atDeg: number; track: string | null; side: '+' | '-' | null }[] | null;
}
