import type { WebCapability } from '../shared/descriptor';

export const summary: WebCapability = {
  name: 'summary',
  sheets: [
    {
      sheet: 'summary',
      name: 'Summary',
      group: 'Kept',
      key: 'su',
      tabs: [],
      load: () => import('./summary-sheet').then((m) => m.SummarySheet),
    },
  ],
  stations: [],
};
