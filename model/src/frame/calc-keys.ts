import type { NumberRange } from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';

/** A number inside one of the core's ranges, so that the JSON Schema says it too. */
export function number(range: NumberRange) {
  const base = range.integer ? z.int() : z.number();
  const low = range.above === undefined ? base.min(range.min ?? -range.max) : base.gt(range.above);
  const whole = low.max(range.max);
  return range.unit === undefined ? whole : whole.meta({ 'x-unit': range.unit });
}

export const out = z.number();

/** Parsed keys as the core takes them: optional ones that were left out are absent, not undefined. */
export function plain<T>(input: unknown): T {
  return JSON.parse(JSON.stringify(input)) as T;
}
