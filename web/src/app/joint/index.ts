import type { WebCapability } from '../shared/descriptor';
import { hasMesh } from '../mesh/has-mesh';
import { JOINT_TABS } from './tabs';

export const joint: WebCapability = {
  name: 'joint',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'joint',
      name: 'Ring joint',
      group: 'Bench',
      key: 'jo',
      tabs: JOINT_TABS,
      shows: hasMesh,
      load: () => import('./joint-sheet').then((m) => m.JointSheet),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
