import { newBuild, openUnit, unitAs, type Build } from '@hot-spline/model';

/** A rear-driven build with a plate unit. */
export function plateBuild(): Build {
  const build = newBuild('Test');
  const { rear } = build.axles;
  if (rear) rear.unit = unitAs(openUnit(), 'plate');
  return build;
}
