import { LIMITS, MARKS_M, MOST_CANDIDATES, findFinals, type FindProblem, type Vehicle } from '@hot-spline/core';
import { changeWords, reasonWords } from './find-words';
import '../base/zod';
import * as z from 'zod';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import { explainRun } from './calc-run';
import { distanceM, exampleVehicle, speed, vehicleSchema } from './vehicle-keys';

const price = number({ min: 0, max: 1e9 });
const days = number({ min: 0, max: 3650 });
const bought = z.strictObject({ price: price.optional(), leadDays: days.optional() });

const rankSchema = z.strictObject({
  vehicle: vehicleSchema,
  candidates: z
    .array(
      z.strictObject({
        ring: number(LIMITS.teeth),
        pinion: number(LIMITS.teeth),
        torqueLimitNm: number({ above: 0, max: LIMITS.torqueNm.max }).optional(),
        price: price.optional(),
        leadDays: days.optional(),
        welded: z.boolean().default(false),
      }),
    )
    .min(1)
    .max(MOST_CANDIDATES),
  goal: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('time'), distanceM }),
    z.strictObject({ kind: z.literal('finish'), distanceM, lowRpm: number(LIMITS.rpm), highRpm: number(LIMITS.rpm) }),
    z.strictObject({
      kind: z.literal('cruise'),
      speedMps: number({ above: 0, max: speed.max }),
      lowRpm: number(LIMITS.rpm),
      highRpm: number(LIMITS.rpm),
    }),
    z.strictObject({ kind: z.literal('crawl'), ratio: number({ above: 0, max: 2000 }) }),
  ]),
  limits: z
    .strictObject({
      cruiseRpm: number({ ...LIMITS.rpm, min: 1 }).optional(),
      timeS: number({ above: 0, max: 3600 }).optional(),
      topMps: number({ above: 0, max: speed.max }).optional(),
      crawlRatio: number({ above: 0, max: 2000 }).optional(),
    })
    .default({}),
  distanceM: distanceM.optional(),
  cruiseMps: number({ above: 0, max: speed.max }).optional(),
  wheelSlip: number({ min: 0, max: 0.9 }).default(0),
  lowRange: number(LIMITS.ratio).optional(),
  carriers: z
    .array(
      z.strictObject({
        name: z.string().max(40),
        fromRatio: number(LIMITS.ratio),
        toRatio: number(LIMITS.ratio),
        price: price.optional(),
        leadDays: days.optional(),
      }),
    )
    .max(10)
    .default([]),
  presentCarrier: z.string().max(40).optional(),
  extras: z.strictObject({ ringBolts: bought.optional(), recalibration: bought.optional() }).default({}),
  sender: z.enum(['gearbox', 'wheel']).default('gearbox'),
  aboveStallRpm: number({ min: 0, max: 5000 }).optional(),
  shock: number({ min: 1, max: 5 }).default(1),
});

function rank(input: z.output<typeof rankSchema>) {
  const ranking = findFinals(plain<FindProblem>(input)).map((one) => ({
    ring: one.candidate.ring,
    pinion: one.candidate.pinion,
    ratio: one.ratio,
    hunting: one.hunting,
    verdict: one.verdict,
    score: one.score,
    missed: one.missed,
    onFront: one.onFront,
    figures: one.figures,
    for: one.reasons.filter(({ side }) => side === 'for').map((reason) => reasonWords(reason, 'metric')),
    against: one.reasons.filter(({ side }) => side === 'against').map((reason) => reasonWords(reason, 'metric')),
    changes: one.changes.map(changeWords),
    bill: { ...one.bill, items: one.bill.items.map((item) => ({ ...item })) },
    behindNext: one.behindNext,
  }));
  return { ranking };
}

/** Final drives ranked by a goal. */
export const findCalculation = defineCalculation({
  name: 'gearing.find',
  summary: 'Final drives ranked by a goal, with the reasons for and against each and what changes with it.',
  input: rankSchema,
  output: z.object({
    ranking: z.array(
      z.object({
        ring: out,
        pinion: out,
        ratio: out,
        hunting: z.enum(['hunting', 'partial', 'non-hunting']),
        verdict: z.enum(['fits', 'watch', 'stop']),
        score: out,
        missed: out,
        onFront: z.boolean(),
        figures: z.object({
          timeS: out,
          finishMps: out,
          finishRpm: out,
          shifts: out,
          cruiseRpm: out.nullable(),
          aboveStallRpm: out.nullable(),
          crawlRatio: out,
          ringTorqueNm: out,
          topMps: out,
        }),
        for: z.array(z.string()),
        against: z.array(z.string()),
        changes: z.array(z.string()),
        bill: z.object({
          items: z.array(
            z.object({
              code: z.enum(['set', 'carrier', 'ring-bolts', 'recalibration']),
              name: z.string().optional(),
              price: out.nullable(),
              leadDays: out.nullable(),
            }),
          ),
          price: out.nullable(),
          whole: z.boolean(),
          leadDays: out.nullable(),
        }),
        behindNext: z.object({ score: out, price: out.nullable(), leadDays: out.nullable() }).nullable(),
      }),
    ),
  }),
  example: {
    vehicle: exampleVehicle,
    candidates: [
      { ring: 43, pinion: 12, price: 270, leadDays: 4 },
      { ring: 47, pinion: 12, price: 285, leadDays: 6 },
      { ring: 49, pinion: 11, price: 330, leadDays: 17 },
    ],
    goal: { kind: 'time' as const, distanceM: 201.168 },
  },
  run: rank,
  explain: (input, { ranking: [first] }) => {
    const vehicle = plain<Vehicle>(input.vehicle);
    const { goal } = input;
    const distance = goal.kind === 'time' || goal.kind === 'finish' ? goal.distanceM : (input.distanceM ?? MARKS_M[4]);
    return explainRun(
      { ...vehicle, finalRatio: first?.ratio ?? vehicle.finalRatio },
      { distanceM: distance },
      { label: 'run of the final drive ranked first', quantity: 'time', read: (run) => run.timeS },
    );
  },
});
