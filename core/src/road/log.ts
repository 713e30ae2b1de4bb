import { LOG_SAMPLES } from './limits';
import { InputError, requireNumber } from '../base/errors';
import { type Course } from './course';
import { type PacePoint } from './pace';

/** A recorded speed at its place. */
export interface LogSample {
  readonly atM: number;
  readonly speedMps: number;
}

/**
 * The samples that say most of a recorded speed: both ends, then again and again the one that lies farthest from the line through those
 * that are kept already. Between them the line is off by the least that so many allow, nearly.
 * @param most 2 at least
 */
export function thinLog(samples: readonly LogSample[], most = LOG_SAMPLES): LogSample[] {
  if (samples.length <= most) return [...samples];
  const at = (i: number): LogSample => samples[i] as LogSample;
  /** The sample between two kept ones that is farthest from the line. */
  const farthest = (from: number, to: number) => {
    let [best, off] = [from, 0];
    const slope = (at(to).speedMps - at(from).speedMps) / Math.max(at(to).atM - at(from).atM, 1e-9);
    for (let i = from + 1; i < to; i++) {
      const error = Math.abs(at(i).speedMps - at(from).speedMps - slope * (at(i).atM - at(from).atM));
      if (error > off) [best, off] = [i, error];
    }
    return { from, to, best, off };
  };
  const parts = [farthest(0, samples.length - 1)];
  const kept = new Set([0, samples.length - 1]);
  while (kept.size < most) {
    const worst = parts.reduce((a, b) => (b.off > a.off ? b : a));
    if (worst.off === 0) break;
    parts.splice(parts.indexOf(worst), 1, farthest(worst.from, worst.best), farthest(worst.best, worst.to));
    kept.add(worst.best);
  }
  return [...kept].sort((a, b) => a - b).map(at);
}

/** Seconds that a recorded speed takes over its way: between two samples at their mean speed [exact for a constant acceleration]. */
export function logTime(samples: readonly LogSample[]): number {
  let time = 0;
  for (let i = 1; i < samples.length; i++) {
    const [a, b] = [samples[i - 1] as LogSample, samples[i] as LogSample];
    time += (2 * (b.atM - a.atM)) / Math.max(a.speedMps + b.speedMps, 0.1);
  }
  return time;
}

/** One straight with the corner behind it, in the log and in the model. */
export interface LogStretch {
  readonly fromM: number;
  readonly toM: number;
  readonly logS: number;
  readonly modelS: number;
  /** The fastest of each on it. */
  readonly logMps: number;
  readonly modelMps: number;
}

export interface AgainstLog {
  readonly logS: number;
  readonly modelS: number;
  readonly stretches: readonly LogStretch[];
  /** Which of them lose or gain most, the largest first. */
  readonly most: readonly number[];
}

/** Linear between the samples around a place. */
function speedAt(samples: readonly LogSample[], atM: number): number {
  const i = samples.findIndex((sample) => sample.atM >= atM);
  const [a, b] = [samples[Math.max(i - 1, 0)] as LogSample, samples[i < 0 ? samples.length - 1 : i] as LogSample];
  if (i < 0) return b.speedMps;
  return b.atM > a.atM ? a.speedMps + ((b.speedMps - a.speedMps) * (atM - a.atM)) / (b.atM - a.atM) : b.speedMps;
}

/** The samples between two places, both ends added. */
function between(samples: readonly LogSample[], fromM: number, toM: number): LogSample[] {
  return [
    { atM: fromM, speedMps: speedAt(samples, fromM) },
    ...samples.filter(({ atM }) => atM > fromM && atM < toM),
    { atM: toM, speedMps: speedAt(samples, toM) },
  ];
}

/** Time of the model at a place, linear between its points. */
function modelTimeAt(points: readonly PacePoint[], atM: number): number {
  const i = points.findIndex((point) => point.distanceM >= atM);
  if (i < 0) return points.at(-1)?.timeS ?? 0;
  const [a, b] = [points[Math.max(i - 1, 0)] as PacePoint, points[i] as PacePoint];
  return b.distanceM > a.distanceM
    ? a.timeS + ((b.timeS - a.timeS) * (atM - a.distanceM)) / (b.distanceM - a.distanceM)
    : b.timeS;
}

/**
 * A recorded speed against the modelled one on the same course, straight by straight: where the time differs, and whether the car was
 * faster or slower at its fastest there. A corner has the recorded speed in both; what differs is thrust, drag, wind, slope, lifts and the
 * braking points.
 * @param points the model's, in order of the way
 * @throws InputError on `log` for fewer than two samples or ones that do not ascend
 */
export function againstLog(course: Course, log: readonly LogSample[], points: readonly PacePoint[]): AgainstLog {
  if (log.length < 2) throw new InputError('log', `log has ${log.length} samples.`, '2 at least');
  log.forEach(({ atM, speedMps }, i) => {
    requireNumber(`log[${i}].atM`, atM, { min: 0, max: 1e6, unit: 'm' });
    requireNumber(`log[${i}].speedMps`, speedMps, { min: 0, max: 600, unit: 'm/s' });
    if (i > 0 && atM <= (log[i - 1] as LogSample).atM)
      throw new InputError(`log[${i}].atM`, `log[${i}].atM does not ascend.`, 'ascending');
  });
  const last = log.at(-1) as LogSample;
  const ends = [...course.corners.map(({ atM, lengthM }) => atM + lengthM), Math.min(course.lengthM, last.atM)];
  const stretches = ends.flatMap((toM, i): LogStretch[] => {
    const fromM = i === 0 ? 0 : (ends[i - 1] as number);
    if (toM <= fromM) return [];
    const logged = between(log, fromM, toM);
    const driven = points.filter(({ distanceM }) => distanceM >= fromM && distanceM <= toM);
    return [
      {
        fromM,
        toM,
        logS: logTime(logged),
        modelS: modelTimeAt(points, toM) - modelTimeAt(points, fromM),
        logMps: Math.max(...logged.map(({ speedMps }) => speedMps)),
        modelMps: Math.max(0, ...driven.map(({ speedMps }) => speedMps)),
      },
    ];
  });
  const off = (i: number): number => Math.abs((stretches[i] as LogStretch).modelS - (stretches[i] as LogStretch).logS);
  return {
    logS: stretches.reduce((sum, { logS }) => sum + logS, 0),
    modelS: stretches.reduce((sum, { modelS }) => sum + modelS, 0),
    stretches,
    most: stretches.map((_, i) => i).sort((a, b) => off(b) - off(a)),
  };
}
