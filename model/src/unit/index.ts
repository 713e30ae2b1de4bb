import { entryBase } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import { defineCapability } from '../frame/capability';
import { gearing } from '../gearing';
import { pack } from '../pack';
import { point } from '../point';
import { deriveShafts, deriveUnit, type UnitState } from './derive';
import { unitFigures } from './ids';
import { unitSubjects } from './readings';
import { deriveSideGears } from './side-gear';
import { unitParts, unitSteps } from './steps';

export type UnitStates = Partial<Record<AxleName, UnitState>>;

/** The unit between the wheels of each driven axle: what it holds, and what the shafts get. */
/** What of a unit its locking rests on; the packs say for themselves what they rest on. */
const unitUses = (axle: AxleName): readonly string[] =>
  [
    'plate.action',
    'plate.driveRamp',
    'plate.overrunRamp',
    'plate.frictionCoefficient',
    'sideGear',
    'cone',
    'helical',
    'insert',
  ].map((part) => `axles.${axle}.unit.${part}`);

export const unit = defineCapability({
  name: 'unit',
  needs: [gearing, pack, point],
  figures: unitFigures,
  subjects: unitSubjects,
  work: { steps: unitSteps, parts: unitParts },
  place: { sheet: 'unit', field: 'unit-type' },
  station: 'unit',
  inputs: ({ build, readings, main }) => ({
    driven: build.driven,
    rear: build.axles.rear?.unit,
    front: build.axles.front?.unit,
    overrun: build.road.overrun,
    readings,
    main,
  }),
  derive: ({ driven, readings, main, overrun, ...units }, d, given): UnitStates => {
    const inputs = given.of(point) ?? {};
    const share = entryBase(overrun) / 100;
    const states: UnitStates = {};
    for (const name of driven === 'both' ? (['rear', 'front'] as const) : [driven]) {
      const spec = units[name];
      if (!spec) continue;
      const own = d.using(unitUses(name));
      const packs = given.of(pack)?.[name] ?? null;
      const state = d.attempt({ sheet: 'unit', axle: name, field: 'drive-ramp' }, 'unit', () =>
        deriveUnit(spec, name, packs, { drive: inputs[name] ?? 0, overrun: share * (inputs[name] ?? 0) }, own),
      );
      d.attempt({ sheet: 'unit', axle: name, field: 'unit-type' }, 'unit', () =>
        deriveSideGears(spec, name, readings, packs, own),
      );
      if (state) states[name] = state;
    }
    const [mainState, gears] = [states[main], given.of(gearing)?.[main]];
    if (mainState && gears)
      deriveShafts(
        main,
        mainState,
        inputs[main] ?? 0,
        gears.hubRatio,
        d.using(['engine.torqueCurve', `axles.${main}`]),
      );
    return states;
  },
});
