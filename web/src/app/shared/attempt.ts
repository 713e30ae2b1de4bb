import { computed, type Signal } from '@angular/core';
import { InputError } from '@hot-spline/core';

export interface Attempt<T> {
  /** What was worked out; null while there is nothing to work out, or it was refused. */
  readonly value: Signal<T | null>;
  /** Why it was refused, and what would be allowed. */
  readonly problem: Signal<string | null>;
}

/**
 * A computation whose input the core may refuse with an `InputError`, kept apart into what comes of it and what is
 * wrong with its input. Any other error is ours, and passes.
 */
export function attempt<T>(compute: () => T | null): Attempt<T> {
  const outcome = computed<T | InputError | null>(() => {
    try {
      return compute();
    } catch (error) {
      if (error instanceof InputError) return error;
      throw error;
    }
  });
  return {
    value: computed(() => {
      const out = outcome();
      return out instanceof InputError ? null : out;
    }),
    problem: computed(() => {
      const out = outcome();
      return out instanceof InputError ? `${out.message} Allowed: ${out.allowed}.` : null;
    }),
  };
}
