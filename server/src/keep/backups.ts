import { copyFileSync, cpSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import type { Logger } from 'pino';
import { RESERVE_BYTES, freeIn } from '../base/room';
import { BACKUPS, databaseFolder } from '../db/data-folder';
import type { Database } from '../db/database';
import { stateOf, writeArchiveFile } from './archive';
import { verifyArchive } from './open-archive';
import { readShop } from './shop';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** A backup that is older says so on the board, ms. Ours. */
export const OLD_MS = 3 * DAY_MS;
/** What a first backup may take, bytes; a later one is judged by the one before. */
const FIRST_BYTES = 32e6;
/** Copies of the folder from before a migration that are kept. */
const COPIES = 2;

export interface BackupState {
  /** The last one that was opened and read to its end; null: none yet. */
  readonly last: string | null;
  readonly file: string | null;
  /** Why the last attempt came to nothing; empty where it did not. */
  readonly problem: string;
}

const PATTERN = /^(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d)Z-\w+\.zip$/;
/** When a backup was made, by its name. */
function madeAt(name: string): Date | null {
  const [, at] = PATTERN.exec(name) ?? [];
  return at ? new Date(`${at.slice(0, 10)}T${at.slice(11).replace(/-/g, ':')}Z`) : null;
}
export const nameAt = (at: Date, why: string): string =>
  `${at.toISOString().slice(0, 19).replace(/:/g, '-')}Z-${why}.zip`;

/** A moment behind that of the newest: names are in order, also of two that are made within a second. */
export function after(newest: string | undefined, now: Date): Date {
  const last = newest === undefined ? null : madeAt(newest);
  return last && now.getTime() < last.getTime() + 1000 ? new Date(last.getTime() + 1000) : now;
}

/**
 * Which backups are kept: the newest three, and the newest of each of seven days, four weeks and twelve months. Ours.
 * @param names of backups
 */
export function keptOf(names: readonly string[], now: Date): ReadonlySet<string> {
  const all = names
    .flatMap((name) => {
      const at = madeAt(name);
      return at ? [{ name, at }] : [];
    })
    .sort((a, b) => b.at.getTime() - a.at.getTime());
  const kept = new Set(all.slice(0, 3).map(({ name }) => name));
  const newestOfEach = (periods: number, periodMs: number): void => {
    const taken = new Set<number>();
    for (const { name, at } of all) {
      // Of fixed days and weeks, not of ages: else what is newest of a week moves on with every day, and none grows old.
      const period = Math.floor(at.getTime() / periodMs);
      if (Math.floor(now.getTime() / periodMs) - period >= periods || taken.has(period)) continue;
      taken.add(period);
      kept.add(name);
    }
  };
  newestOfEach(7, DAY_MS);
  newestOfEach(4, 7 * DAY_MS);
  newestOfEach(12, 30 * DAY_MS);
  return kept;
}

const backupsIn = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder)
        .filter((name) => madeAt(name) !== null)
        .sort()
    : [];

/** Copies the folder of the database as it lies, before another program changes it; nobody has it open. */
export function copyBeforeMigration(folder: string, now = new Date()): string {
  const to = path.join(folder, BACKUPS);
  mkdirSync(to, { recursive: true });
  const copy = path.join(to, `pg-before-${now.toISOString().slice(0, 19).replace(/:/g, '-')}Z`);
  cpSync(databaseFolder(folder), copy, { recursive: true });
  const copies = readdirSync(to)
    .filter((name) => name.startsWith('pg-before-'))
    .sort();
  for (const old of copies.slice(0, -COPIES)) rmSync(path.join(to, old), { recursive: true });
  return copy;
}

/** Makes backups by itself: at the start and daily, where anything was written since; each is opened and read before it counts. */
export class Backups {
  private state: BackupState;
  private timer: NodeJS.Timeout | undefined;
  private last: Promise<void> = Promise.resolve();
  private readonly stopped = new AbortController();
  private readonly to: string;

