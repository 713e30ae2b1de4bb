import { AXLES, type AxleName } from '../document/names';
import { defineCapability } from '../engine/capability';
import { inspect } from '../inspect';
import { joint } from '../joint';
import { mesh } from '../mesh';
import { preload } from '../preload';
import { deriveWork, evidenceOf } from './derive-work';
import { floatGates } from './float-gates';
import { deriveGates, gatesOf, type GateName, type GateState } from './gates';
import { planFigures } from './ids';
import { workSubjects } from './readings';
import { workState, type WorkState } from './work';

export type Gates = Partial<Record<AxleName, Readonly<Record<GateName, GateState>>>>;
export interface Plan {
  readonly gates: Gates;
  readonly work: Partial<Record<AxleName, WorkState>>;
}

/** What a name is put under to do a step all the same. */
export const overrideKey = (axle: AxleName, step: string): string => `${axle} override ${step}`;

/** The order of work of each axle, and its gates: what each needs, and who signed it. */
export const plan = defineCapability({
  name: 'plan',
  needs: [mesh, preload, joint, inspect],
  figures: planFigures,
  subjects: workSubjects,
  place: { sheet: 'work', field: 'job' },
  station: 'final',
  inputs: ({ build, readings, signed }) => ({ rear: build.axles.rear, front: build.axles.front, readings, signed }),
  derive: ({ readings, signed, ...axles }, d, given): Plan => {
    const plans: Plan = { gates: {}, work: {} };
    for (const name of AXLES) {
      const [of, torque] = [given.of(mesh)?.[name], given.of(preload)?.[name]];
      const gates = !of
        ? null
        : of.construction === 'electric-reduction'
          ? floatGates(of, signed)
          : torque
            ? gatesOf(of, torque, signed)
            : null;
      if (gates) plans.gates[name] = gates;
      if (of?.now && gates) deriveGates(name, gates, d);
      const axle = axles[name];
      if (!axle?.work) continue;
      d.attempt({ sheet: 'work', axle: name, field: `job-${name}` }, 'final', () => {
        const state = workState(name, axle, readings, {
          gates: { A: gates?.A.open ?? false, B: gates?.B.open ?? false },
          evidence: evidenceOf(
            axle,
            of ?? null,
            torque ?? null,
            given.of(joint)?.[name] ?? null,
            given.of(inspect)?.[name] ?? null,
          ),
          override: (step) => signed.has(overrideKey(name, step)),
        });
        if (!state) return;
        plans.work[name] = state;
        deriveWork(name, axle, state, d);
      });
    }
    return plans;
  },
});
