import { entryOf } from '@hot-spline/core';
import { CompareTab } from './compare-tab';
import { deriveBuild, insertFit, lockCurve } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { Screen, openBench, plateOf } from '../../testing/harness';
import { chartColours } from '../shared/chart';
import { lockOption } from './lock-chart';
import { RampDrawing } from './ramp-drawing';
import { TuneTab } from './tune-tab';
import { UnitSheet } from './unit-sheet';

describe('the unit sheet', () => {
  it('quotes the same ramps the other way without touching the steel', async () => {
    const bench = openBench();
    const screen = await Screen.of(UnitSheet);
    const bias = screen.figure('unit.rear.drive.bias');
    await screen.choose('The maker quotes the ramp as', 'axis');
    expect(plateOf(bench).driveRamp.value).toBe(40); // 90° − 50° [exact]
    expect(plateOf(bench).overrunRamp.value).toBe(20);
    expect(screen.figure('unit.rear.drive.bias')).toBe(bias);
    await screen.choose('The maker quotes the ramp as', 'rotation-plane');
    expect(plateOf(bench).driveRamp.value).toBe(50);
  });

  it('asks for an overrun ramp only where it works', async () => {
    const bench = openBench();
    const screen = await Screen.of(UnitSheet);
    expect(screen.text).toContain('as drive');
    bench.changePlate((plate) => (plate.action = 'one-way'));
    await screen.fixture.whenStable();
    expect(screen.find('.told').textContent).toContain('none');
    bench.changePlate((plate) => (plate.action = 'one-and-a-half-way'));
    await screen.fixture.whenStable();
    await screen.type('Overrun ramp', '75');
    expect(plateOf(bench).overrunRamp).toEqual({ typed: '75', value: 75, unit: '°' });
  });

  it('refuses ramps beyond 90° and text, in place', async () => {
    const bench = openBench();
    const screen = await Screen.of(UnitSheet);
    for (const bad of ['91', '-1', 'steep', '1e308']) {
      await screen.type('Drive ramp', bad);
      expect(screen.field('Drive ramp').getAttribute('aria-invalid')).withContext(bad).toBe('true');
      expect(screen.said('Drive ramp')).withContext(bad).toContain('Drive ramp');
      await screen.type('Drive ramp', bad, 'Escape');
    }
    expect(plateOf(bench).driveRamp.value).toBe(50);
  });

  it('says the caution of a spool, and brings the plates back', async () => {
    const bench = openBench();
    const screen = await Screen.of(UnitSheet);
    bench.changeAxle((axle) => (axle.unit.type = 'spool'));
    await screen.fixture.whenStable();
    expect(screen.find('.caution').textContent).toContain('off its stands');
    expect(screen.figure('unit.rear.drive.bias')).toBe('locked');
    bench.changeAxle((axle) => (axle.unit.type = 'open'));
    await screen.fixture.whenStable();
    expect(screen.figure('unit.rear.drive.bias')).toBe('1.00');
    bench.changeAxle((axle) => (axle.unit.type = 'plate'));
    await screen.fixture.whenStable();
    expect(screen.field('Drive ramp').value).toBe('50 °');
  });

  it('asks for what each type is described by, and works its lock out', async () => {
    const bench = openBench();
    const screen = await Screen.of(UnitSheet);
    await screen.choose('Type', 'helical');
    await screen.type('Bias ratio of the gears', '3');
    const { lock } = bench.derived()?.axles.rear?.unit ?? {};
    expect(lock?.('drive', 400).lockNm).toBeCloseTo(200, 9); // S = (3 − 1)/(3 + 1) [exact]
    expect(screen.text).toContain('Not tunable');
    await screen.choose('Type', 'cone');
    await screen.type('Half cone angle', '0');
    expect(screen.said('Half cone angle')).toContain('Half cone angle');
    await screen.choose('Type', 'selectable-locker');
    expect(screen.figure('unit.rear.drive.bias')).toBe('locked');
    await screen.click(screen.find('#locker-engaged'));
    expect(screen.figure('unit.rear.drive.bias')).toBe('1.00');
    await screen.choose('Type', 'friction-insert');
    await screen.type('Fit, measured', '0.2 mm');
    expect(bench.readings().get(insertFit.key({ axle: 'rear' }))?.value).toEqual({
      of: 'number',
      counts: 'least',
      entries: [entryOf(0.2, 'mm')],
    });
  });
});

