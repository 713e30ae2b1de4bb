import { entryBase, entryOf } from '@hot-spline/core';
import type { Build } from '@hot-spline/model';
import { Screen, openBench, until } from '../../testing/harness';
import { plateBuild } from '../../testing/drift';
import { chartColours } from '../shared/chart';
import { courseOption } from './course-chart';
import { SetsSheet } from './sets-sheet';

function hillBuild(): Build {
  const build = plateBuild();
  build.course = {
    name: 'Hill',
    lengthM: 700,
    startMps: 0,
    fastestMps: null,
    corners: [
      { atM: 160, lengthM: 12, speedMps: 13, brakingMps2: 9 },
      { atM: 420, lengthM: 10, speedMps: 19, brakingMps2: 9 },
    ],
    slopes: [],
    log: null,
  };
  const ratios = [3.3, 2, 1.4, 1.1, 0.9];
  build.shelf.pairs = ratios.flatMap((ratio, k) =>
    [-1, 0, 1].map((d) => ({
      id: `s${k}${d + 1}`,
      driver: 20,
      driven: Math.round(20 * ratio) + d,
      positions: [k + 1],
      torqueLimit: null,
    })),
  );
  build.shelf.finals = [
    { ring: 41, pinion: 10 },
    { ring: 37, pinion: 10 },
  ];
  return build;
}

