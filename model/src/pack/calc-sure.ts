import {
  LIMITS,
  SURE_LIMITS,
  explain,
  nestedDiscs,
  packSure,
  type DiscSpring,
  type NumberRange,
  type SurePack,
} from '@hot-spline/core';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';
import { springKeys } from './calc-keys';

const uncertain = (range: NumberRange) =>
  z.strictObject({
    label: z.string().max(80),
    value: number(range),
    plusMinus: number(SURE_LIMITS.plusMinus),
    spread: z.enum(['normal', 'uniform']).default('uniform'),
  });
const band = z.tuple([z.number(), z.number()]).optional();
const sureInput = z.strictObject({
  pieces: z.array(uncertain(LIMITS.thicknessMm)).min(1).max(LIMITS.packMembers.max),
  caseDepth: uncertain(LIMITS.thicknessMm),
  spring: springKeys.omit({ travelMm: true }).extend({
    nested: number(SURE_LIMITS.nested).default(1),
    inSeries: number(SURE_LIMITS.nested).default(1),
  }),
  /** How far the springs' load may lie below and above its nominal value, as shares. */
  springLoad: z
    .strictObject({ minus: number(SURE_LIMITS.springLoad), plus: number(SURE_LIMITS.springLoad) })
    .default({ minus: 0, plus: 0 }),
  frictionCoefficient: uncertain(LIMITS.frictionCoefficient),
  interfaces: number(LIMITS.interfaces),
  outerRadiusMm: number(LIMITS.radiusMm),
  innerRadiusMm: number(LIMITS.radiusMm),
  wearModel: z.enum(['uniform-wear', 'uniform-pressure']),
  heightBandMm: band,
  breakawayBandNm: band,
  samples: number(SURE_LIMITS.samples).default(100_000),
  seed: number(SURE_LIMITS.seed).default(1),
});
const outcomeSchema = z.object({
  nominal: out,
  worstCase: z.tuple([out, out]),
  rss: out,
  mean: out,
  deviation: out,
  percentiles: z.tuple([out, out, out]),
  chance: out.nullable(),
  histogram: z.object({ from: out, to: out, counts: z.array(out) }),
});

const sureOutput = z.object({
  height: outcomeSchema,
  clearance: outcomeSchema,
  breakaway: outcomeSchema,
  tornado: z.array(z.object({ label: z.string(), lowNm: out, highNm: out })),
  wontClose: out,
  samples: out,
});

/** Equal springs: so many nested in each of so many groups in series. */
function surePack({ spring, ...pack }: Omit<z.output<typeof sureInput>, 'samples' | 'seed'>): SurePack {
  const { nested, inSeries, ...disc } = spring;
  const group = nestedDiscs(plain<DiscSpring>(disc), nested);
  return plain<SurePack>({ ...pack, springs: Array.from({ length: inSeries }, () => group) });
}

function sureOf({ samples, seed, ...pack }: z.output<typeof sureInput>) {
  return plain<z.output<typeof sureOutput>>(packSure(surePack(pack), samples, seed));
}

/** The breakaway at the nominal values, with what the draws say about it. */
function explainSure(
  { samples: _samples, seed, ...asked }: z.output<typeof sureInput>,
  { breakaway, height, wontClose }: z.output<typeof sureOutput>,
) {
  const pack = surePack(asked);
  return explain({
    title: 'Breakaway, and how sure it is',
    formula:
      'breakaway = friction × interfaces × radius × spring force at (free height − (case depth − stack)); worst case, root of the sum of squares and percentiles of the draws',
    inputs: [
      ...pack.pieces.map(({ label, value }, i) => ({ key: `piece${i}`, label, value, quantity: 'length' as const })),
      { key: 'depth', label: 'case depth', value: pack.caseDepth.value, quantity: 'length' },
      { key: 'friction', label: 'friction', value: pack.frictionCoefficient.value, quantity: 'coefficient' },
    ],
    sources: [
      { kind: 'exact', text: 'draws from the spreads given; a normal value has ± as two deviations' },
      { kind: 'standard', text: 'Almen & Laszlo 1936; EN 16984, for the springs' },
    ],
    result: { label: 'breakaway at the nominal values', quantity: 'torque' },
    compute: (v) => {
      const moved: SurePack = {
        ...pack,
        pieces: pack.pieces.map((piece, i) => ({ ...piece, value: v[`piece${i}`] ?? 0 })),
        caseDepth: { ...pack.caseDepth, value: v['depth'] ?? 0 },
        frictionCoefficient: { ...pack.frictionCoefficient, value: v['friction'] ?? 0 },
      };
      return {
        value: packSure(moved, SURE_LIMITS.samples.min, seed)?.breakaway.nominal ?? 0,
        steps: [
          { label: 'lowest, everything at its worst', value: breakaway.worstCase[0], quantity: 'torque' },
          { label: 'highest, everything at its worst', value: breakaway.worstCase[1], quantity: 'torque' },
          { label: 'two deviations by root of the sum of squares', value: breakaway.rss, quantity: 'torque' },
          { label: '2.5 % of the draws lie below', value: breakaway.percentiles[0], quantity: 'torque' },
          { label: '2.5 % of the draws lie above', value: breakaway.percentiles[2], quantity: 'torque' },
          { label: 'stack height, mean', value: height.mean, quantity: 'length' },
          { label: 'of the draws the cover won’t close', value: 100 * wontClose, quantity: 'percent' },
        ],
      };
    },
  });
}

export const sureCalculation = defineCalculation({
  name: 'pack.sure',
  summary:
    'How sure height, spring room and breakaway of one pack are: worst case, root of the sum of squares, seeded Monte Carlo, what dominates.',
  input: sureInput,
  output: sureOutput,
  example: {
    pieces: [
      { label: 'steel', value: 2, plusMinus: 0.002, spread: 'uniform' as const },
      { label: 'friction', value: 2.02, plusMinus: 0.02, spread: 'uniform' as const },
      { label: 'steel', value: 2, plusMinus: 0.002, spread: 'uniform' as const },
      { label: 'shim', value: 0.8, plusMinus: 0.002, spread: 'uniform' as const },
    ],
    caseDepth: { label: 'case depth', value: 8.8, plusMinus: 0.02, spread: 'uniform' as const },
    spring: {
      outerDiameterMm: 100,
      innerDiameterMm: 70,
      thicknessMm: 1.5,
      coneHeightMm: 1.2,
      youngGPa: 206,
      poisson: 0.3,
      nested: 1,
      inSeries: 1,
    },
    springLoad: { minus: 0.075, plus: 0.15 },
    frictionCoefficient: { label: 'friction', value: 0.1, plusMinus: 0.015, spread: 'normal' as const },
    interfaces: 2,
    outerRadiusMm: 50,
    innerRadiusMm: 35,
    wearModel: 'uniform-wear' as const,
    heightBandMm: [6.75, 6.85] as [number, number],
    samples: 20_000,
    seed: 1,
  },
  run: sureOf,
  explain: explainSure,
});
