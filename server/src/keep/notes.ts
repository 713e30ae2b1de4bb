import { NO_WORK, type BoardState } from '@hot-spline/model';
import type { Logger } from 'pino';
import type { Database, Queries } from '../db/database';
import { isDamage } from '../db/read-round';
import type { Pool } from '../threads/pool';
import { APART, type KeptBuild, type Noted } from '../threads/tasks';
import { callHooks } from './hooks';
import { LAST_SEQ, writeHoldings } from './holdings';
import { writeParts } from './parts';

/** Builds that are worked out at once. */
const AT_ONCE = 2;
/** So many are behind in a shop at work; more are after an upgrade. Ours. */
const FEW = 20;
/** How many are asked for in one go. */
const PIECE = 50;

interface Row extends Record<string, unknown> {
  readonly id: string;
  readonly version: number;
  readonly ledger_count: number;
  readonly format_version: number;
  readonly document: string;
}

/** A build and its ledger, unopened. */
export async function readKept(db: Queries, row: Pick<Row, 'id' | 'format_version' | 'document'>): Promise<KeptBuild> {
  const [kept] = await db.query<{ entries: string | null; count: number }>(
    `select string_agg(id || ' ' || format_version || ' ' || entry::text, $2 order by seq) as entries, count(*)::int as count
     from ledger where build_id = $1`,
    [row.id, APART],
  );
  return {
    document: { format: row.format_version, text: row.document },
    entries: kept?.entries ?? '',
    count: kept?.count ?? 0,
  };
}

/**
 * Notes of each build what the board shows and what the others learn, on threads and in the background, whenever something of it was
 * written. Who asks reads rows.
 */
export class Notes {
  private round: Promise<void> | null = null;
  private again = false;
  private ended = false;

  constructor(
    private readonly db: Database,
    private readonly pool: Pool,
    private readonly log: Logger,
    /** Called when something was noted: others may have to be told. */
    private readonly noted: () => void = () => undefined,
  ) {}

  /** Something was written: what is out of date is worked out, beginning now. */
  wake(): void {
    if (this.ended) return;
    if (this.round) {
      this.again = true;
      return;
    }
    this.round = this.run()
      .catch((error: unknown) => {
        if (!this.ended) this.log.error({ err: error }, 'the notes of builds were not brought up to date');
      })
      .finally(() => {
        this.round = null;
        this.noted();
        if (!this.again) return;
        this.again = false;
        this.wake();
      });
  }

  /** When it is noted of every build what it holds out of drawers. */
  async held(): Promise<void> {
    const [behind] = await this.db.query('select 1 from builds where not held limit 1');
    if (behind) await this.settled(Number.POSITIVE_INFINITY);
  }

  /**
   * When all that was written until now is noted. A shop that has just been upgraded catches up in the background.
   * @param most nobody waits where more builds than so many are behind
   */
  async settled(most = FEW): Promise<void> {
    const behind = await this.db.query<{ n: number }>(
      'select count(*)::int as n from builds where (stale and unreadable is null) or not held',
    );
    const n = behind[0]?.n ?? 0;
    if (n === 0) return;
    this.wake();
    if (n <= most) while (this.round) await this.round;
  }

  /** Ends; what is under way is left as it was. */
  async end(): Promise<void> {
    this.ended = true;
    await this.round;
  }

  private async run(): Promise<void> {
    const failed = new Set<string>();
    for (;;) {
      const rows = await this.db.query<Row>(
        `select id, version, ledger_count, format_version, document::text as document from builds
         where ((stale and unreadable is null) or not held) and not (id = any($2::uuid[]))
         order by updated_at desc limit $1`,
        [PIECE, [...failed]],
      );
      if (rows.length === 0 || this.ended) return;
      const queue = [...rows];
      const work = async (): Promise<void> => {
        for (let row = queue.shift(); row && !this.ended; row = queue.shift()) {
          try {
            await this.one(row);
          } catch (error) {
            if (this.ended) return;
            // It costs itself alone: the board shows it as it was.
            if (!isDamage(error)) this.log.error({ err: error, build: row.id }, 'a build could not be noted');
            failed.add(row.id);
          }
        }
      };
      await Promise.all(Array.from({ length: AT_ONCE }, work));
    }
  }

  private async one(row: Row): Promise<void> {
    const kept = await readKept(this.db, row);
    const noted = JSON.parse(await this.pool.run('note', kept, { client: 'notes' })) as Noted;
    await this.db.transaction(async (tx) => {
      const [now] = await tx.query<Pick<Row, 'version' | 'ledger_count'>>(
        'select version, ledger_count from builds where id = $1 for update',
        [row.id],
      );
      // Written meanwhile: it is worked out once more, by the next round.
      if (now?.version !== row.version || now.ledger_count !== row.ledger_count) return;
      await write(tx, row.id, noted);
    });
  }
}

async function write(tx: Queries, id: string, noted: Noted): Promise<void> {
  const { unread, work, words, holdings, lessons, times, parts } = noted;
  const { state, rest, setting, jobs, lent } = work ?? NO_WORK;
  const [before] = await tx.query<{ state: BoardState; name: string }>('select state, name from builds where id = $1', [
    id,
  ]);
  await tx.query(
    `update builds set state = $2, work = $3, unread = $4, rest = $5, sets_until = $6, jobs = $7, lent = $8, stale = false
     where id = $1`,
    [
      ...[id, state, work ? JSON.stringify(work) : '{}', unread, rest?.for ?? ''],
      ...[setting?.until ?? null, jobs.join(' '), lent.length > 0],
    ],
  );
  const fresh = await writeParts(tx, id, parts);
  if (before && before.state !== state)
    await callHooks(tx, { type: 'build.state', build: id, name: before.name, before: before.state, state });
  if (before && fresh.length > 0)
    await callHooks(tx, {
      type: 'part.needed',
      build: id,
      name: before.name,
      parts: fresh.map(({ state: _, ...part }) => part),
    });
  await tx.query('insert into build_words (build_id, word) select $1, unnest($2::text[]) on conflict do nothing', [
    id,
    words,
  ]);
  await writeHoldings(tx, id, holdings);
  await tx.query('delete from lessons where build_id = $1', [id]);
  for (const lesson of lessons)
    await tx.query(`insert into lessons (build_id, axle, seq, spec, lesson) values ($1, $2, ${LAST_SEQ}, $3, $4)`, [
      id,
      lesson.axle,
      lesson.spec,
      JSON.stringify(lesson),
    ]);
  await tx.query('delete from job_times where build_id = $1', [id]);
  for (const [n, one] of times.entries())
    await tx.query(`insert into job_times (build_id, n, seq, times) values ($1, $2, ${LAST_SEQ}, $3)`, [
      id,
      n,
      JSON.stringify(one),
    ]);
}
