import {
  biasRatio,
  entryBase,
  explain,
  lockAt,
  lockAtInput,
  lockLaw,
  rampFromRotationPlane,
  solidRampAngle,
  wheelTorques,
  type CompareUnit,
  type Preload,
  type UnitLock,
} from '@hot-spline/core';
import { SIDES, type AxleName } from '../base/names';
import type { PlateSpec } from '../pack/schema';
import { bevelGear } from '../pack/bevel-gear';
import { type Unit } from './schema';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { unitFigures } from './ids';
import * as words from './words';
import { lockSlope, packTorquePerNewton, plateUnit, type Flank } from '../pack/ramps';
import { plateRadius, slidingFriction } from '../pack/state';
import type { PackState } from '../pack/state';
import { explainHolds, explainThrustLock, explainUnitLock } from './explain';
import { UNIT_TYPE_WORDS } from './types';

export interface UnitState {
  readonly type: Unit['type'];
  readonly holds: CompareUnit;
  /** It holds whatever comes in. */
  readonly locked: boolean;
  /** Locking torque of both packs at no input, N·m, by how their springs act. */
  readonly preload: Preload;
  /** The same in all: the stronger of the two. */
  readonly preloadNm: number;
  /** Locking torque per input torque. */
  readonly coefficient: Readonly<Record<Flank, number>>;
  lock(flank: Flank, inputNm: number): UnitLock;
}

/** Locking torque of both packs at no input while they slip, by how their springs act. */
export function preloadOf(plate: PlateSpec, packs: PackState): Preload {
  const perNewton = (slidingFriction(plate) * plateRadius(plate)) / 1000;
  const both = (of: 'seriesN' | 'parallelN'): number =>
    perNewton * SIDES.reduce((sum, side) => sum + packs[side].interfaces * packs[side].rest[of], 0);
  return { seriesNm: both('seriesN'), parallelNm: both('parallelN') };
}

function plateHolds({ type, plate, sideGear }: Unit, packs: PackState | null): CompareUnit {
  if (!plate || !packs) return { type: 'open' };
  const preload = preloadOf(plate, packs);
  const thrust = type === 'side-gear-thrust' && sideGear ? bevelGear(sideGear) : 'ramps';
  const slope = (flank: Flank): number => lockSlope(plate, packs, flank, thrust);
  return { type: 'plate', preload, driveSlope: slope('drive'), overrunSlope: slope('overrun') };
}

/**
 * A unit as what it holds between the wheels.
 * @param packs of a unit with plates; without them it holds nothing
 * @throws InputError for ramps that hold without limit, and naming the field
 */
export function unitHolds(unit: Unit, packs: PackState | null): CompareUnit {
  const { cone, sideGear, helical, insert } = unit;
  switch (unit.type) {
    case 'plate':
    case 'side-gear-thrust':
      return plateHolds(unit, packs);
    case 'cone':
      if (!cone || !sideGear) return { type: 'open' };
      return {
        type: 'cone',
        preloadN: entryBase(cone.preload),
        frictionCoefficient: entryBase(cone.frictionCoefficient),
        meanRadiusMm: entryBase(cone.meanRadius),
        halfAngleDeg: entryBase(cone.halfAngle),
        gear: bevelGear(sideGear),
      };
    case 'helical':
    case 'hybrid': {
      if (!helical) return { type: 'open' };
      const gears = { biasRatio: entryBase(helical.biasRatio), preloadNm: entryBase(helical.preload) };
      if (unit.type === 'helical') return { type: 'helical', ...gears };
      const platesFromNm = entryBase(helical.platesFrom);
      return { type: 'hybrid', ...gears, platesFromNm, platesSlope: entryBase(helical.platesHold) / 100 };
    }
    case 'friction-insert':
      return { type: 'friction-insert', preloadNm: insert ? entryBase(insert.lock) : 0 };
    case 'selectable-locker':
      return { type: 'selectable-locker', engaged: unit.engaged };
    case 'automatic-locker':
      return { type: 'automatic-locker' };
    case 'spool':
      return { type: 'spool' };
    case 'open':
      return { type: 'open' };
  }
}

