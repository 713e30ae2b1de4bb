import {
  GRAVITY,
  SITUATIONS,
  entryBase,
  entryOf,
  type AxleGround,
  type CompareResult,
  type CompareUnit,
  type SituationName,
  type SituationSettings,
} from '@hot-spline/core';
import type { AxleName, Use } from '../document/names';
import type { Build } from '../document/schema';
import type { Unit } from './schema';
import { ORDINARY, openUnit, unitAs } from '../document/new-build';
import type { AxleGearingState } from '../gearing/axle-gearing';
import type { PackState } from '../pack/state';
import { axleShare } from '../road/vehicle';
import { bevelGear, unitHolds } from './derive';
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
const OTHERS: readonly ComparedUnit[] = [
  ordinary('open', 'Open'),
  {
    type: 'side-gear-thrust',
    label: 'Plates, side-gear thrust',
    own: false,
    unit: {
      type: 'side-gear-thrust',
      preloadN: 1500,
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
  const same = ['open', 'spool', 'automatic-locker'].includes(unit.type);
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
 * What each use asks of a unit: shares of the thrust in each situation, and how much a push off the line on power counts
 * against it. Ours, after what each type is for in common practice; no published source.
 */
export const USE_WEIGHTS: Readonly<
  Record<Use, { readonly thrust: Readonly<Partial<Record<SituationName, number>>>; readonly push: number }>
> = {
  street: { thrust: { 'split-grip': 0.6, 'corner-exit': 0.4 }, push: 0.5 },
  drag: { thrust: { 'split-grip': 1 }, push: 0 },
  circuit: { thrust: { 'corner-exit': 0.7, 'split-grip': 0.3 }, push: 0.25 },
  'hill-climb': { thrust: { 'corner-exit': 0.7, 'split-grip': 0.3 }, push: 0.2 },
  drift: { thrust: { 'drift-transition': 0.7, 'corner-exit': 0.2, 'split-grip': 0.1 }, push: 0 },
  oval: { thrust: { 'corner-exit': 0.8, 'split-grip': 0.2 }, push: 0.1 },
  rock: { thrust: { 'crossed-axle': 0.5, 'wheel-in-air': 0.4, 'split-grip': 0.1 }, push: 0 },
  raid: {
    thrust: {
      'wheel-in-air': 0.3,
      'crossed-axle': 0.25,
      'split-grip': 0.2,
      'corner-exit': 0.15,
      'wheel-in-air-braked': 0.1,
    },
    push: 0.15,
  },
};

export interface UnitRank {
  /** 0 to 100: what it gives of the best in each situation that counts, less its push. */
  readonly score: number;
  /** Situations that count in which it gives nearly all, or less than half, of the best. */
  readonly strong: readonly SituationName[];
  readonly weak: readonly SituationName[];
}

/**
 * How well each unit serves a use.
 * @param results for each unit, its results in the order of `SITUATIONS`
 */
export function rankUnits(use: Use, results: readonly (readonly CompareResult[])[]): UnitRank[] {
  const { thrust: weights, push } = USE_WEIGHTS[use];
  const counted = SITUATIONS.flatMap((name, i) => {
    const weight = weights[name] ?? 0;
    const best = Math.max(...results.map((row) => Math.abs(row[i]?.thrustN ?? 0)));
    return weight > 0 && best > 0 ? [{ name, i, weight, best }] : [];
  });
  const exit = SITUATIONS.indexOf('corner-exit');
  const worst = Math.max(1e-9, ...results.map((row) => Math.abs(row[exit]?.yawNm ?? 0)));
  const all = counted.reduce((sum, { weight }) => sum + weight, 0) || 1;
  return results.map((row) => {
    const share = ({ i, best }: { i: number; best: number }): number => Math.abs(row[i]?.thrustN ?? 0) / best;
    const gives = counted.reduce((sum, one) => sum + one.weight * share(one), 0) / all;
    const pushes = (push * Math.abs(row[exit]?.yawNm ?? 0)) / worst;
    return {
      score: 100 * Math.max(0, gives - pushes),
      strong: counted.filter((one) => share(one) > 0.97).map(({ name }) => name),
      weak: counted.filter((one) => share(one) < 0.5).map(({ name }) => name),
    };
  });
}

export function comparedSettings(inputNm: number): SituationSettings {
  return { inputNm, overrunNm: 0.2 * inputNm, splitShare: 0.3, lateralG: 0.6, brakeNm: 150 };
}
