import { InputError, carrierSides, shimPack, type ShimPack, type MeshMove, type ShimStock } from '@hot-spline/core';
import type { MeshAxle } from '@hot-spline/model';
import { NOTHING_IN, pieceOf, type Assembly } from './set-up';

const RULES = { maxPieces: 4, thinBelowMm: 0.1 } as const;

/** Pieces for a sum: from the box where there is one, else one piece to be found. */
function packOf(mm: number, stock: readonly ShimStock[]): Assembly['pinion'] {
  if (mm < 0.0005) return [];
  return stock.length > 0 ? shimPack(mm, stock, RULES).piecesMm.map(pieceOf) : [pieceOf(mm)];
}

/**
 * What is put together for a move: the pinion pack, and both sides by the construction, their total kept.
 * @throws InputError where a side would have to be thinner than nothing
 */
export function planOf(mesh: MeshAxle, move: MeshMove, stock: readonly ShimStock[]): Assembly {
  const { now, setup, ringBy, notchMm } = mesh;
  const value = now?.value ?? NOTHING_IN;
  const ring = move.ringShiftMm - (now?.ringMm ?? 0);
  const same = now !== null && Math.abs(move.pinionShimMm - now.pinionMm) < 0.0005;
  const pinion = move.piecesMm ? move.piecesMm.map(pieceOf) : same ? value.pinion : packOf(move.pinionShimMm, stock);
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
  return { ...value, pinion, left: onePack(sides.leftMm), right: onePack(sides.rightMm) };
}

const onePack = (mm: number): Assembly['left'] => (mm < 0.0005 ? [] : [pieceOf(mm)]);

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
