import { requireNumber } from '../base/errors';
import { engineTorque } from './engine-torque';
import { GRAVITY } from './limits';
import type { Vehicle } from './vehicle';

/** How much more than the steady torque can arrive for a moment, where nobody has said: a guard of ours. */
export const SHOCK = 1.5;

/** What can arrive at the ring gear from each end, N·m; the less of both does. */
export interface RingBounds {
  /** Engine × lowest gear × low range × final × efficiency × shock; null for an engine of constant power, which has no most. */
  readonly engineNm: number | null;
  /** What the tyres of the axle hold. */
  readonly tyresNm: number;
}

/**
 * Most torque at the ring gear in N·m, the same footing for every link of the driveline: the engine's in first and low range with
 * its losses and its shock, or what the tyres of one axle hold, whichever is less. The axle is taken to carry at most half as much
 * again as its standing share: a guard band of ours.
 * Not counted: that a clutch slips first; wheels that hop.
 * @param shock how much more than steady arrives for a moment
 * @throws InputError naming the field
 */
export function ringBounds(
  vehicle: Vehicle,
  finalRatio: number,
  lowRange = vehicle.rangeRatio ?? 1,
  shock = 1,
): RingBounds {
  const hub = vehicle.hubRatio ?? 1;
  const more = requireNumber('shock', shock, { min: 1, max: 5 });
  // No axle carries more than the whole car.
  const load = Math.min(1, 1.5 * vehicle.driven.staticShare);
  const tyres = (vehicle.tyre.grip * vehicle.massKg * GRAVITY * load * vehicle.tyre.rollingRadiusMm) / 1000 / hub;
  if (!('torqueCurve' in vehicle.engine)) return { engineNm: null, tyresNm: tyres };
  const { torqueCurve } = vehicle.engine;
  const most = Math.max(...torqueCurve.map((point) => point.torqueNm));
  const { converter } = vehicle;
  const launched = converter ? engineTorque(torqueCurve, converter.stallRpm) * converter.torqueRatio : 0;
  const ratios = (vehicle.gears[0] ?? 1) * lowRange * finalRatio;
  return { engineNm: Math.max(most, launched) * ratios * vehicle.driveline.efficiency * more, tyresNm: tyres };
}

/** The less of both ends, N·m. @throws InputError naming the field */
export function mostRingTorque(...of: Parameters<typeof ringBounds>): number {
  const { engineNm, tyresNm } = ringBounds(...of);
  return engineNm === null ? tyresNm : Math.min(engineNm, tyresNm);
}
