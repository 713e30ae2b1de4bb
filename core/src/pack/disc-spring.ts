import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

export interface DiscSpring {
  readonly outerDiameterMm: number;
  readonly innerDiameterMm: number;
  readonly thicknessMm: number;
  /** Free cone height h₀: free height less thickness. */
  readonly coneHeightMm: number;
  /** 206 for spring steel. */
  readonly youngGPa?: number;
  readonly poisson?: number;
}

/** Spring steel, where nothing else is said [standard: EN 16983, from memory]. */
export const SPRING_STEEL = { youngGPa: 206, poisson: 0.3 } as const;
/** Above this h₀/t the force has a maximum and falls again [exact, from the formula]. */
export const FORCE_PEAK_RATIO = Math.SQRT2;
/** Above this h₀/t the spring snaps through [exact, from the formula]. */
export const SNAP_THROUGH_RATIO = 2 * Math.SQRT2;

/** @throws InputError naming the field */
export function requireDisc(spring: DiscSpring): void {
  requireNumber('outerDiameterMm', spring.outerDiameterMm, LIMITS.diameterMm);
  requireNumber('innerDiameterMm', spring.innerDiameterMm, LIMITS.diameterMm);
  requireNumber('thicknessMm', spring.thicknessMm, LIMITS.thicknessMm);
  requireNumber('coneHeightMm', spring.coneHeightMm, LIMITS.thicknessMm);
  requireNumber('youngGPa', spring.youngGPa ?? SPRING_STEEL.youngGPa, LIMITS.youngGPa);
  requireNumber('poisson', spring.poisson ?? SPRING_STEEL.poisson, LIMITS.poisson);
  if (spring.innerDiameterMm >= spring.outerDiameterMm) {
    throw new InputError(
      'innerDiameterMm',
      `innerDiameterMm is ${spring.innerDiameterMm}, not below the outer diameter ${spring.outerDiameterMm}.`,
      `more than 0, below ${spring.outerDiameterMm} mm`,
    );
  }
}

/** K₁ of the disc-spring formula with δ = D_e/D_i [standard: Almen & Laszlo 1936; EN 16984]. */
export function discSpringK1(delta: number): number {
  return ((delta - 1) / delta) ** 2 / (Math.PI * ((delta + 1) / (delta - 1) - 2 / Math.log(delta)));
}

/** What does not change with travel: F = scale·s/t·[(h₀/t − s/t)(h₀/t − s/(2t)) + 1], N. */
function discScale(spring: DiscSpring): number {
  const { youngGPa = SPRING_STEEL.youngGPa, poisson = SPRING_STEEL.poisson, thicknessMm: t } = spring;
  const shape = t ** 4 / (discSpringK1(spring.outerDiameterMm / spring.innerDiameterMm) * spring.outerDiameterMm ** 2);
  return ((4 * youngGPa * 1000) / (1 - poisson ** 2)) * shape;
}

/**
 * Force in N of one dished spring pressed by `travelMm`:
 * F(s) = 4E/(1−ν²) · t⁴/(K₁·D_e²) · s/t · [(h₀/t − s/t)(h₀/t − s/(2t)) + 1]
 * [standard: Almen & Laszlo 1936; EN 16984]. Not counted: friction at its edges, and the tolerance of its load.
 * @param travelMm 0 (free) to coneHeightMm (flat)
 * @throws InputError naming the field; travel past flat is refused
 */
export function discSpringForce(spring: DiscSpring, travelMm: number): number {
  requireDisc(spring);
  const travel = requireNumber('travelMm', travelMm, { min: 0, max: spring.coneHeightMm, unit: 'mm (flat)' });
  const h = spring.coneHeightMm / spring.thicknessMm;
  const s = travel / spring.thicknessMm;
  return discScale(spring) * s * ((h - s) * (h - s / 2) + 1);
}

/** Stiffness of one dished spring at a travel, N/mm: the slope of {@link discSpringForce}; below 0 past its peak [exact]. */
export function discSpringRate(spring: DiscSpring, travelMm: number): number {
  requireDisc(spring);
  const travel = requireNumber('travelMm', travelMm, { min: 0, max: spring.coneHeightMm, unit: 'mm (flat)' });
  const h = spring.coneHeightMm / spring.thicknessMm;
  const s = travel / spring.thicknessMm;
  return (discScale(spring) / spring.thicknessMm) * (h * h + 1 - 3 * h * s + 1.5 * s * s);
}

/** Travel at which a disc's force reaches its maximum: flat, or where the slope is zero when h₀/t > √2 [exact]. */
export function discRisingTravel({ thicknessMm, coneHeightMm }: DiscSpring): number {
  const h = coneHeightMm / thicknessMm;
  if (h <= FORCE_PEAK_RATIO) return coneHeightMm;
  return thicknessMm * (h - Math.sqrt((h * h - 2) / 3));
}
