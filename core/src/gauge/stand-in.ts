import { InputError, requireNumber } from '../base/errors';
import { normalFrom, seededRandom } from '../base/random';

export const STAND_INS = ['indicator', 'calliper', 'micrometer', 'wrench'] as const;
export type StandIn = (typeof STAND_INS)[number];

/** How each stand-in reads: time to settle, scatter, resolution; mm or N·m. */
const READS: Readonly<Record<StandIn, { settleMs: number; scatter: number; step: number; unit: 'mm' | 'N·m' }>> = {
  indicator: { settleMs: 120, scatter: 0.0012, step: 0.001, unit: 'mm' },
  calliper: { settleMs: 150, scatter: 0.006, step: 0.01, unit: 'mm' },
  micrometer: { settleMs: 120, scatter: 0.0008, step: 0.001, unit: 'mm' },
  wrench: { settleMs: 200, scatter: 0.02, step: 0.01, unit: 'N·m' },
};
/** One rock of the ring to and fro at a place. */
const ROCK_MS = 500;
/** How often an indicator's zero slips, and by how much at most. */
const SLIPS = { everyMs: 20_000, mm: 0.008 };

/**
 * What a simulated gauge shows at a time after it was put on: it settles, scatters, an indicator's zero slips now and then, a wrench
 * breaks away before it turns steadily. With several values an indicator sweeps: the ring is rocked once at each place.
 * The same seed shows the same.
 * Not counted: temperature, parallax, a gauge that stands askew.
 * @param values what is there in truth, mm or N·m
 * @throws InputError naming the field
 */
export function standInReading(
  kind: StandIn,
  values: readonly number[],
  seed: number,
  atMs: number,
): { value: number; unit: 'mm' | 'N·m' } {
  if (values.length === 0 || values.length > 72)
    throw new InputError('values', `values has ${values.length} entries.`, '1 to 72');
  const truth = values.map((value, i) => requireNumber(`values[${i}]`, value, { min: -10_000, max: 10_000 }));
  const at = requireNumber('atMs', atMs, { min: 0, max: 1e9 });
  requireNumber('seed', seed, { min: 0, max: 4_294_967_295, integer: true });
  const { settleMs, scatter, step, unit } = READS[kind];
  const normal = normalFrom(seededRandom((seed ^ Math.imul(Math.floor(at / 10) + 1, 2_654_435_761)) >>> 0));
  const slipped = Math.floor(at / SLIPS.everyMs);
  const slip = kind === 'indicator' && slipped > 0 ? SLIPS.mm * (2 * seededRandom((seed + slipped) >>> 0)() - 1) : 0;
  const first = truth[0] as number;
  let shown: number;
  if (truth.length > 1) {
    const place = Math.min(Math.floor(at / ROCK_MS), truth.length - 1);
    const within = Math.floor(at / ROCK_MS) > place ? 0 : (at % ROCK_MS) / ROCK_MS;
    shown = ((truth[place] as number) * (1 - Math.cos(2 * Math.PI * within))) / 2;
  } else if (kind === 'wrench') {
    // It breaks away half as high again, then turns.
    shown = first * (at < settleMs ? (1.5 * at) / settleMs : 1 + 0.5 * Math.exp(-(at - settleMs) / settleMs));
  } else shown = first * (1 - Math.exp(-at / settleMs));
  const value = Math.round((shown + slip + scatter * normal()) / step) * step;
  return { value: Number(value.toFixed(4)) + 0, unit };
}
