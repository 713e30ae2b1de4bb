import { InputError, requireNumber } from '../base/errors';
import { floatShim } from '../mesh/float-shim';
import { BOX_LIMITS } from './limits';

/** A gear's face along its shaft, with the float of that shaft centred. */
export interface Face {
  readonly fromMm: number;
  readonly toMm: number;
  /** The whole float. */
  readonly floatMm: number;
}

const common = (a: Face, b: Face, shift: number): number =>
  Math.max(0, Math.min(a.toMm + shift, b.toMm) - Math.max(a.fromMm + shift, b.fromMm));

/**
 * How far two faces lie on each other, and what is left of it where both shafts have gone to the worse end of their floats: each moves
 * by half of its own, against the other [exact]. Shares are of the narrower face.
 * Not counted: chamfers, a shaft that bends, what heat makes of either float.
 * @throws InputError naming the field
 */
export function faceOverlap(of: { readonly first: Face; readonly second: Face }): {
  readonly overlapMm: number;
  readonly share: number;
  readonly worstShare: number;
} {
  for (const name of ['first', 'second'] as const) {
    const { fromMm, toMm, floatMm } = of[name];
    requireNumber(`${name}.fromMm`, fromMm, BOX_LIMITS.placeMm);
    requireNumber(`${name}.toMm`, toMm, BOX_LIMITS.placeMm);
    requireNumber(`${name}.floatMm`, floatMm, BOX_LIMITS.floatMm);
    if (toMm <= fromMm)
      throw new InputError(`${name}.toMm`, `${name}.toMm must be above ${name}.fromMm.`, `more than ${fromMm}`);
  }
  const { first, second } = of;
  const narrower = Math.min(first.toMm - first.fromMm, second.toMm - second.fromMm);
  const half = (first.floatMm + second.floatMm) / 2;
  const overlapMm = common(first, second, 0);
  const worst = Math.min(common(first, second, half), common(first, second, -half));
  return { overlapMm, share: overlapMm / narrower, worstShare: worst / narrower };
}

/** How a shaft is held: by the case from outside, by cups back to back, or at one end. */
export type Arrangement = 'X' | 'O' | 'one-end';
export const ARRANGEMENTS: readonly Arrangement[] = ['X', 'O', 'one-end'];

export interface HeatedFloat {
  readonly shimMm: number;
  readonly measuredMm: number;
  /** Set cold. */
  readonly wantedMm: number;
  /** Between the bearings. */
  readonly lengthMm: number;
  readonly caseRiseK: number;
  readonly shaftRiseK: number;
  /** Per kelvin. */
  readonly caseExpansion: number;
  readonly shaftExpansion: number;
  readonly arrangement: Arrangement;
}

/** By how much more a case grows than its shaft between the bearings, mm: α_case·L·ΔT_case − α_shaft·L·ΔT_shaft [exact]. */
export function growthMm(
  of: Pick<HeatedFloat, 'lengthMm' | 'caseRiseK' | 'shaftRiseK' | 'caseExpansion' | 'shaftExpansion'>,
): number {
  const length = requireNumber('lengthMm', of.lengthMm, BOX_LIMITS.lengthMm);
  const caseRise = requireNumber('caseRiseK', of.caseRiseK, BOX_LIMITS.riseK);
  const shaftRise = requireNumber('shaftRiseK', of.shaftRiseK, BOX_LIMITS.riseK);
  const ofCase = requireNumber('caseExpansion', of.caseExpansion, BOX_LIMITS.expansion);
  const ofShaft = requireNumber('shaftExpansion', of.shaftExpansion, BOX_LIMITS.expansion);
  return length * (ofCase * caseRise - ofShaft * shaftRise);
}

/**
 * What heat adds to an end float, mm: what the case outgrows the shaft where it holds it from outside (X), as much less with cups back to
 * back (O), nothing where it is located at one end [exact].
 * @throws InputError naming the field
 */
export function floatChangeMm(of: Omit<HeatedFloat, 'shimMm' | 'measuredMm' | 'wantedMm'>): number {
  const growth = growthMm(of);
  if (!ARRANGEMENTS.includes(of.arrangement))
    throw new InputError('arrangement', 'arrangement is none of a shaft.', ARRANGEMENTS.join(', '));
  return of.arrangement === 'X' ? growth : of.arrangement === 'O' ? -growth : 0;
}

/**
 * The shim for an end float that is set cold, and what heat makes of it: held from outside (X) it grows by what the case outgrows the
 * shaft, with cups back to back (O) it shrinks by as much, located at one end it stays. Hot below nought is squeeze, no mistake.
 * Not counted: a case or a shaft that is warmer at one end, a press fit that loosens, the outer ring that creeps.
 * @throws InputError naming the field
 */
export function heatedFloat(of: HeatedFloat): {
  readonly shimMm: number;
  readonly coldMm: number;
  readonly hotMm: number;
} {
  const shimMm = floatShim(of);
  return { shimMm, coldMm: of.wantedMm, hotMm: of.wantedMm + floatChangeMm(of) };
}
