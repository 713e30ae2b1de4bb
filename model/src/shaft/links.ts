import { entryBase } from '@hot-spline/core';
import { SIDES, type AxleName } from '../document/names';
import type { Build } from '../document/schema';
import type { Derived } from '../derive';
import type { Place, StationKind } from '../engine/finding';
import { jointFigures } from '../joint/ids';
import { ringTorque } from '../road/ring-torque';
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
 * described. Each margin is what it holds over the most that reaches it; the ring joint counts shock, the others do not.
 */
export function weakestLinks(
  build: Build,
  derived: Pick<Derived, 'figures' | 'gearing'>,
  axle: AxleName,
): readonly Link[] {
  const links: Link[] = [];
  const value = (id: string): number | null => derived.figures.get(id)?.value ?? null;
  const { coupling } = build;
  if (
    coupling.kind === 'clutch' &&
    !build.assumed.some((path) => path.startsWith('coupling') || path.startsWith('engine'))
  )
    links.push({
      name: 'Clutch',
      margin: entryBase(coupling.capacity) / Math.max(...torqueCurve(build).map(({ torqueNm }) => torqueNm)),
      station: 'coupling',
      place: { sheet: 'engine', field: 'clutch-capacity' },
    });
  const [own, spec] = [derived.gearing[axle], build.axles[axle]];
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
