import { serverPath } from '../base/server-path';
import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import {
  FORMAT_VERSION,
  type Build,
  type BuildFile,
  type CustomerWrite,
  type LedgerEntry,
  type LibrarySpec,
  type ShopSettings,
} from '@hot-spline/model/document';
import { Subject } from 'rxjs';
import { ApiError, api, type StoredBuild, type StoredSpec } from './api';
import { deviceStore } from '../base/device-store';
import { newId } from '../base/new-id';
import { note, notes } from './outbox-notes';
import { Lease } from './lease';
import { OutboxQueue, Unkept, versioned, type Queued } from './outbox-queue';
import {
  DATABASE,
  OPEN_OUTBOX,
  isSigned,
  isVersioned,
  type Refusal,
  type VersionedWrite,
  type Write,
} from './outbox-store';
import { Puts } from './puts';

export type { Write } from './outbox-store';

/** `of` says what `record` is the id of. */
export type OutboxEvent =
  | { readonly kind: 'saved'; readonly of: 'build' | 'library'; readonly record: string; readonly version: number }
  | { readonly kind: 'appended'; readonly record: string; readonly entryId: string }
  /** Something that stands only over what its maker saw, and more had come: it is no entry. */
  | { readonly kind: 'moved-on'; readonly record: string; readonly entry: LedgerEntry; readonly came: number }
  /** Whatever else was sent is there. */
  | { readonly kind: 'sent'; readonly record: string; readonly of: Write['kind'] }
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

const OTHER_SHOP: Pause = {
  why: 'other-shop',
  message: 'This server is another shop than the one that these were made for.',
};

const RETRY_MS = [1000, 2000, 4000];
/** A server that fails over one write is tried so often before the write is set aside. */
const TRIES = 3;
const SHOP_KEY = 'hot-spline.shop';

/** What a file is, as text. */
const dataAddress = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error ?? new Error('It can’t be read.'));
    reader.readAsDataURL(blob);
  });

/** Somebody has to sign in first. What is not theirs to do is refused like anything else that is not taken. */
const shutOut = ({ status, body }: ApiError): boolean =>
  status === 401 || (status === 403 && body['type'] !== 'urn:hot-spline:role');
/** Sending the same again a little later may work: nobody answered, or whoever did is busy, starts, or has no room for now. */
const passing = ({ status }: ApiError): boolean => [0, 429, 503, 507].includes(status);

/** What this device keeps of what is on its way: all, nothing more for want of room, or nothing at all. */
export type Keeps = 'all' | 'no-more' | 'nothing';

