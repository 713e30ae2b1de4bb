import { FORMAT_VERSION } from '../base/version';
import { InputError, entryOf } from '@hot-spline/core';
import { keptFiles, driftBuild, reading } from '../testing/builds';
import { readBuildFile, readFile } from './build-file';

function refusalOf(change: (file: Record<string, never>) => void): InputError {
  const file = driftBuild() as unknown as Record<string, never>;
  change(file);
  try {
    readBuildFile(JSON.parse(JSON.stringify(file)));
  } catch (error) {
    if (error instanceof InputError) return error;
    throw error;
  }
  throw new Error('the file was taken');
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- files are broken on purpose below
const loose = (file: unknown): any => file;

describe('build file', () => {
  it('demo files are read and come back unchanged', () => {
    const files = keptFiles();
    expect(Object.keys(files).length).toBe(5);
    for (const file of Object.values(files)) {
      expect(readBuildFile(JSON.parse(JSON.stringify(file)))).toEqual(file);
    }
  });

  const broken: [string, (file: Record<string, never>) => void, string][] = [
    ['a missing key', (f) => delete loose(f).build.gearbox, 'build.gearbox'],
    ['an extra key', (f) => (loose(f).build.colour = 'red'), 'build.colour'],
    [
      'an extra key deep down',
      (f) => (loose(f).build.axles.rear.unit.plate.packs.left.members[0].weight = 1),
      'build.axles.rear.unit.plate.packs.left.members[0].weight',
    ],
    [
      'a bad tyre',
      (f) => (loose(f).build.axles.rear.tyre.designation = '245/40Z'),
      'build.axles.rear.tyre.designation',
    ],
    ['text for a number', (f) => (loose(f).build.engine.limitRpm = 'fast'), 'build.engine.limitRpm'],
    [
      'a negative thickness',
      (f) => (loose(f).build.axles.rear.unit.plate.targetHeight.value = -1),
      'build.axles.rear.unit.plate.targetHeight.value',
    ],
    [
      'a value that is not what was typed',
      (f) => (loose(f).build.axles.rear.unit.plate.targetHeight.value = 0.7),
      'build.axles.rear.unit.plate.targetHeight.typed',
    ],
    [
      'a torque in a length',
      (f) => (loose(f).build.axles.rear.unit.plate.targetHeight.unit = 'N·m'),
      'build.axles.rear.unit.plate.targetHeight.unit',
    ],
    [
      'swapped teeth',
      (f) => (loose(f).build.axles.rear.finalDrive = { ring: 10, pinion: 43 }),
      'build.axles.rear.finalDrive.ring',
    ],
    [
      '10 000 plates',
      (f) =>
        (loose(f).build.axles.rear.unit.plate.packs.left.members = Array(10000).fill(
          loose(f).build.axles.rear.unit.plate.packs.left.members[0],
        )),
      'build.axles.rear.unit.plate.packs.left.members',
    ],
    ['descending rpm', (f) => loose(f).build.engine.torqueCurve.reverse(), 'build.engine.torqueCurve'],
    ['a gear that is not there', (f) => (loose(f).build.startPoint.gear = 9), 'build.startPoint.gear'],
    ['an axle that is driven but missing', (f) => (loose(f).build.driven = 'both'), 'build.axles.front'],
    [
      'a bore above the outside',
      (f) => (loose(f).build.axles.rear.unit.plate.frictionInnerDiameter = { typed: '5 in', value: 5, unit: 'in' }),
      'build.axles.rear.unit.plate.frictionInnerDiameter',
    ],
    ['a later format', (f) => (loose(f).formatVersion = FORMAT_VERSION + 1), 'formatVersion'],
    [
      'a void of nothing',
      (f) => (loose(f).ledger[14].voids = '20000000-0000-4000-8000-000000000000'),
      'ledger[14].voids',
    ],
    ['one id twice', (f) => (loose(f).ledger[1].id = loose(f).ledger[0].id), 'ledger[1].id'],
    [
      'a breakaway without its hold',
      (f) => (loose(f).ledger[0].subject = { what: 'breakaway', axle: 'rear' }),
      'ledger[0].subject.hold',
    ],
  ];
  for (const [what, change, field] of broken) {
    it(`refuses ${what} and names ${field}`, () => {
      const error = refusalOf(change);
      expect(error.field).toBe(field);
      expect(error.message.startsWith(field)).withContext(error.message).toBeTrue();
    });
  }

  it('refuses what is no object at all', () => {
    for (const bad of [null, 7, 'x', [], {}]) expect(() => readBuildFile(bad)).toThrowError(InputError);
  });

  it('reads a shop file as its builds', () => {
    const builds = Object.values(keptFiles());
    expect(readFile({ format: 'hot-spline/shop-file', formatVersion: 2, builds })).toEqual({ builds, library: [] });
  });

  it('a breakaway reading takes torque and no length', () => {
    const file = driftBuild();
    const subject = { what: 'breakaway' as const, axle: 'rear' as const, hold: 'bench' as const };
    file.ledger.push(reading(subject, entryOf(40, 'N·m')));
    expect(readBuildFile(file).ledger.length).toBe(file.ledger.length);
    file.ledger.push(reading(subject, entryOf(2, 'mm')));
    expect(() => readBuildFile(file)).toThrowError(/value\.entries\[0\]\.unit/);
  });
});
