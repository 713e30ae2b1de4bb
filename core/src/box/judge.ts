import { InputError } from '../base/errors';
import { pairOnCentres, type PairVerdict } from './pair';
import { faceOverlap } from './stack';
import {
  BOX_SHAFTS,
  forwardPairs,
  handOn,
  heaps,
  isReverse,
  layStack,
  otherShaft,
  requireBox,
  teethOn,
  type BoxPair,
  type BoxPiece,
  type BoxShaft,
  type Closing,
  type Laid,
  type StackedBox,
} from './stacked';

/** How an idler stands between two gears. */
export interface IdlerFit {
  readonly verdict: 'fits' | 'gears meet' | 'does not reach';
  /** Between the tips of the two gears, by plain teeth; negative: they run into each other. */
  readonly clearMm: number;
  /** Centre of the idler from the line of both shafts; 0 where it does not reach. */
  readonly asideMm: number;
}

/** How one pair stands in its box. */
export interface PairJudged {
  readonly pair: BoxPair;
  /** On these centres; null where its teeth do not meet at all. */
  readonly centres: { readonly verdict: PairVerdict; readonly shiftSum: number; readonly playMm: number | null } | null;
  /** Its faces on each other; null where one of its gears is on no shaft. */
  readonly overlap: { readonly overlapMm: number; readonly share: number; readonly worstShare: number } | null;
  /** From the middle of one face to the middle of the other. */
  readonly planesApartMm: number | null;
  /** Of a reverse gear: whether its two keep clear of each other, and the idler reaches both; null of any other. */
  readonly idler: IdlerFit | null;
  /** Hands that do not go together, or one that is not said where the box is helical. */
  readonly hands: 'opposite' | 'alike' | 'not said' | 'straight';
  /** Whether it is in a gear that its maker made it for. */
  readonly place: boolean;
  /** Which of its gears are on their shafts: one each, or what is missing or twice. */
  readonly onShafts: Readonly<Record<BoxShaft, number>>;
  /** Of a reverse gear: neither of its gears is loose, its idler slides in. */
  readonly slides: boolean;
  /** The shaft on which it turns loosely; null: on none, or on both, and no gear comes of it. */
  readonly looseOn: BoxShaft | null;
  /** The hub that takes it; null where none stands beside it. */
  readonly hub: string | null;
}

/** A ring in neutral against the dogs of one of its gears. */
export interface DogGap {
  readonly shaft: BoxShaft;
  readonly hub: string;
  readonly pair: string;
  /** Which way the ring goes for it: + towards what closes the stack. */
  readonly side: '+' | '-';
  /** Between the dogs; negative: they touch in neutral. */
  readonly gapMm: number;
}

/** Pieces against what closes them. */
export interface Held {
  readonly sumMm: number;
  /** What the shaft has more than the stack: play of the pieces. Below nought they stand proud of it by as much. */
  readonly spareMm: number;
  /** A nut clamps a stack that stands proud; a clip goes in where something is spare. */
  readonly holds: boolean;
}

export interface StackJudged extends Held {
  readonly shaft: BoxShaft;
  readonly laid: readonly Laid[];
  /** What stands before the collar; null of a shaft that is stacked from one end. */
  readonly before: Held | null;
  /** Loose gears that their sleeve leaves no play. */
  readonly tight: readonly string[];
  /** Hubs that no gear stands beside. */
  readonly idle: readonly string[];
}

export interface BoxJudged {
  readonly shafts: Readonly<Record<BoxShaft, StackJudged>>;
  readonly pairs: readonly PairJudged[];
  readonly gaps: readonly DogGap[];
}

/** What a hub reaches on one side: the next piece that is no washer. */
function beside(pieces: readonly BoxPiece[], at: number, way: 1 | -1): BoxPiece | null {
  for (let i = at + way; i >= 0 && i < pieces.length; i += way) {
    const piece = pieces[i] as BoxPiece;
    if (piece.kind === 'gear') return piece.loose ? piece : null;
    if (piece.kind !== 'washer') return null;
  }
  return null;
}

