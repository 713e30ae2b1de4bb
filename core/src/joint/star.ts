import { requireNumber } from '../base/errors';
import { JOINT_LIMITS } from './limits';

/**
 * The order in which the bolts of a circle are drawn up crosswise: each bolt after its opposite one, the pairs spread; with an odd
 * count nearly half round each time [exact].
 * @returns numbers from 1, clockwise, each once
 * @throws InputError on `bolts`
 */
export function starPattern(bolts: number): readonly number[] {
  const count = requireNumber('bolts', bolts, JOINT_LIMITS.bolts);
  if (count % 2 === 1) return Array.from({ length: count }, (_, i) => ((i * ((count - 1) / 2)) % count) + 1);
  const half = count / 2;
  const step = Math.max(1, Math.floor(count / 4));
  const used = new Set<number>();
  const order: number[] = [];
  for (let pair = 0; order.length < count; pair = (pair + step) % half) {
    while (used.has(pair)) pair = (pair + 1) % half;
    used.add(pair);
    order.push(pair + 1, pair + half + 1);
  }
  return order;
}
