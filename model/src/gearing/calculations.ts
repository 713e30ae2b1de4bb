import {
  CONSTRUCTIONS,
  InputError,
  LIMITS,
  M_PER_MILE,
  closedRatio,
  engineRpm,
  roadSpeed,
  toothPair,
  tyreSize,
} from '@hot-spline/core';
import { number, out } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';
import { explainClosed } from './closed';
import { explainRpm, explainSpeed, explainTeeth, explainTyreSize } from './axle-gearing';

const gearingKeys = {
  rollingCircumferenceMm: number(LIMITS.circumferenceMm),
  gearRatio: number(LIMITS.ratio),
  rangeRatio: number(LIMITS.ratio).default(1),
  finalRatio: number(LIMITS.ratio),
  hubRatio: number(LIMITS.ratio).default(1),
  converterSlip: number({ min: 0, max: 0.9 }).default(0),
  wheelSlip: number({ min: 0, max: 0.9 }).default(0),
};
const TURNS = { min: -10_000, max: 10_000 };
const TURNS_ERROR = { min: 0, max: 100 };
const gearingExample = { rollingCircumferenceMm: 2000, gearRatio: 1, rangeRatio: 1, finalRatio: 4, hubRatio: 1 };

export const gearingCalculations = [
  defineCalculation({
    name: 'tyre.size',
    summary: 'Overall diameter in mm from a tyre designation in any usual form; says which reading was taken.',
    input: z.strictObject({ designation: z.string().max(40) }),
    output: z.object({
      overallDiameterMm: out,
      form: z.enum(['metric', 'inch', 'inch-slick', 'metric-slick', 'diameter']),
      sectionWidthMm: out.nullable(),
      rimDiameterIn: out.nullable(),
      aspectPercent: out.nullable(),
      construction: z.enum(['radial', 'bias']).nullable(),
      reading: z.string(),
    }),
    example: { designation: '245/40R18' },
    run: ({ designation }) => tyreSize(designation),
    explain: ({ designation }) => explainTyreSize(designation),
  }),
  defineCalculation({
    name: 'gearing.speed',
    summary: 'Road speed at an engine speed; slips of converter and wheel are fractions, 0 unless given.',
    input: z.strictObject({ ...gearingKeys, rpm: number(LIMITS.rpm) }),
    output: z.object({ speedKmh: out, speedMph: out, speedMps: out }),
    example: { ...gearingExample, rpm: 6000 },
    run: ({ rpm, ...gearing }) => {
      const speedMps = roadSpeed(gearing, rpm);
      return { speedKmh: speedMps * 3.6, speedMph: (speedMps * 3600) / M_PER_MILE, speedMps };
    },
    explain: ({ rpm, ...gearing }) => explainSpeed('Road speed', gearing, rpm),
  }),
  defineCalculation({
    name: 'gearing.rpm',
    summary: 'Engine speed at a road speed; slips of converter and wheel are fractions, 0 unless given.',
    input: z.strictObject({ ...gearingKeys, speedKmh: number(LIMITS.speedKmh) }),
    output: z.object({ rpm: out }),
    example: { ...gearingExample, speedKmh: 180 },
    run: ({ speedKmh, ...gearing }) => ({ rpm: engineRpm(gearing, speedKmh / 3.6) }),
    explain: ({ speedKmh, ...gearing }) => explainRpm('Engine speed', gearing, speedKmh / 3.6),
  }),
  defineCalculation({
    name: 'gearing.teeth',
    summary: 'Ratio of ring and pinion by tooth count, and whether the pair hunts.',
    input: z.strictObject({ ring: number(LIMITS.teeth), pinion: number(LIMITS.teeth) }),
    output: z.object({ ratio: out, hunting: z.enum(['hunting', 'partial', 'non-hunting']), commonDivisor: out }),
    example: { ring: 41, pinion: 11 },
    run: toothPair,
    explain: (pair) => explainTeeth('Ratio by tooth count', pair),
  }),
  defineCalculation({
    name: 'gearing.closed',
    summary:
      'Ratio of a closed axle by turns of prop shaft and wheels (backward negative), with the tooth pairs that the error leaves, nearest first.',
    input: z.strictObject({
      propTurns: number(TURNS),
      leftTurns: number(TURNS),
      rightTurns: number(TURNS),
      propErrorTurns: number(TURNS_ERROR).default(0),
      wheelErrorTurns: number(TURNS_ERROR).default(0),
      boxRatio: number(LIMITS.ratio).default(1),
      pinionTeeth: z.tuple([number(LIMITS.teeth), number(LIMITS.teeth)]),
      ringTeeth: z.tuple([number(LIMITS.teeth), number(LIMITS.teeth)]),
      construction: z.enum(CONSTRUCTIONS).optional(),
    }),
    output: z.object({
      ratio: out,
      errorRatio: out,
      pairs: z.array(z.object({ ring: out, pinion: out })),
    }),
    example: {
      propTurns: 32.9,
      leftTurns: 8,
      rightTurns: 8,
      propErrorTurns: 0.25,
      pinionTeeth: [9, 13],
      ringTeeth: [37, 47],
    },
    run: ({ construction, ...turns }) => {
      if (construction === 'electric-reduction')
        throw new InputError(
          'construction',
          'An electric unit has no prop shaft, and its rotor makes a voltage when it is turned.',
          'a set that meshes at an angle',
        );
      const { pairs, ...rest } = closedRatio(turns);
      return { ...rest, pairs: [...pairs] };
    },
    explain: ({ construction: _, ...turns }) => explainClosed(turns),
  }),
];
