import type { AxleName, Side } from '../base/names';

/** Ids of the figures of the unit. */
export const unitFigures = {
  lock: (axle: AxleName, flank: 'drive' | 'overrun') => `unit.${axle}.${flank}.lock` as const,
  bias: (axle: AxleName, flank: 'drive' | 'overrun') => `unit.${axle}.${flank}.bias` as const,
  backlash: (axle: AxleName, side: Side) => `unit.${axle}.${side}.backlash` as const,
  shaft: () => 'point.shaft' as const,
};
