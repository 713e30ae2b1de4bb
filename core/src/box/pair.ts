import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { BOX_LIMITS } from './limits';

export interface PairOnCentres {
  readonly teeth: readonly [driver: number, driven: number];
  readonly normalModuleMm: number;
  readonly helixDeg: number;
  readonly pressureAngleDeg: number;
  /** Of the box. */
  readonly centreMm: number;
  /** Profile shifts of both gears together, as their maker says; what is left out nobody has said. */
  readonly shiftSumGiven?: number;
}

export type PairVerdict = 'fits' | 'can-fit' | 'jams' | 'loose';

export interface PairFit {
  /** Centre distance of the pair without profile shift. */
  readonly plainCentreMm: number;
  /** Transverse working pressure angle. */
  readonly workingAngleDeg: number;
  /** Profile shifts that the pair needs together, as shares of the normal module. */
  readonly shiftSum: number;
  /** Play on the working circle, transverse; null where nobody has said the shifts. */
  readonly playMm: number | null;
  readonly verdict: PairVerdict;
}

/** Shifts together that a set may well have been cut with, where its maker does not say: ours. */
export const USUAL_SHIFT = [-0.5, 1.2] as const;
/** Play beyond this share of the module is loose: ours. */
export const LOOSE_SHARE = 0.1;
/** Less than a nanometre is nothing. */
const NOTHING_MM = 1e-9;
const RAD = Math.PI / 180;

/** Involute function, of an angle in radians. */
export const involute = (angle: number): number => Math.tan(angle) - angle;

/** Smallest centre distance at which the involutes still meet, mm; the plain centre distance, and the transverse angle in radians. */
function plain({ teeth, normalModuleMm, helixDeg, pressureAngleDeg }: PairOnCentres) {
  const helix = helixDeg * RAD;
  const transverse = Math.atan(Math.tan(pressureAngleDeg * RAD) / Math.cos(helix));
  const plainCentreMm = (normalModuleMm * (teeth[0] + teeth[1])) / (2 * Math.cos(helix));
  return { transverse, plainCentreMm, leastMm: plainCentreMm * Math.cos(transverse) };
}

/**
 * Whether a pair of gears fits the centre distance of a box: the profile shifts that it would need, and where the maker has said what it
 * has, the play that is left [ISO 21771, from memory]. Without the maker's word it can fit, never fits.
 * Not counted: contact ratio, undercut, tip width, clearance at the root, tolerances of teeth and centres.
 * @throws InputError naming the field; on `centreMm` where the involutes don't meet at all
 */
export function pairOnCentres(pair: PairOnCentres): PairFit {
  pair.teeth.forEach((count, i) => requireNumber(`teeth[${i}]`, count, LIMITS.teeth));
  requireNumber('normalModuleMm', pair.normalModuleMm, BOX_LIMITS.normalModuleMm);
  requireNumber('helixDeg', pair.helixDeg, BOX_LIMITS.helixDeg);
  requireNumber('pressureAngleDeg', pair.pressureAngleDeg, BOX_LIMITS.pressureAngleDeg);
  requireNumber('centreMm', pair.centreMm, BOX_LIMITS.centreMm);
  const given = pair.shiftSumGiven;
  if (given !== undefined) requireNumber('shiftSumGiven', given, BOX_LIMITS.shiftSum);
  const { transverse, plainCentreMm, leastMm } = plain(pair);
  if (leastMm > pair.centreMm)
    throw new InputError(
      'centreMm',
      `centreMm is ${pair.centreMm}: these teeth do not meet at all there.`,
      `at least ${leastMm.toFixed(3)} mm`,
    );
  const working = Math.acos(leastMm / pair.centreMm);
  const sum = pair.teeth[0] + pair.teeth[1];
  const tangent = Math.tan(pair.pressureAngleDeg * RAD);
  const shiftSum = (sum * (involute(working) - involute(transverse))) / (2 * tangent);
  const raw = given === undefined ? null : 2 * tangent * ((2 * pair.centreMm) / sum) * (shiftSum - given);
  const playMm = raw !== null && Math.abs(raw) < NOTHING_MM ? 0 : raw;
  return {
    plainCentreMm,
    workingAngleDeg: working / RAD,
    shiftSum,
    playMm,
    verdict: verdictOf(shiftSum, playMm, pair.normalModuleMm),
  };
}

function verdictOf(shiftSum: number, playMm: number | null, normalModuleMm: number): PairVerdict {
  if (playMm !== null) return playMm < 0 ? 'jams' : playMm <= LOOSE_SHARE * normalModuleMm ? 'fits' : 'loose';
  const [least, most] = USUAL_SHIFT;
  return shiftSum < least ? 'jams' : shiftSum <= most ? 'can-fit' : 'loose';
}
