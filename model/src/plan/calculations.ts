import {
  ACTS,
  ARRIVALS,
  ASKED,
  BEARINGS,
  BOXES,
  BRAKES,
  CONSTRUCTIONS,
  DEPTH_SHIMS,
  GEARS,
  OUTER_SEALS,
  RETENTIONS,
  RING_PLACES,
  SPACERS,
  SPREADS,
  UNIT_KINDS,
  UNIT_WORK,
  WHEEL_BEARINGS,
  caseOf,
  explain,
  gateAsks,
  type Facts,
  type Operation,
  type UnitKind,
} from '@hot-spline/core';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';

/** The kind of unit that a word for its work speaks of; a plate unit where it speaks of none. */
const KIND: Partial<Record<(typeof UNIT_WORK)[number], UnitKind>> = {
  insert: 'insert',
  locker: 'locker',
  spool: 'plain',
};

const facts = z.strictObject({
  arrives: z.enum(ARRIVALS),
  construction: z.enum(CONSTRUCTIONS),
  depthShim: z.enum(DEPTH_SHIMS),
  ringPlacedBy: z.enum(RING_PLACES),
  gears: z.enum(GEARS),
  unit: z.enum(UNIT_WORK),
  sideBearings: z.enum(BEARINGS),
  pinionBearings: z.enum(BEARINGS),
  spacer: z.enum(SPACERS),
  retention: z.enum(RETENTIONS),
  ringOff: z.boolean().nullable().default(null),
  pinionOut: z.boolean().nullable().default(null),
  box: z.enum(BOXES),
  unitKind: z.enum(UNIT_KINDS).optional(),
  depth: z.enum(['gauge-first', 'pattern-first', 'gauge-decides']).default('gauge-first'),
  bearings: z.enum(['set-up', 'press-on']).default('set-up'),
  ringGear: z.enum(['heated', 'pulled-on']).default('heated'),
  ringHand: z.enum(['right', 'left']).nullable().default(null),
  lockerRings: z.enum(['after-dry-trial', 'first-fitting']).default('after-dry-trial'),
  brake: z.enum(BRAKES).nullable().default(null),
  wheelBearing: z.enum(WHEEL_BEARINGS).nullable().default(null),
  outerSeal: z.enum(OUTER_SEALS).nullable().default(null),
  spread: z.enum(SPREADS).nullable().default(null),
});
const factsOf = ({ unitKind, ...rest }: z.output<typeof facts>) => ({
  ...rest,
  unitKind: unitKind ?? KIND[rest.unit] ?? ('plate' as const),
});
const asks = z.array(z.object({ asks: z.enum(ASKED) }));

/** The order of work. @param orderOfWork every step that a job has, in its order */
export const planCalculations = (orderOfWork: (facts: Facts) => readonly Operation[]) => [
  defineCalculation({
    name: 'plan.order',
    summary: 'The order of work from facts: its steps, what waits for Gate A, and what each gate asks.',
    input: facts,
    output: z.object({
      inferred: z.object({ ringOff: z.boolean(), pinionOut: z.boolean() }),
      steps: z.array(
        z.object({ id: z.string(), title: z.string(), does: z.array(z.enum(ACTS)), waitsForGateA: z.boolean() }),
      ),
      gates: z.object({ A: asks, B: asks }),
    }),
    example: {
      arrives: 'loose-unit',
      construction: 'drop-out',
      depthShim: 'support',
      ringPlacedBy: 'adjusters',
      gears: 'used',
      unit: 'own-overhauled',
      sideBearings: 'new',
      pinionBearings: 'stay',
      spacer: 'solid',
      retention: 'unit-bearing',
      ringOff: null,
      pinionOut: null,
      box: 'stays',
    },
    run: (of) => {
      const known = factsOf(of);
      const { ringComesOff, pinionComesOut } = caseOf(known);
      const { A, B } = gateAsks(known);
      return {
        inferred: { ringOff: ringComesOff, pinionOut: pinionComesOut },
        steps: orderOfWork(known).map(({ id, title, acts, behind }) => ({
          id,
          title,
          does: [...acts],
          waitsForGateA: behind === 'A',
        })),
        gates: { A: A.map((one) => ({ asks: one })), B: B.map((one) => ({ asks: one })) },
      };
    },
    explain: (_, { steps }) =>
      explain({
        title: 'Steps of an order of work',
        formula:
          'a step waits for Gate A when the next change of a setting still open would undo, destroy or falsify it',
        inputs: [],
        sources: [{ kind: 'trade', text: 'common practice; a maker’s sheet wins. What a shop adds is not counted' }],
        result: { label: 'steps', quantity: 'count' },
        compute: () => ({
          value: steps.length,
          steps: [
            {
              label: 'of them waiting for Gate A',
              value: steps.filter(({ waitsForGateA }) => waitsForGateA).length,
              quantity: 'count',
            },
          ],
        }),
      }),
  }),
];
