import {
  CRUSH_STARTS,
  DEPTH_SHIMS,
  LIMITS,
  MESH_LIMITS,
  OBSERVED,
  SHIM_LIMITS,
  SUSPECTS,
  adjusterNotches,
  backlashRound,
  carrierPreload,
  carrierSides,
  collapsiblePreload,
  depthChain,
  depthFromBore,
  depthShim,
  explain,
  meshAdvise,
  meshSensitivity,
  floatShim,
  shimPack,
  solidPreload,
  type DepthByMarks,
  type MeshAdvice,
  type MeshJob,
} from '@hot-spline/core';
import { PRACTICE_CONSTRUCTIONS, assemble, virtualAxle } from '@hot-spline/core/practice';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';
import {
  explainAdvice,
  explainBacklash,
  explainChain,
  explainCollapsible,
  explainDepthFromBore,
  explainDepthShim,
  explainNotches,
  explainSensitivity,
  explainShimPack,
  explainSides,
  explainSolid,
  explainTotal,
} from './explain';
import { explainFloat } from './float';

const depthwards = z.enum(['deeper', 'shallower']);
const bandMm = z.tuple([number(MESH_LIMITS.backlashMm), number(MESH_LIMITS.backlashMm)]);
const bandNm = z.tuple([number(LIMITS.torqueNm), number(LIMITS.torqueNm)]);
const stockKeys = z
  .array(z.strictObject({ thicknessMm: number(SHIM_LIMITS.thicknessMm), count: number(SHIM_LIMITS.count) }))
  .max(SHIM_LIMITS.stock.max);
/** The core says by name how many places there may be; what is beyond reason is refused here. */
const roundKeys = z.array(number(MESH_LIMITS.backlashMm)).max(1000);
const patchKeys = z.strictObject({ u: number({ min: -1.5, max: 1.5 }), v: number({ min: -1.5, max: 1.5 }) });
const halfKeys = z.strictObject({ u: number({ above: 0, max: 1 }), v: number({ above: 0, max: 1 }) });
const patchOut = z.object({ u: out, v: out });

const tryKeys = z.strictObject({
  pinionShimMm: number(MESH_LIMITS.shimMm),
  ringShiftMm: number(MESH_LIMITS.moveMm),
  backlashMm: roundKeys,
  drive: patchKeys.nullable(),
  coast: patchKeys.nullable(),
});

const adviseKeys = z.strictObject({
  construction: z.enum(PRACTICE_CONSTRUCTIONS),
  ringTeeth: number(LIMITS.teeth),
  pinionTeeth: number(LIMITS.teeth),
  specBacklashMm: bandMm,
  tries: z.array(tryKeys).max(40),
  steps: z
    .strictObject({
      pinionMm: number({ above: 0, max: 5, unit: 'mm' }),
      ringMm: number({ above: 0, max: 5, unit: 'mm' }),
    })
    .optional(),
  stock: stockKeys.optional(),
  patternBand: z.strictObject({ drive: halfKeys, coast: halfKeys }).optional(),
  addingShimMovesPinion: depthwards.optional(),
  depthShim: z.enum(DEPTH_SHIMS).optional(),
  loadedFlank: z.enum(['convex', 'concave']).optional(),
  closingUpMm: number({ min: -1, max: 1, unit: 'mm' }).optional(),
  closingUpSigmaMm: number({ min: 0, max: 1, unit: 'mm' }).optional(),
});

const moveOut = z.object({ pinionShimMm: out, ringShiftMm: out, piecesMm: z.array(out).optional() });

