import { mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Damage } from '@hot-spline/model';
import type { Logger } from 'pino';
import { writeWhole } from '../db/data-folder';
import type { Database } from '../db/database';
import { cleanPhotos } from './photos';
import { checkBuild, checkShop, toRemember, type Remembered } from './check';

export const REMEMBERED = 'remembered.json';
/** What was written is remembered in the folder no later than this, ms. */
const REMEMBERS_MS = 10_000;

/** How the shop’s data is: looked through, and remembered beside the database. */
export interface Health {
  /** When all of it was last looked through; null while that is still under way. */
  readonly checked: string | null;
  readonly damage: readonly Damage[];
}

/** @throws SyntaxError where the file is damaged itself */
function remembered(folder: string): readonly Remembered[] {
  try {
    return JSON.parse(readFileSync(path.join(folder, REMEMBERED), 'utf8')) as Remembered[];
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return [];
    throw error;
  }
}

/**
 * Looks after what is kept: counts and hashes it at the start, at an export and on demand, and remembers every build with its
 * counts in a file beside the database, so that what is gone whole is missed by name.
 */
export class Care {
  private state: Health = { checked: null, damage: [] };
  private dirty = true;
  private timer: NodeJS.Timeout | undefined;
  private readonly stopped = new AbortController();
  private running: Promise<Health> | null = null;
  private cleaning: Promise<void> | null = null;

  /** @param folder of the data; null where the database is a server’s own */
  constructor(
    private readonly db: Database,
    private readonly folder: string | null,
    private readonly log: Logger,
  ) {}

  get health(): Health {
    return this.state;
  }

  /** Begins: looks through everything in the background, and remembers from then on. */
  begin(): void {
    this.cleaning = this.cleanPictures();
    void this.check().then(
      () => undefined,
      (error: unknown) => this.log.error({ err: error }, 'the data could not be looked through'),
    );
    if (this.folder === null) return;
    this.timer = setInterval(() => void this.remember(), REMEMBERS_MS).unref();
  }

  private async cleanPictures(): Promise<void> {
    try {
      const torn = await cleanPhotos(this.db, this.stopped.signal);
      if (torn.length > 0) this.log.warn({ torn }, 'photos that are no whole pictures; they are kept as they are');
    } catch (error) {
      if (!this.stopped.signal.aborted) this.log.error({ err: error }, 'photos of before could not be cleaned');
    }
  }

  /** Something was written. */
  touched(): void {
    this.dirty = true;
  }

  /** Looks through everything now; who asks while it runs is given that answer. */
  check(): Promise<Health> {
    this.running ??= this.look().finally(() => (this.running = null));
    return this.running;
  }

  private async look(): Promise<Health> {
    const known = this.folder === null ? [] : remembered(this.folder);
    const { builds, damage } = await checkShop(this.db, known, this.stopped.signal);
    if (this.stopped.signal.aborted) return this.state;
    this.state = { checked: new Date().toISOString(), damage };
    if (damage.length > 0) this.log.error({ damage }, 'data is damaged or missing');
    else this.log.debug({ builds }, 'data looked through');
    return this.state;
  }

  /** Looks at one build, as before it is given out. */
  async checkOne(id: string): Promise<void> {
    const found = await checkBuild(this.db, id);
    const others = this.state.damage.filter(({ build }) => build !== id);
    this.state = { ...this.state, damage: found ? [...others, found] : others };
  }

  /** Writes down which builds there are and how much is in each; not while something is missing, or that would be forgotten. */
  async remember(): Promise<void> {
    if (this.folder === null || !this.dirty || this.state.checked === null || this.state.damage.length > 0) return;
    this.dirty = false;
    try {
      const all = await toRemember(this.db);
      mkdirSync(this.folder, { recursive: true });
      writeWhole(path.join(this.folder, REMEMBERED), JSON.stringify(all));
    } catch (error) {
      this.dirty = true;
      this.log.error({ err: error }, 'what is kept could not be written down beside it');
    }
  }

  async end(): Promise<void> {
    clearInterval(this.timer);
    this.stopped.abort();
    await this.cleaning;
    await this.running?.catch(() => undefined);
    await this.remember();
  }
}
