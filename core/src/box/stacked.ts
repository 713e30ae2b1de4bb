import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { BOX_LIMITS } from './limits';
import type { Hand } from './reduction';

/** Both shafts of a box: the one whose gears drive (input, or layshaft), and the one that they drive (output, or main shaft). */
export const BOX_SHAFTS = ['driving', 'driven'] as const;
export type BoxShaft = (typeof BOX_SHAFTS)[number];
export const otherShaft = (shaft: BoxShaft): BoxShaft => (shaft === 'driving' ? 'driven' : 'driving');

/** A collar is a shoulder of the shaft itself, with pieces on either side of it. */
export const BOX_PIECES = ['gear', 'hub', 'spacer', 'washer', 'bearing', 'clip', 'collar'] as const;
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
  /** Teeth of the idler between both gears, which turns the reverse gear round; null where they mesh with each other. */
  readonly idler: number | null;
  /** Profile shifts of both together by their maker; null where he does not say. */
  readonly shiftSum: number | null;
  /** Hands of the teeth; null of straight-cut ones. */
  readonly driverHand: Hand | null;
  readonly drivenHand: Hand | null;
  /** Gears that it fits by its maker, 1 for first; every one where it is empty. */
  readonly fits: readonly number[];
}

/** What holds pieces against a shoulder. */
export interface Closing {
  /** From the shoulder to the face that the nut lies on, or to the far side of the groove of the clip. */
  readonly lengthMm: number;
  readonly closed: 'nut' | 'clip';
}

export interface BoxStack extends Closing {
  /** Place of the shoulder, from one datum for both shafts, towards what closes the stack. Of a shaft with a collar: its near face. */
  readonly fromMm: number;
  /** What closes the pieces before the collar; null of a shaft that is stacked from one end. */
  readonly before: Closing | null;
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

const takesOf = ({ sleeveMm, widthMm }: BoxPiece): number => sleeveMm ?? widthMm;
/** Index of the collar; -1 on a shaft that is stacked from one end. */
const collarOf = (pieces: readonly BoxPiece[]): number => pieces.findIndex(({ kind }) => kind === 'collar');

/** The two heaps of a stack, each from its shoulder outwards; what is before a collar comes on from the other end. */
export function heaps<T>(pieces: readonly T[], kindOf: (piece: T) => BoxPieceKind): { before: T[]; after: T[] } {
  const at = pieces.findIndex((piece) => kindOf(piece) === 'collar');
  return at < 0
    ? { before: [], after: [...pieces] }
    : { before: pieces.slice(0, at).toReversed(), after: pieces.slice(at + 1) };
}

/** Every piece of a stack where it lies, from its shoulder on, both ways from a collar [exact]. A gear stands in the middle of its sleeve. */
export function layStack({ fromMm, pieces }: BoxStack): readonly Laid[] {
  const collar = collarOf(pieces);
  let at = fromMm - pieces.slice(0, Math.max(0, collar)).reduce((sum, piece) => sum + takesOf(piece), 0);
  return pieces.map((piece): Laid => {
    const [from, to] = [at, at + takesOf(piece)];
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

/** A gear that turns the car backwards: an idler lies between its two. */
export const isReverse = ({ idler }: Pick<BoxPair, 'idler'>): boolean => idler !== null;
/** Gears that drive forwards, first to last: neither what turns the layshaft nor reverse. */
export const forwardPairs = <P extends Pick<BoxPair, 'constant' | 'idler'>>(pairs: readonly P[]): readonly P[] =>
  pairs.filter((pair) => !pair.constant && !isReverse(pair));

/** Ratio of each gear of a box, the constant pair counted in, an idler changes none; of the constant one its own [exact]. */
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
    const { idler } = box.pairs[i] as BoxPair;
    if (idler !== null) {
      requireNumber(`pairs[${i}].idler`, idler, LIMITS.teeth);
      if (constant)
        throw new InputError(`pairs[${i}].idler`, 'The constant pair has no idler.', 'an idler of the reverse gear');
    }
    if (constant && box.pairs.findIndex((other) => other.constant) !== i)
      throw new InputError(`pairs[${i}].constant`, 'There is one constant pair already.', 'one at most');
  });
  const known = new Set<string>();
  for (const shaft of BOX_SHAFTS) {
    const { fromMm, lengthMm, floatMm, pieces, before } = box.shafts[shaft];
    const collars = pieces.filter(({ kind }) => kind === 'collar').length;
    if (collars > 1)
      throw new InputError(`shafts.${shaft}.pieces`, `shafts.${shaft} has ${collars} collars.`, 'one at most');
    if (collars > 0 !== (before !== null))
      throw new InputError(
        `shafts.${shaft}.before`,
        collars > 0
          ? `shafts.${shaft} has a collar: what closes the pieces before it is not said.`
          : `shafts.${shaft} has no collar: nothing stands before it.`,
        'a closing with a collar, none without',
      );
    if (before) requireNumber(`shafts.${shaft}.before.lengthMm`, before.lengthMm, BOX_LIMITS.lengthMm);
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
