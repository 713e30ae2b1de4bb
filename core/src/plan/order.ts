import { CLOSE } from './after';
import type { Asked } from './acts';
import { DECIDE, GET_IN, HAZARDS } from './before';
import { CARRIER, CARRIER_BEARINGS, CASE, INBOARD_BEARINGS, LOCKER_RINGS, UNIT } from './bench';
import { caseOf, type Case, type Facts } from './facts';
import type { Operation, Recipe } from './operation';
import { BOX, BOX_CLOSE, FINAL, FINAL_CLOSE, LOOP, OWN_BOX, PINION_FIRST } from './set-up';

/** Every operation, in an order that works: which of two places of a step is its own follows from the facts. */
const RECIPES = [
  ...HAZARDS,
  ...DECIDE,
  ...GET_IN,
  ...UNIT,
  ...BOX,
  ...CARRIER,
  ...CARRIER_BEARINGS,
  ...CASE,
  ...PINION_FIRST,
  ...LOOP,
  ...FINAL,
  ...OWN_BOX,
  ...INBOARD_BEARINGS,
  ...LOCKER_RINGS,
  ...FINAL_CLOSE,
  ...BOX_CLOSE,
  ...CLOSE,
] as const satisfies readonly Recipe[];

/** A step of the plan, by its id: what is written to it and asked of it names it by this type. */
export type StepId = (typeof RECIPES)[number]['id'];
export const STEP_IDS: readonly StepId[] = [...new Set(RECIPES.map(({ id }) => id))];

/**
 * The order of work: only the steps that a job has, each before what closes it (common practice, no published source).
 * Not counted: what a maker's sheet adds for one axle; the shop puts that in as steps of its own.
 * @throws InputError naming the fact that does not go with the others (see `caseOf`)
 */
export function orderOfWork(facts: Facts): readonly Operation[] {
  const known = caseOf(facts);
  const steps = RECIPES.map(({ make }) => make(known)).filter((step) => step !== null);
  if (known.arrives !== 'parts') return steps;
  // What comes in pieces was never taken off here: nothing of it is counted back.
  const out = new Set<string>();
  return steps.map((step) => {
    const returns = step.returns.filter(({ part }) => out.has(part));
    for (const { part } of step.takes) out.add(part);
    return { ...step, returns };
  });
}

/** What each gate asks: for what the job disturbed, and nothing that it leaves alone. Empty: there is no such gate. */
export function gateAsks(facts: Facts): Readonly<Record<'A' | 'B', readonly Asked[]>> {
  const c = caseOf(facts);
  return { A: c.gateA ? asksOfA(c) : [], B: asksOfB(c) };
}

const asksOfA = (c: Case): readonly Asked[] =>
  !c.mesh ? ['float'] : c.depth === 'gauge-decides' && c.depthOpen ? ['backlash', 'depth'] : ['backlash', 'pattern'];

function asksOfB(c: Case): readonly Asked[] {
  const float: readonly Asked[] = c.box === 'input-float' ? ['float'] : [];
  if (!c.opened) return float;
  const ring: readonly Asked[] = c.ringComesOff ? ['ring-bolts'] : [];
  if (!c.mesh) return ['float', ...ring];
  const pinion: readonly Asked[] = c.pinionComesOut ? ['pinion-preload'] : c.dragRead ? ['drag-compared'] : [];
  return [
    'backlash',
    c.newGears || c.arrives === 'parts' ? 'pattern' : 'repeats-before',
    ...pinion,
    ...(c.positionOpen ? (['side-preload'] as const) : []),
    ...ring,
    ...(c.unit === 'locker' ? (['leak'] as const) : []),
    ...float,
  ];
}

/** A step of the shop's own. */
export interface OwnStep {
  readonly id: string;
  /** The step that it follows; null: at the start. */
  readonly follows: string | null;
  readonly title: string;
  readonly does: string;
  readonly minutes: number;
}

/** A step done elsewhere in the order than we would. */
export interface Move {
  readonly step: string;
  /** The step that it follows now; null: at the start. */
  readonly follows: string | null;
}

/**
 * The order as the shop works it: its own steps put in, moves made one after the other. What names a step that the job
 * does not have is left out, so that a change of the job keeps the rest.
 */
export function orderAsWorked(
  steps: readonly Operation[],
  own: readonly OwnStep[],
  moves: readonly Move[],
): readonly Operation[] {
  const put = (list: readonly Operation[], step: Operation, follows: string | null): readonly Operation[] => {
    const at = follows === null ? 0 : list.findIndex(({ id }) => id === follows) + 1;
    // What it followed is not in this job: it comes last, in sight.
    return follows !== null && at === 0 ? [...list, step] : list.toSpliced(at, 0, step);
  };
  let list = steps;
  for (const one of own) {
    const beside = list.find(({ id }) => id === one.follows) ?? list[0];
    list = put(list, ownOperation(one, beside?.phase ?? 'close'), one.follows);
  }
  for (const { step, follows } of moves) {
    const moved = list.find(({ id }) => id === step);
    if (!moved || step === follows) continue;
    list = put(
      list.filter(({ id }) => id !== step),
      moved,
      follows,
    );
  }
  return list;
}

const ownOperation = ({ id, title, does, minutes }: OwnStep, phase: Operation['phase']): Operation => ({
  id,
  phase,
  title,
  does: does === '' ? [] : [does],
  acts: [],
  answers: [],
  tools: [],
  parts: [],
  records: [],
  pass: '',
  fails: '',
  caution: null,
  after: [],
  closedBy: null,
  behind: null,
  gate: null,
  asks: [],
  shows: [],
  takes: [],
  returns: [],
  hand: null,
  place: null,
  minutes,
  waitsHours: 0,
});
