import {
  crawlRatio,
  effectiveRatio,
  entryBase,
  equalGearing,
  explain,
  roadSpeed,
  rollingCircumference,
  speedReadingCorrection,
  toothPair,
  tyreSize,
} from '@hot-spline/core/page';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { gearingFigures } from './ids';
import * as words from './words';
import { EXACT } from '../frame/figure';
import { gearRatios, gearingAt, nominalDiameter, rangeRatio, type AxleGearingState } from './axle-gearing';

/** Shortest range of the transfer case. */
export function lowRange(build: Build): { index: number; ratio: number } {
  const ratios = (build.transfer?.ranges ?? []).map((_, i) => rangeRatio(build, i));
  const ratio = Math.max(1, ...ratios);
  return { index: Math.max(ratios.indexOf(ratio), 0), ratio };
}

/** Crawl ratio, equal gearing on the planned tyre, speed reading, kept points: figures and what they say. */
export function deriveMatch(build: Build, main: AxleName, own: AxleGearingState, all: Derivation): void {
  const d = all.using([`axles.${main}.finalDrive`]);
  crawl(build, own, d.using(['gearbox.gears']));
  plannedTyre(build, main, own, d.using([`axles.${main}.tyre`]));
  speedReading(build, main, own, d.using([`axles.${main}.tyre`]));
  keptPoints(build, own, d.using([`axles.${main}.tyre`, 'gearbox.gears']));
}

function crawl(build: Build, own: AxleGearingState, d: Derivation): void {
  const first = gearRatios(build)[0] ?? 1;
  const low = lowRange(build).ratio;
  const value = crawlRatio(first, low, own.finalRatio, own.hubRatio);
  d.figure({
    id: gearingFigures.crawl(),
    label: 'Crawl ratio',
    value,
    quantity: 'ratio',
    decimals: 1,
    explain: () =>
      explain({
        title: 'Crawl ratio',
        formula: 'crawl ratio = first gear × low range × final drive × hub',
        inputs: [
          { key: 'first', label: 'first gear', value: first, quantity: 'ratio' },
          { key: 'low', label: 'low range', value: low, quantity: 'ratio' },
          { key: 'final', label: 'final drive', value: own.finalRatio, quantity: 'ratio' },
          { key: 'hub', label: 'hub reduction', value: own.hubRatio, quantity: 'ratio' },
        ],
        sources: [EXACT],
        result: { label: 'crawl ratio', quantity: 'ratio' },
        compute: ({ first: f = 1, low: l = 1, final = 1, hub = 1 }) => ({ value: crawlRatio(f, l, final, hub) }),
      }),
  });
  if (build.brief.goal !== 'crawl' && build.use !== 'rock') return;
  const wanted = entryBase(build.brief.crawlRatio);
  d.finding({
    id: 'match.crawl',
    uses: ['brief.crawlRatio'],
    verdict: value < wanted ? 'watch' : 'fits',
    place: { sheet: 'brief', field: 'brief-crawl' },
    station: 'final',
    figures: [gearingFigures.crawl()],
    rule: 'crawl ratio wanted in the brief',
    facts: { crawl: fact(value, 'ratio'), wanted: fact(wanted, 'ratio'), final: fact(own.finalRatio, 'ratio') },
    say: words.crawl,
  });
}

