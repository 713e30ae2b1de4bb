import {
  BLANK_STEP,
  type AgreesWith,
  type Case,
  type Moment,
  type Operation,
  type Phase,
  type Recipe,
  type Scale,
  type StepRecord,
} from '@hot-spline/core';
import type { ToolId } from './tools';

export type { Piece } from '@hot-spline/core';

interface Given<Ref extends string>
  extends
    Pick<Operation, 'title' | 'does' | 'pass' | 'minutes' | 'drawing'>,
    Partial<
      Omit<
        Operation,
        'id' | 'phase' | 'title' | 'does' | 'pass' | 'minutes' | 'drawing' | 'after' | 'closedBy' | 'tools'
      >
    > {
  readonly after?: readonly Ref[];
  readonly closedBy?: Ref | null;
  readonly tools?: readonly ToolId[];
}

/** A step of the cases that `when` picks; the compiler knows its id, and the steps that it names. */
export function operation<const Id extends string, const Ref extends string = never>(
  phase: Phase,
  id: Id,
  when: (c: Case) => boolean,
  given: Given<Ref> | ((c: Case) => Given<Ref>),
): Recipe<Id, Ref> {
  return {
    id,
    phase,
    make: (c) => (when(c) ? { ...BLANK_STEP, id, phase, ...(typeof given === 'function' ? given(c) : given) } : null),
  };
}

/** Steps that stand together: at the end of a moment of the job, or in it behind a step, whoever brings that. */
export const run = <const Steps extends readonly Recipe[], const Behind extends string = never>(
  moment: Moment,
  steps: Steps,
  behind: Behind | null = null,
) => ({ moment, steps, behind });

export const always = (): boolean => true;
export const length = (
  id: string,
  label: string,
  scale: Scale,
  pass?: { readonly atLeast?: number; readonly atMost?: number; readonly from: string },
): StepRecord => ({
  id,
  label,
  of: 'number',
  quantity: 'length',
  scale,
  range: { min: 0, max: 5000, unit: 'mm' },
  ...(pass ? { pass } : {}),
});

export const torque = (id: string, label: string, sheet?: string): StepRecord => ({
  id,
  label,
  of: 'number',
  quantity: 'torque',
  scale: 'bolt',
  range: { min: 0, max: 5000, unit: 'N·m' },
  ...(sheet === undefined ? {} : { sheet }),
});

export const count = (id: string, label: string, agrees?: AgreesWith): StepRecord => ({
  ...(agrees === undefined ? {} : { agrees }),
  id,
  label,
  of: 'number',
  quantity: 'count',
  range: { min: 0, max: 1000, integer: true },
});

export const text = (id: string, label: string): StepRecord => ({ id, label, of: 'text' });

export const choice = (
  id: string,
  label: string,
  choices: readonly string[],
  stops: readonly string[],
): StepRecord => ({
  id,
  label,
  of: 'choice',
  choices,
  stops,
});

export const yes = (id: string, label: string): StepRecord => choice(id, label, ['yes', 'no'], ['no']);

/** A record with a remedy of its own. */
export const remedied = (record: StepRecord, fails: string): StepRecord =>
  record.of === 'text' ? record : { ...record, fails };

/** What opens the case for a carrier under preload. */
export const spreading = ({ spread }: Case): readonly ToolId[] =>
  ({ spreader: ['spreader'], lever: ['soft-lever'], none: [] } as const)[spread];

/** What the parts of a job are called. */
export const PHASE_WORDS: Readonly<Record<Phase, string>> = {
  decide: 'Decide',
  in: 'Get in',
  unit: 'The unit',
  carrier: 'Ring and carrier',
  case: 'The case',
  loop: 'Set-up loop',
  final: 'Final assembly',
  box: 'Boxes',
  close: 'Close, run, hand over',
};
