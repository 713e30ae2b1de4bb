import { AXLES, type AxleName } from '../base/names';
import { defineCapability } from '../frame/capability';
import { mesh } from '../mesh';
import { preloadSubjects } from '../mesh/readings';
import { derivePreload } from './derive';
import { preloadFigures } from './ids';
import { preloadAxle, type PreloadAxle } from './state';
import { preloadParts, preloadSteps } from './steps';
import { preloadWork } from './work';

export type PreloadStates = Partial<Record<AxleName, PreloadAxle>>;

/** Turning torque of pinion and carrier bearings, reading by reading. */
export const preload = defineCapability({
  name: 'preload',
  needs: [mesh],
  figures: preloadFigures,
  subjects: preloadSubjects,
  work: { steps: preloadSteps, parts: preloadParts },
  place: { sheet: 'preload', field: 'pinion-torque' },
  station: 'final',
  inputs: ({ readings }) => ({ readings }),
  derive: ({ readings }, d, given): PreloadStates => {
    const states: PreloadStates = {};
    for (const name of AXLES) {
      const of = given.of(mesh)?.[name];
      // A unit whose one shim sets end float has no preload of a pinion.
      if (!of || of.construction === 'electric-reduction') continue;
      d.attempt({ sheet: 'preload', axle: name, field: `pinion-torque-${name}` }, 'final', () => {
        const state = preloadAxle(of, readings);
        states[name] = state;
        // Before anything of the set-up is read there is nothing to say of preload.
        if (of.now || state.last) derivePreload(of, state, d.using([`axles.${name}.finalDrive`]));
      });
    }
    return states;
  },
  knows: (name, states, { readings }, given) =>
    preloadWork(given.of(mesh)?.[name] ?? null, states[name] ?? null, readings),
});
