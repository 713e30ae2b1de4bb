import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { BOX_LIMITS } from './limits';
import type { Hand } from './reduction';

/** Both shafts of a box: the one whose gears drive (input, or layshaft), and the one that they drive (output, or main shaft). */
export const BOX_SHAFTS = ['driving', 'driven'] as const;
export type BoxShaft = (typeof BOX_SHAFTS)[number];
export const otherShaft = (shaft: BoxShaft): BoxShaft => (shaft === 'driving' ? 'driven' : 'driving');

export const BOX_PIECES = ['gear', 'hub', 'spacer', 'washer', 'bearing', 'clip'] as const;
export type BoxPieceKind = (typeof BOX_PIECES)[number];

/** One piece of a shaft, in its place between the shoulder and what closes the stack. */
export interface BoxPiece {
  readonly id: string;
  readonly kind: BoxPieceKind;
  /** Along the shaft. */
  readonly widthMm: number;
  /** Of a gear: the pair that it is of; of any other piece none. */
  readonly pair: string | null;
  /** Of a gear: it turns on its shaft until a hub takes it. */
  readonly loose: boolean;
  /** Of a loose gear: its needle sleeve, which is what is clamped in its place; null where there is none. */
  readonly sleeveMm: number | null;
  /** Of a loose gear: how far its dogs stand out of it, towards its hub. */
  readonly dogMm: number;
  /** Of a hub: its ring over both rows of dogs; null where it has not been measured. */
  readonly ringMm: number | null;
}

/** A pair of gears. Of the constant one, which turns a layshaft, the driver stands on the driven shaft’s line. */
export interface BoxPair {
  readonly id: string;
  readonly driver: number;
  readonly driven: number;
  readonly constant: boolean;
  /** Profile shifts of both together by their maker; null where he does not say. */
  readonly shiftSum: number | null;
  /** Hands of the teeth; null of straight-cut ones. */
  readonly driverHand: Hand | null;
  readonly drivenHand: Hand | null;
  /** Gears that it fits by its maker, 1 for first; every one where it is empty. */
  readonly fits: readonly number[];
}

export interface BoxStack {
  /** Place of the shoulder, from one datum for both shafts, towards what closes the stack. */
  readonly fromMm: number;
  /** From the shoulder to the face that the nut lies on, or to the far side of the groove of the clip. */
  readonly lengthMm: number;
  readonly closed: 'nut' | 'clip';
  /** End float of the shaft, whole. */
  readonly floatMm: number;
  readonly pieces: readonly BoxPiece[];
}

export interface StackedBox {
  readonly centreMm: number;
  readonly normalModuleMm: number;
  readonly helixDeg: number;
  readonly pressureAngleDeg: number;
  /** Faces on each other at the worst of both floats, of the narrower one. */
  readonly overlapShare: number;
  /** That the dogs want between them in neutral, each side; null where nobody has said. */
  readonly dogGapMm: number | null;
  readonly shafts: Readonly<Record<BoxShaft, BoxStack>>;
  /** In the order of the gears; the constant one wherever it stands. */
  readonly pairs: readonly BoxPair[];
}

/** A piece where it lies. */
export interface Laid {
  readonly piece: BoxPiece;
  /** What it takes of the stack. */
  readonly fromMm: number;
  readonly toMm: number;
  /** The piece itself: within its sleeve’s length, where it has one. */
  readonly faceFromMm: number;
  readonly faceToMm: number;
}

/** Every piece of a stack where it lies, from the shoulder on [exact]. A gear stands in the middle of its sleeve. */
export function layStack({ fromMm, pieces }: BoxStack): readonly Laid[] {
  let at = fromMm;
  return pieces.map((piece): Laid => {
    const takes = piece.sleeveMm ?? piece.widthMm;
    const [from, to] = [at, at + takes];
    at = to;
    const middle = (from + to) / 2;
    return {
      piece,
      fromMm: from,
      toMm: to,
      faceFromMm: middle - piece.widthMm / 2,
      faceToMm: middle + piece.widthMm / 2,
    };
  });
}

