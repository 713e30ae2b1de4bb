import { hasMesh } from '../mesh/has-mesh';
import type { WebCapability } from '../shared/descriptor';
import { PRELOAD_TABS } from './tabs';

export const preload: WebCapability = {
  name: 'preload',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'preload',
      name: 'Preload',
      group: 'Set up',
      key: 'pl',
      tabs: PRELOAD_TABS,
      shows: hasMesh,
      load: () => import('./preload-sheet').then((m) => m.PreloadSheet),
      measure: ({ preload: states, mesh, main }) =>
        mesh[main]?.now && states[main] && !states[main].last
          ? { sheet: 'preload', axle: main, field: `pinion-torque-${main}` }
          : null,
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
