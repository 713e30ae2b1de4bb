import { requireNumber } from '../base/errors';
import { MESH_LIMITS } from '../mesh/limits';
import type { MeshTry, Patch } from '../mesh/job';
import { CONSTRUCTION_SIGNS, depthSign, type Depthwards, type MeshConstruction } from '../mesh/construction';
import { meshSensitivity } from '../mesh/sensitivity';
import { normalFrom, seededRandom } from '../base/random';

/** Constructions that have a mesh to set. */
export const PRACTICE_CONSTRUCTIONS = [
  'integral-head-shim',
  'integral-inboard',
  'integral-adjusters',
  'drop-out',
  'independent',
  'transaxle',
] as const satisfies readonly MeshConstruction[];
export type PracticeConstruction = (typeof PRACTICE_CONSTRUCTIONS)[number];

/** How widely a family of axles spreads; one deviation each. */
export interface Family {
  /** Of the first assembly from the right position: depth, ring, mm. */
  readonly firstMm: readonly [number, number];
  /** How wide sensitivities spread, of what is met in practice. */
  readonly spread: number;
  /** What the offset of a hypoid adds to the pinion's share of backlash. */
  readonly pinionExtra: number;
  /** Each flank's own place when all is right. */
  readonly ownPatch: number;
  readonly runoutMm: number;
  readonly backlashNoiseMm: number;
  readonly eye: number;
  /** Share of patterns that are simply misread. */
  readonly wrong: number;
}

/** Ours: an ordinary family, and one with other spreads, a hypoid's pinion share, coarser eyes and wrong readings. */
export const FAMILIES: Readonly<Record<'ordinary' | 'rough', Family>> = {
  ordinary: {
    firstMm: [0.2, 0.2],
    spread: 1,
    pinionExtra: 0.03,
    ownPatch: 0.1,
    runoutMm: 0.012,
    backlashNoiseMm: 0.008,
    eye: 0.1,
    wrong: 0,
  },
  rough: {
    firstMm: [0.25, 0.25],
    spread: 1.3,
    pinionExtra: 0.08,
    ownPatch: 0.1,
    runoutMm: 0.015,
    backlashNoiseMm: 0.012,
    eye: 0.12,
    wrong: 0.05,
  },
};

/** An axle whose truth is hidden from whoever sets it up. */
export interface VirtualAxle {
  readonly construction: PracticeConstruction;
  readonly ringTeeth: number;
  readonly pinionTeeth: number;
  readonly specBacklashMm: readonly [number, number];
  /** What adding to its pinion shim does, as its sheet says. */
  readonly addingShimMovesPinion: Depthwards;
  /** What came out of it: the shim of the first try. */
  readonly startShimMm: number;
  readonly truth: {
    /** Right position from the first try: deeper, and ring towards the pinion. */
    readonly deeperMm: number;
    readonly closerMm: number;
    readonly perMm: readonly (readonly [number, number])[];
    readonly own: readonly number[];
    readonly runoutMm: number;
    readonly runoutDeg: number;
  };
  readonly family: Family;
  readonly seed: number;
}

const SETS = [
  [41, 11],
  [43, 10],
  [37, 9],
  [39, 11],
  [46, 9],
  [31, 10],
] as const;

/**
 * A made-up axle by its seed: the same one anywhere.
 * Not counted: wear, tight spots, bearings that seat: a straight axle with one wave of run-out.
 * @throws InputError naming `seed`
 */
