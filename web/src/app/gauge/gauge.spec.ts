import { TestBed } from '@angular/core/testing';
import { standInReading } from '@hot-spline/core';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { BaselineSheet } from '../mesh/baseline-sheet';
import { MeshSheet } from '../mesh/mesh-sheet';
import { GaugeDock } from './dock';
import { Gauge } from './gauge';

/** In place of the server's stream: lines are said by the test. */
class Silent {
  static urls: string[] = [];
  onmessage = null;
  onerror: (() => void) | null = null;
  closed = false;
  constructor(url: string) {
    Silent.urls.push(url);
  }
  close(): void {
    this.closed = true;
  }
}

describe('the gauge', () => {
  const real = window.EventSource;
  beforeEach(() => {
    localStorage.removeItem('hot-spline.gauge');
    Silent.urls = [];
    (window as unknown as { EventSource: unknown }).EventSource = Silent;
  });
  afterEach(() => {
    window.EventSource = real;
  });

  const focus = async (screen: Screen<unknown>, label: string): Promise<HTMLElement> => {
    const field = screen.field(label);
    field.focus();
    field.dispatchEvent(new Event('focus'));
    await screen.fixture.whenStable();
    return field;
  };
  const space = async (screen: Screen<unknown>, field: HTMLElement): Promise<void> => {
    field.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', code: 'Space', bubbles: true, cancelable: true }));
    await screen.fixture.whenStable();
  };

  it('one key takes it into the measuring field in focus, in the units of the bench', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1), 'inch');
    // The last component made is the one in the page.
    const dock = await Screen.of(GaugeDock);
    const screen = await Screen.of(MeshSheet);
    const gauge = TestBed.inject(Gauge);
    await dock.click('Gauge: simulated');
    const field = await focus(screen, 'Backlash, place 1 of 8');
    expect(Silent.urls.at(-1)).toContain('/api/gauges/indicator?values=');
    gauge.line('+0.2032 mm');
    await dock.fixture.whenStable();
    expect(dock.text).toContain('8.0 thou');
    expect(dock.text).toContain('goes to: Backlash, place 1 of 8');
    await space(screen, field);
    expect(screen.text).toContain('Backlash, place 2 of 8');
    expect(bench.ledger().length).toBe(1);
  });

  it('zero, hold, the mean of the last, and rubbish', async () => {
    openBench(setUpBuild(), assemblyOf(1), 'metric');
    const screen = await Screen.of(MeshSheet);
    const gauge = TestBed.inject(Gauge);
    gauge.openStandIn();
    await focus(screen, 'Backlash, place 1 of 8');
    for (const mm of [0.1, 0.2, 0.3, 0.2]) gauge.line(`+${mm} mm`);
    expect(gauge.base()).toBeCloseTo(0.2, 9);
    gauge.mean.set(4);
    expect(gauge.base()).toBeCloseTo(0.2, 9);
    gauge.setZero();
    expect(gauge.base()).toBeCloseTo(0, 9);
    gauge.held.set(true);
    gauge.line('+9 mm');
    expect(gauge.base()).toBeCloseTo(0, 9);
    for (let i = 0; i < 5; i++) gauge.line('ERR');
    const dock = await Screen.of(GaugeDock);
    expect(dock.text).toContain('5 lines without a reading');
  });

  it('another quantity is not taken', async () => {
    openBench(setUpBuild(), [], 'metric');
    const screen = await Screen.of(BaselineSheet);
    const gauge = TestBed.inject(Gauge);
    gauge.openStandIn();
    const field = await focus(screen, 'Total turning torque, as it came');
    gauge.line('+0.2 mm');
    expect(gauge.fits()).toBeFalse();
    expect(gauge.take()).toBeFalse();
    gauge.line('1.6 N·m');
    await space(screen, field);
    expect(screen.field('Total turning torque, as it came').value).toContain('1.6');
  });

  it('a sweep fills every place; losing the gauge loses nothing', async () => {
    const bench = openBench(setUpBuild('integral-head-shim', { places: 4 }), assemblyOf(1), 'metric');
    const screen = await Screen.of(MeshSheet);
    const gauge = TestBed.inject(Gauge);
    gauge.openStandIn();
    await focus(screen, 'Backlash, place 1 of 4');
    gauge.sweep();
    const places = [0.2, 0.21, 0.2, 0.19];
    for (let t = 0; t < 2600; t += 50) {
      const { value, unit } = standInReading('indicator', places, 3, t);
      gauge.line(`${value} ${unit}`);
    }
    await screen.fixture.whenStable();
    const read = bench.derived()?.mesh.rear?.now?.backlash.trial?.mm ?? [];
    expect(read.length).toBe(4);
    read.forEach((mm, i) => expect(Math.abs(mm - (places[i] ?? 0))).toBeLessThan(0.021));
    gauge.status.set('lost');
    const dock = await Screen.of(GaugeDock);
    expect(dock.text).toContain('lost, last reading');
    gauge.close();
    expect(bench.derived()?.mesh.rear?.now?.backlash.trial?.mm.length).toBe(4);
  });

  it('a pattern of one’s own is checked, kept, and taken back', async () => {
    openBench(setUpBuild(), []);
    const gauge = TestBed.inject(Gauge);
    expect(() => gauge.setPattern('(')).toThrowError(/not a regular expression/);
    gauge.setPattern(String.raw`A ([+-]\d+\.\d+) (\w+)`);
    gauge.openStandIn();
    gauge.line('01A +0.0080 in');
    expect(gauge.base()).toBeCloseTo(0.2032, 9);
    expect(localStorage.getItem('hot-spline.gauge')).toContain('A (');
  });

  it('without a serial line it says so', async () => {
    openBench(setUpBuild(), []);
    const gauge = TestBed.inject(Gauge);
    if ('serial' in navigator) return expect(gauge.status()).toBe('off');
    await gauge.openSerial();
    expect(gauge.problem()).toContain('no serial line');
  });
});
