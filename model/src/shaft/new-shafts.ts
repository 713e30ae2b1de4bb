import type { Shaft, Shafts } from './schema';

const newShaft = (splines: number): Shaft => ({
  splines,
  pitch: 24,
  material: 'unknown',
  shear: null,
  neck: null,
  engagement: null,
  pinGap: null,
  float: null,
});

/** Shafts to begin with. @param splines as the axle’s spec says */
export const newShafts = (splines = 28): Shafts => ({ left: newShaft(splines), right: newShaft(splines), prop: null });
