import {
  HOLDS,
  effectiveFriction,
  entryBase,
  explain,
  formatUnit,
  perPackFromReading,
  wrenchReading,
  type AtTheWheel,
  type Hold,
  type WorkingInput,
  type WrenchReading,
} from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { PlateSpec } from './schema';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import { packFigures } from './ids';
import { packPrint } from './print';
import { packStateOf, type PackContext } from './pack-state';
import { breakaway, steadyTorque } from './readings';
import * as words from './words';
import { HOLD_WORDS } from './words';
import { EXACT } from '../frame/figure';
import { plateRadius, type PackState } from './state';

/** Prediction and measured breakaway further apart than this want an explanation: a guard band of ours. */
const BREAKAWAY_GUARD = 0.15;

/** Shim added on each side for the slope figure: 1 thou. */
const SLOPE_MM = 0.0254;

/** The mean torque of one pack behind a reading; null where the reading can't be one of packs at all. */
export function perPackOf(reading: WrenchReading, wheel: AtTheWheel): number | null {
  const locked = wrenchReading({ leftNm: 1, rightNm: 1 }, reading.hold, wheel).torqueNm === Number.POSITIVE_INFINITY;
  const drag = wrenchReading({ leftNm: 0, rightNm: 0 }, reading.hold, wheel).torqueNm;
  return locked || reading.torqueNm < drag ? null : perPackFromReading(reading, wheel);
}

const HOLD_FORMULAS = {
  'other-wheel-held':
    'reading = (left pack + right pack) ÷ 2 + R ÷ 2: with the carrier free both packs slip at half the wheel speed, and half of what both wheels take when they turn together is in it',
  'carrier-held': 'reading = left pack + right pack: with the carrier held both packs slip at full wheel speed',
  bench: 'reading = (left pack + right pack) ÷ 2: nothing else turns',
} as const;
const PARALLEL_FORMULA =
  'reading = (left pack + right pack) ÷ (1 − k): springs in parallel let the friction of one gear load the spiders and build up';

const turningInput = (hold: Hold, wheel: AtTheWheel): WorkingInput[] =>
  hold === 'other-wheel-held'
    ? [
        {
          key: 'turning',
          label: 'R, turning torque with both wheels free',
          value: wheel.turningNm ?? 0,
          quantity: 'torque',
        },
      ]
    : hold === 'carrier-held' && wheel.acts === 'parallel'
      ? [{ key: 'slope', label: 'k on overrun', value: wheel.slope ?? 0, quantity: 'coefficient' }]
      : [];

/** What the torque wrench reads for each hold, what was measured, what is wanted, and what one more shim does. */
export function wrenchFigures(
  plate: PlateSpec,
  axle: AxleName,
  state: PackState,
  readings: Readings,
  context: PackContext,
  d: Derivation,
): void {
  const { wheel } = state;
  const packs = { leftNm: state.left.breakawayNm, rightNm: state.right.breakawayNm };
  for (const hold of HOLDS) {
    const predicted = wrenchReading(packs, hold, wheel);
    const locked = predicted.torqueNm === Number.POSITIVE_INFINITY;
    d.figure({
      id: packFigures.wrench(axle, hold),
      label: `Torque wrench on a wheel, ${HOLD_WORDS[hold]}`,
      value: locked ? null : predicted.torqueNm,
      instead: 'locked',
      quantity: 'torque',
      explain: () =>
        explain({
          title: `What the torque wrench reads: ${HOLD_WORDS[hold]}`,
          formula: hold === 'carrier-held' && wheel.acts === 'parallel' ? PARALLEL_FORMULA : HOLD_FORMULAS[hold],
          inputs: [
            { key: 'leftNm', label: 'left pack', value: packs.leftNm, quantity: 'torque' },
            { key: 'rightNm', label: 'right pack', value: packs.rightNm, quantity: 'torque' },
            ...turningInput(hold, wheel),
          ],
          sources: [{ kind: 'exact', text: 'equilibrium of the differential, and energy for the drag' }],
          result: { label: 'torque wrench', quantity: 'torque' },
          note:
            hold === 'other-wheel-held' && !wheel.dragKnown
              ? 'The drag of the axle is not in it yet: read the turning torque with both wheels free.'
              : 'Breakaway is above the steady reading: note both.',
          compute: ({ leftNm = 0, rightNm = 0, turning = 0, slope: k = 0 }) => ({
            value: wrenchReading({ leftNm, rightNm }, hold, { ...wheel, turningNm: turning, slope: k }).torqueNm,
          }),
        }),
    });
    const reading = readings.get(breakaway.key({ axle, hold }));
    if (!reading) continue;
    if (ofOtherPacks(reading, plate)) {
      d.finding({
        id: `pack.measuredBreakaway.${axle}.${hold}`,
        verdict: 'not-yet',
        place: { sheet: 'pack', tab: 'wrench', axle, field: `breakaway-${hold}` },
        station: 'packs',
        figures: [packFigures.wrench(axle, hold)],
        rule: 'a reading belongs to the packs that it was taken on',
        facts: { hold: HOLD_WORDS[hold], measured: fact(readingBase(reading), 'torque') },
        say: words.measuredBefore,
      });
      continue;
    }
    const measured = { hold, torqueNm: readingBase(reading) };
    findSteady(axle, measured, readings, d);
    const perPack = perPackOf(measured, wheel);
    const off =
      predicted.torqueNm === 0 || locked ? Number.POSITIVE_INFINITY : measured.torqueNm / predicted.torqueNm - 1;
    const dragged = hold === 'other-wheel-held' && !wheel.dragKnown;
    const far = Math.abs(off) > BREAKAWAY_GUARD || perPack === null;
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
        predicted: fact(locked ? 0 : predicted.torqueNm, 'torque'),
        ...(perPack === null ? {} : { perPack: fact(perPack, 'torque') }),
        ...(Number.isFinite(off) ? { off: fact(100 * off, 'percent') } : {}),
        far,
        dragged,
        impossible: perPack === null ? (locked ? 'locked' : 'drag') : '',
      },
      say: words.measured,
    });
  }
  slope(plate, axle, state, readings, context, d);
  bedded(plate, axle, state, d);
  wanted(plate, axle, state, d);
  effective(plate, axle, state, readings, 'static', d);
  effective(plate, axle, state, readings, 'sliding', d);
}

