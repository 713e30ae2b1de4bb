import { serverPath } from '../base/server-path';
import { Injectable, computed, inject, signal } from '@angular/core';
import {
  formatIn,
  gaugeReader,
  swings,
  unitLabel,
  unitNameOf,
  type GaugeLine,
  type GaugeReading,
  type Quantity,
  type Scale,
  type StandIn,
} from '@hot-spline/core';
import type { GaugeSent } from '@hot-spline/model';
import { Bench } from '../state/bench';
import { settingsOf, storeSettings, type GaugeSettings } from './settings';

/** A measuring field that a gauge can write into. */
export interface GaugeTarget {
  readonly name: string;
  readonly label: string;
  readonly quantity: Quantity;
  readonly scale: Scale | undefined;
  /** What is there in truth, for a stand-in, in the base unit; several: places round a ring. */
  readonly truth: readonly number[];
  /** How many readings it takes at once; above 1 a sweep fills them. */
  readonly many: number;
  readonly write: (text: string, sent: GaugeSent) => void;
}

/** `setting-up`: a port is chosen, and how it is read is looked at before it is opened. */
export type GaugeStatus = 'off' | 'setting-up' | 'connecting' | 'live' | 'lost';

/** How many readings are averaged. */
export const MEANS = [1, 4, 8] as const;

/** The part of Web Serial that is used; not every browser has it. */
interface SerialPortLike {
  open(options: { baudRate: number; parity: string; dataBits: number; stopBits: number }): Promise<void>;
  getInfo?(): { usbVendorId?: number; usbProductId?: number };
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}

/** The gauge at the bench: what it shows, where it goes, and one way to take it. Losing it loses nothing. */
@Injectable({ providedIn: 'root' })
export class Gauge {
  private readonly bench = inject(Bench);
  private readonly system = this.bench.system;
  readonly status = signal<GaugeStatus>('off');
  readonly source = signal<'stand-in' | 'serial'>('stand-in');
  readonly target = signal<GaugeTarget | null>(null);
  readonly held = signal(false);
  readonly mean = signal<(typeof MEANS)[number]>(1);
  /** How the gauge in hand is read; kept on this device for that gauge. */
  readonly settings = signal<GaugeSettings>(settingsOf(''));
  /** Why the last line was not taken; null while lines are read. */
  readonly refused = signal<Extract<GaugeLine, { kind: 'refused' }> | null>(null);
  readonly problem = signal('');
  /** Lines that held no reading since the last one that did. */
  readonly rubbish = signal(0);
  private readonly quantity = signal<Quantity | null>(null);
  private readonly zero = signal(0);
  private readonly zeroedAt = signal<string | null>(null);
  private readonly recent = signal<readonly Sent[]>([]);
  private readonly swept = signal<readonly number[] | null>(null);
  private readonly reader = computed(() => {
    const { pattern, unit } = this.settings();
    const decimal = this.bench.decimal();
    // The simulated gauge sends what it reads in with every line.
    return gaugeReader(this.source() === 'stand-in' ? {} : { pattern, unit, ...(decimal ? { decimal } : {}) });
  });
  /** Whether its readings count for nothing: made up, on a build that is not for practice. */
  readonly madeUp = computed(() => this.source() === 'stand-in' && this.bench.build()?.practice === null);
  private stream: EventSource | null = null;
  private streamed = '';
  private port: SerialPortLike | null = null;
  private device = '';
  private turn = 0;

  /** What is shown, in the base unit: the last reading, or the mean of the last ones, less the zero. */
  readonly base = computed(() => {
    const last = this.recent().slice(-this.mean());
    return last.length === 0 ? null : last.reduce((sum, { base }) => sum + base, 0) / last.length - this.zero();
  });
  /** Whether what it reads can go where it would go. */
  readonly fits = computed(() => {
    const target = this.target();
    const quantity = this.quantity();
    return target !== null && this.base() !== null && (quantity === null || quantity === target.quantity);
  });
  readonly shown = computed(() => {
    const base = this.base();
    if (base === null) return { text: '–', unit: '' };
    const target = this.target();
    const quantity = this.quantity() ?? target?.quantity ?? 'length';
    const own = quantity === 'torque' ? 'turning' : 'plate';
    const scale = target?.quantity === quantity ? target.scale : own;
    const { text, unit } = formatIn(base, quantity, this.system(), undefined, scale);
    return { text, unit: unitLabel(unit) };
  });
  /** Places that a sweep has read so far; null while there is none. */
  readonly places = computed(() => {
    const fed = this.swept();
    return fed && swings(fed);
  });

