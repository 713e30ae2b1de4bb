import { InputError, LIMITS, numberReadings, toothPair, tyreSize, type ToothPair } from '@hot-spline/core';
import type { Understood } from './field';

/** Reads `41/11` as ring and pinion. */
export function pairReader(label: string): (text: string) => Understood<ToothPair> {
  return (text) => {
    const match = /^\s*(\d{1,3})\s*([/:])\s*(\d{1,3})\s*$/.exec(text);
    if (!match) throw new InputError(label, `${label} must be ring / pinion teeth.`, 'e.g. 41/11');
    const [a, b] = [Number(match[1]), Number(match[3])];
    // `11:41` is said pinion first, as the power runs; a ring never has fewer teeth.
    const pair = match[2] === ':' && a < b ? { ring: b, pinion: a } : { ring: a, pinion: b };
    const { ratio, hunting } = toothPair(pair);
    return { value: pair, said: `${ratio.toFixed(3)}, ${hunting}` };
  };
}

/**
 * Reads several of them, apart by commas, semicolons or blanks: `41/11, 43/11`; and a ratio, `3.73`, where `pairOf` knows the teeth that
 * make it.
 */
export function pairsReader(
  label: string,
  most = 60,
  pairOf?: (ratio: number) => ToothPair,
): (text: string) => Understood<readonly ToothPair[]> {
  const teeth = pairReader(label);
  const one = (text: string): Understood<ToothPair> => {
    const ratio = /[/:]/.test(text) ? undefined : numberReadings(text.trim())[0];
    if (pairOf === undefined || ratio === undefined) return teeth(text);
    if (ratio < 1 || ratio > 20) throw new InputError(label, `${label}: ${text.trim()} is no final drive.`, '1 to 20');
    const pair = pairOf(ratio);
    return { value: pair, said: `${pair.ring}/${pair.pinion} ${toothPair(pair).ratio.toFixed(3)}` };
  };
  return (text) => {
    const parts = text.split(/;\s*|,\s+|,(?=\d+\s*[/:])|(?<![/:])\s+(?=\d)/).filter((part) => part.trim() !== '');
    if (parts.length === 0) one(text);
    if (parts.length > most)
      throw new InputError(label, `${label}: ${parts.length} are too many.`, `${most} more at most`);
    const read = parts.map((part) => one(part));
    return { value: read.map(({ value }) => value), said: read.map(({ said }) => said).join('; ') };
  };
}

/** Reads `34/21` as the teeth of a gear pair, driven over driver; `21:34` driver first, as a train of gears runs. */
export function gearTeethReader(label: string): (text: string) => Understood<{ driver: number; driven: number }> {
  return (text) => {
    const match = /^\s*(\d{1,3})\s*([/:])\s*(\d{1,3})\s*$/.exec(text);
    if (!match) throw new InputError(label, `${label} must be driven / driver teeth.`, 'e.g. 34/21');
    const [a, b] = [Number(match[1]), Number(match[3])];
    const [driven, driver] = match[2] === ':' ? [b, a] : [a, b];
    const { min, max } = LIMITS.teeth;
    if (Math.min(driven, driver) < min || Math.max(driven, driver) > max)
      throw new InputError(label, `${label}: no gear has that many teeth.`, `${min} to ${max} each`);
    return { value: { driver, driven }, said: (driven / driver).toFixed(3) };
  };
}

/** Reads `34/20/15` as the teeth of a reverse gear: driven, its idler, driver. */
export function reverseTeethReader(
  label: string,
): (text: string) => Understood<{ driver: number; driven: number; idler: number }> {
  return (text) => {
    const match = /^\s*(\d{1,3})\s*\/\s*(\d{1,3})\s*\/\s*(\d{1,3})\s*$/.exec(text);
    if (!match) throw new InputError(label, `${label} must be driven / idler / driver teeth.`, 'e.g. 34/20/15');
    const [driven = 0, idler = 0, driver = 0] = match.slice(1).map(Number);
    const { min, max } = LIMITS.teeth;
    if (Math.min(driven, idler, driver) < min || Math.max(driven, idler, driver) > max)
      throw new InputError(label, `${label}: no gear has that many teeth.`, `${min} to ${max} each`);
    return { value: { driver, driven, idler }, said: `${(driven / driver).toFixed(3)}, by an idler of ${idler}` };
  };
}

/** Reads a whole number inside its limits. */
export function countReader(label: string, min: number, max: number): (text: string) => Understood<number> {
  return (text) => {
    // Counted in ones: of two readings the one in thousands.
    const value = numberReadings(text.trim()).findLast((one) => Number.isInteger(one) && one >= min && one <= max);
    if (value === undefined) throw new InputError(label, `${label} must be a whole number.`, `${min} to ${max}`);
    return { value, said: '' };
  };
}

/** Reads any number inside its limits; empty text is no number where that is allowed. */
export function numberReader(
  label: string,
  range: { min: number; max: number },
): (text: string) => Understood<number | null> {
  return (text) => {
    if (text.trim() === '') return { value: null, said: 'none' };
    const sign = /^[-−]/.test(text.trim()) ? -1 : 1;
    const inRange = numberReadings(text.trim().replace(/^[+−-]\s*/, ''))
      .map((one) => sign * one)
      .filter((one) => one >= range.min && one <= range.max);
    // What reaches into thousands is met in thousands.
    const value = range.max >= 1000 ? inRange.at(-1) : inRange[0];
    if (value === undefined) throw new InputError(label, `${label} must be a number.`, `${range.min} to ${range.max}`);
    return { value, said: '' };
  };
}

/** Reads a name of at most so many characters. */
export function textReader(label: string, most: number, least = 0): (text: string) => Understood<string> {
  return (text) => {
    const value = text.trim();
    if (value.length > most || value.length < least)
      throw new InputError(label, `${label} has ${value.length} characters.`, `${least} to ${most} characters`);
    return { value, said: '' };
  };
}

/** Reads a tyre, or nothing. */
export function tyreReader(describe: (designation: string) => string): (text: string) => Understood<string | null> {
  return (text) => {
    if (text.trim() === '') return { value: null, said: 'none' };
    tyreSize(text);
    return { value: text.trim(), said: describe(text) };
  };
}
