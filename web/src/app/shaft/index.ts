import type { WebCapability } from '../shared/descriptor';

export const shaft: WebCapability = {
  name: 'shaft',
  sheets: [
    {
      sheet: 'shafts',
      name: 'Shafts',
      group: 'Bench',
      key: 'sh',
      tabs: [{ tab: 'shafts', label: 'Shafts' }],
      load: () => import('./shafts-sheet').then((m) => m.ShaftsSheet),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
