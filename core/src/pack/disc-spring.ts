import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';

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

function requireSpring(spring: DiscSpring): void {
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

/**
 * Force in N of one dished spring pressed by `travelMm`:
 * F(s) = 4E/(1−ν²) · t⁴/(K₁·D_e²) · s/t · [(h₀/t − s/t)(h₀/t − s/(2t)) + 1]
 * [standard: Almen & Laszlo 1936; EN 16984].
 * @param travelMm 0 (free) to coneHeightMm (flat)
 * @throws InputError naming the field; travel past flat is refused
 */
export function discSpringForce(spring: DiscSpring, travelMm: number): number {
  requireSpring(spring);
  const travel = requireNumber('travelMm', travelMm, { min: 0, max: spring.coneHeightMm, unit: 'mm (flat)' });
  const { youngGPa, poisson } = { ...SPRING_STEEL, ...spring };
  const t = spring.thicknessMm;
  const h = spring.coneHeightMm / t;
  const s = travel / t;
  const stiffness = (4 * youngGPa * 1000) / (1 - poisson ** 2);
  const shape = t ** 4 / (discSpringK1(spring.outerDiameterMm / spring.innerDiameterMm) * spring.outerDiameterMm ** 2);
  return stiffness * shape * s * ((h - s) * (h - s / 2) + 1);
}

/** Identical discs nested in the same direction: forces add, the cone height stays [exact]. */
export interface DiscGroup {
  readonly spring: DiscSpring;
  readonly nested: number;
}

/** Free height in mm of nested discs: n·t + h₀. */
export function discGroupFreeHeight({ spring, nested }: DiscGroup): number {
  return nested * spring.thicknessMm + spring.coneHeightMm;
}

export interface ColumnState {
  /** The same through the whole column. */
  readonly forceN: number;
  /** Travel of each group, mm. */
  readonly travelsMm: readonly number[];
  /** The largest share of its own travel that a group has used: 1 is flat. */
  readonly flattest: number;
}

const groupForce = (group: DiscGroup, travelMm: number): number =>
  group.nested * discSpringForce(group.spring, Math.min(travelMm, group.spring.coneHeightMm));

function sameGroup(a: DiscGroup, b: DiscGroup): boolean {
  return (
    a.nested === b.nested &&
    a.spring.outerDiameterMm === b.spring.outerDiameterMm &&
    a.spring.innerDiameterMm === b.spring.innerDiameterMm &&
    a.spring.thicknessMm === b.spring.thicknessMm &&
    a.spring.coneHeightMm === b.spring.coneHeightMm
  );
}

/** Travel at which a group's force reaches its maximum: flat, or where the slope is zero when h₀/t > √2. */
function risingTravel({ spring }: DiscGroup): number {
  const h = spring.coneHeightMm / spring.thicknessMm;
  if (h <= FORCE_PEAK_RATIO) return spring.coneHeightMm;
  return spring.thicknessMm * (h - Math.sqrt((h * h - 2) / 3));
}

function travelAtForce(group: DiscGroup, forceN: number): number {
  let low = 0;
  let high = risingTravel(group);
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (groupForce(group, middle) < forceN) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** Largest force in N that groups in series hold on their rising part, and the travel in mm at which they do. */
export function columnPeak(groups: readonly DiscGroup[]): { forceN: number; travelMm: number } {
  const forceN = Math.min(...groups.map((group) => groupForce(group, risingTravel(group))));
  if (groups.length === 0) return { forceN: 0, travelMm: 0 };
  return { forceN, travelMm: sum(groups.map((group) => travelAtForce(group, forceN))) };
}

/**
 * Travel in mm at which groups in series hold `forceN`, on the rising part: the inverse of {@link springColumn}.
 * @returns null where they can't hold so much
 */
export function columnTravel(groups: readonly DiscGroup[], forceN: number): number | null {
  if (groups.length === 0 || forceN > columnPeak(groups).forceN) return null;
  return sum(groups.map((group) => travelAtForce(group, forceN)));
}

/**
 * Force and travels of groups of discs in series, pressed together by `travelMm` in all. In series travels add and the
 * force is one [exact].
 * @param groups from one end to the other
 * @throws InputError on `travelMm` for travel past flat, on `coneHeightMm` for a spring that snaps through
 *   (h₀/t > 2√2), and for mixed groups past the force maximum of one of them
 */
export function springColumn(groups: readonly DiscGroup[], travelMm: number): ColumnState {
  for (const { spring, nested } of groups) {
    requireSpring(spring);
    requireNumber('nested', nested, { min: 1, max: 20, integer: true });
    if (spring.coneHeightMm / spring.thicknessMm > SNAP_THROUGH_RATIO) {
      throw new InputError(
        'coneHeightMm',
        'coneHeightMm: cone height over thickness is above 2√2, so the spring snaps through and can hold no preload.',
        `at most ${(SNAP_THROUGH_RATIO * spring.thicknessMm).toFixed(2)} mm at this thickness`,
      );
    }
  }
  const flat = groups.reduce((sum, group) => sum + group.spring.coneHeightMm, 0);
  requireNumber('travelMm', travelMm, { min: 0, max: flat * (1 + 1e-12), unit: 'mm (flat)' });
  const first = groups[0];
  if (!first || travelMm === 0) return { forceN: 0, travelsMm: groups.map(() => 0), flattest: 0 };
  const state = (forceN: number, travelsMm: number[]): ColumnState => ({
    forceN,
    travelsMm,
    flattest: Math.max(...groups.map((group, i) => (travelsMm[i] ?? 0) / group.spring.coneHeightMm)),
  });
  if (groups.every((group) => sameGroup(group, first))) {
    const each = travelMm / groups.length;
    return state(
      groupForce(first, each),
      groups.map(() => each),
    );
  }
  const { forceN: strongest, travelMm: reach } = columnPeak(groups);
  const travelAt = (forceN: number): number[] => groups.map((group) => travelAtForce(group, forceN));
  if (travelMm > reach) {
    throw new InputError(
      'travelMm',
      `travelMm: the weakest spring of the mixed column is at its limit after ${reach.toFixed(3)} mm.`,
      `from 0 to ${reach.toFixed(3)} mm`,
    );
  }
  let low = 0;
  let high = strongest;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (sum(travelAt(middle)) < travelMm) low = middle;
    else high = middle;
  }
  const forceN = (low + high) / 2;
  return state(forceN, travelAt(forceN));
}
