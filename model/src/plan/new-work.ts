import { entryOf, type Job, type UnitKind } from '@hot-spline/core';
import { USUAL_SCHOOLS, type Schools } from '../library/schools';
import type { Work } from './schema';

/** Work to begin with: as the shop does it where practitioners differ; run-in and rechecks of common practice. */
export function newWork(
  job: Job,
  unit: UnitKind,
  schools: Omit<Schools, 'kind' | 'name' | 'ringGearNote'> = USUAL_SCHOOLS,
): Work {
  return {
    job,
    schools: {
      depth: schools.pinionDepth,
      bearings: schools.bearings,
      ringGear: schools.ringGear,
      lockerRings: 'after-dry-trial',
    },
    facts: {},
    skipped: [],
    moves: [],
    own: [],
    hold: null,
    parts: [],
    tools: [],
    complete: { price: null, days: null, hours: null },
    trays: [],
    cuts: [],
    runIn: {
      school: unit === 'plate' ? 'short-trips' : 'heat-cycles',
      alarm: entryOf(110, '°C'),
      distance: entryOf(400, 'km'),
      races: 4,
      cycles: 2,
      on: null,
    },
  };
}