export function unitState(unit: Unit, packs: PackState | null): UnitState {
  const holds = unitHolds(unit, packs);
  const laws = { drive: lockLaw(holds, 'drive'), overrun: lockLaw(holds, 'overrun') };
  const locked = laws.drive.baseNm === Number.POSITIVE_INFINITY;
  return {
    type: unit.type,
    holds,
    locked,
    preload: locked ? { seriesNm: 0, parallelNm: 0 } : { seriesNm: laws.drive.seriesNm, parallelNm: laws.drive.baseNm },
    preloadNm: locked ? 0 : Math.max(laws.drive.seriesNm, laws.drive.baseNm),
    coefficient: { drive: locked ? 1 : laws.drive.slope, overrun: locked ? 1 : laws.overrun.slope },
    lock: (flank, inputNm) =>
      locked
        ? { ...lockAt(inputNm, inputNm, 1), solid: true, biasRatio: null }
        : lockAt(inputNm, lockAtInput(laws[flank], inputNm), laws[flank].slope),
  };
}

export interface LockPoint {
  readonly inputNm: number;
  readonly lockNm: number;
}

/** Locking torque against input torque; overrun is counted negative. What is beyond the input is not delivered. */
export function lockCurve(unit: UnitState, mostNm: number, steps = 40): LockPoint[] {
  return Array.from({ length: 2 * steps + 1 }, (_, i) => {
    const inputNm = (mostNm * (i - steps)) / steps;
    return { inputNm, lockNm: unit.lock(inputNm < 0 ? 'overrun' : 'drive', Math.abs(inputNm)).lockNm };
  });
}

/**
 * Figures and findings of the unit of one axle at the input torque of the operating point; overrun is judged at the torque
 * that the engine drags with.
 */
export function deriveUnit(
  unit: Unit,
  axle: AxleName,
  packs: PackState | null,
  torques: Readonly<Record<Flank, number>>,
  d: Derivation,
): UnitState {
  const state = unitState(unit, packs);
  for (const flank of ['drive', 'overrun'] as const) {
    const inputNm = torques[flank];
    const lock = state.lock(flank, inputNm);
    const on = flank === 'drive' ? 'under power' : 'on overrun';
    d.figure({
      id: unitFigures.lock(axle, flank),
      label: `Locking torque ${on}`,
      value: lock.lockNm,
      quantity: 'torque',
      explain: () => explainLock(unit, state, packs, flank, inputNm),
    });
    d.figure({
      id: unitFigures.bias(axle, flank),
      label: `Bias ratio ${on}`,
      value: lock.biasRatio,
      instead: 'locked',
      quantity: 'ratio',
      decimals: 2,
      explain: () =>
        explain({
          title: `Bias ratio ${on}`,
          formula: 'bias = (1 + S) ÷ (1 − S), S = locking torque ÷ input torque',
          inputs: [
            { key: 'lock', label: 'locking torque', value: lock.lockNm, quantity: 'torque' },
            {
              key: 'input',
              label: flank === 'drive' ? 'input torque' : 'torque that the engine drags with',
              value: inputNm,
              quantity: 'torque',
            },
          ],
          sources: [{ kind: 'exact', text: 'definition' }],
          result: {
            label: lock.solid ? 'locked: nothing slips at this torque' : 'slow wheel to fast wheel',
            quantity: 'ratio',
          },
          compute: ({ lock: held = 0, input = 1 }) => ({
            value: held >= input ? 0 : biasRatio(held / input),
            steps: [
              { label: 'locking value S', value: (100 * held) / input, quantity: 'percent' },
              { label: 'slow wheel', value: wheelTorques(input, held).slowNm, quantity: 'torque' },
              { label: 'fast wheel', value: wheelTorques(input, held).fastNm, quantity: 'torque' },
            ],
          }),
        }),
    });
  }
  findUnit(unit, axle, packs, state, d);
  return state;
}

function explainLock(unit: Unit, state: UnitState, packs: PackState | null, flank: Flank, inputNm: number) {
  const title = `Locking torque ${flank === 'drive' ? 'under power' : 'on overrun'}`;
  if (packs && unit.plate && unit.type === 'plate')
    return explainUnitLock(title, plateUnit(unit.plate, packs, flank), state.preload, inputNm);
  if (packs && unit.plate && unit.type === 'side-gear-thrust' && unit.sideGear) {
    const perNewton = packTorquePerNewton(unit.plate, packs);
    return explainThrustLock(title, perNewton, bevelGear(unit.sideGear), state.preload, inputNm);
  }
  return explainHolds(title, state.holds, inputNm);
}

