import { SHIM_LIMITS } from '../pack/shim-limits';
import { InputError, requireNumber } from '../base/errors';
import { SAME_MM, Stacks, type ShimStock, type Stack } from '../pack/shims';

export interface ShimPack {
  /** As they lie: the outermost ones first and last, thin ones between. */
  readonly piecesMm: readonly number[];
  /** Sum less target. */
  readonly errorMm: number;
  readonly provenBest: boolean;
}

export interface ShimPackRules {
  /** 1 to 6. */
  readonly maxPieces: number;
  /** A piece thinner than this never lies outermost. */
  readonly thinBelowMm: number;
}

/**
 * A pack of shims from pieces that exist: nearest to the target, then fewest pieces; thin ones always between two that are not
 * [exact over the stock]. Nothing at all is a pack too, where nothing is nearest.
 * Not counted: burrs and oil between the pieces: measure the pack as one.
 * @param stock up to 400 thicknesses with their counts
 * @throws InputError naming the field; on `stock` where there is none that may lie outermost
 */
export function shimPack(targetMm: number, stock: readonly ShimStock[], rules: ShimPackRules): ShimPack {
  return shimPacker(stock, rules)(targetMm);
}

/**
 * {@link shimPack} for many targets out of one box, which is sorted once.
 * Not counted: what an earlier pack took; each target has the whole box.
 * @throws InputError naming the field
 */
export function shimPacker(stock: readonly ShimStock[], rules: ShimPackRules): (targetMm: number) => ShimPack {
  const most = requireNumber('maxPieces', rules.maxPieces, { min: 1, max: 6, integer: true });
  const thin = requireNumber('thinBelowMm', rules.thinBelowMm, { min: 0, max: 100, unit: 'mm' });
  requireNumber('stock', stock.length, SHIM_LIMITS.stock);
  stock.forEach(({ thicknessMm, count }, i) => {
    requireNumber(`stock[${i}].thicknessMm`, thicknessMm, SHIM_LIMITS.thicknessMm);
    requireNumber(`stock[${i}].count`, count, SHIM_LIMITS.count);
  });
  const outer = stock.some(({ thicknessMm, count }) => count > 0 && thicknessMm >= thin);
  const stacks = new Stacks(stock, most);
  const holds = ({ picks }: Stack): boolean => {
    const thick = picks.filter((index) => stacks.thickness(index) >= thin).length;
    return picks.length === 0 || thick >= Math.min(picks.length, 2);
  };
  return (targetMm) => {
    const target = requireNumber('targetMm', targetMm, SHIM_LIMITS.targetMm);
    if (target > 0 && !outer)
      throw new InputError(
        'stock',
        `stock has no piece of at least ${thin} mm to lie outermost.`,
        'a thick piece or two',
      );
    stacks.work = 0;
    let best: Stack = { picks: [], error: Math.round(target / SAME_MM) };
    const proven = stacks.near(
      target,
      () => (best.error + 1) * SAME_MM,
      (stack) => {
        const better =
          stack.error < best.error || (stack.error === best.error && stack.picks.length < best.picks.length);
        if (better && holds(stack)) best = stack;
      },
    );
    const thickestFirst = best.picks.map((index) => stacks.thickness(index)).sort((a, b) => b - a);
    // The second thickest closes the pack; what is thin lies between.
    const [first, last, ...between] = thickestFirst;
    const piecesMm = [first, ...between, last].filter((piece) => piece !== undefined);
    const tidy = (mm: number): number => Number(mm.toFixed(9));
    return { piecesMm, errorMm: tidy(piecesMm.reduce((a, b) => a + b, 0) - target), provenBest: proven };
  };
}
