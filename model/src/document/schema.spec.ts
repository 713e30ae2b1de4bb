import { InputError, entryOf } from '@hot-spline/core';
import type * as z from 'zod';
import { parseOrRefuse } from '../base/refuse';
import type { Build } from '../frame/document';
import { keptFiles, driftBuild } from '../testing/builds';
import { buildSchema } from './schema';
import { FORMAT_VERSION } from '../base/version';

type Path = readonly (string | number)[];

/** A build with one value put in, as a file from outside might have it. */
function withAt(build: object, path: Path, value: unknown): unknown {
  const copy = structuredClone(build) as Record<string, unknown>;
  let at = copy;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
  const last = path.at(-1) as string;
  if (value === undefined) delete at[last];
  else at[last] = value;
  return copy;
}

function refused(build: unknown): InputError {
  try {
    parseOrRefuse(buildSchema, build, 'build');
  } catch (error) {
    if (error instanceof InputError) return error;
    throw error;
  }
  throw new Error('it was taken');
}

const name = (path: Path): string =>
  path.map((key, i) => (typeof key === 'number' ? `[${key}]` : i === 0 ? key : `.${key}`)).join('');

describe('a build', () => {
  it('what parses is what capabilities see, in both directions', () => {
    // Does not compile where a part is missing in the schema or in what a capability declares of it.
    const parsed: Build = buildSchema.parse(structuredClone(driftBuild().build));
    const back: z.infer<typeof buildSchema> = parsed;
    expect(Object.keys(back).sort()).toEqual(Object.keys(buildSchema.shape).sort());
  });

  const drift = driftBuild().build;
  const truck = keptFiles()['bracken-raid-truck.json']?.build ?? drift;
  const plate: Path = ['axles', 'rear', 'unit', 'plate'];
  const leftMembers: Path = [...plate, 'packs', 'left', 'members'];

  it('of the demo is taken as it is', () => {
    for (const [file, { build }] of Object.entries(keptFiles()))
      expect(parseOrRefuse(buildSchema, build, 'build'))
        .withContext(file)
        .toEqual(build);
  });

  /** Where, what is put there, and what the sentence says. */
  const cases: [Path, unknown, RegExp][] = [
    [['format'], 'other/build', /must be/],
    [['formatVersion'], FORMAT_VERSION + 1, /must be/],
    [['name'], '', /at least 1/],
    [['name'], '   ', /at least 1/],
    [['name'], 'x'.repeat(81), /at most 80/],
    [['vehicle'], 'x'.repeat(121), /at most 120/],
    [['notes'], 'x'.repeat(4001), /at most 4000/],
    [['use'], 'parade', /one of street/],
    [['use'], undefined, /is missing/],
    [['driven'], 'left', /one of rear, front, both/],
    [['engine', 'kind'], 'steam', /one of combustion, electric/],
    [['engine', 'limitRpm'], 0, /at least 1/],
    [['engine', 'limitRpm'], 'fast', /must be a number/],
    [['engine', 'launchRpm'], -1, /at least 0/],
    [['engine', 'torqueCurve'], [], /at least 2 long/],
    [['engine', 'torqueCurve', 1, 'rpm'], 0, /ascend without repeats/],
    [['engine', 'torqueCurve', 0, 'torque'], entryOf(-5, 'N·m'), /from 0 to 20000/],
    [['engine', 'torqueCurve', 0, 'torque'], entryOf(200, 'mm'), /torque/],
    [['coupling'], { kind: 'belt' }, /./],
    [['coupling'], { kind: 'clutch', capacity: entryOf(0, 'N·m') }, /more than 0/],
    [['gearbox', 'kind'], 'variator', /one of synchro/],
    [['gearbox', 'gears'], [], /at least 1 long/],
    [['gearbox', 'gears', 0, 'ratio'], entryOf(0, ''), /more than 0/],
    [['gearbox', 'gears', 0, 'name'], '', /at least 1/],
    [['gearbox', 'shiftTime'], entryOf(-0.1, 's'), /from 0 to 5 s/],
    [['cruiseSpeed'], entryOf(0, 'mph'), /more than 0 up to 555\.556 m\/s/],
    [['cruiseSpeed'], entryOf(60, 'kg'), /speed/],
    [['candidates'], Array.from({ length: 5 }, () => ({ ring: 41, pinion: 10 })), /at most 4 long/],
    [['candidates'], [{ ring: 10, pinion: 41 }], /as many teeth/],
    [['axles', 'rear', 'finalDrive', 'pinion'], 2.5, /whole number/],
    [['axles', 'rear', 'hubRatio'], entryOf(1e6, ''), /up to 200/],
    [['axles', 'rear', 'tyre', 'designation'], '245/40Z', /245\/40Z/],
    [['axles', 'rear', 'tyre', 'wear'], entryOf(60, 'mm'), /from 0 to 50 mm/],
    [['axles', 'rear', 'tyre', 'measured'], { kind: 'guess', value: entryOf(2000, 'mm') }, /./],
    [['axles', 'rear', 'matchNumbers', 'ring'], 'x'.repeat(31), /at most 30/],
    [['axles', 'rear', 'unit', 'type'], 'viscous', /one of plate, side-gear-thrust, cone, helical/],
    [plate, null, /is needed by a unit of type plate/],
    [[...plate, 'action'], 'three-way', /one of two-way/],
    [[...plate, 'driveRamp'], entryOf(91, '°'), /from 0 to 90/],
    [[...plate, 'frictionCoefficient'], entryOf(0, ''), /more than 0/],
    [[...plate, 'frictionInnerDiameter'], entryOf(400, 'mm'), /below the outer diameter/],
    [[...plate, 'wearModel'], 'worn', /one of uniform-wear/],
    [[...plate, 'targetHeight'], entryOf(-1, 'mm'), /more than 0/],
    [[...leftMembers, 0, 'thickness'], entryOf(0, 'mm'), /more than 0/],
    [[...leftMembers, 0, 'thickness'], { typed: '2 mm', value: 3, unit: 'mm' }, /2 mm/],
    [[...leftMembers, 0, 'id'], 'a b', /letters, digits/],
    [[...leftMembers, 0, 'kind'], 'washer', /./],
    [['brief', 'goal'], 'glory', /one of time, finish, cruise, crawl/],
    [['brief', 'distance'], entryOf(0, 'ft'), /more than 0/],
    [['brief', 'window'], { lowRpm: 6000, highRpm: 5000 }, /above lowRpm/],
    [['brief', 'complaints'], ['smells'], /one of runs-hot/],
    [['brief', 'plannedTyre'], 'round', /round/],
    [['road', 'mass'], entryOf(0, 'kg'), /more than 0/],
    [['road', 'rearShare'], entryOf(0, '%'), /from 1 to 100/],
    [['road', 'efficiency'], entryOf(101, '%'), /from 1 to 100/],
    [['road', 'grip'], entryOf(0, ''), /more than 0/],
    [['road', 'grade'], entryOf(-60, '%'), /from -50 to 100/],
    [['shelf', 'steps'], 'growing', /one of shrinking, descending/],
    [['shelf', 'floorRpm'], -1, /at least 0/],
    [['points'], [{ id: 'a', name: '', gear: 0, range: 0, rpm: 2000 }], /at least 1/],
    [['startPoint', 'gear'], 11, /is not one of the gears/],
    [['startPoint', 'range'], 3, /is not one of the ranges/],
    [['startPoint', 'rpm'], 1e308, /at most/],
  ];
  for (const [path, value, says] of cases) {
    it(`with ${name(path)} = ${(JSON.stringify(value) ?? 'nothing').slice(0, 50)} is refused by that name`, () => {
      const error = refused(withAt(drift, path, value));
      expect(error.field).toContain(name(path.slice(0, 2)));
      expect(error.field.startsWith(name(path)) || name(path).startsWith(error.field))
        .withContext(error.field)
        .toBeTrue();
      expect(error.message).toMatch(says);
      expect(error.allowed).not.toBe('');
    });
  }

  it('keeps its ids apart: two members, two points', () => {
    const members = driftBuild().build.axles.rear?.unit.plate?.packs.left.members ?? [];
    const doubled = [...members, ...members.slice(0, 1)];
    expect(refused(withAt(drift, leftMembers, doubled)).message).toContain('two members carry one id');
    const point = { id: 'p', name: 'Cruise', gear: 0, range: 0, rpm: 2000 };
    expect(refused(withAt(drift, ['points'], [point, point])).message).toContain('two points carry one id');
  });

  it('has every axle that it drives', () => {
    const error = refused(withAt(truck, ['axles', 'front'], null));
    expect([error.field, error.message]).toEqual(['axles.front', jasmine.stringContaining('driven but not described')]);
    expect(refused(withAt(drift, ['axles', 'rear'], null)).field).toBe('axles.rear');
    // an axle that is not driven may be left out
    expect(() => parseOrRefuse(buildSchema, withAt(drift, ['axles', 'front'], null), 'build')).not.toThrow();
  });

  it('refuses a course whose corners cannot be', () => {
    const corner = { atM: 100, lengthM: 10, speedMps: 20, brakingMps2: 9 };
    const course = {
      name: 'Hill',
      lengthM: 500,
      startMps: 0,
      fastestMps: null,
      slopes: [],
      log: null,
      corners: [corner],
    };
    expect(() => parseOrRefuse(buildSchema, withAt(drift, ['course'], course), 'build')).not.toThrow();
    for (const [key, value] of [
      ['speedMps', 0],
      ['brakingMps2', 0],
      ['atM', -1],
      ['lengthM', Number.NaN],
    ] as const) {
      const bad = { ...course, corners: [{ ...corner, [key]: value }] };
      expect(refused(withAt(drift, ['course'], bad)).field).toBe(`course.corners[0].${key}`);
    }
  });

  it('refuses keys that it does not know, at any depth', () => {
    expect(refused({ ...drift, colour: 'red' }).message).toContain('colour is not a known key');
    const deep = refused(withAt(drift, [...leftMembers, 0, 'colour'], 'blue'));
    expect(deep.message).toContain('colour is not a known key');
    expect(deep.field).toContain('axles.rear.unit.plate.packs.left.members[0]');
  });
});
