import { caseOf, gateAsks, type Facts } from '@hot-spline/core';
import { AXLES, type AxleName } from '../base/names';
import { defineCapability } from '../frame/capability';
import { readingBase } from '../frame/readings';
import type { GateContext, GateName, GateNeed, KnownWork } from '../frame/work';
import { concerns } from './concerns';
import { LEAK_SHARE, deriveWork, lossPerMinute } from './derive-work';
import { factsOf } from './facts';
import { ASKS_ALL, deriveGates, gatesOf, withStops, type GateState } from './gates';
import { planFigures } from './ids';
import { STEP_READINGS, workSubjects } from './readings';
import { planParts, planSteps, type PlanStep } from './steps';
import { workState, type WorkState } from './work';

export type Gates = Partial<Record<AxleName, Readonly<Record<GateName, GateState>>>>;
export interface Plan {
  readonly gates: Gates;
  readonly work: Partial<Record<AxleName, WorkState>>;
}

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

/** A job that leaves the axle shut: what is signed is what its own steps read, whether a set-up was begun or not. */
const leavesShut = (facts: Facts | null): boolean => facts !== null && !caseOf(facts).opened;
const SHUT_SIGNS: NonNullable<KnownWork['signs']> = {
  about: { A: '', B: 'Before the box is closed on it.' },
  keys: { A: [], B: [] },
  stale: '',
};

/** What the steps of the plan itself have to say at Gate B: the locker's pressure, the float of a box's input. */
function ownNeeds(facts: Facts | null, { asks, said }: GateContext): readonly GateNeed[] {
  const of = (step: PlanStep, record: string): number | null => said(step, record);
  const start = of('locker-line', 'pressure');
  const loss = lossPerMinute(start, of('locker-line', 'pressure-end'), of('locker-line', 'minutes'));
  const leak = loss === null ? null : loss > LEAK_SHARE * (start ?? 0) ? 'loses' : 'holds';
  const floatRead = of('input-float', 'again') !== null;
  // The end float of an electric unit is read by the sheet that sets it.
  const inputFloat =
    asks.B.includes('float') && facts !== null && (facts.construction !== 'electric-reduction' || leavesShut(facts));
  return [
    ...(inputFloat
      ? [
          {
            of: 'float',
            need: 'Float of the box’s input, read again',
            met: floatRead,
            says: floatRead ? 'read' : 'not read',
          } as const,
        ]
      : []),
    ...(asks.B.includes('leak')
      ? [{ of: 'leak', need: 'Locker held under pressure', met: leak === 'holds', says: leak ?? 'not tested' } as const]
      : []),
  ];
}

/** The order of work of each axle, and its gates: what each needs, and who signed it. */
export const plan = defineCapability({
  name: 'plan',
  needs: 'all-before',
  figures: planFigures,
  subjects: workSubjects,
  work: { steps: planSteps, parts: planParts },
  place: { sheet: 'work', field: 'job' },
  station: 'final',
  inputs: ({ build, readings, signed }) => ({ rear: build.axles.rear, front: build.axles.front, readings, signed }),
  derive: ({ readings, signed, ...axles }, d, given): Plan => {
    const plans: Plan = { gates: {}, work: {} };
    for (const name of AXLES) {
      const axle = axles[name];
      const known = given.work(name);
      const said: GateContext['said'] = (step, record) => {
        const found = Object.values(STEP_READINGS)
          .map((kind) => readings.get(kind.key({ axle: name, step, record })))
          .find((reading) => reading !== undefined);
        return found ? readingBase(found) : null;
      };
      const gatesBy = (facts: Facts | null): Readonly<Record<GateName, GateState>> | null => {
        const own = { B: (context: GateContext) => ownNeeds(facts, context) };
        const whole: KnownWork = leavesShut(facts)
          ? { ...known, signs: known.signs ?? SHUT_SIGNS, needs: [own] }
          : { ...known, needs: [...known.needs, own] };
        return gatesOf(name, whole, signed, { asks: facts ? gateAsks(facts) : ASKS_ALL, said });
      };
      const show = (gates: Readonly<Record<GateName, GateState>> | null, shut = false): void => {
        if (!gates) return;
        plans.gates[name] = gates;
        if (known.begun || shut) deriveGates(name, gates, d);
      };
      if (!axle?.work) {
        show(gatesBy(null));
        continue;
      }
      d.attempt({ sheet: 'work', tab: 'facts', axle: name, field: `job-${name}` }, 'final', () => {
        const facts = factsOf(axle);
        const gates = gatesBy(facts);
        const found = given.stops();
        const state = workState(name, axle, readings, given.all, {
          gates: { A: gates?.A.open ?? false, B: gates?.B.open ?? false },
          steps: known.steps,
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
          leavesShut(facts),
        );
        if (!state) return;
        plans.work[name] = state;
        deriveWork(name, axle, state, d);
      });
    }
    return plans;
  },
});
