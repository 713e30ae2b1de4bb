import {
  biasRatio,
  entryBase,
  explain,
  formatUnit,
  lockAt,
  lockAtInput,
  lockLaw,
  rampFromRotationPlane,
  rampLockCoefficient,
  sideGearThrust,
  solidRampAngle,
  wheelTorques,
  type BevelGear,
  type CompareUnit,
  type PlateUnit,
  type Ramp,
  type UnitLock,
} from '@hot-spline/core';
import type { AxleName, PlateSpec, Unit } from '../document/schema';
import type { Derivation } from '../engine/figure';
import { plateRadius } from '../pack/state';
import type { PackState } from '../pack/state';
import { explainHolds, explainThrustLock, explainUnitLock } from './explain';
import { UNIT_TYPE_WORDS } from './types';

export type Flank = 'drive' | 'overrun';

export interface UnitState {
  readonly type: Unit['type'];
  readonly holds: CompareUnit;
  /** It holds whatever comes in. */
  readonly locked: boolean;
  /** Locking torque of both packs at no input, N·m. */
  readonly preloadNm: number;
  /** Locking torque per input torque. */
  readonly coefficient: Readonly<Record<Flank, number>>;
  lock(flank: Flank, inputNm: number): UnitLock;
}

const NO_RAMP: Ramp = { angleDeg: 90, from: 'rotation-plane' };

/** The ramp that works on a flank: the drive ramp both ways for a two-way unit, none on overrun for a one-way one. */
export function rampOn(plate: PlateSpec, flank: Flank): Ramp {
  const from = plate.rampFrom;
  if (flank === 'drive' || plate.action === 'two-way') return { angleDeg: entryBase(plate.driveRamp), from };
  if (plate.action === 'one-way') return NO_RAMP;
  return { angleDeg: entryBase(plate.overrunRamp), from };
}

/** What the core needs of a plate unit on one flank. */
export function plateUnit(plate: PlateSpec, packs: PackState, flank: Flank): PlateUnit {
  return {
    frictionCoefficient: entryBase(plate.frictionCoefficient),
    interfacesPerPack: (packs.left.interfaces + packs.right.interfaces) / 2,
    meanRadiusMm: plateRadius(plate),
    pinRadiusMm: entryBase(plate.pinRadius),
    ramp: rampOn(plate, flank),
  };
}

/** The plates that a unit works with: of a plate unit with or without ramps. */
export function platesOf(unit: Unit): PlateSpec | null {
  return unit.type === 'plate' || unit.type === 'side-gear-thrust' ? unit.plate : null;
}

/** Its side gears, as the core reads them. */
export function bevelGear(gear: NonNullable<Unit['sideGear']>): BevelGear {
  return {
    meanRadiusMm: entryBase(gear.meanRadius),
    pressureAngleDeg: entryBase(gear.pressureAngle),
    coneAngleDeg: entryBase(gear.coneAngle),
  };
}

/** Friction torque of one pack per N of clamp, N·m. */
export function packTorquePerNewton(plate: PlateSpec, packs: PackState): number {
  const interfaces = (packs.left.interfaces + packs.right.interfaces) / 2;
  return (entryBase(plate.frictionCoefficient) * interfaces * plateRadius(plate)) / 1000;
}

