import { entryBase, InputError, entryOf, findFinals } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import type { Build } from '../document/schema';
import { calculations } from '../assembly/calculations';
import { keptFiles } from '../testing/builds';
import { searchProblemOf } from '../road/search-problem';
import { vehicleOf } from '../road/vehicle';
import { axleGearingState } from './axle-gearing';
import { goalOf, findProblemOf } from '../road/find-problem';
import { changeWords, reasonWords, scoreWords } from '../road/find-words';

const demo = (name: string): Build => structuredClone(keptFiles()[`${name}.json`]?.build as Build);
const figure = (build: Build, id: string): number | null => deriveBuild(build, []).figures.get(id)?.value ?? null;
const finding = (build: Build, id: string) => deriveBuild(build, []).findings.find((one) => one.id === id);
const own = (build: Build, name: 'rear' | 'front' = 'rear') => {
  const axle = build.axles[name];
  if (!axle) throw new Error('no such axle');
  return axleGearingState(name, axle);
};

describe('match', () => {
  it('crawl ratio: first × low × final × hub', () => {
    expect(figure(demo('bracken-raid-truck'), 'match.crawl')).toBeCloseTo(4.12 * 2.72 * (41 / 8), 9); // [exact]
  });

  it('slip and growth are counted in speed and rpm, and undone by each other', () => {
    const build = demo('kittiwake-drift-coupe');
    const plain = figure(build, 'point.speed') ?? 0;
    build.road.wheelSlip = entryOf(5, '%');
    expect(figure(build, 'point.speed')).toBeCloseTo(plain * 0.95, 9); // n = n_kin/(1 − s) [exact]
    build.road.wheelSlip = entryOf(0, '%');
    if (build.axles.rear) build.axles.rear.tyre.growth = { share: entryOf(4, '%'), atSpeed: entryOf(60, 'm/s') };
    const grown = figure(build, 'point.speed') ?? 0;
    expect(grown).toBeGreaterThan(plain);
    expect(grown).toBeCloseTo(plain * (1 + 0.04 * (grown / 60) ** 2), 9); // v = v₀·(1 + g·(v/v_ref)²) [exact]
  });

  it('wear takes twice itself off the diameter, and nothing off a measured tyre', () => {
    const build = demo('kittiwake-drift-coupe');
    const tyre = build.axles.rear?.tyre;
    if (!tyre) throw new Error('no tyre');
    const before = figure(build, 'gearing.rear.circumference') ?? 0;
    tyre.wear = entryOf(4, 'mm');
    expect(figure(build, 'gearing.rear.circumference')).toBeCloseTo(before - 3.05 * 8, 6); // 3.05·(D − 2·wear)
    tyre.measured = { kind: 'rollout', value: entryOf(1950, 'mm') };
    expect(figure(build, 'gearing.rear.circumference')).toBe(1950);
  });

  it('converter slip raises cruise rpm', () => {
    const build = demo('bracken-raid-truck');
    const with2 = figure(build, 'gearing.cruise') ?? 0;
    if (build.coupling.kind === 'converter') build.coupling.slip = entryOf(0, '%');
    expect(with2 / (figure(build, 'gearing.cruise') ?? 1)).toBeCloseTo(1 / 0.98, 9); // a share of engine speed [exact]
  });

  it('planned tyre: equal gearing and what today’s final is worth', () => {
    const build = demo('kittiwake-drift-coupe');
    // 255/40R17 is 635.8 mm, 265/35R18 642.7 mm [standard: ISO 4000-1]
    expect(figure(build, 'match.equal')).toBeCloseTo((4.3 * 642.7) / 635.8, 6);
    expect(figure(build, 'match.effective')).toBeCloseTo((4.3 * 635.8) / 642.7, 6);
  });

  it('speed reading by where the sender sits', () => {
    const build = demo('kittiwake-drift-coupe');
    // was 37/10 on 225/45R17 (634.3 mm) [standard: ISO 4000-1; factor exact]
    expect(figure(build, 'match.reading')).toBeCloseTo((100 * 3.7 * 635.8) / (4.3 * 634.3), 6);
    expect(finding(build, 'match.reading')?.verdict).toBe('watch');
    build.brief.sender = 'wheel';
    expect(figure(build, 'match.reading')).toBeCloseTo((100 * 635.8) / 634.3, 6);
    expect(finding(build, 'match.reading')?.verdict).toBe('fits');
  });

  it('speed reading by the rolling circumferences in force: a rollout beats the designation', () => {
    const build = demo('kittiwake-drift-coupe');
    const tyre = build.axles.rear?.tyre;
    if (!tyre) throw new Error('no tyre');
    tyre.measured = { kind: 'rollout', value: entryOf(1905, 'mm') };
    // (3.7 · 1905)/(4.3 · 3.05 · 634.3) [exact]; the old tyre is known by its size alone
    expect(figure(build, 'match.reading')).toBeCloseTo((100 * 3.7 * 1905) / (4.3 * 3.05 * 634.3), 6);
    tyre.measured = null;
    tyre.factor = 'unloaded';
    expect(figure(build, 'match.reading')).toBeCloseTo((100 * 3.7 * 635.8) / (4.3 * 634.3), 6);
  });

  it('kept points have their road speed', () => {
    const build = demo('kittiwake-drift-coupe');
    const exit = build.points.find(({ name }) => name === 'Corner exit');
    expect(figure(build, `match.point.${exit?.id}`)).toBeCloseTo((3.05 * 0.6358 * 4800) / (60 * 1.49 * 4.3), 6);
  });
});

