import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { newId } from '../base/new-id';

interface LeaseSchema extends DBSchema {
  lease: { key: string; value: { holder: string; until: number } };
}

/** A lease that is not renewed ends after this: its tab was closed in the middle. */
const ENDS_MS = 6000;
const RENEW_MS = 2000;
const ASK_MS = 250;

/**
 * One tab at a time, where the browser has no locks for it (over plain http from another device): a lease in IndexedDB, renewed while
 * the work goes on. All tabs of a browser share its clock.
 */
export class Lease {
  private readonly holder = newId();
  private opened: Promise<IDBPDatabase<LeaseSchema>> | null = null;

  /** @param askMs how soon somebody who waits asks again */
  constructor(
    private readonly name: string,
    private readonly askMs = ASK_MS,
  ) {}

  /** Opened when it is needed: most browsers have locks, and some refuse to open anything. */
  private get database(): Promise<IDBPDatabase<LeaseSchema>> {
    this.opened ??= openDB<LeaseSchema>(`${this.name}-lease`, 1, {
      upgrade(db) {
        db.createObjectStore('lease');
      },
    });
    return this.opened;
  }

  /** Takes the lease, or renews it; false while another tab holds it. */
  private async take(): Promise<boolean> {
    const tx = (await this.database).transaction('lease', 'readwrite');
    const now = Date.now();
    const held = await tx.store.get(this.name);
    const free = !held || held.holder === this.holder || held.until <= now;
    if (free) await tx.store.put({ holder: this.holder, until: now + ENDS_MS }, this.name);
    await tx.done;
    return free;
  }

  private async giveBack(): Promise<void> {
    const tx = (await this.database).transaction('lease', 'readwrite');
    if ((await tx.store.get(this.name))?.holder === this.holder) await tx.store.delete(this.name);
    await tx.done;
  }

  /** Does the work while no other tab does any. */
  async run(work: () => Promise<void>): Promise<void> {
    while (!(await this.take())) await new Promise((resolve) => setTimeout(resolve, this.askMs));
    const renewing = setInterval(() => {
      this.take().catch((error: unknown) => console.warn('the lease of the outbox was not renewed', error));
    }, RENEW_MS);
    try {
      await work();
    } finally {
      clearInterval(renewing);
      await this.giveBack();
    }
  }
}