  /** A field that wants a reading comes into focus; it stays the target until another one does. */
  aim(target: GaugeTarget): void {
    this.target.set(target);
    this.swept.set(null);
    if (this.source() === 'stand-in' && this.status() !== 'off') this.openStandIn();
  }

  openStandIn(): void {
    const target = this.target();
    const [kind, truth] = standInOf(target, this.swept() !== null);
    const values = truth.map((value) => value.toFixed(4)).join(';');
    const streamed = `${kind} ${values} ${target?.name ?? ''}`;
    if (this.stream && this.streamed === streamed) return;
    const sweeping = this.swept();
    this.closeAll();
    this.swept.set(sweeping);
    this.source.set('stand-in');
    this.streamed = streamed;
    this.status.set('connecting');
    const stream = new EventSource(
      serverPath(`/gauges/${kind}?values=${values}&seed=${Math.floor(Math.random() * 1e6)}`),
    );
    this.stream = stream;
    stream.onmessage = ({ data }: MessageEvent<string>) => this.line(data);
    // The browser tries again by itself; what was read stays.
    stream.onerror = () => this.status.set('lost');
  }

  /** Chooses a port; how it is read can be set before it is opened. */
  async openSerial(): Promise<void> {
    this.problem.set('');
    const { serial } = navigator as unknown as { serial?: { requestPort(): Promise<SerialPortLike> } };
    if (!serial) {
      this.problem.set(
        isSecureContext
          ? 'This browser has no serial line; a Chromium browser has.'
          : 'Over plain http from another device a browser gives no serial line: open this page on the machine that it runs on, or over https.',
      );
      return;
    }
    this.closeAll();
    this.source.set('serial');
    try {
      const port = await serial.requestPort();
      const { usbVendorId, usbProductId } = port.getInfo?.() ?? {};
      this.port = port;
      this.device = usbVendorId === undefined ? 'serial' : `${usbVendorId}:${usbProductId ?? 0}`;
      this.settings.set(settingsOf(this.device));
      this.status.set('setting-up');
    } catch (error) {
      this.status.set('off');
      this.problem.set(`The gauge was not opened: ${messageOf(error)}`);
    }
  }

  /** Opens the chosen port as it is set. */
  async connect(): Promise<void> {
    const { port } = this;
    if (!port) return;
    const { baudRate, parity } = this.settings();
    this.status.set('connecting');
    try {
      await port.open({ baudRate, parity, dataBits: parity === 'none' ? 8 : 7, stopBits: 1 });
      void this.listen(port);
    } catch (error) {
      this.status.set('setting-up');
      this.problem.set(`The gauge was not opened: ${messageOf(error)}`);
    }
  }

  /** Reads lines until the gauge is gone. */
  private async listen(port: SerialPortLike): Promise<void> {
    const turn = ++this.turn;
    const reader = port.readable?.getReader();
    const decoder = new TextDecoder();
    let rest = '';
    try {
      while (reader && this.turn === turn) {
        const { value, done } = await reader.read();
        if (done) break;
        const lines = (rest + decoder.decode(value, { stream: true })).split(/\r\n|\r|\n/);
        rest = (lines.pop() ?? '').slice(-400);
        lines.forEach((line) => this.line(line));
      }
    } catch (error) {
      this.problem.set(`The gauge was lost: ${messageOf(error)}`);
    }
    if (this.turn === turn) this.status.set('lost');
  }

  close(): void {
    this.closeAll();
    this.status.set('off');
  }

  private closeAll(): void {
    this.turn += 1;
    this.stream?.close();
    this.stream = null;
    this.streamed = '';
    const { port } = this;
    this.port = null;
    this.refused.set(null);
    this.zeroedAt.set(null);
    port?.close().catch((error: unknown) => this.problem.set(`The gauge did not close: ${messageOf(error)}`));
    this.recent.set([]);
    this.quantity.set(null);
    this.zero.set(0);
    this.held.set(false);
    this.swept.set(null);
  }

