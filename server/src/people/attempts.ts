import type { Queries } from '../db/database';
import { Problem } from '../base/problem';

/** So many wrong words cost nothing: fingers slip. Ours. */
const FREE = 3;
/** Longest wait, s, and after how long without another one they are forgotten. Ours. */
const LONGEST_S = 15 * 60;
const FORGET = '24 hours';

/** Seconds to wait after so many wrong words: twice as long with each. */
export const waitAfter = (failed: number): number =>
  failed < FREE ? 0 : Math.min(LONGEST_S, 2 ** (failed - FREE + 1));

/** After the first, second … wrong word, as far as the wait grows. */
const WAITS = Array.from({ length: 16 }, (_, i) => waitAfter(i + 1));

/**
 * Counts a word as wrong before it is looked at, in one statement a key: of many that come at once each counts, and none is looked at while
 * another one’s wait runs. The right word takes it back.
 * @param keys what is tried, and from where
 * @returns how often in a row the first one was wrong, with this one
 * @throws Problem 429 while one of them has to wait
 */
export async function claimTry(db: Queries, keys: readonly string[]): Promise<number> {
  const counts: number[] = [];
  for (const key of keys) {
    const [row] = await db.query<{ failed: number }>(
      `insert into attempts as a (key, failed, until, last) values ($1, 1, now() + make_interval(secs => ($2::int[])[1]), now())
       on conflict (key) do update set last = now(),
         failed = case when a.last < now() - interval '${FORGET}' then 1 else a.failed + 1 end,
         until = now() + make_interval(secs => ($2::int[])[
           case when a.last < now() - interval '${FORGET}' then 1 else least(a.failed + 1, ${WAITS.length}) end])
       where a.until <= now()
       returning failed`,
      [key, WAITS],
    );
    if (!row) throw await waiting(db, key);
    counts.push(row.failed);
  }
  return counts[0] ?? 0;
}

async function waiting(db: Queries, key: string): Promise<Problem> {
  const [row] = await db.query<{ wait: number }>(
    'select greatest(1, ceil(extract(epoch from until - now())))::int as wait from attempts where key = $1',
    [key],
  );
  const wait = row?.wait ?? 1;
  return new Problem(429, 'wait', 'Too many wrong words', `Wait ${wait} s, then try once more.`, { wait });
}

/** The right word was said: what was wrong before is forgotten. */
export async function forgive(db: Queries, keys: readonly string[]): Promise<void> {
  await db.query('delete from attempts where key = any($1)', [keys]);
}
