import { biasRatio, entryOf, wrenchReading } from '@hot-spline/core';
import type { Build } from '../document/schema';
import { newAxle, newBuild } from '../start/new-build';
import { openUnit, unitAs } from '../unit/new-unit';
import { buildSchema } from '../document/schema';
import { deriveBuild, readingsInForce, type Derived } from './derive';
import { lockCurve } from '../unit/derive';
import { voidedBy } from '../frame/readings';
import { keptFiles, driftBuild, reading, testId, withPlate } from '../testing/builds';

const value = (derived: Derived, id: string): number => derived.figures.get(id)?.value ?? Number.NaN;
const finding = (derived: Derived, id: string) => derived.findings.find((f) => f.id === id);
const rearPlate = (build: Build) => {
  const plate = build.axles.rear?.unit.plate;
  if (!plate) throw new Error('no plate');
  return plate;
};

describe('deriving a build', () => {
  it('works out every demo build without a refusal, and every figure explains its own value', () => {
    for (const [name, { build, ledger }] of Object.entries(keptFiles())) {
      for (const follow of ['rear', 'front'] as const) {
        const derived = deriveBuild(build, ledger, { follow });
        expect(derived.findings.filter((f) => f.id.startsWith('refused')))
          .withContext(name)
          .toEqual([]);
        for (const figure of derived.figures.values()) {
          if (figure.value === null || !figure.explain) continue;
          const shown = figure.explain().result.value as number;
          expect(Math.abs(shown - figure.value))
            .withContext(`${name} ${figure.id}`)
            .toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(shown)));
        }
        for (const f of derived.findings) {
          for (const system of ['inch', 'metric'] as const) {
            const { title, detail } = f.say(system);
            expect(`${title} ${detail}`)
              .withContext(f.id)
              .not.toMatch(/NaN|undefined|Infinity|null/);
          }
          for (const id of f.figures) expect(derived.figures.has(id)).withContext(`${f.id} rests on ${id}`).toBeTrue();
        }
      }
    }
  });

  it('a new build is valid and derives', () => {
    const build = newBuild('Test');
    expect(buildSchema.parse(build)).toEqual(build);
    build.axles.rear = { ...newAxle(), unit: unitAs(openUnit(), 'plate') };
    const derived = deriveBuild(buildSchema.parse(build), []);
    expect(derived.findings.filter((f) => f.verdict === 'stop')).toEqual([]);
    expect(value(derived, 'pack.rear.wrench.other-wheel-held')).toBeGreaterThan(5);
  });

  it('a stack rests on what was measured once every piece of it is, and on what was typed before', () => {
    const { build, ledger } = driftBuild();
    const rests = (entries: typeof ledger) => deriveBuild(build, entries).figures.get('pack.rear.left.height')?.rests;
    expect(rests(ledger)).toBe('measured');
    expect(rests(ledger.slice(1))).toBe('said');
    const tyre = build.axles.rear?.tyre;
    if (!tyre) throw new Error('no tyre');
    expect(deriveBuild(build, []).figures.get('gearing.rear.circumference')?.rests).toBe('said');
    tyre.measured = { kind: 'rollout', value: entryOf(1950, 'mm') };
    expect(deriveBuild(build, []).figures.get('gearing.rear.circumference')?.rests).toBe('measured');
  });

  it('lists the most serious finding first', () => {
    const { build, ledger } = driftBuild();
    const ranks = deriveBuild(build, ledger).findings.map((f) =>
      ['stop', 'watch', 'not-yet', 'fits'].indexOf(f.verdict),
    );
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
  });
});

