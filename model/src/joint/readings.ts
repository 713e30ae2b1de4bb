import { AXLES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';

const axle = z.enum(AXLES);
/** 1, 2, 3: stages in their order; `again`: the second round at the final torque; `marks`: witness marks. */
const stage = z.string().regex(/^([1-5]|again|marks)$/, 'must be 1 to 5, again or marks');

/** Which bolts of the ring have been drawn up in a round, by their number; the state says to what, and with what. */
export const ringBolts = defineSubject({
  what: 'ring-bolts',
  keys: { axle, stage },
  value: { of: 'ticks' },
  state: z.strictObject({ torque: z.string().max(40), bolts: z.string().max(4) }),
  words: ({ axle: on, stage: at }) =>
    `${capital(on)}: ring bolts, ${at === 'again' ? 'second round' : at === 'marks' ? 'witness marks' : `stage ${at}`}`,
});

/** When the compound was opened and when the last bolt was done: a half-tight joint that sets is begun again. */
export const compoundOpen = defineSubject({
  what: 'compound-open',
  keys: { axle },
  value: { of: 'choice', choices: ['opened', 'finished', 'cleaned'] },
  words: ({ axle: on }) => `${capital(on)}: threadlocker on the ring bolts`,
});

export const jointSubjects = [ringBolts, compoundOpen];
