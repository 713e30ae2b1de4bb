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

/**
 * @param keys what is tried, and from where
 * @throws Problem 429 while one of them has to wait
 */
export async function requirePatience(db: Queries, keys: readonly string[]): Promise<void> {
  const rows = await db.query<{ wait: number }>(
    `select ceil(extract(epoch from until - now()))::int as wait from attempts where key = any($1) and until > now()`,
    [keys],
  );
  const wait = Math.max(0, ...rows.map((row) => row.wait));
  if (wait > 0) throw new Problem(429, 'wait', 'Too many wrong words', `Wait ${wait} s, then try once more.`, { wait });
}

/** One more wrong word. In one statement: two that come at once both count. */
export async function failed(db: Queries, keys: readonly string[]): Promise<void> {
  for (const key of keys) {
    const [row] = await db.query<{ failed: number }>(
      `insert into attempts (key, failed, until, last) values ($1, 1, now(), now())
       on conflict (key) do update set last = now(),
         failed = case when attempts.last < now() - interval '${FORGET}' then 1 else attempts.failed + 1 end
       returning failed`,
      [key],
    );
    await db.query(`update attempts set until = now() + make_interval(secs => $2) where key = $1`, [
      key,
      waitAfter(row?.failed ?? 1),
    ]);
  }
}

/** The right word was said: what was wrong before is forgotten. */
export async function forgive(db: Queries, keys: readonly string[]): Promise<void> {
  await db.query('delete from attempts where key = any($1)', [keys]);
}
