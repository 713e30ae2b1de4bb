import type { AxleName } from '../base/names';

/** Figures of backlash, pattern and position, of the assembly that is in. */
export const meshFigures = {
  mean: (axle: AxleName) => `mesh.${axle}.backlash` as const,
  least: (axle: AxleName) => `mesh.${axle}.least` as const,
  most: (axle: AxleName) => `mesh.${axle}.most` as const,
  runout: (axle: AxleName) => `mesh.${axle}.runout` as const,
  shim: (axle: AxleName) => `mesh.${axle}.shim` as const,
  ring: (axle: AxleName) => `mesh.${axle}.ring` as const,
  sides: (axle: AxleName) => `mesh.${axle}.sides` as const,
  float: (axle: AxleName) => `mesh.${axle}.float` as const,
  floatShim: (axle: AxleName) => `mesh.${axle}.float-shim` as const,
  closing: (axle: AxleName) => `mesh.${axle}.closing` as const,
};