describe('identity', () => {
  it('match numbers agree or stop', () => {
    const build = demo('kittiwake-drift-coupe');
    expect(finding(build, 'identity.match.rear')?.verdict).toBe('fits');
    if (build.axles.rear) build.axles.rear.matchNumbers = { ring: 'K117', pinion: 'K118' };
    const stop = finding(build, 'identity.match.rear');
    expect(stop?.verdict).toBe('stop');
    expect(stop?.say('inch').detail).toContain('Ring K117, pinion K118');
    if (build.axles.rear) build.axles.rear.matchNumbers = { ring: ' k117', pinion: 'K117' };
    expect(finding(build, 'identity.match.rear')?.verdict).not.toBe('stop');
    if (build.axles.rear) build.axles.rear.matchNumbers = { ring: 'K117', pinion: '' };
    expect(finding(build, 'identity.match.rear')?.verdict).toBe('not-yet');
  });

  it('left-hand ring bolts are said before anybody turns them', () => {
    expect(finding(demo('kittiwake-drift-coupe'), 'identity.hand.rear')?.say('inch').detail).toContain(
      'clockwise undoes',
    );
  });

  it('a carrier that does not take the ratio stops', () => {
    const build = demo('kittiwake-drift-coupe');
    expect(finding(build, 'identity.carrier.rear')?.verdict).toBe('fits');
    if (build.axles.rear) build.axles.rear.finalDrive = { ring: 37, pinion: 10 };
    const stop = finding(build, 'identity.carrier.rear');
    expect(stop?.verdict).toBe('stop');
    expect(stop?.say('inch').detail).toContain('3 series');
  });

  it('an axle that nobody looked at is not yet', () => {
    expect(finding(demo('bracken-raid-truck'), 'identity.open.front')?.verdict).toBe('not-yet');
  });
});

describe('ratio finder of a build', () => {
  it('chooses from the sets of the axle, the present one and the candidates', () => {
    const build = demo('kittiwake-drift-coupe');
    const problem = findProblemOf(build, 'rear', own(build));
    const names = problem.candidates.map(({ ring, pinion }) => `${ring}/${pinion}`);
    expect(names).toContain('43/10');
    for (const { ring, pinion } of build.candidates) expect(names).toContain(`${ring}/${pinion}`);
    expect(new Set(names).size).toBe(names.length);
    expect(problem.presentCarrier).toBe('4 series');
  });

  it('says every reason and change in words, in either system', () => {
    for (const name of ['kittiwake-drift-coupe', 'bracken-raid-truck']) {
      for (const goal of ['time', 'finish', 'cruise', 'crawl'] as const) {
        const build = demo(name);
        build.brief.goal = goal;
        for (const one of findFinals(findProblemOf(build, 'rear', own(build)))) {
          for (const reason of one.reasons)
            for (const system of ['inch', 'metric'] as const)
              expect(reasonWords(reason, system).length).toBeGreaterThan(8);
          for (const change of one.changes) expect(changeWords(change).length).toBeGreaterThan(8);
          expect(scoreWords(goalOf(build).kind, one.score)).toMatch(/s$|window|off|met|short/);
        }
      }
    }
  });

  it('its calculation and the core’s give the same order', () => {
    const build = demo('kittiwake-drift-coupe');
    const problem = findProblemOf(build, 'rear', own(build));
    const ranked = findFinals(problem).map(({ candidate }) => candidate.ring);
    const { ranking } = calculations.run('gearing.find', problem) as { ranking: { ring: number }[] };
    expect(ranking.map(({ ring }) => ring)).toEqual(ranked);
  });
});