describe('gearing figures', () => {
  it('speed, torque and ratio hang together along the driveline', () => {
    const { build, ledger } = driftBuild();
    const derived = deriveBuild(build, ledger);
    // 480 N·m × 1.49 × 4.3 [exact]
    expect(value(derived, 'point.input')).toBeCloseTo(480 * 1.49 * 4.3, 6);
    // power in = power out: T·n at the engine equals T·n at the wheels [exact]
    const wheelRpm = (value(derived, 'point.speed') * 60000) / value(derived, 'gearing.rear.circumference');
    expect((value(derived, 'point.input') * wheelRpm) / (480 * 4800)).toBeCloseTo(1, 9);
  });

  it('cruise near the converter stall is watched, with the distance', () => {
    const file = keptFiles()['bracken-raid-truck.json'];
    if (!file) throw new Error('no truck');
    const derived = deriveBuild(file.build, []);
    const found = finding(derived, 'gearing.cruise');
    // a quarter above rated stall: ours. 2398 rpm against 1900 · 1.25 = 2375
    expect(found?.verdict).toBe('fits');
    const hotter = structuredClone(file.build);
    if (hotter.coupling.kind === 'converter') hotter.coupling.stallRpm = 1930;
    const near = finding(deriveBuild(hotter, []), 'gearing.cruise');
    expect(near?.verdict).toBe('watch');
    expect(near?.say('inch').title).toContain(`${Math.round(value(derived, 'gearing.cruise') - 1930)} rpm`);
  });

  it('warns of front to rear mismatch above 1 %', () => {
    const file = keptFiles()['bracken-raid-truck.json'];
    if (!file) throw new Error('no truck');
    expect(finding(deriveBuild(file.build, []), 'gearing.mismatch')?.verdict).toBe('fits');
    const build = structuredClone(file.build);
    if (build.axles.front) build.axles.front.finalDrive = { ring: 43, pinion: 8 };
    expect(finding(deriveBuild(build, []), 'gearing.mismatch')?.verdict).toBe('watch');
  });

  it('a measured rollout replaces the designation and is questioned when far off', () => {
    const { build } = driftBuild();
    const tyre = build.axles.rear?.tyre;
    if (!tyre) throw new Error('no tyre');
    tyre.measured = { kind: 'rollout', value: entryOf(1500, 'mm') };
    const derived = deriveBuild(build, []);
    expect(value(derived, 'gearing.rear.circumference')).toBe(1500);
    expect(finding(derived, 'gearing.tyre.rear')?.verdict).toBe('watch');
  });

  it('stops gears that rise, cruise past the limiter and a point past the limiter', () => {
    const { build } = driftBuild();
    build.gearbox.gears.reverse();
    build.cruiseSpeed = entryOf(400, 'km/h');
    build.startPoint.rpm = 9000;
    const derived = deriveBuild(build, []);
    for (const id of ['gearing.steps', 'gearing.cruise', 'point.limit'])
      expect(finding(derived, id)?.verdict).withContext(id).toBe('stop');
  });
});

