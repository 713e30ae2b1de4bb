import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import type { Build, LedgerEntry, LibrarySpec } from '@hot-spline/model';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { Subject } from 'rxjs';
import { ApiError, api, type StoredBuild, type StoredSpec } from './api';

interface Versioned {
  /** Id of the build or the library spec. */
  readonly record: string;
  readonly writeId: string;
  /** The acknowledged version that the change was made on; moved on when an own write before it is acknowledged. */
  readonly baseVersion: number;
}

interface BuildWrite extends Versioned {
  readonly kind: 'build';
  readonly build: Build;
}

interface LibraryWrite extends Versioned {
  readonly kind: 'library';
  readonly spec: LibrarySpec;
}

interface LedgerWrite {
  readonly kind: 'ledger';
  readonly record: string;
  readonly entry: LedgerEntry;
}

export type Write = BuildWrite | LibraryWrite | LedgerWrite;

interface OutboxSchema extends DBSchema {
  writes: { key: number; value: Write; indexes: { record: string } };
}

/** `of` says what `record` is the id of. */
export type OutboxEvent =
  | { readonly kind: 'saved'; readonly of: 'build' | 'library'; readonly record: string; readonly version: number }
  | { readonly kind: 'appended'; readonly record: string; readonly entryId: string }
  | { readonly kind: 'stale'; readonly of: 'build'; readonly record: string; readonly current: StoredBuild }
  | { readonly kind: 'stale'; readonly of: 'library'; readonly record: string; readonly current: StoredSpec }
  | { readonly kind: 'refused'; readonly record: string; readonly message: string; readonly write: Write };

const DATABASE = 'hot-spline-outbox';
const RETRY_MS = [1000, 2000, 4000];
const NOTE = 'hot-spline.entering.';
let noted = 0;

/**
 * A write on its way into IndexedDB, noted where a reload in the very same moment can't lose it.
 * @returns what takes the note away again
 */
function note(write: Write): () => void {
  noted += 1;
  const key = `${NOTE}${Date.now()}.${String(noted).padStart(9, '0')}`;
  try {
    sessionStorage.setItem(key, JSON.stringify(write));
  } catch (error) {
    // A full session store only opens the moment between here and IndexedDB again.
    console.warn('a change could not be noted before it is kept', error);
  }
  return () => sessionStorage.removeItem(key);
}

/** Writes that a reload caught on their way, oldest first. */
function notes(): { write: Write; done: () => void }[] {
  return Object.keys(sessionStorage)
    .filter((key) => key.startsWith(NOTE))
    .sort()
    .map((key) => ({
      write: JSON.parse(sessionStorage.getItem(key) ?? '') as Write,
      done: () => sessionStorage.removeItem(key),
    }));
}

