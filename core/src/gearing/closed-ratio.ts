import { InputError, requireNumber, type NumberRange } from '../base/errors';
import { LIMITS } from '../base/limits';
import type { ToothPair } from './tooth-pair';

const TURNS: NumberRange = { min: -10_000, max: 10_000 };
const ERROR: NumberRange = { min: 0, max: 100 };

export interface ClosedTurns {
  /** Turns of the prop shaft, and of each wheel meanwhile; backward is negative. */
  readonly propTurns: number;
  readonly leftTurns: number;
  readonly rightTurns: number;
  /** How well each was read, ± turns. */
  readonly propErrorTurns?: number;
  readonly wheelErrorTurns?: number;
  /** Of a transaxle: the gear that it stood in, which the turns were multiplied by. */
  readonly boxRatio?: number;
  /** Tooth counts that are looked through, least and most. */
  readonly pinionTeeth: readonly [number, number];
  readonly ringTeeth: readonly [number, number];
}

function requireTeeth(field: 'pinionTeeth' | 'ringTeeth', [low, high]: readonly [number, number]): void {
  requireNumber(field, low, LIMITS.teeth);
  requireNumber(field, high, LIMITS.teeth);
  if (low > high) throw new InputError(field, `${field} ends before it begins.`, 'the least first');
}

/**
 * Ratio of a closed axle by turns: the carrier turns at the mean of its wheels, i = 2N ÷ (M_L + M_R), with
 * |δi| = (δN + i·δM)·2 ÷ |M_L + M_R| [exact, kinematics of a differential]. It holds for any bevel or parallel-gear unit,
 * plates under preload too. With it the tooth pairs inside the error, nearest first; of two equally near the one with fewer teeth.
 * Not counted: play at the end of the turns (read it into the errors), a tyre that slips on its wheel. A spool or a closed locker
 * turns both wheels: hold neither.
 * Never on an electric unit: it has no prop shaft, and a magnet rotor that is turned makes a voltage.
 * @throws InputError on `leftTurns` where the wheels' turns cancel out, naming any other field that is out of its range
 */
export function closedRatio({
  propTurns,
  leftTurns,
  rightTurns,
  propErrorTurns = 0,
  wheelErrorTurns = 0,
  boxRatio = 1,
  pinionTeeth,
  ringTeeth,
}: ClosedTurns): { readonly ratio: number; readonly errorRatio: number; readonly pairs: readonly ToothPair[] } {
  for (const [field, value] of Object.entries({ propTurns, leftTurns, rightTurns })) requireNumber(field, value, TURNS);
  for (const [field, value] of Object.entries({ propErrorTurns, wheelErrorTurns })) requireNumber(field, value, ERROR);
  requireNumber('boxRatio', boxRatio, LIMITS.ratio);
  requireTeeth('pinionTeeth', pinionTeeth);
  requireTeeth('ringTeeth', ringTeeth);
  if (propTurns === 0) throw new InputError('propTurns', 'propTurns is 0: nothing was turned.', 'other than 0');
  const wheels = Math.abs(leftTurns + rightTurns);
  if (wheels < 1e-9)
    throw new InputError(
      'leftTurns',
      'leftTurns and rightTurns cancel out: the carrier stood still.',
      'a sum other than 0',
    );
  const whole = (2 * Math.abs(propTurns)) / wheels;
  const ratio = whole / boxRatio;
  const errorRatio = ((propErrorTurns + whole * wheelErrorTurns) * 2) / wheels / boxRatio;
  const pairs: ToothPair[] = [];
  for (let pinion = pinionTeeth[0]; pinion <= pinionTeeth[1]; pinion++) {
    const low = Math.max(ringTeeth[0], pinion, Math.ceil((ratio - errorRatio) * pinion - 1e-9));
    const high = Math.min(ringTeeth[1], Math.floor((ratio + errorRatio) * pinion + 1e-9));
    for (let ring = low; ring <= high; ring++) pairs.push({ ring, pinion });
  }
  const off = ({ ring, pinion }: ToothPair): number => Math.abs(ring / pinion - ratio);
  pairs.sort((a, b) => (Math.abs(off(a) - off(b)) < 1e-12 ? a.pinion - b.pinion : off(a) - off(b)));
  return { ratio, errorRatio, pairs };
}
