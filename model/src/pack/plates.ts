import type { Unit } from '../unit/schema';
import type { PlateSpec } from './schema';

/** The plates that a unit works with, with or without ramps; null where it has none at work, even if some are kept. */
export function platesOf(unit: Unit | undefined): PlateSpec | null {
  return unit?.type === 'plate' || unit?.type === 'side-gear-thrust' ? unit.plate : null;
}
