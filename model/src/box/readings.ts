import { BOX_LIMITS, BOX_SHAFTS } from '@hot-spline/core/page';
import { id } from '../base/fields';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';

const shaft = z.enum(BOX_SHAFTS);
/** Each shim that was tried, from 1 on. */
const attempt = z.string().regex(/^[1-9]\d?$/, 'must be 1 to 99');
/** Each time that it was opened, or run. */
const numbered = z.string().regex(/^[1-9]\d{0,3}$/, 'must be 1 to 9999');

const small = { quantity: 'length', scale: 'small', range: BOX_LIMITS.floatMm } as const;
export const SHAFT_WORDS = { driving: 'driving shaft', driven: 'driven shaft' } as const;

/** What lies in the seat of the shim while the float is read. */
export const boxShim = defineSubject({
  what: 'box-shim',
  keys: { shaft, attempt },
  value: { of: 'number', counts: 'one', ...small, plausible: [0.1, 8] },
  words: ({ shaft: of, attempt: n }) => `Box, ${SHAFT_WORDS[of]}: shim ${n}`,
});

/** End float: seated to one end, zeroed, drawn to the other; all repeats in one. */
export const boxFloat = defineSubject({
  what: 'box-float',
  keys: { shaft, attempt },
  value: { of: 'number', counts: 'mean', ...small, plausible: [0, 1.5] },
  words: ({ shaft: of, attempt: n }) => `Box, ${SHAFT_WORDS[of]}: end float with shim ${n}`,
});

export const boxApproved = defineSubject({
  what: 'box-approved',
  keys: { shaft, attempt },
  value: { of: 'choice', choices: ['approved'] },
  words: ({ shaft: of, attempt: n }) => `Box, ${SHAFT_WORDS[of]}: end float with shim ${n} approved`,
});

/** One step of putting together or taking apart, by its own name. */
export const boxStep = defineSubject({
  what: 'box-step',
  keys: {
    way: z.enum(['together', 'apart']),
    round: numbered,
    step: z.string().regex(/^[A-Za-z0-9_.-]{1,80}$/, 'must be letters, digits, ., - and _'),
  },
  value: { of: 'choice', choices: ['done'] },
  words: ({ way, step, round }) => `Box ${way}, round ${round}: ${step.replaceAll('.', ', ')}`,
});

export const boxRunOut = defineSubject({
  what: 'box-run-out',
  keys: { shaft, when: z.enum(['before', 'after']) },
  value: { of: 'number', counts: 'one', ...small, plausible: [0, 0.3] },
  words: ({ shaft: of, when }) => `Box, ${SHAFT_WORDS[of]}: run-out at the bearing seats, ${when} the nut`,
});

/** Hours that the box has run, each time out. */
export const boxHours = defineSubject({
  what: 'box-run',
  keys: { run: numbered },
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'time',
    range: { above: 0, max: 360_000, unit: 's' },
    plausible: [60, 36_000],
  },
  words: ({ run }) => `Box: run ${run}, time under load`,
});

/** A pair, or a piece that wears, that went in new: its hours begin. */
export const boxNew = defineSubject({
  what: 'box-new',
  keys: { pair: id },
  value: { of: 'choice', choices: ['new'] },
  words: ({ pair }) => `Box: ${pair} in new`,
});

export const SYNCHRO_PARTS = ['ring', 'blocks', 'bands', 'clip'] as const;
export const SYNCHRO_STATES = ['good', 'new', 'worn', 'borrowed'] as const;
export const synchroPart = defineSubject({
  what: 'synchro-part',
  keys: { pair: id, part: z.enum(SYNCHRO_PARTS) },
  value: { of: 'choice', choices: SYNCHRO_STATES },
  words: ({ pair, part }) => `Box, synchro of ${pair}: ${part}`,
});

export const DRAGS = ['firm', 'weak', 'none'] as const;
export const synchroDrag = defineSubject({
  what: 'synchro-drag',
  keys: { pair: id },
  value: { of: 'choice', choices: DRAGS },
  words: ({ pair }) => `Box, synchro of ${pair}: drag of the ring`,
});

/** At the radius of the ring. */
export const hubPlay = defineSubject({
  what: 'hub-play',
  keys: { hub: id },
  value: { of: 'number', counts: 'mean', ...small, plausible: [0, 1] },
  words: ({ hub }) => `Box: play of hub ${hub} on its spline`,
});

/** How many came out of a place, or went in again, in a round. */
export const placeCount = defineSubject({
  what: 'box-count',
  keys: { round: numbered, place: id, way: z.enum(['out', 'in']) },
  value: { of: 'number', counts: 'one', quantity: 'count', range: { min: 0, max: 99 }, plausible: [0, 99] },
  words: ({ place, way, round }) => `Unit, round ${round}: counted ${way} of ${place}`,
});

export const boxSubjects = [
  boxShim,
  boxFloat,
  boxApproved,
  boxStep,
  boxRunOut,
  boxHours,
  boxNew,
  synchroPart,
  synchroDrag,
  hubPlay,
  placeCount,
] as const;
