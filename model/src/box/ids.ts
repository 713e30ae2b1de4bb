import type { BoxShaft } from '@hot-spline/core';

export const boxFigures = {
  float: (shaft: BoxShaft) => `box.${shaft}.float` as const,
  floatHot: (shaft: BoxShaft) => `box.${shaft}.float-hot` as const,
  nextShim: (shaft: BoxShaft) => `box.${shaft}.next-shim` as const,
  thrust: (shaft: BoxShaft) => `box.${shaft}.thrust` as const,
  faceToFace: () => 'box.face-to-face' as const,
  steepest: () => 'box.steepest' as const,
  wheelTorque: () => 'box.wheel-torque' as const,
  wheelOverrun: () => 'box.wheel-overrun' as const,
  worstOverlap: () => 'box.worst-overlap' as const,
};
