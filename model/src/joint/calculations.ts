import {
  BOLT_GRADES,
  EXPANSION,
  JOINT_LIMITS,
  LIMITS,
  adapterSetting,
  boltClamp,
  boltLoad,
  boltTorque,
  bottoming,
  explain,
  heatToFit,
  jointCapacity,
  type JointMaterial,
} from '@hot-spline/core';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';
import { explainBolt, explainBottoming, explainCapacity, explainClamp, explainHeat, explainTorque } from './explain';

const verdict = z.enum(['fits', 'watch', 'stop']);
const length = number(JOINT_LIMITS.lengthMm);

/** Bolts of the ring, what they hold, and what is put on warm. */
export const jointCalculations = [
  defineCalculation({
    name: 'joint.bolt',
    summary: 'Preload of a bolt at 75 % of its proof load, and the torque K·d·F that is to give it.',
    input: z.strictObject({
      thread: z.string().max(40),
      grade: z.enum(BOLT_GRADES),
      nutFactor: number(JOINT_LIMITS.nutFactor),
    }),
    output: z.object({ stressAreaMm2: out, proofMPa: out, preloadN: out, torqueNm: out }),
    example: { thread: '1/2-20', grade: '8', nutFactor: 0.2 },
    run: (of) => boltLoad(of),
    explain: explainBolt,
  }),
  defineCalculation({
    name: 'joint.torque',
    summary: 'Torque for a preload, friction in the thread and under the head apart; and what undoes it.',
    input: z.strictObject({
      preloadN: number(LIMITS.forceN),
      pitchMm: number(JOINT_LIMITS.threadMm),
      pitchDiameterMm: number(JOINT_LIMITS.threadMm),
      headMeanDiameterMm: number(JOINT_LIMITS.threadMm),
      threadFriction: number(JOINT_LIMITS.friction),
      headFriction: number(JOINT_LIMITS.friction),
      halfAngleDeg: number(JOINT_LIMITS.halfAngleDeg),
    }),
    output: z.object({
      torqueNm: out,
      shares: z.object({ preload: out, thread: out, head: out }),
      loosenNm: out,
    }),
    example: {
      preloadN: 50_000,
      pitchMm: 1.25,
      pitchDiameterMm: 9.188,
      headMeanDiameterMm: 13,
      threadFriction: 0.12,
      headFriction: 0.1,
      halfAngleDeg: 30,
    },
    run: (of) => boltTorque(of),
    explain: explainTorque,
  }),
  defineCalculation({
    name: 'joint.clamp',
    summary:
      'Clamp of a bolt by the torque that is put on, as a share of its proof load, with both ends of what friction scatters.',
    input: z.strictObject({
      thread: z.string().max(40),
      grade: z.enum(BOLT_GRADES),
      torqueNm: number({ above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' }),
      nutFactor: number(JOINT_LIMITS.nutFactor).optional(),
      threadFriction: number(JOINT_LIMITS.friction).optional(),
      headFriction: number(JOINT_LIMITS.friction).optional(),
      headMeanDiameterMm: number(JOINT_LIMITS.threadMm).optional(),
      scatter: number({ min: 0, max: 0.9 }).optional(),
    }),
    output: z.object({
      clampN: out,
      ofProof: out,
      low: z.object({ clampN: out, ofProof: out }),
      high: z.object({ clampN: out, ofProof: out }),
      verdict,
      by: z.enum(['thread-and-head', 'nut-factor']),
      wantedNm: out,
    }),
    example: { thread: 'M10x1.25', grade: '10.9', torqueNm: 60, nutFactor: 0.2 },
    run: (of) => boltClamp(plain<Parameters<typeof boltClamp>[0]>(of)),
    explain: (of) => explainClamp(plain<Parameters<typeof boltClamp>[0]>(of), true),
  }),
  defineCalculation({
    name: 'joint.adapter',
    summary: 'What a wrench is set to with an adapter in line.',
    input: z.strictObject({
      torqueNm: number(LIMITS.torqueNm),
      leverMm: number(JOINT_LIMITS.leverMm),
      adapterMm: length,
    }),
    output: z.object({ settingNm: out }),
    example: { torqueNm: 100, leverMm: 400, adapterMm: 50 },
    run: (of) => ({ settingNm: adapterSetting(of) }),
    explain: (of) =>
      explain({
        title: 'Setting of a wrench with an adapter',
        formula: 'set = T·L ÷ (L + E)',
        inputs: [
          { key: 'T', label: 'torque at the bolt', value: of.torqueNm, quantity: 'torque' },
          { key: 'L', label: 'lever of the wrench', value: of.leverMm, quantity: 'length' },
          { key: 'E', label: 'adapter, in line', value: of.adapterMm, quantity: 'length' },
        ],
        sources: [{ kind: 'exact', text: 'levers' }],
        result: { label: 'set to', quantity: 'torque' },
        compute: ({ T = 0, L = 1, E = 0 }) => ({
          value: adapterSetting({ torqueNm: T, leverMm: L, adapterMm: E }),
        }),
      }),
  }),
  defineCalculation({
    name: 'joint.bottoming',
    summary: 'Whether a bolt bottoms before it clamps, and how much thread holds.',
    input: z.strictObject({
      boltUnderHeadMm: length,
      flangeMm: length,
      washerMm: length,
      holeDepthMm: length,
      threadDepthMm: length,
      threadDiameterMm: number(JOINT_LIMITS.threadMm),
      boltShankMm: length,
    }),
    output: z.object({
      clearanceMm: out,
      engagementMm: out,
      verdict,
      why: z.array(z.enum(['bottoms', 'shank', 'short', 'close'])),
    }),
    example: {
      boltUnderHeadMm: 25.4,
      flangeMm: 10.2,
      washerMm: 0,
      holeDepthMm: 17.8,
      threadDepthMm: 16.5,
      threadDiameterMm: 12.7,
      boltShankMm: 8,
    },
    run: (of) => {
      const { why, ...found } = bottoming(of);
      return { ...found, why: [...why] };
    },
    explain: explainBottoming,
  }),
  defineCalculation({
    name: 'joint.capacity',
    summary: 'Torque that a bolted ring holds by friction, against what arrives.',
    input: z.strictObject({
      bolts: number(JOINT_LIMITS.bolts),
      preloadN: number(LIMITS.forceN),
      friction: number(JOINT_LIMITS.friction),
      boltCircleMm: number(LIMITS.diameterMm),
      ringTorqueNm: number(LIMITS.torqueNm),
    }),
    output: z.object({ slipTorqueNm: out, margin: out.nullable(), verdict }),
    example: { bolts: 10, preloadN: 50_000, friction: 0.15, boltCircleMm: 150, ringTorqueNm: 4000 },
    run: (of) => jointCapacity(of),
    explain: explainCapacity,
  }),
  defineCalculation({
    name: 'fit.heat',
    summary: 'How warm a part has to be to slide on.',
    input: z.strictObject({
      diameterMm: number(LIMITS.diameterMm),
      interferenceMm: number(JOINT_LIMITS.interferenceMm),
      slideClearanceMm: number(JOINT_LIMITS.interferenceMm),
      startC: number(JOINT_LIMITS.celsius),
      material: z.enum(Object.keys(EXPANSION) as [JointMaterial, ...JointMaterial[]]),
      limitC: number(JOINT_LIMITS.celsius).optional(),
    }),
    output: z.object({ targetC: out, verdict }),
    example: { diameterMm: 177.8, interferenceMm: 0.05, slideClearanceMm: 0.05, startC: 21, material: 'steel' },
    run: (of) => heatToFit(plain<Parameters<typeof heatToFit>[0]>(of)),
    explain: (of) => explainHeat(plain<Parameters<typeof heatToFit>[0]>(of)),
  }),
];
