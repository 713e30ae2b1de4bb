/**
 * Chance that a standard normal value lies above z: Abramowitz & Stegun 26.2.17 [standard, from memory], within 8e-8.
 * Not counted: tails beyond about 5 deviations, where that error is larger than the value.
 */
export function normalAbove(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? tail : 1 - tail;
}

/** Chance that a normal value lies between two limits. Not counted: see {@link normalAbove}. */
export function normalBetween(low: number, high: number, mean: number, deviation: number): number {
  if (deviation <= 0) return mean >= low && mean <= high ? 1 : 0;
  return Math.max(0, normalAbove((low - mean) / deviation) - normalAbove((high - mean) / deviation));
}

/**
 * Chance that chi-squared with so many degrees lies above a value: Wilson and Hilferty's cube root [standard, from memory], within 0.002
 * from 3 degrees on. Not counted: see {@link normalAbove}.
 */
export function chiSquaredAbove(value: number, degrees: number): number {
  const spread = 2 / (9 * degrees);
  return normalAbove((Math.cbrt(value / degrees) - (1 - spread)) / Math.sqrt(spread));
}
