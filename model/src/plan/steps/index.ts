import type { StepIdOf } from '../../frame/capability';
import { afterSteps } from './after';
import { beforeSteps } from './before';
import { benchSteps } from './bench';
import { boxWork } from './box';

/** The job round the axle: what no sheet of its own measures. */
export const planSteps = [...beforeSteps, ...benchSteps, ...boxWork, ...afterSteps] as const;

/** A step that the plan itself brings. */
export type PlanStep = StepIdOf<{ readonly steps: typeof planSteps }>;

/** What its steps buy. */
export const planParts = {
  'locker-kit': { name: 'Line, fitting, solenoid, switch', count: 1, mind: 'What is in the kit, by its list.' },
  sealant: { name: 'Gasket or sealant', count: 1, mind: 'Which thickness is in the kit?' },
  oil: { name: 'Oil', count: 1, mind: 'Grade and volume by the sheet; run-in oil if its maker asks.' },
  additive: { name: 'Friction additive', count: 1, mind: 'As much as the unit’s maker says.' },
  'spare-unit': {
    name: 'Spare unit, on the shelf',
    count: 1,
    mind: 'Where a fault would end the event, and the next one is far away.',
  },
} as const;