/**
 * Writes on their way to the server, all there are: nothing else in the app changes anything there. Each is put into IndexedDB first; it leaves only when the server has acknowledged
 * it or the person has thrown it away. What this device can't keep is sent while its maker waits, and is heard of if that fails. Each record has a queue of its own: what one can't send holds up no other. Ids
 * are made here, so that a retry never doubles a write.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly stored = signal(0);
  /** Changes on their way into IndexedDB: they wait too, from the moment they are made. */
  private readonly entering = signal(0);
  readonly waiting = computed(() => this.stored() + this.entering());
  /** How many wait until somebody has said a name. */
  readonly unsigned = computed(() => this.unsignedStored() + this.asking());
  private readonly unsignedStored = signal(0);
  /** Of those, what this device can't keep. */
  private readonly asking = signal(0);
  readonly keeps = signal<Keeps>('all');
  /** Photos that were made here: shown from here, whether the server has them yet or not. */
  private readonly photos = signal<ReadonlyMap<string, { readonly blob: Blob; readonly url: string }>>(new Map());
  /** Why the last try failed; null while all goes well. */
  readonly trouble = signal<string | null>(null);
  /** Sending rests until somebody has done something about it. */
  readonly paused = signal<Pause | null>(null);
  readonly notTaken = signal<readonly NotTaken[]>([]);
  readonly events = new Subject<OutboxEvent>();

  private readonly puts = inject(Puts);
  private readonly queue = new OutboxQueue(inject(OPEN_OUTBOX));
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
  private named: (() => void)[] = [];
  /** The shop that this tab has met; asked for again after the server was away: it may be another one then. */
  private shop: string | null = null;
  private sending = false;
  /** Asked to send while it was sending: it may have been past what is meant. */
  private again = false;
  /** Those who wait until a pass over the queues has ended. */
  private passes: (() => void)[] = [];
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

  /** Where a photo is shown from. */
  photoAddress(id: string): string {
    return this.photos().get(id)?.url ?? serverPath(`/photos/${id}`);
  }

  /** A photo that was made here; undefined where the server has to be asked. */
  photo(id: string): Blob | undefined {
    return this.photos().get(id)?.blob;
  }

  /** Says whose writes these are from now on; null while nobody has said. What waits without a name goes with this one. */
  signedBy(who: string | null): void {
    this.who = who;
    if (who === null) return;
    for (const go of this.named.splice(0)) go();
    if (who !== '') void this.sign(who);
  }

  private async sign(who: string): Promise<void> {
    await this.entered;
    const entries = await this.queue.sign(who);
    if (entries.size > 0) this.events.next({ kind: 'signed', entries });
    this.flush();
  }

  private common(record: string) {
    const shop = this.shop ?? deviceStore.get(SHOP_KEY);
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

  /** @param over how many entries there are before it, where it stands only over these */
  putLedger(record: string, entry: LedgerEntry, over?: number): Promise<void> {
    return this.enter({ kind: 'ledger', ...this.common(record), entry, ...(over === undefined ? {} : { over }) });
  }

  /** A build that begins: changes and readings of it go behind it. */
  putNew(record: string, file: BuildFile): Promise<void> {
    return this.enter({ kind: 'create', ...this.common(record), writeId: newId(), file });
  }

  putArchived(of: 'build' | 'library', record: string, archived: boolean): Promise<void> {
    return this.enter({ kind: 'archive', ...this.common(record), writeId: newId(), of, archived });
  }

  /** @param customer null to erase it */
  putCustomer(record: string, customer: CustomerWrite | null): Promise<void> {
    return this.enter({ kind: 'customer', ...this.common(record), writeId: newId(), customer });
  }

  putSettings(settings: ShopSettings): Promise<void> {
    return this.enter({ kind: 'settings', ...this.common('shop'), writeId: newId(), settings });
  }

  /** @param record SHA-256 of its bytes */
  putPhoto(record: string, photo: Blob): Promise<void> {
    this.show(record, photo);
    return this.enter({ kind: 'photo', ...this.common(record), writeId: newId(), photo });
  }

  private show(id: string, blob: Blob): void {
    if (!this.photos().has(id))
      this.photos.update((photos) => new Map([...photos, [id, { blob, url: URL.createObjectURL(blob) }]]));
  }

  /**
   * Noted at once, then stored in the order in which they were made. What this device can't keep is sent at once.
   * @throws Error where neither the device nor the server has it
   */
  private enter(write: Write): Promise<void> {
    const done = note(write);
    this.entering.update((count) => count + 1);
    const stored = this.entered.then(async () => {
      try {
        await this.store(write);
        if (this.keeps() === 'no-more') this.keeps.set('all');
        await this.count();
      } catch (error) {
        if (!(error instanceof Unkept)) throw error;
        this.keeps.set(error.refused ? 'nothing' : 'no-more');
        await this.sendNow(write, error);
      } finally {
        done();
        this.entering.update((count) => count - 1);
      }
      this.flush();
    });
    // What could not be stored is the caller's to hear; the next one is stored all the same.
    this.entered = stored.catch(() => undefined);
    this.puts.newest = stored;
    return stored;
  }

  /** Sends what this device can't keep, behind what waits of its record: now, or not at all. */
  private async sendNow(write: Write, why: Unkept): Promise<void> {
    const place = why.refused ? 'this browser keeps nothing for the app' : 'this device has no room';
    if (isSigned(write) && this.who === null) {
      this.asking.update((count) => count + 1);
      await new Promise<void>((resolve) => this.named.push(resolve));
      this.asking.update((count) => count - 1);
    }
    const who = write.who || (this.who ?? '');
    const signed: Write =
      write.kind === 'ledger' ? { ...write, who, entry: { ...write.entry, who } } : { ...write, who };
    try {
      await this.exclusively(async () => {
        await this.send();
        await this.meetShop();
        if (this.paused()) throw new ApiError(0, this.paused()?.message ?? '');
        if ((await this.queue.of(write.record)).length > 0)
          throw new ApiError(0, 'What was made before it waits still.');
        const known = this.acknowledged.get(write.record) ?? 0;
        const last = isVersioned(signed) ? { ...signed, baseVersion: Math.max(signed.baseVersion, known) } : signed;
        try {
          await this.transmit({ key: null, write: last });
        } catch (error) {
          if (isVersioned(last) && error instanceof ApiError && error.status === 409 && this.isStale(last, error))
            return;
          throw error;
        }
      });
      this.trouble.set(null);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.status === 0) this.shop = null;
      throw new Error(`${place}, and the server did not take it: ${error.message}`);
    }
  }

  private async adopt(): Promise<void> {
    // Before anything of this page is noted.
    const before = notes();
    if ((await this.queue.refused()) !== null) this.keeps.set('nothing');
    for (const { write, done } of before) {
      // A reload between the storing and the taking away of the note: it is there already, or was sent even.
      const caught: Write = isVersioned(write) ? { ...write, tried: true } : write;
      try {
        if (!(await this.queue.has(write))) await this.store(caught);
      } catch (error) {
        if (!(error instanceof Unkept)) throw error;
        // It stays noted: the next start of this tab tries again.
        continue;
      }
      done();
    }
    for (const { write } of await this.queue.all()) if (write.kind === 'photo') this.show(write.record, write.photo);
    await this.count();
  }

  private store(write: Write): Promise<void> {
    return this.queue.add(write, this.acknowledged.get(write.record) ?? 0);
  }

  /**
   * What waits for a build, oldest first; also what was not taken, so that it stays on the screen: `refusedOn` is the version
   * that it was made on, and where the server has a later one, it has been overtaken.
   */
  async pending(buildId: string): Promise<{
    /** It begins here: the server may not have it yet. */
    created: BuildFile | null;
    build: Build | null;
    refusedOn?: number;
    entries: LedgerEntry[];
  }> {
    await this.entered;
    const writes = await this.queue.of(buildId);
    const newest = writes.findLast((write) => write.kind === 'build');
    return {
      created: writes.find((write) => write.kind === 'create')?.file ?? null,
      build: newest?.build ?? null,
      ...(newest?.refused ? { refusedOn: newest.baseVersion } : {}),
      entries: writes.flatMap((write) => (write.kind === 'ledger' ? [write.entry] : [])),
    };
  }

  /** Builds that begin here and that the server has not yet, by their ids. */
  async pendingNew(): Promise<Map<string, Build>> {
    await this.entered;
    const queued = await this.queue.all();
    const begun = queued.flatMap(({ write }) =>
      write.kind === 'create' ? [[write.record, write.file.build] as const] : [],
    );
    return new Map(begun);
  }

  /** Customers as they will be once the server has them, by their ids; null for one that is erased. */
  async pendingCustomers(): Promise<Map<string, CustomerWrite | null>> {
    await this.entered;
    const queued = await this.queue.all();
    return new Map(
      queued.flatMap(({ write }) =>
        write.kind === 'customer' && !write.refused ? [[write.record, write.customer] as const] : [],
      ),
    );
  }

  /** What waits to be put away or brought back, by its id: the newest word. */
  async pendingArchived(of: 'build' | 'library'): Promise<Map<string, boolean>> {
    await this.entered;
    const queued = await this.queue.all();
    return new Map(
      queued.flatMap(({ write }) =>
        write.kind === 'archive' && write.of === of && !write.refused ? [[write.record, write.archived] as const] : [],
      ),
    );
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
    const waited = await this.queue.settle(record, keep, version, merged);
    this.acknowledged.set(record, Math.max(version, this.acknowledged.get(record) ?? 0));
    this.held.update((held) => new Set([...held].filter((one) => one !== record)));
    await this.count();
    // Where this device keeps nothing, what was put together is sent as it is.
    if (!waited && keep === 'ours' && merged) return this.putBuild(record, version, merged);
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
  async exportNotTaken(): Promise<Blob> {
    const writes = await Promise.all(
      this.notTaken().map(async ({ write }) =>
        write.kind === 'photo' ? { ...write, photo: await dataAddress(write.photo) } : write,
      ),
    );
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
    if (this.closed || this.paused()) return;
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
        await this.exclusively(() => this.send());
        this.failures = 0;
        this.trouble.set(null);
      } catch (error) {
        fails = true;
        if (!(error instanceof ApiError)) throw error;
        this.shop = null;
        this.trouble.set(error.message);
        const wait = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)];
        this.failures += 1;
        if (!this.closed) this.timer = setTimeout(() => this.flush(), wait);
      } finally {
        await this.count();
        this.sending = false;
        // After a failure it is the timer's turn.
        if (this.again && !fails) this.flush();
        for (const go of this.passes.splice(0)) go();
      }
    };
    void run();
  }

  /** One tab sends at a time; a retry of another tab's write would be harmless, but out of order. */
  private async exclusively(send: () => Promise<void>): Promise<void> {
    // What keeps nothing shares nothing.
    if (this.keeps() === 'nothing') return send();
    if ('locks' in navigator) await navigator.locks.request(DATABASE, send);
    else await this.lease.run(send);
  }

  /** When what waits now has been sent, or can't be for now. */
  async sent(): Promise<void> {
    await this.entered;
    while (this.sending) await new Promise<void>((resolve) => this.passes.push(resolve));
  }

  /** Asks which shop answers before the first write goes out, and whenever the server was away. */
  private async meetShop(): Promise<void> {
    if (this.shop !== null) return;
    const { id } = await api.shop();
    this.shop = id;
    deviceStore.set(SHOP_KEY, id);
  }

  /** Goes through the queues, one write of each record after the other. */
  private async send(): Promise<void> {
    /** Records that can't go on for now, each with its own reason. */
    const resting = new Set<string>();
    let later: ApiError | null = null;
    for (;;) {
      const next = await this.queue.next(
        (write) =>
          this.held().has(write.record) ||
          resting.has(write.record) ||
          // Nothing that carries a name goes out while it is asked for.
          (this.who === null && isSigned(write)),
      );
      // Whoever closed it sends nothing more: what waits is the next page's.
      if (!next || this.closed) break;
      await this.meetShop();
      if (this.closed) break;
      if (next.write.shop !== null && next.write.shop !== this.shop) {
        resting.add(next.write.record);
        this.paused.set(OTHER_SHOP);
        continue;
      }
      try {
        await this.sendOne(next);
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        // It is another one since it was asked: an idle tab hears of it so.
        if (error.status === 412) {
          this.shop = null;
          this.paused.set(OTHER_SHOP);
          return;
        }
        if (shutOut(error)) {
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
      if (passing(error) || shutOut(error) || status === 412) throw error;
      if (status === 409 && isVersioned(write) && this.isStale(write, error)) return;
      if (status === 409 && write.kind === 'ledger' && write.over !== undefined) {
        const { type, count } = error.body;
        if (type === 'urn:hot-spline:moved-on') {
          // A name under what its maker has not seen is no signature: it is not sent again either.
          await this.queue.delete(key);
          const came = Number(count) - write.over;
          this.events.next({ kind: 'moved-on', record: write.record, entry: write.entry, came });
          return;
        }
      }
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

  /** @param queued its key is null where it waits nowhere */
  private async transmit({ key, write }: Omit<Queued, 'key'> & { readonly key: number | null }): Promise<void> {
    const { record } = write;
    const shop = write.shop ?? this.shop ?? '';
    if (isVersioned(write)) return this.transmitVersion(key, write, shop);
    switch (write.kind) {
      case 'ledger':
        await api.append(shop, record, write.entry, write.over);
        break;
      case 'create':
        await api.create(shop, record, write.file);
        break;
      case 'archive':
        await (write.of === 'build' ? api.archive : api.archiveSpec)(shop, record, write.archived);
        break;
      case 'customer':
        await (write.customer ? api.saveCustomer(shop, record, write.customer) : this.erase(shop, record));
        break;
      case 'settings':
        await api.saveShop(shop, write.settings);
        break;
      case 'photo':
        await api.keepPhoto(shop, record, write.photo);
    }
    if (key !== null) await this.queue.delete(key);
    this.events.next(
      write.kind === 'ledger'
        ? { kind: 'appended', record, entryId: write.entry.id }
        : { kind: 'sent', record, of: write.kind },
    );
  }

  private async erase(shop: string, id: string): Promise<void> {
    try {
      await api.eraseCustomer(shop, id);
    } catch (error) {
      // Sent once more, or by another device too: it is gone.
      if (!(error instanceof ApiError) || error.status !== 404) throw error;
    }
  }

  private async transmitVersion(key: number | null, write: VersionedWrite, shop: string): Promise<void> {
    const { record, who, writeId, baseVersion } = write;
    const answer =
      write.kind === 'build'
        ? await api.save(shop, record, { writeId, baseVersion, who, build: write.build })
        : await api.saveSpec(shop, record, { writeId, baseVersion, who, spec: write.spec });
    // The same write sent once more is answered with the version that it made then: what is known is never an older one.
    const version = Math.max(answer.version, this.acknowledged.get(record) ?? 0);
    this.acknowledged.set(record, version);
    if (key !== null) await this.queue.acknowledge({ key, write }, version);
    this.events.next({ kind: 'saved', of: write.kind, record, version });
  }

  /** Another change reached the server first: the record is held until somebody, or a merge, has said what to keep. */
  private isStale(write: VersionedWrite, error: ApiError): boolean {
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
    let unsigned = 0;
    for (const { key, write } of await this.queue.all()) {
      if (write.refused) notTaken.push({ key, write, refusal: write.refused });
      else {
        waiting += 1;
        if (isSigned(write) && write.who === '') unsigned += 1;
      }
    }
    this.stored.set(waiting);
    this.unsignedStored.set(unsigned);
    this.notTaken.set(notTaken);
  }
}
