import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { roadSpeed } from '../gearing/road-speed';
import { requirePair, type GearPair } from './ladder';
import { BOX_LIMITS } from './limits';

export type Hand = 'right' | 'left';

/** A stage of a reduction; with module, helix and hand its thrusts can be told. */
export interface ReductionStage extends GearPair {
  readonly normalModuleMm?: number;
  readonly helixDeg?: number;
  /** Of the driver; the driven gear has the other one. */
  readonly driverHand?: Hand;
}

export interface Reduction {
  readonly stages: readonly ReductionStage[];
  readonly motorLimitRpm: number;
  readonly rollingCircumferenceMm: number;
  /** At the motor shaft, under power; without it no thrusts. */
  readonly torqueNm?: number;
}

const RAD = Math.PI / 180;

/**
 * Axial force of a helical gear's teeth, N: F_t·tan β, F_t = 2T ÷ d, d = m_n·z ÷ cos β [exact, statics of the flank]. Never negative.
 * @param torqueNm at the gear that turns the other
 */
export function axialForce(
  { normalModuleMm, helixDeg }: { readonly normalModuleMm: number; readonly helixDeg: number },
  teeth: number,
  torqueNm: number,
): number {
  const helix = helixDeg * RAD;
  const diameterM = (normalModuleMm * teeth) / Math.cos(helix) / 1000;
  return ((2 * torqueNm) / diameterM) * Math.tan(helix);
}

/**
 * A reduction of parallel stages: its ratio, its speed at the motor's limit, and with a torque the axial force on each shaft, motor
 * first, carrier last: + away from the motor, for a motor shaft that turns clockwise seen from the motor, under power. At overrun all of
 * them turn over. A right-hand driver that turns clockwise is pushed away from who sees it so; the driven gear the other way [exact].
 * Not counted: losses, the tilting couples that stay where forces cancel, bearings' own thrust.
 * @throws InputError naming the field; on a stage's keys where a torque is given and they are not, on `stages` for a ratio above 200
 */
export function reduction(of: Reduction): {
  readonly ratio: number;
  readonly speedAtLimitKmh: number;
  readonly thrustsN: readonly number[] | null;
} {
  requireNumber('stages', of.stages.length, BOX_LIMITS.stages);
  const ratios = of.stages.map((stage, i) => requirePair(`stages[${i}]`, stage));
  const ratio = ratios.reduce((product, one) => product * one, 1);
  if (!(ratio <= LIMITS.ratio.max))
    throw new InputError('stages', `stages multiply to ${ratio.toFixed(1)}.`, `a ratio up to ${LIMITS.ratio.max}`);
  requireNumber('motorLimitRpm', of.motorLimitRpm, LIMITS.rpm);
  const speed = roadSpeed(
    { rollingCircumferenceMm: of.rollingCircumferenceMm, gearRatio: 1, rangeRatio: 1, finalRatio: ratio, hubRatio: 1 },
    of.motorLimitRpm,
  );
  return {
    ratio,
    speedAtLimitKmh: 3.6 * speed,
    thrustsN: of.torqueNm === undefined ? null : thrusts(of.stages, ratios, of.torqueNm),
  };
}

function thrusts(stages: readonly ReductionStage[], ratios: readonly number[], motorNm: number): number[] {
  let torque = requireNumber('torqueNm', motorNm, LIMITS.torqueNm);
  const shafts = Array.from({ length: stages.length + 1 }, () => 0);
  stages.forEach(({ driver, normalModuleMm, helixDeg, driverHand }, i) => {
    const module = requireNumber(
      `stages[${i}].normalModuleMm`,
      normalModuleMm ?? Number.NaN,
      BOX_LIMITS.normalModuleMm,
    );
    const helix = requireNumber(`stages[${i}].helixDeg`, helixDeg ?? Number.NaN, BOX_LIMITS.helixDeg);
    if (driverHand === undefined && helix > 0)
      throw new InputError(`stages[${i}].driverHand`, `stages[${i}].driverHand is missing.`, 'right or left');
    // Every other shaft turns the other way.
    const turns = i % 2 === 0 ? 1 : -1;
    const force =
      turns *
      (driverHand === 'left' ? -1 : 1) *
      axialForce({ normalModuleMm: module, helixDeg: helix }, driver, torque);
    shafts[i] = (shafts[i] as number) + force;
    shafts[i + 1] = (shafts[i + 1] as number) - force;
    torque *= ratios[i] as number;
  });
  return shafts.map((force) => force || 0);
}

/**
 * The helix in degrees of the second gear of a layshaft at which its thrust cancels that of the first, both of one hand: equal leads,
 * tan β₁/d₁ = tan β₂/d₂, with each d = m_n·z/cos β, so sin β₂ = sin β₁·(m₂·z₂)/(m₁·z₁) [exact]. Null where no helix does.
 * Not counted: the tilting couples, which stay.
 */
export function balancingHelixDeg(
  first: { readonly normalModuleMm: number; readonly teeth: number; readonly helixDeg: number },
  second: { readonly normalModuleMm: number; readonly teeth: number },
): number | null {
  for (const [name, { normalModuleMm, teeth }] of Object.entries({ first, second })) {
    requireNumber(`${name}.normalModuleMm`, normalModuleMm, BOX_LIMITS.normalModuleMm);
    requireNumber(`${name}.teeth`, teeth, LIMITS.teeth);
  }
  requireNumber('first.helixDeg', first.helixDeg, BOX_LIMITS.helixDeg);
  const sine =
    (Math.sin(first.helixDeg * RAD) * second.normalModuleMm * second.teeth) / (first.normalModuleMm * first.teeth);
  return sine < 1 ? Math.asin(sine) / RAD : null;
}
