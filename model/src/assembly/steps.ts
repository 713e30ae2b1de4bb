import type { Facts, Operation, StepRun } from '@hot-spline/core';
import type { StepIdOf } from '../frame/capability';
import { allWork, neededParts as neededOf, type AllWork, type NeededPart, type Part, type Work } from '../frame/work';
import { capabilities } from './capabilities';

type Works = Extract<(typeof capabilities)[number]['work'], Work>;
/** A step of the order of work, by its id: what is written to it and asked of it names it by this type. */
export type StepId = StepIdOf<Works>;

/** Steps that a step names, or that a run stands behind. */
type Names<W> = W extends { readonly steps: readonly (infer R)[] }
  ? R extends StepRun<string, infer Ref> & { readonly behind: infer Behind }
    ? Ref | NonNullable<Behind>
    : never
  : never;
type Unknown = Exclude<Names<Works>, StepId>;
/** Asks for one more argument, the step by its name, where some step names one that none brings: then this file does not compile. */
const complete = (work: AllWork, ..._missing: [Unknown] extends [never] ? [] : [missing: Unknown]): AllWork => work;

const { recipes, parts, order } = complete(allWork(capabilities.map(({ work }: { readonly work?: Work }) => work)));
export const STEP_IDS = [...new Set(recipes.map(({ id }) => id))] as readonly StepId[];

/** The order of work of a job (see `orderFrom`). */
export const orderOfWork = (facts: Facts): readonly Operation[] => order(facts);
/** What an order of work needs in the house before it is begun. */
export const neededParts = (steps: readonly Operation[]): readonly NeededPart[] => neededOf(steps, parts);
/** A part by its id; null for one of the shop's own. */
export const partOf = (id: string): Part | null => parts[id] ?? null;
