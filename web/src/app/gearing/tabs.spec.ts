import { entryOf, readyCar, type Vehicle } from '@hot-spline/core';
import { axleGearingState, vehicleOf, emptySheet, newBuild } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { plateBuild } from '../../testing/drift';
import { chartColours } from '../shared/chart';
import { FindTab } from './find-tab';
import { GearingSheet } from './gearing-sheet';
import { ladderOption } from './ladder-chart';
import { LadderTab } from './ladder-tab';
import { MatchTab } from './match-tab';
import { thrustOption } from './thrust-chart';
import { ThrustTab } from './thrust-tab';

interface Drawn {
  id: string;
  data: (number[] | { value: number[]; label?: { formatter?: string }; itemStyle?: { color: string } })[];
}
const series = (option: unknown): Drawn[] => (option as { series: Drawn[] }).series;

function vehicle(): Vehicle {
  const build = plateBuild();
  if (!build.axles.rear) throw new Error('no axle');
  return vehicleOf(build, 'rear', axleGearingState('rear', build.axles.rear));
}

describe('the thrust chart', () => {
  const car = readyCar(vehicle());
  const picture = {
    car,
    gearNames: ['1', '2', '3', '4', '5'],
    grades: [{ percent: 0, resistance: () => 500 }],
    pointMps: 20,
    system: 'metric' as const,
    colours: chartColours(),
  };
  const option = thrustOption(picture);

  it('draws a curve a gear up to its limiter, in kN and km/h', () => {
    const gears = series(option).filter(({ id }) => id.startsWith('gear-'));
    expect(gears.length).toBe(5);
    const end = gears[0]?.data.at(-1) as number[];
    const first = car.gears[0];
    expect(end[0]).toBeCloseTo((first?.limitMps ?? 0) * 3.6, 6);
    expect(end[1]).toBeCloseTo((first?.engineThrust(first.limitMps) ?? 0) / 1000, 6);
  });

  it('draws the loads and the grip', () => {
    const load = series(option).find(({ id }) => id === 'load-0')?.data[3] as number[];
    expect(load[1]).toBeCloseTo(0.5, 9);
    // ochre where the tyres are the limit at full throttle: in the gears that push harder than they hold
    const limited = (drawn: unknown, id: string): number =>
      (series(drawn).find((one) => one.id === id)?.data ?? []).filter((one) => Array.isArray(one) && one[0] !== null)
        .length;
    const { tyre, ...rest } = vehicle();
    const slippery = readyCar({ ...rest, tyre: { ...tyre, grip: 0.4 } });
    const other = thrustOption({ ...picture, car: slippery });
    expect(limited(other, 'grip-0')).toBeGreaterThan(1);
    expect(limited(option, `grip-${car.gears.length - 1}`)).toBe(0);
  });
});

describe('the rpm ladder', () => {
  it('has a rung a gear in every column, those past the limiter marked', () => {
    const rungs = series(
      ladderOption({
        columns: [
          {
            speedMps: 20,
            label: '72 km/h',
            rungs: [
              { gear: '1', rpm: 7000 },
              { gear: '2', rpm: 4200 },
            ],
          },
        ],
        limitRpm: 6800,
        window: { lowRpm: 4000, highRpm: 6500 },
        system: 'metric',
        colours: chartColours(),
      }),
    ).find(({ id }) => id === 'rungs');
    const [over, inside] = (rungs?.data ?? []) as Extract<Drawn['data'][number], object & { value: number[] }>[];
    expect(over?.value).toEqual([1, 7000]);
    expect(over?.itemStyle?.color).toBe(chartColours().stop);
    expect(inside?.itemStyle?.color).toBe(chartColours().blue);
    expect(inside?.label?.formatter).toBe('2 4200');
  });

  it('takes its speeds in either unit and refuses nonsense by name', async () => {
    const bench = openBench();
    const screen = await Screen.of(LadderTab);
    const label = 'Road speeds, with commas';
    await screen.type(label, '30 mph, 100; 130');
    expect(bench.build()?.brief.ladder.map(({ typed }) => typed)).toEqual(['30 mph', '100', '130']);
    for (const bad of ['fast', '1,2,3,4,5,6,7,8,9', '-5', '0']) {
      await screen.type(label, bad);
      expect(screen.said(label))
        .withContext(bad)
        .toMatch(/Road speeds/);
    }
    expect(bench.build()?.brief.ladder.length).toBe(3);
  });
});

