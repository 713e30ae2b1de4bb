import { VEHICLE_LIMITS } from './limits';
import { requireNumber } from '../base/errors';
import { KG_PER_LB, MPS_PER_MPH, WATT_PER_HP } from '../units/quantities';

/**
 * Quarter mile by weight and peak power alone: 5.825·(lb/hp)^⅓ s, 234·(hp/lb)^⅓ mph [std: Hale's fit, from memory].
 * A guard band for a simulated run, never a prediction.
 * Not counted: gearing, grip, drag: it is a guard band and no prediction.
 * @throws InputError naming the field
 */
export function haleFit(massKg: number, peakPowerW: number): { timeS: number; speedMps: number } {
  const mass = requireNumber('massKg', massKg, VEHICLE_LIMITS.massKg) / KG_PER_LB;
  const power = requireNumber('peakPowerW', peakPowerW, VEHICLE_LIMITS.constantPowerW) / WATT_PER_HP;
  return { timeS: 5.825 * Math.cbrt(mass / power), speedMps: 234 * Math.cbrt(power / mass) * MPS_PER_MPH };
}
