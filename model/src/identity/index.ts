import { drivenAxles } from '../gearing/axle-gearing';
import { gearing } from '../gearing';
import { defineCapability } from '../frame/capability';
import { deriveIdentity } from './derive';
import type { AxleName } from '../base/names';
import { deriveClosed, turnsOf, type Closed } from './closed';
import { identityFigures } from './ids';
import { identitySubjects } from './readings';
import { identitySteps } from './steps';

/** The brief, and what the identified axle says about the build. */
export const identity = defineCapability({
  name: 'identity',
  needs: [gearing],
  figures: identityFigures,
  subjects: identitySubjects,
  work: { steps: identitySteps },
  place: { sheet: 'brief', tab: 'axle', field: 'axle-spec-rear' },
  station: 'final',
  inputs: ({ build, readings }) => ({ build, readings }),
  derive: ({ build, readings }, d, given): Partial<Record<AxleName, Closed>> => {
    const all: Partial<Record<AxleName, Closed>> = {};
    const state = given.of(gearing);
    for (const name of drivenAxles(build)) {
      const own = state?.[name];
      if (own) deriveIdentity(build, name, own, d);
      const closed = deriveClosed(name, build, readings, d.using([`axles.${name}.finalDrive`]));
      if (closed) all[name] = closed;
    }
    return all;
  },
  knows: (name, closed, { build, readings }) => ({
    steps: {
      'ratio-closed': {
        missing: () => (turnsOf(name, readings) ? null : 'turns of prop shaft and wheels not read'),
        // Where no tooth pair lies in it a mark was missed.
        proof: () =>
          (closed[name]?.pairs.length ?? 0) === 0
            ? null
            : (turnsOf(name, readings)?.reduce((last, one) => (one.seq > last.seq ? one : last)) ?? null),
      },
      identify: { missing: () => (build.axles[name]?.identity ? null : 'no spec of the axle') },
    },
  }),
});
