import { randomUUID } from 'node:crypto';
import { rmSync, readdirSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import type { Arrival, ArrivalPlan } from '@hot-spline/model';
import type { Logger } from 'pino';
import type { Database, Queries } from '../db/database';
import { RESERVE_BYTES } from '../base/room';
import { Columns, type Line } from './archive';
import { Archive, BadArchive, BrokenBuild, headsOf, insertLines, type Piece } from './open-archive';
import { surveyBuilds } from './builds';
import { HEADS, type HeadsRow } from './check';
import { takePhoto } from './photos';
import { tell } from './tell';

const SPOOLED = /^\.arrival-[0-9a-f-]{36}\.zip$/;
/** So many of each kind are named. */
const NAMED = 50;

/** How two chains stand to each other: theirs is the same, goes on where ours ends, ends where ours goes on, or is another. */
type Relation = 'same' | 'longer' | 'shorter' | 'other';

/** What becomes of a build or a spec. */
type Fate = keyof ArrivalPlan['builds'];

/**
 * @param ours how many links there are here, and the last hash
 * @param theirsAt the hash that the archive has at our end; null: it does not reach so far, or none is known there
 * @param oursAt the same the other way round
 */
function relationOf(
  ours: { readonly count: number; readonly head: string },
  theirs: { readonly count: number; readonly head: string },
  theirsAt: string | null,
  oursAt: string | null,
): Relation {
  if (ours.count === theirs.count) return ours.head === theirs.head ? 'same' : 'other';
  if (theirs.count > ours.count) return ours.count === 0 || theirsAt === ours.head ? 'longer' : 'other';
  return theirs.count === 0 || oursAt === theirs.head ? 'shorter' : 'other';
}

function fateOf(ledger: Relation, versions: Relation): Fate {
  const both = new Set([ledger, versions]);
  if (both.has('other') || (both.has('longer') && both.has('shorter'))) return 'other';
  if (both.has('longer')) return 'longer';
  return both.has('shorter') ? 'older' : 'same';
}

const HERE = `select ${HEADS} from builds where id = $1`;

const number = (text: string | null | undefined): number => Number(text ?? 0);

/** The hash that a chain here has at a place; null where none is known. */
async function hashHere(
  db: Queries,
  { table, at }: { table: 'ledger' | 'build_versions'; at: 'n' | 'version' },
  id: string,
  count: number,
  closed: number,
  closing: string,
): Promise<string | null> {
  if (count === closed) return closing;
  const [row] = await db.query<{ hash: string | null }>(
    `select hash from ${table} where build_id = $1 and ${at} = $2`,
    [id, count],
  );
  return row?.hash ?? null;
}

/** Reads a build of an archive to its end, and says how it stands to the one here. */
async function judge(
  db: Queries,
  archive: Archive,
  piece: Piece & { of: 'build' },
): Promise<{ fate: Fate; name: string; entries: number; here: HeadsRow | null }> {
  const [here = null] = await db.query<HeadsRow>(HERE, [piece.id]);
  let row: Line[1] = {};
  let ledgerAt: string | null = null;
  let versionAt: string | null = null;
  for await (const [table, of] of archive.lines(piece)) {
    if (table === 'builds') {
      row = of;
      if (here && number(of['ledger_closed']) === here.ledger_count) ledgerAt = of['ledger_closing'] ?? null;
      if (here && number(of['versions_closed']) === here.version) versionAt = of['versions_closing'] ?? null;
    } else if (table === 'ledger' && here && number(of['n']) === here.ledger_count) ledgerAt = of['hash'] ?? ledgerAt;
    else if (table === 'build_versions' && here && number(of['version']) === here.version)
      versionAt = of['hash'] ?? versionAt;
  }
  const there = headsOf(row);
  const name = row['name'] ?? '';
  if (!here) return { fate: 'new', name, entries: there.count, here };
  const ledger = relationOf(
    { count: here.ledger_count, head: here.ledger_head },
    there,
    ledgerAt,
    await hashHere(db, { table: 'ledger', at: 'n' }, piece.id, there.count, here.ledger_closed, here.ledger_closing),
  );
  const versions = relationOf(
    { count: here.version, head: here.version_head },
    { count: there.version, head: row['version_head'] ?? '' },
    versionAt,
    await hashHere(
      db,
      { table: 'build_versions', at: 'version' },
      piece.id,
      there.version,
      here.versions_closed,
      here.versions_closing,
    ),
  );
  return { fate: fateOf(ledger, versions), name, entries: there.count - here.ledger_count, here };
}

/** The same for one that may not add up in the archive itself. */
async function judgeOrLeave(db: Queries, archive: Archive, piece: Piece & { of: 'build' }): ReturnType<typeof judge> {
  try {
    return await judge(db, archive, piece);
  } catch (error) {
    if (!(error instanceof BrokenBuild)) throw error;
    return { fate: 'broken', name: error.message, entries: 0, here: null };
  }
}

const none = (): Record<Fate, number> => ({ new: 0, longer: 0, same: 0, older: 0, other: 0, broken: 0 });
/** What is said by name: the rest comes in, or is here. */
const SAID: readonly Fate[] = ['longer', 'other', 'broken'];

interface Judged {
  readonly fate: Fate;
  readonly here: HeadsRow | null;
}

/** What an archive does to this shop, piece by piece. */
interface Verdict {
  readonly builds: ReadonlyMap<string, Judged>;
  /** Specs: their fate, and the version here. */
  readonly specs: ReadonlyMap<string, { readonly fate: Fate; readonly version: number }>;
  readonly plan: ArrivalPlan;
}

/** How the specs of an archive stand to those here, and how many customers and photos are new. */
async function judgeShop(
  db: Queries,
  archive: Archive,
  piece: Piece,
): Promise<{ specs: Map<string, { fate: Fate; version: number; name: string }>; customers: number }> {
  const here = new Map(
    (
      await db.query<{ id: string; version: number; document: string }>(
        'select id, version, document::text as document from library',
      )
    ).map((row) => [row.id, row]),
  );
  const known = new Set((await db.query<{ id: string }>('select id from customers')).map(({ id }) => id));
  const specs = new Map<string, { fate: Fate; version: number; name: string }>();
  let customers = 0;
  for await (const [table, row] of archive.lines(piece)) {
    const version = number(row['version']);
    if (table === 'customers' && !known.has(row['id'] ?? '')) customers++;
    if (table === 'library') {
      const id = row['id'] ?? '';
      const ours = here.get(id);
      const same = ours?.version === version && ours.document === row['document'];
      // Until its versions have been looked at, one of another state is another one.
      const fate = !ours ? 'new' : same ? 'same' : 'other';
      specs.set(id, { fate, version: ours?.version ?? 0, name: row['name'] ?? '' });
    }
    if (table === 'library_versions') {
      const id = row['spec_id'] ?? '';
      const ours = here.get(id);
      const said = specs.get(id);
      if (said?.fate === 'other' && ours?.version === version && ours.document === row['document'])
        specs.set(id, { ...said, fate: 'longer' });
    }
  }
  return { specs, customers };
}

/**
 * Reads an archive to its end, and says what bringing it in would do.
 * @param step is called as pieces are done
 * @throws BadArchive
 */
async function judgeAll(db: Queries, archive: Archive, step: () => void): Promise<Verdict> {
  const builds = new Map<string, Judged>();
  const named: { id: string; name: string; fate: Fate }[] = [];
  const count = none();
  const specCount = none();
  const specs = new Map<string, { fate: Fate; version: number; name: string }>();
  let [customers, photos, entries] = [0, 0, 0];
  for (const piece of archive.pieces) {
    if (piece.of === 'build') {
      const one = await judgeOrLeave(db, archive, piece);
      builds.set(piece.id, one);
      count[one.fate]++;
      if (one.fate === 'new' || one.fate === 'longer') entries += one.entries;
      if (SAID.includes(one.fate) && named.length < NAMED) named.push({ id: piece.id, name: one.name, fate: one.fate });
    } else if (piece.of === 'photo') {
      await archive.photo(piece);
      const [here] = await db.query('select 1 from photos where id = $1', [piece.id]);
      if (!here) photos++;
    } else {
      const shop = await judgeShop(db, archive, piece);
      customers += shop.customers;
      for (const [id, spec] of shop.specs) {
        specs.set(id, spec);
        specCount[spec.fate]++;
      }
    }
    step();
  }
  return { builds, specs, plan: { builds: count, specs: specCount, named, entries, photos, customers } };
}

/** Somebody wrote here meanwhile what the plan stood on. */
const overtaken = (): BadArchive =>
  new BadArchive(
    'Something here was changed meanwhile. Read the archive again: what it would do is no longer the same.',
  );

/** What the database says of a row that is there already. */
const isThere = (error: unknown): boolean => (error as { code?: unknown }).code === '23505';

const without = (row: Line[1], key: string): Line[1] =>
  Object.fromEntries(Object.entries(row).filter(([name]) => name !== key));

/** A ledger row as it goes in here: its place among those of all builds is this shop’s own. */
const placedHere = ([table, row]: Line): Line => [table, table === 'ledger' ? without(row, 'seq') : row];

/** Continues a build that is here: versions and entries behind ours, and the row as it stands there. */
async function continueBuild(
  tx: Queries,
  archive: Archive,
  piece: Piece & { of: 'build' },
  here: HeadsRow,
  columns: Columns,
): Promise<void> {
  const [now] = await tx.query<HeadsRow>(`${HERE} for update`, [piece.id]);
  if (now?.ledger_head !== here.ledger_head || now.version_head !== here.version_head) throw overtaken();
  let row: Line[1] = {};
  let place = 0;
  await insertLines(tx, archive.lines(piece), columns, (line) => {
    const [table, of] = line;
    if (table === 'builds') row = of;
    if (table === 'ledger') return ++place > here.ledger_count ? placedHere(line) : null;
    return table === 'build_versions' && number(of['version']) > here.version ? line : null;
  });
  const known = (await columns.of(tx, 'builds')).filter(
    ({ name }) => name in row && !['id', 'archived'].includes(name),
  );
  const sets = known.map(({ name, type }, i) => `"${name}" = $${i + 2}::text::${type}`);
  await tx.query(
    `update builds set ${sets.join(', ')}, surveyed = 0, stale = true, held = false, unread = null where id = $1`,
    [piece.id, ...known.map(({ name }) => row[name] ?? null)],
  );
}

/** Brings in what the library has more, and customers who are not here. */
async function bringShop(
  tx: Queries,
  archive: Archive,
  piece: Piece,
  { specs }: Verdict,
  customers: boolean,
  columns: Columns,
): Promise<void> {
  const versionHere = new Map(
    (await tx.query<{ id: string; version: number }>('select id, version from library for update')).map((row) => [
      row.id,
      row.version,
    ]),
  );
  const known = new Set((await tx.query<{ id: string }>('select id from customers')).map(({ id }) => id));
  for (const [id, { fate, version }] of specs) {
    if (fate !== 'new' && fate !== 'longer') continue;
    if ((versionHere.get(id) ?? 0) !== version) throw overtaken();
    // Its row comes as the archive has it.
    if (fate === 'longer') await tx.query('delete from library_versions where spec_id = $1', [id]);
    if (fate === 'longer') await tx.query('delete from library where id = $1', [id]);
  }
  const comes = (id: string | null | undefined): boolean => {
    const fate = specs.get(id ?? '')?.fate;
    return fate === 'new' || fate === 'longer';
  };
  await insertLines(tx, archive.lines(piece), columns, (line) => {
    const [table, row] = line;
    if (table === 'customers') return customers && !known.has(row['id'] ?? '') ? line : null;
    if (table === 'library') return comes(row['id']) ? line : null;
    if (table === 'library_versions') return comes(row['spec_id']) ? line : null;
    return null;
  });
}

/** Takes away what has come so far of an import that does not come to its end. */
async function takeBack(db: Database, id: string): Promise<void> {
  for (;;) {
    const rows = await db.query<{ id: string }>('select id from build_rows where arriving = $1 limit 20', [id]);
    if (rows.length === 0) break;
    const ids = [rows.map((row) => row.id)];
    await db.query('delete from ledger where build_id = any($1::uuid[]) and voids is not null', ids);
    await db.query('delete from ledger where build_id = any($1::uuid[])', ids);
    await db.query('delete from build_versions where build_id = any($1::uuid[])', ids);
    await db.query('delete from build_rows where id = any($1::uuid[])', ids);
  }
  await db.query('delete from photos where arriving = $1', [id]);
  await db.query('delete from arrivals where id = $1', [id]);
}

/** Nobody has spoken for so long for what is on its way in: its process is gone. Ours. */
const SILENT = "interval '5 minutes'";

/**
 * Takes away what killed processes left.
 * @param alone whether nobody else works on this database: then all of it was left
 */
async function takeLeftBack(db: Database, alone: boolean): Promise<void> {
  const left = await db.query<{ id: string }>(
    `select distinct arriving as id from (
       select arriving from build_rows union select arriving from photos union select id from arrivals
     ) of_any where arriving is not null
       and not exists (select 1 from arrivals a where a.id = arriving and not $1 and a.seen > now() - ${SILENT})`,
    [alone],
  );
  for (const { id } of left) await takeBack(db, id);
}

interface Running {
  said: Arrival;
  readonly file: string;
  readonly stop: AbortController;
  archive: Archive | null;
  verdict: Verdict | null;
  work: Promise<void>;
}

/**
 * Archives that are brought in beside what is here: read first, and said what they would do; then brought in behind the screen, whole or
 * not at all. What comes is nobody’s until all of it is there; others work meanwhile. One at a time.
 */
export class Arrivals {
  private current: Running | null = null;

  /**
   * @param folder where an archive lies while it is brought in
   * @param alone whether no other server works on this database
   */
  constructor(
    private readonly db: Database,
    private readonly folder: string,
    private readonly log: Logger,
    private readonly free: (() => number) | undefined,
    private readonly alone: boolean,
  ) {}

  /** Clears away what an earlier process left of one that it did not end. */
  async begin(): Promise<void> {
    if (this.alone)
      for (const name of readdirSync(this.folder))
        if (SPOOLED.test(name)) rmSync(path.join(this.folder, name), { force: true });
    await takeLeftBack(this.db, this.alone);
  }

  /** Where an archive is written before it is read. */
  spool(): { readonly id: string; readonly file: string } {
    const id = randomUUID();
    return { id, file: path.join(this.folder, `.arrival-${id}.zip`) };
  }

  /** Whether one is on its way in: another has to wait. */
  get busy(): boolean {
    return this.current?.said.state === 'arriving';
  }

  all(): readonly Arrival[] {
    return this.current ? [this.current.said] : [];
  }

  find(id: string): Arrival | null {
    return this.current?.said.id === id ? this.current.said : null;
  }

  /** Reads what was spooled; who asks for it sees how far it is. */
  read(id: string, file: string): Arrival {
    const before = this.current;
    const running: Running = {
      said: { id, state: 'reading', done: 0, of: 0, problem: '', made: null, plan: null },
      file,
      stop: new AbortController(),
      archive: null,
      verdict: null,
      work: Promise.resolve(),
    };
    // Of two that are sent at once the later one stands: nothing waits between looking who is here and taking the place.
    this.current = running;
    running.work = this.run(running, async () => {
      if (before) await this.leave(before);
      running.archive = await Archive.open(file);
      const { manifest, pieces } = running.archive;
      const needs = RESERVE_BYTES + 2 * running.archive.size;
      const has = this.free?.() ?? needs;
      if (has < needs)
        throw new BadArchive(
          `The disk has ${Math.floor(has / 1e6)} MB free, and bringing it in needs ${Math.ceil(needs / 1e6)} MB.`,
        );
      running.said = { ...running.said, made: manifest.made, of: pieces.length };
      running.verdict = await judgeAll(this.db, running.archive, () => this.step(running));
      running.said = { ...running.said, state: 'ready', plan: running.verdict.plan };
    });
    return running.said;
  }

  /** Begins to bring in what was read. @returns null where there is none that waits for it */
  take(id: string, customers: boolean): Arrival | null {
    const { current: running } = this;
    const { archive, verdict, said } = running ?? {};
    if (!running || !archive || !verdict || said?.id !== id || said.state !== 'ready') return null;
    running.said = { ...running.said, state: 'arriving', done: 0 };
    running.work = this.run(running, async () => {
      await this.bring(running, archive, verdict, customers);
      running.said = { ...running.said, state: 'arrived' };
    });
    return running.said;
  }

  /** Stops it and takes back what came of it; one that has arrived is only forgotten. */
  async drop(id: string): Promise<Arrival | null> {
    const { current: running } = this;
    if (running?.said.id !== id) return null;
    await this.leave(running);
    if (this.current === running) this.current = null;
    return running.said;
  }

  async end(): Promise<void> {
    if (this.current) await this.leave(this.current);
  }

  private async leave(running: Running): Promise<void> {
    running.stop.abort();
    await running.work;
    await this.close(running);
    if (running.said.state === 'ready') running.said = { ...running.said, state: 'stopped' };
  }

  private step(running: Running): void {
    running.stop.signal.throwIfAborted();
    running.said = { ...running.said, done: running.said.done + 1 };
  }

  private async run(running: Running, work: () => Promise<void>): Promise<void> {
    const arriving = running.said.state === 'arriving';
    try {
      await work();
      if (arriving) await this.close(running);
    } catch (thrown) {
      const error = isThere(thrown) ? overtaken() : thrown;
      const stopped = running.stop.signal.aborted;
      const why = error instanceof Error ? error.message : String(error);
      if (!stopped && !(error instanceof BadArchive)) this.log.error({ err: error }, 'an archive was not brought in');
      running.said = {
        ...running.said,
        state: stopped ? 'stopped' : 'failed',
        problem: stopped ? '' : error instanceof BadArchive ? why : `It can’t be kept here: ${why}`,
      };
      if (arriving)
        await takeBack(this.db, running.said.id).catch((left: unknown) =>
          this.log.error({ err: left }, 'what came of an archive is taken away at the next start'),
        );
      await this.close(running);
    }
  }

  private async close(running: Running): Promise<void> {
    running.archive?.close();
    running.archive = null;
    await rm(running.file, { force: true });
  }

  private async bring(running: Running, archive: Archive, verdict: Verdict, customers: boolean): Promise<void> {
    const { id } = running.said;
    const columns = new Columns();
    await takeLeftBack(this.db, this.alone);
    const speak = (): Promise<unknown> =>
      this.db.query('insert into arrivals (id) values ($1) on conflict (id) do update set seen = now()', [id]);
    const stop = (): void => running.stop.signal.throwIfAborted();
    const arriving = (line: Line): Line => {
      stop();
      const [table, row] = placedHere(line);
      return table === 'builds' ? ['build_rows', { ...row, arriving: id }] : [table, row];
    };
    for (const piece of archive.pieces) {
      await speak();
      if (piece.of === 'photo')
        await takePhoto(this.db, piece.id, { type: piece.type, bytes: await archive.photo(piece) }, id);
      else if (piece.of === 'build' && verdict.builds.get(piece.id)?.fate === 'new')
        await insertLines(this.db, archive.lines(piece), columns, arriving);
      this.step(running);
    }
    await this.db.transaction(async (tx) => {
      for (const piece of archive.pieces) {
        stop();
        const { fate, here } = (piece.of === 'build' && verdict.builds.get(piece.id)) || {};
        if (piece.of === 'shop') await bringShop(tx, archive, piece, verdict, customers, columns);
        else if (piece.of === 'build' && fate === 'longer' && here)
          await continueBuild(tx, archive, piece, here, columns);
      }
      await tx.query('update build_rows set arriving = null where arriving = $1', [id]);
      await tx.query('update photos set arriving = null where arriving = $1', [id]);
      await tx.query('delete from arrivals where id = $1', [id]);
      await tell(tx, { of: 'all' });
    });
    // All of it is here, whatever comes of this: what the board needs of it is looked at again at the next start.
    await surveyBuilds(this.db).catch((error: unknown) =>
      this.log.error({ err: error }, 'builds of an archive could not be looked at'),
    );
  }
}
