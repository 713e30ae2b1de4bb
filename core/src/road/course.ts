import { GRADE, MOST_CORNERS, MOST_SLOPES } from './limits';
import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

const SPEED = { min: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
const DISTANCE = { min: 0, max: 1e6, unit: 'm' };
const BRAKING = { above: 0, max: 60, unit: 'm/s²' };

export interface Corner {
  /** Where the corner's speed has to be reached, from the start. */
  readonly atM: number;
  /** For how long it holds. */
  readonly lengthM: number;
  readonly speedMps: number;
  /** Deceleration on the way into it, drag included. */
  readonly brakingMps2: number;
}

/** From here on the road climbs so, up to the next of them. */
export interface Slope {
  readonly atM: number;
  /** Rise over run, percent; negative downhill. */
  readonly gradePercent: number;
}

/** What gears are compared on: speeds that have to be kept, and how hard is braked; the rest is thrust. */
export interface Course {
  readonly lengthM: number;
  readonly startMps: number;
  readonly corners: readonly Corner[];
  /** Highest speed seen, where the course was recorded. */
  readonly fastestMps: number | null;
  /** Slope along the way; level before the first of them, and throughout where there are none. */
  readonly slopes?: readonly Slope[];
}

/**
 * Checks a course: corners in order, apart from each other, inside its length.
 * @throws InputError naming the field
 */
export function checkCourse(course: Course): Course {
  const length = requireNumber('course.lengthM', course.lengthM, { above: 0, max: DISTANCE.max, unit: 'm' });
  requireNumber('course.startMps', course.startMps, SPEED);
  if (course.fastestMps !== null) requireNumber('course.fastestMps', course.fastestMps, SPEED);
  if (course.corners.length > MOST_CORNERS)
    throw new InputError('course.corners', `course.corners has ${course.corners.length}.`, `at most ${MOST_CORNERS}`);
  let from = 0;
  course.corners.forEach((corner, i) => {
    const field = `course.corners[${i}]`;
    const at = requireNumber(`${field}.atM`, corner.atM, DISTANCE);
    const long = requireNumber(`${field}.lengthM`, corner.lengthM, DISTANCE);
    requireNumber(`${field}.speedMps`, corner.speedMps, { above: 0, max: SPEED.max, unit: 'm/s' });
    requireNumber(`${field}.brakingMps2`, corner.brakingMps2, BRAKING);
    if (at < from)
      throw new InputError(
        `${field}.atM`,
        `${field}.atM lies before the end of the corner before.`,
        `at least ${from} m`,
      );
    if (at + long > length)
      throw new InputError(`${field}.atM`, `${field} lies past the end of the course.`, `up to ${length} m`);
    from = at + long;
  });
  const { slopes = [] } = course;
  if (slopes.length > MOST_SLOPES)
    throw new InputError('course.slopes', `course.slopes has ${slopes.length}.`, `at most ${MOST_SLOPES}`);
  slopes.forEach((slope, i) => {
    const at = requireNumber(`course.slopes[${i}].atM`, slope.atM, { min: 0, max: length, unit: 'm' });
    requireNumber(`course.slopes[${i}].gradePercent`, slope.gradePercent, GRADE);
    if (i > 0 && at <= (slopes[i - 1] as Slope).atM)
      throw new InputError(`course.slopes[${i}].atM`, `course.slopes[${i}].atM does not ascend.`, 'ascending');
  });
  return course;
}

/** Mean slope in percent between two places: the rise over the way. */
export function meanGrade(slopes: readonly Slope[], fromM: number, toM: number): number {
  const at = (i: number): number => slopes[i]?.atM ?? Number.POSITIVE_INFINITY;
  const rise = slopes.reduce((sum, { gradePercent }, i) => {
    const [from, to] = [Math.max(at(i), fromM), Math.min(at(i + 1), toM)];
    return sum + Math.max(to - from, 0) * gradePercent;
  }, 0);
  return toM > fromM ? rise / (toM - fromM) : 0;
}

export interface TraceSample {
  readonly distanceM: number;
  readonly speedMps: number;
  /** Height above anything, where it was recorded. */
  readonly altitudeM?: number;
}

/** A corner is a dip of the recorded speed at least this deep, in m/s and as a share. */
const PROMINENCE = { mps: 1, share: 0.04 };
/** The part of the trace within this share above the lowest speed is the corner itself. */
const CORNER_BAND = 0.03;
/** Braking that the trace shows is taken within these bounds, m/s²: what lies outside is a gap or the noise of a receiver. */
const BRAKING_SEEN = [2, 25] as const;

/**
 * A course from a recorded speed over distance: every dip of the speed is a corner with the speed, the length and the
 * braking that the trace shows; in between, how fast it goes is left to the gears. The corner's speed is its mean over
 * the dip, so that its time stays the recorded one.
 * Not counted: wind and grip along the way.
 * @param samples distance ascending without repeats, at least 8
 * @throws InputError on `trace`
 */
export function courseFromTrace(samples: readonly TraceSample[]): Course {
  if (samples.length < 8) throw new InputError('trace', `trace has ${samples.length} usable samples.`, 'at least 8');
  samples.forEach(({ distanceM, speedMps }, i) => {
    requireNumber(`trace[${i}].distanceM`, distanceM, DISTANCE);
    requireNumber(`trace[${i}].speedMps`, speedMps, SPEED);
    if (i > 0 && distanceM <= (samples[i - 1] as TraceSample).distanceM)
      throw new InputError(`trace[${i}].distanceM`, `trace[${i}].distanceM does not ascend.`, 'distance ascending');
  });
  const origin = (samples[0] as TraceSample).distanceM;
  const x = (i: number): number => (samples[i] as TraceSample).distanceM - origin;
  const v = (i: number): number => (samples[i] as TraceSample).speedMps;
  const last = samples.length - 1;
  const corners: Corner[] = [];
  let peak = 0;
  let dip = 0;
  const deep = (high: number, low: number): boolean => high - low >= Math.max(PROMINENCE.mps, PROMINENCE.share * high);
  /** Takes the dip at `at`, entered from the peak at `from`. */
  const take = (from: number, at: number): void => {
    const band = v(at) * (1 + CORNER_BAND);
    let [left, right] = [at, at];
    while (left > from && v(left - 1) <= band) left--;
    while (right < last && v(right + 1) <= band) right++;
    let time = 0;
    for (let i = left; i < right; i++) time += (2 * (x(i + 1) - x(i))) / Math.max(v(i) + v(i + 1), 0.1);
    const lengthM = x(right) - x(left);
    const seen = (v(from) ** 2 - v(left) ** 2) / (2 * Math.max(x(left) - x(from), 0.1));
    const brakingMps2 = Math.min(BRAKING_SEEN[1], Math.max(BRAKING_SEEN[0], brakingPhase(from, left) ?? seen));
    corners.push({ atM: x(left), lengthM, speedMps: Math.max(time > 0 ? lengthM / time : v(at), 0.5), brakingMps2 });
  };
  /** Deceleration of the hard part of a braking phase: between 90 and 10 % of the speed that is lost. */
  const brakingPhase = (from: number, to: number): number | null => {
    const drop = v(from) - v(to);
    let [first, end] = [-1, -1];
    for (let i = from; i <= to; i++) {
      if (first < 0 && v(i) <= v(from) - 0.1 * drop) first = i;
      if (end < 0 && v(i) <= v(from) - 0.9 * drop) end = i;
    }
    if (first < 0 || end <= first) return null;
    return (v(first) ** 2 - v(end) ** 2) / (2 * (x(end) - x(first)));
  };
  let falling = false;
  for (let i = 1; i <= last; i++) {
    if (falling) {
      if (v(i) <= v(dip)) dip = i;
      else if (deep(v(i), v(dip))) {
        take(peak, dip);
        falling = false;
        peak = i;
      }
    } else if (v(i) >= v(peak)) peak = i;
    else if (deep(v(peak), v(i))) {
      falling = true;
      dip = i;
    }
  }
  const apart = corners.filter((corner, i) => {
    const before = corners[i - 1];
    return !before || corner.atM >= before.atM + before.lengthM;
  });
  const fastestMps = samples.reduce((most, { speedMps }) => Math.max(most, speedMps), 0);
  const slopes = slopesFrom(samples.map(({ altitudeM }, i) => ({ atM: x(i), altitudeM })));
  return checkCourse({
    lengthM: x(last),
    startMps: v(0),
    corners: apart,
    fastestMps,
    ...(slopes.length > 0 ? { slopes } : {}),
  });
}

/** A slope is the rise over this much of the way: a receiver's altitude wanders by metres within less; ours. */
const SLOPE_M = 100;
/** Slopes nearer to each other than this are one; ours. */
const SAME_PERCENT = 0.5;

/**
 * Slope along the way from a recorded altitude, over stretches of a hundred metres at least. Samples without one are passed over; none
 * or one of them makes no slope.
 * Not counted: that a receiver's altitude drifts; what a car with a barometer reads in a tunnel.
 */
export function slopesFrom(
  samples: readonly { readonly atM: number; readonly altitudeM?: number | undefined }[],
): Slope[] {
  const known = samples.filter(
    (sample): sample is { atM: number; altitudeM: number } => sample.altitudeM !== undefined,
  );
  const [first, last] = [known[0], known.at(-1)];
  if (!first || !last || last.atM <= first.atM) return [];
  const count = Math.min(Math.max(1, Math.floor((last.atM - first.atM) / SLOPE_M)), MOST_SLOPES);
  const step = (last.atM - first.atM) / count;
  let j = 0;
  /** Altitude at a place, linear between the samples around it; asked for in ascending places. */
  const height = (atM: number): number => {
    while (j + 1 < known.length - 1 && (known[j + 1] as { atM: number }).atM < atM) j++;
    const [a, b] = [known[j] as (typeof known)[0], known[Math.min(j + 1, known.length - 1)] as (typeof known)[0]];
    const share = b.atM > a.atM ? (atM - a.atM) / (b.atM - a.atM) : 0;
    return a.altitudeM + (b.altitudeM - a.altitudeM) * Math.min(Math.max(share, 0), 1);
  };
  const slopes: Slope[] = [];
  let before = height(first.atM);
  for (let i = 0; i < count; i++) {
    const now = height(first.atM + (i + 1) * step);
    const gradePercent = Math.min(GRADE.max, Math.max(GRADE.min, (100 * (now - before)) / step));
    before = now;
    if (Math.abs(gradePercent - (slopes.at(-1)?.gradePercent ?? 0)) < SAME_PERCENT) continue;
    slopes.push({ atM: first.atM + i * step, gradePercent });
  }
  return slopes;
}
