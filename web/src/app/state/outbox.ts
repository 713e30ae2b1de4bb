import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import { FORMAT_VERSION, type Build, type LedgerEntry, type LibrarySpec } from '@hot-spline/model/document';
import { Subject } from 'rxjs';
import { ApiError, api, type StoredBuild, type StoredSpec } from './api';
import { note, notes } from './outbox-notes';
import { Lease } from './lease';
import { OutboxQueue, versioned, type Queued } from './outbox-queue';
import { DATABASE, type Refusal, type Write } from './outbox-store';
import { Puts } from './puts';

export type { Write } from './outbox-store';

/** `of` says what `record` is the id of. */
export type OutboxEvent =
  | { readonly kind: 'saved'; readonly of: 'build' | 'library'; readonly record: string; readonly version: number }
  | { readonly kind: 'appended'; readonly record: string; readonly entryId: string }
  /** Entries that waited for a name have one. */
  | { readonly kind: 'signed'; readonly entries: ReadonlyMap<string, string> }
  | {
      readonly kind: 'stale';
      readonly of: 'build';
      readonly record: string;
      readonly current: StoredBuild;
      readonly baseVersion: number;
      readonly build: Build;
    }
  | { readonly kind: 'stale'; readonly of: 'library'; readonly record: string; readonly current: StoredSpec }
  | { readonly kind: 'refused'; readonly record: string; readonly message: string; readonly write: Write };

/** A write that the server did not take: kept until it is sent again with success, or thrown away by the person. */
export interface NotTaken extends Queued {
  readonly refusal: Refusal;
}

/** Why nothing is sent for now, although the server answers. */
export type Pause =
  | { readonly why: 'signed-out'; readonly message: string }
  | { readonly why: 'other-shop'; readonly message: string };

const RETRY_MS = [1000, 2000, 4000];
/** A server that fails over one write is tried so often before the write is set aside. */
const TRIES = 3;
const SHOP_KEY = 'hot-spline.shop';

/** Sending the same again a little later may work: nobody answered, or whoever did is busy. */
const passing = ({ status, unreadable }: ApiError): boolean =>
  status === 0 || status === 429 || (status === 503 && unreadable);

