import type { AxleName } from '../base/names';
import type { StepState } from './stand';
import type { WorkState } from './work';

/** Ours: from so many jobs on the shop’s own times count; a median of fewer is one job’s luck. */
export const ENOUGH_JOBS = 3;
/**
 * Ours, where a shop has too few set-ups of its own: how often an axle is put together until it is right, by the advisor on made-up
 * axles (`npm run bench -- advisor`): right within 2 / 3 / 4 in about 64 / 94 / 98 %.
 */
export const USUAL_ROUNDS = 2.4;
/** How many more it takes where the next one is not right. */
export const ROUNDS_AFTER_A_MISS = USUAL_ROUNDS - 1;

/** How long the work on an axle took, as it was written down. */
export interface JobTimes {
  readonly axle: AxleName;
  readonly job: string;
  /** Minutes with hands on it, by step. */
  readonly steps: Readonly<Record<string, number>>;
  /** How often it was put together before it was right; 0 while it is not handed over. */
  readonly rounds: number;
  /** Days from the first step to the hand-over, both counted; null while it is not handed over. */
  readonly days: number | null;
}

/** What can be promised of the work that is left. */
export interface Promised {
  /** Minutes with hands on it, the loop counted as often as it is expected. */
  readonly handsOnMinutes: number;
  /** The same with each step at its quicker and its slower quarter, where the shop has times of its own. */
  readonly fromMinutes: number;
  readonly toMinutes: number;
  /** How often it will be put together yet; null where this job has no loop, or it is behind. */
  readonly rounds: number | null;
  /** Hours in which nobody has to stand there. */
  readonly waitsHours: number;
  /** Days from first step to hand-over of the shop’s own jobs of this kind; null with fewer than three. */
  readonly days: { readonly median: number; readonly jobs: number } | null;
  /** Of the steps that are left, how many go by the shop’s own times. */
  readonly ownSteps: number;
  readonly steps: number;
}

/** A value in the order of values, straight between neighbours; of an empty list NaN. @param share 0 the least, 1 the most */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  const at = share * (sorted.length - 1);
  const [low, high] = [sorted[Math.floor(at)] ?? Number.NaN, sorted[Math.ceil(at)] ?? Number.NaN];
  return low + (at - Math.floor(at)) * (high - low);
}

/** How often it is put together yet. @param chance that the next one is right, 0 to 1; null: not known */
export function roundsLeft(chance: number | null, past: readonly JobTimes[]): number {
  if (chance !== null) return 1 + (1 - chance) * ROUNDS_AFTER_A_MISS;
  const own = past.map(({ rounds }) => rounds).filter((rounds) => rounds > 0);
  return own.length >= ENOUGH_JOBS ? own.reduce((sum, one) => sum + one, 0) / own.length : USUAL_ROUNDS;
}

const leftOf = ({ steps }: WorkState): readonly StepState[] =>
  steps.filter(({ status, passed }) => (status === 'open' || status === 'failed') && !passed);

/**
 * What is left of a job in hours, by the shop’s own times where it has enough of a step, else by the plan’s guess.
 * @param past what the shop’s other jobs took
 * @param chance that the next assembly is right, 0 to 1, by the advisor; null: nothing was read that it could tell from
 */
export function promiseOf(work: WorkState, past: readonly JobTimes[], chance: number | null): Promised {
  const left = leftOf(work);
  const looped = left.some(({ step }) => step.eachRound);
  const rounds = looped ? roundsLeft(chance, past) : null;
  let [handsOn, from, to, ownSteps, waits] = [0, 0, 0, 0, 0];
  for (const { step } of left) {
    const own = past.flatMap(({ steps }) => (step.id in steps ? [steps[step.id] ?? 0] : []));
    const known = own.length >= ENOUGH_JOBS;
    const times = step.eachRound ? (rounds ?? 1) : 1;
    ownSteps += known ? 1 : 0;
    // What a step took was written when it was done, with every round that it took.
    handsOn += known ? quantile(own, 0.5) : times * step.minutes;
    from += known ? quantile(own, 0.25) : times * step.minutes;
    to += known ? quantile(own, 0.75) : times * step.minutes;
    waits += step.waitsHours;
  }
  const days = past.flatMap(({ job, days: took }) => (job === work.work.job && took !== null ? [took] : []));
  return {
    handsOnMinutes: handsOn,
    fromMinutes: from,
    toMinutes: to,
    rounds,
    waitsHours: waits,
    days: days.length >= ENOUGH_JOBS ? { median: quantile(days, 0.5), jobs: days.length } : null,
    ownSteps,
    steps: left.length,
  };
}
