import { LIMITS, boxRatio, entryBase, entryOf, pairOnCentres, type BoxShaft } from '@hot-spline/core';
import {
  OVERLAP_PERCENT,
  type BoxInside,
  type BoxPairSpec,
  type BoxPieceSpec,
  type BoxShaftSpec,
} from '../library/box';
import type { Build } from '../frame/document';
import { gearPairs } from './state';

/** Teeth of a ratio that was typed as driven over driver; null where it was typed as a number. */
function typedTeeth(typed: string): { readonly driven: number; readonly driver: number } | null {
  const match = /^\s*(\d{1,3})\s*\/\s*(\d{1,3})\s*$/.exec(typed);
  return match ? { driven: Number(match[1]), driver: Number(match[2]) } : null;
}

/** Lengths of a box that nobody has measured: stand-ins of ours, listed as such. */
const STAND_IN = { gear: 18, hub: 20, ring: 11, dogs: 2, washer: 2, bearing: 19, proud: 0.1, module: 2.5 } as const;
/** What is a stand-in in a box that was just begun. */
export const NEW_BOX_ASSUMED = [
  'box.centre',
  'box.module',
  'box.helix',
  'box.pressureAngle',
  ...(['driving', 'driven'] as const).flatMap((shaft) =>
    (['from', 'length', 'before', 'pieces'] as const).map((key) => `box.shafts.${shaft}.${key}` as const),
  ),
];
/** What is a stand-in in a drum that was just begun. */
export const NEW_DRUM_ASSUMED = ['box.drum.radius', 'box.drum.slop', 'box.drum.depth', 'box.drum.detents'];

const piece = (
  id: string,
  kind: BoxPieceSpec['kind'],
  widthMm: number,
  more: Partial<BoxPieceSpec> = {},
): BoxPieceSpec => ({
  id,
  kind,
  name: '',
  width: entryOf(widthMm, 'mm'),
  pair: null,
  loose: false,
  cut: false,
  cutWhy: '',
  sleeve: null,
  dogs: null,
  ring: null,
  fit: 'slide',
  oiled: true,
  face: '',
  ...more,
});

const newShaft = (pieces: BoxPieceSpec[]): BoxShaftSpec => {
  const sum = pieces.reduce((all, { width, sleeve }) => all + entryBase(sleeve ?? width), 0);
  return {
    from: entryOf(0, 'mm'),
    length: entryOf(sum - STAND_IN.proud, 'mm'),
    closed: 'nut',
    nutTorque: null,
    before: null,
    runOut: null,
    float: null,
    between: null,
    arrangement: null,
    located: null,
    shim: null,
    pieces,
  };
};

/** A pair of teeth as a new pair of a box. */
export const newPair = (
  id: string,
  {
    driver,
    driven,
    fits = [],
  }: { readonly driver: number; readonly driven: number; readonly fits?: readonly number[] },
): BoxPairSpec => ({
  id,
  driver,
  driven,
  constant: false,
  idler: null,
  shiftSum: null,
  driverHand: null,
  drivenHand: null,
  fits: [...fits],
  lifeHours: null,
  fromRun: 0,
});

/**
 * A box of two shafts to begin with: fixed gears that drive, loose ones that are driven, a hub between each two. Its lengths are stand-ins.
 * @returns null where a gear is not said by its teeth
 */
export function newBox({ gearbox }: Pick<Build, 'gearbox'>): BoxInside | null {
  const teeth = gearbox.gears.map(({ ratio }) => typedTeeth(ratio.typed));
  if (teeth.includes(null)) return null;
  const pairs = teeth.flatMap((one, i) => (one ? [newPair(`p${i + 1}`, one)] : []));
  // A reduction of one gear has no hub: it is always in.
  const fixed = pairs.length === 1;
  const [driving, driven]: BoxPieceSpec[][] = [[], []];
  const put = (shaft: BoxShaft, one: BoxPieceSpec): void => void (shaft === 'driving' ? driving : driven)?.push(one);
  for (const shaft of ['driving', 'driven'] as const) put(shaft, piece(`${shaft}-first`, 'bearing', STAND_IN.bearing));
  pairs.forEach(({ id }, i) => {
    const between = i % 2 === 1;
    if (between) {
      put('driving', piece(`driving-space${i}`, 'spacer', STAND_IN.hub));
      put('driven', piece(`hub${i}`, 'hub', STAND_IN.hub, { ring: entryOf(STAND_IN.ring, 'mm') }));
    }
    put('driving', piece(`driving-${id}`, 'gear', STAND_IN.gear, { pair: id }));
    put(
      'driven',
      piece(
        `driven-${id}`,
        'gear',
        STAND_IN.gear,
        fixed ? { pair: id } : { pair: id, loose: true, dogs: entryOf(STAND_IN.dogs, 'mm') },
      ),
    );
    if (fixed) return;
    if (i === pairs.length - 1 && !between) {
      put('driving', piece('driving-space-last', 'spacer', STAND_IN.hub));
      put('driven', piece('hub-last', 'hub', STAND_IN.hub, { ring: entryOf(STAND_IN.ring, 'mm') }));
    } else if (between && i < pairs.length - 1)
      for (const shaft of ['driving', 'driven'] as const)
        put(shaft, piece(`${shaft}-washer${i}`, 'washer', STAND_IN.washer));
  });
  for (const shaft of ['driving', 'driven'] as const) put(shaft, piece(`${shaft}-last`, 'bearing', STAND_IN.bearing));
  const sums = pairs.map((one) => one.driver + one.driven);
  const centre = (STAND_IN.module * Math.max(...sums)) / 2;
  return {
    centre: entryOf(centre, 'mm'),
    module: entryOf(STAND_IN.module, 'mm'),
    helix: entryOf(0, '°'),
    pressureAngle: entryOf(20, '°'),
    overlap: entryOf(OVERLAP_PERCENT, '%'),
    dogGap: null,
    dogs: null,
    alloy: null,
    caseRise: null,
    shaftRise: null,
    pairs,
    wearing: [],
    shafts: { driving: newShaft(driving ?? []), driven: newShaft(driven ?? []) },
    drum: null,
    hubPlay: null,
    places: [],
  };
}