const depthCalculations = [
  defineCalculation({
    name: 'mesh.depthShim',
    summary: 'Pinion shim of a new set from the one that came out, by the marks and the heights of the head bearings.',
    input: z.strictObject({
      oldShimMm: number(MESH_LIMITS.shimMm),
      oldMarkMm: number(MESH_LIMITS.markMm),
      newMarkMm: number(MESH_LIMITS.markMm),
      oldBearingHeightMm: number(MESH_LIMITS.heightMm).optional(),
      newBearingHeightMm: number(MESH_LIMITS.heightMm).optional(),
      addingShimMovesPinion: depthwards,
      tallerBearingMovesPinion: depthwards.optional(),
    }),
    output: z.object({ shimMm: out }),
    example: { oldShimMm: 1.1, oldMarkMm: 0.05, newMarkMm: -0.03, addingShimMovesPinion: 'deeper' as const },
    run: (by) => ({ shimMm: depthShim(plain<DepthByMarks>(by)) }),
    explain: (by) => explainDepthShim(plain<DepthByMarks>(by)),
  }),
  defineCalculation({
    name: 'mesh.depthFromBore',
    summary: 'Axis to pinion head from the parting face of a bearing bore, without the special gauge.',
    input: z.strictObject({
      boreDiameterMm: number(LIMITS.diameterMm),
      capDepthMm: number({ min: 0, max: LIMITS.diameterMm.max, unit: 'mm' }),
      readingMm: number({ above: 0, max: 10_000, unit: 'mm' }),
    }),
    output: z.object({ axisToHeadMm: out }),
    example: { boreDiameterMm: 74, capDepthMm: 31, readingMm: 101.6 },
    run: (of) => ({ axisToHeadMm: depthFromBore(of) }),
    explain: explainDepthFromBore,
  }),
  defineCalculation({
    name: 'mesh.chain',
    summary: 'A signed chain of lengths, whatever a school calls its links.',
    input: z.strictObject({
      links: z
        .array(
          z.strictObject({
            name: z.string().max(80),
            mm: number(MESH_LIMITS.lengthMm),
            sign: z.union([z.literal(1), z.literal(-1)]),
          }),
        )
        .max(50),
    }),
    output: z.object({ totalMm: out }),
    example: {
      links: [
        { name: 'housing', mm: 93.9, sign: 1 as const },
        { name: 'nominal', mm: 92.8, sign: -1 as const },
        { name: 'mark', mm: -0.07, sign: -1 as const },
      ],
    },
    run: ({ links }) => ({ totalMm: depthChain(links) }),
    explain: ({ links }) => explainChain(links),
  }),
];

const carrierCalculations = [
  defineCalculation({
    name: 'mesh.sides',
    summary: 'Carrier shims of both sides after a move of the ring and a change of preload.',
    input: z.strictObject({
      leftMm: number(MESH_LIMITS.shimMm),
      rightMm: number(MESH_LIMITS.shimMm),
      ringSide: z.enum(['left', 'right']),
      ringTowardsPinionMm: number(MESH_LIMITS.moveMm),
      preloadChangeMm: number(MESH_LIMITS.moveMm).default(0),
      shimActs: z.enum(['behind-cup', 'under-flange']).default('behind-cup'),
    }),
    output: z.object({ leftMm: out, rightMm: out }),
    example: { leftMm: 6.4, rightMm: 6.1, ringSide: 'left' as const, ringTowardsPinionMm: 0.25 },
    run: carrierSides,
    explain: explainSides,
  }),
  defineCalculation({
    name: 'mesh.notches',
    summary: 'Whole notches of a threaded adjuster for a move, and what is left over.',
    input: z.strictObject({
      threadPitchMm: number(MESH_LIMITS.threadPitchMm),
      notchesPerTurn: number(MESH_LIMITS.notches),
      moveMm: number(MESH_LIMITS.moveMm),
    }),
    output: z.object({ notches: out, moveMm: out, errorMm: out }),
    example: { threadPitchMm: 2, notchesPerTurn: 20, moveMm: 0.25 },
    run: adjusterNotches,
    explain: explainNotches,
  }),
  defineCalculation({
    name: 'mesh.sensitivity',
    summary: 'Backlash that one mm of ring or pinion takes away, by the geometry of bevel gears.',
    input: z.strictObject({
      ringTeeth: number(LIMITS.teeth),
      pinionTeeth: number(LIMITS.teeth),
      pressureAngleDeg: number(MESH_LIMITS.pressureAngleDeg),
    }),
    output: z.object({ backlashPerRingMm: out, backlashPerPinionMm: out }),
    example: { ringTeeth: 41, pinionTeeth: 11, pressureAngleDeg: 20 },
    run: meshSensitivity,
    explain: explainSensitivity,
  }),
];

