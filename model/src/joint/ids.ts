import type { AxleName } from '../base/names';

export const jointFigures = {
  /** K·d·F at three quarters of proof. */
  short: (axle: AxleName) => `joint.${axle}.short` as const,
  /** The same clamp with friction of thread and head apart. */
  full: (axle: AxleName) => `joint.${axle}.full` as const,
  loosen: (axle: AxleName) => `joint.${axle}.loosen` as const,
  /** What the torque that is used gives, as a share of the proof load. */
  ofProof: (axle: AxleName) => `joint.${axle}.of-proof` as const,
  arrives: (axle: AxleName) => `joint.${axle}.arrives` as const,
  slip: (axle: AxleName) => `joint.${axle}.slip` as const,
  margin: (axle: AxleName) => `joint.${axle}.margin` as const,
  clearance: (axle: AxleName) => `joint.${axle}.clearance` as const,
  engagement: (axle: AxleName) => `joint.${axle}.engagement` as const,
  heat: (axle: AxleName) => `joint.${axle}.heat` as const,
};
