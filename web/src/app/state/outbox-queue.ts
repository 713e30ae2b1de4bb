import type { Build } from '@hot-spline/model/document';
import {
  isVersioned,
  openWrite,
  type OutboxDatabase,
  type OutboxSchema,
  type Refusal,
  type VersionedWrite,
  type Write,
} from './outbox-store';
import type { IDBPTransaction } from 'idb';
import { newId } from '../base/new-id';

/** A write as it lies in the queue. */
export interface Queued<W extends Write = Write> {
  readonly key: number;
  readonly write: W;
}

const idOf = (one: Write): string => (one.kind === 'ledger' ? one.entry.id : one.writeId);

/** What a versioned write has from the start. */
export const versioned = (baseVersion: number) => ({ writeId: newId(), baseVersion, tried: false });

/** This device did not keep a write. */
export class Unkept extends Error {
  /** @param refused whether the browser keeps nothing at all for the app, and not just no more */
  constructor(
    readonly refused: boolean,
    why: unknown,
  ) {
    super(why instanceof Error ? why.message : String(why));
  }
}

/**
 * The writes of this browser in IndexedDB, oldest first: each record has a queue of its own. Where the browser keeps nothing for the
 * app the queue is empty, and stays so.
 */
export class OutboxQueue {
  private why: unknown = null;
  private readonly database: Promise<OutboxDatabase | null>;

  /** @param open as IndexedDB opens it */
  constructor(open: () => Promise<OutboxDatabase>) {
    // Its very name may throw.
    this.database = new Promise<OutboxDatabase>((resolve) => resolve(open())).catch((error: unknown) => {
      this.why = error;
      return null;
    });
  }

  /** Why the browser keeps nothing for the app; null where it does. */
  async refused(): Promise<string | null> {
    return (await this.database) ? null : String(this.why);
  }

  private async writes() {
    return (await this.database)?.transaction('writes', 'readwrite') ?? null;
  }

  /**
   * Puts a write behind the others of its record; one that can't have reached the server yet is replaced.
   * @param known version of the record that the server acknowledged, 0 where none is known
   * @throws Unkept where there is no room, or no store
   */
  async add(write: Write, known: number): Promise<void> {
    const database = await this.database;
    if (!database) throw new Unkept(true, this.why);
    try {
      await this.put(database.transaction('writes', 'readwrite'), write, known);
    } catch (error) {
      throw new Unkept(false, error);
    }
  }

  private async put(
    tx: IDBPTransaction<OutboxSchema, ['writes'], 'readwrite'>,
    write: Write,
    known: number,
  ): Promise<void> {
    if (!isVersioned(write)) {
      await Promise.all([tx.store.add(write), tx.done]);
      return;
    }
    for (
      let cursor = await tx.store.index('record').openCursor(write.record);
      cursor;
      cursor = await cursor.continue()
    ) {
      const waiting = cursor.value;
      // An earlier program did not say; what it tried can't be told from the rest.
      if (waiting.kind !== write.kind || waiting.tried !== false) continue;
      await Promise.all([cursor.update({ ...write, baseVersion: waiting.baseVersion }), tx.done]);
      return;
    }
    await Promise.all([tx.store.add({ ...write, baseVersion: Math.max(write.baseVersion, known) }), tx.done]);
  }

  /** Puts a name on what waits without one. @returns the entries of ledgers that got it, with it, by their ids */
  async sign(who: string): Promise<Map<string, string>> {
    const tx = await this.writes();
    const signed = new Map<string, string>();
    if (!tx) return signed;
    for (let cursor = await tx.store.openCursor(); cursor; cursor = await cursor.continue()) {
      const write = cursor.value;
      const entry = write.kind === 'ledger' && write.entry.who === '' ? { ...write.entry, who } : null;
      if (write.who !== '' && !entry) continue;
      if (entry) signed.set(entry.id, who);
      await cursor.update(write.kind === 'ledger' ? { ...write, who, entry: entry ?? write.entry } : { ...write, who });
    }
    await tx.done;
    return signed;
  }

  async has(write: Write): Promise<boolean> {
    return (await this.of(write.record)).some((one) => idOf(one) === idOf(write));
  }

  async of(record: string): Promise<Write[]> {
    return ((await (await this.database)?.getAllFromIndex('writes', 'record', record)) ?? []).map(openWrite);
  }

  async all(): Promise<Queued[]> {
    const tx = (await this.database)?.transaction('writes');
    const queued: Queued[] = [];
    if (!tx) return queued;
    for (let cursor = await tx.store.openCursor(); cursor; cursor = await cursor.continue())
      queued.push({ key: cursor.primaryKey, write: openWrite(cursor.value) });
    return queued;
  }

  /** The next to send, marked as tried in the same breath: from here on a newer one goes behind it. @param rests those that can't go on */
  async next(rests: (write: Write) => boolean): Promise<Queued | null> {
    const tx = await this.writes();
    if (!tx) return null;
    for (let cursor = await tx.store.openCursor(); cursor; cursor = await cursor.continue()) {
      const write = openWrite(cursor.value);
      if (write.refused || rests(write)) continue;
      const key = cursor.primaryKey;
      const next = isVersioned(write) ? { ...write, tried: true } : write;
      if (next !== write) await cursor.update(next);
      await tx.done;
      return { key, write: next };
    }
    return null;
  }

  /** Takes an acknowledged write out, unless another tab has put a newer one in its place; what is left builds on `version`. */
  async acknowledge({ key, write }: Queued<VersionedWrite>, version: number): Promise<void> {
    const tx = await this.writes();
    if (!tx) return;
    for (
      let cursor = await tx.store.index('record').openCursor(write.record);
      cursor;
      cursor = await cursor.continue()
    ) {
      const waiting = cursor.value;
      // What was not taken keeps its own base: sent again later, it must not pass for a change of what came after it.
      if (!isVersioned(waiting) || waiting.refused) continue;
      if (cursor.primaryKey === key && waiting.writeId === write.writeId) await cursor.delete();
      // One made on a later version than this answer knows of keeps it.
      else await cursor.update({ ...waiting, baseVersion: Math.max(version, waiting.baseVersion) });
    }
    await tx.done;
  }

  /**
   * After a stale answer: lets ours go on top of `version`, as `merged` where it was put together, or drops it.
   * @returns whether anything of it waited here
   */
  async settle(record: string, keep: 'ours' | 'theirs', version: number, merged?: Build): Promise<boolean> {
    const tx = await this.writes();
    if (!tx) return false;
    let first = true;
    for (let cursor = await tx.store.index('record').openCursor(record); cursor; cursor = await cursor.continue()) {
      const waiting = openWrite(cursor.value);
      if (!isVersioned(waiting) || waiting.refused) continue;
      // A merge stands for all that waited: it was made from the newest of them.
      if (keep === 'theirs' || (merged && !first)) await cursor.delete();
      else {
        const moved = { ...waiting, ...versioned(version) };
        await cursor.update(moved.kind === 'build' && merged ? { ...moved, build: merged } : moved);
      }
      first = false;
    }
    await tx.done;
    return !first;
  }

  /** Sets a write aside with why it was not taken, or puts it back into its queue. */
  async mark({ key, write }: Queued, refused: Refusal | null): Promise<void> {
    await (await this.database)?.put('writes', { ...write, refused }, key);
  }

  async get(key: number): Promise<Queued | null> {
    const kept = await (await this.database)?.get('writes', key);
    return kept ? { key, write: openWrite(kept) } : null;
  }

  async delete(key: number): Promise<void> {
    await (await this.database)?.delete('writes', key);
  }
}
