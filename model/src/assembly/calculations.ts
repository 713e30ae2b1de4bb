import { Registry } from '../frame/calculations';
import { defineHeavy } from '../frame/heavy';
import { boxCalculations } from '../box/calculations';
import { gearingCalculations } from '../gearing/calculations';
import { jointCalculations } from '../joint/calculations';
import { meshCalculations } from '../mesh/calculations';
import { packCalculations } from '../pack/calculations';
import { heavySure } from '../pack/heavy';
import { planCalculations } from '../plan/calculations';
import { roadCalculations } from '../road/calculations';
import { heavySearch } from '../road/heavy';
import { shaftCalculations } from '../shaft/calculations';
import { orderOfWork } from './steps';
import { unitCalculations } from '../unit/calculations';

/** Every public calculation. They stand apart from the capabilities: scripts call them, a page needs none. */
export const calculations = new Registry([
  ...gearingCalculations,
  ...boxCalculations,
  ...roadCalculations,
  ...packCalculations,
  ...unitCalculations,
  ...meshCalculations,
  ...jointCalculations,
  ...shaftCalculations,
  ...planCalculations(orderOfWork),
]);

/** A public calculation that takes seconds, as one more piece of heavy work. */
const calculation = defineHeavy<
  'calculation',
  { readonly name: string; readonly input: unknown; readonly withWorking: boolean },
  Record<string, unknown>
>({
  name: 'calculation',
  run: ({ name, input, withWorking }, context) => calculations.run(name, input, withWorking, context),
});

/** All heavy work of the model, by its name. */
export const HEAVY = { 'road.search': heavySearch, 'pack.sure': heavySure, calculation } as const;
