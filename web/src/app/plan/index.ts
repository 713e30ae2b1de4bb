import { AXLES } from '@hot-spline/model/document';
import type { WebCapability } from '../shared/descriptor';
import { PARTS_TABS, WORK_TABS } from './tabs';

export const plan: WebCapability = {
  name: 'plan',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'work',
      name: 'Work',
      group: 'Bench',
      key: 'wo',
      tabs: WORK_TABS,
      // Whoever takes over a build that is at work sees the step in hand.
      lands: ({ work }) => AXLES.some((axle) => work[axle]?.next),
      load: () => import('./work-sheet').then((m) => m.WorkSheet),
    },
    {
      sheet: 'parts',
      name: 'Parts and tools',
      group: 'Bench',
      key: 'pt',
      tabs: PARTS_TABS,
      load: () => import('./parts-sheet').then((m) => m.PartsSheet),
    },
    {
      sheet: 'gates',
      name: 'Gates',
      group: 'Set up',
      key: 'ga',
      tabs: [{ tab: 'gates', label: 'Gates' }],
      load: () => import('./gates-sheet').then((m) => m.GatesSheet),
    },
  ],
  frame: { bar: () => import('./step-bar').then((m) => m.StepBar) },
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