/**
 * Writes on their way to the server. Each is put into IndexedDB first and taken out when the server has acknowledged
 * it, in order; what can't be sent waits, over reloads too. Ids are made here, so that a retry never doubles a write.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly stored = signal(0);
  /** Changes on their way into IndexedDB: they wait too, from the moment they are made. */
  private readonly entering = signal(0);
  readonly waiting = computed(() => this.stored() + this.entering());
  /** Why the last try failed; null while all goes well. */
  readonly trouble = signal<string | null>(null);
  readonly events = new Subject<OutboxEvent>();

  private readonly database: Promise<IDBPDatabase<OutboxSchema>> = openDB<OutboxSchema>(DATABASE, 1, {
    upgrade(db) {
      db.createObjectStore('writes', { autoIncrement: true }).createIndex('record', 'record');
    },
  });
  /** Ends when everything made so far is in IndexedDB. */
  private entered: Promise<void>;
  /** Records whose first write is stale: held until somebody has said what to keep. */
  private readonly held = signal<ReadonlySet<string>>(new Set());
  /** Whether something waits for somebody's choice and not for the server. */
  readonly holding = computed(() => this.held().size > 0);
  /** Writes of this tab that nobody has tried to send: only these may still be replaced by a newer one. */
  private readonly untried = new Set<number>();
  /** Last version of each record that the server acknowledged to this tab; a change made meanwhile builds on it. */
  private readonly acknowledged = new Map<string, number>();
  private sending = false;
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

  /** Puts the newest specification of a build into the queue; one that nobody has tried to send is replaced. */
  putBuild(record: string, baseVersion: number, build: Build): Promise<void> {
    return this.enter({ kind: 'build', record, writeId: crypto.randomUUID(), baseVersion, build });
  }

  /** The same for a spec of the library; `baseVersion` 0 for a new one. */
  putLibrary(record: string, baseVersion: number, spec: LibrarySpec): Promise<void> {
    return this.enter({ kind: 'library', record, writeId: crypto.randomUUID(), baseVersion, spec });
  }

  putLedger(record: string, entry: LedgerEntry): Promise<void> {
    return this.enter({ kind: 'ledger', record, entry });
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
    return stored;
  }

  private async adopt(): Promise<void> {
    for (const { write, done } of notes()) {
      await this.store(write);
      done();
    }
    await this.count();
  }

  private async store(write: Write): Promise<void> {
    const tx = (await this.database).transaction('writes', 'readwrite');
    if (write.kind === 'ledger') {
      await tx.store.add(write);
      await tx.done;
      return;
    }
    const base = Math.max(write.baseVersion, this.acknowledged.get(write.record) ?? 0);
    for (
      let cursor = await tx.store.index('record').openCursor(write.record);
      cursor;
      cursor = await cursor.continue()
    ) {
      const waiting = cursor.value;
      if (waiting.kind !== write.kind || !this.untried.has(cursor.primaryKey)) continue;
      await cursor.update({ ...write, baseVersion: waiting.baseVersion });
      await tx.done;
      return;
    }
    const key = await tx.store.add({ ...write, baseVersion: base });
    this.untried.add(key);
    await tx.done;
  }

  /** What waits for a build, oldest first. */
  async pending(buildId: string): Promise<{ build: Build | null; entries: LedgerEntry[] }> {
    await this.entered;
    const writes = await (await this.database).getAllFromIndex('writes', 'record', buildId);
    return {
      build: writes.findLast((write) => write.kind === 'build')?.build ?? null,
      entries: writes.flatMap((write) => (write.kind === 'ledger' ? [write.entry] : [])),
    };
  }

  /** The newest waiting version of each spec of the library, by its id. */
  async pendingLibrary(): Promise<Map<string, LibrarySpec>> {
    await this.entered;
    const writes = await (await this.database).getAll('writes');
    return new Map(writes.flatMap((write) => (write.kind === 'library' ? [[write.record, write.spec] as const] : [])));
  }

  /** After a stale answer: sends ours on top of `version`, or drops it. */
  async settle(record: string, keep: 'ours' | 'theirs', version: number): Promise<void> {
    await this.entered;
    const tx = (await this.database).transaction('writes', 'readwrite');
    for (let cursor = await tx.store.index('record').openCursor(record); cursor; cursor = await cursor.continue()) {
      if (cursor.value.kind === 'ledger') continue;
      if (keep === 'theirs') await cursor.delete();
      else await cursor.update({ ...cursor.value, writeId: crypto.randomUUID(), baseVersion: version });
    }
    await tx.done;
    this.held.update((held) => new Set([...held].filter((one) => one !== record)));
    await this.count();
    this.flush();
  }

  /** Sends what waits, unless that is under way. */
  flush(): void {
    if (this.sending || this.closed) return;
    clearTimeout(this.timer);
    this.sending = true;
    const run = async (): Promise<void> => {
      try {
        await this.entered;
        // One tab sends at a time; a retry of another tab's write would be harmless, but out of order.
        if ('locks' in navigator) await navigator.locks.request(DATABASE, () => this.send());
        else await this.send();
        this.failures = 0;
        this.trouble.set(null);
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        this.trouble.set(error.message);
        const wait = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)];
        this.failures += 1;
        this.timer = setTimeout(() => this.flush(), wait);
      } finally {
        this.sending = false;
        await this.count();
      }
    };
    void run();
  }

  private async send(): Promise<void> {
    const db = await this.database;
    for (;;) {
      const tx = db.transaction('writes');
      let cursor = await tx.store.openCursor();
      while (cursor && this.held().has(cursor.value.record)) cursor = await cursor.continue();
      if (!cursor) return;
      this.untried.delete(cursor.primaryKey);
      await this.sendOne(db, cursor.primaryKey, cursor.value);
      await this.count();
    }
  }

  private async sendOne(db: IDBPDatabase<OutboxSchema>, key: number, write: Write): Promise<void> {
    const { record } = write;
    try {
      if (write.kind === 'ledger') {
        await api.append(record, write.entry);
        await db.delete('writes', key);
        this.events.next({ kind: 'appended', record, entryId: write.entry.id });
        return;
      }
      const { writeId, baseVersion } = write;
      const { version } =
        write.kind === 'build'
          ? await api.save(record, { writeId, baseVersion, build: write.build })
          : await api.saveSpec(record, { writeId, baseVersion, spec: write.spec });
      await this.acknowledge(db, key, write, version);
      this.events.next({ kind: 'saved', of: write.kind, record, version });
    } catch (error) {
      if (!(error instanceof ApiError) || error.passing) throw error;
      const { current } = error.body;
      if (error.status === 409 && write.kind !== 'ledger' && current) {
        this.held.update((held) => new Set([...held, record]));
        this.events.next(
          write.kind === 'build'
            ? { kind: 'stale', of: 'build', record, current: current as StoredBuild }
            : { kind: 'stale', of: 'library', record, current: current as StoredSpec },
        );
        return;
      }
      await db.delete('writes', key);
      this.events.next({ kind: 'refused', record, message: error.message, write });
    }
  }

  /** Takes the write out, unless another tab has put a newer one in its place; what is left builds on `version`. */
  private async acknowledge(
    db: IDBPDatabase<OutboxSchema>,
    key: number,
    { record, writeId }: Versioned,
    version: number,
  ): Promise<void> {
    this.acknowledged.set(record, version);
    const tx = db.transaction('writes', 'readwrite');
    for (let cursor = await tx.store.index('record').openCursor(record); cursor; cursor = await cursor.continue()) {
      const waiting = cursor.value;
      if (waiting.kind === 'ledger') continue;
      if (cursor.primaryKey === key && waiting.writeId === writeId) await cursor.delete();
      else await cursor.update({ ...waiting, baseVersion: version });
    }
    await tx.done;
  }

  private async count(): Promise<void> {
    this.stored.set(await (await this.database).count('writes'));
  }
}
