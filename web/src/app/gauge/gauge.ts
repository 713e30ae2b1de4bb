import { Injectable, computed, inject, signal } from '@angular/core';
import {
  GAUGE_PATTERN,
  formatIn,
  gaugeReader,
  swings,
  unitLabel,
  type Quantity,
  type Scale,
  type StandIn,
} from '@hot-spline/core';
import { Bench } from '../state/bench';

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
  readonly write: (text: string) => void;
}

export type GaugeStatus = 'off' | 'connecting' | 'live' | 'lost';

const KEY = 'hot-spline.gauge';
/** How many readings are averaged. */
export const MEANS = [1, 4, 8] as const;

/** The part of Web Serial that is used; not every browser has it. */
interface SerialPortLike {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}

/** The gauge at the bench: what it shows, where it goes, and one way to take it. Losing it loses nothing. */
@Injectable({ providedIn: 'root' })
export class Gauge {
  private readonly system = inject(Bench).system;
  readonly status = signal<GaugeStatus>('off');
  readonly source = signal<'stand-in' | 'serial'>('stand-in');
  readonly target = signal<GaugeTarget | null>(null);
  readonly held = signal(false);
  readonly mean = signal<(typeof MEANS)[number]>(1);
  readonly pattern = signal(localStorage.getItem(KEY) ?? GAUGE_PATTERN);
  readonly problem = signal('');
  /** Lines that held no reading since the last one that did. */
  readonly rubbish = signal(0);
  private readonly quantity = signal<Quantity | null>(null);
  private readonly zero = signal(0);
  private readonly recent = signal<readonly number[]>([]);
  private readonly swept = signal<readonly number[] | null>(null);
  private readonly reader = computed(() => gaugeReader(this.pattern()));
  private stream: EventSource | null = null;
  private streamed = '';
  private port: SerialPortLike | null = null;
  private turn = 0;

  /** What is shown, in the base unit: the last reading, or the mean of the last ones, less the zero. */
  readonly base = computed(() => {
    const last = this.recent().slice(-this.mean());
    return last.length === 0 ? null : last.reduce((a, b) => a + b, 0) / last.length - this.zero();
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
    const stream = new EventSource(`/api/gauges/${kind}?values=${values}&seed=${Math.floor(Math.random() * 1e6)}`);
    this.stream = stream;
    stream.onmessage = ({ data }: MessageEvent<string>) => this.line(data);
    // The browser tries again by itself; what was read stays.
    stream.onerror = () => this.status.set('lost');
  }

  async openSerial(): Promise<void> {
    this.problem.set('');
    const { serial } = navigator as unknown as { serial?: { requestPort(): Promise<SerialPortLike> } };
    if (!serial) {
      this.problem.set('This browser has no serial line; a Chromium browser has.');
      return;
    }
    this.closeAll();
    this.source.set('serial');
    this.status.set('connecting');
    try {
      const port = await serial.requestPort();
      await port.open({ baudRate: 9600 });
      this.port = port;
      void this.listen(port);
    } catch (error) {
      this.status.set('off');
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
    if (!found) {
      if (text.trim() !== '') this.rubbish.update((n) => n + 1);
      return;
    }
    this.status.set('live');
    this.rubbish.set(0);
    if (this.held()) return;
    this.quantity.set(found.quantity);
    this.recent.update((list) => [...list.slice(-7), found.base]);
    const fed = this.swept();
    if (fed) {
      this.swept.set([...fed, found.base]);
      this.endSweep();
    }
  }

  /** @throws InputError for what is no pattern */
  checkPattern(pattern: string): void {
    gaugeReader(pattern);
  }

  /** @throws InputError for what is no pattern */
  setPattern(pattern: string): void {
    this.checkPattern(pattern);
    localStorage.setItem(KEY, pattern);
    this.pattern.set(pattern);
  }

  setZero(): void {
    this.zero.update((zero) => zero + (this.base() ?? 0));
  }

  private text(base: number, { quantity, scale }: GaugeTarget): string {
    const { text, unit } = formatIn(base, quantity, this.system(), undefined, scale);
    return `${text.replace('−', '-').replace(/[\u202f\s]/g, '')} ${unit}`.trim();
  }

  /** Takes what is shown into the field that it goes to. */
  take(): boolean {
    const [target, base] = [this.target(), this.base()];
    if (!target || base === null || !this.fits()) return false;
    target.write(this.text(base, target));
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
    this.swept.set(null);
    target.write(
      places
        .slice(0, target.many)
        .map((mm) => this.text(mm, target))
        .join('; '),
    );
  }
}

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Which stand-in reads such a field, and what is there. */
function standInOf(target: GaugeTarget | null, sweep: boolean): readonly [StandIn, readonly number[]] {
  if (!target) return ['indicator', [0]];
  const truth = sweep ? target.truth : target.truth.slice(0, 1);
  if (target.quantity === 'torque') return ['wrench', truth];
  return [target.scale === 'small' ? 'indicator' : 'micrometer', truth];
}