interface Reached {
  readonly shaft: BoxShaft;
  readonly hub: BoxPiece;
  readonly gear: BoxPiece;
  readonly side: '+' | '-';
}

function reachedOn(box: StackedBox, shaft: BoxShaft): Reached[] {
  const { pieces } = box.shafts[shaft];
  return pieces.flatMap((hub, at) => {
    if (hub.kind !== 'hub') return [];
    return ([-1, 1] as const).flatMap((way): Reached[] => {
      const gear = beside(pieces, at, way);
      return gear ? [{ shaft, hub, gear, side: way > 0 ? '+' : '-' }] : [];
    });
  });
}

function centresOf(box: StackedBox, pair: BoxPair): PairJudged['centres'] {
  try {
    const { verdict, shiftSum, playMm } = pairOnCentres({
      teeth: [pair.driver, pair.driven],
      normalModuleMm: box.normalModuleMm,
      helixDeg: box.helixDeg,
      pressureAngleDeg: box.pressureAngleDeg,
      centreMm: box.centreMm,
      ...(pair.shiftSum === null ? {} : { shiftSumGiven: pair.shiftSum }),
    });
    return { verdict, shiftSum, playMm };
  } catch (error) {
    // Teeth that do not meet are an answer here: every other field was looked at before.
    if (error instanceof InputError && error.field === 'centreMm') return null;
    throw error;
  }
}

/**
 * Gears of a reverse pair with their idler, straight-cut and without shift whatever the box is: plain pitch circles that meet, tips by one
 * module [exact for such teeth]. Not counted: shifts, where the idler has room in its case.
 */
export function idlerFit(
  { centreMm, normalModuleMm }: Pick<StackedBox, 'centreMm' | 'normalModuleMm'>,
  pair: Pick<BoxPair, 'driver' | 'driven'>,
  idler: number,
): IdlerFit {
  const { driver, driven } = pair;
  const clearMm = centreMm - (normalModuleMm * (driver + driven)) / 2 - 2 * normalModuleMm;
  const [a, b] = [(normalModuleMm * (driver + idler)) / 2, (normalModuleMm * (driven + idler)) / 2];
  const along = (centreMm ** 2 + a ** 2 - b ** 2) / (2 * centreMm);
  const square = a ** 2 - along ** 2;
  // Both gears stand on the line of the shafts: an idler that reaches them only on that line touches none of them aside.
  if (!(square > 0)) return { verdict: 'does not reach', clearMm, asideMm: 0 };
  return { verdict: clearMm > 0 ? 'fits' : 'gears meet', clearMm, asideMm: Math.sqrt(square) };
}

function handsOf({ helixDeg }: StackedBox, pair: BoxPair): PairJudged['hands'] {
  if (helixDeg === 0 || isReverse(pair)) return 'straight';
  const [a, b] = [handOn(pair, 'driving'), handOn(pair, 'driven')];
  return a === null || b === null ? 'not said' : a === b ? 'alike' : 'opposite';
}

function pairOf(box: StackedBox, pair: BoxPair, laid: Record<BoxShaft, readonly Laid[]>, reached: readonly Reached[]) {
  const found = (shaft: BoxShaft) => laid[shaft].filter(({ piece }) => piece.pair === pair.id);
  const [driving, driven] = [found('driving'), found('driven')];
  const [first, second] = [driving[0], driven[0]];
  const face = ({ faceFromMm, faceToMm }: Laid, shaft: BoxShaft) => ({
    fromMm: faceFromMm,
    toMm: faceToMm,
    floatMm: box.shafts[shaft].floatMm,
  });
  const middle = ({ faceFromMm, faceToMm }: Laid): number => (faceFromMm + faceToMm) / 2;
  const loose = BOX_SHAFTS.filter((shaft) => found(shaft).some(({ piece }) => piece.loose));
  const gears = forwardPairs(box.pairs);
  return {
    pair,
    centres: isReverse(pair) ? null : centresOf(box, pair),
    idler: pair.idler === null ? null : idlerFit(box, pair, pair.idler),
    overlap: first && second ? faceOverlap({ first: face(first, 'driving'), second: face(second, 'driven') }) : null,
    planesApartMm: first && second ? middle(second) - middle(first) : null,
    hands: handsOf(box, pair),
    place: pair.fits.length === 0 || pair.constant || isReverse(pair) || pair.fits.includes(gears.indexOf(pair) + 1),
    onShafts: { driving: driving.length, driven: driven.length },
    slides: isReverse(pair) && loose.length === 0,
    looseOn: loose.length === 1 ? (loose[0] as BoxShaft) : null,
    hub: reached.find(({ gear }) => gear.pair === pair.id)?.hub.id ?? null,
  } satisfies PairJudged;
}

