import type { WebCapability } from '../shared/descriptor';

export const practice: WebCapability = {
  name: 'practice',
  sheets: [
    {
      sheet: 'practice',
      name: 'Practice',
      group: 'Set up',
      key: 'pr',
      tabs: [{ tab: 'practice', label: 'Practice' }],
      shows: ({ practice: of }) => of !== null,
      load: () => import('./practice-sheet').then((m) => m.PracticeSheet),
    },
  ],
  stations: [],
};