const meshCalculation = defineCalculation({
  name: 'mesh.backlash',
  summary: 'Backlash round the ring: mean, ends, once-a-turn run-out, and whether every place is in band.',
  input: z.strictObject({ readingsMm: roundKeys, specMm: bandMm }),
  output: z.object({
    meanMm: out,
    minMm: out,
    maxMm: out,
    runoutAmplitudeMm: out.nullable(),
    runoutAngleDeg: out.nullable(),
    residualMm: out.nullable(),
    verdict: z.enum(['fits', 'watch', 'stop']),
  }),
  example: { readingsMm: [0.2, 0.21, 0.22, 0.21, 0.2, 0.19, 0.18, 0.19], specMm: [0.15, 0.25] as [number, number] },
  run: ({ readingsMm, specMm }) => backlashRound(readingsMm, specMm),
  explain: ({ readingsMm, specMm }) => explainBacklash(readingsMm, specMm),
});

const adviseCalculation = defineCalculation({
  name: 'mesh.advise',
  summary: 'The next move of a set-up: pinion shim and ring position with the best chance that everything is in band.',
  input: adviseKeys,
  output: z.object({
    done: z.boolean(),
    needs: z.enum(['backlash', 'pattern']).nullable(),
    next: moveOut.nullable(),
    expected: z.object({ backlashMm: out, drive: patchOut, coast: patchOut }).nullable(),
    chanceInSpec: out.nullable(),
    secondBest: moveOut.extend({ chanceInSpec: out }).nullable(),
    readAgain: z
      .object({ reading: z.enum(['backlash', 'pattern']), why: z.enum(['worth', 'unlikely']), chanceInSpec: out })
      .nullable(),
    out: z.array(z.enum(OBSERVED)),
    doubtful: z.array(z.object({ try: out, reading: z.enum(OBSERVED), chance: out })),
    suspects: z.array(z.object({ what: z.enum(SUSPECTS), chance: out })),
    as: z.enum(SUSPECTS).nullable(),
    contradiction: out.nullable(),
    belowZeroMm: out.nullable(),
  }),
  example: {
    construction: 'integral-head-shim' as const,
    ringTeeth: 41,
    pinionTeeth: 11,
    specBacklashMm: [0.15, 0.25] as [number, number],
    tries: [
      {
        pinionShimMm: 1,
        ringShiftMm: 0,
        backlashMm: [0.2, 0.21, 0.22, 0.21, 0.2, 0.19, 0.18, 0.19],
        drive: { u: 0.1, v: -0.5 },
        coast: { u: 0.2, v: -0.5 },
      },
    ],
    steps: { pinionMm: 0.025, ringMm: 0.025 },
  },
  run: (job) => {
    const advice = meshAdvise(plain<MeshJob>(job));
    const mutable = <M extends { readonly piecesMm?: readonly number[] }>({ piecesMm, ...move }: M) => ({
      ...move,
      ...(piecesMm ? { piecesMm: [...piecesMm] } : {}),
    });
    return {
      ...advice,
      next: advice.next && mutable(advice.next),
      secondBest: advice.secondBest && mutable(advice.secondBest),
      out: [...advice.out],
      doubtful: [...advice.doubtful],
      suspects: [...advice.suspects],
    };
  },
  explain: (job, advice) => explainAdvice(plain<MeshJob>(job), plain<MeshAdvice>(advice)),
});

