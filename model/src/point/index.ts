import { defineCapability } from '../frame/capability';
import { gearing } from '../gearing';
import { derivePoint } from './derive';
import { pointFigures } from './ids';

/** Engine, coupling and gearbox at the operating point: torque and speed along the driveline. */
export const point = defineCapability({
  name: 'point',
  needs: [gearing],
  figures: pointFigures,
  subjects: [],
  place: { sheet: 'engine', field: 'torque-curve' },
  station: 'engine',
  inputs: ({ build, main, point: at }) => ({ build, main, at }),
  /** Torque into the unit of each driven axle, N·m. */
  derive: ({ build, main, at }, d, given) => derivePoint(build, main, given.of(gearing) ?? {}, at, d),
});
