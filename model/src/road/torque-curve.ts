import { entryBase, enginePower, type TorquePoint } from '@hot-spline/core/page';
import type { Build } from '../frame/document';

/** The torque curve in base units. */
export function torqueCurve(build: Build): TorquePoint[] {
  return build.engine.torqueCurve.map(({ rpm, torque }) => ({ rpm, torqueNm: entryBase(torque) }));
}

/** Peak power at the points of the curve, W, and where. */
export function peakPower(curve: readonly TorquePoint[]): { powerW: number; rpm: number } {
  return curve.reduce(
    (best, { rpm, torqueNm }) => {
      const powerW = enginePower(torqueNm, rpm);
      return powerW > best.powerW ? { powerW, rpm } : best;
    },
    { powerW: 0, rpm: 0 },
  );
}
