import type { Hold } from '@hot-spline/core';
import type { AxleName, Side } from '../base/names';

/** Ids of the figures of the packs. */
export const packFigures = {
  interfaces: (axle: AxleName, side: Side) => `pack.${axle}.${side}.interfaces` as const,
  height: (axle: AxleName, side: Side) => `pack.${axle}.${side}.height` as const,
  clamp: (axle: AxleName, side: Side) => `pack.${axle}.${side}.clamp` as const,
  breakaway: (axle: AxleName, side: Side) => `pack.${axle}.${side}.breakaway` as const,
  wrench: (axle: AxleName, hold: Hold) => `pack.${axle}.wrench.${hold}` as const,
  slope: (axle: AxleName) => `pack.${axle}.slope` as const,
  bedded: (axle: AxleName) => `pack.${axle}.bedded` as const,
  between: (axle: AxleName) => `pack.${axle}.between` as const,
  friction: (axle: AxleName, kind: 'static' | 'sliding' = 'static') =>
    kind === 'static' ? (`pack.${axle}.friction` as const) : (`pack.${axle}.friction.sliding` as const),
};
