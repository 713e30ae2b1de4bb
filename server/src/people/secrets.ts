import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { Problem } from '../base/problem';

/** OWASP’s least for scrypt: N 2^17, r 8, p 1, 128 MiB [OWASP Password Storage, from memory]. */
const COST = { N: 2 ** 17, r: 8, p: 1 } as const;
const BYTES = 32;
const MAX_MEMORY = 256 * 1024 * 1024;

type Cost = Readonly<Record<keyof typeof COST, number>>;

function derive(word: string, salt: Buffer, cost: Cost): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    // One word has one form, whichever way a keyboard makes its letters.
    scrypt(word.normalize('NFKC'), salt, BYTES, { ...cost, maxmem: MAX_MEMORY }, (error, key) =>
      error ? reject(error) : resolve(key),
    );
  });
}

/** One after the other: each takes 128 MiB, and who sends many must not take the machine. */
let last: Promise<unknown> = Promise.resolve();
/** Who comes when so many wait is sent away: at half a second each they would wait for nothing. Ours. */
const MOST_WAITING = 20;
let waiting = 0;
async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (waiting >= MOST_WAITING)
    throw new Problem(
      503,
      'busy',
      'Too many sign in at once',
      'Too many words are looked at now: try again in a moment.',
    );
  waiting += 1;
  const next = last.then(work, work);
  last = next.catch(() => undefined);
  try {
    return await next;
  } finally {
    waiting -= 1;
  }
}

/** What is kept of a password or a PIN: costs, salt and hash. @param cost lower in tests alone */
export async function hashWord(word: string, cost: Cost = COST): Promise<string> {
  const salt = randomBytes(16);
  const key = await inTurn(() => derive(word, salt, cost));
  return ['scrypt', cost.N, cost.r, cost.p, salt.toString('base64url'), key.toString('base64url')].join('$');
}

/** Whether a word is the one that was kept. Takes as long where none was kept: who asks learns nothing by waiting. */
export async function isWord(word: string, kept: string | null): Promise<boolean> {
  const [, n, r, p, salt = '', hash = ''] = (kept ?? '').split('$');
  const cost = kept === null ? COST : { N: Number(n), r: Number(r), p: Number(p) };
  const key = await inTurn(() => derive(word, Buffer.from(salt, 'base64url'), cost));
  const wanted = Buffer.from(hash, 'base64url');
  return kept !== null && wanted.length === key.length && timingSafeEqual(wanted, key);
}

/** A secret that nobody guesses, for a cookie or a link. */
export const newToken = (): string => randomBytes(32).toString('base64url');
/** What is kept of it: whoever reads the database can’t use it. */
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('base64url');
