import type { AxleName } from '../base/names';

export const planFigures = {
  left: (axle: AxleName) => `plan.${axle}.left` as const,
  taken: (axle: AxleName) => `plan.${axle}.taken` as const,
  leak: (axle: AxleName) => `plan.${axle}.leak` as const,
};
