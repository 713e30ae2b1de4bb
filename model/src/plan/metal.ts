import type { Act } from '@hot-spline/core';
import type { StepState } from './stand';
import type { PlanStep } from './steps';

/** The state of the metal, in words: for whoever takes over. */
export interface Metal {
  /** Nobody has opened it yet: what is read now is read as it came. */
  readonly asItCame: boolean;
  /** What is off, and not back on. */
  readonly out: readonly string[];
  /** What is done for good: torqued, pressed, crushed, closed. */
  readonly made: readonly string[];
  /** What must not be done yet, by the gate that it waits for. */
  readonly notYet: readonly { readonly gate: 'A' | 'B'; readonly steps: readonly string[] }[];
}

/** What is to be known of the metal once a step has done this; the rest is seen by what is out. */
const MADE: Partial<Record<Act, string>> = {
  'ring-bolts': 'ring bolts torqued',
  'side-bearing-press': 'side bearings pressed',
  'pinion-bearing-final': 'final pinion bearing pressed',
  'gears-on-shaft': 'gears on the box shaft',
  'seal-in': 'pinion seal in',
  crush: 'spacer crushed',
  'support-oring': 'support in for good',
  'locker-rings': 'sealing rings on',
  'carrier-final': 'carrier in, torqued for good',
  'housing-in': 'housing in the axle',
  cover: 'cover on',
  fill: 'oil in',
  'dry-label': 'dry, labelled',
};
const LINES_BACK: PlanStep = 'outside-back';

/** @param steps of the order as worked, with what has been done */
export function metalOf(steps: readonly StepState[]): Metal {
  const out = new Set<string>();
  const made: string[] = [];
  const done = steps.filter(({ status }) => status === 'done');
  for (const { step } of done) {
    for (const { part } of step.returns) out.delete(part);
    for (const { part } of step.takes) out.add(part);
    for (const act of step.acts) if (MADE[act] !== undefined) made.push(MADE[act]);
  }
  const dead = done.some(({ step }) => step.acts.includes('hv-off'));
  if (dead && !done.some(({ step }) => step.id === LINES_BACK)) made.unshift('high voltage off and locked');
  const waiting = (gate: 'A' | 'B') => ({
    gate,
    steps: steps
      .filter(
        ({ status, step, waits }) =>
          status === 'open' && step.behind === gate && waits.some((one) => one.for === 'gate'),
      )
      .map(({ step }) => step.title),
  });
  const opens = steps.find(({ step }) => step.acts.includes('carrier-out'));
  return {
    asItCame: opens !== undefined && opens.status === 'open' && !opens.passed,
    out: [...out],
    made,
    notYet: (['A', 'B'] as const).map(waiting).filter(({ steps: of }) => of.length > 0),
  };
}
