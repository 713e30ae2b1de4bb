import { drivenAxles } from '../gearing/axle-gearing';
import { gearing } from '../gearing';
import { defineCapability } from '../frame/capability';
import { deriveIdentity } from './derive';
import { identitySteps } from './steps';

/** The brief, and what the identified axle says about the build. */
export const identity = defineCapability({
  name: 'identity',
  needs: [gearing],
  figures: {},
  subjects: [],
  work: { steps: identitySteps },
  place: { sheet: 'brief', tab: 'axle', field: 'axle-spec-rear' },
  station: 'final',
  inputs: ({ build }) => ({ build }),
  derive: ({ build }, d, given) => {
    const state = given.of(gearing);
    for (const name of drivenAxles(build)) {
      const own = state?.[name];
      if (own) deriveIdentity(build, name, own, d);
    }
  },
  knows: (name, _, { build }) => ({
    steps: { identify: { missing: () => (build.axles[name]?.identity ? null : 'no spec of the axle') } },
  }),
});
