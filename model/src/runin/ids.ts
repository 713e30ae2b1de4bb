import type { AxleName } from '../base/names';

export const runInFigures = {
  distance: (axle: AxleName) => `runin.${axle}.distance` as const,
};
