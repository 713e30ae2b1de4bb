import { InputError } from '../base/errors';
import { CONSTRUCTION_SIGNS } from '../mesh/construction';
import { crushRise } from '../preload/collapsible';
import { normalFrom, seededRandom } from '../base/random';
import { FAMILIES, virtualAxle, type Family, type PracticeConstruction, type VirtualAxle } from './virtual-axle';

/** A virtual axle with what the mesh alone has not: what closing up takes, and its spacer. */
export interface PracticeAxle extends VirtualAxle {
  readonly closingMm: number;
  readonly spacer: { readonly baseNm: number; readonly kneeDeg: number; readonly riseNmPerDeg: number };
}

export interface Lesson {
  readonly id: string;
  readonly title: string;
  /** What it teaches, said before. */
  readonly teaches: string;
  readonly seed: number;
  readonly construction: PracticeConstruction;
  readonly family?: Family;
  readonly truth?: (truth: VirtualAxle['truth']) => Partial<VirtualAxle['truth']>;
  readonly closingMm?: number;
  readonly spacer?: Partial<PracticeAxle['spacer']>;
}

/** Ten set lessons: what goes wrong in practice (common practice), on made-up axles. */
export const LESSONS: readonly Lesson[] = [
  {
    id: 'first-axle',
    title: 'A first axle',
    teaches: 'Shim out, backlash, pattern, next move: an ordinary axle that needs one change.',
    seed: 101,
    construction: 'integral-head-shim',
  },
  {
    id: 'wrong-sign',
    title: 'The other way round',
    teaches: 'A drop-out: more shim takes the pinion away from the ring.',
    seed: 102,
    construction: 'drop-out',
    truth: () => ({ deeperMm: -0.3 }),
  },
  {
    id: 'caps-close-up',
    title: 'Caps that close up',
    teaches: 'What reads right in the trial is tight when it is closed for good: aim higher.',
    seed: 103,
    construction: 'integral-head-shim',
    closingMm: 0.05,
  },
  {
    id: 'run-out-hides',
    title: 'Run-out that hides',
    teaches: 'The mean is right and one place is not: read all round.',
    seed: 104,
    construction: 'independent',
    truth: () => ({ runoutMm: 0.035 }),
  },
  {
    id: 'off-centre',
    title: 'Never quite centred',
    teaches: 'A set whose coast flank stands off when the drive flank is right: accept it inside the band.',
    seed: 105,
    construction: 'transaxle',
    truth: ({ own }) => ({ own: [own[0] ?? 0.2, 0.02, 0.03, 0.24, -0.1] }),
  },
  {
    id: 'notches',
    title: 'Notch by notch',
    teaches: 'Adjusters: count before you back off; whole notches only.',
    seed: 106,
    construction: 'integral-adjusters',
    truth: () => ({ closerMm: 0.35 }),
  },
  {
    id: 'far-off',
    title: 'Far off',
    teaches: 'Another housing: the first shim is more than half a millimetre wrong. A bold first move.',
    seed: 107,
    construction: 'integral-head-shim',
    truth: () => ({ deeperMm: 0.6, closerMm: -0.3 }),
  },
  {
    id: 'wrong-reading',
    title: 'A reading that lies',
    teaches: 'One pattern in five is misread: read again what doesn’t fit.',
    seed: 108,
    construction: 'integral-head-shim',
    family: { ...FAMILIES.ordinary, wrong: 0.2 },
  },
  {
    id: 'bearings-off',
    title: 'Bearings off each time',
    teaches: 'Shims under the carrier bearings: every move of the ring costs. Do it in few.',
    seed: 109,
    construction: 'integral-inboard',
  },
  {
    id: 'steep-spacer',
    title: 'It stands, then it comes',
    teaches: 'A spacer that stands long and then rises steeply: small turns.',
    seed: 110,
    construction: 'integral-head-shim',
    spacer: { kneeDeg: 190, riseNmPerDeg: crushRise(0.92) },
  },
];

/**
 * The axle of a lesson, or a random one by its seed.
 * @throws InputError naming `lesson` or `seed`
 */
export function practiceAxle(lesson: string | null, seed: number): PracticeAxle {
  const set = lesson === null ? null : LESSONS.find(({ id }) => id === lesson);
  if (set === undefined)
    throw new InputError('lesson', `lesson ${String(lesson)} is not known.`, LESSONS.map(({ id }) => id).join(', '));
  const axle = virtualAxle(set?.seed ?? seed, set?.family);
  const random = seededRandom((axle.seed ^ 0x5bd1e995) >>> 0);
  const normal = normalFrom(random);
  // It stands for long, then comes fast: by the law that is expected of spacers; level and knee are ours.
  const spacer = {
    baseNm: 0.9 + 0.1 * normal(),
    kneeDeg: 60 + 160 * random(),
    riseNmPerDeg: crushRise(random()),
  };
  const construction = set?.construction ?? axle.construction;
  const closingMm = Math.max(0, 0.02 + 0.012 * normal());
  return {
    ...axle,
    construction,
    addingShimMovesPinion: CONSTRUCTION_SIGNS[construction].addingShimMovesPinion ?? axle.addingShimMovesPinion,
    truth: { ...axle.truth, ...set?.truth?.(axle.truth) },
    closingMm: set?.closingMm ?? closingMm,
    spacer: { ...spacer, ...set?.spacer },
  };
}

/** Turning torque of a virtual pinion at a nut angle, N·m: dry a third more. Not counted: scatter of the wrench. */
export function practiceTorque({ spacer }: PracticeAxle, angleDeg: number, oiled: boolean): number {
  const nm = spacer.baseNm + spacer.riseNmPerDeg * Math.max(0, angleDeg - spacer.kneeDeg);
  return oiled ? nm : 1.33 * nm;
}
