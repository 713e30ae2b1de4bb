import type { Rests } from '../frame/figure';
import type { Origin } from '../library/origins';

/** How far a value of the library can be leaned on. */
export const ORIGIN_RESTS: Readonly<Record<Origin, Rests>> = {
  'not-said': 'memory',
  said: 'memory',
  maker: 'sheet',
  measured: 'measured',
  trade: 'trade',
  memory: 'memory',
  borrowed: 'memory',
  guess: 'memory',
};
