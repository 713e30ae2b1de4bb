import { defineCapability } from '../frame/capability';
import { deriveGearing } from './derive';
import { gearingFigures } from './ids';
import { deriveMatch } from './match';

/** Tyre, gearbox and final drive matched to speed and engine speed. */
export const gearing = defineCapability({
  name: 'gearing',
  needs: [],
  figures: gearingFigures,
  subjects: [],
  place: { sheet: 'gearing', tab: 'speed', field: 'cruise-speed' },
  station: 'tyres',
  inputs: ({ build, main }) => ({ build, main }),
  derive: ({ build, main }, d) => {
    const state = deriveGearing(build, main, d);
    const own = state[main];
    if (own) deriveMatch(build, main, own, d);
    return state;
  },
});
