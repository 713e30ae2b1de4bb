import { defineCapability } from '../frame/capability';
import { gearing } from '../gearing';
import { deriveRoad } from './derive';
import { roadFigures } from './ids';

/** The run of the brief, and the gear sets that a course wants. */
export const road = defineCapability({
  name: 'road',
  needs: [gearing],
  figures: roadFigures,
  subjects: [],
  place: { sheet: 'road', field: 'road-mass' },
  station: 'tyres',
  inputs: ({ build, main }) => ({ build, main }),
  derive: ({ build, main }, d, given) => {
    const own = given.of(gearing)?.[main];
    if (own) deriveRoad(build, main, own, d);
  },
});
