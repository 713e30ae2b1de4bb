import { chartColours } from '../shared/chart';
import { Screen, openBench } from '../../testing/harness';
import { EngineSheet } from './engine-sheet';
import { torqueOption } from './torque-chart';

describe('the engine sheet', () => {
  it('changes launch, limiter and ratios, each as one undoable step', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.type('Launches at', '4200');
    await screen.type('Limiter', '7100');
    await screen.type('Gear 1', '41/13');
    expect(bench.build()?.engine.launchRpm).toBe(4200);
    expect(bench.build()?.engine.limitRpm).toBe(7100);
    expect(bench.build()?.gearbox.gears[0]?.ratio).toEqual({ typed: '41/13', value: 41 / 13, unit: '' });
    expect(screen.said('Gear 1')).toBe('3.154');
    bench.undo();
    bench.undo();
    bench.undo();
    expect(bench.build()?.engine.launchRpm).toBe(3000);
    expect(bench.canUndo()).toBeFalse();
  });

  it('keeps a torque point as typed and in order of rpm', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.type('Point 2 torque', '200 lbf·ft');
    expect(bench.build()?.engine.torqueCurve[1]?.torque).toEqual({ typed: '200 lbf·ft', value: 200, unit: 'lbf·ft' });
    await screen.type('Point 1 rpm', '5000');
    expect(bench.build()?.engine.torqueCurve.map((point) => point.rpm)).toEqual([4000, 5000, 6500]);
  });

  it('refuses two points at one rpm and keeps the curve', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.type('Point 1 rpm', '4000');
    expect(bench.build()?.engine.torqueCurve.map((point) => point.rpm)).toEqual([1500, 4000, 6500]);
    expect(bench.canUndo()).toBeFalse();
  });

  it('adds and removes points and gears; the operating point stays on a gear that is there', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.click('Add point');
    expect(bench.build()?.engine.torqueCurve.length).toBe(4);
    await screen.click('Remove point 4');
    expect(bench.build()?.engine.torqueCurve.length).toBe(3);
    await screen.click('Add gear');
    // the new gear is 0.82 of the last one, to be replaced by the builder's
    expect(bench.build()?.gearbox.gears.at(-1)?.ratio.value).toBeCloseTo(0.9 * 0.82, 3);
    bench.lookAt({ gear: 5 });
    await screen.fixture.whenStable();
    await screen.click('Remove gear 6');
    expect(bench.point().gear).toBe(4);
  });

  it('changes the coupling and asks what belongs to it', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    expect(screen.figure('coupling.margin')).toBe('1.50'); // 300 / 200 [exact]
    await screen.choose('Coupling', 'converter');
    await screen.type('Rated stall', '2400');
    await screen.type('Multiplies at stall', '1.9');
    const coupling = bench.build()?.coupling;
    expect(coupling).toEqual(jasmine.objectContaining({ kind: 'converter', stallRpm: 2400 }));
    expect(coupling?.kind === 'converter' ? coupling.torqueRatio.value : 0).toBe(1.9);
    expect(() => screen.field('Clutch holds')).toThrowError(/no field/);
    await screen.choose('Coupling', 'direct');
    expect(bench.build()?.coupling).toEqual({ kind: 'direct' });
    await screen.choose('Coupling', 'clutch');
    // half as much again as the most torque, to be replaced
    expect(bench.build()?.coupling).toEqual({
      kind: 'clutch',
      capacity: { typed: '300 N·m', value: 300, unit: 'N·m' },
    });
  });

  it('drives both axles with the second one like the first, and keeps it when it is let go', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.choose('Driven axles', 'both');
    expect(bench.build()?.axles.front?.finalDrive).toEqual({ ring: 41, pinion: 10 });
    expect(bench.build()?.axles.front?.unit.type).toBe('open');
    expect(bench.derived()?.figures.has('gearing.mismatch')).toBeTrue();
    await screen.choose('Driven axles', 'rear');
    expect(bench.build()?.axles.front).not.toBeNull();
    expect(bench.derived()?.figures.has('gearing.mismatch')).toBeFalse();
  });

  it('adds a transfer case with two ranges and takes it away again', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.click('Add transfer case');
    await screen.type('Range Low', '2.72');
    bench.lookAt({ range: 1 });
    expect(bench.derived()?.figures.get('point.prop')?.value).toBeCloseTo(200 * 1.4 * 2.72, 9); // [exact]
    await screen.fixture.whenStable();
    await screen.click('Remove transfer case');
    expect(bench.build()?.transfer).toBeNull();
    expect(bench.point().range).toBe(0);
  });
});

