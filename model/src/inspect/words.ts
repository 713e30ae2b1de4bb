import { capital } from '../document/names';
import type { NumberFact, Words } from '../engine/finding';

export const runsOn = (f: { axle: string; part: string; found: string; means: string }): Words => ({
  title: `${capital(f.axle)}: ${f.part.toLowerCase()} run on, ${f.found}`,
  detail: f.means,
});

export const all = (f: { axle: string; open: string; count: NumberFact }): Words => ({
  title:
    f.open === ''
      ? `${capital(f.axle)}: every part is decided`
      : `${capital(f.axle)}: ${f.count.value} parts not decided`,
  detail: f.open === '' ? '' : `Still to look at: ${f.open}.`,
});
