import {
  LIMITS,
  SHIM_LIMITS,
  SURE_LIMITS,
  M_PER_MILE,
  discSpringForce,
  engineRpm,
  explain,
  frictionInterfaces,
  packBreakaway,
  packShims,
  packSure,
  roadSpeed,
  toothPair,
  tyreSize,
  unitLock,
  wrenchReading,
  type NumberRange,
  type SurePack,
} from '@hot-spline/core';
import { explainRpm, explainSpeed, explainTeeth, explainTyreSize } from './gearing/axle-gearing';
import { explainBreakaway, explainDiscSpring, explainInterfaces, explainShims } from './pack/explain';
import { explainUnitLock } from './unit/explain';
import { z } from './zod';
import { unitCompare } from './unit/calc-compare';
import { number, out, plain } from './engine/calc-keys';
import { wantedCalculations } from './pack/calc-wanted';
import { roadCalculations } from './road/calculations';
import { Registry, defineCalculation } from './engine/calculations';

const gearingKeys = {
  rollingCircumferenceMm: number(LIMITS.circumferenceMm),
  gearRatio: number(LIMITS.ratio),
  rangeRatio: number(LIMITS.ratio).default(1),
  finalRatio: number(LIMITS.ratio),
  hubRatio: number(LIMITS.ratio).default(1),
  converterSlip: number({ min: 0, max: 0.9 }).default(0),
  wheelSlip: number({ min: 0, max: 0.9 }).default(0),
};
const gearingExample = { rollingCircumferenceMm: 2000, gearRatio: 1, rangeRatio: 1, finalRatio: 4, hubRatio: 1 };

const memberSchema = z.strictObject({ keyedTo: z.enum(['gear', 'case']), lined: z.boolean() });

const springKeys = z.strictObject({
  outerDiameterMm: number(LIMITS.diameterMm),
  innerDiameterMm: number(LIMITS.diameterMm),
  thicknessMm: number(LIMITS.thicknessMm),
  coneHeightMm: number(LIMITS.thicknessMm),
  travelMm: number({ ...LIMITS.thicknessMm, above: undefined, min: 0 } as NumberRange),
  youngGPa: number(LIMITS.youngGPa).default(206),
  poisson: number(LIMITS.poisson).default(0.3),
});

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
  samples: out,
});

/** Equal springs: so many nested in each of so many groups in series. */
function surePack({
  spring,
  ...pack
}: Omit<z.output<typeof sureInput>, 'samples' | 'seed'>): SurePack {
  const { nested, inSeries, ...disc } = spring;
  const group = { spring: disc, nested };
  return plain<SurePack>({ ...pack, springs: Array.from({ length: inSeries }, () => group) });
}

function sureOf({ samples, seed, ...pack }: z.output<typeof sureInput>) {
  return plain<z.output<typeof sureOutput>>(packSure(surePack(pack), samples, seed));
}

/** The breakaway at the nominal values, with what the draws say about it. */
function explainSure(
  { samples: _samples, seed, ...asked }: z.output<typeof sureInput>,
  { breakaway, height }: z.output<typeof sureOutput>,
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
        ],
      };
    },
  });
}

const plateOf = (input: z.output<typeof lockInput>) => ({
  frictionCoefficient: input.frictionCoefficient,
  interfacesPerPack: input.interfacesPerPack,
  meanRadiusMm: input.meanRadiusMm,
  pinRadiusMm: input.pinRadiusMm,
  ramp: input.ramp,
});

const lockInput = z.strictObject({
  frictionCoefficient: number(LIMITS.frictionCoefficient),
  interfacesPerPack: number(LIMITS.interfaces),
  meanRadiusMm: number(LIMITS.radiusMm),
  pinRadiusMm: number(LIMITS.radiusMm),
  ramp: z.strictObject({ angleDeg: z.number().min(0).max(90), from: z.enum(['rotation-plane', 'axis']) }),
  preloadNm: number(LIMITS.torqueNm).default(0),
  inputNm: number(LIMITS.torqueNm),
});

const breakawayInput = z.strictObject({
  frictionCoefficient: number(LIMITS.frictionCoefficient),
  interfaces: number(LIMITS.interfaces),
  clampN: number(LIMITS.forceN),
  outerRadiusMm: number(LIMITS.radiusMm),
  innerRadiusMm: number(LIMITS.radiusMm),
  wearModel: z.enum(['uniform-wear', 'uniform-pressure']),
});

