import type { Operation } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import { sheetField, type SheetKey } from '../library/sheet';
import type { StepNumber } from '../frame/work';

type Told = NonNullable<NonNullable<Axle['identity']>['sheet'][SheetKey]>['value'];
function typedOf(value: Told): string {
  if (typeof value !== 'object') return String(value);
  return 'typed' in value ? value.typed : `${value.low.typed} to ${value.high.typed}`;
}

/** Values of the spec sheet that a step asks for, is held against, or is worked by. */
export function sheetNumbers(name: AxleName, step: Operation, { identity }: Axle): readonly StepNumber[] {
  const ofRecords = step.records.flatMap((record) =>
    record.of === 'number' && record.sheet !== undefined ? [record.sheet] : [],
  );
  return [...new Set([...step.asks, ...ofRecords, ...step.shows])].map((id): StepNumber => {
    const key = id as SheetKey;
    const told = identity?.sheet[key] ?? null;
    return {
      label: sheetField(key).label,
      typed: told === null ? null : typedOf(told.value),
      mm: null,
      where: told === null ? '' : [told.origin.replace('-', ' '), told.where].filter(Boolean).join(', '),
      place: { sheet: 'baseline', tab: 'sheet', field: `sheet-${key}-${name}` },
    };
  });
}
