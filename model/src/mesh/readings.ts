import { MESH_LIMITS, LIMITS } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { idSchema } from '../base/fields';
import { AXLES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';
import { trialSchema } from './schema';

const axle = z.enum(AXLES);
/** 0 is the axle as it came; from 1 on each time that it was put together. */
const assembly = z.string().regex(/^(0|[1-9]\d?)$/, 'must be 0 to 99');
/** Whether it was read while things were tried, or closed for good. */
const stage = z.enum(['trial', 'final']);
export type Stage = z.output<typeof stage>;

const whole = (n: string): string => (n === '0' ? 'as it came' : `assembly ${n}`);
const shown = (n: string, at: Stage): string => `${whole(n)}${at === 'final' ? ', final' : ''}`;

/** What was put together: pinion pack, both sides by shims or by notches. */
export const assembled = defineSubject({
  what: 'assembly',
  keys: { axle, assembly },
  value: { of: 'assembly' },
  words: ({ axle: on, assembly: n }) => `${capital(on)}: ${whole(n)}`,
});

export const backlash = defineSubject({
  what: 'backlash',
  keys: { axle, assembly, stage },
  value: {
    of: 'places',
    from: 1,
    to: 12,
    quantity: 'length',
    scale: 'small',
    range: MESH_LIMITS.backlashMm,
    plausible: [0.02, 1],
  },
  state: trialSchema,
  words: ({ axle: on, assembly: n, stage: at }) => `${capital(on)}, ${shown(n, at)}: backlash round the ring`,
});

export const pattern = defineSubject({
  what: 'pattern',
  keys: { axle, assembly, stage },
  value: { of: 'pattern' },
  state: trialSchema,
  words: ({ axle: on, assembly: n, stage: at }) => `${capital(on)}, ${shown(n, at)}: pattern`,
});

/** The pattern at one of four places round the ring, where it differs: what changes once a turn is the seat, not the depth. */
export const patternAt = defineSubject({
  what: 'pattern-at',
  keys: { axle, assembly, stage, place: z.enum(['1', '2', '3', '4']) },
  value: { of: 'pattern' },
  state: trialSchema,
  words: ({ axle: on, assembly: n, stage: at, place }) =>
    `${capital(on)}, ${shown(n, at)}: pattern at place ${place} of 4 round the ring`,
});

export const patternPhoto = defineSubject({
  what: 'pattern-photo',
  keys: { axle, assembly },
  value: { of: 'photos' },
  words: ({ axle: on, assembly: n }) => `${capital(on)}, ${whole(n)}: photo of the pattern`,
});

export const capsPhoto = defineSubject({
  what: 'caps-photo',
  keys: { axle },
  value: { of: 'photos' },
  words: ({ axle: on }) => `${capital(on)}: photo of the marked caps`,
});

export const sheetPhoto = defineSubject({
  what: 'sheet-photo',
  keys: { axle },
  value: { of: 'photos' },
  words: ({ axle: on }) => `${capital(on)}: photo of the maker’s sheet`,
});

const small = { quantity: 'length', scale: 'small', range: { min: 0, max: 10, unit: 'mm' } } as const;

export const ringRunout = defineSubject({
  what: 'ring-runout',
  keys: { axle },
  value: { of: 'number', counts: 'mean', ...small, plausible: [0, 0.3] },
  words: ({ axle: on }) => `${capital(on)}: run-out of the ring, total indicator reading`,
});

export const caseSpread = defineSubject({
  what: 'case-spread',
  keys: { axle },
  value: { of: 'number', counts: 'one', ...small, plausible: [0, 1] },
  words: ({ axle: on }) => `${capital(on)}: case spread`,
});

/** End float with the shim of an assembly: while it is tried, and with the case bolted up for good. */
export const endFloat = defineSubject({
  what: 'end-float',
  keys: { axle, assembly, stage },
  value: {
    of: 'number',
    counts: 'mean',
    quantity: 'length',
    scale: 'small',
    range: MESH_LIMITS.floatMm,
    plausible: [0, 0.6],
  },
  words: ({ axle: on, assembly: n, stage: at }) => `${capital(on)}, ${shown(n, at)}: end float`,
});

/** A pack of shims measured as one, against the sum of its pieces. */
export const packHeight = defineSubject({
  what: 'pack-height',
  keys: { axle, assembly, seat: z.enum(['pinion', 'left', 'right']) },
  value: {
    of: 'number',
    counts: 'mean',
    quantity: 'length',
    scale: 'plate',
    range: MESH_LIMITS.shimMm,
    plausible: [0.1, 20],
  },
  words: ({ axle: on, assembly: n, seat }) =>
    `${capital(on)}, ${whole(n)}: ${seat === 'pinion' ? 'pinion' : `${seat} side`} pack as one`,
});

const turning = {
  of: 'number',
  counts: 'mean',
  quantity: 'torque',
  scale: 'turning',
  range: { min: 0, max: LIMITS.torqueNm.max, unit: 'N·m' },
  plausible: [0.05, 6],
} as const;

const step = z.string().regex(/^[1-9]\d{0,2}$/, 'must be 1 to 999');

/** Turning torque of the pinion alone while its preload is set: with which spacer, at which nut angle or with which shims. */
export const pinionTorque = defineSubject({
  what: 'pinion-torque',
  keys: { axle, spacer: z.string().regex(/^[1-9]\d?$/, 'must be 1 to 99'), step },
  about: {
    /** Nut angle from where counting began. */
    angle: entrySchema('angle', { min: -10_000, max: 10_000, unit: '°' }).nullable(),
    /** Shims beside a solid spacer. */
    shims: z.array(entrySchema('length', MESH_LIMITS.shimMm)).max(8),
  },
  value: turning,
  state: trialSchema,
  words: ({ axle: on, spacer, step: n }) => `${capital(on)}, spacer ${spacer}: pinion turning torque, reading ${n}`,
});

export const sealDrag = defineSubject({
  what: 'seal-drag',
  keys: { axle },
  value: turning,
  words: ({ axle: on }) => `${capital(on)}: drag of the pinion seal`,
});

/** All of it, at the pinion, with the carrier in. `as-it-came` before anything was loosened, `run-in` again after it. */
export const totalTorque = defineSubject({
  what: 'total-torque',
  keys: { axle, stage: z.enum(['as-it-came', 'trial', 'final', 'run-in']) },
  value: turning,
  state: trialSchema,
  words: ({ axle: on, stage: at }) =>
    `${capital(on)}: total turning torque${at === 'as-it-came' ? ', as it came' : at === 'run-in' ? ', after the run-in' : ''}`,
});

/** Turning torque of the carrier bearings alone, pinion out or not in mesh, by a spline adapter. */
export const carrierTorque = defineSubject({
  what: 'carrier-torque',
  keys: { axle },
  value: turning,
  words: ({ axle: on }) => `${capital(on)}: turning torque of the carrier alone`,
});

/** How far the case grows across the caps as side preload goes in, by indicator. */
export const caseGrowth = defineSubject({
  what: 'case-growth',
  keys: { axle },
  value: { of: 'number', counts: 'one', ...small, plausible: [0, 1] },
  words: ({ axle: on }) => `${capital(on)}: growth of the case across the caps`,
});

/** Shims of both sides together at which the carrier has neither play nor preload. */
export const zeroPlay = defineSubject({
  what: 'zero-play',
  keys: { axle },
  value: {
    of: 'number',
    counts: 'mean',
    quantity: 'length',
    scale: 'plate',
    range: MESH_LIMITS.shimMm,
    plausible: [0.1, 40],
  },
  words: ({ axle: on }) => `${capital(on)}: shims of both sides at zero play`,
});

/** What the sequence or the hand says of side preload. */
export const sideSaid = defineSubject({
  what: 'side-said',
  keys: { axle, method: z.enum(['sequence', 'feel']) },
  value: { of: 'choice', choices: ['right', 'too loose', 'too tight'] },
  words: ({ axle: on, method }) =>
    `${capital(on)}: side preload ${method === 'feel' ? 'by feel' : 'by the sequence of the adjusters'}`,
});

/** A collapsible spacer that goes in out of a drawer: it does not come back. */
export const spacerIn = defineSubject({
  what: 'spacer',
  keys: { axle, spacer: z.string().regex(/^[1-9]\d?$/, 'must be 1 to 99') },
  about: { drawer: idSchema },
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'length',
    scale: 'plate',
    range: MESH_LIMITS.heightMm,
    plausible: [5, 120],
  },
  words: ({ axle: on, spacer: n }) => `${capital(on)}: spacer ${n} in, free length`,
});

export const meshSubjects = [
  assembled,
  backlash,
  pattern,
  patternAt,
  patternPhoto,
  capsPhoto,
  sheetPhoto,
  ringRunout,
  caseSpread,
  endFloat,
  packHeight,
] as const;
export const preloadSubjects = [
  spacerIn,
  pinionTorque,
  sealDrag,
  totalTorque,
  carrierTorque,
  caseGrowth,
  zeroPlay,
  sideSaid,
] as const;
