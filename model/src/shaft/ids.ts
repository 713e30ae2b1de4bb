import type { AxleName, Side } from '../document/names';

export const shaftFigures = {
  torque: (axle: AxleName, side: Side) => `shaft.${axle}.${side}.torque` as const,
  yield: (axle: AxleName, side: Side) => `shaft.${axle}.${side}.yield` as const,
  margin: (axle: AxleName, side: Side) => `shaft.${axle}.${side}.margin` as const,
  critical: (axle: AxleName) => `shaft.${axle}.critical` as const,
  propRpm: (axle: AxleName) => `shaft.${axle}.prop-rpm` as const,
};
