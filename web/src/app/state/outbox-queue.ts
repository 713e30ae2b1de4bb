import type { Build } from '@hot-spline/model/document';
import { openOutbox, openWrite, type OutboxDatabase, type Refusal, type Write } from './outbox-store';
import { newId } from '../base/new-id';

/** A write as it lies in the queue. */
export interface Queued<W extends Write = Write> {
  readonly key: number;
  readonly write: W;
}

const idOf = (one: Write): string => (one.kind === 'ledger' ? one.entry.id : one.writeId);

/** What a versioned write has from the start. */
export const versioned = (baseVersion: number) => ({ writeId: newId(), baseVersion, tried: false });

/** The writes of this browser in IndexedDB, oldest first: each record has a queue of its own. */
export class OutboxQueue {
  private readonly database: Promise<OutboxDatabase> = openOutbox();

  /**
   * Puts a write behind the others of its record; one that can't have reached the server yet is replaced.
   * @param known version of the record that the server acknowledged, 0 where none is known
   */
  async add(write: Write, known: number): Promise<void> {
    const tx = (await this.database).transaction('writes', 'readwrite');
    if (write.kind === 'ledger') {
      await tx.store.add(write);
      await tx.done;
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
      await cursor.update({ ...write, baseVersion: waiting.baseVersion });
      await tx.done;
      return;
    }
    await tx.store.add({ ...write, baseVersion: Math.max(write.baseVersion, known) });
    await tx.done;
  }

  /** Puts a name on what waits without one. @returns the entries of ledgers that got it, with it, by their ids */
  async sign(who: string): Promise<Map<string, string>> {
    const tx = (await this.database).transaction('writes', 'readwrite');
    const signed = new Map<string, string>();
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
    return (await (await this.database).getAllFromIndex('writes', 'record', record)).map(openWrite);
  }

  async all(): Promise<Queued[]> {
    const tx = (await this.database).transaction('writes');
    const queued: Queued[] = [];
    for (let cursor = await tx.store.openCursor(); cursor; cursor = await cursor.continue())
      queued.push({ key: cursor.primaryKey, write: openWrite(cursor.value) });
    return queued;
  }

  /** The next to send, marked as tried in the same breath: from here on a newer one goes behind it. @param rests records that can't go on */
  async next(rests: (record: string) => boolean): Promise<Queued | null> {
    const tx = (await this.database).transaction('writes', 'readwrite');
    for (let cursor = await tx.store.openCursor(); cursor; cursor = await cursor.continue()) {
      const write = openWrite(cursor.value);
      if (write.refused || rests(write.record)) continue;
      const key = cursor.primaryKey;
      const next = write.kind === 'ledger' ? write : { ...write, tried: true };
      if (next !== write) await cursor.update(next);
      await tx.done;
      return { key, write: next };
    }
    return null;
  }

  /** Takes an acknowledged write out, unless another tab has put a newer one in its place; what is left builds on `version`. */
  async acknowledge({ key, write }: Queued<Exclude<Write, { kind: 'ledger' }>>, version: number): Promise<void> {
    const tx = (await this.database).transaction('writes', 'readwrite');
    for (
      let cursor = await tx.store.index('record').openCursor(write.record);
      cursor;
      cursor = await cursor.continue()
    ) {
      const waiting = cursor.value;
      // What was not taken keeps its own base: sent again later, it must not pass for a change of what came after it.
      if (waiting.kind === 'ledger' || waiting.refused) continue;
      if (cursor.primaryKey === key && waiting.writeId === write.writeId) await cursor.delete();
      // One made on a later version than this answer knows of keeps it.
      else await cursor.update({ ...waiting, baseVersion: Math.max(version, waiting.baseVersion) });
    }
    await tx.done;
  }

  /** After a stale answer: lets ours go on top of `version`, as `merged` where it was put together, or drops it. */
  async settle(record: string, keep: 'ours' | 'theirs', version: number, merged?: Build): Promise<void> {
    const tx = (await this.database).transaction('writes', 'readwrite');
    let first = true;
    for (let cursor = await tx.store.index('record').openCursor(record); cursor; cursor = await cursor.continue()) {
      const waiting = openWrite(cursor.value);
      if (waiting.kind === 'ledger' || waiting.refused) continue;
      // A merge stands for all that waited: it was made from the newest of them.
      if (keep === 'theirs' || (merged && !first)) await cursor.delete();
      else {
        const moved = { ...waiting, ...versioned(version) };
        await cursor.update(moved.kind === 'build' && merged ? { ...moved, build: merged } : moved);
      }
      first = false;
    }
    await tx.done;
  }

  /** Sets a write aside with why it was not taken, or puts it back into its queue. */
  async mark({ key, write }: Queued, refused: Refusal | null): Promise<void> {
    await (await this.database).put('writes', { ...write, refused }, key);
  }

  async get(key: number): Promise<Queued | null> {
    const kept = await (await this.database).get('writes', key);
    return kept ? { key, write: openWrite(kept) } : null;
  }

  async delete(key: number): Promise<void> {
    await (await this.database).delete('writes', key);
  }
}
