import { newAxleSpec } from '../library/new-spec';
import type { AxleSpec, Construction } from '../library/schema';
import type { Use } from '../base/names';
import { newAxle, newBuild, newConverter } from './new-build';
import type { Build } from '../frame/document';

/** What nobody has said when a build begins, by the paths of the document. */
const ASSUMED_AT_FIRST = [
  'engine.torqueCurve',
  'engine.limitRpm',
  'engine.launchRpm',
  'coupling',
  'gearbox',
  'cruiseSpeed',
  'brief.distance',
  'brief.window',
  'brief.crawlRatio',
  'road.mass',
  'road.rearShare',
  'road.cgHeight',
  'road.wheelbase',
  'road.track',
  'road.dragArea',
  'road.rollingCoefficient',
  'road.grip',
  'road.efficiency',
] as const;
const ASSUMED_OF_AXLE = ['tyre', 'finalDrive', 'unit'] as const;

/** What drives it, as far as it is asked first. */
export const POWERS = ['manual', 'automatic', 'electric'] as const;

/** What a new build is asked first. */
export interface StartAnswers {
  readonly name: string;
  readonly vehicle: string;
  readonly use: Use;
  readonly driven: Build['driven'];
  readonly power: (typeof POWERS)[number];
  /** An axle of the library, or its construction alone, or nothing yet. */
  readonly axle: AxleSpec | Construction | null;
}

/** An axle of which only the construction is known. */

const GOAL_OF: Partial<Record<Use, Build['brief']['goal']>> = { rock: 'crawl', raid: 'cruise', street: 'cruise' };

/**
 * A build from the first answers: everything else is a stand-in of ours and listed as assumed.
 * @param constructionName what the construction is called, for an axle of which no more is known
 */
export function startBuild(answers: StartAnswers, constructionName = ''): Build {
  const { name, vehicle, use, driven, power, axle } = answers;
  const build = newBuild(name);
  const identity = typeof axle === 'string' ? newAxleSpec(constructionName || axle, axle, 'measured') : axle;
  const one = { ...newAxle(), identity };
  const axles = {
    rear: driven === 'front' ? null : one,
    front: driven === 'rear' ? null : { ...newAxle(), ...(driven === 'front' ? { identity } : {}) },
  };
  const names = driven === 'both' ? (['rear', 'front'] as const) : [driven];
  const goal = GOAL_OF[use] ?? 'time';
  const started: Build = {
    ...build,
    vehicle,
    use,
    driven,
    axles,
    brief: { ...build.brief, goal },
    assumed: [...ASSUMED_AT_FIRST, ...names.flatMap((on) => ASSUMED_OF_AXLE.map((part) => `axles.${on}.${part}`))],
  };
  if (power === 'automatic')
    return { ...started, coupling: newConverter(), gearbox: { ...started.gearbox, kind: 'automatic' } };
  if (power === 'electric')
    return {
      ...started,
      engine: { ...started.engine, kind: 'electric' },
      coupling: { kind: 'direct' },
      gearbox: { ...started.gearbox, kind: 'fixed', gears: started.gearbox.gears.slice(0, 1) },
      startPoint: { ...started.startPoint, gear: 0 },
      assumed: started.assumed.filter((path) => path !== 'coupling' && path !== 'engine.launchRpm'),
    };
  return started;
}

/** A build like an earlier one: its specification under another name, nothing measured, nothing stamped. */
export function startLike(earlier: Build, name: string): Build {
  const clean = (axle: Build['axles']['rear']): Build['axles']['rear'] =>
    axle && { ...axle, matchNumbers: { ring: '', pinion: '' } };
  return { ...earlier, name, axles: { rear: clean(earlier.axles.rear), front: clean(earlier.axles.front) } };
}
