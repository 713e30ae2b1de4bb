import { InputError } from '../base/errors';
import type { Quantity } from '../units/quantities';

/** How far a source can be leaned on; shown beside every figure. */
export type SourceKind = 'standard' | 'trade' | 'exact' | 'guard-band';

export interface Source {
  readonly kind: SourceKind;
  readonly text: string;
  /** Recalled rather than read: said on the screen too. */
  readonly fromMemory?: boolean;
}

export interface WorkingValue {
  readonly label: string;
  readonly value: number | string;
  readonly quantity: Quantity;
}

export interface WorkingInput extends WorkingValue {
  readonly key: string;
}

/** What a figure is most sensitive to: percent change of the result for one percent of the input. */
export interface Sensitivity {
  readonly label: string;
  readonly percentPerPercent: number;
}

/** A figure that explains itself: formula in words, inputs, steps, source and sensitivity. */
export interface Working {
  readonly title: string;
  readonly formula: string;
  readonly inputs: readonly WorkingInput[];
  readonly steps: readonly WorkingValue[];
  readonly result: WorkingValue;
  readonly sources: readonly Source[];
  readonly sensitivity: readonly Sensitivity[];
  readonly note?: string;
}

export interface Explained {
  readonly title: string;
  readonly formula: string;
  readonly inputs: readonly WorkingInput[];
  readonly sources: readonly Source[];
  readonly result: { readonly label: string; readonly quantity: Quantity };
  readonly note?: string;
  /** The calculation itself, over the numeric inputs by key; also returns the intermediate steps. */
  compute(values: Readonly<Record<string, number>>): { value: number; steps?: readonly WorkingValue[] };
}

const STEP = 1e-4;

/** The result beside the present point; undefined where that point is outside what the calculation accepts. */
function nearby(explained: Explained, values: Readonly<Record<string, number>>): number | undefined {
  try {
    return explained.compute(values).value;
  } catch (error) {
    if (error instanceof InputError) return undefined;
    throw error;
  }
}

/**
 * Evaluates `explained` and finds, by central difference (one-sided at the edge of the allowed range), what its result is most sensitive to.
 * Inputs of quantity `count` are whole numbers and are left out of the sensitivity.
 */
export function explain(explained: Explained): Working {
  const values: Record<string, number> = {};
  for (const input of explained.inputs) if (typeof input.value === 'number') values[input.key] = input.value;
  const { value, steps = [] } = explained.compute(values);
  const sensitivity: Sensitivity[] = [];
  for (const input of explained.inputs) {
    const at = values[input.key];
    if (at === undefined || at === 0 || input.quantity === 'count' || value === 0) continue;
    const up = nearby(explained, { ...values, [input.key]: at * (1 + STEP) });
    const down = nearby(explained, { ...values, [input.key]: at * (1 - STEP) });
    if (up === undefined && down === undefined) continue;
    const span = up === undefined || down === undefined ? STEP : 2 * STEP;
    const percentPerPercent = ((up ?? value) - (down ?? value)) / (span * value);
    if (Number.isFinite(percentPerPercent) && Math.abs(percentPerPercent) > 1e-6) {
      sensitivity.push({ label: input.label, percentPerPercent });
    }
  }
  sensitivity.sort((a, b) => Math.abs(b.percentPerPercent) - Math.abs(a.percentPerPercent));
  return {
    title: explained.title,
    formula: explained.formula,
    inputs: explained.inputs,
    steps,
    result: { ...explained.result, value },
    sources: explained.sources,
    sensitivity,
    ...(explained.note === undefined ? {} : { note: explained.note }),
  };
}
