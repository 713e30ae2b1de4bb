import type { Asked } from './acts';
import { caseOf, type Case, type Facts } from './facts';
import { undrawn } from './drawing';
import { BLANK_STEP, type Operation, type Recipe } from './operation';

/** The moments of a job, in an order that works: each capability puts its steps into them. */
export const MOMENTS = [
  'hazards',
  'decide',
  'get-in',
  'unit',
  'box',
  'carrier',
  'carrier-bearings',
  'case',
  // A pinion that is finished before the carrier is tried.
  'pinion-first',
  'loop',
  'final',
  // A box whose shaft is the pinion.
  'own-box',
  // Side bearings with the shims under them.
  'inboard-bearings',
  'locker-rings',
  'final-close',
  'box-close',
  'close',
] as const;
export type Moment = (typeof MOMENTS)[number];

/** Steps that stand together: at the end of a moment, or in it behind a step, whoever brings that. */
export interface StepRun<Id extends string = string, Ref extends string = string> {
  readonly moment: Moment;
  readonly behind: Ref | null;
  readonly steps: readonly Recipe<Id, Ref>[];
}

/**
 * Every recipe in the order that their runs give. Runs behind the same step follow each other as they are listed.
 * @throws RangeError naming the step that a run stands behind, where its moment has none
 */
export function recipesOf(runs: readonly StepRun[]): readonly Recipe[] {
  return MOMENTS.flatMap((moment) => {
    const own = runs.filter((run) => run.moment === moment);
    const list = own.filter(({ behind }) => behind === null).flatMap(({ steps }) => steps);
    let left = own.filter(({ behind }) => behind !== null);
    while (left.length > 0) {
      const placed = left.filter(({ behind }) => list.some(({ id }) => id === behind));
      if (placed.length === 0)
        throw new RangeError(`${moment} has no step ${left.map(({ behind }) => behind).join(', ')} to stand behind`);
      for (const behind of new Set(placed.map((run) => run.behind))) {
        const steps = placed.filter((run) => run.behind === behind).flatMap((run) => run.steps);
        list.splice(list.findLastIndex(({ id }) => id === behind) + 1, 0, ...steps);
      }
      left = left.filter((run) => !placed.includes(run));
    }
    return list;
  });
}

/**
 * The order of work: only the steps that a job has, each before what closes it (common practice, no published source).
 * Not counted: what a maker's sheet adds for one axle; the shop puts that in as steps of its own.
 * @param recipes every step that there is, in an order that works
 * @throws InputError naming the fact that does not go with the others (see `caseOf`)
 */
export function orderFrom(recipes: readonly Recipe[], facts: Facts): readonly Operation[] {
  const known = caseOf(facts);
  const steps = recipes.map(({ make }) => make(known)).filter((step) => step !== null);
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
  ...BLANK_STEP,
  id,
  phase,
  title,
  does: does === '' ? [] : [does],
  drawing: undrawn('A step of the shop’s own.'),
  pass: '',
  minutes,
});
