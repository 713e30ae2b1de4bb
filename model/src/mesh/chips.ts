import type { Act, Facts, Operation } from '@hot-spline/core';
import type { Trial } from './schema';
import type { MeshStep } from './work';

const OUT = { caps: 'off', sidePreload: 'none' } as const;
const PINION_OUT = { spacer: 'none', seal: 'out', nut: 'old' } as const;
const bearing = (is: Facts['sideBearings']) => (is === 'new' ? 'new' : 'used');

/** What a step makes of the state that readings are taken in. */
const BY_ACT: Partial<Record<Act, (facts: Facts) => Partial<Trial>>> = {
  'carrier-out': () => OUT,
  'pinion-out': () => PINION_OUT,
  'pinion-bearing-final': () => ({ pinionBearings: 'new' }),
  'seal-in': () => ({ spacer: 'new', seal: 'in', nut: 'new' }),
  'side-bearing-press': (facts) => ({ sideBearings: bearing(facts.sideBearings) }),
  'carrier-final': (facts) => ({
    caps: 'torqued',
    sidePreload: 'full',
    sideBearings: bearing(facts.sideBearings),
    oil: 'oiled',
  }),
};
const BY_STEP: Partial<Record<MeshStep, Partial<Trial>>> = {
  'carrier-again': OUT,
  'trial-carrier': { caps: 'torqued', sidePreload: 'full' },
};

/** The state after a step was done: what it does not touch stays as it was said. */
export function stateAfter(step: Pick<Operation, 'id' | 'acts'>, facts: Facts, state: Trial): Trial {
  const changes = step.acts.map((act) => BY_ACT[act]?.(facts) ?? {});
  return Object.assign({ ...state }, ...changes, BY_STEP[step.id as MeshStep] ?? {}) as Trial;
}
