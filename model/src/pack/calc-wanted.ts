import {
  LIMITS,
  WANTED_LIMITS,
  SHIM_LIMITS,
  SURE_LIMITS,
  PRELOAD_ACTS,
  groupFreeHeight,
  nestedDiscs,
  effectiveFriction,
  explain,
  frictionRadius,
  packBreakaway,
  wantedPack,
  waysToReach,
  perPackFromReading,
  springColumn,
  HOLDS,
  type WantedProblem,
} from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';

const radii = {
  outerRadiusMm: number(LIMITS.radiusMm),
  innerRadiusMm: number(LIMITS.radiusMm),
  wearModel: z.enum(['uniform-wear', 'uniform-pressure']).default('uniform-wear'),
};
const wheelKeys = {
  /** Turning torque with both wheels free; half of it is in a reading with the other wheel held. */
  turningNm: number(LIMITS.torqueNm).default(0),
  /** How the springs act, and k of the loaded flank: with the carrier held they build up. */
  acts: z.enum(PRELOAD_ACTS).default('series'),
  slope: number({ min: 0, max: 20 }).default(0),
};
const frictionSchema = z.strictObject({ frictionCoefficient: number(LIMITS.frictionCoefficient), ...radii });

const planInput = z.strictObject({
  sides: z
    .array(
      z.strictObject({
        plates: z
          .array(z.strictObject({ keyedTo: z.enum(['gear', 'case']), lined: z.boolean() }))
          .min(1)
          .max(WANTED_LIMITS.plates.max),
        platesMm: number(LIMITS.thicknessMm),
        caseDepthMm: number(LIMITS.thicknessMm),
        springs: z
          .array(
            z.strictObject({
              spring: z.strictObject({
                outerDiameterMm: number(LIMITS.diameterMm),
                innerDiameterMm: number(LIMITS.diameterMm),
                thicknessMm: number(LIMITS.thicknessMm),
                coneHeightMm: number(LIMITS.thicknessMm),
              }),
              nested: number(SURE_LIMITS.nested).default(1),
            }),
          )
          .min(1)
          .max(20),
      }),
    )
    .min(1)
    .max(2),
  friction: frictionSchema,
  bandNm: z.tuple([z.number(), z.number()]),
  stock: z
    .array(z.strictObject({ thicknessMm: number(SHIM_LIMITS.thicknessMm), count: number(SHIM_LIMITS.count) }))
    .max(SHIM_LIMITS.stock.max),
  maxPiecesPerSide: number(SHIM_LIMITS.maxPiecesPerSide).default(3),
});
const planOutput = z.object({
  plans: z.array(
    z.object({
      interfaces: out,
      inBand: z.boolean(),
      uneven: out,
      reserveMm: out,
      provenBest: z.boolean(),
      sides: z.array(
        z.object({
          order: z.array(out),
          moved: out,
          shimsMm: z.array(out),
          stackMm: out,
          installedMm: out,
          clampN: out,
          breakawayNm: out,
          slopeNmPerMm: out,
          flattest: out,
          reserveMm: out,
        }),
      ),
    }),
  ),
  tooWeak: z.array(z.object({ interfaces: out, mostNm: out })),
  ways: z.array(
    z.object({
      kind: z.enum(['nested', 'surfaces']),
      count: out,
      fits: z.boolean(),
      sides: z.array(z.object({ needsMm: out, roomMm: out, clampN: out, breakawayNm: out, flattest: out })),
    }),
  ),
});

const plate = (keyedTo: 'gear' | 'case', lined: boolean) => ({ keyedTo, lined });
const examplePack = {
  plates: [plate('case', false), plate('gear', true), plate('case', false), plate('gear', true), plate('case', false)],
  platesMm: 10,
  caseDepthMm: 14,
  springs: [{ spring: { outerDiameterMm: 100, innerDiameterMm: 60, thicknessMm: 2.8, coneHeightMm: 1.3 }, nested: 1 }],
};

/** Equal springs nested, as the core has them. */
const problemOf = ({ sides, ...rest }: z.output<typeof planInput>): WantedProblem =>
  plain<WantedProblem>({
    ...rest,
    sides: sides.map((side) => ({
      ...side,
      springs: side.springs.map(({ spring, nested }) => nestedDiscs(spring, nested)),
    })),
  });

