import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

const SPEED = { min: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
const DISTANCE = { min: 0, max: 1e6, unit: 'm' };
const BRAKING = { above: 0, max: 60, unit: 'm/s²' };
export const MOST_CORNERS = 400;

export interface Corner {
  /** Where the corner's speed has to be reached, from the start. */
  readonly atM: number;
  /** For how long it holds. */
  readonly lengthM: number;
  readonly speedMps: number;
  /** Deceleration on the way into it, drag included. */
  readonly brakingMps2: number;
}

/** What gears are compared on: speeds that have to be kept, and how hard is braked; the rest is thrust. */
export interface Course {
  readonly lengthM: number;
  readonly startMps: number;
  readonly corners: readonly Corner[];
  /** Highest speed seen, where the course was recorded. */
  readonly fastestMps: number | null;
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
  return course;
}

export interface TraceSample {
  readonly distanceM: number;
  readonly speedMps: number;
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
 * Not counted: slopes, wind and grip along the way.
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
  return checkCourse({ lengthM: x(last), startMps: v(0), corners: apart, fastestMps });
}
