import type { WebCapability } from '../shared/descriptor';

export const shaft: WebCapability = {
  name: 'shaft',
  fields: () => import('./fields').then((m) => m.FIELDS),
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
