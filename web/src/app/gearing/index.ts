import { gearingFigures, pointFigures } from '@hot-spline/model/document';
import type { WebCapability } from '../shared/descriptor';
import { GEARING_TABS } from './tabs';

export const gearing: WebCapability = {
  name: 'gearing',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'gearing',
      name: 'Tyre and ratio',
      group: 'Specify',
      key: 'ty',
      tabs: GEARING_TABS,
      lands: () => true,
      load: () => import('./gearing-sheet').then((m) => m.GearingSheet),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [
    {
      kind: 'final',
      sheet: 'gearing',
      show({ build, derived: { main }, number }) {
        const own = build.axles[main];
        return {
          name: build.engine.kind === 'electric' ? 'Final stage' : 'Final drive',
          main: number(gearingFigures.final(main)).toFixed(3),
          sub: `${own?.finalDrive.ring ?? '–'} / ${own?.finalDrive.pinion ?? '–'} teeth`,
        };
      },
    },
    {
      kind: 'tyres',
      sheet: 'gearing',
      show: ({ build, derived: { main }, figure }) => ({
        name: 'Tyres',
        main: figure(pointFigures.speed()),
        sub: build.axles[main]?.tyre.designation ?? '–',
      }),
    },
  ],
};