  /**
   * @param folder of the data
   * @param second another place that each is copied to; null: none
   */
  constructor(
    private readonly db: Database,
    folder: string,
    private readonly second: string | null,
    private readonly log: Logger,
  ) {
    this.to = path.join(folder, BACKUPS);
    const file = backupsIn(this.to).at(-1) ?? null;
    this.state = { last: file && (madeAt(file)?.toISOString() ?? null), file, problem: '' };
  }

  get current(): BackupState {
    return this.state;
  }

  begin(): void {
    void this.make('start');
    this.timer = setInterval(() => {
      const last = this.state.last === null ? 0 : Date.parse(this.state.last);
      if (Date.now() - last >= DAY_MS) void this.make('day');
    }, HOUR_MS).unref();
  }

  /** Makes one now; where nothing was written since the last one, that one is as good as new. Never throws: its state says why not. */
  make(why: 'start' | 'day' | 'hand'): Promise<BackupState> {
    // Behind the one that is being made: that one may lack what was written since it began.
    this.last = this.last.then(async () => {
      try {
        this.state = await this.tryTo(why);
      } catch (error) {
        this.log.error({ err: error }, 'no backup was made');
        this.state = { ...this.state, problem: error instanceof Error ? error.message : String(error) };
      }
    });
    return this.last.then(() => this.state);
  }

  private async tryTo(why: string): Promise<BackupState> {
    mkdirSync(this.to, { recursive: true });
    const now = new Date();
    const newest = backupsIn(this.to).at(-1);
    if (newest !== undefined) {
      const before = path.join(this.to, newest);
      // Read again: what can’t be opened any more is no backup.
      const same = await verifyArchive(before).then(
        async ({ state }) => state === (await stateOf(this.db)),
        () => false,
      );
      if (same) {
        this.copy(before);
        return { last: now.toISOString(), file: newest, problem: '' };
      }
    }
    this.makeRoom(newest);
    const name = nameAt(after(newest, now), why);
    const file = path.join(this.to, name);
    const draft = `${file}.draft`;
    try {
      await writeArchiveFile(this.db, (await readShop(this.db)).id, draft, this.stopped.signal);
      await verifyArchive(draft);
      // What does not add up is no backup, and takes no other one’s place.
      renameSync(draft, file);
    } finally {
      rmSync(draft, { force: true });
    }
    const kept = keptOf(backupsIn(this.to), now);
    for (const old of backupsIn(this.to)) if (!kept.has(old)) rmSync(path.join(this.to, old));
    this.copy(file);
    return { last: now.toISOString(), file: name, problem: '' };
  }

  /** Old ones go where there is no room for a new one; the newest stays. @throws Error where it is still not enough */
  private makeRoom(newest: string | undefined): void {
    const needs = RESERVE_BYTES + 2 * (newest === undefined ? FIRST_BYTES : statSync(path.join(this.to, newest)).size);
    for (const old of backupsIn(this.to).slice(0, -1)) {
      if (freeIn(this.to) >= needs) return;
      rmSync(path.join(this.to, old));
    }
    if (freeIn(this.to) < needs)
      throw new Error(
        `The disk has ${Math.floor(freeIn(this.to) / 1e6)} MB free, and a backup needs ${Math.ceil(needs / 1e6)} MB.`,
      );
  }

  private copy(file: string): void {
    if (this.second === null) return;
    const to = path.join(this.second, path.basename(file));
    if (existsSync(to)) return;
    if (!existsSync(this.second))
      throw new Error(`The second place for backups, ${this.second}, is not there. The one in ${this.to} was made.`);
    copyFileSync(file, `${to}.part`);
    renameSync(`${to}.part`, to);
  }

  async end(): Promise<void> {
    clearInterval(this.timer);
    // Who is told to stop leaves: what was begun is made at the next start.
    this.stopped.abort();
    await this.last;
  }
}