function plannedTyre(build: Build, main: AxleName, own: AxleGearingState, d: Derivation): void {
  const tyre = build.axles[main]?.tyre;
  const { plannedTyre: planned } = build.brief;
  if (!planned || !tyre) return;
  const now = nominalDiameter(tyre);
  const then = tyreSize(planned).overallDiameterMm;
  const inputs = [
    { key: 'ratio', label: 'final drive now', value: own.finalRatio, quantity: 'ratio' as const },
    { key: 'now', label: `diameter of ${tyre.designation}`, value: now, quantity: 'length' as const },
    { key: 'then', label: `diameter of ${planned}`, value: then, quantity: 'length' as const },
  ];
  d.figure({
    id: gearingFigures.equal(),
    label: `Same rpm on ${planned} with`,
    value: equalGearing(own.finalRatio, now, then),
    quantity: 'ratio',
    explain: () =>
      explain({
        title: `Final drive that keeps rpm on ${planned}`,
        formula: 'ratio = ratio now × new diameter ÷ old diameter',
        inputs,
        sources: [EXACT],
        result: { label: 'final drive', quantity: 'ratio' },
        compute: ({ ratio = 1, now: a = 1, then: b = 1 }) => ({ value: equalGearing(ratio, a, b) }),
      }),
  });
  d.figure({
    id: gearingFigures.effective(),
    label: `Today’s final on ${planned} pulls like`,
    value: effectiveRatio(own.finalRatio, now, then),
    quantity: 'ratio',
    explain: () =>
      explain({
        title: `What today’s final drive is worth on ${planned}`,
        formula: 'effective ratio = ratio now × old diameter ÷ new diameter',
        inputs,
        sources: [EXACT],
        result: { label: 'effective ratio', quantity: 'ratio' },
        compute: ({ ratio = 1, now: a = 1, then: b = 1 }) => ({ value: effectiveRatio(ratio, a, b) }),
      }),
  });
}

function speedReading(build: Build, main: AxleName, own: AxleGearingState, d: Derivation): void {
  const tyre = build.axles[main]?.tyre;
  const { was, sender } = build.brief;
  if (!was || !tyre) return;
  const reading = {
    sender,
    oldRatio: toothPair(was.finalDrive).ratio,
    newRatio: own.finalRatio,
    // Of the tyre before only the size is known: it rolls by the factor of the one now.
    oldCircumferenceMm: rollingCircumference(tyreSize(was.tyre).overallDiameterMm, tyre.factor),
    newCircumferenceMm: own.circumferenceMm,
  };
  const factor = speedReadingCorrection(reading);
  d.figure({
    id: gearingFigures.reading(),
    label: 'True speed for 100 shown',
    value: 100 * factor,
    quantity: 'percent',
    decimals: 1,
    explain: () =>
      explain({
        title: 'Speed reading',
        formula:
          sender === 'gearbox'
            ? 'true ÷ shown = (old ratio × new circumference) ÷ (new ratio × old circumference), sender ahead of the final drive'
            : 'true ÷ shown = new circumference ÷ old circumference, sender at the wheel',
        inputs: [
          { key: 'oldRatio', label: 'final drive before', value: reading.oldRatio, quantity: 'ratio' },
          { key: 'newRatio', label: 'final drive now', value: reading.newRatio, quantity: 'ratio' },
          {
            key: 'oldCircumferenceMm',
            label: `rolling circumference of ${was.tyre}`,
            value: reading.oldCircumferenceMm,
            quantity: 'length',
          },
          {
            key: 'newCircumferenceMm',
            label: tyre.measured ? 'rolling circumference now, measured' : 'rolling circumference now',
            value: reading.newCircumferenceMm,
            quantity: 'length',
          },
        ],
        sources: [EXACT],
        result: { label: 'true speed for 100 shown', quantity: 'percent' },
        compute: (v) => ({ value: 100 * speedReadingCorrection({ ...reading, ...v }) }),
      }),
  });
  const matters = Math.abs(factor - 1) > 0.02;
  d.finding({
    id: 'match.reading',
    verdict: matters ? 'watch' : 'fits',
    place: { sheet: 'gearing', tab: 'match', field: 'match-reading' },
    station: 'tyres',
    figures: [gearingFigures.reading()],
    rule: 'our guard band: 2 % of reading; recalibrate speed and shift points for the new ratio and tyre',
    facts: { matters, goes: fact(100 * factor, 'percent') },
    say: words.reading,
  });
}

function keptPoints(build: Build, own: AxleGearingState, d: Derivation): void {
  for (const point of build.points) {
    if (point.gear >= build.gearbox.gears.length || point.range >= (build.transfer?.ranges.length ?? 1)) continue;
    d.figure({
      id: gearingFigures.point(point.id),
      label: `${point.name}, road speed`,
      value: roadSpeed(gearingAt(build, own, point.gear, point.range), point.rpm),
      quantity: 'speed',
    });
  }
}
