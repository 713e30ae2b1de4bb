import type { Operation, StepId } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import { sheetField, type SheetKey } from '../library/sheet';
import type { MeshAxle } from '../mesh/axle';

/** A number that a step is worked by, before it is done. */
export interface StepNumber {
  readonly label: string;
  /** As it was typed where it was read; null where nobody has said it, or where it is a length that was measured. */
  readonly typed: string | null;
  /** A length that was measured or approved, mm; null where it is not one. */
  readonly mm: number | null;
  /** Where it stands, or when it was so. */
  readonly where: string;
  /** The field where it is said. */
  readonly place: { readonly sheet: string; readonly tab?: string; readonly field: string };
}

/** What other sheets know of a step’s numbers. */
export type Numbers = Partial<Record<StepId, () => readonly StepNumber[]>>;

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

/** Shims that are in, by place and side, and what backlash was before: each at the steps that are worked by it. */
export function meshNumbers(mesh: MeshAxle | null): Numbers {
  if (!mesh?.now) return {};
  const { now, axle, ringBy } = mesh;
  const where = now.number === 0 ? 'as it came' : `assembly ${now.number}`;
  const shims = (label: string, mm: number): StepNumber => ({
    label,
    typed: null,
    mm,
    where,
    place: { sheet: 'carrier', field: `carrier-${axle}` },
  });
  const pinion = () => [shims('Pinion shim', now.pinionMm)];
  const sides = () =>
    ringBy === 'adjusters' || ringBy === 'none'
      ? []
      : [shims('Left shims', now.leftMm), shims('Right shims', now.rightMm)];
  const before = mesh.came.backlash;
  const read = () => (before ? [{ ...shims('Backlash before, mean', before.round.meanMm), where: 'as it came' }] : []);
  return {
    'pinion-bearing': pinion,
    'cup-home': pinion,
    'support-back': pinion,
    'trial-carrier': () => [...pinion(), ...sides()],
    'carrier-bearings': sides,
    'carrier-final': sides,
    backlash: read,
    'final-readings': read,
  };
}
