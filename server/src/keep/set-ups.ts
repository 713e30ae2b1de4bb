import type { MeshJob } from '@hot-spline/core';
import {
  AXLES,
  BuildDeriver,
  holdingsOf,
  pastOf,
  readingsInForce,
  requireInStock,
  timesOf,
  type AxleName,
  type Build,
  type Drawer,
  type Holding,
  type JobTimes,
  type LedgerEntry,
  type PastSetup,
  type SetUps,
} from '@hot-spline/model';
import type { Database, Queries } from '../db/database';
import { Problem } from '../base/problem';
import { readBuild } from './builds';
import { readLedger } from './ledger';
import { listSpecs } from './library';

interface Kept {
  readonly version: number;
  readonly seq: string;
  readonly holdings: readonly Holding[];
  readonly past: readonly PastSetup[];
  readonly times: readonly JobTimes[];
  /** Why it can't be read; null for one that can. */
  readonly why: string | null;
}

/** What was worked out of each build, for as long as neither it nor its ledger has changed. */
const kept = new WeakMap<Database, Map<string, Kept>>();

interface Row extends Record<string, unknown> {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly seq: string;
}

/** What an axle taught. */
function lessons(build: Build, ledger: readonly LedgerEntry[]): readonly PastSetup[] {
  const { mesh } = new BuildDeriver(true).derive(build, ledger);
  return AXLES.flatMap((name) => {
    const [axle, spec] = [mesh[name], build.axles[name]?.identity?.name];
    const past = axle && spec !== undefined ? pastOf(axle, spec) : null;
    return past ? [past] : [];
  });
}

async function workOut(db: Queries, { id, version, seq }: Row): Promise<Kept> {
  try {
    const stored = await readBuild(db, id);
    const ledger = await readLedger(db, id);
    // Practice takes nothing out of drawers and teaches nothing.
    const real = stored?.build.practice === null;
    const readings = readingsInForce(ledger);
    const [holdings, times] = real ? [holdingsOf(readings), timesOf(stored.build, readings)] : [[], []];
    return { version, seq, holdings, times, past: real ? lessons(stored.build, ledger) : [], why: null };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { version, seq, holdings: [], past: [], times: [], why: error.message };
  }
}

/** What all set-ups of the shop hold out of drawers and what they teach, newest first; each build is read once a change. */
export async function setUps(db: Database, queries: Queries = db): Promise<SetUps> {
  const before = kept.get(db) ?? new Map<string, Kept>();
  kept.set(db, before);
  const rows = await queries.query<Row>(
    `select b.id, b.name, b.version, coalesce(max(l.seq), 0)::text as seq
     from builds b join ledger l on l.build_id = b.id
     group by b.id, b.name, b.version, b.updated_at order by max(l.seq) desc`,
  );
  const all: SetUps = { holdings: [], past: [], times: [], unreadable: [] };
  for (const row of rows) {
    const known = before.get(row.id);
    const one = known?.version === row.version && known.seq === row.seq ? known : await workOut(queries, row);
    before.set(row.id, one);
    const of = (axle: AxleName) => ({ build: row.id, name: row.name, axle });
    all.holdings.push(
      ...one.holdings.map(({ axle, drawers, piecesMm }) => ({
        ...of(axle),
        drawers: [...drawers],
        piecesMm: [...piecesMm],
      })),
    );
    all.past.push(
      ...one.past.map(({ axle, spec, construction, job, closingsMm, stayed }) => ({
        ...of(axle),
        spec,
        construction,
        job: job && { ...job },
        closingsMm: [...closingsMm],
        stayed: stayed && { ...stayed },
      })),
    );
    all.times.push(...one.times.map(({ axle, steps, ...rest }) => ({ ...of(axle), ...rest, steps: { ...steps } })));
    if (one.why !== null) all.unreadable.push({ build: row.id, name: row.name, why: one.why });
  }
  return all;
}

/** What other builds taught, as the model takes it. */
export const pastFor = ({ past }: SetUps, build: string): readonly PastSetup[] =>
  past.filter((one) => one.build !== build).map((one) => ({ ...one, job: one.job as MeshJob | null }));

/**
 * Refuses an entry that takes more out of a drawer than is free: a piece is in one axle only.
 * @throws InputError on `value` naming drawer and piece
 */
export async function requireStock(db: Database, tx: Queries, buildId: string, entry: LedgerEntry): Promise<void> {
  if (entry.kind !== 'reading' || !['assembly', 'spacer'].includes(entry.subject.what)) return;
  const before = await readLedger(tx, buildId);
  const takes = holdingsOf(readingsInForce([...before, entry]));
  const touched = [...new Set(takes.flatMap(({ drawers }) => drawers))];
  if (touched.length === 0) return;
  // Two builds that reach for one drawer at once take turns.
  await tx.query('select id from library where id = any($1::uuid[]) for update', [touched]);
  const drawers = (await listSpecs(tx)).flatMap(({ id, spec }): Drawer[] =>
    spec?.kind === 'shims' && touched.includes(id) ? [{ id, spec }] : [],
  );
  const { holdings } = await setUps(db, tx);
  const others = holdings.filter(({ build }) => build !== buildId);
  requireInStock(drawers, takes, holdingsOf(readingsInForce(before)), others);
}
