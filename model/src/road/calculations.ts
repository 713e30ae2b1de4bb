import { findCalculation } from './calc-find';
import { heatCalculation } from './calc-heat';
import { runCalculation } from './calc-run';
import { searchCalculation } from './calc-search';

/** The calculations of the road. */
export const roadCalculations = [runCalculation, heatCalculation, findCalculation, searchCalculation];