function held(heap: readonly Laid[], { lengthMm, closed }: Closing): Held {
  const sumMm = heap.reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0);
  const spareMm = lengthMm - sumMm;
  return { sumMm, spareMm, holds: closed === 'nut' ? spareMm < 0 : spareMm >= 0 };
}

function stackOf(box: StackedBox, shaft: BoxShaft, laid: readonly Laid[], reached: readonly Reached[]): StackJudged {
  const stack = box.shafts[shaft];
  const { pieces, before } = stack;
  const own = heaps(laid, ({ piece }) => piece.kind);
  return {
    shaft,
    laid,
    ...held(own.after, stack),
    before: before && held(own.before, before),
    tight: pieces.filter(({ sleeveMm, widthMm }) => sleeveMm !== null && sleeveMm <= widthMm).map(({ id }) => id),
    idle: pieces
      .filter(({ id, kind }) => kind === 'hub' && !reached.some(({ hub }) => hub.id === id))
      .map(({ id }) => id),
  };
}

/**
 * Both shafts of a box as they are stacked, and what is to be said of it at each place: pairs on the centres and on each other, hands,
 * places, hubs, dogs in neutral, stack against shaft [exact, by lengths; pairs as `pairOnCentres`].
 * Not counted: bores, splines and fits, chamfers and marked faces, the float of a loose gear on its sleeve in the gap of its dogs.
 * @throws InputError naming the field of a box that is none
 */
export function judgeBox(box: StackedBox): BoxJudged {
  requireBox(box);
  const laid = { driving: layStack(box.shafts.driving), driven: layStack(box.shafts.driven) };
  const reached = BOX_SHAFTS.flatMap((shaft) => reachedOn(box, shaft));
  const at = (id: string): Laid | undefined => [...laid.driving, ...laid.driven].find(({ piece }) => piece.id === id);
  const gaps = reached.flatMap(({ shaft, hub, gear, side }): DogGap[] => {
    const [ring, face] = [at(hub.id), at(gear.id)];
    if (!ring || !face || hub.ringMm === null) return [];
    const middle = (ring.fromMm + ring.toMm) / 2;
    const between = side === '+' ? face.faceFromMm - middle : middle - face.faceToMm;
    return [{ shaft, hub: hub.id, pair: gear.pair ?? '', side, gapMm: between - gear.dogMm - hub.ringMm / 2 }];
  });
  return {
    shafts: {
      driving: stackOf(box, 'driving', laid.driving, reached),
      driven: stackOf(box, 'driven', laid.driven, reached),
    },
    pairs: box.pairs.map((pair) => pairOf(box, pair, laid, reached)),
    gaps,
  };
}

/** Radius of the teeth of a pair’s gear on a shaft, mm: the centres shared by teeth, of a reverse gear by its module. For a picture. */
export const rollingRadius = (
  { centreMm, normalModuleMm }: Pick<StackedBox, 'centreMm' | 'normalModuleMm'>,
  pair: BoxPair,
  shaft: BoxShaft,
): number =>
  isReverse(pair)
    ? (normalModuleMm * teethOn(pair, shaft)) / 2
    : (centreMm * teethOn(pair, shaft)) / (teethOn(pair, shaft) + teethOn(pair, otherShaft(shaft)));
