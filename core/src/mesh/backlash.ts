import { InputError, requireNumber } from '../base/errors';
import { MESH_LIMITS } from './limits';

/** Lower and upper end of a band, mm. */
export type BandMm = readonly [number, number];

export interface Round {
  readonly meanMm: number;
  readonly minMm: number;
  readonly maxMm: number;
  /** Half of peak to peak of what comes once a turn; null where fewer than 3 places were read. */
  readonly runoutAmplitudeMm: number | null;
  /** Where backlash is most, degrees from place 1 in reading order. */
  readonly runoutAngleDeg: number | null;
  /** What the once-a-turn wave does not explain, root of the mean square. */
  readonly residualMm: number | null;
  readonly verdict: 'fits' | 'watch' | 'stop';
}

/** Fewer places than this can hide a run-out; more variation than this has a cause (common practice, about 3 thou). */
export const BACKLASH_GUARD = { places: 4, variationMm: 0.0762 } as const;

/** @throws InputError naming `specMm` for ends that are no band */
export function requireBand(field: string, band: BandMm): BandMm {
  const low = requireNumber(`${field}[0]`, band[0], MESH_LIMITS.backlashMm);
  const high = requireNumber(`${field}[1]`, band[1], MESH_LIMITS.backlashMm);
  if (high <= low)
    throw new InputError(
      field,
      `${field} is upside down: ${low} to ${high}.`,
      'the lower limit first, then the upper one',
    );
  return [low, high];
}

/** @throws InputError naming the field */
export function requireReadings(field: string, readings: readonly number[]): readonly number[] {
  if (readings.length < MESH_LIMITS.places.min || readings.length > MESH_LIMITS.places.max)
    throw new InputError(
      field,
      `${field} has ${readings.length} places.`,
      `${MESH_LIMITS.places.min} to ${MESH_LIMITS.places.max} places round the ring`,
    );
  return readings.map((one, i) => requireNumber(`${field}[${i}]`, one, MESH_LIMITS.backlashMm));
}

/** The once-a-turn wave of evenly spaced readings: least squares in closed form, 3 places at least [exact]. */
export function onceATurn(readings: readonly number[]): {
  mean: number;
  amplitude: number;
  angleDeg: number;
  rms: number;
} {
  const n = readings.length;
  const mean = readings.reduce((a, b) => a + b, 0) / n;
  let [a, b] = [0, 0];
  readings.forEach((value, i) => {
    const at = (2 * Math.PI * i) / n;
    a += (2 / n) * (value - mean) * Math.cos(at);
    b += (2 / n) * (value - mean) * Math.sin(at);
  });
  let squares = 0;
  readings.forEach((value, i) => {
    const at = (2 * Math.PI * i) / n;
    squares += (value - mean - a * Math.cos(at) - b * Math.sin(at)) ** 2;
  });
  const amplitude = Math.hypot(a, b);
  // A wave that is nothing but rounding has no direction.
  const angle = amplitude < 1e-12 ? 0 : (Math.atan2(b, a) * 180) / Math.PI;
  return { mean, amplitude, angleDeg: (angle + 360) % 360, rms: Math.sqrt(squares / n) };
}

/**
 * Backlash round the ring: mean, ends, once-a-turn run-out by least squares, and whether all of it is in band. `stop` where a
 * place is outside, `watch` where there are fewer than 4 places or they vary by more than about 3 thou (find out why before
 * shimming), else `fits`.
 * Not counted: where on the tooth it was read, slack of the indicator.
 * @param readingsMm 1 to 72, evenly spaced round the ring
 * @throws InputError naming the field
 */
export function backlashRound(readingsMm: readonly number[], specMm: BandMm): Round {
  const readings = requireReadings('readingsMm', readingsMm);
  const [low, high] = requireBand('specMm', specMm);
  const [minMm, maxMm] = [Math.min(...readings), Math.max(...readings)];
  const wave = readings.length < 3 ? null : onceATurn(readings);
  const outside = minMm < low - 1e-9 || maxMm > high + 1e-9;
  const doubtful = readings.length < BACKLASH_GUARD.places || maxMm - minMm > BACKLASH_GUARD.variationMm + 1e-9;
  return {
    meanMm: readings.reduce((a, b) => a + b, 0) / readings.length,
    minMm,
    maxMm,
    runoutAmplitudeMm: wave && wave.amplitude,
    runoutAngleDeg: wave && wave.angleDeg,
    residualMm: wave && wave.rms,
    verdict: outside ? 'stop' : doubtful ? 'watch' : 'fits',
  };
}
