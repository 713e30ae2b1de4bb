import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import { defineCapability } from '../frame/capability';
import type { Readings } from '../frame/readings';
import { derivePack } from './derive';
import { packFigures } from './ids';
import { turningInForce } from './pack-state';
import { packSubjects } from './readings';
import { bevelGear } from './bevel-gear';
import { pinionRatio, platesOf, thrustOf } from './plates';
import type { PackState } from './state';
import { packParts, packSteps } from './steps';

export type PackStates = Partial<Record<AxleName, PackState | null>>;

/** The ratio is asked for only where the turning torque was read at the pinion: packs stand still while it is dragged. */
const ratioOf = (name: AxleName, build: Build, readings: Readings): number =>
  turningInForce(name, readings)?.at === 'pinion' ? pinionRatio(build.axles[name]) : 1;

/** Clutch packs plate by plate: height, clamp, breakaway, wear. */
export const pack = defineCapability({
  name: 'pack',
  needs: [],
  figures: packFigures,
  subjects: packSubjects,
  work: { steps: packSteps, parts: packParts },
  place: { sheet: 'pack', tab: 'stack', field: 'stack-left' },
  station: 'packs',
  inputs: ({ build, readings, today }) => ({
    driven: build.driven,
    rear: platesOf(build.axles.rear?.unit),
    front: platesOf(build.axles.front?.unit),
    rearThrust: thrustOf(build.axles.rear?.unit),
    frontThrust: thrustOf(build.axles.front?.unit),
    rearRatio: ratioOf('rear', build, readings),
    frontRatio: ratioOf('front', build, readings),
    readings,
    today,
  }),
  derive: ({ driven, readings, today, ...of }, d): PackStates => {
    const states: PackStates = {};
    for (const name of driven === 'both' ? (['rear', 'front'] as const) : [driven]) {
      const plate = of[name];
      if (!plate) continue;
      const [gear, ratio] = name === 'rear' ? [of.rearThrust, of.rearRatio] : [of.frontThrust, of.frontRatio];
      const context = { thrust: gear ? bevelGear(gear) : ('ramps' as const), pinionRatio: ratio };
      states[name] = d.attempt({ sheet: 'pack', tab: 'stack', axle: name, field: 'stack-left' }, 'packs', () =>
        derivePack(plate, name, readings, context, today, d),
      );
    }
    return states;
  },
});
