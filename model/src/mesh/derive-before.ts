import { ORIGIN_WORDS, originOf } from '../library/origins';
import { entryBase } from '@hot-spline/core';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { depthSchools, stackError } from './depth';
import { MESH_GUARDS, STATION, at } from './guards';
import { headShimOf, patternOf } from './state';
import * as words from './words';
import type { MeshAxle } from './axle';

/** What is judged before anything is read: the band, the gauge against it, depth, the stack, the set-up bearing. */
export function deriveBefore(mesh: MeshAxle, d: Derivation): void {
  band(mesh, d);
  direction(mesh, d);
  coarseGauge(mesh, mesh.band, d);
  depth(mesh, d);
  setUpBearing(mesh, d);
}

function band({ axle, band: told, bandWeak, sheet }: MeshAxle, d: Derivation): void {
  const place = at(axle, 'baseline', `sheet-backlash-${axle}`, 'sheet');
  if (!told) {
    d.finding({
      id: `mesh.${axle}.band`,
      verdict: 'not-yet',
      place,
      station: STATION,
      figures: [],
      rule: 'a band from the maker’s sheet',
      facts: {},
      say: words.noBand,
    });
    return;
  }
  if (!bandWeak) return;
  d.finding({
    id: `mesh.${axle}.band`,
    verdict: 'watch',
    place,
    station: STATION,
    figures: [],
    rule: 'values out of memory or borrowed plan; they don’t carry a step that can’t be taken back (common practice)',
    facts: {
      low: fact(told[0], 'length'),
      high: fact(told[1], 'length'),
      origin: sheet.backlash ? ORIGIN_WORDS[originOf(sheet.backlash)] : 'not said',
    },
    say: words.weakBand,
  });
}

/** A box shaft has no direction of its own: it is asked. */
function direction({ axle, construction, shimMoves }: MeshAxle, d: Derivation): void {
  if (construction !== 'transaxle' || shimMoves) return;
  d.finding({
    id: `mesh.${axle}.direction`,
    verdict: 'not-yet',
    place: at(axle, 'baseline', `sign-shimMoves-${axle}`),
    station: STATION,
    figures: [],
    rule: 'read outward from the axis of the ring [exact]; a transaxle has no default',
    facts: {},
    say: words.noDirection,
  });
}

function depth(mesh: MeshAxle, d: Derivation): void {
  const { axle } = mesh;
  const place = at(axle, 'depth', `depth-old-mark-${axle}`);
  const found = depthSchools(mesh).flatMap(({ label, shimMm }) => (shimMm === null ? [] : [{ label, shimMm }]));
  const [lowest, ...others] = found.sort((a, b) => a.shimMm - b.shimMm);
  const highest = others.at(-1);
  if (lowest && highest) {
    const apart = highest.shimMm - lowest.shimMm > MESH_GUARDS.schoolsMm;
    d.finding({
      id: `mesh.${axle}.depth`,
      verdict: apart ? 'watch' : 'fits',
      place,
      station: STATION,
      figures: [],
      rule: 'ways of finding pinion depth that are more than 6 thou apart: one of them is wrong (guard of ours)',
      facts: {
        low: fact(lowest.shimMm, 'length'),
        high: fact(highest.shimMm, 'length'),
        lowest: lowest.label,
        highest: highest.label.toLowerCase(),
        apart,
      },
      say: words.schoolsApart,
    });
  }
  // Once a pattern was read with it, the pattern has the word.
  const painted = mesh.assemblies.some((one) => one.number > 0 && patternOf(one)?.counts);
  const error = painted ? null : stackError(mesh);
  if (error)
    d.finding({
      id: `mesh.${axle}.stack`,
      verdict: 'watch',
      place: at(axle, 'baseline', `stack-add-${axle}`, 'stack'),
      station: STATION,
      figures: [],
      rule: 'what lies between head and case sets depth [exact]',
      facts: { deeper: fact(error.deeperMm, 'length'), parts: error.parts },
      say: words.stackChanged,
    });
}

/** Whether a gauge can tell in from out: not where its ± on both sides eats the band up (common practice). */
export const tooCoarse = (plusMinus: number, [low, high]: readonly [number, number]): boolean =>
  2 * plusMinus >= high - low - 1e-9;

/** Says a gauge that can't tell in from out of a band. */
export function coarseGauge({ axle, setup }: MeshAxle, told: MeshAxle['band'], d: Derivation): void {
  const { backlash } = setup.gauges;
  if (!told || !backlash || !tooCoarse(entryBase(backlash.plusMinus), told)) return;
  d.finding({
    id: `mesh.${axle}.gauge`,
    verdict: 'stop',
    place: at(axle, 'baseline', `gauge-backlash-${axle}`),
    station: STATION,
    figures: [],
    rule: 'twice the ± of the instrument is less than the band (common practice)',
    facts: {
      low: fact(told[0], 'length'),
      high: fact(told[1], 'length'),
      plusMinus: fact(entryBase(backlash.plusMinus), 'length'),
      name: backlash.name || 'The indicator',
    },
    say: words.cannotJudge,
  });
}

function setUpBearing(mesh: MeshAxle, d: Derivation): void {
  const { axle, setup, now, bearingMoves } = mesh;
  if (setup.state.pinionBearings !== 'set-up' || !now) return;
  const place = at(axle, 'depth', `depth-set-up-taller-${axle}`);
  const taller = setup.depth.setUpTaller;
  const add = headShimOf(setup.state, mesh);
  d.finding({
    id: `mesh.${axle}.head-bearing`,
    verdict: taller && bearingMoves ? 'fits' : 'watch',
    place,
    station: STATION,
    figures: [],
    rule: 'another height at the head is another depth: the difference goes into the shim [exact]',
    facts: {
      add: fact(add, 'length'),
      shim: fact(now.pinionMm + add, 'length'),
      missing: taller ? (bearingMoves ? '' : 'sign') : 'height',
    },
    say: words.headBearing,
  });
}
