import { AXLES, type AxleName } from '../document/names';
import { defineCapability } from '../engine/capability';
import { mesh } from '../mesh';
import { preload } from '../preload';
import { floatGates } from './float-gates';
import { deriveGates, gatesOf, type GateName, type GateState } from './gates';

export type Gates = Partial<Record<AxleName, Readonly<Record<GateName, GateState>>>>;

/** The gates of the work: what each needs, and who signed it. */
export const plan = defineCapability({
  name: 'plan',
  needs: [mesh, preload],
  figures: {},
  subjects: [],
  place: { sheet: 'gates', field: 'sign-A' },
  station: 'final',
  inputs: ({ signed }) => ({ signed }),
  derive: ({ signed }, d, given): Gates => {
    const all: Gates = {};
    for (const name of AXLES) {
      const [of, torque] = [given.of(mesh)?.[name], given.of(preload)?.[name]];
      if (!of) continue;
      const gates =
        of.construction === 'electric-reduction' ? floatGates(of, signed) : torque && gatesOf(of, torque, signed);
      if (!gates) continue;
      all[name] = gates;
      if (of.now) deriveGates(name, gates, d);
    }
    return all;
  },
});
