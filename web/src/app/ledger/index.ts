import type { WebCapability } from '../shared/descriptor';

export const ledger: WebCapability = {
  name: 'ledger',
  sheets: [
    {
      sheet: 'ledger',
      name: 'Ledger',
      group: 'Kept',
      key: 'le',
      tabs: [],
      load: () => import('./ledger-sheet').then((m) => m.LedgerSheet),
      counts: 'ledger',
    },
  ],
  stations: [],
};