/**
 * Writes on their way to the server. Each is put into IndexedDB first; it leaves only when the server has acknowledged
 * it or the person has thrown it away. Each record has a queue of its own: what one can't send holds up no other. Ids
 * are made here, so that a retry never doubles a write.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly stored = signal(0);
  /** Changes on their way into IndexedDB: they wait too, from the moment they are made. */
  private readonly entering = signal(0);
  readonly waiting = computed(() => this.stored() + this.entering());
  /** Why the last try failed; null while all goes well. */
  readonly trouble = signal<string | null>(null);
  /** Sending rests until somebody has done something about it. */
  readonly paused = signal<Pause | null>(null);
  readonly notTaken = signal<readonly NotTaken[]>([]);
  readonly events = new Subject<OutboxEvent>();

  private readonly puts = inject(Puts);
  private readonly queue = new OutboxQueue();
  private readonly lease = new Lease(DATABASE);
  /** Ends when everything made so far is in IndexedDB. */
  private entered: Promise<void>;
  /** Records whose first write is stale: held until somebody has said what to keep. */
  private readonly held = signal<ReadonlySet<string>>(new Set());
  /** Whether something waits for somebody's choice and not for the server. */
  readonly holding = computed(() => this.held().size > 0);
  /** How often the server has failed over a write. */
  private readonly failed = new Map<number, number>();
  /** Last version of each record that the server acknowledged to this tab; a change made meanwhile builds on it. */
  private readonly acknowledged = new Map<string, number>();
  /** Whose name is stamped on what is written; null while it is still to be asked: nothing is sent before. */
  private who: string | null = '';
  /** The shop that this tab has met; asked for again after the server was away: it may be another one then. */
  private shop: string | null = null;
  private sending = false;
  /** Asked to send while it was sending: it may have been past what is meant. */
  private again = false;
  private closed = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    const online = (): void => this.flush();
    addEventListener('online', online);
    inject(DestroyRef).onDestroy(() => {
      removeEventListener('online', online);
      clearTimeout(this.timer);
      this.closed = true;
    });
    this.entered = this.adopt();
    this.flush();
  }

  /** Says whose writes these are from now on; null while nobody has said. What waits without a name goes with this one. */
  signedBy(who: string | null): void {
    this.who = who;
    if (who !== null && who !== '') void this.sign(who);
  }

  private async sign(who: string): Promise<void> {
    await this.entered;
    const entries = await this.queue.sign(who);
    if (entries.size > 0) this.events.next({ kind: 'signed', entries });
    this.flush();
  }

  private common(record: string) {
    const shop = this.shop ?? localStorage.getItem(SHOP_KEY);
    return { record, who: this.who ?? '', shop, formatVersion: FORMAT_VERSION, refused: null };
  }

  /** Puts the newest specification of a build into the queue; one that nobody has tried to send is replaced. */
  putBuild(record: string, baseVersion: number, build: Build): Promise<void> {
    return this.enter({ kind: 'build', ...this.common(record), ...versioned(baseVersion), build });
  }

  /** The same for a spec of the library; `baseVersion` 0 for a new one. */
  putLibrary(record: string, baseVersion: number, spec: LibrarySpec): Promise<void> {
    return this.enter({ kind: 'library', ...this.common(record), ...versioned(baseVersion), spec });
  }

  putLedger(record: string, entry: LedgerEntry): Promise<void> {
    return this.enter({ kind: 'ledger', ...this.common(record), entry });
  }

  /** Noted at once, then stored in the order in which they were made. */
  private enter(write: Write): Promise<void> {
    const done = note(write);
    this.entering.update((count) => count + 1);
    const stored = this.entered.then(async () => {
      try {
        await this.store(write);
        done();
        await this.count();
      } finally {
        this.entering.update((count) => count - 1);
      }
      this.flush();
    });
    // What could not be stored is the caller's to hear; the next one is stored all the same.
    this.entered = stored.catch(() => undefined);
    this.puts.newest = stored;
    return stored;
  }

  private async adopt(): Promise<void> {
    for (const { write, done } of notes()) {
      // A reload between the storing and the taking away of the note: it is there already, or was sent even.
      const caught: Write = write.kind === 'ledger' ? write : { ...write, tried: true };
      if (!(await this.queue.has(write))) await this.store(caught);
      done();
    }
    await this.count();
  }

  private store(write: Write): Promise<void> {
    return this.queue.add(write, this.acknowledged.get(write.record) ?? 0);
  }

  /**
   * What waits for a build, oldest first; also what was not taken, so that it stays on the screen: `refusedOn` is the version
   * that it was made on, and where the server has a later one, it has been overtaken.
   */
  async pending(buildId: string): Promise<{ build: Build | null; refusedOn?: number; entries: LedgerEntry[] }> {
    await this.entered;
    const writes = await this.queue.of(buildId);
    const newest = writes.findLast((write) => write.kind === 'build');
    return {
      build: newest?.build ?? null,
      ...(newest?.refused ? { refusedOn: newest.baseVersion } : {}),
      entries: writes.flatMap((write) => (write.kind === 'ledger' ? [write.entry] : [])),
    };
  }

  /** The newest waiting version of each spec of the library, by its id; what was not taken is in its list alone. */
  async pendingLibrary(): Promise<Map<string, LibrarySpec>> {
    await this.entered;
    return new Map(
      (await this.queue.all()).flatMap(({ write }) =>
        write.kind === 'library' && !write.refused ? [[write.record, write.spec] as const] : [],
      ),
    );
  }

  /** After a stale answer: sends ours on top of `version`, as `merged` where it was put together, or drops it. */
  async settle(record: string, keep: 'ours' | 'theirs', version: number, merged?: Build): Promise<void> {
    await this.entered;
    await this.queue.settle(record, keep, version, merged);
    this.acknowledged.set(record, Math.max(version, this.acknowledged.get(record) ?? 0));
    this.held.update((held) => new Set([...held].filter((one) => one !== record)));
    await this.count();
    this.flush();
  }

  /** Tries a held record again, for whoever can choose now. */
  release(record: string): void {
    this.held.update((held) => new Set([...held].filter((one) => one !== record)));
    this.flush();
  }

  /** Sends a write that was not taken once more. */
  async sendAgain(key: number): Promise<void> {
    const kept = await this.queue.get(key);
    if (kept) await this.queue.mark(kept, null);
    this.failed.delete(key);
    await this.count();
    this.flush();
  }

  /** Throws a write away: the only way out beside the server's acknowledgement. */
  async discard(key: number): Promise<void> {
    await this.queue.delete(key);
    await this.count();
  }

  /** Everything that was not taken, as an open file. */
  exportNotTaken(): Blob {
    const writes = this.notTaken().map(({ write }) => write);
    const file = { format: 'hot-spline/not-taken', formatVersion: FORMAT_VERSION, writes };
    return new Blob([JSON.stringify(file, null, 2)], { type: 'application/json' });
  }

  /** Goes on after a pause: somebody signed in again, or this is the right shop after all. */
  resume(): void {
    this.paused.set(null);
    this.shop = null;
    this.flush();
  }

  /** Sends what waits, unless that is under way or rests. */
  flush(): void {
    // Nothing goes out without a name while it is asked for.
    if (this.closed || this.paused() || this.who === null) return;
    if (this.sending) {
      this.again = true;
      return;
    }
    clearTimeout(this.timer);
    this.sending = true;
    this.again = false;
    const run = async (): Promise<void> => {
      let fails = false;
      try {
        await this.entered;
        // One tab sends at a time; a retry of another tab's write would be harmless, but out of order.
        if ('locks' in navigator) await navigator.locks.request(DATABASE, () => this.send());
        else await this.lease.run(() => this.send());
        this.failures = 0;
        this.trouble.set(null);
      } catch (error) {
        fails = true;
        if (!(error instanceof ApiError)) throw error;
        this.shop = null;
        this.trouble.set(error.message);
        const wait = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)];
        this.failures += 1;
        this.timer = setTimeout(() => this.flush(), wait);
      } finally {
        this.sending = false;
        await this.count();
        // After a failure it is the timer's turn.
        if (this.again && !fails) this.flush();
      }
    };
    void run();
  }

  /** Asks which shop answers before the first write goes out, and whenever the server was away. */
  private async meetShop(): Promise<void> {
    if (this.shop !== null) return;
    const { id } = await api.shop();
    this.shop = id;
    localStorage.setItem(SHOP_KEY, id);
  }

  /** Goes through the queues, one write of each record after the other. */
  private async send(): Promise<void> {
    /** Records that can't go on for now, each with its own reason. */
    const resting = new Set<string>();
    let later: ApiError | null = null;
    for (;;) {
      const next = await this.queue.next((record) => this.held().has(record) || resting.has(record));
      if (!next) break;
      await this.meetShop();
      if (next.write.shop !== null && next.write.shop !== this.shop) {
        resting.add(next.write.record);
        this.paused.set({
          why: 'other-shop',
          message: 'This server is another shop than the one that these were made for.',
        });
        continue;
      }
      try {
        await this.sendOne(next);
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        if (error.status === 401 || error.status === 403) {
          this.paused.set({ why: 'signed-out', message: error.message });
          return;
        }
        // Nobody is there: nothing else will get through either.
        if (error.status === 0) throw error;
        resting.add(next.write.record);
        later = error;
      }
      await this.count();
    }
    if (later) throw later;
  }

  private async sendOne(queued: Queued): Promise<void> {
    const { key, write } = queued;
    try {
      await this.transmit(queued);
      this.failed.delete(key);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      const { status } = error;
      if (passing(error) || status === 401 || status === 403) throw error;
      if (status === 409 && write.kind !== 'ledger' && this.isStale(write, error)) return;
      if (status >= 500) {
        const times = (this.failed.get(key) ?? 0) + 1;
        this.failed.set(key, times);
        if (times < TRIES) throw error;
      }
      const refusal = { status, message: error.message, at: new Date().toISOString() };
      await this.queue.mark(queued, refusal);
      this.events.next({ kind: 'refused', record: write.record, message: error.message, write });
    }
  }

  private async transmit({ key, write }: Queued): Promise<void> {
    const { record, who } = write;
    if (write.kind === 'ledger') {
      await api.append(record, write.entry);
      await this.queue.delete(key);
      this.events.next({ kind: 'appended', record, entryId: write.entry.id });
      return;
    }
    const { writeId, baseVersion } = write;
    const answer =
      write.kind === 'build'
        ? await api.save(record, { writeId, baseVersion, who, build: write.build })
        : await api.saveSpec(record, { writeId, baseVersion, who, spec: write.spec });
    // The same write sent once more is answered with the version that it made then: what is known is never an older one.
    const version = Math.max(answer.version, this.acknowledged.get(record) ?? 0);
    this.acknowledged.set(record, version);
    await this.queue.acknowledge({ key, write }, version);
    this.events.next({ kind: 'saved', of: write.kind, record, version });
  }

  /** Another change reached the server first: the record is held until somebody, or a merge, has said what to keep. */
  private isStale(write: Exclude<Write, { kind: 'ledger' }>, error: ApiError): boolean {
    const { current } = error.body;
    if (!current) return false;
    const { record } = write;
    this.held.update((held) => new Set([...held, record]));
    this.events.next(
      write.kind === 'build'
        ? {
            kind: 'stale',
            of: 'build',
            record,
            current: current as StoredBuild,
            baseVersion: write.baseVersion,
            build: write.build,
          }
        : { kind: 'stale', of: 'library', record, current: current as StoredSpec },
    );
    return true;
  }

  private async count(): Promise<void> {
    const notTaken: NotTaken[] = [];
    let waiting = 0;
    for (const { key, write } of await this.queue.all()) {
      if (write.refused) notTaken.push({ key, write, refusal: write.refused });
      else waiting += 1;
    }
    this.stored.set(waiting);
    this.notTaken.set(notTaken);
  }
}