/** Every public calculation. */
export const calculations = new Registry([
  defineCalculation({
    name: 'tyre.size',
    summary: 'Overall diameter in mm from a tyre designation in any usual form; says which reading was taken.',
    input: z.strictObject({ designation: z.string().max(40) }),
    output: z.object({
      overallDiameterMm: out,
      form: z.enum(['metric', 'inch', 'inch-slick', 'metric-slick']),
      sectionWidthMm: out,
      rimDiameterIn: out,
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
    name: 'pack.interfaces',
    summary:
      'Friction interfaces of a pack, members outwards from the gear’s back face; list the face and the wall if they take part.',
    input: z.strictObject({ members: z.array(memberSchema).max(LIMITS.packMembers.max) }),
    output: z.object({ interfaces: out, gaps: z.array(z.boolean()) }),
    example: {
      members: [
        { keyedTo: 'gear', lined: false },
        { keyedTo: 'case', lined: false },
        { keyedTo: 'gear', lined: true },
        { keyedTo: 'case', lined: false },
      ],
    },
    run: ({ members }) => frictionInterfaces(members),
    explain: ({ members }) => explainInterfaces(members),
  }),
  defineCalculation({
    name: 'pack.breakaway',
    summary: 'Friction torque of one of two equal packs, and what a torque wrench reads by how the axle is held.',
    input: breakawayInput,
    output: z.object({ perPackNm: out, wheelOtherHeldNm: out, wheelCarrierHeldNm: out, benchNm: out }),
    example: {
      frictionCoefficient: 0.1,
      interfaces: 4,
      clampN: 2000,
      outerRadiusMm: 50,
      innerRadiusMm: 35,
      wearModel: 'uniform-wear' as const,
    },
    run: (pack) => {
      const perPackNm = packBreakaway(pack);
      const packs = { leftNm: perPackNm, rightNm: perPackNm };
      return {
        perPackNm,
        wheelOtherHeldNm: wrenchReading(packs, 'other-wheel-held').torqueNm,
        wheelCarrierHeldNm: wrenchReading(packs, 'carrier-held').torqueNm,
        benchNm: wrenchReading(packs, 'bench').torqueNm,
      };
    },
    explain: (pack) => explainBreakaway('Friction torque of one pack', pack),
  }),
  defineCalculation({
    name: 'pack.shims',
    summary:
      'The shims for one side or both from pieces that exist: least worst error, then least sum of errors, then fewest pieces.',
    input: z.strictObject({
      sides: z
        .array(z.strictObject({ fixedMm: number(SHIM_LIMITS.fixedMm), targetMm: number(SHIM_LIMITS.targetMm) }))
        .min(SHIM_LIMITS.sides.min)
        .max(SHIM_LIMITS.sides.max),
      stock: z
        .array(z.strictObject({ thicknessMm: number(SHIM_LIMITS.thicknessMm), count: number(SHIM_LIMITS.count) }))
        .max(SHIM_LIMITS.stock.max),
      maxPiecesPerSide: number(SHIM_LIMITS.maxPiecesPerSide).default(3),
    }),
    output: z.object({
      sides: z.array(z.object({ piecesMm: z.array(out), heightMm: out, errorMm: out })),
      worstErrorMm: out,
      provenBest: z.boolean(),
    }),
    example: {
      sides: [
        { fixedMm: 15.7, targetMm: 16.6 },
        { fixedMm: 15.72, targetMm: 16.6 },
      ],
      stock: [
        { thicknessMm: 0.9, count: 2 },
        { thicknessMm: 0.88, count: 1 },
        { thicknessMm: 0.5, count: 4 },
      ],
      maxPiecesPerSide: 3,
    },
    run: ({ sides, stock, maxPiecesPerSide }) => {
      const result = packShims(sides, stock, maxPiecesPerSide);
      return { ...result, sides: result.sides.map((side) => ({ ...side, piecesMm: [...side.piecesMm] })) };
    },
    explain: ({ sides, stock, maxPiecesPerSide }) => explainShims(sides, stock, maxPiecesPerSide),
  }),
  defineCalculation({
    name: 'pack.sure',
    heavy: true,
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
  }),
  defineCalculation({
    name: 'spring.disc',
    summary: 'Force of one dished spring at a travel from 0 (free) to the cone height (flat).',
    input: springKeys,
    output: z.object({ forceN: out }),
    example: {
      outerDiameterMm: 50,
      innerDiameterMm: 25.4,
      thicknessMm: 3,
      coneHeightMm: 1.1,
      travelMm: 0.825,
      youngGPa: 206,
      poisson: 0.3,
    },
    run: ({ travelMm, ...spring }) => ({ forceN: discSpringForce(spring, travelMm) }),
    explain: ({ travelMm, ...spring }) => explainDiscSpring(spring, travelMm),
  }),
  defineCalculation({
    name: 'unit.lock',
    summary: 'Locking torque, locking value and bias ratio of a plate unit at an input torque.',
    input: lockInput,
    output: z.object({
      lockNm: out,
      lockingValue: out.nullable(),
      biasRatio: out.nullable(),
      solid: z.boolean(),
      rampCoefficient: out,
    }),
    example: {
      frictionCoefficient: 0.1,
      interfacesPerPack: 6,
      meanRadiusMm: 45,
      pinRadiusMm: 30,
      ramp: { angleDeg: 60, from: 'rotation-plane' as const },
      preloadNm: 60,
      inputNm: 400,
    },
    run: (input) => unitLock(plateOf(input), input.preloadNm, input.inputNm),
    explain: (input) => explainUnitLock('Locking torque', plateOf(input), input.preloadNm, input.inputNm),
  }),
  ...wantedCalculations,
  unitCompare,
  ...roadCalculations,
]);
