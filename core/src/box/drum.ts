import { InputError, requireNumber } from '../base/errors';
import { BOX_LIMITS } from './limits';

/** What a fork follows: its travel over the angle of the drum, straight between the points. */
export interface DrumTrack {
  readonly name: string;
  readonly points: readonly (readonly [angleDeg: number, travelMm: number])[];
}

export interface Drum {
  readonly tracks: readonly DrumTrack[];
  /** From this travel on, either side, the dogs may touch: gap less slop of pads and ring. */
  readonly touchMm: number;
  /** At which the tracks are cut. */
  readonly radiusMm: number;
  /** Of a drum that goes round: its angle; the ends of each track agree then. */
  readonly period?: number;
  /** From this travel on a gear is in. */
  readonly inMm?: number;
  readonly detentsDeg?: readonly number[];
}

export type Interval = readonly [fromDeg: number, toDeg: number];

/** The gear that is in at a detent; null where none is, or more than one. */
export interface AtDetent {
  readonly atDeg: number;
  readonly track: string | null;
  readonly side: '+' | '-' | null;
}

export interface DrumCheck {
  readonly ok: boolean;
  /** Where more than one gear is touched. */
  readonly both: readonly Interval[];
  /** Where none is. */
  readonly neutral: readonly Interval[];
  readonly steepestDeg: number;
  /** Why it is not well, in words; empty where it is. */
  readonly faults: readonly string[];
  readonly gears: readonly AtDetent[] | null;
}

/** A ramp steeper than this jams its fork: ours. */
export const STEEPEST_DEG = 45;
const RAD = Math.PI / 180;

function requireDrum({ tracks, touchMm, radiusMm, period, inMm, detentsDeg = [] }: Drum): void {
  requireNumber('tracks', tracks.length, BOX_LIMITS.tracks);
  requireNumber('touchMm', touchMm, { above: 0, max: BOX_LIMITS.travelMm.max, unit: 'mm' });
  requireNumber('radiusMm', radiusMm, BOX_LIMITS.radiusMm);
  if (period !== undefined) requireNumber('period', period, { above: 0, max: 3600, unit: '°' });
  if (inMm !== undefined) requireNumber('inMm', inMm, { min: touchMm, max: BOX_LIMITS.travelMm.max, unit: 'mm' });
  detentsDeg.forEach((at, i) => requireNumber(`detentsDeg[${i}]`, at, BOX_LIMITS.drumDeg));
  tracks.forEach(({ name, points }, k) => {
    if (tracks.findIndex((other) => other.name === name) !== k)
      throw new InputError(`tracks[${k}].name`, `tracks[${k}] is called like another one.`, 'a name of its own');
    requireNumber(`tracks[${k}].points`, points.length, BOX_LIMITS.points);
    points.forEach(([angle, travel], i) => {
      requireNumber(`tracks[${k}].points[${i}][0]`, angle, BOX_LIMITS.drumDeg);
      requireNumber(`tracks[${k}].points[${i}][1]`, travel, BOX_LIMITS.travelMm);
      if (i > 0 && angle <= (points[i - 1]?.[0] ?? 0))
        throw new InputError(
          `tracks[${k}].points[${i}][0]`,
          `tracks[${k}].points[${i}] does not lie behind the point before it.`,
          'angles that ascend',
        );
    });
  });
}

const first = ({ points }: DrumTrack): readonly [number, number] => points[0] as readonly [number, number];
const last = ({ points }: DrumTrack): readonly [number, number] => points.at(-1) as readonly [number, number];

/** Travel of a fork at an angle of the drum, mm; beyond its ends as there. */
export function travelAt({ points }: DrumTrack, angleDeg: number): number {
  const i = points.findIndex(([angle]) => angle >= angleDeg);
  const [a1, x1] = points[i < 0 ? points.length - 1 : i] as readonly [number, number];
  if (i <= 0) return i < 0 ? x1 : (points[0] as readonly [number, number])[1];
  const [a0, x0] = points[i - 1] as readonly [number, number];
  return x0 + ((x1 - x0) * (angleDeg - a0)) / (a1 - a0);
}

/** Angles at which something may change: corners, and where a segment crosses the threshold on either side [exact]. */
function changes(tracks: readonly DrumTrack[], touchMm: number, [from, to]: Interval): number[] {
  const found = new Set([from, to]);
  for (const { points } of tracks)
    points.forEach(([a1, x1], i) => {
      if (a1 > from && a1 < to) found.add(a1);
      const before = points[i - 1];
      if (!before) return;
      const [a0, x0] = before;
      for (const level of [touchMm, -touchMm]) {
        if ((x0 - level) * (x1 - level) >= 0) continue;
        const at = a0 + ((level - x0) * (a1 - a0)) / (x1 - x0);
        if (at > from && at < to) found.add(at);
      }
    });
  return [...found].sort((a, b) => a - b);
}

