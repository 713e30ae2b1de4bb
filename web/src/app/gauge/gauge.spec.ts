import { TestBed } from '@angular/core/testing';
import { standInReading } from '@hot-spline/core';
import type { Reading } from '@hot-spline/model';
import { Screen, openBench, until } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { ledgerRow } from '../ledger/ledger-row';
import { BaselineSheet } from '../mesh/baseline-sheet';
import { MeshSheet } from '../mesh/mesh-sheet';
import { GaugeDock } from '../frame/gauge-dock';
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

/** A set-up on a practice build: there the simulated gauge reads for the ledger. */
const practising = (...of: Parameters<typeof setUpBuild>) => ({
  ...setUpBuild(...of),
  practice: { lesson: null, seed: 1 },
});

/** A serial line in place of the browser's: what it is opened with is kept, lines are said by the test. */
function fakePort() {
  const opened: unknown[] = [];
  let say: (text: string) => void = () => undefined;
  const readable = new ReadableStream<Uint8Array>({
    start(stream) {
      say = (text) => stream.enqueue(new TextEncoder().encode(text));
    },
  });
  const port = {
    readable,
    open: (options: unknown) => Promise.resolve(void opened.push(options)),
    close: () => Promise.resolve(),
    getInfo: () => ({ usbVendorId: 7, usbProductId: 9 }),
  };
  Object.defineProperty(navigator, 'serial', {
    configurable: true,
    value: { requestPort: () => Promise.resolve(port) },
  });
  return { opened, say: (text: string) => say(text) };
}

describe('the gauge', () => {
  const real = window.EventSource;
  beforeEach(() => {
    localStorage.removeItem('hot-spline.gauges');
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
    const bench = openBench(practising(), assemblyOf(1), 'inch');
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
    openBench(practising(), [], 'metric');
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
    const bench = openBench(practising('integral-head-shim', { places: 4 }), assemblyOf(1), 'metric');
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

  it('on a real build it carries “simulated” for good and counts for nothing; on a practice build it counts', async () => {
    const bench = openBench(setUpBuild('integral-head-shim', { places: 4 }), assemblyOf(1), 'metric');
    const screen = await Screen.of(MeshSheet);
    const gauge = TestBed.inject(Gauge);
    gauge.openStandIn();
    for (let place = 1; place <= 4; place++) {
      const field = await focus(screen, `Backlash, place ${place} of 4`);
      gauge.line('+0.2 mm');
      await space(screen, field);
    }
    const written = bench.ledger().at(-1) as Reading;
    expect(written.gauge).toEqual({
      name: 'Simulated gauge',
      lines: ['+0.2 mm', '+0.2 mm', '+0.2 mm', '+0.2 mm'],
      unit: 'mm',
      zeroed: null,
      simulated: true,
    });
    expect(bench.derived()?.mesh.rear?.now?.backlash.trial).toBeNull();
    const dock = await Screen.of(GaugeDock);
    expect(dock.text).toContain('counts for nothing');
    expect(ledgerRow(written, setUpBuild(), 'metric').note).toContain('simulated');
  });

  it('a serial gauge is set before it is opened; line, unit, name, zero and the whole value go into the ledger', async () => {
    const bench = openBench(setUpBuild('integral-head-shim', { places: 4 }), assemblyOf(1), 'inch');
    // The last component made is the one in the page.
    const dock = await Screen.of(GaugeDock);
    const screen = await Screen.of(MeshSheet);
    const gauge = TestBed.inject(Gauge);
    const { opened, say } = fakePort();
    await gauge.openSerial();
    await dock.fixture.whenStable();
    expect(dock.text).toContain('Connect');
    expect(opened).toEqual([]);
    gauge.set({ name: 'Old dial', baudRate: 4800, parity: 'even' });
    expect(() => gauge.set({ pattern: '(' })).toThrowError(/not a regular expression/);
    expect(() => gauge.set({ unit: 'furlong' })).toThrowError(/no unit of a gauge/);
    await gauge.connect();
    expect(opened).toEqual([{ baudRate: 4800, parity: 'even', dataBits: 7, stopBits: 1 }]);
    // A line without a unit is refused until somebody says it for this gauge.
    say('0.0080\r\n');
    await until(() => gauge.refused() !== null);
    expect(gauge.base()).toBeNull();
    await dock.fixture.whenStable();
    expect(dock.text).toContain('say what this gauge reads in');
    gauge.set({ unit: 'in' });
    say('0.00791\r\n');
    await until(() => gauge.base() !== null);
    const field = await focus(screen, 'Backlash, place 1 of 4');
    await space(screen, field);
    for (let place = 2; place <= 4; place++) {
      const next = await focus(screen, `Backlash, place ${place} of 4`);
      if (place < 4) await space(screen, next);
      else await screen.type(`Backlash, place ${place} of 4`, '8 thou');
    }
    const written = bench.ledger().at(-1) as Reading;
    expect(written.gauge).toEqual({
      name: 'Old dial',
      lines: ['0.00791', '0.00791', '0.00791', ''],
      unit: 'in',
      zeroed: null,
      simulated: false,
    });
    expect(written.value.of === 'places' ? written.value.entries[0] : null).toEqual({
      typed: '0.00791 in',
      value: 0.00791,
      unit: 'in',
    });
    expect(bench.derived()?.mesh.rear?.now?.backlash.trial?.mm.length).toBe(4);
    // Kept on this device for that gauge.
    gauge.close();
    await gauge.openSerial();
    expect(gauge.settings()).toEqual(jasmine.objectContaining({ name: 'Old dial', unit: 'in', baudRate: 4800 }));
    gauge.close();
  });

  it('without a serial line it says so', async () => {
    openBench(setUpBuild(), []);
    const gauge = TestBed.inject(Gauge);
    Reflect.deleteProperty(navigator, 'serial');
    if ('serial' in navigator) return expect(gauge.status()).toBe('off');
    await gauge.openSerial();
    expect(gauge.problem()).toContain('no serial line');
  });
});
