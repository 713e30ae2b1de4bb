import { unitFigures, weakestLinks, type Unit } from '@hot-spline/model/document';
import type { WebCapability } from '../shared/descriptor';
import { UNIT_TABS } from './tabs';

const ACTION_WORDS = { 'two-way': '2-way', 'one-and-a-half-way': '1½-way', 'one-way': '1-way' } as const;

/** The types in a word or two, as they fit on the Line. */
const SHORT: Readonly<Record<Unit['type'], string>> = {
  plate: 'Plate',
  'side-gear-thrust': 'Gear thrust',
  cone: 'Cone',
  helical: 'Helical',
  hybrid: 'Hybrid',
  'friction-insert': 'Insert',
  'selectable-locker': 'Locker',
  'automatic-locker': 'Auto-locker',
  spool: 'Spool',
  open: 'Open',
};

function unitText(unit: Unit | undefined): string {
  if (!unit) return '–';
  if (unit.type !== 'plate' || !unit.plate) return SHORT[unit.type];
  return `${ACTION_WORDS[unit.plate.action]} ${unit.plate.driveRamp.value}°`;
}

export const unit: WebCapability = {
  name: 'unit',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'unit',
      name: 'Unit',
      group: 'Specify',
      key: 'un',
      tabs: UNIT_TABS,
      load: () => import('./unit-sheet').then((m) => m.UnitSheet),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [
    {
      kind: 'unit',
      sheet: 'unit',
      show({ build, derived: { main }, figure }) {
        const bias = figure(unitFigures.bias(main, 'drive'));
        return {
          name: 'Unit',
          main: unitText(build.axles[main]?.unit),
          sub: bias === 'locked' ? 'locked' : `bias ${bias}`,
        };
      },
    },
    {
      kind: 'shafts',
      sheet: 'shafts',
      show({ build, derived, figure }) {
        const [weakest] = weakestLinks(build, derived, derived.main);
        return {
          name: 'Shafts',
          main: figure(unitFigures.shaft(), 0),
          // The margin is that of the weakest link, which may be no shaft.
          sub: weakest ? `weakest ×${weakest.margin.toFixed(1)}` : 'most in one',
        };
      },
    },
  ],
};
