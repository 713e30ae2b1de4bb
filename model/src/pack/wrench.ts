import {
  HOLDS,
  effectiveFriction,
  entryBase,
  explain,
  formatUnit,
  perPackFromReading,
  wrenchReading,
  type Hold,
} from '@hot-spline/core';
import type { AxleName, Side } from '../document/names';
import type { PlateSpec } from './schema';
import type { Derivation } from '../engine/derivation';
import { fact } from '../engine/finding';
import { readingBase, type InForce, type Readings } from '../engine/readings';
import { packFigures } from './ids';
import { breakaway } from './readings';
import * as words from './words';
import { HOLD_WORDS } from './words';
import { EXACT } from '../engine/figure';
import { packSideState, plateRadius, type PackSideState, type PackState } from './state';

/** Prediction and measured breakaway further apart than this want an explanation: a guard band of ours. */
const BREAKAWAY_GUARD = 0.15;

/** Shim added on each side for the slope figure: 1 thou. */
const SLOPE_MM = 0.0254;

/** What the torque wrench reads for each hold, what was measured, what is wanted, and what one more shim does. */
export function wrenchFigures(
  plate: PlateSpec,
  axle: AxleName,
  state: PackState,
  readings: Readings,
  d: Derivation,
): void {
  const packs = { leftNm: state.left.breakawayNm, rightNm: state.right.breakawayNm };
  for (const hold of HOLDS) {
    const predicted = wrenchReading(packs, hold);
    d.figure({
      id: packFigures.wrench(axle, hold),
      label: `Torque wrench on a wheel, ${HOLD_WORDS[hold]}`,
      value: predicted.torqueNm,
      quantity: 'torque',
      explain: () =>
        explain({
          title: `What the torque wrench reads: ${HOLD_WORDS[hold]}`,
          formula:
            hold === 'carrier-held'
              ? 'reading = left pack + right pack: with the carrier held both packs slip at full wheel speed'
              : 'reading = (left pack + right pack) ÷ 2: with the carrier free both packs slip at half the wheel speed',
          inputs: [
            { key: 'leftNm', label: 'left pack', value: packs.leftNm, quantity: 'torque' },
            { key: 'rightNm', label: 'right pack', value: packs.rightNm, quantity: 'torque' },
          ],
          sources: [{ kind: 'exact', text: 'equilibrium of the differential' }],
          result: { label: 'torque wrench', quantity: 'torque' },
          note: 'Breakaway is above the steady reading: note both.',
          compute: ({ leftNm = 0, rightNm = 0 }) => ({ value: wrenchReading({ leftNm, rightNm }, hold).torqueNm }),
        }),
    });
    const reading = readings.get(breakaway.key({ axle, hold }));
    if (!reading) continue;
    const measured = { hold, torqueNm: readingBase(reading) };
    const off = predicted.torqueNm === 0 ? Number.POSITIVE_INFINITY : measured.torqueNm / predicted.torqueNm - 1;
    const far = Math.abs(off) > BREAKAWAY_GUARD;
    d.finding({
      id: `pack.measuredBreakaway.${axle}.${hold}`,
      verdict: far ? 'watch' : 'fits',
      place: { sheet: 'pack', tab: 'wrench', axle, field: `breakaway-${hold}` },
      station: 'packs',
      figures: [packFigures.wrench(axle, hold)],
      rule: 'our guard band: measured within 15 % of the prediction for the same hold',
      facts: {
        hold: HOLD_WORDS[hold],
        measured: fact(measured.torqueNm, 'torque'),
        predicted: fact(predicted.torqueNm, 'torque'),
        perPack: fact(perPackFromReading(measured), 'torque'),
        ...(Number.isFinite(off) ? { off: fact(100 * off, 'percent') } : {}),
        far,
      },
      say: words.measured,
    });
  }
  slope(plate, axle, state, readings, d);
  bedded(plate, axle, packs, d);
  wanted(plate, axle, packs, d);
  effective(plate, axle, state, readings, d);
}

function slope(plate: PlateSpec, axle: AxleName, state: PackState, readings: Readings, d: Derivation): void {
  const reading = (moreMm: number): number => {
    const side = (name: Side): PackSideState => packSideState(plate, axle, name, readings, moreMm);
    return wrenchReading({ leftNm: side('left').breakawayNm, rightNm: side('right').breakawayNm }, 'other-wheel-held')
      .torqueNm;
  };
  const id = packFigures.slope(axle);
  const label = `One thou (${formatUnit(SLOPE_MM, 'mm')} mm) more shim a side`;
  if (state.left.clampProblem || state.right.clampProblem || plate.preload.from !== 'dished-springs') {
    d.figure({ id, label, value: null, instead: 'none', quantity: 'torque' });
    return;
  }
  const now = reading(0);
  d.figure({
    id,
    label,
    value: reading(SLOPE_MM) - now,
    quantity: 'torque',
    decimals: 2,
    explain: () =>
      explain({
        title: label,
        formula: 'reading with the shim − reading without it; other wheel held, gearbox in neutral',
        inputs: [{ key: 'more', label: 'shim added on each side', value: SLOPE_MM, quantity: 'length' }],
        sources: [EXACT],
        result: { label: 'change of the reading', quantity: 'torque' },
        compute: ({ more = 0 }) => ({
          value: reading(more) - now,
          steps: [
            { label: 'reading now', value: now, quantity: 'torque' },
            { label: 'reading with the shim', value: reading(more), quantity: 'torque' },
          ],
        }),
      }),
  });
}

