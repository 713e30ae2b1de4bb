import {
  GRAVITY,
  entryBase,
  entryOf,
  type AxleGround,
  type CompareUnit,
  type SituationSettings,
} from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import { bevelGear } from '../pack/bevel-gear';
import { type Unit } from './schema';
import { ORDINARY, openUnit, unitAs } from './new-unit';
import { gearRatios, type AxleGearingState } from '../gearing/axle-gearing';
import { torqueCurve } from '../road/torque-curve';
import { packStateOf } from '../pack/pack-state';
import type { PackState } from '../pack/state';
import { axleShare } from '../road/vehicle';
import { unitHolds } from './derive';
import { UNIT_TYPE_WORDS } from './types';

export interface ComparedUnit {
  readonly type: Unit['type'];
  readonly label: string;
  /** The one in the build. */
  readonly own: boolean;
  readonly unit: CompareUnit;
}

/** Ordinary units to compare with, of the parts that a build starts from: round values, to be replaced by the maker's. */
const ordinary = (type: Unit['type'], label: string, change: (unit: Unit) => void = () => undefined): ComparedUnit => {
  const unit = unitAs(openUnit(), type);
  change(unit);
  return { type, label, own: false, unit: unitHolds(unit, null) };
};
const preloaded = (unit: Unit): void => {
  if (unit.helical) unit.helical.preload = entryOf(80, 'N·m');
};
/** With ramps, its packs as a build begins with them. */
function withRamps(): ComparedUnit {
  const unit = unitAs(openUnit(), 'plate');
  const packs = unit.plate ? packStateOf(unit.plate, 'rear', new Map(), { thrust: 'ramps', pinionRatio: 1 }) : null;
  return { type: 'plate', label: 'Plates with ramps', own: false, unit: unitHolds(unit, packs) };
}
const OTHERS: readonly ComparedUnit[] = [
  ordinary('open', 'Open'),
  withRamps(),
  {
    type: 'side-gear-thrust',
    label: 'Plates, side-gear thrust',
    own: false,
    unit: {
      type: 'side-gear-thrust',
      preloadN: 1500,
      // An ordinary one has its springs between the gears.
      preloadActs: 'parallel',
      frictionCoefficient: 0.1,
      interfacesPerPack: 6,
      meanRadiusMm: 45,
      gear: bevelGear(ORDINARY.sideGear()),
    },
  },
  ordinary('cone', 'Cone'),
  ordinary('helical', 'Helical'),
  ordinary('helical', 'Helical with preload', preloaded),
  ordinary('hybrid', 'Helical, late plates'),
  ordinary('friction-insert', 'Friction insert'),
  ordinary('selectable-locker', 'Selectable locker, on'),
  ordinary('automatic-locker', 'Automatic locker'),
  ordinary('spool', 'Spool'),
];

/** The build's own unit first, then an ordinary one of every other type. */
export function comparedUnits(build: Build, axle: AxleName, packs: PackState | null): ComparedUnit[] {
  const unit = build.axles[axle]?.unit;
  if (!unit) return [...OTHERS];
  const { name } = UNIT_TYPE_WORDS[unit.type];
  const own = { type: unit.type, label: `This one: ${name.toLowerCase()}`, own: true, unit: unitHolds(unit, packs) };
  // What has nothing to differ by, and what the builder knows better than anything ordinary: once.
  const same = ['open', 'spool', 'automatic-locker', 'plate'].includes(unit.type);
  return [own, ...OTHERS.filter(({ type }) => !same || type !== unit.type)];
}

/** The ground under the axle and what is asked of it, from the brief and the operating point. */
export function comparedGround(build: Build, axle: AxleName, own: AxleGearingState): AxleGround {
  const { road } = build;
  return {
    axleLoadN: entryBase(road.mass) * GRAVITY * axleShare(build, axle),
    grip: entryBase(road.grip),
    tyreRadiusMm: own.circumferenceMm / (2 * Math.PI),
    trackMm: entryBase(road.track),
    cgHeightMm: entryBase(road.cgHeight),
  };
}

/**
 * The most torque that arrives at an axle, N·m: the engine's in first gear and high range with this axle's share, or what its
 * tyres hold standing, whichever is less. Where nothing ever slips, every unit is as good as another.
 */
export function mostArriving(build: Build, axle: AxleName, own: AxleGearingState, share: number): number {
  const most = Math.max(...torqueCurve(build).map(({ torqueNm }) => torqueNm));
  const first = gearRatios(build)[0] ?? 1;
  const ground = comparedGround(build, axle, own);
  const tyres = (ground.axleLoadN * ground.grip * ground.tyreRadiusMm) / 1000 / own.hubRatio;
  return Math.min(most * first * own.finalRatio * share, tyres);
}

/**
 * @param grip of the tyres: a turn never asks for more of it
 * @param overrunShare torque that the engine drags with, as a share of that under power
 */
export function comparedSettings(inputNm: number, grip: number, overrunShare = 0.2): SituationSettings {
  return { inputNm, overrunNm: overrunShare * inputNm, splitShare: 0.3, lateralG: Math.min(0.6, grip), brakeNm: 150 };
}