export function virtualAxle(seed: number, family: Family = FAMILIES.ordinary): VirtualAxle {
  requireNumber('seed', seed, { min: 0, max: 4_294_967_295, integer: true });
  const random = seededRandom(seed);
  const normal = normalFrom(random);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const construction = pick(PRACTICE_CONSTRUCTIONS);
  const [ringTeeth, pinionTeeth] = pick(SETS);
  const low = pick([0.13, 0.15, 0.15, 0.18, 0.2]);
  const specBacklashMm = [low, low + pick([0.08, 0.1, 0.1])] as const;
  const { backlashPerRingMm: ring, backlashPerPinionMm: pinion } = meshSensitivity({
    ringTeeth,
    pinionTeeth,
    pressureAngleDeg: 20,
  });
  /** Evenly between two ends, as wide as the family spreads. */
  const between = (from: number, to: number): number =>
    (from + to) / 2 + family.spread * (to - from) * (random() - 0.5);
  // Pattern a mm, four times what is met for 0.25 mm (common practice for the directions, from memory for the sizes).
  const perMm = [
    [-(pinion + family.pinionExtra + 0.05 * family.spread * normal()), -(ring + 0.08 * family.spread * normal())],
    [-between(0.4, 1.6), -between(0.8, 2)],
    [-between(1.6, 3.2), -between(0.2, 0.8)],
    [between(0.4, 1.6), -between(0.8, 2)],
    [-between(1.6, 3.2), -between(0.2, 0.8)],
  ] as const;
  return {
    construction,
    ringTeeth,
    pinionTeeth,
    specBacklashMm,
    // A box shaft has no direction by itself: those of practice have their shim behind the race.
    addingShimMovesPinion: CONSTRUCTION_SIGNS[construction].addingShimMovesPinion ?? 'deeper',
    startShimMm: Math.round((0.9 + 0.4 * random()) * 40) / 40,
    truth: {
      deeperMm: family.firstMm[0] * normal(),
      closerMm: family.firstMm[1] * normal(),
      perMm,
      own: [
        (specBacklashMm[0] + specBacklashMm[1]) / 2 + 0.01 * normal(),
        ...[0, 1, 2, 3].map(() => family.ownPatch * normal()),
      ],
      runoutMm: Math.abs(family.runoutMm * normal()),
      runoutDeg: 360 * random(),
    },
    family,
    seed,
  };
}

/** What the readings truly are at a place: mean backlash, then both patches. Not counted: how they are read. */
export function trueReadings(axle: VirtualAxle, pinionShimMm: number, ringShiftMm: number): readonly number[] {
  const { truth, startShimMm } = axle;
  const sign = depthSign(axle.addingShimMovesPinion);
  const deeper = sign * (pinionShimMm - startShimMm) - truth.deeperMm;
  const closer = ringShiftMm - truth.closerMm;
  return truth.own.map((own, i) => {
    const [perDepth, perRing] = truth.perMm[i] as readonly [number, number];
    return own + perDepth * deeper + perRing * closer;
  });
}

/** A try of which everything was read. */
export interface WholeTry extends MeshTry {
  readonly drive: Patch;
  readonly coast: Patch;
}

const PLACES = 8;

/**
 * Puts a virtual axle together and reads it, as a builder would: backlash at 8 places, both patches by eye. The same axle, shims
 * and number of the assembly read the same.
 * Not counted: a patch off the tooth is read at its edge, as the eye sees it.
 * @param assembly counts from 0; another one scatters anew
 * @throws InputError naming the field
 */
export function assemble(axle: VirtualAxle, pinionShimMm: number, ringShiftMm: number, assembly = 0): WholeTry {
  requireNumber('pinionShimMm', pinionShimMm, MESH_LIMITS.shimMm);
  requireNumber('ringShiftMm', ringShiftMm, MESH_LIMITS.moveMm);
  requireNumber('assembly', assembly, { min: 0, max: 1000, integer: true });
  const { family, truth } = axle;
  const mixed = Math.imul(axle.seed + 1, 2_654_435_761) ^ Math.imul(assembly + 1, 40_503);
  const random = seededRandom((mixed ^ Math.round(1000 * pinionShimMm) ^ (Math.round(1000 * ringShiftMm) << 12)) >>> 0);
  const normal = normalFrom(random);
  const [backlash = 0, ...patches] = trueReadings(axle, pinionShimMm, ringShiftMm);
  const eye = (value: number): number => {
    const seen = random() < family.wrong ? 2 * random() - 1 : value + family.eye * normal();
    return Number(Math.max(-1, Math.min(1, seen)).toFixed(2));
  };
  const [du, dv, cu, cv] = patches.map(eye) as [number, number, number, number];
  const drive: Patch = { u: du, v: dv };
  const coast: Patch = { u: cu, v: cv };
  const backlashMm = Array.from({ length: PLACES }, (_, i) => {
    const at = (2 * Math.PI * i) / PLACES - (truth.runoutDeg * Math.PI) / 180;
    const read = backlash + truth.runoutMm * Math.cos(at) + family.backlashNoiseMm * normal();
    // A mesh without backlash reads nothing, not less.
    return Number(Math.max(0, read).toFixed(3));
  });
  return { pinionShimMm, ringShiftMm, backlashMm, drive, coast };
}
