import type { Situation, UnitKind } from '@hot-spline/core';
import type { Axle } from '../document/schema';
import type { Unit } from '../unit/schema';

/** What a type of unit is to the order of work. */
export const UNIT_KIND: Readonly<Record<Unit['type'], UnitKind>> = {
  plate: 'plate',
  'side-gear-thrust': 'plate',
  cone: 'plain',
  helical: 'geared',
  hybrid: 'geared',
  'friction-insert': 'insert',
  'selectable-locker': 'locker',
  'automatic-locker': 'plain',
  spool: 'plain',
  open: 'plain',
};

/** What decides the steps of an axle: construction, unit and retention as they are said, the usual where nobody has. */
export function situationOf({ work, identity, unit, setup }: Axle): Situation | null {
  if (!work) return null;
  return {
    job: work.job,
    box: work.box,
    ...work.schools,
    construction: identity?.construction.value ?? 'integral-head-shim',
    unit: UNIT_KIND[unit.type],
    retention: identity?.retention?.value ?? 'c-clips',
    spacer: setup?.spacer ?? 'collapsible',
    ringHand: identity?.ringBolts?.value.hand ?? null,
  };
}
