import type { Shaft, Shafts, Twisted } from './schema';

/** An end to begin with. @param splines as the axle’s spec says */
export const newEnd = (splines = 28): Twisted => ({
  splines,
  pitch: 24,
  angle: 30,
  material: 'unknown',
  shear: null,
  neck: null,
  bore: null,
});

const newShaft = (splines: number): Shaft => ({
  ...newEnd(splines),
  engagement: null,
  pinGap: null,
  float: null,
});

/** Shafts to begin with. @param splines as the axle’s spec says */
export const newShafts = (splines = 28): Shafts => ({
  left: newShaft(splines),
  right: newShaft(splines),
  prop: null,
  pinion: null,
});