describe('pack figures', () => {
  it('measured pieces replace catalogue ones and a voided reading does not count', () => {
    const { build, ledger } = driftBuild();
    // sum of the left readings in force: 0.0784+0.0979+0.0786+0.0785+0.0972+0.0784+0.0981+0.0300 = 0.6371 in [exact]
    const derived = deriveBuild(build, ledger);
    expect(value(derived, 'pack.rear.left.height') / 25.4).toBeCloseTo(0.6371, 9);
    // right: 0.0783+0.0962+0.0785+0.0784+0.0962+0.0784+0.0969 measured + 0.0300 catalogue = 0.6329 in [exact]
    expect(value(derived, 'pack.rear.right.height') / 25.4).toBeCloseTo(0.6329, 9);
    expect(voidedBy(ledger).size).toBe(1);
    expect(finding(derived, 'pack.height.rear.right')?.say('inch').detail).toContain(
      'Change the 30.0\u00a0thou shim for 35.1\u00a0thou',
    );
  });

  it('clamp force is that of the spring at case depth less stack', () => {
    const { build, ledger } = driftBuild();
    const derived = deriveBuild(build, ledger);
    const left = derived.axles.rear?.pack?.left;
    expect(left?.springInstalledMm).toBeCloseTo((0.7435 - 0.6371) * 25.4, 9);
    expect(left?.column?.forceN).toBe(value(derived, 'pack.rear.left.clamp'));
    expect(value(derived, 'pack.rear.slope')).toBeGreaterThan(0);
  });

  it('the slope is what one thou of shim does', () => {
    const { build } = driftBuild();
    const plate = rearPlate(build);
    const before = value(deriveBuild(build, []), 'pack.rear.wrench.other-wheel-held');
    const slope = value(deriveBuild(build, []), 'pack.rear.slope');
    for (const side of ['left', 'right'] as const) {
      const shim = plate.packs[side].members.find((m) => m.kind === 'shim');
      if (shim) shim.thickness = entryOf(31, 'thou');
    }
    expect(value(deriveBuild(build, []), 'pack.rear.wrench.other-wheel-held') - before).toBeCloseTo(slope, 9);
  });

  it('a whole-stack reading wins until a piece changes or is measured later', () => {
    const { build } = driftBuild();
    const solid = rearPlate(build)
      .packs.left.members.filter((m) => m.kind !== 'spring')
      .map((m) => m.id);
    const stack = reading({ what: 'stack-height', axle: 'rear', side: 'left', memberIds: solid }, entryOf(0.64, 'in'));
    expect(value(deriveBuild(build, [stack]), 'pack.rear.left.height')).toBeCloseTo(16.256, 9);
    const later = reading(
      { what: 'thickness', axle: 'rear', side: 'left', memberId: 'l1' },
      entryOf(0.08, 'in'),
      '2026-01-03T03:04:05.000Z',
    );
    expect(value(deriveBuild(build, [stack, later]), 'pack.rear.left.height') / 25.4).toBeCloseTo(0.6395, 9);
    rearPlate(build).packs.left.members.splice(2, 1);
    expect(value(deriveBuild(build, [stack]), 'pack.rear.left.height') / 25.4).toBeCloseTo(0.638 - 0.0785, 9);
  });

  it('springs: slack, past flat, two heights and unlike nesting are said', () => {
    const { build } = driftBuild();
    const plate = rearPlate(build);
    const verdict = (change: (p: typeof plate) => void) => {
      const copy = structuredClone(plate);
      change(copy);
      return finding(deriveBuild(withPlate(build, copy), []), 'pack.spring.rear.left');
    };
    expect(verdict((p) => (p.packs.left.caseDepth = entryOf(30, 'mm')))?.say('metric').title).toContain('stand free');
    expect(verdict((p) => (p.packs.left.caseDepth = entryOf(17, 'mm')))?.verdict).toBe('stop');
    expect(
      verdict((p) => (p.packs.left.members = p.packs.left.members.filter((m) => m.kind !== 'spring')))?.say('inch')
        .title,
    ).toContain('no spring');
    const spring = plate.packs.left.members.find((m) => m.kind === 'spring');
    if (spring?.kind !== 'spring') throw new Error('no spring');
    const thin = { ...spring, thickness: entryOf(0.8, 'mm') };
    const swap = (s: typeof spring) => (p: typeof plate) => {
      p.packs.left.members = p.packs.left.members.map((m) => (m.kind === 'spring' ? s : m));
      p.packs.left.caseDepth = entryOf(18, 'mm');
    };
    // h₀/t = 1.6/0.8 above √2 [exact, from the formula]
    expect(verdict(swap(thin))?.say('metric').title).toContain('two heights');
    expect(
      verdict((p) => p.packs.left.members.push({ ...spring, id: 'other', coneHeight: entryOf(1, 'mm') }))?.say('metric')
        .detail,
    ).toContain('one size');
  });

  it('a pack that holds nothing, and bare metal, are said', () => {
    const { build } = driftBuild();
    const plate = structuredClone(rearPlate(build));
    plate.packs.left.members = plate.packs.left.members.filter((m) => m.kind !== 'splined');
    expect(finding(deriveBuild(withPlate(build, plate), []), 'pack.interfaces.rear.left')?.verdict).toBe('stop');
    const bare = structuredClone(rearPlate(build));
    bare.packs.left.members = bare.packs.left.members.map((m) =>
      m.id === 'l2' ? { ...m, lined: false } : m,
    ) as typeof bare.packs.left.members;
    expect(finding(deriveBuild(withPlate(build, bare), []), 'pack.interfaces.rear.left')?.say('inch').title).toContain(
      'bare metal',
    );
  });

  it('judges a breakaway reading only against the prediction for its own hold', () => {
    const { build, ledger } = driftBuild();
    const clean = deriveBuild(build, ledger);
    const held = value(clean, 'pack.rear.wrench.carrier-held');
    const right = reading({ what: 'breakaway', axle: 'rear', hold: 'carrier-held' }, entryOf(held, 'N·m'));
    const wrong = reading({ what: 'breakaway', axle: 'rear', hold: 'other-wheel-held' }, entryOf(held, 'N·m'));
    const derived = deriveBuild(build, [...ledger, right, wrong]);
    expect(finding(derived, 'pack.measuredBreakaway.rear.carrier-held')?.verdict).toBe('fits');
    expect(finding(derived, 'pack.measuredBreakaway.rear.other-wheel-held')?.verdict).toBe('watch');
    expect(held).toBeCloseTo(
      wrenchReading(
        { leftNm: value(clean, 'pack.rear.left.breakaway'), rightNm: value(clean, 'pack.rear.right.breakaway') },
        'carrier-held',
      ).torqueNm,
      9,
    );
  });
});

