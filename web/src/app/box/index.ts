import type { WebCapability } from '../shared/descriptor';
import { BOX_TABS } from './tabs';

export const box: WebCapability = {
  name: 'box',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'box',
      name: 'Box',
      group: 'Specify',
      key: 'bx',
      tabs: BOX_TABS,
      shows: ({ box: inside, gearbox }) => inside !== null || gearbox.kind !== 'automatic',
      load: () => import('./box-sheet').then((m) => m.BoxSheet),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
