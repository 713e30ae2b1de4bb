import { defineCapability } from '../engine/capability';
import { meshCalculations } from './calculations';

/** Depth, backlash, pattern and preload of ring and pinion: so far its calculations, for scripts. */
export const mesh = defineCapability({
  name: 'mesh',
  needs: [],
  figures: {},
  subjects: [],
  calculations: meshCalculations,
  place: { sheet: 'brief', tab: 'axle', field: 'axle-spec-rear' },
  station: 'final',
  inputs: () => ({}),
  derive: () => null,
});
