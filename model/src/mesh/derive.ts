import { originOf } from '../library/origins';
import { BACKLASH_GUARD, PATTERN_BAND, entryBase, explain } from '@hot-spline/core';
import type { Derivation } from '../frame/derivation';
import type { Rests } from '../frame/figure';
import { fact } from '../frame/finding';
import { readingBase, type Readings } from '../frame/readings';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { explainBacklash } from './explain';
import { deriveBefore } from './derive-before';
import { deriveFloat } from './float';
import { MESH_GUARDS, STATION, at } from './guards';
import { meshFigures } from './ids';
import { caseSpread, packHeight, ringRunout } from './readings';
import { backlashOf, patternOf } from './state';
import { shiftTo } from './shifts';
import * as words from './words';
import type { AssemblyState, BacklashRead, MeshAxle, PatternRead } from './axle';

/** Half ways across within which a patch is right; the loaded flank is held to less. */
export function patternBands(loadedFlank: MeshAxle['loadedFlank']) {
  const { drive, coast } = PATTERN_BAND;
  return loadedFlank === 'concave' ? { drive: coast, coast: drive } : { drive, coast };
}

/** Fewer than four places say nothing of the ring all round (common practice). */
export const allRound = ({ mm }: BacklashRead): boolean => mm.length >= BACKLASH_GUARD.places;

/** Whether both flanks are in band, off every edge and clear. */
export function patternFits({ value, counts }: PatternRead, loadedFlank: MeshAxle['loadedFlank']): boolean {
  const band = patternBands(loadedFlank);
  return (
    counts &&
    (['drive', 'coast'] as const).every((flank) => {
      const { u, v, edges } = value[flank];
      return edges.length === 0 && Math.abs(u) <= band[flank].u && Math.abs(v) <= band[flank].v;
    })
  );
}

/** Figures and findings of one axle's set-up. */
export function deriveMesh(mesh: MeshAxle, readings: Readings, d: Derivation): void {
  if (mesh.construction === 'electric-reduction') {
    deriveFloat(mesh, d);
    return;
  }
  deriveBefore(mesh, d);
  const { now } = mesh;
  if (!now) {
    d.finding({
      id: `mesh.${mesh.axle}.begun`,
      verdict: 'not-yet',
      place: at(mesh.axle, 'baseline', `out-pinion-${mesh.axle}`),
      station: STATION,
      figures: [],
      rule: 'strip with evidence (common practice)',
      facts: { what: 'What came out' },
      say: words.nothingRead,
    });
    return;
  }
  positions(mesh, now, d);
  backlashRead(mesh, now, d);
  patternRead(mesh, now, d);
  packs(mesh, now, readings, d);
  allRoundPattern(mesh, now, d);
  adjusters(mesh, now, d);
  spread(mesh, readings, d);
  indicated(mesh, readings, d);
}

const restsOn = ({ sheet }: MeshAxle): Rests => (sheet.backlash ? ORIGIN_RESTS[originOf(sheet.backlash)] : 'measured');

function positions({ axle, closing, setup }: MeshAxle, now: AssemblyState, d: Derivation): void {
  const length = { quantity: 'length', scale: 'small', rests: 'measured' } as const;
  d.figure({ id: meshFigures.shim(axle), label: 'Pinion shim', value: now.pinionMm, ...length });
  d.figure({ id: meshFigures.ring(axle), label: 'Ring to the pinion', value: now.ringMm, ...length });
  d.figure({
    id: meshFigures.sides(axle),
    label: 'Left and right',
    value: now.leftMm + now.rightMm,
    quantity: 'length',
    rests: 'measured',
  });
  d.figure({
    id: meshFigures.closing(axle),
    label: 'Closing up takes',
    value: closing.mm,
    quantity: 'length',
    scale: 'small',
    rests: closing.learned > 0 ? 'measured' : 'trade',
    explain: () =>
      explain({
        title: 'What closing up takes off backlash',
        formula:
          'steps still to come, together 1 ± 1 thou until learned; then weighed with what was read in both states',
        inputs: [
          { key: 'learned', label: 'assemblies read in both states', value: closing.learned, quantity: 'count' },
          { key: 'spread', label: 'one deviation', value: closing.sigmaMm, quantity: 'length' },
        ],
        sources: [{ kind: 'trade', text: `caps ${setup.state.caps}, side bearings ${setup.state.sideBearings}` }],
        result: { label: 'closing up', quantity: 'length' },
        compute: () => ({ value: closing.mm }),
      }),
  });
}