/** Teeth that are put in the place of a pair: from the shelf, or from any list. */
export interface OtherTeeth {
  readonly driver: number;
  readonly driven: number;
  readonly fits: readonly number[];
  /** Profile shifts of the pair by its maker; null where he does not say. */
  readonly shiftSum: number | null;
}

/**
 * A box with another pair in the place of one: its gears stay where they are on their shafts, its hands too; its hours begin.
 * @param lastRun the last run that was logged: what was run before was not run with it
 */
export function withPair(
  inside: BoxInside,
  id: string,
  { driver, driven, fits, shiftSum }: OtherTeeth,
  lastRun: number,
): BoxInside {
  const other = { driver, driven, fits: [...fits], shiftSum, lifeHours: null, fromRun: lastRun };
  return { ...inside, pairs: inside.pairs.map((pair) => (pair.id === id ? { ...pair, ...other } : pair)) };
}

/** A box out of the library, or kept in it: nothing has been run with it. */
export const unrun = (inside: BoxInside, lastRun: number): BoxInside => ({
  ...inside,
  pairs: inside.pairs.map((pair) => ({ ...pair, fromRun: lastRun })),
  wearing: inside.wearing.map((one) => ({ ...one, fromRun: lastRun })),
});

/** Puts the gears of the box where every speed is worked out by: one set of gears in both places. */
export function takeGears(draft: Pick<Build, 'gearbox' | 'box'>): void {
  const { box } = draft;
  if (!box) return;
  const constant = box.pairs.some((pair) => pair.constant);
  const gears = gearPairs(box).map((pair, i) => {
    const value = boxRatio(box, pair);
    const name = draft.gearbox.gears[i]?.name ?? String(i + 1);
    const typed = constant ? value.toFixed(4) : `${pair.driven}/${pair.driver}`;
    return { name, ratio: { typed, value: constant ? Number(typed) : value, unit: '' as const } };
  });
  if (gears.length > 0) draft.gearbox.gears = gears;
  draft.gearbox.from = null;
}

/** The nearest pair of teeth of the same ratio that goes on the centres of the box, with the given sum of teeth first; null where none does. */
export function pairThatGoes(
  inside: BoxInside,
  ratio: number,
  shiftSum: number | null,
): { driver: number; driven: number } | null {
  const base = {
    normalModuleMm: entryBase(inside.module),
    helixDeg: entryBase(inside.helix),
    pressureAngleDeg: entryBase(inside.pressureAngle),
    centreMm: entryBase(inside.centre),
  };
  const usual = Math.floor((2 * base.centreMm * Math.cos((base.helixDeg * Math.PI) / 180)) / base.normalModuleMm);
  let best: { driver: number; driven: number; off: number } | null = null;
  for (let sum = Math.max(6, usual - 3); sum <= usual; sum++) {
    const driver = Math.round(sum / (1 + ratio));
    const driven = sum - driver;
    if (Math.min(driver, driven) < LIMITS.teeth.min || Math.max(driver, driven) > LIMITS.teeth.max) continue;
    const fit = pairOnCentres({
      ...base,
      teeth: [driver, driven],
      ...(shiftSum === null ? {} : { shiftSumGiven: shiftSum }),
    });
    if (fit.verdict !== 'fits' && fit.verdict !== 'can-fit') continue;
    const off = Math.abs(driven / driver / ratio - 1);
    if (!best || off < best.off) best = { driver, driven, off };
  }
  return best && { driver: best.driver, driven: best.driven };
}
