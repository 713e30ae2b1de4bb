import { say, entryBase, type UnitSystem } from '@hot-spline/core';
import type { LibrarySpec } from '@hot-spline/model';
import type { LabelKind } from '../papers/label-maker';
import type { LabelOf } from '../papers/label-sheet';
import { SEAT_OPTIONS } from './words';

type Drawer = Extract<LibrarySpec, { kind: 'shims' }>;
interface Kept<S> {
  readonly id: string;
  readonly spec: S;
}

const seatOf = ({ seat }: Drawer): string => SEAT_OPTIONS.find(({ value }) => value === seat)?.label ?? seat;

/** What every label of a drawer says: which seat, which bore and outside. */
function sizesOf(drawer: Drawer, system: UnitSystem): string[] {
  const { bore, outside } = drawer;
  const of = [
    bore && `bore ${say(entryBase(bore), 'length', system)}`,
    outside && `outside ${say(entryBase(outside), 'length', system)}`,
  ];
  const sizes = of.filter((one) => one !== null).join(', ');
  return [seatOf(drawer), ...(sizes === '' ? [] : [sizes])];
}

const drawerLabel = ({ id, spec }: Kept<Drawer>, origin: string, system: UnitSystem): LabelOf => ({
  title: spec.name,
  facts: sizesOf(spec, system),
  code: `${origin}/library?spec=${id}`,
});

/** Labels for a drawer, for what lies in it, and for all drawers. @param origin where the shop is reached */
export function drawerLabels(
  drawer: Kept<Drawer>,
  all: readonly Kept<LibrarySpec>[],
  origin: string,
  system: UnitSystem,
): readonly LabelKind[] {
  const { id, spec } = drawer;
  const pieces = spec.pieces.map(({ thickness }): LabelOf => ({
    title: thickness.typed,
    facts: [spec.name, ...sizesOf(spec, system)],
    code: `${origin}/library?spec=${id}&piece=${encodeURIComponent(thickness.typed)}`,
  }));
  const drawers = all.flatMap((one) =>
    one.spec.kind === 'shims' ? [drawerLabel({ id: one.id, spec: one.spec }, origin, system)] : [],
  );
  return [
    { id: 'drawer', name: 'This drawer', labels: [drawerLabel(drawer, origin, system)] },
    { id: 'shims', name: 'Its shims', labels: pieces },
    { id: 'drawers', name: 'All drawers', labels: drawers },
  ];
}
