import type { WebCapability } from '../shared/descriptor';
import { BRIEF_TABS } from './tabs';

export const identity: WebCapability = {
  name: 'identity',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'brief',
      name: 'Brief and axle',
      group: 'Specify',
      key: 'br',
      tabs: BRIEF_TABS,
      load: () => import('./brief-sheet').then((m) => m.BriefSheet),
    },
  ],
  stations: [],
};