describe('other ways to a torque curve', () => {
  const disabled = (screen: Screen<EngineSheet>): boolean =>
    screen
      .all('button')
      .find((b) => b.textContent?.includes('Take the curve'))
      ?.hasAttribute('disabled') ?? false;

  it('a pasted curve is shown for confirmation, bad lines by number, then taken', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.click('Import');
    const box = screen.find<HTMLTextAreaElement>('#torque-csv');
    box.value = 'rpm,torque\n2000,200\nx,1\n4000,300\n6000,250';
    box.dispatchEvent(new Event('input'));
    await screen.fixture.whenStable();
    expect(screen.text).toContain('3 points, 2000 to 6000 rpm. The file says no unit: which is it?');
    expect(disabled(screen)).toBeTrue();
    expect(screen.text).toContain('3 engine speed is not a number');
    await screen.choose('Torque or power in', 'lbf·ft');
    await screen.click('Take the curve');
    expect(
      bench.build()?.engine.torqueCurve.map((point) => [point.rpm, point.torque.value, point.torque.unit]),
    ).toEqual([
      [2000, 200, 'lbf·ft'],
      [4000, 300, 'lbf·ft'],
      [6000, 250, 'lbf·ft'],
    ]);
    bench.undo();
    expect(bench.build()?.engine.torqueCurve.length).toBe(3);
  });

  it('columns that nobody names, and torque at the wheels, are asked before anything is taken', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.click('Import');
    const box = screen.find<HTMLTextAreaElement>('#torque-csv');
    const paste = async (text: string): Promise<void> => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
      await screen.fixture.whenStable();
    };
    await paste('1,2000,200\n2,4000,300\n3,6000,250');
    expect(screen.text).toContain('No column says that it is torque');
    expect(disabled(screen)).toBeTrue();
    await screen.choose('Engine speed is in', '1');
    await screen.choose('Torque or power is in', '2');
    await screen.choose('Torque or power in', 'N·m');
    expect(disabled(screen)).toBeFalse();
    await paste('rpm,Wheel torque (Nm)\n2000,170\n4000,255');
    expect(screen.text).toContain('measured at the wheels');
    expect(disabled(screen)).toBeTrue();
    await screen.choose('Measured at the wheels; lost on the way', '15');
    await screen.click('Take the curve');
    // 170 / 0.85 and 255 / 0.85 [exact]
    expect(bench.build()?.engine.torqueCurve.map(({ torque }) => torque.value)).toEqual([200, 300]);
  });

  it('nothing usable is said, and nothing can be taken', async () => {
    openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.click('Import');
    const box = screen.find<HTMLTextAreaElement>('#torque-csv');
    box.value = 'hello';
    box.dispatchEvent(new Event('input'));
    await screen.fixture.whenStable();
    expect(screen.find('[role="alert"]').textContent).toContain('csv has 0 usable points');
    expect(
      screen
        .all('button')
        .find((b) => b.textContent?.includes('Take the curve'))
        ?.hasAttribute('disabled'),
    ).toBeTrue();
  });

  it('two peaks make a curve; peaks that don’t go together say why', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    await screen.click('From peaks');
    await screen.type('Peak torque', '300 Nm');
    await screen.type('at engine speed', '3500');
    await screen.type('Peak power', '300 kW');
    await screen.type('at engine speed, power', '6000');
    expect(screen.text).toContain('does not go with 300 N·m');
    await screen.type('Peak power', '150 kW');
    await screen.click('Take the curve');
    const curve = bench.build()?.engine.torqueCurve ?? [];
    expect(Math.max(...curve.map((point) => point.torque.value))).toBe(300);
    expect(curve.at(-1)?.rpm).toBe(6800);
  });

  it('a motor has base speed, torque and power', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.engine.kind = 'electric'));
    const screen = await Screen.of(EngineSheet);
    await screen.click('From peaks');
    await screen.type('Peak torque', '310');
    await screen.type('Peak power', '150');
    await screen.type('Motor limit', '14000');
    await screen.click('Take the curve');
    expect(bench.build()?.engine.limitRpm).toBe(14_000);
    expect(bench.build()?.engine.torqueCurve[0]).toEqual(jasmine.objectContaining({ rpm: 0 }));
    const last = bench.build()?.engine.torqueCurve.at(-1);
    expect((last?.torque.value ?? 0) * 14_000 * (Math.PI / 30)).toBeCloseTo(150_000, -3); // P = T·ω [exact]
  });
});

describe('the torque chart', () => {
  it('draws torque at the points and power between them, in the unit of the shop', () => {
    const curve = [
      { rpm: 1000, torqueNm: 100 },
      { rpm: 5252.113, torqueNm: 135.58179483 },
    ];
    const series = (
      torqueOption(curve, 6000, 'inch', chartColours()) as unknown as { series: { id: string; data: number[][] }[] }
    ).series;
    const end = (id: string) => series.find((one) => one.id === id)?.data.at(-1)?.[1] ?? 0;
    // 100 lbf·ft at 5252.113 rpm is 100 hp [exact]
    expect(end('torque')).toBeCloseTo(100, 1);
    expect(end('power')).toBeCloseTo(100, 2);
  });

  it('ratios typed in a row fill this gear and those after it; an engine speed in thousands is asked about', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    const ratios = () => bench.build()?.gearbox.gears.map(({ ratio }) => ratio.value);
    const before = ratios() ?? [];
    await screen.type('Gear 2', '2,11 1,52 1,14');
    expect(ratios()).toEqual([...before.slice(0, 1), 2.11, 1.52, 1.14, ...before.slice(4)]);
    bench.undo();
    expect(ratios()).toEqual(before);
    const limit = bench.build()?.engine.limitRpm;
    await screen.type('Limiter', '5.4 rpm');
    expect(screen.said('Limiter')).toContain('far from what this usually is');
    expect(bench.build()?.engine.limitRpm).toBe(limit);
  });

  it('six ratios pasted into the first field fill six, and more gears where there are more', async () => {
    const bench = openBench();
    const screen = await Screen.of(EngineSheet);
    const paste = async (at: number, text: string): Promise<void> => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text', text);
      const field = screen.find(`#gear-${at}`);
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      await screen.fixture.whenStable();
    };
    const ratios = (): (number | undefined)[] => bench.build()?.gearbox.gears.map(({ ratio }) => ratio.value) ?? [];
    await paste(0, '3,15\t2,07\t1,49\t1,15\t0,93\t0,77');
    expect(ratios()).toEqual([3.15, 2.07, 1.49, 1.15, 0.93, 0.77]);
    await paste(4, '0.95\n0.80\n0.65');
    expect(ratios().slice(4)).toEqual([0.95, 0.8, 0.65]);
    const before = ratios();
    await paste(0, '3.2; fast');
    expect(ratios()).toEqual(before);
    await paste(6, '1 1 1 1 1 1 1 1');
    expect(ratios()).toEqual(before);
  });
});
