import { entryOf } from '@hot-spline/core/page';
import type { Schools } from '../library/schools';
import { newPlateSpec } from '../pack/new-plates';
import { UNIT_PARTS, type Unit } from './schema';

/** An open differential, and nothing said of any other type. */
export function openUnit(): Unit {
  return { type: 'open', plate: null, sideGear: null, cone: null, helical: null, insert: null, engaged: true };
}

/** Ordinary parts of every type: round figures of ours, to be replaced by the maker's. */
export const ORDINARY = {
  sideGear: (): NonNullable<Unit['sideGear']> => ({
    meanRadius: entryOf(30, 'mm'),
    pressureAngle: entryOf(22.5, '°'),
    coneAngle: entryOf(55, '°'),
  }),
  cone: (): NonNullable<Unit['cone']> => ({
    frictionCoefficient: entryOf(0.12, ''),
    meanRadius: entryOf(40, 'mm'),
    halfAngle: entryOf(9, '°'),
    preload: entryOf(1200, 'N'),
  }),
  helical: (): NonNullable<Unit['helical']> => ({
    biasRatio: entryOf(2.7, ''),
    preload: entryOf(0, 'N·m'),
    platesFrom: entryOf(600, 'N·m'),
    platesHold: entryOf(30, '%'),
  }),
  insert: (): NonNullable<Unit['insert']> => ({ lock: entryOf(120, 'N·m') }),
} as const;

/**
 * The unit as one of another type: its parts as they were, or ordinary ones.
 * @param schools of the shop, for plates that are new
 */
export function unitAs(unit: Unit, type: Unit['type'], schools?: Schools): Unit {
  const ordinary = { ...ORDINARY, plate: () => newPlateSpec(schools) };
  const needed = UNIT_PARTS[type].map((part) => [part, unit[part] ?? ordinary[part]()]);
  return { ...unit, type, ...(Object.fromEntries(needed) as Partial<Unit>) };
}
