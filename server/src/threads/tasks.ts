import { HEAVY, type HeavyContext } from '@hot-spline/model';

/** What runs on threads, by its name: it takes and gives what can be sent to one, and has no database. */
export const TASKS = {
  calculation: HEAVY.calculation.run,
} as const satisfies Readonly<Record<string, (input: never, context: HeavyContext) => unknown>>;

export type TaskName = keyof typeof TASKS;
export type TaskInput<N extends TaskName> = Parameters<(typeof TASKS)[N]>[0];
