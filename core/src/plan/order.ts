import { CLOSE } from './after';
import { DECIDE, GET_IN } from './before';
import { CARRIER, CARRIER_BEARINGS, CASE, INBOARD_BEARINGS, UNIT } from './bench';
import type { Operation, Recipe } from './operation';
import { BOX, BOX_CLOSE, FINAL, FINAL_CLOSE, LOOP } from './set-up';
import { caseOf, type Situation } from './situation';

/** Every operation, in an order that works. */
const RECIPES: readonly Recipe[] = [
  ...DECIDE,
  ...GET_IN,
  ...UNIT,
  ...BOX,
  ...CARRIER,
  ...CARRIER_BEARINGS,
  ...CASE,
  ...LOOP,
  ...FINAL,
  ...INBOARD_BEARINGS,
  ...FINAL_CLOSE,
  ...BOX_CLOSE,
  ...CLOSE,
];

/**
 * The order of work: only the steps that a job has, each before what closes it (common practice, no published source).
 * Not counted: what a maker's sheet adds for one axle; the shop puts that in as steps of its own.
 * @throws InputError on `job` where the unit is none that the job puts in
 */
export function orderOfWork(situation: Situation): readonly Operation[] {
  const known = caseOf(situation);
  return RECIPES.map(({ make }) => make(known)).filter((step) => step !== null);
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
  takes: [],
  returns: [],
  hand: null,
  place: null,
  minutes,
  waitsHours: 0,
});
