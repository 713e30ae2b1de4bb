import type { ValueKind } from '@hot-spline/model';

/** How a number is read and shown, as its subject says it. */
export function numberKind(kind: ValueKind): Extract<ValueKind, { of: 'number' }> {
  if (kind.of !== 'number') throw new Error(`${kind.of} is no number`);
  return kind;
}
