import '../base/zod';
import * as z from 'zod';

/** Where a value of the library comes from; the maker's sheet wins over all others. A value begins as `not-said`: nobody's word. */
export const ORIGINS = ['not-said', 'said', 'maker', 'measured', 'trade', 'memory', 'borrowed', 'guess'] as const;
export type Origin = (typeof ORIGINS)[number];

/** The same in words of the shop. */
export const ORIGIN_WORDS: Readonly<Record<Origin, string>> = {
  'not-said': 'not said',
  said: 'said, read nowhere',
  maker: 'maker’s sheet',
  measured: 'measured',
  trade: 'trade',
  memory: 'memory',
  borrowed: 'borrowed from another axle',
  guess: 'guess, ours',
};

/**
 * What an origin is worth: the maker's sheet counts as such only with where it was read (sheet, page or photo); without it the value
 * is somebody's word.
 */
export const originOf = ({ origin, where }: { readonly origin: Origin; readonly where: string }): Origin =>
  origin === 'maker' && where.trim() === '' ? 'said' : origin;

/** What of the library something was taken from, and what that rested on; null where it was typed here. */
export const takenFromSchema = z
  .strictObject({ name: z.string().trim().min(1).max(80), origin: z.enum(ORIGINS) })
  .nullable();
export type TakenFrom = z.infer<typeof takenFromSchema>;

/** The one that can be leaned on least, in the order of trust. */
const TRUST: readonly Origin[] = ['measured', 'maker', 'trade', 'said', 'memory', 'borrowed', 'guess', 'not-said'];
export const leastOf = (origins: readonly Origin[]): Origin =>
  origins.reduce<Origin>((least, one) => (TRUST.indexOf(one) > TRUST.indexOf(least) ? one : least), 'measured');
