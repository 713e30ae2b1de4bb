import type { WebCapability } from '../shared/descriptor';
import { INSPECT_TABS } from './tabs';

export const inspect: WebCapability = {
  name: 'inspect',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'inspect',
      name: 'Inspect',
      group: 'Bench',
      key: 'in',
      tabs: INSPECT_TABS,
      load: () => import('./inspect-sheet').then((m) => m.InspectSheet),
    },
  ],
  stations: [],
};
