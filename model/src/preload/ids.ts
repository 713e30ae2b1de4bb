import type { AxleName } from '../base/names';

export const preloadFigures = {
  pinion: (axle: AxleName) => `preload.${axle}.pinion` as const,
  carrier: (axle: AxleName) => `preload.${axle}.carrier` as const,
  turnTo: (axle: AxleName) => `preload.${axle}.turn-to` as const,
  /** Share of the total turning torque that is left after the run-in. */
  stayed: (axle: AxleName) => `preload.${axle}.stayed` as const,
  spacers: (axle: AxleName) => `preload.${axle}.spacers` as const,
};