describe('a build on the road', () => {
  it('is the vehicle that the brief and the engine say', () => {
    const build = demo('bracken-raid-truck');
    const vehicle = vehicleOf(build, 'rear', own(build));
    expect(vehicle.massKg).toBeCloseTo(5730 * 0.45359237, 6); // [exact]
    expect(vehicle.driven.axle).toBe('both');
    expect(vehicle.converter).toEqual({
      stallRpm: 1900,
      torqueRatio: 2.1,
      couplingRatio: 0.87,
      slip: 0.02,
      fullUpTo: 0.7,
      shareAtCoupling: 0.5,
    });
    expect(vehicle.wheelSlip).toBe(entryBase(build.road.wheelSlip) / 100);
  });

  it('runs when a figure is looked at; a car that can’t move has none and no working', () => {
    const build = demo('kittiwake-drift-coupe');
    const time = deriveBuild(build, []).figures.get('road.time');
    expect(time?.value).toBeGreaterThan(8);
    expect(time?.explain?.().result.value).toBeCloseTo(time?.value ?? 0, 9);
    build.road.grade = entryOf(100, '%');
    const stuck = deriveBuild(build, []).figures.get('road.time');
    expect(stuck?.value).toBeNull();
    expect(stuck?.explain).toBeUndefined();
  });

  it('its search wants a course, and takes the final drive in the axle where the shelf has none', () => {
    const wren = demo('wren-hill-climb');
    expect(searchProblemOf(wren, 'rear', own(wren)).finals.length).toBe(4);
    wren.shelf.finals = [];
    expect(searchProblemOf(wren, 'rear', own(wren)).finals).toEqual([{ ring: 40, pinion: 11 }]);
    wren.course = null;
    expect(() => searchProblemOf(wren, 'rear', own(wren))).toThrowMatching(
      (error) => error instanceof InputError && error.field === 'course',
    );
  });

  it('road.search answers from the command line’s side too, and says whether it is proven', () => {
    const wren = demo('wren-hill-climb');
    const { vehicle, course, pairs, finals, rules } = searchProblemOf(wren, 'rear', own(wren));
    const result = calculations.run('road.search', { vehicle, course, pairs, finals, rules });
    expect(result['provenBest']).toBeTrue();
    expect(result['gainS']).toBeGreaterThan(0);
    expect(result['boundS']).toBeCloseTo((result['best'] as { timeS: number }[])[0]?.timeS ?? 0, 9);
  });

  const refused: [string, string, unknown][] = [
    [
      'road.run',
      'engine.torqueCurve[0].rpm',
      { engine: { torqueCurve: [{ rpm: -1, torqueNm: 100 }], limitRpm: 6000 } },
    ],
    ['road.run', 'massKg', { massKg: 1e308 }],
    ['road.run', 'tyre.grip', { tyre: { rollingRadiusMm: 300, grip: 'sticky' } }],
    ['road.run', 'extra', { extra: 1 }],
    [
      'road.run',
      'torqueCurve',
      {
        engine: {
          torqueCurve: [
            { rpm: 3000, torqueNm: 100 },
            { rpm: 2000, torqueNm: 100 },
          ],
          limitRpm: 6000,
        },
      },
    ],
  ];
  for (const [name, field, change] of refused) {
    it(`${name} refuses ${field} by name`, () => {
      const { example } = calculations.describe(name) as { example: object };
      expect(() => calculations.run(name, { ...example, ...(change as object) })).toThrowMatching(
        (error) => error instanceof InputError && error.field === field,
      );
    });
  }
});
