import { AXLES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';

export const TURNED = ['prop', 'left', 'right'] as const;
export const TURNED_WORDS = { prop: 'Prop shaft', left: 'Left wheel', right: 'Right wheel' } as const;

/** Turns of the prop shaft and of each wheel meanwhile, while the axle is closed; backward is negative. */
export const ratioTurns = defineSubject({
  what: 'ratio-turns',
  keys: { axle: z.enum(AXLES), of: z.enum(TURNED) },
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'count',
    range: { min: -10_000, max: 10_000 },
    plausible: [-200, 200],
  },
  words: ({ axle, of }) => `${capital(axle)}, closed: turns of the ${TURNED_WORDS[of].toLowerCase()}`,
});

export const identitySubjects = [ratioTurns];
