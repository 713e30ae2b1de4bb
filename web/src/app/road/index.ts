import type { WebCapability } from '../shared/descriptor';
import { SETS_TABS } from './tabs';

export const road: WebCapability = {
  name: 'road',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'road',
      name: 'Run',
      group: 'Specify',
      key: 'ru',
      tabs: [],
      load: () => import('./road-sheet').then((m) => m.RoadSheet),
    },
    {
      sheet: 'sets',
      name: 'Gear sets',
      group: 'Specify',
      key: 'ge',
      tabs: SETS_TABS,
      load: () => import('./sets-sheet').then((m) => m.SetsSheet),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
