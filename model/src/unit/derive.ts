import {
  biasRatio,
  entryBase,
  explain,
  formatUnit,
  lockAt,
  rampFromRotationPlane,
  rampLockCoefficient,
  solidRampAngle,
  unitLock,
  wheelTorques,
  type PlateUnit,
  type Ramp,
  type UnitLock,
} from '@hot-spline/core';
import type { AxleName, PlateSpec, Unit } from '../build/schema';
import type { Derivation } from '../figure';
import { plateRadius } from '../pack/state';
import type { PackState } from '../pack/state';
import { explainUnitLock } from './explain';

export type Flank = 'drive' | 'overrun';

export interface UnitState {
  readonly type: Unit['type'];
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

export function unitState(unit: Unit, packs: PackState | null): UnitState {
  if (unit.type === 'spool') {
    return {
      type: 'spool',
      preloadNm: 0,
      coefficient: { drive: 1, overrun: 1 },
      lock: (_, inputNm) => ({ ...lockAt(inputNm, inputNm, 1), solid: true, biasRatio: null }),
    };
  }
  const plate = unit.plate;
  if (unit.type === 'open' || !plate || !packs) {
    return {
      type: unit.type,
      preloadNm: 0,
      coefficient: { drive: 0, overrun: 0 },
      lock: (_, inputNm) => lockAt(inputNm, 0),
    };
  }
  const of = { drive: plateUnit(plate, packs, 'drive'), overrun: plateUnit(plate, packs, 'overrun') };
  const preloadNm = packs.left.breakawayNm + packs.right.breakawayNm;
  return {
    type: 'plate',
    preloadNm,
    coefficient: { drive: rampLockCoefficient(of.drive), overrun: rampLockCoefficient(of.overrun) },
    lock: (flank, inputNm) => unitLock(of[flank], preloadNm, inputNm),
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
  const plate = unit.plate;
  const on = flank === 'drive' ? 'under power' : 'on overrun';
  if (state.type !== 'plate' || !plate || !packs) {
    return explain({
      title: `Locking torque ${on}`,
      formula:
        state.type === 'spool'
          ? 'a spool holds whatever comes in'
          : 'an open differential holds nothing but its own friction, counted as none',
      inputs: [{ key: 'input', label: 'input torque', value: inputNm, quantity: 'torque' }],
      sources: [{ kind: 'exact', text: 'definition' }],
      result: { label: 'locking torque', quantity: 'torque' },
      compute: ({ input = 0 }) => ({ value: state.type === 'spool' ? input : 0 }),
    });
  }
  return explainUnitLock(`Locking torque ${on}`, plateUnit(plate, packs, flank), state.preloadNm, inputNm);
}

function findUnit(unit: Unit, axle: AxleName, packs: PackState | null, state: UnitState, d: Derivation): void {
  const common = { sheet: 'unit' as const, axle, anchor: 'unit-type', figures: [`unit.${axle}.drive.lock`] };
  const where = axle === 'rear' ? 'Rear' : 'Front';
  if (state.type === 'spool') {
    d.finding({
      ...common,
      id: `unit.type.${axle}`,
      verdict: 'watch',
      rule: 'a spool knows no difference in wheel speed [exact]',
      say: () => ({
        title: `${where} spool: the wheels never turn apart`,
        detail: 'Each shaft must be rated for all of the torque; tyres scrub in every turn.',
      }),
    });
    return;
  }
  if (state.type === 'open') {
    d.finding({
      ...common,
      id: `unit.type.${axle}`,
      verdict: 'fits',
      rule: 'open differential, bias 1 [exact]',
      say: () => ({
        title: `${where} open differential`,
        detail: 'Both wheels get the same torque: the one with less grip sets it.',
      }),
    });
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