describe('the lock chart', () => {
  interface Line {
    id: string;
    data: number[][];
  }
  const lines = (system: 'inch' | 'metric') => {
    const unit = deriveBuild(plateBuild(), []).axles.rear?.unit;
    if (!unit) throw new Error('no unit');
    const option = lockOption({
      curve: lockCurve(unit, 1000, 10),
      mostNm: 1000,
      point: { inputNm: 800, lockNm: unit.lock('drive', 800).lockNm },
      system,
      colours: chartColours(),
    });
    return { unit, series: (option as unknown as { series: Line[] }).series };
  };

  it('holds the unit between an open differential and a spool', () => {
    const { unit, series } = lines('metric');
    const of = (id: string) => series.find((line) => line.id === id)?.data ?? [];
    expect(of('open').every(([, lock]) => lock === 0)).toBeTrue();
    expect(of('spool').every(([input = 0, lock]) => lock === Math.abs(input))).toBeTrue();
    const zero = of('unit').find(([input]) => input === 0);
    expect(zero?.[1]).toBeCloseTo(unit.preloadNm, 9);
  });

  it('shows the same torque in either system', () => {
    const at = (system: 'inch' | 'metric') =>
      lines(system).series.find((line) => line.id === 'point')?.data[0]?.[0] ?? 0;
    expect(at('metric') / at('inch')).toBeCloseTo(1.3558179483, 9); // [standard: NIST SP 811]
  });
});

describe('the ramp drawing', () => {
  /** Slope of the upper face of the right ring's notch, from its path: across over up. */
  async function slope(angle: number, from: 'axis' | 'rotation-plane'): Promise<number> {
    const screen = await Screen.of(RampDrawing, { angle, from });
    const path = screen.all('path[stroke="var(--ink)"]')[1]?.getAttribute('d') ?? '';
    const [, top = '', corner = ''] = /V([\d.]+)L([\d.]+) 66/.exec(path) ?? [];
    return (Number(corner) - 138) / (66 - Number(top));
  }

  it('draws the angle from the plane of rotation in either convention', async () => {
    openBench();
    expect(await slope(45, 'rotation-plane')).toBeCloseTo(1, 6); // tan 45° [exact]
    expect(await slope(30, 'rotation-plane')).toBeCloseTo(Math.tan(Math.PI / 6), 6);
    expect(await slope(60, 'axis')).toBeCloseTo(Math.tan(Math.PI / 6), 6);
  });

  it('says from where the angle is measured', async () => {
    openBench();
    expect((await Screen.of(RampDrawing, { angle: 40, from: 'axis' })).text).toContain('40° from the axis');
    expect((await Screen.of(RampDrawing, { angle: 40, from: 'rotation-plane' })).text).toContain('40° from rotation');
  });
});

