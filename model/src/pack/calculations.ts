import {
  LIMITS,
  SHIM_LIMITS,
  discSpringForce,
  frictionInterfaces,
  packBreakaway,
  packShims,
  wrenchReading,
} from '@hot-spline/core';
import { number, out } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';
import { springKeys } from './calc-keys';
import { sureCalculation } from './calc-sure';
import { wantedCalculations } from './calc-wanted';
import { explainBreakaway, explainDiscSpring, explainInterfaces, explainShims } from './explain';

const memberSchema = z.strictObject({ keyedTo: z.enum(['gear', 'case']), lined: z.boolean() });

const breakawayInput = z.strictObject({
  frictionCoefficient: number(LIMITS.frictionCoefficient),
  interfaces: number(LIMITS.interfaces),
  clampN: number(LIMITS.forceN),
  outerRadiusMm: number(LIMITS.radiusMm),
  innerRadiusMm: number(LIMITS.radiusMm),
  wearModel: z.enum(['uniform-wear', 'uniform-pressure']),
  /** Turning torque with both wheels free: half of it is in the reading with the other wheel held. */
  turningNm: number(LIMITS.torqueNm).default(0),
});

export const packCalculations = [
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
    run: ({ turningNm, ...pack }) => {
      const perPackNm = packBreakaway(pack);
      const packs = { leftNm: perPackNm, rightNm: perPackNm };
      return {
        perPackNm,
        wheelOtherHeldNm: wrenchReading(packs, 'other-wheel-held', { turningNm }).torqueNm,
        wheelCarrierHeldNm: wrenchReading(packs, 'carrier-held').torqueNm,
        benchNm: wrenchReading(packs, 'bench').torqueNm,
      };
    },
    explain: ({ turningNm: _, ...pack }) => explainBreakaway('Friction torque of one pack', pack),
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

  sureCalculation,
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

  ...wantedCalculations,
];
