import { randomUUID } from 'node:crypto';
import type { Changed } from '@hot-spline/model';

/** So many changes are remembered for whoever comes back. Ours. */
const REMEMBERED = 2000;

/** A change as it is sent: `id` is where it stands. */
export interface Told {
  readonly id: string;
  readonly change: Changed;
}

/** What happened since this server has started, in order, for as many as listen. */
export class Feed {
  /** Another start, or another server, counts anew: what stood in between can’t be known. */
  private readonly epoch = randomUUID().slice(0, 8);
  private count = 0;
  private readonly kept: Changed[] = [];
  private readonly listeners = new Set<(told: Told) => void>();

  /** @param told a change as text; empty where some may have been missed */
  readonly hear = (told: string): void => {
    const change: Changed = told === '' ? { of: 'all' } : (JSON.parse(told) as Changed);
    // Where somebody is now is news to nobody who comes back.
    if (change.of !== 'presence') {
      this.count += 1;
      this.kept.push(change);
      if (this.kept.length > REMEMBERED) this.kept.shift();
    }
    const one = { id: this.idOf(this.count), change };
    for (const listener of this.listeners) listener(one);
  };

  private readonly idOf = (n: number): string => `${this.epoch}-${n}`;

  get open(): number {
    return this.listeners.size;
  }

  /**
   * Where somebody stands who begins to listen now: what came since `last`, or that anything may have; null begins now.
   * @param last id of the last change that was heard, of this server or another
   */
  since(last: string | null): readonly Told[] {
    const here = { id: this.idOf(this.count), change: { of: 'here' } as const };
    if (last === null) return [here];
    const [epoch, n] = last.split('-');
    const missed = this.count - Number(n);
    if (epoch !== this.epoch || !(missed >= 0 && missed <= this.kept.length))
      return [{ ...here, change: { of: 'all' } }];
    const first = this.count - missed + 1;
    return [
      ...this.kept.slice(this.kept.length - missed).map((change, i) => ({ id: this.idOf(first + i), change })),
      here,
    ];
  }

  /** @returns what ends it */
  listen(listener: (told: Told) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }
}
