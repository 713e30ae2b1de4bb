import type { MeshJob } from '@hot-spline/core';
import {
  holdingsOf,
  readingsInForce,
  requireInStock,
  type Drawer,
  type Holding,
  type JobTimes,
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

interface Row extends Record<string, unknown> {
  readonly build: string;
  readonly name: string;
  readonly text: string;
}

/** What is asked of other set-ups; without a word, everything. */
export interface SetUpsAsked {
  /** Lessons of axles of this spec alone. */
  readonly spec?: string | undefined;
  /** What is held out of this drawer alone. */
  readonly drawer?: string | undefined;
}

const of = <T>({ build, name, text }: Row): T & { build: string; name: string } => ({
  build,
  name,
  ...(JSON.parse(text) as T),
});

/** What all set-ups of the shop hold out of drawers and what they teach, newest first, as it was noted when it was written. */
export async function setUps(db: Queries, { spec, drawer }: SetUpsAsked = {}): Promise<SetUps> {
  /** @param only what narrows it, and by what */
  const read = (table: string, column: string, only: string, by: string | undefined): Promise<Row[]> =>
    db.query<Row>(
      `select b.id as build, b.name, t.${column} as text from ${table} t join builds b on b.id = t.build_id
       ${by === undefined ? '' : `where ${only}`} order by t.seq desc, b.id`,
      by === undefined ? [] : [by],
    );
  const holdings = await read('holdings', 'holding', 't.drawers @> array[$1::uuid]', drawer);
  const past = await read('lessons', 'lesson', 't.spec = $1', spec);
  const times = await read('job_times', 'times', '', undefined);
  const unreadable = await db.query<{ build: string; name: string; why: string }>(
    `select id as build, name, coalesce(unreadable, unread) as why from builds
     where ledger_count > 0 and (unreadable is not null or unread is not null) order by name, id`,
  );
  return {
    holdings: holdings.map((row) => of<Holding>(row) as SetUps['holdings'][number]),
    past: past.map((row) => of<PastSetup>(row) as unknown as SetUps['past'][number]),
    times: times.map((row) => of<JobTimes>(row) as SetUps['times'][number]),
    unreadable,
  };
}

/** What other builds taught, as the model takes it. */
export const pastFor = ({ past }: SetUps, build: string): readonly PastSetup[] =>
  past.filter((one) => one.build !== build).map((one) => ({ ...one, job: one.job as MeshJob | null }));

/**
 * Refuses an entry that takes more out of a drawer than is free: a piece is in one axle only. What every build holds must be noted.
 * @throws InputError on `value` naming drawer and piece
 */
export async function requireStock(tx: Queries, buildId: string, entry: LedgerEntry): Promise<void> {
  if (entry.kind === 'void' || !touchesDrawers(entry)) return;
  const before = await readLedger(tx, buildId);
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
    if (stored) await writeHoldings(tx, buildId, holdingsIn(stored.build, await readLedger(tx, buildId)));
  } catch (error) {
    // What can’t be read holds nothing that is known: GET /api/set-ups names it.
    if (!(error instanceof Problem)) throw error;
  }
}