describe('unit figures', () => {
  it('the preload of the unit is what both packs hold', () => {
    const { build, ledger } = driftBuild();
    const derived = deriveBuild(build, ledger);
    const unit = derived.axles.rear?.unit;
    expect(unit?.preloadNm).toBeCloseTo(value(derived, 'pack.rear.wrench.carrier-held'), 9);
    const lock = value(derived, 'unit.rear.drive.lock');
    expect(value(derived, 'unit.rear.drive.bias')).toBeCloseTo(biasRatio(lock / derived.inputNm), 9);
  });

  it('two-way holds the same both ways, one-way holds preload only on overrun', () => {
    const { build } = driftBuild();
    const two = deriveBuild(withPlate(build, { action: 'two-way' }), []);
    // at a fifth of the torque, as the engine drags [ours]; the same law both ways
    const overrun = two.axles.rear?.unit.lock('drive', 0.2 * two.inputNm).lockNm ?? 0;
    expect(value(two, 'unit.rear.overrun.lock')).toBeCloseTo(overrun, 9);
    const half = deriveBuild(withPlate(build, { action: 'one-and-a-half-way' }), []);
    expect(value(half, 'unit.rear.overrun.lock')).toBeLessThanOrEqual(overrun);
    const one = deriveBuild(withPlate(build, { action: 'one-way' }), []);
    expect(value(one, 'unit.rear.overrun.lock')).toBeCloseTo(one.axles.rear?.unit.preloadNm ?? 0, 9);
  });

  it('says where a solid unit would let go, in the convention of the build', () => {
    const { build } = driftBuild();
    const solid = deriveBuild(withPlate(build, { driveRamp: entryOf(25, '°') }), []);
    const found = finding(solid, 'unit.solid.rear.drive');
    // atan(μ·n·r_m/r_p) − atan 0.10 = atan(0.08·6·47.5/38.1) − 5.7° = 25.2° [exact]
    expect(found?.verdict).toBe('stop');
    expect(found?.say('inch').detail).toContain('above 25.2°');
    const axis = deriveBuild(withPlate(build, { driveRamp: entryOf(65, '°'), rampFrom: 'axis' }), []);
    expect(finding(axis, 'unit.solid.rear.drive')?.say('inch').detail).toContain('below 64.8°');
  });

  it('a ramp that can’t be worked out is a finding, not a crash', () => {
    const { build } = driftBuild();
    const derived = deriveBuild(withPlate(build, { driveRamp: entryOf(0, '°') }), []);
    expect(derived.findings.find((f) => f.id.startsWith('refused.unit'))?.verdict).toBe('stop');
  });

  it('the curve follows the lock on both flanks', () => {
    const { build } = driftBuild();
    const unit = deriveBuild(withPlate(build, { action: 'one-way' }), []).axles.rear?.unit;
    if (!unit) throw new Error('no unit');
    const curve = lockCurve(unit, 1000, 4);
    expect(curve.length).toBe(9);
    expect(curve[0]?.lockNm).toBeCloseTo(unit.preloadNm, 9);
    // springs in series: the larger of the two [exact, docs/unit.md]
    expect(curve[8]?.lockNm).toBeCloseTo(Math.max(unit.preloadNm, unit.coefficient.drive * 1000), 9);
  });
});

describe('ledger', () => {
  it('the last reading in force wins; a void brings back the one before', () => {
    const subject = { what: 'thickness' as const, axle: 'rear' as const, side: 'left' as const, memberId: 'l1' };
    const first = reading(subject, entryOf(2, 'mm'));
    const second = reading(subject, entryOf(2.1, 'mm'));
    const key = 'thickness/rear/left/l1';
    expect(readingsInForce([first, second]).get(key)?.id).toBe(second.id);
    const voids = {
      kind: 'void' as const,
      who: '',
      id: testId(),
      at: first.at,
      voids: second.id,
      reason: 'wrong plate',
    };
    expect(readingsInForce([first, second, voids]).get(key)?.id).toBe(first.id);
  });
});
