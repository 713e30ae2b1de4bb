import type { AxleSpec } from '@hot-spline/model';
import { BRAKE_OPTIONS, OUTER_SEAL_OPTIONS, RETENTION_OPTIONS, SPREAD_OPTIONS, WHEEL_BEARING_OPTIONS } from './words';

/** What of an axle is one of several words: its key, its field, how it is asked. */
export const AXLE_SAID = [
  {
    key: 'retention',
    field: 'retention',
    label: 'Shafts held by',
    of: 'what holds the shafts',
    options: RETENTION_OPTIONS,
  },
  { key: 'brake', field: 'brake', label: 'Brake', of: 'the brake', options: BRAKE_OPTIONS },
  {
    key: 'wheelBearing',
    field: 'wheel-bearing',
    label: 'Wheel bearing',
    of: 'the wheel bearing',
    options: WHEEL_BEARING_OPTIONS,
  },
  { key: 'outerSeal', field: 'outer-seal', label: 'Outer seal', of: 'the outer seal', options: OUTER_SEAL_OPTIONS },
  { key: 'spread', field: 'spread', label: 'Case opened by', of: 'what opens the case', options: SPREAD_OPTIONS },
] as const satisfies readonly {
  readonly key: keyof AxleSpec;
  readonly field: string;
  readonly label: string;
  readonly of: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
}[];
export type AxleSaidKey = (typeof AXLE_SAID)[number]['key'];