/** Neighbours that meet are one. */
const joined = (list: readonly Interval[]): Interval[] =>
  list.reduce<Interval[]>((all, [from, to]) => {
    const before = all.at(-1);
    return before && before[1] === from ? [...all.slice(0, -1), [before[0], to]] : [...all, [from, to]];
  }, []);

/**
 * Whether a drum is well: at every angle at most one gear is touched, between any two gears lies a neutral, no ramp is steeper than 45°
 * (ours), the tracks have one span, and of a drum that goes round the ends agree. Decided where the tracks cross the threshold, not at
 * their corners: two forks that pass on one segment show one gear at each corner and both between [exact].
 * Not counted: play of the detent, a fork that bends, the cut of the groove.
 * @throws InputError naming the field; on `tracks` where they have no angle in common
 */
export function checkDrum(drum: Drum): DrumCheck {
  requireDrum(drum);
  const { tracks, touchMm, radiusMm, period } = drum;
  const span: Interval = [Math.max(...tracks.map((t) => first(t)[0])), Math.min(...tracks.map((t) => last(t)[0]))];
  if (span[1] <= span[0]) throw new InputError('tracks', 'tracks have no angle in common.', 'one span for all');
  const marks = changes(tracks, touchMm, span);
  const cells = marks.slice(1).map((to, i) => {
    const from = marks[i] as number;
    const middle = (from + to) / 2;
    const touched = tracks.flatMap((track) => {
      const x = travelAt(track, middle);
      return Math.abs(x) >= touchMm ? [`${track.name}\n${x > 0 ? '+' : '-'}`] : [];
    });
    return { interval: [from, to] as Interval, touched };
  });
  const both = joined(cells.flatMap(({ interval, touched }) => (touched.length > 1 ? [interval] : [])));
  const neutral = joined(cells.flatMap(({ interval, touched }) => (touched.length === 0 ? [interval] : [])));
  const steepestDeg = Math.max(...tracks.map((track) => steepest(track, radiusMm)));
  const faults = [
    ...(both.length > 0 ? ['two gears are touched at once'] : []),
    ...(hasNeutral(cells) ? [] : ['between two gears there is no neutral']),
    ...(steepestDeg > STEEPEST_DEG ? [`a ramp stands at ${steepestDeg.toFixed(1)}°`] : []),
    ...(oneSpan(tracks) ? [] : ['the tracks do not have one span']),
    ...(period === undefined || tracks.every((track) => closes(track, period))
      ? []
      : ['the ends of a track do not agree']),
  ];
  return { ok: faults.length === 0, both, neutral, steepestDeg, faults, gears: gearsAt(drum) };
}

function steepest({ points }: DrumTrack, radiusMm: number): number {
  const ramps = points.slice(1).map(([a1, x1], i) => {
    const [a0, x0] = points[i] as readonly [number, number];
    return Math.atan(Math.abs(x1 - x0) / (radiusMm * (a1 - a0) * RAD)) / RAD;
  });
  return Math.max(0, ...ramps);
}

const oneSpan = (tracks: readonly DrumTrack[]): boolean =>
  tracks.every(
    (t) => first(t)[0] === first(tracks[0] as DrumTrack)[0] && last(t)[0] === last(tracks[0] as DrumTrack)[0],
  );

const closes = (track: DrumTrack, period: number): boolean =>
  Math.abs(last(track)[0] - first(track)[0] - period) < 1e-9 && Math.abs(last(track)[1] - first(track)[1]) < 1e-9;

/** Whether a neutral lies between any two gears that follow each other. Round the end of a drum whose ends agree it is the same gear. */
function hasNeutral(cells: readonly { readonly touched: readonly string[] }[]): boolean {
  const order = cells.map(({ touched }) => touched.join('\t'));
  return order.every((gear, i) => i === 0 || gear === order[i - 1] || gear === '' || order[i - 1] === '');
}

function gearsAt({ tracks, inMm, detentsDeg }: Drum): AtDetent[] | null {
  if (inMm === undefined || detentsDeg === undefined) return null;
  return detentsDeg.map((atDeg): AtDetent => {
    const found = tracks.flatMap((track) => {
      const x = travelAt(track, atDeg);
      return Math.abs(x) >= inMm ? [{ track: track.name, side: x > 0 ? ('+' as const) : ('-' as const) }] : [];
    });
    const [one] = found;
    return found.length === 1 && one ? { atDeg, ...one } : { atDeg, track: null, side: null };
  });
}
