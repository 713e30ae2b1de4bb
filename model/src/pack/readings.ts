import { HOLDS, LIMITS } from '@hot-spline/core/page';
import { AXLES, SIDES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';
import { HOLD_WORDS } from './words';

const axle = z.enum(AXLES);
const side = z.enum(SIDES);
const memberId = z.string().min(1).max(64);

/** Readings of a stack are of plates, shims and rings. */
const plate = { of: 'number', quantity: 'length', scale: 'plate', range: LIMITS.thicknessMm } as const;

/** Measured thickness of one piece; of several readings the least counts, a piece is as thick as where it is thinnest. */
export const thickness = defineSubject({
  what: 'thickness',
  keys: { axle, side, memberId },
  value: { ...plate, counts: 'least', plausible: [0.05, 40] },
  words: ({ axle: on, side: at, memberId: id }, build) => {
    const members = build.axles[on]?.unit.plate?.packs[at].members ?? [];
    const place = members.findIndex((member) => member.id === id);
    const piece = place < 0 ? 'a piece no longer in the pack' : `${place + 1} ${members[place]?.label}`;
    return `${capital(on)}, ${at} pack: ${piece}`;
  },
});

export const stackHeight = defineSubject({
  what: 'stack-height',
  keys: { axle, side },
  /** The pieces that were in the stack: the reading holds for no other stack. */
  about: { memberIds: z.array(memberId).min(1).max(LIMITS.packMembers.max) },
  value: { ...plate, counts: 'least', plausible: [1, 90] },
  words: ({ axle: on, side: at }) => `${capital(on)}, ${at} pack: whole stack`,
});

export const caseDepth = defineSubject({
  what: 'case-depth',
  keys: { axle, side },
  value: { ...plate, counts: 'least', plausible: [1, 95] },
  words: ({ axle: on, side: at }) => `${capital(on)}, ${at}: case depth`,
});

/** Mark of the packs that it was read on: once they lie otherwise it says nothing of them. Older readings have none. */
const about = {
  packs: z.string().min(1).max(16).optional(),
};

/** What the torque wrench read; it carries how the axle was held: there is no reading without it. */
export const breakaway = defineSubject({
  what: 'breakaway',
  keys: { axle, hold: z.enum(HOLDS) },
  about,
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'torque',
    scale: 'bolt',
    range: { above: 0, max: 1e5, unit: 'N·m' },
    plausible: [1, 1000],
  },
  words: ({ axle: on, hold }) => `${capital(on)}: breakaway, ${HOLD_WORDS[hold]}`,
});

/** What the torque wrench reads on while it turns: below the breakaway, and another coefficient. */
export const steadyTorque = defineSubject({
  what: 'steady-torque',
  keys: { axle, hold: z.enum(HOLDS) },
  about,
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'torque',
    scale: 'bolt',
    range: { above: 0, max: 1e5, unit: 'N·m' },
    plausible: [1, 1000],
  },
  words: ({ axle: on, hold }) => `${capital(on)}: steady reading, ${HOLD_WORDS[hold]}`,
});

/** What it takes to turn both wheels together, both of them free: drag of everything that turns with them. */
export const turningTorque = defineSubject({
  what: 'turning-torque',
  keys: { axle, at: z.enum(['wheel', 'pinion']) },
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'torque',
    scale: 'turning',
    range: { min: 0, max: 1e4, unit: 'N·m' },
    plausible: [0.05, 60],
  },
  words: ({ axle: on, at }) => `${capital(on)}: turning torque, both wheels free, at the ${at}`,
});

export const packSubjects = [thickness, stackHeight, caseDepth, breakaway, steadyTorque, turningTorque] as const;
