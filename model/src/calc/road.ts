import {
  LIMITS,
  MARKS_M,
  MOST_CANDIDATES,
  MOST_CORNERS,
  SEARCH_LIMITS,
  VEHICLE_LIMITS,
  explain,
  rankFinals,
  roadRun,
  roadSearch,
  coursePace,
  type NumberRange,
  type Quantity,
  type Course,
  type RankProblem,
  type Run,
  type RunOptions,
  type SearchProblem,
  type Vehicle,
} from '@hot-spline/core';
import { changeWords, reasonWords } from '../gearing/rank-words';
import { z } from '../zod';
import { number, out, plain } from './keys';
import { defineCalculation } from './registry';

const limits = VEHICLE_LIMITS;
const speed: NumberRange = { min: 0, max: LIMITS.speedKmh.max / 3.6 };

const vehicleKeys = {
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
    inertiaFactor: z.union([z.literal('wong'), number(limits.inertiaFactor)]).default('wong'),
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
  }),
  rollingCoefficient: number(limits.rollingCoefficient),
  driven: z.strictObject({
    staticShare: number(limits.staticShare),
    cgHeightMm: number(limits.cgHeightMm),
    wheelbaseMm: number(limits.wheelbaseMm),
    axle: z.enum(['rear', 'front', 'both']).default('rear'),
  }),
  launchRpm: number(LIMITS.rpm).optional(),
  converter: z
    .strictObject({
      stallRpm: number({ above: 0, max: LIMITS.rpm.max }),
      torqueRatio: number(limits.torqueRatio),
      couplingRatio: number(limits.couplingRatio),
      slip: number(limits.slip).default(0),
    })
    .optional(),
  shiftTimeS: number(limits.shiftTimeS).default(0),
  gradePercent: number(limits.gradePercent).default(0),
};
const vehicleSchema = z.strictObject(vehicleKeys);

const exampleVehicle = {
  massKg: 1350,
  engine: {
    torqueCurve: [
      { rpm: 1500, torqueNm: 210 },
      { rpm: 3500, torqueNm: 445 },
      { rpm: 4800, torqueNm: 480 },
      { rpm: 7400, torqueNm: 370 },
    ],
    limitRpm: 7400,
  },
  gears: [3.15, 2.07, 1.49, 1.15, 0.93, 0.77],
  finalRatio: 4.3,
  rangeRatio: 1,
  driveline: { efficiency: 0.88, inertiaFactor: 'wong' as const },
  tyre: { rollingRadiusMm: 308, grip: 1.1 },
  aero: { dragAreaM2: 0.68, airDensity: 1.2 },
  rollingCoefficient: 0.013,
  driven: { staticShare: 0.48, cgHeightMm: 480, wheelbaseMm: 2600 },
  launchRpm: 4500,
  shiftTimeS: 0.25,
};

const distanceM = number({ above: 0, max: 100_000 });
const runSchema = z.strictObject({
  ...vehicleKeys,
  distanceM,
  shiftRpm: number({ above: 0, max: LIMITS.rpm.max }).optional(),
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
    formula: 'm·λ·a = F − ½ρC_dA·v² − C_rr·W·cosθ − W·sinθ; F = min(T·i·η ÷ r, μ·N with load transfer)',
    inputs: [
      { key: 'mass', label: 'mass', value: vehicle.massKg, quantity: 'mass' },
      { key: 'grip', label: 'grip μ', value: vehicle.tyre.grip, quantity: 'coefficient' },
      { key: 'final', label: 'final drive', value: vehicle.finalRatio, quantity: 'ratio' },
      { key: 'drag', label: 'drag area', value: vehicle.aero.dragAreaM2, quantity: 'area' },
      { key: 'distance', label: 'distance', value: metres, quantity: 'distance' },
    ],
    sources: [
      { kind: 'exact', text: 'Newton’s law along the road, Dormand–Prince steps at 1e-7' },
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
        ],
      };
    },
  });
}

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
  pairs: z.array(pairSchema).min(1).max(SEARCH_LIMITS.pairs),
  finals: z.array(finalSchema).min(1).max(SEARCH_LIMITS.finals),
  rules: z
    .strictObject({
      steps: z.enum(['shrinking', 'descending']).default('shrinking'),
      floorRpm: number(SEARCH_LIMITS.floorRpm).default(0),
      limiterMargin: number(SEARCH_LIMITS.limiterMargin).default(0.02),
    })
    .prefault({}),
  /** Bounds the work: looks at so many thousand branches at the most, then says how far its bound is. */
  mostThousandBranches: number({ min: 1, max: 1000, integer: true }).default(20),
});
const searchOutput = z.object({
  best: z.array(z.object({ final: finalSchema, pairs: z.array(pairSchema), timeS: out })),
  provenBest: z.boolean(),
  boundS: out,
  combinations: out,
  evaluated: out,
  visited: out,
  presentS: out,
  gainS: out.nullable(),
});

function search(input: z.output<typeof searchSchema>) {
  const { mostThousandBranches, ...problem } = input;
  const asked = plain<SearchProblem>(problem);
  let looks = 0;
  const result = roadSearch(asked, () => ++looks < 5 * mostThousandBranches);
  const presentS = coursePace(asked.vehicle, asked.course).timeS;
  const bestS = result.best[0]?.timeS ?? null;
  return plain<z.output<typeof searchOutput>>({ ...result, presentS, gainS: bestS === null ? null : presentS - bestS });
}

