import { SITUATIONS, compareUnit, entryBase, factsOf, type CompareResult, type SituationName } from '@hot-spline/core';
import {
  axleShares,
  comparedGround,
  comparedSettings,
  comparedUnits,
  mostArriving,
  type AxleName,
  type Build,
  type ComparedUnit,
  type Derived,
} from '@hot-spline/model';

export const SITUATION_NAMES: Readonly<Record<SituationName, string>> = {
  'split-grip': 'Split grip',
  'wheel-in-air': 'Wheel in the air',
  'wheel-in-air-braked': 'In the air, brake dabbed',
  'corner-exit': 'Corner exit',
  'overrun-into-corner': 'Overrun into a corner',
  'drift-transition': 'Drift transition',
  'crossed-axle': 'Crossed axle',
};

export type ComparedAt = ReturnType<typeof comparedSettings>;

export interface ComparedRow {
  readonly compared: ComparedUnit;
  /** What one tyre of the axle holds, N·m. */
  readonly wheelNm: number;
  /** In the order of `SITUATIONS`. */
  readonly results: CompareResult[];
}

/** The most that arrives at an axle, N·m, 1 at the least: where nothing slips, every unit is as good as another. */
export function arrivesNm(build: Build, axle: AxleName, derived: Derived): number {
  const own = derived.gearing[axle];
  return own ? Math.max(mostArriving(build, axle, own, axleShares(build, derived.gearing)[axle] ?? 1), 1) : 1;
}

/** No turn asks for more than the tyres give. */
export const mostTurnG = (build: Build): number => Math.min(entryBase(build.road.grip), 1.5);

/** Where a comparison begins: at what arrives, in the hardest turn, dragging as the engine does. */
export const usualAt = (build: Build, axle: AxleName, derived: Derived): ComparedAt =>
  comparedSettings(arrivesNm(build, axle, derived), mostTurnG(build), entryBase(build.road.overrun) / 100);

/** Every type of unit for an axle, in every situation; null where the axle can't be worked out. @throws InputError */
export function compareAll(build: Build, axle: AxleName, derived: Derived, at: ComparedAt): ComparedRow[] | null {
  const own = derived.gearing[axle];
  if (!own) return null;
  const ground = comparedGround(build, axle, own);
  const situations = SITUATIONS.map((name) => factsOf(name, ground, at));
  const wheelNm = (ground.axleLoadN * ground.grip * ground.tyreRadiusMm) / 2000;
  return comparedUnits(build, axle, derived.axles[axle]?.pack ?? null).map((compared) => ({
    compared,
    wheelNm,
    results: situations.map((situation) => compareUnit(compared.unit, situation)),
  }));
}
