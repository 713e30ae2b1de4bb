import { readFileSync, readdirSync } from 'node:fs';
import { InputError } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { readLibraryFile } from '../files/library-file';
import { AXLES } from '../base/names';
import { readBuildFile, readFile } from '../files/build-file';
import { buildSchema } from './schema';
import { upgrade } from './upgrade';
import { FORMAT_VERSION } from '../base/version';

const OLD = new URL('./old/', import.meta.url);
const read = (name: string): unknown => JSON.parse(readFileSync(new URL(name, OLD), 'utf8'));

type Shown = Record<string, Record<string, { figures: Record<string, number | null>; findings: string[][] }>>;

describe('documents grow', () => {
  it('every version that there was has a kept document', () => {
    const versions = readdirSync(OLD)
      .map(Number)
      .sort((a, b) => a - b);
    expect(versions).toEqual(Array.from({ length: FORMAT_VERSION - 1 }, (_, i) => i + 1));
  });

  it('every earlier version opens and shows the same figures and findings as ever', () => {
    // Kept as they were shown last; where a law was corrected on purpose they were written anew by tools/old-figures.mjs.
    for (const version of readdirSync(OLD)) {
      const shown = read(`${version}/figures.json`) as Shown;
      expect(Object.keys(shown).length).toBeGreaterThanOrEqual(3);
      for (const [name, axles] of Object.entries(shown)) {
        const { build, ledger } = readBuildFile(read(`${version}/${name}`));
        expect(build.formatVersion).withContext(name).toBe(FORMAT_VERSION);
        for (const axle of AXLES) {
          const before = axles[axle];
          if (!before) continue;
          const derived = deriveBuild(build, ledger, { follow: axle, today: '2026-11-25' });
          const where = `${version} ${name} ${axle}`;
          for (const [id, value] of Object.entries(before.figures))
            expect(derived.figures.get(id)?.value).withContext(`${where} ${id}`).toBe(value);
          expect(derived.figures.size).toBe(Object.keys(before.figures).length);
          const now = derived.findings.map((one) => [
            one.id,
            one.verdict,
            one.say('inch').title,
            one.say('metric').detail,
          ]);
          expect([...now].sort())
            .withContext(where)
            .toEqual([...before.findings].sort());
        }
      }
    }
  });

  it('an early version 1, which lacks keys that came later, opens too', () => {
    const { build, ledger } = readBuildFile(read('1/early-drift-coupe.json'));
    expect(build.axles.rear?.unit.plate?.packs.left.gearFace).toEqual({ lined: false, condition: null });
    expect(deriveBuild(build, ledger).findings.filter(({ id }) => id.startsWith('refused'))).toEqual([]);
  });

  it('the library of every earlier version is read', () => {
    for (const version of readdirSync(OLD)) {
      const text = readFileSync(new URL(`${version}/shop-library.json`, OLD), 'utf8');
      expect(readLibraryFile(text).specs.length).toBe((JSON.parse(text) as { specs: unknown[] }).specs.length);
    }
  });

  it('version 3 says of an earlier one what nobody had said: springs in series, one coefficient, nothing asked', () => {
    const { build } = readBuildFile(read('2/kittiwake-drift-coupe.json'));
    const plate = build.axles.rear?.unit.plate;
    expect([plate?.slidingCoefficient, plate?.frictionBedded, plate?.gearGap]).toEqual([null, false, null]);
    expect(build.axles.rear?.identity?.sets.every(({ welded }) => !welded)).toBeTrue();
    expect(build.brief.unitWeights).toBeNull();
  });

  it('version 4 says of an earlier one: no set-up begun, an empty sheet, drawers for packs, no practice', () => {
    for (const version of ['1', '2', '3']) {
      const { build } = readBuildFile(read(`${version}/kittiwake-drift-coupe.json`));
      expect(build.practice).withContext(version).toBeNull();
      expect(build.axles.rear?.setup).withContext(version).toBeNull();
      const said = Object.values(build.axles.rear?.identity?.sheet ?? {}).filter((value) => value !== null);
      expect(said).withContext(version).toEqual([]);
      const { specs } = readLibraryFile(readFileSync(new URL(`${version}/shop-library.json`, OLD), 'utf8'));
      for (const { spec } of specs) if (spec.kind === 'shims') expect(spec.seat).withContext(version).toBe('pack');
    }
  });

  it('version 9 says of an earlier one: no fact but the gearbox that was worked on, rings after a dry trial', () => {
    const old = read('8/kittiwake-circuit-coupe.json') as { build: { axles: { rear: { work: { box: string } } } } };
    const work = () => readBuildFile(old).build.axles.rear?.work;
    expect(work()?.facts).toEqual({});
    expect(work()?.schools.lockerRings).toBe('after-dry-trial');
    old.build.axles.rear.work.box = 'synchro';
    expect(work()?.facts).toEqual({ box: 'synchro' });
    expect(work()).not.toEqual(jasmine.objectContaining({ box: 'synchro' }));
  });

  it('version 8 says of an earlier one: the largest shock of its joints for all links, solid shafts, read nowhere', () => {
    const before = read('7/dunnock-rally-saloon.json') as {
      build: { axles: Record<string, Record<string, never> | null> };
    };
    const { build } = readBuildFile(before);
    const shocks = Object.values(before.build.axles).flatMap((axle) => {
      const joint = axle?.['joint'] as { shock: { value: number } } | null | undefined;
      return joint ? [joint.shock.value] : [];
    });
    expect(shocks.length).toBeGreaterThan(0);
    expect(build.road.shock.value).toBe(Math.max(...shocks));
    const rear = build.axles.rear;
    expect(rear?.joint?.torque?.where ?? '').toBe('');
    expect([rear?.shafts?.left.angle, rear?.shafts?.left.bore, rear?.shafts?.pinion]).toEqual([30, null, null]);
    expect(build.gearbox.from).toBeNull();
    expect(rear?.identity?.sheet.pinionNutPitch).toBeNull();
    // A converter before: its capacity as it is told to anew.
    const coupled = readBuildFile(read('6/bracken-raid-truck.json')).build.coupling;
    expect(coupled.kind === 'converter' ? [coupled.fullUpTo.value, coupled.shareAtCoupling.value] : []).toEqual([
      0.7, 50,
    ]);
  });

  it('version 6 says of an earlier one: no work, joint or shafts said, nobody’s, promised for no day', () => {
    for (const version of ['1', '2', '3', '4', '5']) {
      const { build } = readBuildFile(read(`${version}/kittiwake-drift-coupe.json`));
      expect([build.customer, build.promised, build.worker]).withContext(version).toEqual([null, null, '']);
      const axle = build.axles.rear;
      expect([axle?.work, axle?.joint, axle?.shafts]).withContext(version).toEqual([null, null, null]);
      expect(axle?.identity?.retention).withContext(version).toBeNull();
    }
  });

  it('version 4 calls threaded adjusters as everything else does', () => {
    const old = read('3/kittiwake-drift-coupe.json') as {
      build: { axles: { rear: { identity: { construction: object } } } };
    };
    old.build.axles.rear.identity.construction = { value: 'integral-threaded', origin: 'measured' };
    const { build } = readBuildFile(old);
    expect(build.axles.rear?.identity?.construction).toEqual({ value: 'integral-adjusters', origin: 'measured' });
  });

  it('what is read is kept as the new version and comes back the same', () => {
    for (const name of readdirSync(new URL('1/', OLD)).filter((one) => /coupe|truck|hatch|climb/.test(one))) {
      const file = readBuildFile(read(`1/${name}`));
      expect(file.formatVersion).toBe(FORMAT_VERSION);
      expect(readBuildFile(JSON.parse(JSON.stringify(file))))
        .withContext(name)
        .toEqual(file);
    }
  });

  it('an upgrade leaves what it was given as it was', () => {
    const old = read('1/kittiwake-drift-coupe.json') as { build: unknown };
    const before = structuredClone(old);
    buildSchema.parse(upgrade('build', 1, old.build));
    expect(old).toEqual(before as never);
  });

  it('a later version and a version that is none are refused by name', () => {
    const file = { ...(read('1/wren-hill-climb.json') as object), formatVersion: FORMAT_VERSION + 1 };
    const cases: [unknown, RegExp][] = [
      [file, /later Hot Spline/],
      [{ ...file, formatVersion: 0 }, /whole number/],
      [{ ...file, formatVersion: '1' }, /whole number/],
      [{ format: 'hot-spline/shop-file', formatVersion: FORMAT_VERSION + 1, builds: [] }, /later Hot Spline/],
    ];
    for (const [input, says] of cases) {
      expect(() => readFile(input)).toThrowMatching(
        (error) => error instanceof InputError && error.field === 'formatVersion' && says.test(error.message),
      );
    }
  });

  it('a build inside a file that is older than the file is upgraded by its own version', () => {
    const old = read('1/plover-electric-hatch.json') as { build: unknown };
    const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build: old.build, ledger: [] };
    expect(readBuildFile(file).build.startPoint.gear).toBe(0);
  });
});
