import { entryBase, entryOf, type Entry } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import type { BuildFile } from '../files/build-file';
import type { Build } from '../document/schema';
import { keptFiles } from '../testing/builds';
import { weakestLinks } from './links';
import { newEnd, newShafts } from './new-shafts';
import { shaftTorque, thinnestMm } from './state';

function truck(change: (axle: NonNullable<Build['axles']['rear']>) => void = () => undefined): Build {
  const { build } = structuredClone(keptFiles()['kittiwake-drift-coupe.json']) as { build: Build };
  const axle = build.axles.rear;
  if (!axle) throw new Error('no axle');
  axle.shafts = newShafts(31);
  change(axle);
  return build;
}
const finding = (build: Build, id: string) =>
  deriveBuild(build, []).findings.find((one) => one.id === `shaft.rear.${id}`);

describe('shafts', () => {
  // Minor diameter (N − 1.35)/P in [std: ANSI B92.1, from memory]: 31 teeth of 24 pitch: 1.2354 in.
  it('are reckoned at the root of the spline, or at a thinner neck', () => {
    const { left } = newShafts(31);
    expect(thinnestMm(left) / 25.4).toBeCloseTo(1.2354, 4);
    expect(thinnestMm({ ...left, neck: entryOf(28, 'mm') })).toBe(28);
    expect(thinnestMm({ ...left, neck: entryOf(40, 'mm') }) / 25.4).toBeCloseTo(1.2354, 4);
  });

  // π·d³·τ/16 [exact]: 31.38 mm at 690 MPa → 4186 N·m.
  it('yield at π·d³·τ/16', () => {
    const build = truck(({ shafts }) => Object.assign(shafts?.left ?? {}, { material: 'alloy-hardened' }));
    const figure = deriveBuild(build, []).figures.get('shaft.rear.left.yield');
    expect(figure?.value).toBeCloseTo((Math.PI * (1.235417 * 25.4) ** 3 * 690) / 16_000, 0);
    expect(figure?.explain?.().result.value).toBeCloseTo(figure?.value ?? 0, 6);
  });

  it('get all of the torque where the unit locks, half of it where nothing does, and no more than the tyre holds', () => {
    const reaches = (type: 'spool' | 'open', grip: number) => {
      const build = truck((axle) => (axle.unit = { ...axle.unit, type }));
      build.road.grip = entryOf(grip, '');
      const derived = deriveBuild(build, []);
      const [own, unit] = [derived.gearing.rear, derived.axles.rear?.unit];
      if (!own || !unit) throw new Error('not derived');
      return shaftTorque(build, 'rear', own, unit);
    };
    expect(reaches('spool', 3).share).toBe(1);
    expect(reaches('open', 3).share).toBe(0.5);
    expect(reaches('spool', 0.2).limitedBy).toBe('tyre');
    expect(reaches('spool', 0.4).nm).toBeCloseTo(2 * reaches('spool', 0.2).nm, 6);
    // By hand: one wheel in the air, the other carries the axle; else it carries half of the axle and half as much again.
    const { road } = truck();
    const standsN = entryBase(road.mass) * 9.80665 * (entryBase(road.rearShare) / 100);
    expect(reaches('spool', 0.2).wheelLoadN).toBeCloseTo(standsN, 6);
    expect(reaches('open', 0.2).wheelLoadN).toBeCloseTo(0.75 * standsN, 6);
    const { nm, rollingRadiusMm } = reaches('spool', 0.2);
    expect(nm).toBeCloseTo((0.2 * standsN * rollingRadiusMm) / 1000, 6);
  });

  it('say what they are reckoned from: by the unit’s share, or by the tyre', () => {
    const figure = deriveBuild(truck(), []).figures.get('shaft.rear.left.torque');
    const working = figure?.explain?.();
    expect(working?.result.value).toBe(figure?.value ?? 0);
    const [engine, tyre] = working?.steps.map(({ value }) => value) ?? [];
    expect(Math.min(Number(engine), Number(tyre))).toBe(figure?.value ?? 0);
  });

  it('that hold once are watched where it is hard on them; below what reaches them they stop', () => {
    const at = (shear: number, use: Build['use']) => {
      const build = truck(({ shafts }) => Object.assign(shafts?.left ?? {}, { shear }));
      build.use = use;
      return finding(build, 'left.torsion');
    };
    const margin = deriveBuild(
      truck(({ shafts }) => Object.assign(shafts?.left ?? {}, { shear: 100 })),
      [],
    ).figures.get('shaft.rear.left.margin')?.value as number;
    const one = 100 / margin;
    expect(at(one * 0.9, 'street')?.verdict).toBe('stop');
    expect(at(one * 1.7, 'street')?.verdict).toBe('fits');
    expect(at(one * 1.7, 'drag')?.verdict).toBe('watch');
    expect(at(one * 1.7, 'drag')?.say('metric').detail).toContain('does not hold for ever');
  });

  // 53 thou shim, 12 measured, 8 wanted → 57: four thicker (common practice).
  it('end float outside the band of the sheet is a stop, with the shim that brings it to the middle', () => {
    const at = (measured: number, band: readonly [number, number] | null = [6, 10]) => {
      const thou = (value: number) => entryOf(value, 'thou');
      const build = truck(({ shafts, identity }) => {
        if (shafts) shafts.left.float = thou(measured);
        if (identity)
          identity.sheet.endFloat = band && {
            value: { low: thou(band[0]), high: thou(band[1]) },
            origin: 'maker',
            where: 'p. 3',
          };
      });
      const found = finding(build, 'left.float');
      return (
        found && { verdict: found.verdict, detail: found.say('inch').detail.replace(/[\u00a0\u2009\u202f]/g, ' ') }
      );
    };
    expect(at(12)?.verdict).toBe('stop');
    expect(at(12)?.detail).toBe(
      'The sheet says 6.0 thou to 10.0 thou. A shim 4.0 thou thicker brings it to the middle.',
    );
    expect(at(3)?.detail).toContain('A shim 5.0 thou thinner');
    for (const inside of [6, 8, 10]) expect(at(inside)?.verdict).withContext(`${inside}`).toBe('fits');
    expect(at(8)?.detail).not.toContain('shim');
    expect(at(12, null)).toBeUndefined();
  });

  it('engagement, gap to the pin and unequal joints are judged', () => {
    const build = truck(({ shafts }) => {
      Object.assign(shafts?.left ?? {}, { engagement: entryOf(15, 'mm'), pinGap: entryOf(0, 'mm') });
      if (shafts)
        shafts.prop = {
          outer: entryOf(3, 'in'),
          wall: entryOf(0.065, 'in'),
          between: entryOf(60, 'in'),
          frontAngle: entryOf(1, '°'),
          rearAngle: entryOf(4, '°'),
          inPhase: true,
          material: 'unknown',
          shear: null,
          jointTorque: entryOf(200, 'N·m'),
        };
    });
    expect(finding(build, 'left.engaged')?.verdict).toBe('stop');
    expect(finding(build, 'left.pin')?.verdict).toBe('stop');
    expect(finding(build, 'critical')?.verdict).toBe('stop');
    // ω²·|1² − 4²| at the limiter [std: kinematics of the universal joint]
    const rpm = deriveBuild(build, []).figures.get('shaft.rear.prop-rpm')?.value ?? 0;
    const swing = ((rpm * Math.PI) / 30) ** 2 * ((4 * Math.PI) / 180) ** 2 * (1 - 1 / 16);
    expect(finding(build, 'angles')?.say('inch').title).toContain(`${Math.round(swing)} rad/s²`);
    expect(finding(build, 'angles')?.verdict).toBe('stop');
    // 4.752e6·√(D² + d²)/L² with E 206 GPa and 7850 kg/m³ (handbook 11.2) [std: beam theory].
    const critical = deriveBuild(build, []).figures.get('shaft.rear.critical')?.value as number;
    expect(critical / ((4.752e6 * Math.hypot(3, 2.87)) / 60 ** 2)).toBeCloseTo(1, 3);
  });

  it('every link stands on one footing: engine × ratios × efficiency × shock, or the grip at its wheels', () => {
    const at = (shock: number, grip: number) => {
      const build = truck(({ shafts }) => {
        if (!shafts) return;
        shafts.pinion = { ...newEnd(28), material: 'alloy-hardened' };
        shafts.prop = {
          outer: entryOf(70, 'mm'),
          wall: entryOf(2, 'mm'),
          between: entryOf(1250, 'mm'),
          frontAngle: entryOf(2, '°'),
          rearAngle: entryOf(2, '°'),
          inPhase: true,
          material: 'unknown',
          shear: null,
          jointTorque: entryOf(900, 'N·m'),
        };
      });
      build.road.shock = entryOf(shock, '');
      build.road.grip = entryOf(grip, '');
      const derived = deriveBuild(build, []);
      return { build, derived, figure: (id: string) => derived.figures.get(`shaft.rear.${id}`)?.value ?? 0 };
    };
    // Sticky tyres: the engine decides. By hand, first gear; the prop shaft sees no final drive.
    const { build, figure, derived } = at(2, 9);
    const most = Math.max(...build.engine.torqueCurve.map(({ torque }) => entryBase(torque)));
    const first = entryBase((build.gearbox.gears[0] as { ratio: Entry }).ratio);
    const prop = most * first * (entryBase(build.road.efficiency) / 100) * 2;
    expect(figure('prop-torque')).toBeCloseTo(prop, 6);
    const holds = (Math.PI * (70 ** 4 - 66 ** 4) * 550) / (16 * 70) / 1000;
    expect(figure('tube')).toBeCloseTo(holds / prop, 9);
    expect(figure('joint')).toBeCloseTo(900 / prop, 9);
    // One setting for all: half of the shock, twice the margin, of every link.
    const calm = at(1, 9);
    for (const id of ['tube', 'joint', 'pinion', 'left.margin', 'right.margin'])
      expect(calm.figure(id) / figure(id))
        .withContext(id)
        .toBeCloseTo(2, 6);
    const names = weakestLinks(build, derived, 'rear').map(({ name }) => name);
    expect(names).toEqual(jasmine.arrayContaining(['Prop shaft tube', 'Prop shaft joint', 'Pinion', 'Left shaft']));
    // Slippery ones: shock changes nothing, the grip decides.
    expect(at(2, 0.3).figure('tube')).toBeCloseTo(at(1, 0.3).figure('tube'), 9);
  });

  it('on the kept saloon the shaft is weaker than its joint: shock counts for both alike', () => {
    const { build, ledger } = keptFiles()['dunnock-rally-saloon.json'] as BuildFile;
    const links = weakestLinks(build, deriveBuild(build, ledger), 'rear').map(({ name }) => name);
    expect(links.indexOf('Left shaft')).toBeLessThan(links.indexOf('Ring joint'));
  });

  it('and the rest of the driveline are ordered, the weakest first', () => {
    const build = truck(({ shafts }) => Object.assign(shafts?.right ?? {}, { shear: 60 }));
    const links = weakestLinks(build, deriveBuild(build, []), 'rear');
    expect(links[0]?.name).toBe('Right shaft');
    expect(links.map(({ margin }) => margin)).toEqual([...links.map(({ margin }) => margin)].sort((a, b) => a - b));
    expect(links.map(({ name }) => name)).toContain('Ring and pinion');
  });
});
