import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { SHAFT_LIMITS } from './limits';

/** Share of the critical speed that a shaft is driven to at most [from memory]. */
export const CRITICAL_SHARE = 0.75;

/**
 * First critical speed of a tube between two joints: f = (π/2)·√(E·I/(ρ·A))/L² with pinned ends, a thin beam, so that
 * I/A = (D² + d²)/16 [std: beam theory].
 *
 * Not counted: weight of the yokes, give of joints and mounts, a dent, a slip spline: drive it to three quarters at most.
 * @returns `criticalRpm` and `usableRpm`, three quarters of it
 * @throws InputError naming the field; on `innerDiameterMm` where it is no tube
 */
export function criticalSpeed(of: {
  readonly outerDiameterMm: number;
  readonly innerDiameterMm: number;
  readonly lengthMm: number;
  readonly youngGPa: number;
  readonly densityKgM3: number;
}): { readonly criticalRpm: number; readonly usableRpm: number } {
  const outer = requireNumber('outerDiameterMm', of.outerDiameterMm, SHAFT_LIMITS.diameterMm);
  const inner = requireNumber('innerDiameterMm', of.innerDiameterMm, SHAFT_LIMITS.innerMm);
  const length = requireNumber('lengthMm', of.lengthMm, SHAFT_LIMITS.lengthMm);
  const young = requireNumber('youngGPa', of.youngGPa, LIMITS.youngGPa);
  const density = requireNumber('densityKgM3', of.densityKgM3, SHAFT_LIMITS.densityKgM3);
  if (inner >= outer)
    throw new InputError(
      'innerDiameterMm',
      `A tube of ${outer} mm has no bore of ${inner} mm.`,
      `less than ${outer} mm`,
    );
  // Metres: E/ρ in m²/s², I/A in m².
  const wave = Math.sqrt(((young * 1e9) / density) * ((outer ** 2 + inner ** 2) / 16 / 1e6));
  const criticalRpm = (60 * (Math.PI / 2) * wave) / (length / 1000) ** 2;
  return { criticalRpm, usableRpm: CRITICAL_SHARE * criticalRpm };
}