/** From a wanted breakaway to packs, and from a measured one to the friction that explains it. */
export const wantedCalculations = [
  defineCalculation({
    name: 'pack.wanted',
    summary:
      'Plate orders, shims from stock and spring heights that reach a wanted breakaway, ranked; where none does, what more springs or surfaces would need.',
    input: planInput,
    output: planOutput,
    example: {
      sides: [examplePack, { ...examplePack, platesMm: 10.03 }],
      friction: { frictionCoefficient: 0.1, outerRadiusMm: 50, innerRadiusMm: 35, wearModel: 'uniform-wear' as const },
      bandNm: [45, 55] as [number, number],
      stock: [0.5, 0.6, 0.7, 0.8, 0.9, 1].map((thicknessMm) => ({ thicknessMm, count: 2 })),
      maxPiecesPerSide: 3,
    },
    run(input) {
      const problem = problemOf(input);
      const result = wantedPack(problem);
      return plain<z.output<typeof planOutput>>({
        ...result,
        ways: result.plans.length === 0 ? waysToReach(problem) : [],
      });
    },
    explain: (input, { plans: [best], tooWeak }) => {
      const { sides, friction } = problemOf(input);
      const [side, planned] = [sides[0], best?.sides[0]];
      const free = (side?.springs ?? []).reduce((sum, group) => sum + groupFreeHeight(group), 0);
      return explain({
        title: best ? 'Breakaway of the first pack of the best plan' : 'No plan reaches the band',
        formula: 'T = μ·n·F·r, F the force of the springs at case depth less stack height',
        inputs: [
          { key: 'stack', label: 'stack height', value: planned?.stackMm ?? 0, quantity: 'length' },
          { key: 'depth', label: 'case depth', value: side?.caseDepthMm ?? 0, quantity: 'length' },
          { key: 'mu', label: 'friction coefficient', value: friction.frictionCoefficient, quantity: 'coefficient' },
          { key: 'n', label: 'friction interfaces', value: best?.interfaces ?? 0, quantity: 'count' },
        ],
        sources: [
          { kind: 'standard', text: 'Shigley, axial clutches; Almen & Laszlo 1936, EN 16984' },
          { kind: 'exact', text: 'every number of interfaces that an order makes; shims as pack.shims' },
        ],
        result: { label: 'breakaway of one pack', quantity: 'torque' },
        compute: ({ stack = 0, depth = 0, mu = 0, n = 0 }) => {
          const travel = free - (depth - stack);
          const clampN = best && side ? springColumn(side.springs, travel).forceN : 0;
          return {
            value: n === 0 ? 0 : packBreakaway({ ...friction, frictionCoefficient: mu, interfaces: n, clampN }),
            steps: [
              { label: 'spring travel', value: travel, quantity: 'length' },
              { label: 'clamp force', value: clampN, quantity: 'force' },
              ...tooWeak.map(({ interfaces, mostNm }) => ({
                label: `${interfaces} interfaces hold at most`,
                value: mostNm,
                quantity: 'torque' as const,
              })),
            ],
          };
        },
      });
    },
  }),
  defineCalculation({
    name: 'pack.friction',
    summary: 'Friction coefficient that a breakaway reading stands for, by how the wheel was held.',
    input: z.strictObject({
      hold: z.enum(HOLDS),
      torqueNm: number(LIMITS.torqueNm),
      ...wheelKeys,
      packs: z
        .array(z.strictObject({ interfaces: number(LIMITS.interfaces), clampN: number(LIMITS.forceN) }))
        .min(1)
        .max(2),
      ...radii,
    }),
    output: z.object({ frictionCoefficient: out, perPackNm: out }),
    example: {
      hold: 'carrier-held' as const,
      torqueNm: 68,
      packs: [
        { interfaces: 4, clampN: 2000 },
        { interfaces: 4, clampN: 2000 },
      ],
      outerRadiusMm: 50,
      innerRadiusMm: 35,
      wearModel: 'uniform-wear' as const,
    },
    run: ({ hold, torqueNm, turningNm, acts, slope, packs, outerRadiusMm, innerRadiusMm, wearModel }) => {
      const perPackNm = perPackFromReading({ hold, torqueNm }, { turningNm, acts, slope });
      const radius = frictionRadius(outerRadiusMm, innerRadiusMm, wearModel);
      return { perPackNm, frictionCoefficient: effectiveFriction(perPackNm, packs, radius) };
    },
    explain: ({ hold, torqueNm, turningNm, acts, slope, packs, outerRadiusMm, innerRadiusMm, wearModel }) =>
      explain({
        title: 'Friction coefficient from the measured breakaway',
        formula:
          'torque of a pack = M − R ÷ 2 with the other wheel held, M on the bench, M ÷ 2 in gear (springs in parallel M × (1 − k) ÷ 2); μ = packs × torque of a pack ÷ (mean radius × sum of interfaces × clamp force)',
        inputs: [
          { key: 'torque', label: `reading, ${hold}`, value: torqueNm, quantity: 'torque' },
          { key: 'turning', label: 'R, turning torque with both wheels free', value: turningNm, quantity: 'torque' },
          {
            key: 'radius',
            label: 'mean friction radius',
            value: frictionRadius(outerRadiusMm, innerRadiusMm, wearModel),
            quantity: 'length',
          },
        ],
        sources: [{ kind: 'exact', text: 'inverse of T = μ·n·F·r, Shigley, axial clutches; equilibrium for the hold' }],
        result: { label: 'friction coefficient', quantity: 'coefficient' },
        compute: ({ torque = 0, turning = 0, radius = 0 }) => {
          const perPack = perPackFromReading({ hold, torqueNm: torque }, { turningNm: turning, acts, slope });
          return {
            value: effectiveFriction(perPack, packs, radius),
            steps: [{ label: 'torque of one pack', value: perPack, quantity: 'torque' }],
          };
        },
      }),
  }),
];
