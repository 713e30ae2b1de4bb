import { InputError, requireNumber, type NumberRange } from '../base/errors';
import { LIMITS } from '../base/limits';

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
  /** Speed ratio up to which it takes as much as at stall, and the share that it still takes at coupling; ours unless told. */
  readonly fullUpTo?: number;
  readonly shareAtCoupling?: number;
}

/** Ours: the capacity of a converter, C·n², holds up to this speed ratio and falls straight to this share of it at coupling. */
export const CONVERTER_CAPACITY = { fullUpTo: 0.7, shareAtCoupling: 0.5 } as const;

export const CONVERTER_LIMITS = {
  torqueRatio: { min: 1, max: 5 },
  couplingRatio: { above: 0, max: 1 },
  slip: { min: 0, max: 0.9 },
  fullUpTo: { min: 0, max: 1 },
  shareAtCoupling: { above: 0, max: 1 },
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
  requireNumber('converter.fullUpTo', converter.fullUpTo ?? CONVERTER_CAPACITY.fullUpTo, CONVERTER_LIMITS.fullUpTo);
  requireNumber(
    'converter.shareAtCoupling',
    converter.shareAtCoupling ?? CONVERTER_CAPACITY.shareAtCoupling,
    CONVERTER_LIMITS.shareAtCoupling,
  );
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

/**
 * Share of its capacity at stall that a converter has at a speed ratio: all of it up to `fullUpTo`, then straight down to
 * `shareAtCoupling` at coupling; both ours, editable. One that couples before `fullUpTo` has all of it throughout.
 * Not counted: that it goes on falling beyond coupling, where speeds are tied here.
 */
export function capacityShare(converter: Converter, speedRatio: number): number {
  const { couplingRatio, fullUpTo = CONVERTER_CAPACITY.fullUpTo } = converter;
  const { shareAtCoupling = CONVERTER_CAPACITY.shareAtCoupling } = converter;
  if (couplingRatio <= fullUpTo || speedRatio <= fullUpTo) return 1;
  const along = (Math.min(speedRatio, couplingRatio) - fullUpTo) / (couplingRatio - fullUpTo);
  return 1 - (1 - shareAtCoupling) * along;
}

/** The speed ratio at which the capacity has a share, between the last that has all of it and coupling. */
export function speedRatioOfShare(converter: Converter, share: number): number {
  const { couplingRatio, fullUpTo = CONVERTER_CAPACITY.fullUpTo } = converter;
  const { shareAtCoupling = CONVERTER_CAPACITY.shareAtCoupling } = converter;
  if (couplingRatio <= fullUpTo || shareAtCoupling === 1) return couplingRatio;
  const along = Math.max(0, Math.min(1, (1 - share) / (1 - shareAtCoupling)));
  return fullUpTo + along * (couplingRatio - fullUpTo);
}

type FullTorque = (rpm: number) => number;

/** The least engine speed from `low` to `high` at which the converter takes what the engine gives; `high` where it never does. */
function balanced(low: number, high: number, takesLess: (rpm: number) => boolean): number {
  if (!takesLess(low)) return low;
  let [below, above] = [low, high];
  for (let i = 0; i < 60 && above - below > 1e-9; i++) {
    const middle = (below + above) / 2;
    if (takesLess(middle)) below = middle;
    else above = middle;
  }
  return above;
}

/** Engine speed under full torque at the moment when it couples: C·n² times the share that is left takes what the engine gives. */
export function coupledAtFull(converter: Converter, full: FullTorque, limitRpm: number): number {
  const { stallRpm, couplingRatio } = converter;
  const constant = full(stallRpm) / stallRpm ** 2;
  const share = capacityShare(converter, couplingRatio);
  return balanced(stallRpm, Math.max(stallRpm, limitRpm), (rpm) => share * constant * rpm * rpm < full(rpm) - 1e-9);
}

/** Engine speed under full torque while the converter slips, by the speed of its turbine. @param coupledRpm of {@link coupledAtFull} */
export function freeEngineRpm(converter: Converter, full: FullTorque, turbineRpm: number, coupledRpm: number): number {
  const { stallRpm } = converter;
  const constant = full(stallRpm) / stallRpm ** 2;
  return balanced(
    stallRpm,
    coupledRpm,
    (rpm) => capacityShare(converter, turbineRpm / rpm) * constant * rpm * rpm < full(rpm) - 1e-9,
  );
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
 * Impeller torque is C·f·n², C from the engine's full torque at stall, f the share of {@link capacityShare}, ours. From coupling on
 * the engine turns n_turbine/SR_c. Lock-up clutches and pump losses are not counted.
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
    rpm === 0
      ? 0
      : torqueRatioAt(converter, turning / rpm) * capacityShare(converter, turning / rpm) * constant * rpm * rpm;
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