describe('match', () => {
  it('says the engine speed at cruise for every final drive and tyre there is', async () => {
    const build = plateBuild();
    build.candidates = [{ ring: 37, pinion: 10 }];
    build.brief.plannedTyre = '225/45R17';
    const bench = openBench(build);
    const screen = await Screen.of(MatchTab);
    const rows = screen
      .all('section[aria-labelledby="slip-title"] tbody tr')
      .map((row) => [...row.querySelectorAll('td')].map((cell) => Number(cell.textContent?.replace(/\D/g, ''))));
    // at one road speed the engine goes with the final drive [exact]; the planned tyre is the one that is on
    const cruise = bench.figure('gearing.cruise')?.value ?? 0;
    expect(rows.map(([first]) => first)).toEqual([Math.round((cruise * 3.7) / 4.1), Math.round(cruise)]);
    for (const [first, second] of rows) expect(second).toBe(first);
  });

  it('slip, wear and growth change every speed, and are none at 0', async () => {
    const bench = openBench();
    const screen = await Screen.of(MatchTab);
    const before = bench.figure('point.speed')?.value ?? 0;
    await screen.type('Driven wheels slip', '4');
    expect(bench.figure('point.speed')?.value).toBeCloseTo(before * 0.96, 9); // n = n_kin/(1 − s) [exact]
    await screen.type('Tread worn off', '3 mm');
    expect(bench.axle()?.tyre.wear?.value).toBe(3);
    await screen.type('Tread worn off', '0');
    expect(bench.axle()?.tyre.wear).toBeNull();
    await screen.type('Tyre grows by', '5 %');
    await screen.type('of its radius at', '250 km/h');
    expect(bench.axle()?.tyre.growth).toEqual({ share: entryOf(5, '%'), atSpeed: entryOf(250, 'km/h') } as never);
    await screen.type('Tyre grows by', '0');
    expect(bench.axle()?.tyre.growth).toBeNull();
  });

  it('shows what goes where the speedometer shows a round figure', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.brief.was = { finalDrive: { ring: 41, pinion: 11 }, tyre: '225/45R17' }));
    const screen = await Screen.of(MatchTab);
    // 41/11 against 41/10 on one tyre: 100 shown is 100·(41/11)/(41/10) [exact]
    expect(screen.find('#match-reading table').textContent).toContain(((100 * 10) / 11).toFixed(1));
  });
});

