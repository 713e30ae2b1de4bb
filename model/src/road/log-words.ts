import { LEVEL, say, type AgainstLog, type Course, type LogStretch, type UnitSystem } from '@hot-spline/core';

/** Stretches named one by one; the rest is what is left. */
const NAMED = 2;
/** Fastest speeds nearer to each other than this are the same: a receiver tells no more. Ours, m/s. */
const SAME_MPS = 0.5;

/** By what a stretch differs, as far as its fastest speed tells. */
function byWhat({ logMps, modelMps, logS, modelS }: LogStretch, system: UnitSystem): string {
  const speeds = `${say(logMps, 'speed', system, 0)} in the log, ${say(modelMps, 'speed', system, 0)} in the model`;
  if (Math.abs(logMps - modelMps) < SAME_MPS)
    return `as fast at its fastest (${say(logMps, 'speed', system, 0)}): braking, or a lift`;
  if (logMps < modelMps && logS > modelS)
    return `${speeds}: less thrust, more drag, headwind, a slower shift or a lift`;
  if (logMps > modelMps && logS < modelS) return `${speeds}: more thrust, less drag or a tow`;
  return `${speeds}: braked elsewhere`;
}

/** The log of a course against the model in a few sentences: how long each took, where it differs most, and by what. */
export function againstLogWords(
  { logS, modelS, stretches, most }: AgainstLog,
  course: Pick<Course, 'corners'>,
  system: UnitSystem,
): string {
  const off = modelS - logS;
  const both = `The log took ${logS.toFixed(2)} s, the model takes ${modelS.toFixed(2)} s with the set in the box`;
  if (Math.abs(off) < LEVEL * logS) return `${both}: level.`;
  const named = most
    .filter((i) => {
      const one = stretches[i] as LogStretch;
      return Math.sign(one.modelS - one.logS) === Math.sign(off) && Math.abs(one.modelS - one.logS) >= 0.05;
    })
    .slice(0, NAMED)
    .map((i) => {
      const one = stretches[i] as LogStretch;
      const place = i < course.corners.length ? `on the way to corner ${i + 1}` : 'on the way to the finish';
      return `${Math.abs(one.modelS - one.logS).toFixed(2)} s ${place} (${byWhat(one, system)})`;
    });
  const where = named.length > 0 ? ` Most of it: ${named.join('; ')}.` : ' A little everywhere.';
  return `${both}: ${Math.abs(off).toFixed(2)} s ${off < 0 ? 'quicker' : 'slower'} than driven.${where}`;
}
