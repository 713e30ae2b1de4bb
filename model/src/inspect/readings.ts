import { id } from '../base/fields';
import { AXLES, capital } from '../base/names';
import { defineSubject } from '../frame/subjects';
import '../base/zod';
import * as z from 'zod';

const keys = { axle: z.enum(AXLES), part: id };
const named = (axle: string, part: string): string => `${capital(axle)}, ${part.replace(/-/g, ' ')}`;

/** What is done about a part. */
export const partDecided = defineSubject({
  what: 'part-decided',
  keys,
  value: { of: 'choice', choices: ['run-on', 'replace', 'donor'] },
  words: ({ axle, part }) => `${named(axle, part)}: decided`,
});

export const partFound = defineSubject({
  what: 'part-found',
  keys,
  value: { of: 'text' },
  words: ({ axle, part }) => `${named(axle, part)}: found`,
});

/** What was found on the part that comes from a donor: it is looked at like any other. */
export const partDonor = defineSubject({
  what: 'part-donor',
  keys,
  value: { of: 'text' },
  words: ({ axle, part }) => `${named(axle, part)}: found on the donor part`,
});

export const partPhoto = defineSubject({
  what: 'part-photo',
  keys,
  value: { of: 'photos' },
  words: ({ axle, part }) => `${named(axle, part)}: photo`,
});

export const inspectSubjects = [partDecided, partFound, partDonor, partPhoto];