/** Teeth of the gear of a pair that stands on a shaft. */
export const teethOn = ({ driver, driven, constant }: BoxPair, shaft: BoxShaft): number =>
  (shaft === 'driving') === !constant ? driver : driven;

/** Hand of the gear of a pair that stands on a shaft; null where it is straight-cut, or nobody has said. */
export const handOn = ({ driverHand, drivenHand, constant }: BoxPair, shaft: BoxShaft): Hand | null =>
  (shaft === 'driving') === !constant ? driverHand : drivenHand;

/** Ratio of each gear of a box, the constant pair counted in; of the constant one its own [exact]. */
export function boxRatio({ pairs }: Pick<StackedBox, 'pairs'>, pair: BoxPair): number {
  const own = pair.driven / pair.driver;
  const constant = pairs.find((one) => one.constant);
  return pair.constant || !constant ? own : (own * constant.driven) / constant.driver;
}

/** @throws InputError naming the field of a box that is none */
export function requireBox(box: StackedBox): void {
  requireNumber('centreMm', box.centreMm, BOX_LIMITS.centreMm);
  requireNumber('normalModuleMm', box.normalModuleMm, BOX_LIMITS.normalModuleMm);
  requireNumber('helixDeg', box.helixDeg, BOX_LIMITS.helixDeg);
  requireNumber('pressureAngleDeg', box.pressureAngleDeg, BOX_LIMITS.pressureAngleDeg);
  requireNumber('overlapShare', box.overlapShare, { above: 0, max: 1 });
  if (box.dogGapMm !== null) requireNumber('dogGapMm', box.dogGapMm, BOX_LIMITS.floatMm);
  requireNumber('pairs', box.pairs.length, { min: 1, max: BOX_LIMITS.gears.max + 1, integer: true });
  box.pairs.forEach(({ id, driver, driven, constant }, i) => {
    requireNumber(`pairs[${i}].driver`, driver, LIMITS.teeth);
    requireNumber(`pairs[${i}].driven`, driven, LIMITS.teeth);
    if (box.pairs.findIndex((other) => other.id === id) !== i)
      throw new InputError(`pairs[${i}].id`, `pairs[${i}] is called like another one.`, 'an id of its own');
    if (constant && box.pairs.findIndex((other) => other.constant) !== i)
      throw new InputError(`pairs[${i}].constant`, 'There is one constant pair already.', 'one at most');
  });
  const known = new Set<string>();
  for (const shaft of BOX_SHAFTS) {
    const { fromMm, lengthMm, floatMm, pieces } = box.shafts[shaft];
    requireNumber(`shafts.${shaft}.fromMm`, fromMm, BOX_LIMITS.placeMm);
    requireNumber(`shafts.${shaft}.lengthMm`, lengthMm, BOX_LIMITS.lengthMm);
    requireNumber(`shafts.${shaft}.floatMm`, floatMm, BOX_LIMITS.floatMm);
    requireNumber(`shafts.${shaft}.pieces`, pieces.length, BOX_LIMITS.pieces);
    pieces.forEach((piece, i) => {
      const field = `shafts.${shaft}.pieces[${i}]`;
      requireNumber(`${field}.widthMm`, piece.widthMm, BOX_LIMITS.lengthMm);
      if (piece.sleeveMm !== null) requireNumber(`${field}.sleeveMm`, piece.sleeveMm, BOX_LIMITS.lengthMm);
      if (piece.ringMm !== null) requireNumber(`${field}.ringMm`, piece.ringMm, BOX_LIMITS.lengthMm);
      requireNumber(`${field}.dogMm`, piece.dogMm, BOX_LIMITS.floatMm);
      if (known.has(piece.id))
        throw new InputError(`${field}.id`, `${field} is called like another one.`, 'an id of its own');
      known.add(piece.id);
      if ((piece.kind === 'gear') !== (piece.pair !== null))
        throw new InputError(`${field}.pair`, `${field}.pair: a gear is of a pair, nothing else is.`, 'a pair');
      if (piece.pair !== null && !box.pairs.some(({ id }) => id === piece.pair))
        throw new InputError(
          `${field}.pair`,
          `${field}.pair is none of this box.`,
          box.pairs.map(({ id }) => id).join(', '),
        );
    });
  }
}