function backlashRead(mesh: MeshAxle, now: AssemblyState, d: Derivation): void {
  const { axle, band: told } = mesh;
  const place = at(axle, 'mesh', `backlash-1-${axle}`);
  const read = backlashOf(now);
  if (!read) {
    d.finding({
      id: `mesh.${axle}.backlash`,
      verdict: 'not-yet',
      place,
      station: STATION,
      figures: [],
      rule: 'every assembly is read (common practice)',
      facts: { what: 'Backlash' },
      say: words.nothingRead,
    });
    return;
  }
  const { round, mm } = read;
  const rests = 'measured';
  const figure = (
    id: ReturnType<typeof meshFigures.mean | typeof meshFigures.least | typeof meshFigures.most>,
    label: string,
    value: number,
    shown: 'mean' | 'least place' | 'most',
  ): void => {
    d.figure({
      id,
      label,
      value,
      quantity: 'length',
      scale: 'small',
      rests,
      explain: told ? () => explainBacklash(mm, told, shown) : undefined,
    });
  };
  figure(meshFigures.mean(axle), `Backlash, mean of ${mm.length}`, round.meanMm, 'mean');
  figure(meshFigures.least(axle), 'Least place', round.minMm, 'least place');
  figure(meshFigures.most(axle), 'Most', round.maxMm, 'most');
  if (round.runoutAmplitudeMm !== null)
    d.figure({
      id: meshFigures.runout(axle),
      label: 'Run-out, once a turn',
      value: 2 * round.runoutAmplitudeMm,
      quantity: 'length',
      scale: 'small',
      rests,
      explain: told ? () => explainBacklash(mm, told, 'run-out, peak to peak') : undefined,
    });
  const figures = [meshFigures.mean(axle), meshFigures.least(axle)];
  if (read.state.sidePreload === 'none')
    d.finding({
      id: `mesh.${axle}.bare`,
      verdict: 'watch',
      place: at(axle, 'mesh', `state-sidePreload-${axle}`),
      station: STATION,
      figures,
      rule: 'backlash counts under side preload only (common practice)',
      facts: {},
      say: words.bareSides,
    });
  const limit = mesh.sheet.variation ? entryBase(mesh.sheet.variation.value) : MESH_GUARDS.variationMm;
  const apart = round.maxMm - round.minMm;
  if (apart > limit + 1e-9)
    d.finding({
      id: `mesh.${axle}.variation`,
      verdict: 'watch',
      place,
      station: STATION,
      figures,
      rule: 'variation above the sheet’s limit, or about 3 thou: find out why before shimming (common practice)',
      facts: {
        variation: fact(apart, 'length'),
        limit: fact(limit, 'length'),
        runout: fact(round.runoutAmplitudeMm ?? 0, 'length'),
        residual: fact(round.residualMm ?? 0, 'length'),
        angle: fact(round.runoutAngleDeg ?? 0, 'angle'),
      },
      say: words.variation,
    });
  if (!told) return;
  // In a trial state the whole band stands higher by what closing up will take.
  const up = shiftTo(read.state, mesh).mm;
  const [low, high] = [told[0] + up, told[1] + up];
  const fits = allRound(read) && round.minMm >= low - 1e-9 && round.maxMm <= high + 1e-9;
  d.finding({
    id: `mesh.${axle}.backlash`,
    verdict: fits ? 'fits' : 'watch',
    place,
    station: STATION,
    figures,
    rests: restsOn(mesh),
    rule: `every place in the band of the sheet${up > 0 ? ', higher by what closing up will take' : ''}`,
    facts: {
      mean: fact(round.meanMm, 'length'),
      least: fact(round.minMm, 'length'),
      most: fact(round.maxMm, 'length'),
      low: fact(low, 'length'),
      high: fact(high, 'length'),
      fits,
    },
    say: (facts, system) => words.backlashInBand({ ...facts, variation: apart > limit }, system),
  });
}

function patternRead(mesh: MeshAxle, now: AssemblyState, d: Derivation): void {
  const { axle, loadedFlank } = mesh;
  const place = at(axle, 'mesh', `flank-drive-${axle}`);
  const read = patternOf(now);
  if (!read) {
    d.finding({
      id: `mesh.${axle}.pattern`,
      verdict: 'not-yet',
      place,
      station: STATION,
      figures: [],
      rule: 'both flanks are painted (common practice)',
      facts: { what: 'Pattern' },
      say: words.nothingRead,
    });
    return;
  }
  const fits = patternFits(read, loadedFlank);
  const band = patternBands(loadedFlank);
  const depthFirst = (['drive', 'coast'] as const).some((flank) => Math.abs(read.value[flank].v) > band[flank].v);
  d.finding({
    id: `mesh.${axle}.pattern`,
    verdict: fits ? 'fits' : 'watch',
    place,
    station: STATION,
    figures: [],
    rule: 'centred, off every edge, a little toward the toe is fine; height decides depth (common practice; band ours)',
    facts: {
      drive: words.patchWords(read.value.drive),
      coast: words.patchWords(read.value.coast),
      loaded: loadedFlank,
      fits,
      counts: read.counts,
      depthFirst,
    },
    say: words.patternSeen,
  });
}

