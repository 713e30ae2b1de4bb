import type { Operation } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Finding } from '../frame/finding';

/** Whether a finding is about what a step works on: what it writes down, or the sheet that it is read or chosen on. */
export function concerns(
  { id, records, place: worked }: Pick<Operation, 'id' | 'records' | 'place'>,
  axle: AxleName,
  { place }: Pick<Finding, 'place'>,
): boolean {
  if (place.axle !== undefined && place.axle !== axle) return false;
  if (place.sheet === 'work')
    return [`step-${id}`, ...records.map((one) => `record-${id}-${one.id}`)].some(
      (field) => place.field === `${field}-${axle}`,
    );
  if (worked === null || worked.sheet !== place.sheet) return false;
  if (worked.fields && !worked.fields.some((field) => place.field.startsWith(field))) return false;
  return worked.tab === undefined || place.tab === undefined || worked.tab === place.tab;
}