const shimCalculation = defineCalculation({
  name: 'shim.pack',
  summary: 'A pack of shims from pieces that exist: nearest, then fewest, thin ones never outermost.',
  input: z.strictObject({
    targetMm: number(SHIM_LIMITS.targetMm),
    stock: stockKeys,
    maxPieces: number({ min: 1, max: 6, integer: true }).default(4),
    thinBelowMm: number({ min: 0, max: 100, unit: 'mm' }).default(0.1),
  }),
  output: z.object({ piecesMm: z.array(out), errorMm: out, provenBest: z.boolean() }),
  example: {
    targetMm: 1.6,
    stock: [
      { thicknessMm: 0.05, count: 4 },
      { thicknessMm: 0.5, count: 2 },
      { thicknessMm: 0.75, count: 2 },
    ],
    maxPieces: 4,
    thinBelowMm: 0.1,
  },
  run: ({ targetMm, stock, ...rules }) => {
    const { piecesMm, ...found } = shimPack(targetMm, stock, rules);
    return { ...found, piecesMm: [...piecesMm] };
  },
  explain: ({ targetMm, stock, ...rules }) => explainShimPack(targetMm, stock, rules),
});

const floatCalculation = defineCalculation({
  name: 'shim.float',
  summary: 'The shim that brings a measured end float to the wanted one.',
  input: z.strictObject({
    shimMm: number(MESH_LIMITS.shimMm),
    measuredMm: number(MESH_LIMITS.floatMm),
    wantedMm: number(MESH_LIMITS.floatMm),
  }),
  output: z.object({ shimMm: out }),
  example: { shimMm: 1.24, measuredMm: 0.21, wantedMm: 0.12 },
  run: (of) => ({ shimMm: floatShim(of) }),
  explain: explainFloat,
});

const preloadCalculations = [
  defineCalculation({
    name: 'preload.total',
    summary: 'Turning torque of the carrier bearings from the total at the pinion.',
    input: z.strictObject({
      totalNm: number(LIMITS.torqueNm),
      pinionNm: number(LIMITS.torqueNm),
      ratio: number(LIMITS.ratio),
    }),
    output: z.object({ carrierNm: out }),
    example: { totalNm: 2.86, pinionNm: 2.12, ratio: 3.54 },
    run: (of) => ({ carrierNm: carrierPreload(of) }),
    explain: explainTotal,
  }),
  defineCalculation({
    name: 'preload.collapsible',
    summary: 'How far a nut on a collapsible spacer may be turned before it is read again.',
    input: z.strictObject({
      readings: z
        .array(
          z.strictObject({
            angleDeg: number({ min: -10_000, max: 10_000, unit: '°' }),
            torqueNm: number(LIMITS.torqueNm),
          }),
        )
        .max(60),
      bandNm,
      instrumentUncertaintyNm: number(LIMITS.torqueNm),
      start: z.enum(CRUSH_STARTS).default('nut'),
      pitchMm: number({ above: 0, max: 10, unit: 'mm' }).default(1.5),
    }),
    output: z.object({
      verdict: z.enum(['go-on', 'in-band', 'over', 'cannot-judge']),
      nextAngleDeg: out.nullable(),
      expectedNm: out.nullable(),
      deviationNm: out.nullable(),
      chanceOver: out.nullable(),
      kneeDeg: out.nullable(),
      chanceRising: out.nullable(),
      readingsExpected: out.nullable(),
    }),
    example: {
      readings: [{ angleDeg: 0, torqueNm: 0.9 }],
      bandNm: [1.8, 2.4] as [number, number],
      instrumentUncertaintyNm: 0.1,
    },
    run: ({ readings, bandNm: band, instrumentUncertaintyNm, start, pitchMm }) =>
      collapsiblePreload(readings, band, instrumentUncertaintyNm, band[0], start, pitchMm),
    explain: ({ readings }, next) => explainCollapsible(readings, next),
  }),
  defineCalculation({
    name: 'preload.solid',
    summary: 'The next shims beside a solid spacer, from the slope that two readings teach.',
    input: z.strictObject({
      readings: z
        .array(
          z.strictObject({
            shimMm: number({ min: 0, max: 100, unit: 'mm' }),
            torqueNm: number(LIMITS.torqueNm),
          }),
        )
        .max(20),
      bandNm,
      stock: stockKeys,
      wrenchNm: number(LIMITS.torqueNm).optional(),
      micrometerMm: number({ min: 0, max: 1, unit: 'mm' }).optional(),
    }),
    output: z.object({ slopeNmPerMm: out, shimMm: out, piecesMm: z.array(out), expectedNm: out }),
    example: {
      readings: [
        { shimMm: 1.2, torqueNm: 1.6 },
        { shimMm: 1.32, torqueNm: 0.95 },
      ],
      bandNm: [1.45, 1.85] as [number, number],
      stock: [
        { thicknessMm: 0.4, count: 3 },
        { thicknessMm: 0.08, count: 2 },
      ],
    },
    run: ({ readings, bandNm: band, stock, ...tells }) => {
      const { piecesMm, ...next } = solidPreload(readings, band, stock, plain<typeof tells & object>(tells));
      return { ...next, piecesMm: [...piecesMm] };
    },
    explain: ({ readings, bandNm: band, stock, ...tells }) =>
      explainSolid(readings, band, stock, plain<typeof tells & object>(tells)),
  }),
];

