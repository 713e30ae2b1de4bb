import type { AxleName, Side } from '../base/names';

export const shaftFigures = {
  torque: (axle: AxleName, side: Side) => `shaft.${axle}.${side}.torque` as const,
  yield: (axle: AxleName, side: Side) => `shaft.${axle}.${side}.yield` as const,
  margin: (axle: AxleName, side: Side) => `shaft.${axle}.${side}.margin` as const,
  critical: (axle: AxleName) => `shaft.${axle}.critical` as const,
  /** What reaches tube and joint of the prop shaft and the pinion, with shock. */
  propTorque: (axle: AxleName) => `shaft.${axle}.prop-torque` as const,
  tube: (axle: AxleName) => `shaft.${axle}.tube` as const,
  joint: (axle: AxleName) => `shaft.${axle}.joint` as const,
  pinion: (axle: AxleName) => `shaft.${axle}.pinion` as const,
  propRpm: (axle: AxleName) => `shaft.${axle}.prop-rpm` as const,
};