function plateHolds({ type, plate, sideGear }: Unit, packs: PackState | null): CompareUnit {
  if (!plate || !packs) return { type: 'open' };
  const preloadNm = packs.left.breakawayNm + packs.right.breakawayNm;
  if (type === 'side-gear-thrust' && sideGear) {
    const slope = 2 * packTorquePerNewton(plate, packs) * sideGearThrust(bevelGear(sideGear));
    return { type: 'plate', preloadNm, driveSlope: slope, overrunSlope: slope };
  }
  const slope = (flank: Flank): number => rampLockCoefficient(plateUnit(plate, packs, flank));
  return { type: 'plate', preloadNm, driveSlope: slope('drive'), overrunSlope: slope('overrun') };
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
    preloadNm: locked ? 0 : laws.drive.baseNm,
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

/** Figures and findings of the unit of one axle at the input torque of the operating point. */
export function deriveUnit(
  unit: Unit,
  axle: AxleName,
  packs: PackState | null,
  inputNm: number,
  d: Derivation,
): UnitState {
  const state = unitState(unit, packs);
  for (const flank of ['drive', 'overrun'] as const) {
    const lock = state.lock(flank, inputNm);
    const on = flank === 'drive' ? 'under power' : 'on overrun';
    d.figure({
      id: `unit.${axle}.${flank}.lock`,
      label: `Locking torque ${on}`,
      value: lock.lockNm,
      quantity: 'torque',
      explain: () => explainLock(unit, state, packs, flank, inputNm),
    });
    d.figure({
      id: `unit.${axle}.${flank}.bias`,
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
            { key: 'input', label: 'input torque', value: inputNm, quantity: 'torque' },
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
    return explainUnitLock(title, plateUnit(unit.plate, packs, flank), state.preloadNm, inputNm);
  if (packs && unit.plate && unit.type === 'side-gear-thrust' && unit.sideGear) {
    const perNewton = packTorquePerNewton(unit.plate, packs);
    return explainThrustLock(title, perNewton, bevelGear(unit.sideGear), state.preloadNm, inputNm);
  }
  return explainHolds(title, state.holds, inputNm);
}

function findType(axle: AxleName, state: UnitState, d: Derivation): void {
  const where = axle === 'rear' ? 'Rear' : 'Front';
  const words = UNIT_TYPE_WORDS[state.type];
  const watched = state.locked || words.caution !== undefined;
  d.finding({
    id: `unit.type.${axle}`,
    verdict: watched ? 'watch' : 'fits',
    sheet: 'unit',
    axle,
    anchor: 'unit-type',
    figures: [`unit.${axle}.drive.lock`],
    rule: 'what the type is for: common practice, no published source',
    say: () => ({
      title: `${where}: ${words.name.charAt(0).toLowerCase()}${words.name.slice(1)}${state.type === 'selectable-locker' ? (state.locked ? ', on' : ', off') : ''}`,
      detail: watched ? `${words.against} ${words.caution ?? ''}`.trim() : words.against,
    }),
  });
}

function findUnit(unit: Unit, axle: AxleName, packs: PackState | null, state: UnitState, d: Derivation): void {
  const common = { sheet: 'unit' as const, axle, anchor: 'unit-type', figures: [`unit.${axle}.drive.lock`] };
  const where = axle === 'rear' ? 'Rear' : 'Front';
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
    d.finding({
      ...common,
      id: `unit.solid.${axle}.${flank}`,
      anchor: `${flank}-ramp`,
      figures: [`unit.${axle}.${flank}.lock`],
      verdict: solid ? 'stop' : 'fits',
      rule: 'k of 1 or more locks solid at any torque [exact]',
      say: () => {
        const on = flank === 'drive' ? 'under power' : 'on overrun';
        const angle = rampFromRotationPlane(of.ramp);
        const limit = of.interfacesPerPack === 0 ? 0 : solidRampAngle(of);
        const shown = (fromPlane: number): string =>
          formatUnit(plate.rampFrom === 'axis' ? 90 - fromPlane : fromPlane, '°');
        return solid
          ? {
              title: `${where} unit locks solid ${on} at any torque`,
              detail: `k ${state.coefficient[flank].toFixed(2)} with ${shown(angle)}° ramps. It lets go ${plate.rampFrom === 'axis' ? 'below' : 'above'} ${shown(limit)}°: flatten the ramps or take interfaces out.`,
            }
          : {
              title: `${where} ramps hold ${Math.round(100 * state.coefficient[flank])} % of the torque ${on}`,
              detail: `Ramps of ${shown(angle)}°; solid from ${shown(limit)}°.`,
            };
      },
    });
  }
  if (plate.action === 'one-and-a-half-way' && state.coefficient.overrun > state.coefficient.drive) {
    d.finding({
      ...common,
      id: `unit.order.${axle}`,
      verdict: 'watch',
      anchor: 'overrun-ramp',
      rule: 'a one-and-a-half-way unit holds less on overrun [exact, definition]',
      say: () => ({
        title: `${where} unit holds more on overrun than under power`,
        detail: 'The two ramps look swapped, or the convention is the other one: check against the maker’s sheet.',
      }),
    });
  }
}
