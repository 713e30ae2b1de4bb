import { AXLES, type Build } from '@hot-spline/model/document';

/** Whether any axle of a build has a ring and a pinion to set; not where all of them are reduction units. */
export const hasMesh = ({ axles }: Build): boolean =>
  AXLES.some((name) => axles[name] && axles[name].identity?.construction.value !== 'electric-reduction');
