import { entryOf } from '@hot-spline/core';
import { newBuild, newPlateSpec, type Build } from '@hot-spline/model';

/** A rear-driven build with a plate unit. */
export function plateBuild(): Build {
  const build = newBuild('Test');
  const { rear } = build.axles;
  if (rear) rear.unit = { type: 'plate', plate: newPlateSpec() };
  return build;
}

export const mm = (value: number) => entryOf(value, 'mm');
