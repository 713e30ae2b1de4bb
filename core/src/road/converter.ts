import { InputError, requireNumber, type NumberRange } from '../errors';
import { LIMITS } from '../limits';

/** A torque converter: torque ratio against speed ratio is a straight line from stall to coupling. */
export interface Converter {
  /** Engine speed that it holds until the turbine has caught up. */
  readonly stallRpm: number;
  /** Torque multiplication at standstill. */
  readonly torqueRatio: number;
  /** Turbine speed over engine speed at which the multiplication has fallen to 1. */
  readonly couplingRatio: number;
  /** What it slips beyond that, as a share of engine speed: 0.1 means that the engine turns 1/0.9 of the turbine. */
  readonly slip?: number;
}

export const CONVERTER_LIMITS = {
  torqueRatio: { min: 1, max: 5 },
  couplingRatio: { above: 0, max: 1 },
  slip: { min: 0, max: 0.9 },
} as const satisfies Record<string, NumberRange>;

/**
 * The most of its power that a converter passes on: the peak of torque ratio × speed ratio along the straight line from
 * (0, TR₀) to (SR_c, 1): TR₀²·SR_c/(4·(TR₀ − 1)) from TR₀ = 2 up, SR_c below [exact]. Above 1 it would make energy.
 * Not counted: losses of the pump, which leave less.
 */
export function converterPeakEfficiency({ torqueRatio, couplingRatio }: Converter): number {
  return torqueRatio <= 2 ? couplingRatio : (torqueRatio ** 2 * couplingRatio) / (4 * (torqueRatio - 1));
}

/**
 * The largest torque ratio at stall with which a coupling ratio makes no energy: 2·(1 + √(1 − SR_c))/SR_c [exact]. Not counted: losses of the pump, which leave less.
 */
export function mostTorqueRatio(couplingRatio: number): number {
  return (2 * (1 + Math.sqrt(1 - couplingRatio))) / couplingRatio;
}

const down = (value: number): string => (Math.floor(value * 1000) / 1000).toString();

/**
 * @throws InputError naming the field; on `converter.torqueRatio` where torque ratio × speed ratio would pass 1, with
 *   what would be allowed
 */
export function requireConverter(converter: Converter): void {
  const { stallRpm, torqueRatio, couplingRatio, slip = 0 } = converter;
  requireNumber('converter.stallRpm', stallRpm, { above: 0, max: LIMITS.rpm.max, unit: 'rpm' });
  requireNumber('converter.torqueRatio', torqueRatio, CONVERTER_LIMITS.torqueRatio);
  requireNumber('converter.couplingRatio', couplingRatio, CONVERTER_LIMITS.couplingRatio);
  requireNumber('converter.slip', slip, CONVERTER_LIMITS.slip);
  const peak = converterPeakEfficiency(converter);
  if (peak > 1 + 1e-9) {
    throw new InputError(
      'converter.torqueRatio',
      `converter.torqueRatio ${torqueRatio} with a coupling ratio of ${couplingRatio} would give ${(100 * peak).toFixed(2)} % of the power that goes in.`,
      `a torque ratio of at most ${down(mostTorqueRatio(couplingRatio))}, or a coupling ratio of at most ${down((4 * (torqueRatio - 1)) / torqueRatio ** 2)}`,
    );
  }
}

/** Torque ratio at a speed ratio: the straight line, 1 from coupling on. */
export function torqueRatioAt({ torqueRatio, couplingRatio }: Converter, speedRatio: number): number {
  return speedRatio >= couplingRatio ? 1 : torqueRatio - ((torqueRatio - 1) * speedRatio) / couplingRatio;
}

export interface ConverterPoint {
  readonly engineRpm: number;
  /** Turbine speed over engine speed. */
  readonly speedRatio: number;
  readonly torqueRatio: number;
  /** Torque into the converter, N·m. */
  readonly impellerNm: number;
  /** What it turns into heat, W: P_engine·(1 − speed ratio × torque ratio). */
  readonly heatW: number;
}

/**
 * Where a converter works under part throttle: the engine speed at which it passes the turbine torque that is asked for.
 * Impeller torque is C·n², C from the engine's full torque at stall; that C does not change with the speed ratio is an
 * assumption of ours. From coupling on the engine turns n_turbine/SR_c. Lock-up clutches and pump losses are not counted.
 * @param stallTorqueNm full torque of the engine at the stall speed
 * @param turbineNm torque at the turbine, N·m, not negative
 * @throws InputError naming the field
 */
export function converterPoint(
  converter: Converter,
  stallTorqueNm: number,
  turbineRpm: number,
  turbineNm: number,
): ConverterPoint {
  requireConverter(converter);
  const stall = requireNumber('stallTorqueNm', stallTorqueNm, { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });
  const turning = requireNumber('turbineRpm', turbineRpm, LIMITS.rpm);
  const asked = requireNumber('turbineNm', turbineNm, LIMITS.torqueNm);
  const { couplingRatio, stallRpm } = converter;
  const constant = stall / stallRpm ** 2;
  const passes = (rpm: number): number =>
    rpm === 0 ? 0 : torqueRatioAt(converter, turning / rpm) * constant * rpm * rpm;
  const coupledRpm = turning / couplingRatio;
  let engineRpm = coupledRpm;
  if (passes(coupledRpm) < asked) {
    // Above coupling the torque that it passes rises with engine speed: TR rises as the speed ratio falls.
    let [low, high] = [coupledRpm, Math.max(2 * coupledRpm, stallRpm)];
    while (passes(high) < asked) high *= 2;
    for (let i = 0; i < 80; i++) {
      const middle = (low + high) / 2;
      if (passes(middle) < asked) low = middle;
      else high = middle;
    }
    engineRpm = (low + high) / 2;
  }
  const speedRatio = engineRpm > 0 ? turning / engineRpm : 0;
  const torqueRatio = torqueRatioAt(converter, speedRatio);
  const impellerNm = asked / torqueRatio;
  const powerW = (impellerNm * engineRpm * Math.PI) / 30;
  return { engineRpm, speedRatio, torqueRatio, impellerNm, heatW: powerW * (1 - speedRatio * torqueRatio) };
}
