import { AXLES, type AxleName } from '../document/names';
import { defineCapability } from '../engine/capability';
import { inspect } from '../inspect';
import { joint } from '../joint';
import { mesh } from '../mesh';
import { preload } from '../preload';
import { readingBase } from '../engine/readings';
import { LEAK_SHARE, deriveWork, evidenceOf, lossPerMinute } from './derive-work';
import { gateAsks, type Facts, type StepId } from '@hot-spline/core';
import { factsOf } from './facts';
import { floatGates } from './float-gates';
import { deriveGates, gatesOf, type GateName, type GateState } from './gates';
import { planFigures } from './ids';
import { meshNumbers } from './numbers';
import { STEP_READINGS, workSubjects } from './readings';
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
      const axle = axles[name];
      const ring = given.of(joint)?.[name] ?? null;
      const gatesBy = (facts: Facts | null): Readonly<Record<GateName, GateState>> | null => {
        if (!of) return null;
        const asks = facts ? gateAsks(facts) : undefined;
        const said = (step: StepId, record: string): number | null => {
          const found = Object.values(STEP_READINGS)
            .map((kind) => readings.get(kind.key({ axle: name, step, record })))
            .find((reading) => reading !== undefined);
          return found ? readingBase(found) : null;
        };
        const [start, end, minutes] = (['pressure', 'pressure-end', 'minutes'] as const).map((record) =>
          said('locker-line', record),
        );
        const loss = lossPerMinute(start ?? null, end ?? null, minutes ?? null);
        const evidence = {
          ringBolts: ring !== null && ring.rounds.length > 0 && ring.rounds.every(({ whole }) => whole),
          dragNm: said('pinion-drag', 'drag'),
          leak: loss === null ? null : loss > LEAK_SHARE * (start ?? 0) ? ('loses' as const) : ('holds' as const),
          floatRead: said('input-float', 'again') !== null,
        };
        if (of.construction === 'electric-reduction') return floatGates(of, signed, asks, evidence);
        return torque ? gatesOf(of, torque, signed, asks, evidence) : null;
      };
      const show = (gates: Readonly<Record<GateName, GateState>> | null): void => {
        if (gates) plans.gates[name] = gates;
        if (of?.now && gates) deriveGates(name, gates, d);
      };
      if (!axle?.work) {
        show(gatesBy(null));
        continue;
      }
      d.attempt({ sheet: 'work', tab: 'facts', axle: name, field: `job-${name}` }, 'final', () => {
        const gates = gatesBy(factsOf(axle));
        show(gates);
        const state = workState(name, axle, readings, {
          gates: { A: gates?.A.open ?? false, B: gates?.B.open ?? false },
          evidence: evidenceOf(axle, of ?? null, torque ?? null, ring, given.of(inspect)?.[name] ?? null, {
            facts: factsOf(axle),
          }),
          numbers: meshNumbers(of ?? null),
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
