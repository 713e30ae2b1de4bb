import { LIMITS, PRELOAD_ACTS, RAMP_FRICTION, preloadThat, unitLock } from '@hot-spline/core';
import { number, out } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';
import { unitCompare } from './calc-compare';
import { explainUnitLock } from './explain';

const plateOf = (input: z.output<typeof lockInput>) => ({
  frictionCoefficient: input.frictionCoefficient,
  interfacesPerPack: input.interfacesPerPack,
  meanRadiusMm: input.meanRadiusMm,
  pinRadiusMm: input.pinRadiusMm,
  ramp: input.ramp,
  rampFriction: input.rampFriction,
});
const preloadOf = ({ preloadActs, preloadNm }: z.output<typeof lockInput>) => preloadThat(preloadActs, preloadNm);

const lockInput = z.strictObject({
  frictionCoefficient: number(LIMITS.frictionCoefficient),
  interfacesPerPack: number(LIMITS.interfaces),
  meanRadiusMm: number(LIMITS.radiusMm),
  pinRadiusMm: number(LIMITS.radiusMm),
  ramp: z.strictObject({ angleDeg: z.number().min(0).max(90), from: z.enum(['rotation-plane', 'axis']) }),
  preloadNm: number(LIMITS.torqueNm).default(0),
  /** Whether the clamp passes through the spring or the spring pushes along with the ramps. */
  preloadActs: z.enum(PRELOAD_ACTS).default('series'),
  rampFriction: number(RAMP_FRICTION).default(0),
  inputNm: number(LIMITS.torqueNm),
});

export const unitCalculations = [
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
      preloadActs: 'series' as const,
      inputNm: 400,
    },
    run: (input) => unitLock(plateOf(input), preloadOf(input), input.inputNm),
    explain: (input) => explainUnitLock('Locking torque', plateOf(input), preloadOf(input), input.inputNm),
  }),

  unitCompare,
];
