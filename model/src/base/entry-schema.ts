import {
  UNITS,
  describeRange,
  entryBase,
  entrySays,
  type NumberRange,
  type Quantity,
  type UnitName,
} from '@hot-spline/core/page';
import './zod';
import * as z from 'zod';

const unitNames: UnitName[] = [...(Object.keys(UNITS) as Exclude<UnitName, ''>[]), ''];

/** What an entry is of, for whoever describes it: its quantity, and its range in the base unit. */
export const ENTRY_OF = 'x-entry';
export interface EntryOf {
  readonly quantity: Quantity;
  readonly range: NumberRange;
}

/** An {@link Entry} of one quantity whose value lies in `range` (base unit) and agrees with the typed text. */
export function entrySchema(quantity: Quantity, range: NumberRange) {
  return z
    .strictObject({ typed: z.string().min(1).max(40), value: z.number(), unit: z.enum(unitNames) })
    .superRefine((entry, context) => {
      const unitQuantity = entry.unit === '' ? null : UNITS[entry.unit].quantity;
      if (unitQuantity !== null && unitQuantity !== quantity) {
        context.addIssue({ code: 'custom', path: ['unit'], message: `“${entry.unit}” does not measure ${quantity}` });
        return;
      }
      const base = entryBase(entry);
      const low = range.above ?? range.min ?? -range.max;
      if ((range.above !== undefined ? base <= low : base < low) || base > range.max) {
        context.addIssue({ code: 'custom', path: ['value'], message: `must be ${describeRange(range)}` });
      } else if (!entrySays(entry, quantity)) {
        context.addIssue({
          code: 'custom',
          path: ['typed'],
          message: `“${entry.typed}” does not say ${entry.value} ${entry.unit}`,
        });
      }
    })
    .meta({
      description: `A ${quantity}, ${describeRange(range)}; text, number and unit as typed.`,
      [ENTRY_OF]: { quantity, range },
    });
}