function findType(axle: AxleName, state: UnitState, d: Derivation): void {
  const type = UNIT_TYPE_WORDS[state.type];
  const watched = state.locked || type.caution !== undefined;
  const engaged = state.type === 'selectable-locker' ? (state.locked ? ', on' : ', off') : '';
  d.finding({
    id: `unit.type.${axle}`,
    verdict: watched ? 'watch' : 'fits',
    place: { sheet: 'unit', axle, field: 'unit-type' },
    station: 'unit',
    figures: [unitFigures.lock(axle, 'drive')],
    rule: 'what the type is for: common practice, no published source',
    facts: {
      axle,
      type: `${type.name}${engaged}`,
      against: type.against,
      caution: watched ? (type.caution ?? '') : '',
    },
    say: words.type,
  });
}

function findUnit(unit: Unit, axle: AxleName, packs: PackState | null, state: UnitState, d: Derivation): void {
  if (unit.type !== 'plate') {
    findType(axle, state, d);
    return;
  }
  const plate = unit.plate;
  if (!plate || !packs) return;
  for (const flank of ['drive', 'overrun'] as const) {
    if (flank === 'overrun' && plate.action !== 'one-and-a-half-way') continue;
    const solid = state.coefficient[flank] >= 1;
    const of = plateUnit(plate, packs, flank);
    const shown = (fromPlane: number) => fact(plate.rampFrom === 'axis' ? 90 - fromPlane : fromPlane, 'angle');
    d.finding({
      id: `unit.solid.${axle}.${flank}`,
      verdict: solid ? 'stop' : 'fits',
      place: { sheet: 'unit', axle, field: `${flank}-ramp` },
      station: 'unit',
      figures: [unitFigures.lock(axle, flank)],
      rule: 'k of 1 or more locks solid at any torque [exact]',
      facts: {
        axle,
        flank,
        solid,
        fromAxis: plate.rampFrom === 'axis',
        coefficient: fact(state.coefficient[flank], 'coefficient'),
        ramp: shown(rampFromRotationPlane(of.ramp)),
        limit: shown(of.interfacesPerPack === 0 ? 0 : solidRampAngle(of)),
      },
      say: words.ramps,
    });
  }
  if (plate.action === 'one-and-a-half-way' && state.coefficient.overrun > state.coefficient.drive) {
    d.finding({
      id: `unit.order.${axle}`,
      verdict: 'watch',
      place: { sheet: 'unit', axle, field: 'overrun-ramp' },
      station: 'unit',
      figures: [unitFigures.lock(axle, 'drive')],
      rule: 'a one-and-a-half-way unit holds less on overrun [exact, definition]',
      facts: { axle },
      say: words.order,
    });
  }
}

/** The most torque that one shaft of the followed axle can get at the operating point, hub reduction counted. */
export function deriveShafts(axle: AxleName, unit: UnitState, inputNm: number, hub: number, d: Derivation): void {
  const wheelNm = inputNm * hub;
  const lockNm = unit.lock('drive', inputNm).lockNm * hub;
  // A solid unit can pass everything to one wheel, whatever it could hold beyond that.
  const most = wheelTorques(wheelNm, lockNm).slowNm;
  d.figure({
    id: unitFigures.shaft(),
    label: 'Most torque in one shaft',
    value: most,
    quantity: 'torque',
    explain: () =>
      explain({
        title: 'Most torque in one shaft at the operating point',
        formula: 'slow wheel = (input + locking torque) ÷ 2, at most all of the input; times the hub reduction',
        inputs: [
          { key: 'input', label: 'torque at the wheels, both', value: wheelNm, quantity: 'torque' },
          { key: 'lock', label: 'locking torque at the wheels', value: lockNm, quantity: 'torque' },
        ],
        sources: [{ kind: 'exact', text: `${axle} axle; tyre grip not counted, so an upper bound` }],
        result: { label: 'slow wheel', quantity: 'torque' },
        compute: (v) => ({ value: wheelTorques(v['input'] ?? 0, v['lock'] ?? 0).slowNm }),
      }),
  });
}
