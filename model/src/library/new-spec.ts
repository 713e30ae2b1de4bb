import type { AxleSpec, Construction, Origin, Seat, ShimBox } from './schema';
import { emptySheet } from './sheet';

/** An axle of which nothing is known but its name and how it is put together. */
export const newAxleSpec = (
  name: string,
  construction: Construction = 'integral-head-shim',
  origin: Origin = 'guess',
): AxleSpec => ({
  kind: 'axle',
  name,
  construction: { value: construction, origin },
  ringDiameter: null,
  ringBolts: null,
  pinionSplines: null,
  shaftSplines: null,
  retention: null,
  brake: null,
  wheelBearing: null,
  outerSeal: null,
  spread: null,
  carriers: [],
  extras: { ringBolts: null, recalibration: null },
  sets: [],
  sheet: emptySheet(),
  adjusterSequence: null,
});

/** A drawer of a seat, with what is in it. */
export const newShimBox = (name: string, seat: Seat = 'pack', pieces: ShimBox['pieces'] = []): ShimBox => ({
  kind: 'shims',
  name,
  seat,
  bore: null,
  outside: null,
  pieces,
});
