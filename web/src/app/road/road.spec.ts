import { entryOf, roadRun, type Run } from '@hot-spline/core';
import { axleGearingState, vehicleOf } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { plateBuild } from '../../testing/drift';
import { chartColours } from '../shared/chart';
import { RoadSheet } from './road-sheet';
import { gapTo, runOption } from './run-chart';

function aRun(): Run {
  const build = plateBuild();
  if (!build.axles.rear) throw new Error('no axle');
  const vehicle = vehicleOf(build, 'rear', axleGearingState('rear', build.axles.rear));
  return roadRun(vehicle, { distanceM: 402.336, trace: true });
}

describe('the run chart', () => {
  const run = aRun();
  const series = (along: 'time' | 'distance') =>
    (
      runOption({ lines: [{ label: '41/10', run }], along, system: 'metric', colours: chartColours() }) as unknown as {
        series: { id: string; data: (number | null)[][] }[];
      }
    ).series;

  it('ends where the run ends, over time and over distance', () => {
    const end = (along: 'time' | 'distance') =>
      series(along)
        .find(({ id }) => id === 'run-0')
        ?.data.at(-1);
    expect(end('time')?.[0]).toBe(run.timeS);
    expect(end('time')?.[1]).toBeCloseTo(run.speedMps * 3.6, 9);
    expect(end('distance')?.[0]).toBeCloseTo(402.336, 9);
  });

  it('marks where the tyres are the limit, with gaps elsewhere', () => {
    const marked = series('time').find(({ id }) => id === 'tyre-limit')?.data ?? [];
    const limited = run.trace.filter(({ limit }) => limit === 'tyre').length;
    expect(marked.filter(([x]) => x !== null).length).toBe(limited);
  });
});

describe('how far two runs are apart', () => {
  const run = (speedMps: number, until: number): Run =>
    ({
      trace: [0, 0.3, 1].map((share) => ({ timeS: share * until, distanceM: share * until * speedMps })),
    }) as unknown as Run;

  it('seconds at the same place, metres at the same time: of two that go evenly, by hand', () => {
    // 20 and 25 m/s: after 100 m 5 s and 4 s, after 4 s 80 m and 100 m
    const behind = gapTo(run(20, 5), run(25, 5), 'distance');
    expect(behind.at(-1)?.[0]).toBeCloseTo(100, 9);
    expect(behind.at(-1)?.[1]).toBeCloseTo(-1, 9);
    const ahead = gapTo(run(20, 4), run(25, 5), 'time');
    expect(ahead.at(-1)?.[0]).toBeCloseTo(4, 9);
    expect(ahead.at(-1)?.[1]).toBeCloseTo(20, 9);
    expect(ahead[0]).toEqual([0, 0]);
  });

  it('says nothing past the end of the other', () => {
    expect(gapTo(run(20, 5), run(25, 2), 'time').map(([x]) => x)).toEqual([0, 1.5]);
    const own = aRun();
    expect(gapTo(own, own, 'distance').every(([, gap]) => Math.abs(gap) < 1e-9)).toBeTrue();
  });
});

describe('the run sheet', () => {
  it('lays the candidates over the present drive, marks in a table', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.candidates = [{ ring: 37, pinion: 10 }]));
    const screen = await Screen.of(RoadSheet);
    const heads = screen.all('thead th').map((th) => th.textContent?.trim());
    expect(heads).toEqual(['s, km/h', '18 m', '101 m', '201 m', '305 m', '402 m', '0–100', '80–120', 'tyre-limited']);
    expect(screen.all('tbody tr').length).toBe(3); // present, candidate, seconds by gear
  });

  it('grip, slope, launch and shift time change the run', async () => {
    const bench = openBench();
    const screen = await Screen.of(RoadSheet);
    const time = () => bench.figure('road.time')?.value ?? 0;
    const before = time();
    await screen.type('A shift takes', '600 ms');
    const slower = time();
    expect(slower).toBeGreaterThan(before);
    await screen.type('Slope', '8');
    expect(time()).toBeGreaterThan(slower);
    await screen.type('Finish at', '660 ft');
    expect(time()).toBeLessThan(before);
    await screen.type('Grip μ', '0');
    expect(bench.build()?.road.grip.value).toBe(1);
    expect(screen.said('Grip μ')).toContain('more than 0');
  });

  it('a car that can’t move off says why in place of a picture', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.road.grade = entryOf(100, '%')));
    const screen = await Screen.of(RoadSheet);
    expect(screen.find('[role="alert"]').textContent).toContain('does not move off');
    expect(screen.figure('road.time')).toContain('not reached');
  });
});
