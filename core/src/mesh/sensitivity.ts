import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { MESH_LIMITS } from './limits';

/** How much backlash, in the pitch plane, one mm of movement takes away. */
export interface MeshSensitivity {
  /** Ring towards the pinion. */
  readonly backlashPerRingMm: number;
  /** Pinion deeper. */
  readonly backlashPerPinionMm: number;
}

/**
 * Backlash per axial move of ring and pinion: 2·tan φ·sin Γ and 2·tan φ·sin γ, tan Γ = ring teeth/pinion teeth, γ = 90° − Γ
 * [std: Dudley, gear handbook, from memory; bevel approximation].
 * Not counted: the offset of a hypoid, which raises the pinion's share to 0.18–0.29; where the indicator stands (square to the
 * flank reads 0.94 of this, round the rim about 1.2).
 * @param pressureAngleDeg of the drive side
 * @throws InputError naming the field
 */
export function meshSensitivity(set: {
  readonly ringTeeth: number;
  readonly pinionTeeth: number;
  readonly pressureAngleDeg: number;
}): MeshSensitivity {
  const ring = requireNumber('ringTeeth', set.ringTeeth, LIMITS.teeth);
  const pinion = requireNumber('pinionTeeth', set.pinionTeeth, LIMITS.teeth);
  if (ring < pinion)
    throw new InputError(
      'ringTeeth',
      `ringTeeth ${ring} is less than pinionTeeth ${pinion}: they look swapped.`,
      'at least as many as the pinion',
    );
  const angle = requireNumber('pressureAngleDeg', set.pressureAngleDeg, MESH_LIMITS.pressureAngleDeg);
  const twice = 2 * Math.tan((angle * Math.PI) / 180);
  const cone = Math.atan(ring / pinion);
  return { backlashPerRingMm: twice * Math.sin(cone), backlashPerPinionMm: twice * Math.cos(cone) };
}

/**
 * How far the ring goes towards the pinion to take so much backlash away, mm; negative: away from it
 * [bevel approximation, see {@link meshSensitivity}; a first guess until the axle has taught its own].
 * Not counted: the pinion, which stays where it is.
 * @throws InputError naming the field
 */
export function axialForBacklash(
  tooMuchMm: number,
  set: { readonly ringTeeth: number; readonly pinionTeeth: number },
): number {
  const tooMuch = requireNumber('tooMuchMm', tooMuchMm, { min: -10, max: 10, unit: 'mm' });
  return tooMuch / meshSensitivity({ ...set, pressureAngleDeg: 20 }).backlashPerRingMm;
}
