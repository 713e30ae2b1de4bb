import type { WebCapability } from '../shared/descriptor';
import { CLOSE_TABS } from './tabs';

export const runin: WebCapability = {
  name: 'runin',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'close',
      name: 'Close, run in',
      group: 'Bench',
      key: 'cl',
      tabs: CLOSE_TABS,
      load: () => import('./close-sheet').then((m) => m.CloseSheet),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
