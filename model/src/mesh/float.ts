import { originOf } from '../library/origins';
import { InputError, explain, floatShim, type Working } from '@hot-spline/core';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { coarseGauge } from './derive-before';
import { STATION, at } from './guards';
import { meshFigures } from './ids';
import * as words from './words';
import type { AssemblyState, MeshAxle } from './axle';

/** End float that counts of an assembly, mm: with the case closed for good where it was read so; null while it was not read. */
export const floatOf = ({ endFloatMm }: AssemblyState): number | null => endFloatMm.final ?? endFloatMm.trial;

/** The middle of the band of the sheet, which is aimed at; null while nobody has said one. */
export const floatWanted = ({ floatBand }: MeshAxle): number | null => floatBand && (floatBand[0] + floatBand[1]) / 2;

/** The shim that brings float to the middle of its band; null where something is missing or no shim can. */
export function floatShimOf(mesh: MeshAxle): number | null {
  const { now } = mesh;
  const [measuredMm, wantedMm] = [now && floatOf(now), floatWanted(mesh)];
  if (!now || measuredMm === null || wantedMm === null) return null;
  try {
    return floatShim({ shimMm: now.leftMm, measuredMm, wantedMm });
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return null;
  }
}

export const explainFloat = (of: Parameters<typeof floatShim>[0]): Working =>
  explain({
    title: 'Shim for end float',
    formula: 'new = old + (measured − wanted)',
    inputs: [
      { key: 'shimMm', label: 'old shim', value: of.shimMm, quantity: 'length' },
      { key: 'measuredMm', label: 'measured', value: of.measuredMm, quantity: 'length' },
      { key: 'wantedMm', label: 'wanted', value: of.wantedMm, quantity: 'length' },
    ],
    sources: [{ kind: 'exact', text: 'a shim more takes as much out of the float' }],
    result: { label: 'new shim', quantity: 'length' },
    compute: () => ({ value: floatShim(of) }),
  });

/** A unit whose one shim sets end float: no depth, no ring, no pattern. */
export function deriveFloat(mesh: MeshAxle, d: Derivation): void {
  const { axle, now, floatBand: band, sheet } = mesh;
  const place = at(axle, 'carrier', `float-trial-${axle}`);
  if (!band)
    d.finding({
      id: `mesh.${axle}.band`,
      verdict: 'not-yet',
      place: at(axle, 'baseline', `sheet-endFloat-${axle}`, 'sheet'),
      station: STATION,
      figures: [],
      rule: 'a band from the maker’s sheet',
      facts: {},
      say: words.noFloatBand,
    });
  coarseGauge(mesh, band, d);
  if (!now) {
    d.finding({
      id: `mesh.${axle}.begun`,
      verdict: 'not-yet',
      place: at(axle, 'baseline', `out-left-${axle}`),
      station: STATION,
      figures: [],
      rule: 'strip with evidence (common practice)',
      facts: { what: 'What came out' },
      say: words.nothingRead,
    });
    return;
  }
  const length = { quantity: 'length', scale: 'small', rests: 'measured' } as const;
  d.figure({ id: meshFigures.shim(axle), label: 'Shim', value: now.leftMm, quantity: 'length', rests: 'measured' });
  const mm = floatOf(now);
  if (mm === null) {
    d.finding({
      id: `mesh.${axle}.float`,
      verdict: 'not-yet',
      place,
      station: STATION,
      figures: [],
      rule: 'every assembly is read (common practice)',
      facts: { what: 'End float' },
      say: words.nothingRead,
    });
    return;
  }
  d.figure({ id: meshFigures.float(axle), label: 'End float', value: mm, ...length });
  const [next, wanted] = [floatShimOf(mesh), floatWanted(mesh)];
  if (next !== null && wanted !== null)
    d.figure({
      id: meshFigures.floatShim(axle),
      label: 'Shim for the middle of the band',
      value: next,
      quantity: 'length',
      rests: sheet.endFloat ? ORIGIN_RESTS[originOf(sheet.endFloat)] : 'measured',
      explain: () => explainFloat({ shimMm: now.leftMm, measuredMm: mm, wantedMm: wanted }),
    });
  if (!band || !sheet.endFloat) return;
  const [low, high] = band;
  const fits = mm >= low - 1e-9 && mm <= high + 1e-9;
  d.finding({
    id: `mesh.${axle}.float`,
    verdict: fits ? 'fits' : 'watch',
    place,
    station: STATION,
    figures: [meshFigures.float(axle)],
    rests: ORIGIN_RESTS[originOf(sheet.endFloat)],
    rule: 'end float in the band of the sheet; new shim = old + (measured − wanted) (common practice)',
    facts: {
      float: fact(mm, 'length'),
      low: fact(low, 'length'),
      high: fact(high, 'length'),
      change: fact((next ?? now.leftMm) - now.leftMm, 'length'),
      shim: fact(next ?? 0, 'length'),
      fits,
      possible: next !== null,
    },
    say: words.floatInBand,
  });
}
