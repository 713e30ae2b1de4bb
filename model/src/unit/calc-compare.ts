import {
  LIMITS,
  PRELOAD_ACTS,
  compareUnit,
  explain,
  preloadThat,
  type CompareSituation,
  type CompareUnit,
} from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';

const torque = number(LIMITS.torqueNm);
const slope = number({ min: 0, max: 20 });
const gear = z.strictObject({
  meanRadiusMm: number(LIMITS.radiusMm),
  pressureAngleDeg: number({ above: 0, max: 90 }),
  coneAngleDeg: number({ above: 0, max: 90 }),
});
const acts = z.enum(PRELOAD_ACTS);
const bias = number({ min: 1, max: 100 });

const unitSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('open') }),
  z.strictObject({
    type: z.literal('plate'),
    preloadNm: torque,
    preloadActs: acts.default('series'),
    driveSlope: slope,
    overrunSlope: slope,
  }),
  z.strictObject({
    type: z.literal('side-gear-thrust'),
    preloadN: number(LIMITS.forceN),
    preloadActs: acts.default('parallel'),
    frictionCoefficient: number(LIMITS.frictionCoefficient),
    interfacesPerPack: number(LIMITS.interfaces),
    meanRadiusMm: number(LIMITS.radiusMm),
    gear,
  }),
  z.strictObject({
    type: z.literal('cone'),
    preloadN: number(LIMITS.forceN),
    frictionCoefficient: number(LIMITS.frictionCoefficient),
    meanRadiusMm: number(LIMITS.radiusMm),
    halfAngleDeg: number({ above: 0, max: 90 }),
    gear,
  }),
  z.strictObject({ type: z.literal('helical'), biasRatio: bias, preloadNm: torque.default(0) }),
  z.strictObject({
    type: z.literal('hybrid'),
    biasRatio: bias,
    preloadNm: torque.default(0),
    platesFromNm: torque,
    platesSlope: slope,
  }),
  z.strictObject({ type: z.literal('friction-insert'), preloadNm: torque }),
  z.strictObject({ type: z.literal('selectable-locker'), engaged: z.boolean() }),
  z.strictObject({ type: z.literal('automatic-locker') }),
  z.strictObject({ type: z.literal('spool') }),
]);
const wheel = z.strictObject({
  loadN: number(LIMITS.forceN),
  grip: number({ min: 0, max: 10 }),
  brakeNm: torque.default(0),
});
const inputSchema = z.strictObject({
  units: z.array(unitSchema).min(1).max(40),
  situation: z.strictObject({
    inputNm: number({ min: -1e6, max: 1e6 }),
    left: wheel,
    right: wheel,
    tyreRadiusMm: number(LIMITS.radiusMm),
    trackMm: number({ above: 0, max: 10_000 }),
    outer: z.enum(['left', 'right']).optional(),
  }),
});

/** A plate unit says one preload and how it acts. */
function asked(unit: z.output<typeof unitSchema>): CompareUnit {
  if (unit.type !== 'plate') return unit;
  const { preloadNm, preloadActs, ...rest } = unit;
  return { ...rest, preload: preloadThat(preloadActs, preloadNm) };
}

function compareAll({ units, situation }: z.output<typeof inputSchema>) {
  const at = plain<CompareSituation>(situation);
  return units.map((unit) => compareUnit(asked(unit), at));
}

/** Every type of unit in one situation. */
export const unitCompare = defineCalculation({
  name: 'unit.compare',
  summary: 'Units side by side in one situation: thrust, torque at each wheel, which slips first, yaw moment.',
  input: inputSchema,
  output: z.object({
    results: z.array(
      z.object({
        type: z.string(),
        leftNm: out,
        rightNm: out,
        thrustN: out,
        deliveredNm: out,
        slips: z.enum(['none', 'left', 'right', 'both']),
        yawNm: out,
        shaftNm: out,
      }),
    ),
  }),
  example: {
    units: [
      { type: 'open' as const },
      { type: 'plate' as const, preloadNm: 60, driveSlope: 0.52, overrunSlope: 0.3 },
      { type: 'helical' as const, biasRatio: 3 },
      { type: 'spool' as const },
    ],
    situation: {
      inputNm: 2000,
      left: { loadN: 3500, grip: 0.2 },
      right: { loadN: 3500, grip: 1 },
      tyreRadiusMm: 310,
      trackMm: 1500,
    },
  },
  run: (input) => ({ results: compareAll(input) }),
  explain: ({ units, situation }, { results }) =>
    explain({
      title: 'Units side by side',
      formula: 'the wheels differ by at most the locking torque; a tyre gives at most grip × load × radius',
      inputs: [
        { key: 'inputNm', label: 'torque into the axle', value: situation.inputNm, quantity: 'torque' },
        { key: 'leftN', label: 'load on the left wheel', value: situation.left.loadN, quantity: 'force' },
        { key: 'leftGrip', label: 'grip on the left', value: situation.left.grip, quantity: 'coefficient' },
        { key: 'rightN', label: 'load on the right wheel', value: situation.right.loadN, quantity: 'force' },
        { key: 'rightGrip', label: 'grip on the right', value: situation.right.grip, quantity: 'coefficient' },
      ],
      sources: [{ kind: 'exact', text: 'equilibrium of the differential; tyres as dry friction' }],
      result: { label: `thrust of the first unit, ${results[0]?.type ?? ''}`, quantity: 'force' },
      compute: ({ inputNm = 0, leftN = 0, leftGrip = 0, rightN = 0, rightGrip = 0 }) => {
        const at = {
          ...situation,
          inputNm,
          left: { ...situation.left, loadN: leftN, grip: leftGrip },
          right: { ...situation.right, loadN: rightN, grip: rightGrip },
        };
        return {
          value: compareAll({ units: units.slice(0, 1), situation: at })[0]?.thrustN ?? 0,
          steps: results.map((one) => ({ label: one.type, value: one.thrustN, quantity: 'force' as const })),
        };
      },
    }),
});
