import type { AxleName } from '../base/names';

/** Ids of the figures of tyre and ratio. */
export const gearingFigures = {
  circumference: (axle: AxleName) => `gearing.${axle}.circumference` as const,
  final: (axle: AxleName) => `gearing.${axle}.final` as const,
  cruise: () => 'gearing.cruise' as const,
  mismatch: () => 'gearing.mismatch' as const,
  crawl: () => 'match.crawl' as const,
  equal: () => 'match.equal' as const,
  effective: () => 'match.effective' as const,
  reading: () => 'match.reading' as const,
  point: (id: string) => `match.point.${id}` as const,
};
