import type { AxleName } from '../base/names';

export const identityFigures = {
  /** Ratio of the closed axle by turns. */
  closed: (axle: AxleName) => `identity.${axle}.closed` as const,
};
