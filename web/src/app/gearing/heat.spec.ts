import { entryOf } from '@hot-spline/core';
import { newConverter, type Build } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { HeatTab } from './heat-tab';
import { NoiseTab } from './noise-tab';

/** Figures of a column of the table, top to bottom. */
const column = (screen: Screen<unknown>, n: number): number[] =>
  screen
    .all('tbody tr')
    .map((row) => Number((row.querySelectorAll('td')[n]?.textContent ?? '').replace(/[^\d.-]/g, '')));

function onConverter(change: (draft: Build) => void = () => undefined) {
  const bench = openBench();
  bench.change((draft) => {
    draft.coupling = newConverter();
    Object.assign(draft.brief.climb, { gear: 2, grade: entryOf(20, '%'), load: entryOf(1500, 'kg') });
    change(draft as Build);
  });
  return bench;
}

describe('heat on a climb', () => {
  it('is nothing for a car without a converter, and says so', async () => {
    openBench();
    const screen = await Screen.of(HeatTab);
    expect(screen.all('tbody tr').length).toBe(0);
    expect(screen.text).toContain('converter');
  });

  it('is less with a shorter final drive, more with more to carry', async () => {
    const bench = onConverter((draft) => (draft.candidates = [{ ring: 47, pinion: 10 }]));
    const screen = await Screen.of(HeatTab);
    const [present = 0, shorter = 0] = column(screen, 0);
    expect(shorter).toBeLessThan(present);
    await screen.type('Carried or towed', '2000 kg');
    expect(column(screen, 0)[0]).toBeGreaterThan(present);
    expect(bench.build()?.brief.climb.load.value).toBe(2000);
  });

  it('has the final drive before the change beside it, on its own tyre', async () => {
    onConverter((draft) => (draft.brief.was = { finalDrive: { ring: 33, pinion: 10 }, tyre: '285/75R17' }));
    const screen = await Screen.of(HeatTab);
    expect(screen.text).toContain('before, on 285/75R17');
    const [present = 0, before = 0] = column(screen, 0);
    expect(before).toBeGreaterThan(present); // taller on larger wheels: the turbine turns slower
  });

  it('says which final drive can’t hold the speed', async () => {
    onConverter((draft) => {
      draft.brief.climb.grade = entryOf(70, '%');
      draft.brief.climb.gear = 4;
    });
    const screen = await Screen.of(HeatTab);
    expect(screen.text).toContain('can’t hold it');
  });
});

describe('where a whine comes from', () => {
  it('mesh and bearings at the speed where it is heard', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.brief.noise.speed = entryOf(90, 'km/h')));
    const screen = await Screen.of(NoiseTab);
    const circumference = (bench.derived()?.gearing.rear?.circumferenceMm ?? 0) / 1000;
    const pinionHz = (25 * 4.1) / circumference; // n = v·i/C [exact]
    const [mesh, twice, once, joints] = column(screen, 0);
    expect(mesh).toBeCloseTo(10 * pinionHz, 0);
    expect(twice).toBeCloseTo(20 * pinionHz, 0);
    expect(once).toBeCloseTo(pinionHz, 0);
    expect(joints).toBeCloseTo(2 * pinionHz, 0);
    // rolling-bearing kinematics [standard]: outer and inner race together see every roller once a turn
    const [outer = 0, inner = 0, roller = 0, cage = 0] = column(screen, 1).slice(4);
    expect(outer + inner).toBeCloseTo(bench.build()?.brief.noise.rollers ?? 0, 1);
    expect(cage).toBeLessThan(0.5);
    expect(roller).toBeGreaterThan(1);
  });

  it('refuses a bearing that can’t be, by name', async () => {
    const bench = openBench();
    const screen = await Screen.of(NoiseTab);
    await screen.type('Roller Ø ÷ pitch Ø', '1.2');
    expect(screen.said('Roller Ø ÷ pitch Ø')).toContain('0.9');
    await screen.type('Contact angle', '95');
    expect(screen.said('Contact angle')).toContain('80');
    expect(bench.build()?.brief.noise.contactAngle.value).not.toBe(95);
  });
});
