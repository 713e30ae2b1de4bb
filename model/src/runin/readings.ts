import { AXLES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';

const trip = z.string().regex(/^[1-9]\d{0,2}$/, 'must be 1 to 999');
const keys = { axle: z.enum(AXLES), trip };
const named = (axle: string, n: string): string => `${capital(axle)}, run-in ${n}`;

/** What one time out was; the number tells one from another. */
export const TRIP_KINDS = ['trip', 'heat cycle', 'race', 'recheck'] as const;
export const tripKind = defineSubject({
  what: 'run-in',
  keys,
  value: { of: 'choice', choices: TRIP_KINDS },
  words: ({ axle, trip: n }) => named(axle, n),
});

export const tripDistance = defineSubject({
  what: 'run-in-distance',
  keys,
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'distance',
    scale: 'trip',
    range: { min: 0, max: 1e7, unit: 'm' },
    plausible: [500, 2e6],
  },
  words: ({ axle, trip: n }) => `${named(axle, n)}: distance`,
});

export const tripTemperature = defineSubject({
  what: 'run-in-temperature',
  keys,
  value: {
    of: 'number',
    counts: 'one',
    quantity: 'temperature',
    range: { min: -50, max: 400, unit: '°C' },
    plausible: [-20, 160],
  },
  words: ({ axle, trip: n }) => `${named(axle, n)}: highest oil temperature`,
});

export const tripNoise = defineSubject({
  what: 'run-in-noise',
  keys,
  value: { of: 'text' },
  words: ({ axle, trip: n }) => `${named(axle, n)}: heard, seen`,
});

/** What an axle is heard to do: chosen, never guessed from words. */
export const SOUNDS = ['none', 'whine under power', 'whine on overrun', 'rumble', 'knock'] as const;

export const tripSound = defineSubject({
  what: 'run-in-sound',
  keys,
  value: { of: 'choice', choices: SOUNDS },
  words: ({ axle, trip: n }) => `${named(axle, n)}: sound of the axle`,
});

export const runInSubjects = [tripKind, tripDistance, tripTemperature, tripSound, tripNoise];