  /** One line of whatever gauge. */
  line(text: string): void {
    const found = this.reader()(text);
    if (found.kind === 'refused') return this.refused.set(found);
    if (found.kind === 'nothing') {
      if (text.trim() !== '') this.rubbish.update((n) => n + 1);
      return;
    }
    const sent: Sent = { ...found.reading, line: text.trim() };
    this.status.set('live');
    this.rubbish.set(0);
    this.refused.set(null);
    if (this.held()) return;
    this.quantity.set(sent.unit.quantity);
    this.recent.update((list) => [...list.slice(-7), sent]);
    const fed = this.swept();
    if (fed) {
      this.swept.set([...fed, sent.base - this.zero()]);
      this.endSweep();
    }
  }

  /** @throws InputError for what is no pattern, or no unit of a gauge */
  check(change: Partial<Pick<GaugeSettings, 'pattern' | 'unit'>>): void {
    gaugeReader({ ...this.settings(), ...change });
  }

  /** Sets how the gauge in hand is read, and keeps it for that gauge. @throws InputError for what is no pattern or unit */
  set(change: Partial<GaugeSettings>): void {
    this.check(change);
    this.settings.update((settings) => ({ ...settings, ...change }));
    storeSettings(this.device, this.settings());
  }

  setZero(): void {
    this.zero.update((zero) => zero + (this.base() ?? 0));
    this.zeroedAt.set(new Date().toISOString());
  }

  /** A value in the unit that the gauge sends, nothing rounded but what arithmetic adds at the fifteenth digit. */
  private text(base: number, { unit }: GaugeReading): string {
    const name = unitNameOf(unit);
    const value = Number((name === null ? base : base / unit.toBase).toPrecision(14));
    return `${value} ${name ?? BASE_UNITS[unit.quantity]}`;
  }

  private sentFor(unit: string, lines: readonly string[]): GaugeSent {
    const name = this.source() === 'stand-in' ? 'Simulated gauge' : this.settings().name || 'Gauge';
    return { name, unit, lines, zeroed: this.zeroedAt(), simulated: this.madeUp() };
  }

  /** Takes what is shown into the field that it goes to. */
  take(): boolean {
    const [target, base] = [this.target(), this.base()];
    const last = this.recent().slice(-this.mean());
    const newest = last.at(-1);
    if (!target || base === null || !newest || !this.fits()) return false;
    target.write(this.text(base, newest), this.sentFor(newest.unit.text, [last.map(({ line }) => line).join(' | ')]));
    return true;
  }

  /** Every place of the ring in one go: it is rocked and turned on until all are read. */
  sweep(): void {
    const target = this.target();
    if (!target || target.many < 2) return;
    this.swept.set([]);
    if (this.source() === 'stand-in') this.openStandIn();
  }

  private endSweep(): void {
    const [target, places] = [this.target(), this.places()];
    if (!target || !places || places.length < target.many) return;
    const newest = this.recent().at(-1);
    this.swept.set(null);
    if (!newest) return;
    const read = places.slice(0, target.many).map((mm) => this.text(mm, newest));
    // A place of a sweep is worked out of many lines: what it came to stands for them.
    target.write(
      read.join('; '),
      this.sentFor(
        newest.unit.text,
        read.map((text) => `swept: ${text}`),
      ),
    );
  }
}

/** A reading with the line that it was read from. */
interface Sent extends GaugeReading {
  readonly line: string;
}

/** What a reading is written in where no unit of ours is worth as much as the gauge's. */
const BASE_UNITS = { length: 'mm', torque: 'N·m', force: 'N', angle: '°' } as const;

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Which stand-in reads such a field, and what is there. */
function standInOf(target: GaugeTarget | null, sweep: boolean): readonly [StandIn, readonly number[]] {
  if (!target) return ['indicator', [0]];
  const truth = sweep ? target.truth : target.truth.slice(0, 1);
  if (target.quantity === 'torque') return ['wrench', truth];
  return [target.scale === 'small' ? 'indicator' : 'micrometer', truth];
}