describe('find a ratio', () => {
  it('ranks the present one and the candidates, and compares or takes one', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.candidates = [{ ring: 37, pinion: 10 }]));
    const screen = await Screen.of(FindTab);
    const rows = () => screen.all('[data-final]').map((row) => row.dataset['final']);
    expect(rows().sort()).toEqual(['37/10', '41/10']);
    expect(screen.text).toContain('No sets are known for this axle');
    await screen.click('Take 37/10');
    expect(bench.axle()?.finalDrive).toEqual({ ring: 37, pinion: 10 });
    expect(bench.build()?.candidates).toEqual([{ ring: 41, pinion: 10 }]);
  });

  it('chooses from the sets of the identified axle', async () => {
    const bench = openBench();
    bench.changeAxle((axle) => {
      axle.identity = {
        kind: 'axle',
        name: 'Heron',
        construction: { value: 'drop-out', origin: 'maker' },
        ringDiameter: null,
        ringBolts: null,
        pinionSplines: null,
        shaftSplines: null,
        retention: null,
        brake: null,
        wheelBearing: null,
        outerSeal: null,
        spread: null,
        adjusterSequence: null,
        sheet: emptySheet(),
        extras: { ringBolts: { price: 20, leadDays: 1 }, recalibration: null },
        carriers: [{ name: 'short', fromRatio: 4.5, toRatio: 6, price: null, leadDays: null, origin: 'maker' }],
        sets: [{ ring: 43, pinion: 9, torqueLimit: null, price: 300, leadDays: 5, welded: false, origin: 'maker' }],
      };
    });
    const screen = await Screen.of(FindTab);
    await screen.click('Compare 43/9');
    expect(bench.build()?.candidates).toEqual([{ ring: 43, pinion: 9 }]);
    expect(screen.text).toContain('no known carrier takes it');
    // all that it takes: the set, new ring bolts, and a recalibration that nobody has asked for
    expect(screen.text).toContain('from €320, 5 days');
    expect(screen.text).toContain('recalibration not asked');
  });

  it('with one set, what any ratio would do is drawn, and where the best would lie', async () => {
    const bench = openBench();
    bench.change((draft) => {
      draft.brief.goal = 'time';
      draft.candidates = [];
      draft.assumed = [];
    });
    const screen = await Screen.of(FindTab);
    expect(screen.find('figcaption').textContent).toMatch(/best near \d\.\d\d|does as well/);
    expect(screen.all('hs-ratio-curve polyline').length).toBe(1);
    bench.change((draft) => {
      draft.candidates = [
        { ring: 31, pinion: 10 },
        { ring: 47, pinion: 10 },
      ];
    });
    await screen.fixture.whenStable();
    expect(screen.all('hs-ratio-curve').length).toBe(0);
    expect(screen.all('hs-front-picture').length).toBe(1);
  });

  it('what is asked beside the goal is kept first, and what is given for what is drawn', async () => {
    const bench = openBench();
    bench.change((draft) => {
      draft.brief.goal = 'time';
      draft.candidates = [
        { ring: 31, pinion: 10 },
        { ring: 37, pinion: 10 },
        { ring: 47, pinion: 10 },
      ];
      draft.assumed = [];
    });
    const screen = await Screen.of(FindTab);
    const rows = () => screen.all('[data-final]').map((row) => row.dataset['final']);
    const quickest = rows()[0];
    expect(quickest).not.toBe('31/10');
    const points = () => screen.all('hs-front-picture text.label').map((label) => label.textContent?.trim());
    expect(new Set<unknown>(points())).toEqual(new Set<unknown>(rows()));
    expect(screen.all('hs-front-picture text.label.on').length).toBeGreaterThan(1);
    // the tallest alone cruises this slowly: rpm goes with the ratio [exact]
    const cruise = bench.derived()?.figures.get('gearing.cruise')?.value ?? Number.NaN;
    expect(cruise).toBeGreaterThan(0);
    bench.change((draft) => (draft.brief.limits.cruiseRpm = entryOf(Math.ceil((cruise * 3.1) / 4.1) + 1, 'rpm')));
    await screen.fixture.whenStable();
    expect(rows()[0]).toBe('31/10');
    expect(screen.text).toContain('misses a limit of the brief');
    expect(screen.find('.goal').textContent).toContain('cruise at most');
    expect(screen.all('hs-front-picture rect.over').length).toBe(1);
  });

  it('on stand-ins nothing is judged: what is not said is named, no tick stands beside a row', async () => {
    const build = newBuild('Truck');
    build.brief.goal = 'crawl';
    build.assumed = ['brief.crawlRatio', 'gearbox'];
    const bench = openBench(build);
    const screen = await Screen.of(FindTab);
    expect(screen.text).toContain('Nobody has said gearbox, crawl ratio yet');
    const marks = () => new Set(screen.all('hs-verdict svg').map((mark) => mark.getAttribute('aria-label')));
    expect(marks()).toEqual(new Set(['not yet']));
    bench.change((draft) => (draft.assumed = []));
    await screen.fixture.whenStable();
    expect(screen.text).not.toContain('Nobody has said');
    expect(marks().has('not yet')).toBeFalse();
    // Drag, grip and the rest of the car are what a time rests on too.
    bench.change((draft) => {
      draft.brief.goal = 'time';
      draft.assumed = ['road.dragArea'];
    });
    await screen.fixture.whenStable();
    expect(screen.text).toContain('Nobody has said car yet');
  });

  it('a car that can’t move off says which figure is wrong', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.road.grade = entryOf(100, '%')));
    const screen = await Screen.of(FindTab);
    expect(screen.find('[role="alert"]').textContent).toContain('does not move off');
  });
});

describe('the tabs of the gearing sheet', () => {
  it('open by address', async () => {
    openBench();
    for (const [tab, element] of [
      ['thrust', 'hs-thrust-tab'],
      ['ladder', 'hs-ladder-tab'],
      ['match', 'hs-match-tab'],
      ['find', 'hs-find-tab'],
      ['heat', 'hs-heat-tab'],
      ['noise', 'hs-noise-tab'],
    ] as const) {
      const screen = await Screen.of(GearingSheet, { tab });
      expect(screen.all(element).length).withContext(tab).toBe(1);
      screen.fixture.destroy();
    }
    const thrust = await Screen.of(ThrustTab);
    expect(thrust.all('hs-chart').length).toBe(1);
    // this engine pulls to its limiter at 6800 rpm in first; a shift point a gear but the last
    expect(thrust.find('.shifts').textContent).toMatch(/1→2\s*6800/);
    expect(thrust.all('.shifts .mono').length).toBe(4);
  });
});
