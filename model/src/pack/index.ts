import type { AxleName } from '../document/names';
import { defineCapability } from '../engine/capability';
import { packCalculations } from './calculations';
import { derivePack } from './derive';
import { packFigures } from './ids';
import { packSubjects } from './readings';
import { platesOf } from './plates';
import type { PackState } from './state';

export type PackStates = Partial<Record<AxleName, PackState | null>>;

/** Clutch packs plate by plate: height, clamp, breakaway, wear. */
export const pack = defineCapability({
  name: 'pack',
  needs: [],
  figures: packFigures,
  subjects: packSubjects,
  calculations: packCalculations,
  place: { sheet: 'pack', tab: 'stack', field: 'stack-left' },
  station: 'packs',
  inputs: ({ build, readings, today }) => ({
    driven: build.driven,
    rear: platesOf(build.axles.rear?.unit),
    front: platesOf(build.axles.front?.unit),
    readings,
    today,
  }),
  derive: ({ driven, readings, today, ...plates }, d): PackStates => {
    const states: PackStates = {};
    for (const name of driven === 'both' ? (['rear', 'front'] as const) : [driven]) {
      const plate = plates[name];
      if (!plate) continue;
      states[name] = d.attempt({ sheet: 'pack', tab: 'stack', axle: name, field: 'stack-left' }, 'packs', () =>
        derivePack(plate, name, readings, today, d.using([`axles.${name}.unit`])),
      );
    }
    return states;
  },
});
