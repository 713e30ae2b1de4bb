import type { NumberRange, Quantity, Scale } from '@hot-spline/core';
import { id } from '../base/fields';
import { AXLES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';

const axle = z.enum(AXLES);
const words = { axle: (on: string, step: string): string => `${capital(on)}, ${step.replace(/-/g, ' ')}` };

/** How a step ended. */
export const stepDone = defineSubject({
  what: 'step',
  keys: { axle, step: id },
  value: { of: 'choice', choices: ['done', 'failed', 'open'] },
  words: ({ axle: on, step }) => words.axle(on, step),
});

export const stepTime = defineSubject({
  what: 'step-time',
  keys: { axle, step: id },
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'time',
    scale: 'work',
    range: { min: 0, max: 1e7, unit: 's' },
    plausible: [60, 36_000],
  },
  words: ({ axle: on, step }) => `${words.axle(on, step)}: time taken`,
});

/** What was learned at a step: shown again at the same step of another axle. */
export const lesson = defineSubject({
  what: 'lesson',
  keys: { axle, step: id },
  value: { of: 'text' },
  words: ({ axle: on, step }) => `${words.axle(on, step)}: learned`,
});

export const stepPhoto = defineSubject({
  what: 'step-photo',
  keys: { axle, step: id },
  value: { of: 'photos' },
  words: ({ axle: on, step }) => `${words.axle(on, step)}: photo`,
});

/** What a step writes down in words, or as one of its choices. */
export const stepSaid = defineSubject({
  what: 'step-said',
  keys: { axle, step: id, record: id },
  value: { of: 'text' },
  words: ({ axle: on, step, record }) => `${words.axle(on, step)}: ${record.replace(/-/g, ' ')}`,
});

/** When sealant went onto a face, and when the face was closed on it: it skins, then it cures. */
export const sealant = defineSubject({
  what: 'sealant',
  keys: { axle },
  value: { of: 'choice', choices: ['on', 'closed', 'cleaned off'] },
  words: ({ axle: on }) => `${capital(on)}: sealant on the face`,
});

/** The same of what sets in a step: on the threads, seats and splines that it closes. */
export const compound = defineSubject({
  what: 'compound',
  keys: { axle, step: id },
  value: { of: 'choice', choices: ['on', 'closed', 'cleaned off'] },
  words: ({ axle: on, step }) => `${words.axle(on, step)}: compound`,
});

const read = (
  what: string,
  quantity: Quantity,
  scale: Scale | undefined,
  range: NumberRange,
  plausible: readonly [number, number],
) =>
  defineSubject({
    what,
    keys: { axle, step: id, record: id },
    value: { of: 'number', counts: 'one', quantity, ...(scale ? { scale } : {}), range, plausible },
    words: ({ axle: on, step, record }) => `${words.axle(on, step)}: ${record.replace(/-/g, ' ')}`,
  });

const mm = (max: number): NumberRange => ({ min: 0, max, unit: 'mm' });
const nm: NumberRange = { min: 0, max: 5000, unit: 'N·m' };

/** What a step measures, by quantity and scale: one subject each, so that a bare number means what it does there. */
export const STEP_READINGS = {
  'length/small': read('step-small', 'length', 'small', mm(500), [0, 20]),
  'length/plate': read('step-length', 'length', 'plate', mm(5000), [0, 500]),
  'length/large': read('step-large', 'length', 'large', mm(5000), [50, 2500]),
  'torque/bolt': read('step-torque', 'torque', 'bolt', nm, [5, 1000]),
  'torque/turning': read('step-turning', 'torque', 'turning', nm, [0, 20]),
  'count/': read('step-count', 'count', undefined, { min: 0, max: 1440 }, [0, 400]),
  'volume/fill': read('step-volume', 'volume', 'fill', { min: 0, max: 50, unit: 'l' }, [0.2, 8]),
  'volume/dose': read('step-dose', 'volume', 'dose', { min: 0, max: 5, unit: 'l' }, [0.02, 1]),
  'temperature/': read('step-temperature', 'temperature', undefined, { min: -50, max: 600, unit: '°C' }, [-30, 260]),
  'pressure/': read('step-pressure', 'pressure', undefined, { min: 0, max: 3000, unit: 'kPa' }, [0, 1500]),
} as const;
export type StepReading = keyof typeof STEP_READINGS;

export const workSubjects = [
  stepDone,
  stepTime,
  lesson,
  stepPhoto,
  stepSaid,
  sealant,
  compound,
  ...Object.values(STEP_READINGS),
];
