import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { converterPoint, type ConverterPoint } from './converter';
import { engineTorque } from './engine-torque';
import { readyCar, type Vehicle } from './vehicle';
import type { GearState } from './gear-state';

export interface Climb {
  /** 0 for first. */
  readonly gear: number;
  readonly speedMps: number;
  readonly gradePercent: number;
}

export interface ConverterHeat extends ConverterPoint {
  /** Thrust that holds the speed, N. */
  readonly thrustN: number;
  /** Whether the engine's full torque at that speed is enough for it. */
  readonly holds: boolean;
}

/**
 * Heat in the torque converter on a climb at a steady speed: from the longitudinal balance at that slope and speed, T_t =
 * F·r/(i·η) at the turbine, then P_loss = P_engine·(1 − speed ratio × torque ratio) [exact]; how the converter takes torque
 * see {@link converterPoint}. Not counted: lock-up clutch, heat of gears and pump, what the cooler takes away.
 * @throws InputError naming the field; on `gradePercent` where the car would roll by itself
 */
export function converterHeat(vehicle: Vehicle, { gear, speedMps, gradePercent }: Climb): ConverterHeat {
  const { converter, engine } = vehicle;
  if (!converter) throw new InputError('converter', 'converter is missing.', 'stallRpm, torqueRatio, couplingRatio');
  if (!('torqueCurve' in engine))
    throw new InputError('engine', 'engine needs a torque curve here.', 'a torque curve and a limiter');
  const car = readyCar({ ...vehicle, gradePercent });
  const at = requireNumber('gear', gear, { min: 0, max: car.gears.length - 1, integer: true });
  const speed = requireNumber('speedMps', speedMps, { min: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' });
  const thrustN = car.resistance(speed);
  if (thrustN < 0)
    throw new InputError('gradePercent', 'gradePercent: the car rolls down there by itself.', 'a steeper climb');
  const state = car.gears[at] as GearState;
  const turbineRpm = state.kinematicRpm(speed);
  const turbineNm = thrustN / state.thrustPerNm(speed);
  const stallNm = engineTorque(engine.torqueCurve, converter.stallRpm);
  const point = converterPoint(converter, stallNm, turbineRpm, turbineNm);
  const full = point.engineRpm > engine.limitRpm ? 0 : engineTorque(engine.torqueCurve, point.engineRpm);
  return { ...point, thrustN, holds: point.impellerNm <= full };
}
