import { runCalculation } from './calc-run';
import { searchCalculation } from './calc-search';

/** The calculations of the road. */
export const roadCalculations = [runCalculation, searchCalculation];