/** What the wrench will read once the plates are bedded in. */
function bedded(plate: PlateSpec, axle: AxleName, packs: { leftNm: number; rightNm: number }, d: Derivation): void {
  const share = entryBase(plate.bedding) / 100;
  const hold = plate.wanted?.hold ?? 'other-wheel-held';
  const fresh = wrenchReading(packs, hold).torqueNm;
  d.figure({
    id: packFigures.bedded(axle),
    label: 'Bedded in',
    value: share * fresh,
    quantity: 'torque',
    explain: () =>
      explain({
        title: `Breakaway when the plates are bedded in: ${HOLD_WORDS[hold]}`,
        formula: 'bedded in = fresh × share that is left',
        inputs: [
          { key: 'fresh', label: 'predicted fresh', value: fresh, quantity: 'torque' },
          { key: 'share', label: 'left after bedding in', value: 100 * share, quantity: 'percent' },
        ],
        sources: [
          { kind: 'trade', text: '80 to 90 % is left, common practice; the shop’s own number is kept with the build' },
        ],
        result: { label: 'bedded in', quantity: 'torque' },
        note: 'Check it again after the run-in.',
        compute: ({ fresh: nm = 0, share: percent = 0 }) => ({ value: (nm * percent) / 100 }),
      }),
  });
}

/** Band of one pack that the wanted reading stands for, N·m. */
export function wantedBandNm({ wanted: asked }: PlateSpec): readonly [number, number] | null {
  if (!asked) return null;
  const perPack = (torqueNm: number): number => perPackFromReading({ hold: asked.hold, torqueNm });
  return [perPack(entryBase(asked.low)), perPack(entryBase(asked.high))];
}

function wanted(plate: PlateSpec, axle: AxleName, packs: { leftNm: number; rightNm: number }, d: Derivation): void {
  const { wanted: asked } = plate;
  if (!asked) return;
  const { torqueNm } = wrenchReading(packs, asked.hold);
  const [low, high] = [entryBase(asked.low), entryBase(asked.high)];
  const fits = torqueNm >= low && torqueNm <= high;
  d.finding({
    id: `pack.wanted.${axle}`,
    verdict: fits ? 'fits' : 'watch',
    place: { sheet: 'pack', tab: 'wanted', axle, field: 'wanted-low' },
    station: 'packs',
    figures: [packFigures.wrench(axle, asked.hold)],
    rule: 'breakaway wanted on this sheet; the maker’s sheet wins',
    facts: {
      hold: HOLD_WORDS[asked.hold],
      predicted: fact(torqueNm, 'torque'),
      low: fact(low, 'torque'),
      high: fact(high, 'torque'),
      fits,
    },
    say: words.wanted,
  });
}

/** The friction coefficient that the newest breakaway reading stands for; null without one, or with nothing clamped. */
export function measuredFriction(
  plate: PlateSpec,
  axle: AxleName,
  state: PackState,
  readings: Readings,
): { readonly hold: Hold; readonly reading: InForce; readonly coefficient: number } | null {
  const newest = HOLDS.flatMap((hold) => {
    const reading = readings.get(breakaway.key({ axle, hold }));
    return reading ? [{ hold, reading }] : [];
  }).sort((a, b) => b.reading.seq - a.reading.seq)[0];
  const pressed = [state.left, state.right];
  if (!newest || pressed.every(({ interfaces, clampN }) => interfaces * clampN === 0)) return null;
  const perPack = perPackFromReading({ hold: newest.hold, torqueNm: readingBase(newest.reading) });
  return { ...newest, coefficient: effectiveFriction(perPack, pressed, plateRadius(plate)) };
}

function effective(plate: PlateSpec, axle: AxleName, state: PackState, readings: Readings, d: Derivation): void {
  const measured = measuredFriction(plate, axle, state, readings);
  if (!measured) return;
  const { left, right } = state;
  const radius = plateRadius(plate);
  const torque = readingBase(measured.reading);
  d.figure({
    id: packFigures.friction(axle),
    label: 'Friction as measured',
    value: measured.coefficient,
    quantity: 'coefficient',
    decimals: 3,
    explain: () =>
      explain({
        title: 'Friction coefficient from the measured breakaway',
        formula: 'μ = 2 × torque of a pack ÷ (mean radius × (interfaces × clamp force, left + right))',
        inputs: [
          { key: 'torque', label: `reading, ${HOLD_WORDS[measured.hold]}`, value: torque, quantity: 'torque' },
          { key: 'radius', label: 'mean friction radius', value: radius, quantity: 'length' },
          { key: 'left', label: 'clamp force, left', value: left.clampN, quantity: 'force' },
          { key: 'right', label: 'clamp force, right', value: right.clampN, quantity: 'force' },
          { key: 'nLeft', label: 'interfaces, left', value: left.interfaces, quantity: 'count' },
          { key: 'nRight', label: 'interfaces, right', value: right.interfaces, quantity: 'count' },
        ],
        sources: [{ kind: 'exact', text: 'inverse of T = μ·n·F·r, Shigley, axial clutches' }],
        result: { label: 'friction coefficient', quantity: 'coefficient' },
        compute: ({ torque: nm = 0, radius: mm = 0, left: fl = 0, right: fr = 0, nLeft = 0, nRight = 0 }) => ({
          value: effectiveFriction(
            perPackFromReading({ hold: measured.hold, torqueNm: nm }),
            [
              { interfaces: nLeft, clampN: fl },
              { interfaces: nRight, clampN: fr },
            ],
            mm,
          ),
        }),
      }),
  });
}
