import { onceATurn } from '@hot-spline/core';
import type { PatternRead, PatternRound } from './axle';
import type { FlankPattern } from './words';

/** Places round the ring that a pattern is read at, a quarter turn apart. */
export const PATTERN_PLACES = ['1', '2', '3', '4'] as const;
/** From so much swing of a contact once a turn on, of half a tooth, the seat is looked at and not the depth: a guard of ours. */
export const SEAT_SWING = 0.15;

const FLANKS = ['drive', 'coast'] as const;
const WAYS = ['u', 'v'] as const;

/** @param reads at all places, in their order @returns null where a place is not read, or not seen as one patch */
export function patternRound(reads: readonly (PatternRead | null)[]): PatternRound | null {
  const all = reads.filter((one) => one !== null);
  if (all.length < PATTERN_PLACES.length || all.some(({ counts }) => !counts)) return null;
  const waves = FLANKS.flatMap((flank) =>
    WAYS.map((way) => ({ flank, way, ...onceATurn(all.map(({ value }) => value[flank][way])) })),
  );
  const most = waves.reduce((a, b) => (b.amplitude > a.amplitude ? b : a));
  const { amplitude, flank, way, angleDeg } = most;
  return { reads: all, swing: amplitude, flank, way, angleDeg, seat: amplitude > SEAT_SWING + 1e-9 };
}

/** The contact that is the same all round: what depth and the ring’s place decide. */
export function middleOf({ reads }: PatternRound): PatternRead {
  const last = reads.reduce((a, b) => (b.reading.seq > a.reading.seq ? b : a));
  const mean = (of: (one: PatternRead) => number): number =>
    reads.reduce((sum, one) => sum + of(one), 0) / reads.length;
  const flank = (name: (typeof FLANKS)[number]): FlankPattern => ({
    ...last.value[name],
    u: mean(({ value }) => value[name].u),
    v: mean(({ value }) => value[name].v),
    length: mean(({ value }) => value[name].length),
    height: mean(({ value }) => value[name].height),
    edges: [...new Set(reads.flatMap(({ value }) => value[name].edges))],
  });
  return { ...last, value: { ...last.value, drive: flank('drive'), coast: flank('coast') }, repeats: [] };
}
