import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

export const runsOn = (f: { axle: string; part: string; found: string; means: string }): Words => ({
  title: `${capital(f.axle)}: ${f.part.toLowerCase()} run on, ${f.found}`,
  detail: f.means,
});

export const donor = (f: { axle: string; part: string; found: string; means: string }): Words => ({
  title:
    f.found === ''
      ? `${capital(f.axle)}: nobody has looked at the donor’s ${f.part.toLowerCase()}`
      : `${capital(f.axle)}: donor’s ${f.part.toLowerCase()}, ${f.found}`,
  detail: f.found === '' ? 'A donor part has run before: it is looked at like the one that came out.' : f.means,
});

export const all = (f: { axle: string; open: string; count: NumberFact }): Words => ({
  title:
    f.open === ''
      ? `${capital(f.axle)}: every part is decided`
      : `${capital(f.axle)}: ${f.count.value} parts not decided`,
  detail: f.open === '' ? '' : `Still to look at: ${f.open}.`,
});