const rankSchema = z.strictObject({
  vehicle: vehicleSchema,
  candidates: z
    .array(
      z.strictObject({
        ring: number(LIMITS.teeth),
        pinion: number(LIMITS.teeth),
        torqueLimitNm: number({ above: 0, max: LIMITS.torqueNm.max }).optional(),
        price: number({ min: 0, max: 1e9 }).optional(),
        leadDays: number({ min: 0, max: 3650 }).optional(),
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
  distanceM: distanceM.optional(),
  cruiseMps: number({ above: 0, max: speed.max }).optional(),
  lowRange: number(LIMITS.ratio).default(1),
  carriers: z
    .array(z.strictObject({ name: z.string().max(40), fromRatio: number(LIMITS.ratio), toRatio: number(LIMITS.ratio) }))
    .max(10)
    .default([]),
  presentCarrier: z.string().max(40).optional(),
  sender: z.enum(['gearbox', 'wheel']).default('gearbox'),
  aboveStallRpm: number({ min: 0, max: 5000 }).default(500),
});

function rank(input: z.output<typeof rankSchema>) {
  const ranking = rankFinals(plain<RankProblem>(input)).map((one) => ({
    ring: one.candidate.ring,
    pinion: one.candidate.pinion,
    ratio: one.ratio,
    hunting: one.hunting,
    verdict: one.verdict,
    score: one.score,
    figures: { ...one.figures, topMps: Number.isFinite(one.figures.topMps) ? one.figures.topMps : null },
    for: one.reasons.filter(({ side }) => side === 'for').map((reason) => reasonWords(reason, 'metric')),
    against: one.reasons.filter(({ side }) => side === 'against').map((reason) => reasonWords(reason, 'metric')),
    changes: one.changes.map(changeWords),
    behindNext: one.behindNext,
  }));
  return { ranking };
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
  const gears = best ? best.pairs.map(({ driver, driven }) => driven / driver) : vehicle.gears;
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
        text: 'Newton’s law along the road, tabled over 400 steps of speed; branch and bound over the sets',
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

/** The calculations of the road. */
export const roadCalculations = [
  defineCalculation({
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
      limitTimesS: z.object({ tyre: out, engine: out, shift: out, limiter: out }),
      zeroTo100S: out.nullable(),
      eightyTo120S: out.nullable(),
      energy: z.object({ drive: out, kinetic: out, drag: out, rolling: out, grade: out }),
    }),
    example: { ...exampleVehicle, distanceM: MARKS_M[4] },
    run: ({ distanceM: metres, shiftRpm, ...vehicle }) => {
      const run = roadRun(plain<Vehicle>(vehicle), {
        distanceM: metres,
        ...(shiftRpm === undefined ? {} : { shiftRpm }),
      });
      return {
        ...run,
        gear: run.gear + 1,
        marks: [...run.marks],
        shifts: run.shifts.map((shift) => ({ ...shift, gear: shift.gear + 1 })),
        gearTimesS: [...run.gearTimesS],
      };
    },
    explain: ({ distanceM: metres, shiftRpm, ...vehicle }) =>
      explainRun(plain<Vehicle>(vehicle), { distanceM: metres, ...(shiftRpm === undefined ? {} : { shiftRpm }) }),
  }),
  defineCalculation({
    name: 'road.search',
    heavy: true,
    summary: 'Gear pairs and final drive off a shelf for the least course time, and whether that is proven best.',
    input: searchSchema,
    output: searchOutput,
    example: {
      vehicle: { ...exampleVehicle, gears: [3.15, 2.07, 1.49] },
      course: exampleCourse,
      pairs: [
        { driver: 20, driven: 63, positions: [1] },
        { driver: 20, driven: 58, positions: [1] },
        { driver: 20, driven: 41, positions: [2] },
        { driver: 20, driven: 38, positions: [2] },
        { driver: 20, driven: 30, positions: [3] },
        { driver: 20, driven: 27, positions: [3] },
      ],
      finals: [
        { ring: 43, pinion: 10 },
        { ring: 41, pinion: 11 },
      ],
      rules: { steps: 'shrinking' as const, floorRpm: 3500 },
    },
    run: search,
    explain: explainSearch,
  }),
  defineCalculation({
    name: 'gearing.rank',
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
          figures: z.object({
            timeS: out,
            finishMps: out,
            finishRpm: out,
            shifts: out,
            cruiseRpm: out.nullable(),
            aboveStallRpm: out.nullable(),
            crawlRatio: out,
            ringTorqueNm: out,
            topMps: out.nullable(),
          }),
          for: z.array(z.string()),
          against: z.array(z.string()),
          changes: z.array(z.string()),
          behindNext: z.object({ score: out, price: out.nullable(), leadDays: out.nullable() }).nullable(),
        }),
      ),
    }),
    example: {
      vehicle: exampleVehicle,
      candidates: [
        { ring: 41, pinion: 11, price: 240, leadDays: 3 },
        { ring: 43, pinion: 10, price: 270, leadDays: 2 },
        { ring: 44, pinion: 9, price: 310, leadDays: 12 },
      ],
      goal: { kind: 'time' as const, distanceM: 201.168 },
    },
    run: rank,
    explain: (input, { ranking: [first] }) => {
      const vehicle = plain<Vehicle>(input.vehicle);
      const { goal } = input;
      const distance =
        goal.kind === 'time' || goal.kind === 'finish' ? goal.distanceM : (input.distanceM ?? MARKS_M[4]);
      return explainRun(
        { ...vehicle, finalRatio: first?.ratio ?? vehicle.finalRatio },
        { distanceM: distance },
        { label: 'run of the final drive ranked first', quantity: 'time', read: (run) => run.timeS },
      );
    },
  }),
];