const practiceCalculation = defineCalculation({
  name: 'practice.assemble',
  summary: 'Puts a virtual axle together and reads it as a builder would; its truth stays hidden.',
  input: z.strictObject({
    seed: number({ min: 0, max: 4_294_967_295, integer: true }),
    pinionShimMm: number(MESH_LIMITS.shimMm),
    ringShiftMm: number(MESH_LIMITS.moveMm),
    assembly: number({ min: 0, max: 1000, integer: true }).default(0),
  }),
  output: z.object({
    construction: z.enum(PRACTICE_CONSTRUCTIONS),
    ringTeeth: out,
    pinionTeeth: out,
    specBacklashMm: z.array(out),
    startShimMm: out,
    addingShimMovesPinion: depthwards,
    pinionShimMm: out,
    ringShiftMm: out,
    backlashMm: z.array(out),
    meanMm: out,
    drive: patchOut,
    coast: patchOut,
  }),
  example: { seed: 1, pinionShimMm: 1, ringShiftMm: 0 },
  run: ({ seed, pinionShimMm, ringShiftMm, assembly }) => {
    const axle = virtualAxle(seed);
    const { construction, ringTeeth, pinionTeeth, specBacklashMm, startShimMm, addingShimMovesPinion } = axle;
    const read = assemble(axle, pinionShimMm, ringShiftMm, assembly);
    return {
      construction,
      ringTeeth,
      pinionTeeth,
      specBacklashMm: [...specBacklashMm],
      startShimMm,
      addingShimMovesPinion,
      ...read,
      backlashMm: [...read.backlashMm],
      meanMm: read.backlashMm.reduce((a, b) => a + b, 0) / read.backlashMm.length,
    };
  },
  explain: ({ seed, pinionShimMm, ringShiftMm }, { meanMm }) =>
    explain({
      title: 'Readings of a virtual axle',
      formula: 'reading = own + change × (position − right position) + run-out + scatter, all by the seed',
      inputs: [
        { key: 'seed', label: 'seed', value: seed, quantity: 'count' },
        { key: 'shim', label: 'pinion shim', value: pinionShimMm, quantity: 'length' },
        { key: 'ring', label: 'ring towards the pinion', value: ringShiftMm, quantity: 'length' },
      ],
      sources: [{ kind: 'guard-band', text: 'invented for practice; spreads from memory', fromMemory: true }],
      result: { label: 'mean backlash', quantity: 'length' },
      compute: () => ({ value: meanMm }),
    }),
});

export const meshCalculations = [
  ...depthCalculations,
  ...carrierCalculations,
  meshCalculation,
  adviseCalculation,
  shimCalculation,
  floatCalculation,
  ...preloadCalculations,
  practiceCalculation,
];
