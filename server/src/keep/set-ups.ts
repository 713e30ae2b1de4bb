import type { MeshJob } from '@hot-spline/core';
import {
  holdingsOf,
  readingsInForce,
  requireInStock,
  type Drawer,
  type Holding,
  type LedgerEntry,
  type PastSetup,
  type SetUps,
} from '@hot-spline/model';
import type { Queries } from '../db/database';
import { Problem } from '../base/problem';
import { readBuild } from './builds';
import { holdingsIn, touchesDrawers, writeHoldings } from './holdings';
import { readLedger } from './ledger';
import { listSpecs } from './library';

/** What is asked of other set-ups; without a word, everything. */
export interface SetUpsAsked {
  /** Lessons of axles of this spec, and no more. */
  readonly spec?: string | undefined;
  /** What is held out of this drawer, and no more. */
  readonly drawer?: string | undefined;
}

/** Rows of a table as the text of a JSON array: the database puts it together, and nobody else opens it. */
async function textOf(
  db: Queries,
  table: string,
  column: string,
  where: string,
  params: readonly unknown[],
): Promise<string> {
  const [row] = await db.query<{ text: string | null }>(
    `select string_agg('{"build":' || to_json(b.id) || ',"name":' || to_json(b.name) || ',' || substr(t.${column}, 2), ','
              order by t.seq desc, b.id) as text
     from ${table} t join builds b on b.id = t.build_id ${where}`,
    params,
  );
  return `[${row?.text ?? ''}]`;
}

const lessonsText = (db: Queries, spec: string | undefined): Promise<string> =>
  textOf(db, 'lessons', 'lesson', spec === undefined ? '' : 'where t.spec = $1', spec === undefined ? [] : [spec]);

/**
 * What all set-ups of the shop hold out of drawers and what they teach, newest first, as it was noted when it was written.
 * @returns it as JSON
 */
export async function setUpsText(db: Queries, { spec, drawer }: SetUpsAsked = {}): Promise<string> {
  const all = spec === undefined && drawer === undefined;
  const holdings =
    all || drawer !== undefined
      ? await textOf(
          db,
          'holdings',
          'holding',
          drawer === undefined ? '' : 'where t.drawers @> array[$1::uuid]',
          drawer === undefined ? [] : [drawer],
        )
      : '[]';
  const past = all || spec !== undefined ? await lessonsText(db, spec) : '[]';
  const times = all ? await textOf(db, 'job_times', 'times', '', []) : '[]';
  const unreadable = await db.query<{ build: string; name: string; why: string }>(
    `select id as build, name, coalesce(unreadable, unread) as why from builds
     where ledger_count > 0 and (unreadable is not null or unread is not null) order by name, id`,
  );
  return `{"holdings":${holdings},"past":${past},"times":${times},"unreadable":${JSON.stringify(unreadable)}}`;
}

/** What other builds taught of a spec, as the model takes it. */
export async function pastFor(db: Queries, spec: string, build: string): Promise<readonly PastSetup[]> {
  const past = JSON.parse(await lessonsText(db, spec)) as SetUps['past'];
  return past.filter((one) => one.build !== build).map((one) => ({ ...one, job: one.job as MeshJob | null }));
}

/**
 * Refuses an entry that takes more out of a drawer than is free: a piece is in one axle only. What every build holds must be noted.
 * @throws InputError on `value` naming drawer and piece
 */
export async function requireStock(tx: Queries, buildId: string, entry: LedgerEntry): Promise<void> {
  if (entry.kind === 'void' || !touchesDrawers(entry)) return;
  const before = await readLedger(tx, buildId, 'drawers');
  const takes = holdingsOf(readingsInForce([...before, entry]));
  const touched = [...new Set(takes.flatMap(({ drawers }) => drawers))];
  if (touched.length === 0) return;
  // Two builds that reach for one drawer at once take turns.
  await tx.query('select id from library where id = any($1::uuid[]) for update', [touched]);
  const drawers = (await listSpecs(tx)).flatMap(({ id, spec }): Drawer[] =>
    spec?.kind === 'shims' && touched.includes(id) ? [{ id, spec }] : [],
  );
  const others = await tx.query<{ holding: string }>(
    'select holding from holdings where drawers && $1::uuid[] and build_id <> $2',
    [touched, buildId],
  );
  requireInStock(
    drawers,
    takes,
    holdingsOf(readingsInForce(before)),
    others.map(({ holding }) => JSON.parse(holding) as Holding),
  );
}

/** Keeps what a build holds after an entry of it was appended. */
export async function noteHoldings(tx: Queries, buildId: string, entry: LedgerEntry): Promise<void> {
  if (!touchesDrawers(entry)) return;
  try {
    const stored = await readBuild(tx, buildId);
    if (stored) await writeHoldings(tx, buildId, holdingsIn(stored.build, await readLedger(tx, buildId, 'drawers')));
  } catch (error) {
    // What can’t be read holds nothing that is known: GET /api/set-ups names it.
    if (!(error instanceof Problem)) throw error;
  }
}