/** A contact that was read all round: what comes once a turn is the seat. */
function allRoundPattern({ axle }: MeshAxle, { patternRound: of }: AssemblyState, d: Derivation): void {
  const round = of.final ?? of.trial;
  if (!round) return;
  d.finding({
    id: `mesh.${axle}.seat`,
    verdict: round.seat ? 'stop' : 'fits',
    place: at(axle, 'mesh', `flank-${round.flank}-${axle}`),
    station: STATION,
    figures: [],
    rule: 'a change once a turn is a cocked seat, not depth (common practice); from 0.15 of half a tooth on: ours',
    facts: {
      seat: round.seat,
      swing: fact(100 * round.swing, 'percent'),
      flank: round.flank,
      way: round.way === 'v' ? 'between root and edge' : 'between toe and heel',
      angle: fact(round.angleDeg, 'angle'),
    },
    say: words.seat,
  });
}

function packs({ axle }: MeshAxle, now: AssemblyState, readings: Readings, d: Derivation): void {
  const sums = { pinion: now.pinionMm, left: now.leftMm, right: now.rightMm } as const;
  for (const seat of ['pinion', 'left', 'right'] as const) {
    const whole = readings.get(packHeight.key({ axle, assembly: String(now.number), seat }));
    if (!whole || sums[seat] === 0 || Math.abs(readingBase(whole) - sums[seat]) <= MESH_GUARDS.packMm) continue;
    d.finding({
      id: `mesh.${axle}.pack-${seat}`,
      verdict: 'watch',
      place: at(axle, now.number === 0 ? 'baseline' : 'carrier', `whole-${seat}-${axle}`),
      station: STATION,
      figures: [],
      rule: 'a pack is measured piece by piece and as one (common practice; 0.02 mm ours)',
      facts: {
        pieces: fact(sums[seat], 'length'),
        whole: fact(readingBase(whole), 'length'),
        seat: seat === 'pinion' ? seat : `${seat} side`,
      },
      say: words.packDiffers,
    });
  }
}

function adjusters(mesh: MeshAxle, now: AssemblyState, d: Derivation): void {
  const { axle, assemblies, ringBy } = mesh;
  const place = at(axle, 'carrier', `left-${axle}`);
  if (ringBy === 'adjusters') {
    const { leftNotches: left, rightNotches: right } = now.value;
    // In on one side is out on the other; what both went the same way is preload. Far apart is neither.
    if (Math.abs(left - right) / 2 > MESH_GUARDS.notchesApart)
      d.finding({
        id: `mesh.${axle}.adjusters`,
        verdict: 'stop',
        place,
        station: STATION,
        figures: [],
        rule: 'one adjuster far in and the other far out: something is in the way (common practice; 8 notches ours)',
        facts: { left: fact(left, 'count'), right: fact(right, 'count') },
        say: words.adjusters,
      });
    return;
  }
  const before = assemblies.at(-2);
  if (!before || before.number === 0) return;
  const change = now.leftMm + now.rightMm - before.leftMm - before.rightMm;
  if (Math.abs(change) < 0.005) return;
  d.finding({
    id: `mesh.${axle}.preload`,
    verdict: 'watch',
    place,
    station: STATION,
    figures: [meshFigures.sides(axle)],
    rule: 'left + right constant keeps preload [exact]',
    facts: { change: fact(change, 'length') },
    say: words.preloadMoved,
  });
}

/** What an indicator reads on the back of the ring, against the limit of the sheet. */
function indicated({ axle, sheet }: MeshAxle, readings: Readings, d: Derivation): void {
  const reading = readings.get(ringRunout.key({ axle }));
  if (!reading || !sheet.runout) return;
  const [mm, limit] = [readingBase(reading), entryBase(sheet.runout.value)];
  d.finding({
    id: `mesh.${axle}.indicated`,
    verdict: mm > limit + 1e-9 ? 'stop' : 'fits',
    place: at(axle, 'carrier', `runout-${axle}`),
    station: STATION,
    figures: [],
    rests: ORIGIN_RESTS[originOf(sheet.runout)],
    rule: 'total indicator reading on the ring, limit of the sheet',
    facts: { runout: fact(mm, 'length'), limit: fact(limit, 'length') },
    say: words.ringRunsOut,
  });
}

function spread({ axle, sheet }: MeshAxle, readings: Readings, d: Derivation): void {
  const reading = readings.get(caseSpread.key({ axle }));
  if (!reading || !sheet.spreadLimit) return;
  const [mm, limit] = [readingBase(reading), entryBase(sheet.spreadLimit.value)];
  d.finding({
    id: `mesh.${axle}.spread`,
    verdict: mm > limit ? 'stop' : 'fits',
    place: at(axle, 'carrier', `spread-${axle}`),
    station: STATION,
    figures: [],
    rests: ORIGIN_RESTS[originOf(sheet.spreadLimit)],
    rule: 'case spread by indicator, limit of the sheet',
    facts: { spread: fact(mm, 'length'), limit: fact(limit, 'length') },
    say: words.spreadTooFar,
  });
}
