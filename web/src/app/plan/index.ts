import type { WebCapability } from '../shared/descriptor';

export const plan: WebCapability = {
  name: 'plan',
  sheets: [
    {
      sheet: 'gates',
      name: 'Gates',
      group: 'Set up',
      key: 'g',
      tabs: [{ tab: 'gates', label: 'Gates' }],
      load: () => import('./gates-sheet').then((m) => m.GatesSheet),
    },
  ],
  stations: [],
};