describe('units side by side', () => {
  const cells = (screen: Screen<CompareTab>, label: string): string[] => {
    const row = screen.all('tbody tr').find((tr) => tr.querySelector('.name')?.textContent === label);
    return [...(row?.querySelectorAll('.thrust') ?? [])].map((cell) =>
      (cell.textContent ?? '').replace(/[^\d−-]/g, ''),
    );
  };

  const every = (screen: Screen<CompareTab>) => screen.choose('Show', 'situations');

  it('the build’s own unit and every other type, in seven situations, ranked for the use', async () => {
    openBench();
    const screen = await Screen.of(CompareTab);
    const rows = screen.all('tbody .name').map((name) => name.textContent);
    expect(rows).toContain('This one: plate, with ramps');
    const scores = screen.all('tbody .score').map((one) => Number(one.textContent));
    expect(scores).toEqual([...scores].sort((a, b) => b - a));
    expect(rows.length).toBe(11);
    expect(screen.all('thead .weights input').length).toBe(9);
    await every(screen);
    expect(cells(screen, 'Open').length).toBe(7);
    expect(cells(screen, 'Helical')[1]).toBe('0'); // a wheel in the air gets nothing without preload or brake
  });

  it('weights are the builder’s to change, and come back as usual', async () => {
    const bench = openBench();
    const screen = await Screen.of(CompareTab);
    const names = () => screen.all('tbody .name').map((name) => name.textContent);
    const before = names();
    for (const box of screen.all('thead .weights input') as HTMLInputElement[]) {
      box.value = box.getAttribute('aria-label') === 'Weight of price' ? '50' : '0';
      box.dispatchEvent(new Event('change'));
      await screen.fixture.whenStable();
    }
    expect(names()[0]).toBe('Open');
    expect(bench.build()?.brief.unitWeights?.price).toBe(50);
    const [box] = screen.all('thead .weights input') as HTMLInputElement[];
    if (!box) throw new Error('no weight');
    box.value = '101';
    box.dispatchEvent(new Event('change'));
    await screen.fixture.whenStable();
    expect(screen.find('[role="alert"]').textContent).toContain('0 to 100');
    await screen.click('as usual');
    expect(bench.build()?.brief.unitWeights).toBeNull();
    expect(names()).toEqual(before);
  });

  it('sliders change what is asked: a dabbed brake gives TBR times itself to the other wheel', async () => {
    const bench = openBench();
    const screen = await Screen.of(CompareTab);
    await every(screen);
    const brake = screen.find<HTMLInputElement>('#compare-brakeNm');
    const thrusts: number[] = [];
    for (const value of ['100', '200']) {
      brake.value = value;
      brake.dispatchEvent(new Event('input'));
      await screen.fixture.whenStable();
      thrusts.push(Number(cells(screen, 'Helical')[2]));
    }
    expect((thrusts[1] ?? 0) / (thrusts[0] ?? 1)).toBeCloseTo(2, 1); // T_b·TBR [exact]
    expect(bench.canUndo()).toBeFalse();
  });

  it('rows stand still while a slider moves, are sorted when it is let go, and three can be kept at the top', async () => {
    openBench();
    const screen = await Screen.of(CompareTab);
    await every(screen);
    const names = () => screen.all('tbody .name').map((one) => one.textContent);
    const before = names();
    const input = screen.find<HTMLInputElement>('#compare-splitShare');
    input.value = input.max;
    input.dispatchEvent(new Event('input'));
    await screen.fixture.whenStable();
    expect(names()).toEqual(before);
    input.dispatchEvent(new Event('change'));
    await screen.fixture.whenStable();
    const scores = screen.all('tbody .score').map((one) => Number(one.textContent));
    expect(scores).toEqual([...scores].sort((a, b) => b - a));
    const last = names().at(-1) ?? '';
    await screen.click(`Keep ${last} at the top`);
    expect(names()[0]).toBe(last);
    await screen.click(`Keep ${last} at the top`);
    expect(names().at(-1)).toBe(last);
  });

  it('an open axle is marked as the build’s own', async () => {
    const build = plateBuild();
    if (build.axles.rear) build.axles.rear.unit.type = 'open';
    openBench(build);
    const screen = await Screen.of(CompareTab);
    expect(screen.find('tr.own .name').textContent).toBe('This one: open');
    expect(cells(screen, 'Open')).withContext('not twice').toEqual([]);
  });

  it('shows what each wheel gets and the shafts see: of the own unit, or of the one that is chosen', async () => {
    openBench();
    const screen = await Screen.of(CompareTab);
    await every(screen);
    const open = () => screen.all('.who[aria-pressed="true"]').map((one) => one.textContent?.trim());
    expect(open()).toEqual(['This one: plate, with ramps']);
    await screen.click('Spool');
    expect(open()).toEqual(['Spool']);
    const wheels = (): (string | undefined)[][] =>
      screen
        .all('hs-compare-wheels tbody tr')
        .map((row) => [...row.querySelectorAll('td')].map((cell) => cell.textContent?.trim()));
    expect(wheels().map((row) => row.length)).toEqual([7, 7, 7]);
    // a wheel in the air gets nothing from a spool, the other all, and so does its shaft [exact]
    const [left = [], right = [], shaft = []] = wheels();
    expect(left[1]).toBe('0');
    expect(Number(right[1]?.replace(/\s/g, ''))).toBeGreaterThan(0);
    expect(shaft[1]).toBe(right[1]);
    expect(screen.find('hs-compare-wheels h2').textContent).toBe('Spool');
  });

  it('another type is taken into the build, with ordinary values, and undone', async () => {
    const bench = openBench();
    const screen = await Screen.of(CompareTab);
    await screen.click('Take Helical into the build');
    expect(bench.axle()?.unit.type).toBe('helical');
    expect(screen.find('tr.own .name').textContent).toBe('This one: helical');
    expect(bench.plates()).withContext('kept, but not at work').toBeNull();
    expect(bench.plate()).not.toBeNull();
    bench.undo();
    expect(bench.axle()?.unit.type).toBe('plate');
  });
});