describe('gear sets', () => {
  it('searches in the worker, says whether the answer is proven, and takes a set', async () => {
    const bench = openBench(hillBuild());
    const screen = await Screen.of(SetsSheet);
    await screen.click('Search the shelf');
    await until(() => screen.text.includes('Proven best of'));
    expect(screen.text).toContain('Proven best of 486 sets'); // 3⁵ · 2 [exact]
    // sets within a millisecond of a quicker one stand behind it: ten in all
    const behind = (): HTMLButtonElement[] => [...screen.element.querySelectorAll<HTMLButtonElement>('button.level')];
    const rows = (): number => screen.element.querySelectorAll('tbody tr:not(.present)').length;
    const hidden = behind().reduce((sum, button) => sum + Number(/\d+/.exec(button.textContent ?? '')?.[0]), 0);
    expect(rows() + hidden).toBe(10);
    const before = rows();
    for (const button of behind()) button.click();
    await screen.fixture.whenStable();
    expect(rows()).toBe(10);
    expect(rows() - before).toBe(hidden);
    await screen.fixture.whenStable();
    await screen.click('Take set 1');
    expect(bench.build()?.gearbox.gears[0]?.ratio.typed).toMatch(/^\d+\/20$/);
    await screen.fixture.whenStable();
    expect(screen.text).toContain('In the box');
  });

  it('a box that stays as it is: finals are compared with its own gears, and only the final is taken', async () => {
    const build = hillBuild();
    build.shelf.pairs = [];
    const gears = build.gearbox.gears.map(({ ratio }) => ratio.typed);
    const bench = openBench(build);
    const screen = await Screen.of(SetsSheet);
    await screen.click('Search the shelf');
    await until(() => screen.text.includes('Proven best of 2 sets'));
    await screen.fixture.whenStable();
    const first = screen.find('tbody tr:not(.present) td.mono').textContent?.trim();
    expect(first).toMatch(/^\d+\/\d+$/);
    await screen.click('Take set 1');
    expect(bench.build()?.gearbox.gears.map(({ ratio }) => ratio.typed)).toEqual(gears);
    const { ring, pinion } = bench.axle()?.finalDrive ?? { ring: 0, pinion: 0 };
    expect(`${ring}/${pinion}`).toBe(first ?? '');
  });

  it('each set says how fast it wears against the one that is in; without teeth it says that', async () => {
    const build = hillBuild();
    const teeth = [
      [66, 20],
      [40, 20],
      [28, 20],
      [22, 20],
      [18, 20],
    ] as const;
    build.gearbox.gears.forEach((gear, i) => {
      const [driven, driver] = teeth[i] ?? [20, 20];
      gear.ratio = { typed: `${driven}/${driver}`, value: driven / driver, unit: '' };
    });
    const bench = openBench(build);
    const screen = await Screen.of(SetsSheet);
    await screen.click('Search the shelf');
    await until(() => screen.text.includes('Proven best of'));
    await screen.fixture.whenStable();
    const wears = () =>
      screen.all('tbody tr:not(.present)').map((row) => row.querySelector('td:nth-last-child(2)')?.textContent?.trim());
    for (const one of wears()) expect(one).toMatch(/^×\d+\.\d\d in \d$/);
    bench.change((draft) => draft.gearbox.gears.forEach((gear) => (gear.ratio = entryOf(gear.ratio.value, ''))));
    await screen.fixture.whenStable();
    expect(new Set(wears())).toEqual(new Set(['teeth not said']));
  });

  it('another question makes the answer an old one', async () => {
    const bench = openBench(hillBuild());
    const screen = await Screen.of(SetsSheet);
    await screen.click('Search the shelf');
    await until(() => screen.text.includes('Proven best of'));
    bench.change((draft) => (draft.road.mass = entryOf(1500, 'kg')));
    await screen.fixture.whenStable();
    expect(screen.text).toContain('The build has changed since');
  });

  it('says which rule leaves nothing', async () => {
    const build = hillBuild();
    build.shelf.floorRpm = 9000;
    openBench(build);
    const screen = await Screen.of(SetsSheet);
    await screen.click('Search the shelf');
    await until(() => screen.all('[role="alert"]').length > 0);
    expect(screen.find('[role="alert"]').textContent).toContain('rpm floor');
  });

  it('pairs go on the shelf several at once, finals too', async () => {
    const bench = openBench(hillBuild());
    const screen = await Screen.of(SetsSheet, { tab: 'shelf' });
    await screen.type('Pairs for gear 2', '35/17, 36/17');
    expect(bench.build()?.shelf.pairs.filter(({ positions }) => positions.includes(2)).length).toBe(5);
    for (const bad of ['35', 'a/b', '35/0', ',']) {
      await screen.type('Pairs for gear 2', bad);
      expect(screen.said('Pairs for gear 2')).withContext(bad).toContain('Pairs for gear 2');
    }
    await screen.type('Add final drives, with commas', '43/11, 44/11');
    expect(bench.build()?.shelf.finals.length).toBe(4);
    await screen.click('Remove final 44/11');
    await screen.click('Remove final 41/10');
    expect(bench.build()?.shelf.finals.length).toBe(2);
    await screen.type('No shift ends below', '3000');
    await screen.choose('Steps', 'descending');
    await screen.type('Every pair stands', '250 Nm');
    expect(bench.build()?.shelf.floorRpm).toBe(3000);
    expect(bench.build()?.shelf.pairs.every(({ torqueLimit }) => torqueLimit?.value === 250)).toBeTrue();
  });

  it('pairs without a gear go to the gear whose ratio is nearest; a colon says the driver first; cleared in one', async () => {
    const build = hillBuild();
    build.shelf.pairs = [];
    const bench = openBench(build);
    const gears = build.gearbox.gears.map(({ ratio }) => entryBase(ratio));
    const nearest = (ratio: number): number => {
      const away = gears.map((gear) => Math.abs(Math.log(ratio / gear)));
      return away.indexOf(Math.min(...away)) + 1;
    };
    const screen = await Screen.of(SetsSheet, { tab: 'shelf' });
    await screen.type('Pairs, sorted to the gears by their ratio', '17:36, 24/25, 66/20');
    const pairs = bench.build()?.shelf.pairs ?? [];
    expect(pairs.map(({ driven, driver }) => [driven, driver])).toEqual([
      [36, 17],
      [24, 25],
      [66, 20],
    ]);
    expect(pairs.map(({ positions }) => positions)).toEqual([36 / 17, 24 / 25, 66 / 20].map((r) => [nearest(r)]));
    await screen.type('Add final drives, with commas', '11:41');
    expect(bench.build()?.shelf.finals.at(-1)).toEqual({ ring: 41, pinion: 11 });
    await screen.click('Clear the shelf');
    expect([bench.build()?.shelf.pairs.length, bench.build()?.shelf.finals.length]).toEqual([0, 0]);
    bench.undo();
    expect(bench.build()?.shelf.pairs.length).toBe(3);
  });

  it('slopes are said from where on, and the course is cleared in one', async () => {
    const bench = openBench(hillBuild());
    const screen = await Screen.of(SetsSheet, { tab: 'course' });
    await screen.type('Add a slope: from where, percent', '300, 7 %');
    await screen.type('Add a slope: from where, percent', '0 m, -4');
    const inch = bench.system() === 'inch' ? 0.3048 : 1;
    expect(bench.build()?.course?.slopes).toEqual([
      { atM: 0, gradePercent: -4 },
      { atM: 300 * inch, gradePercent: 7 },
    ]);
    for (const bad of ['300', '300, 7, 2', '300, steep', '99999 m, 2', '10, 80'])
      await screen.type('Add a slope: from where, percent', bad);
    expect(bench.build()?.course?.slopes.length).toBe(2);
    await screen.click('Clear the course');
    expect(bench.build()?.course).toBeNull();
    bench.undo();
    expect(bench.build()?.course?.slopes.length).toBe(2);
  });

  it('the log lies under the model, and it is said where they differ', async () => {
    const build = hillBuild();
    if (build.course)
      build.course.log = {
        timeS: 40,
        samples: Array.from({ length: 71 }, (_, i) => ({ atM: 10 * i, speedMps: 12 + (i % 20) / 4 })),
      };
    openBench(build);
    const screen = await Screen.of(SetsSheet);
    expect(screen.find('.log').textContent).toMatch(/The log took \d+\.\d\d s, the model takes \d+\.\d\d s/);
    expect(screen.find('.log').textContent).toMatch(/quicker than driven\. Most of it: .* on the way to/);
  });

  it('corners are entered by hand, in order; a corner past another is refused by the course', async () => {
    const bench = openBench();
    const screen = await Screen.of(SetsSheet, { tab: 'course' });
    await screen.click('Enter corners by hand');
    await screen.type('Add a corner: where, length, speed, braking in g', '300, 15, 60, 1');
    await screen.type('Add a corner: where, length, speed, braking in g', '120 m, 10 m, 50 km/h, 0.9');
    const corners = bench.build()?.course?.corners ?? [];
    expect(corners.map(({ atM }) => atM)).toEqual([120, 300]);
    expect(corners[0]?.brakingMps2).toBeCloseTo(0.9 * 9.80665, 9); // [exact]
    await screen.type('Add a corner: where, length, speed, braking in g', '300');
    expect(screen.said('Add a corner: where, length, speed, braking in g')).toContain('Corner needs');
    await screen.click('Remove corner 1');
    expect(bench.build()?.course?.corners.length).toBe(1);
  });

  it('a trace is read in the worker, confirmed and taken', async () => {
    const bench = openBench();
    const screen = await Screen.of(SetsSheet, { tab: 'course' });
    const rows = Array.from(
      { length: 1200 },
      (_, i) => `${(i * 0.05).toFixed(2)},${(90 + 50 * Math.sin(i / 80)).toFixed(2)}`,
    );
    rows.splice(50, 0, 'oops,1');
    const file = new File([`Time (s),Speed\n${rows.join('\n')}`], 'lap one.csv', { type: 'text/csv' });
    const transfer = new DataTransfer();
    transfer.items.add(file);
    const picker = screen.find<HTMLInputElement>('input[type="file"]');
    picker.files = transfer.files;
    picker.dispatchEvent(new Event('change'));
    await until(() => screen.text.includes('1,201 rows'));
    expect(screen.text).toContain('does not name its units');
    expect(screen.text).toContain('time is not a number');
    await screen.choose('Speed in', 'mph');
    await until(() => screen.text.includes('1,201 rows'));
    await screen.click('Take this course');
    expect(bench.build()?.course?.name).toBe('lap one');
    expect(bench.build()?.course?.fastestMps).toBeCloseTo(140 * 0.44704, 0);
  });
});

describe('the course chart', () => {
  it('draws speed above and rpm below, the found set first', () => {
    const point = { distanceM: 100, timeS: 4, speedMps: 20, gear: 1, rpm: 5000 };
    const option = courseOption({
      lines: [
        { label: 'found', points: [point] },
        { label: 'present', points: [{ ...point, rpm: 6000 }] },
      ],
      limitRpm: 6800,
      system: 'inch',
      colours: chartColours(),
    }) as unknown as { series: { id: string; data: number[][]; xAxisIndex: number }[] };
    expect(option.series.find(({ id }) => id === 'speed-0')?.data[0]).toEqual([100 / 0.3048, 20 / 0.44704]);
    expect(option.series.find(({ id }) => id === 'rpm-1')).toEqual(jasmine.objectContaining({ xAxisIndex: 1 }));
  });
});
