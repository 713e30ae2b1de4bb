import { LIMITS } from '@hot-spline/core/page';
import { AXLES, SIDES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';

const small = { of: 'number', counts: 'least', quantity: 'length', scale: 'small', range: LIMITS.thicknessMm } as const;

/** Between side gear and spider gears, felt at the side gear. */
export const sideGearBacklash = defineSubject({
  what: 'side-gear-backlash',
  keys: { axle: z.enum(AXLES), side: z.enum(SIDES) },
  value: { ...small, plausible: [0.01, 1] },
  words: ({ axle, side }) => `${capital(axle)}, ${side}: side-gear backlash`,
});

/** Of a friction insert between the side gears: what is left free. */
export const insertFit = defineSubject({
  what: 'insert-fit',
  keys: { axle: z.enum(AXLES) },
  value: { ...small, plausible: [0.01, 1] },
  words: ({ axle }) => `${capital(axle)}: fit of the friction insert`,
});

export const unitSubjects = [sideGearBacklash, insertFit] as const;