describe('tuning', () => {
  it('answers what the driver says with steps; one is taken and undone', async () => {
    const bench = openBench();
    const screen = await Screen.of(TuneTab);
    expect(screen.text).toContain('Choose what the driver says');
    await screen.click('pushes wide');
    expect(bench.build()?.brief.complaints).toEqual(['pushes-wide']);
    const step = screen.all('tbody tr')[0];
    expect(step?.textContent).toMatch(/drive ramp 50° → 55°/i);
    const lock = (n: number): number =>
      Number(
        /(\d+) %/.exec(
          [...(step?.querySelectorAll('td') ?? [])][0]?.querySelectorAll('.mono')[n]?.textContent ?? '',
        )?.[1],
      );
    expect(lock(1)).toBeLessThan(lock(0));
    const promised = lock(1);
    await screen.click(step?.querySelector('button') ?? 'Take it');
    expect(plateOf(bench).driveRamp.value).toBe(55);
    const input = bench.derived()?.inputNm ?? 1;
    expect(Math.round((100 * (bench.figure('unit.rear.drive.lock')?.value ?? 0)) / input)).toBe(promised);
    bench.undo();
    expect(plateOf(bench).driveRamp.value).toBe(50);
  });

  it('asks where in the turn and which wheel; one side always is of the packs, and each step says what it does besides', async () => {
    const build = plateBuild();
    build.brief.complaints = ['pushes-wide', 'one-wheel-spins', 'chatters'];
    const bench = openBench(build);
    const screen = await Screen.of(TuneTab);
    expect(screen.text).toContain('goes with the oil');
    await screen.choose('Where in the turn , pushes wide', 'middle');
    expect(bench.build()?.brief.complaintAt).toEqual([{ complaint: 'pushes-wide', wheel: null, where: 'middle' }]);
    expect(screen.find('#complaint-pushes-wide tbody tr').textContent).toMatch(/shim|interfaces/);
    await screen.choose('Which wheel , one wheel spins', 'left');
    expect(screen.find('#complaint-one-wheel-spins').textContent).toMatch(
      /Always the left wheel: the left pack holds .*, the right .*\./,
    );
    bench.undo();
    bench.undo();
    expect(bench.build()?.brief.complaintAt).toEqual([]);
  });

  it('keeps complaints that are not the unit’s', async () => {
    const build = plateBuild();
    build.brief.complaints = ['whines', 'chatters'];
    const bench = openBench(build);
    const screen = await Screen.of(TuneTab);
    expect(screen.text).toContain('friction additive');
    await screen.click('chatters');
    expect(bench.build()?.brief.complaints).toEqual(['whines']);
  });

  it('a shim step moves the target height only', async () => {
    const build = plateBuild();
    build.brief.complaints = ['chatters'];
    const bench = openBench(build);
    const before = structuredClone(plateOf(bench));
    const screen = await Screen.of(TuneTab);
    const aim = screen.all('button').find((button) => button.textContent?.trim() === 'Aim for it');
    await screen.click(aim ?? 'Aim for it');
    expect(plateOf(bench).targetHeight.value).toBeCloseTo(before.targetHeight.value - 0.1, 6);
    expect(plateOf(bench).packs).toEqual(before.packs);
  });

  it('an open axle has nothing to tune', async () => {
    const build = plateBuild();
    build.brief.complaints = ['chatters'];
    if (build.axles.rear) build.axles.rear.unit.type = 'open';
    openBench(build);
    const screen = await Screen.of(TuneTab);
    expect(screen.text).toContain('Only a plate unit is tuned');
  });
});
