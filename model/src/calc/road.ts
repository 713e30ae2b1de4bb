import { rankCalculation } from './road-rank';
import { runCalculation } from './road-run';
import { searchCalculation } from './road-search';

/** The calculations of the road. */
export const roadCalculations = [runCalculation, searchCalculation, rankCalculation];