/** Whether a reading was taken on packs that lie otherwise now; one that does not say on which counts. */
const ofOtherPacks = ({ subject }: InForce, plate: PlateSpec): boolean => {
  const on = (subject as { readonly packs?: string }).packs;
  return on !== undefined && on !== packPrint(plate);
};

/** A steady reading above the breakaway is no plate that was slipping. */
function findSteady(axle: AxleName, { hold, torqueNm }: WrenchReading, readings: Readings, d: Derivation): void {
  const steady = readings.get(steadyTorque.key({ axle, hold }));
  if (!steady || readingBase(steady) <= torqueNm) return;
  d.finding({
    id: `pack.steady.${axle}.${hold}`,
    verdict: 'watch',
    place: { sheet: 'pack', tab: 'wrench', axle, field: `breakaway-${hold}` },
    station: 'packs',
    figures: [packFigures.wrench(axle, hold)],
    rule: 'what breaks away is above what slips on [common practice]',
    facts: { hold: HOLD_WORDS[hold], breakaway: fact(torqueNm, 'torque'), steady: fact(readingBase(steady), 'torque') },
    say: words.steady,
  });
}

function slope(
  plate: PlateSpec,
  axle: AxleName,
  state: PackState,
  readings: Readings,
  context: PackContext,
  d: Derivation,
): void {
  const reading = (moreMm: number): number => {
    const { left, right, wheel } = packStateOf(plate, axle, readings, { ...context, moreMm });
    return wrenchReading({ leftNm: left.breakawayNm, rightNm: right.breakawayNm }, 'other-wheel-held', wheel).torqueNm;
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

/** What the wrench will read once the plates are bedded in: drag stays, the packs' part goes down. */
function bedded(plate: PlateSpec, axle: AxleName, state: PackState, d: Derivation): void {
  const share = plate.frictionBedded ? 1 : entryBase(plate.bedding) / 100;
  const hold = plate.wanted?.hold ?? 'other-wheel-held';
  const at = (leftNm: number, rightNm: number): number =>
    wrenchReading({ leftNm, rightNm }, hold, state.wheel).torqueNm;
  const { left, right } = state;
  const value = at(share * left.breakawayNm, share * right.breakawayNm);
  d.figure({
    id: packFigures.bedded(axle),
    label: 'Bedded in',
    value: Number.isFinite(value) ? value : null,
    instead: 'locked',
    quantity: 'torque',
    explain: () =>
      explain({
        title: `Breakaway when the plates are bedded in: ${HOLD_WORDS[hold]}`,
        formula: plate.frictionBedded
          ? 'the coefficient is of plates that are bedded in: nothing goes down any more'
          : 'packs bedded in = packs fresh × share that is left; drag stays as it is',
        inputs: [
          { key: 'left', label: 'left pack, fresh', value: left.breakawayNm, quantity: 'torque' },
          { key: 'right', label: 'right pack, fresh', value: right.breakawayNm, quantity: 'torque' },
          { key: 'share', label: 'left after bedding in', value: 100 * share, quantity: 'percent' },
        ],
        sources: [
          { kind: 'trade', text: '80 to 90 % is left, common practice; the shop’s own number is kept with the build' },
        ],
        result: { label: 'bedded in', quantity: 'torque' },
        note: 'Check it again after the run-in.',
        compute: ({ left: l = 0, right: r = 0, share: percent = 0 }) => ({
          value: at((l * percent) / 100, (r * percent) / 100),
        }),
      }),
  });
}

/** Band of one pack that the wanted reading stands for, N·m; null where nothing is wanted, or no pack can read so. */
export function wantedBandNm({ wanted: asked }: PlateSpec, wheel: AtTheWheel): readonly [number, number] | null {
  if (!asked) return null;
  const perPack = (torqueNm: number): number | null => perPackOf({ hold: asked.hold, torqueNm }, wheel);
  const [low, high] = [perPack(entryBase(asked.low)), perPack(entryBase(asked.high))];
  return low === null || high === null ? null : [low, high];
}

function wanted(plate: PlateSpec, axle: AxleName, { left, right, wheel }: PackState, d: Derivation): void {
  const { wanted: asked } = plate;
  if (!asked) return;
  const packs = { leftNm: left.breakawayNm, rightNm: right.breakawayNm };
  const { torqueNm } = wrenchReading(packs, asked.hold, wheel);
  if (!Number.isFinite(torqueNm)) return;
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

export type FrictionKind = 'static' | 'sliding';
const KIND_WORDS: Readonly<Record<FrictionKind, string>> = {
  static: 'Friction as measured, breaking away',
  sliding: 'Friction as measured, slipping',
};

export interface MeasuredFriction {
  readonly hold: Hold;
  readonly reading: InForce;
  readonly coefficient: number;
  /** Drag of the axle is in the reading and nobody has read it: the coefficient is too high by an unknown amount. */
  readonly dragged: boolean;
}

/**
 * The friction coefficient that the newest reading stands for, breaking away or slipping; null without one, with nothing
 * clamped, or where the reading can't be one of packs at all.
 */
export function measuredFriction(
  plate: PlateSpec,
  axle: AxleName,
  state: PackState,
  readings: Readings,
  kind: FrictionKind = 'static',
): MeasuredFriction | null {
  const subject = kind === 'static' ? breakaway : steadyTorque;
  const newest = HOLDS.flatMap((hold) => {
    const reading = readings.get(subject.key({ axle, hold }));
    return reading && !ofOtherPacks(reading, plate) ? [{ hold, reading }] : [];
  }).sort((a, b) => b.reading.seq - a.reading.seq)[0];
  const pressed = [state.left, state.right];
  if (!newest || pressed.every(({ interfaces, clampN }) => interfaces * clampN === 0)) return null;
  const perPack = perPackOf({ hold: newest.hold, torqueNm: readingBase(newest.reading) }, state.wheel);
  if (perPack === null) return null;
  return {
    ...newest,
    coefficient: effectiveFriction(perPack, pressed, plateRadius(plate)),
    dragged: newest.hold === 'other-wheel-held' && !state.wheel.dragKnown,
  };
}

function effective(
  plate: PlateSpec,
  axle: AxleName,
  state: PackState,
  readings: Readings,
  kind: FrictionKind,
  d: Derivation,
): void {
  const measured = measuredFriction(plate, axle, state, readings, kind);
  if (!measured) return;
  const { left, right, wheel } = state;
  const radius = plateRadius(plate);
  const torque = readingBase(measured.reading);
  const { hold } = measured;
  d.figure({
    id: packFigures.friction(axle, kind),
    label: KIND_WORDS[kind],
    value: measured.coefficient,
    quantity: 'coefficient',
    decimals: 3,
    explain: () =>
      explain({
        title: `Friction coefficient from the ${kind === 'static' ? 'measured breakaway' : 'steady reading'}`,
        formula:
          'T of a pack = M − R ÷ 2 with the other wheel held, M on the bench, by equilibrium in gear; μ = 2 × T of a pack ÷ (mean radius × (interfaces × clamp force, left + right))',
        inputs: [
          { key: 'torque', label: `M, reading, ${HOLD_WORDS[hold]}`, value: torque, quantity: 'torque' },
          ...turningInput(hold, wheel),
          { key: 'radius', label: 'mean friction radius', value: radius, quantity: 'length' },
          { key: 'left', label: 'clamp force, left', value: left.clampN, quantity: 'force' },
          { key: 'right', label: 'clamp force, right', value: right.clampN, quantity: 'force' },
          { key: 'nLeft', label: 'interfaces, left', value: left.interfaces, quantity: 'count' },
          { key: 'nRight', label: 'interfaces, right', value: right.interfaces, quantity: 'count' },
        ],
        sources: [
          {
            kind: 'exact',
            text: 'inverse of T = μ·n·F·r, Shigley, axial clutches; equilibrium and energy at the wheel',
          },
        ],
        result: { label: 'friction coefficient', quantity: 'coefficient' },
        ...(measured.dragged
          ? {
              note: 'The drag of the axle is still in it, so it is too high: read the turning torque with both wheels free.',
            }
          : {}),
        compute: (v) => {
          const perPack = perPackFromReading(
            { hold, torqueNm: v['torque'] ?? 0 },
            { ...wheel, turningNm: v['turning'] ?? 0, slope: v['slope'] ?? 0 },
          );
          return {
            value: effectiveFriction(
              perPack,
              [
                { interfaces: v['nLeft'] ?? 0, clampN: v['left'] ?? 0 },
                { interfaces: v['nRight'] ?? 0, clampN: v['right'] ?? 0 },
              ],
              v['radius'] ?? 0,
            ),
            steps: [{ label: 'torque of one pack', value: perPack, quantity: 'torque' }],
          };
        },
      }),
  });
}
