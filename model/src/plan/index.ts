import { AXLES, type AxleName } from '../base/names';
import { defineCapability } from '../frame/capability';
import { identity } from '../identity';
import { pack } from '../pack';
import { shaft } from '../shaft';
import { unit } from '../unit';
import { inspect } from '../inspect';
import { joint } from '../joint';
import { mesh } from '../mesh';
import { preload } from '../preload';
import { readingBase } from '../frame/readings';
import { concerns } from './concerns';
import { LEAK_SHARE, deriveWork, lossPerMinute } from './derive-work';
import { evidenceOf, proofsOf } from './evidence';
import { gateAsks, type Facts, type StepId } from '@hot-spline/core';
import { factsOf } from './facts';
import { floatGates } from './float-gates';
import { deriveGates, gatesOf, withStops, type GateName, type GateState } from './gates';
import { planFigures } from './ids';
import { meshNumbers } from './numbers';
import { STEP_READINGS, workSubjects } from './readings';
import { workState, type WorkState } from './work';

export type Gates = Partial<Record<AxleName, Readonly<Record<GateName, GateState>>>>;
export interface Plan {
  readonly gates: Gates;
  readonly work: Partial<Record<AxleName, WorkState>>;
}

/** Whose findings are said at the steps that they concern. */
const FOUND_BY = [identity, pack, unit, mesh, preload, joint, shaft, inspect];

/** What says stop of the steps up to a gate, and has no name under it: also of steps that are done. */
function stopsBefore({ steps }: WorkState, gate: GateName): string[] {
  const at = (name: GateName): number => steps.findIndex(({ step }) => step.gate === name);
  const from = gate === 'B' ? at('A') + 1 : 0;
  return steps
    .slice(from, Math.max(from, at(gate)))
    .flatMap(({ status, stops }) => (status === 'skipped' ? [] : stops.map(({ what }) => what)));
}

/** What a name is put under to do a step all the same. */
export const overrideKey = (axle: AxleName, step: string): string => `${axle} override ${step}`;

/** The order of work of each axle, and its gates: what each needs, and who signed it. */
export const plan = defineCapability({
  name: 'plan',
  needs: FOUND_BY,
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
        const facts = factsOf(axle);
        const gates = gatesBy(facts);
        const known = {
          axle,
          mesh: of ?? null,
          preload: torque ?? null,
          joint: ring,
          parts: given.of(inspect)?.[name] ?? null,
          facts,
        };
        const found = FOUND_BY.flatMap((capability) => given.findings(capability)).filter(
          ({ verdict }) => verdict === 'stop',
        );
        const state = workState(name, axle, readings, {
          gates: { A: gates?.A.open ?? false, B: gates?.B.open ?? false },
          evidence: evidenceOf(name, known, readings),
          proofs: proofsOf(name, known, readings),
          numbers: meshNumbers(of ?? null),
          override: (step) => signed.has(overrideKey(name, step)),
          stops: (step) =>
            found
              .filter((one) => concerns(step, name, one))
              .map((one) => ({ for: 'stop', holds: true, what: one.say('metric').title, id: one.id })),
        });
        show(
          gates &&
            state && {
              A: gates.A.needs.length === 0 ? gates.A : withStops(gates.A, stopsBefore(state, 'A')),
              B: withStops(gates.B, stopsBefore(state, 'B')),
            },
        );
        if (!state) return;
        plans.work[name] = state;
        deriveWork(name, axle, state, d);
      });
    }
    return plans;
  },
});
