import type { AxleName } from '../document/names';

export const runInFigures = {
  distance: (axle: AxleName) => `runin.${axle}.distance` as const,
};
