import { USUAL_SCHOOLS, type Schools } from '../library/schools';
import type { Setup, Trial } from './schema';

/** What most begin a trial in. */
export const FIRST_TRIAL: Trial = {
  pinionBearings: 'set-up',
  spacer: 'none',
  seal: 'out',
  nut: 'old',
  sideBearings: 'set-up',
  caps: 'torqued',
  sidePreload: 'full',
  oil: 'oiled',
  drag: 'braked',
};

/** How an axle stands that nobody has loosened anything of. */
export const AS_IT_CAME: Trial = {
  pinionBearings: 'used',
  spacer: 'old',
  seal: 'in',
  nut: 'old',
  sideBearings: 'used',
  caps: 'torqued',
  sidePreload: 'full',
  oil: 'oiled',
  drag: 'braked',
};

/** How an axle runs: only readings in this state sign. */
export const FINAL_TRIAL: Trial = {
  pinionBearings: 'new',
  spacer: 'new',
  seal: 'in',
  nut: 'new',
  sideBearings: 'new',
  caps: 'torqued',
  sidePreload: 'full',
  oil: 'oiled',
  drag: 'braked',
};

/** A set-up that begins: as the shop does it, nothing measured. */
export function newSetup(
  schools: Pick<Schools, 'spacer' | 'pinionPreload' | 'backlashAim' | 'bearings'> = USUAL_SCHOOLS,
): Setup {
  const bearings = schools.bearings === 'press-on' ? 'new' : 'set-up';
  return {
    gears: 'new',
    ringSide: 'left',
    pinionSpiral: 'left',
    pinionTurns: 'clockwise',
    shimMoves: null,
    bearingMoves: null,
    sideShims: 'behind-cup',
    spacer: schools.spacer,
    crush: 'nut',
    preloadAim: schools.pinionPreload,
    backlashAim: schools.backlashAim,
    places: 8,
    gauges: { backlash: null, turning: null },
    drawers: { pinion: null, sides: null },
    state: { ...FIRST_TRIAL, pinionBearings: bearings, sideBearings: bearings },
    depth: {
      oldMark: null,
      newMark: null,
      oldHeight: null,
      newHeight: null,
      chain: [],
      capDepth: null,
      headReading: null,
      headShim: null,
      chart: null,
      experience: null,
      setUpTaller: null,
    },
    carryOver: {
      oldLeft: null,
      oldRight: null,
      newLeft: null,
      newRight: null,
      oldMaster: null,
      newMaster: null,
    },
    stack: [],
    capMarks: '',
  };
}
