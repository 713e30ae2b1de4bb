import { entryBase } from '@hot-spline/core/page';
import { AXLES, SIDES, type AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { Figure } from '../frame/figure';
import type { Place, StationKind } from '../frame/finding';
import { jointFigures } from '../joint/ids';
import { gearRatios, type AxleGearingState } from '../gearing/axle-gearing';
import { lowRange } from '../gearing/match';
import { ringEnds, ringTorque } from '../road/ring-torque';
import { torqueCurve } from '../road/torque-curve';
import { shaftFigures } from './ids';

/** One link of the driveline that torque has to pass, and how often it holds it. */
export interface Link {
  readonly name: string;
  readonly margin: number;
  readonly station: StationKind;
  readonly place: Place;
}

/**
 * What holds torque in the driveline of an axle, the weakest first: clutch, gear set, ring joint, shafts, as far as they are
 * described. All stand on one footing: what a link holds over the most that reaches it, the less of engine × ratios × efficiency ×
 * shock and the grip at its wheels.
 */
export function weakestLinks(
  build: Build,
  derived: {
    readonly figures: ReadonlyMap<string, Figure>;
    readonly gearing: Partial<Record<AxleName, AxleGearingState>>;
  },
  axle: AxleName,
): readonly Link[] {
  const links: Link[] = [];
  const value = (id: string): number | null => derived.figures.get(id)?.value ?? null;
  const [own, spec] = [derived.gearing[axle], build.axles[axle]];
  const { coupling } = build;
  if (
    own &&
    coupling.kind === 'clutch' &&
    !build.assumed.some((path) => path.startsWith('coupling') || path.startsWith('engine'))
  ) {
    // Both axles pull at one clutch: what their tyres hold adds up.
    const ratios = (gearRatios(build)[0] ?? 1) * lowRange(build).ratio;
    const brought = Math.max(...torqueCurve(build).map(({ torqueNm }) => torqueNm)) * entryBase(build.road.shock);
    const held = AXLES.reduce((sum, name) => {
      const of = derived.gearing[name];
      return of ? sum + ringEnds(build, name, of).tyresNm / of.finalRatio : sum;
    }, 0);
    links.push({
      name: 'Clutch',
      margin:
        entryBase(coupling.capacity) / Math.min(brought, held / ratios / (entryBase(build.road.efficiency) / 100)),
      station: 'coupling',
      place: { sheet: 'engine', field: 'clutch-capacity' },
    });
  }
  const set = spec?.identity?.sets.find(
    ({ ring, pinion }) => ring === spec.finalDrive.ring && pinion === spec.finalDrive.pinion,
  );
  if (own && set?.torqueLimit)
    links.push({
      name: 'Ring and pinion',
      margin: entryBase(set.torqueLimit) / ringTorque(build, axle, own),
      station: 'final',
      place: { sheet: 'brief', tab: 'axle', axle, field: `axle-spec-${axle}` },
    });
  const joint = value(jointFigures.margin(axle));
  if (joint !== null)
    links.push({
      name: 'Ring joint',
      margin: joint,
      station: 'final',
      place: { sheet: 'joint', tab: 'bolts', axle, field: `joint-circle-${axle}` },
    });
  for (const [name, id, station, field] of [
    ['Prop shaft tube', shaftFigures.tube(axle), 'prop', 'prop-wall'],
    ['Prop shaft joint', shaftFigures.joint(axle), 'prop', 'prop-joint'],
    ['Pinion', shaftFigures.pinion(axle), 'final', 'splines-pinion'],
  ] as const) {
    const margin = value(id);
    if (margin !== null)
      links.push({ name, margin, station, place: { sheet: 'shafts', axle, field: `${field}-${axle}` } });
  }
  for (const side of SIDES) {
    const margin = value(shaftFigures.margin(axle, side));
    if (margin !== null)
      links.push({
        name: side === 'left' ? 'Left shaft' : 'Right shaft',
        margin,
        station: 'shafts',
        place: { sheet: 'shafts', axle, field: `splines-${side}-${axle}` },
      });
  }
  return links.sort((a, b) => a.margin - b.margin);
}
