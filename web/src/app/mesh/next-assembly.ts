import {
  InputError,
  type Entry,
  carrierSides,
  shimPack,
  shimPacker,
  type ShimPack,
  type CarrierSides,
  type MeshMove,
  type ShimStock,
} from '@hot-spline/core';
import type { MeshAxle } from '@hot-spline/model';
import { NOTHING_IN, pieceOf, type Assembly } from './set-up';

/** What packs can be built from; nothing where any thickness can be had. */
export interface Stock {
  readonly pinion: readonly ShimStock[];
  readonly sides: readonly ShimStock[];
  /** A piece as its drawer says it; in mm where that is not told. */
  readonly piece?: (mm: number) => Entry;
}

const RULES = { maxPieces: 4, thinBelowMm: 0.1 } as const;

/** Pieces for a sum: from the box where there is one, else one piece to be found. */
function packOf(mm: number, { pinion, piece = pieceOf }: Stock): Assembly['pinion'] {
  if (mm < 0.0005) return [];
  return pinion.length > 0 ? shimPack(mm, pinion, RULES).piecesMm.map((one) => piece(one)) : [piece(mm)];
}

/**
 * What is put together for a move: the pinion pack, and both sides by the construction, their total kept.
 * @throws InputError where a side would have to be thinner than nothing
 */
export function planOf(mesh: MeshAxle, move: MeshMove, stock: Stock): Assembly {
  const { now, setup, ringBy, notchMm, headShimMm } = mesh;
  const value = now?.value ?? NOTHING_IN;
  const ring = move.ringShiftMm - (now?.ringMm ?? 0);
  // Advised as it was read; another bearing at the head takes another shim.
  const shim = move.pinionShimMm + headShimMm;
  if (shim < -1e-9)
    throw new InputError(
      'Pinion shims',
      `The pinion shim would have to be ${shim.toFixed(3)} mm thick with this bearing.`,
      'a depth that leaves a shim',
    );
  const same = now !== null && Math.abs(shim - now.pinionMm) < 0.0005;
  const pinion =
    move.piecesMm && headShimMm === 0
      ? move.piecesMm.map((mm) => (stock.piece ?? pieceOf)(mm))
      : same
        ? value.pinion
        : packOf(shim, stock);
  if (ringBy === 'adjusters') {
    const notches = notchMm === null ? 0 : Math.round(ring / notchMm);
    const back = setup.ringSide === 'left' ? 1 : -1;
    return {
      ...value,
      pinion,
      leftNotches: value.leftNotches + back * notches,
      rightNotches: value.rightNotches - back * notches,
    };
  }
  if (Math.abs(ring) < 0.0005) return { ...value, pinion };
  const sides = carrierSides({
    leftMm: now?.leftMm ?? 0,
    rightMm: now?.rightMm ?? 0,
    ringSide: setup.ringSide,
    ringTowardsPinionMm: ring,
    shimActs: setup.sideShims,
  });
  return { ...value, pinion, ...sidePacks(sides, stock) };
}

/** A side’s sum out of the drawer is never farther off than this; else one piece of it has to be found. */
const NEAR_MM = 0.013;

/** Both side packs out of the drawer, the second of what the first left; or one piece each, to be found. */
function sidePacks(
  { leftMm, rightMm }: CarrierSides,
  { sides: stock, piece = pieceOf }: Stock,
): Pick<Assembly, 'left' | 'right'> {
  const left = packFrom(leftMm, stock);
  const right = packFrom(rightMm, left ? without(stock, left.piecesMm) : stock);
  const side = (mm: number, pack: ShimPack | null): Assembly['left'] => {
    if (mm < 0.0005) return [];
    return pack && Math.abs(pack.errorMm) <= NEAR_MM ? pack.piecesMm.map((one) => piece(one)) : [piece(mm)];
  };
  return { left: side(leftMm, left), right: side(rightMm, right) };
}

/** What is left of a stock once pieces are taken. */
function without(stock: readonly ShimStock[], pieces: readonly number[]): readonly ShimStock[] {
  return stock
    .map(({ thicknessMm, count }) => ({
      thicknessMm,
      count: count - pieces.filter((mm) => Math.abs(mm - thicknessMm) < 1e-6).length,
    }))
    .filter(({ count }) => count > 0);
}

/** A pack out of the drawer; null where it holds none that can be built. */
export function packFrom(mm: number, stock: readonly ShimStock[]): ShimPack | null {
  if (stock.length === 0) return null;
  try {
    return shimPack(mm, stock, RULES);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return null;
  }
}

/** Sums of packs that a drawer can build over a range, 0.01 mm apart at least; nothing without a drawer. */
export function packSums(stock: readonly ShimStock[], [from, to]: readonly [number, number]): readonly number[] {
  if (stock.length === 0) return [];
  try {
    const packOf = shimPacker(stock, RULES);
    const sums = new Set<number>();
    for (let mm = from; mm <= to; mm += 0.01) {
      const { errorMm, piecesMm } = packOf(mm);
      if (piecesMm.length > 0) sums.add(Number((mm + errorMm).toFixed(4)));
    }
    return [...sums];
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return [];
  }
}
