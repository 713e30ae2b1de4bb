import type { WebCapability } from '../shared/descriptor';

export const papers: WebCapability = {
  name: 'papers',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'papers',
      name: 'Papers',
      group: 'Kept',
      key: 'pp',
      tabs: [],
      load: () => import('./papers-sheet').then((m) => m.PapersSheet),
    },
  ],
  stations: [],
};
