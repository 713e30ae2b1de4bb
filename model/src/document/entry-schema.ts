import {
  InputError,
  UNITS,
  describeRange,
  entryBase,
  parseEntry,
  type Entry,
  type NumberRange,
  type Quantity,
  type UnitName,
} from '@hot-spline/core';
import '../zod';
import * as z from 'zod';

const unitNames: UnitName[] = [...(Object.keys(UNITS) as Exclude<UnitName, ''>[]), ''];

/** Whether the typed text, as it stands or with the unit that it was read in, says the value. */
function says(entry: Entry, quantity: Quantity, range: NumberRange): boolean {
  const withUnit = entry.unit === '' ? entry.typed : `${entry.typed} ${entry.unit}`;
  return [entry.typed, withUnit].some((text) => {
    try {
      const { entry: again } = parseEntry(text, { field: 'typed', quantity, system: 'metric', range });
      return again.value === entry.value && again.unit === entry.unit;
    } catch (error) {
      if (error instanceof InputError) return false;
      throw error;
    }
  });
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
      } else if (!says(entry, quantity, { min: -1e300, max: 1e300 })) {
        context.addIssue({
          code: 'custom',
          path: ['typed'],
          message: `“${entry.typed}” does not say ${entry.value} ${entry.unit}`,
        });
      }
    })
    .describe(`A ${quantity}, ${describeRange(range)}; text, number and unit as typed.`);
}
