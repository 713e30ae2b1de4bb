import { createHash } from 'node:crypto';

/** One link: an entry of a ledger or a version of a build, as the database keeps it. */
export interface Link {
  /** Its place, from 1; null for those that were closed by one hash when chains began. */
  readonly n: number | null;
  readonly format: number;
  readonly text: string;
  readonly hash: string | null;
}

const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/** The hash of a link: over the one before it, its place, its format and the text as it is kept – never an upgraded shape. */
export const linkHash = (before: string, n: number, format: number, text: string): string =>
  sha256(`${before}\n${n}\n${format}\n${text}`);

/** One hash over all that was here before chains began. */
export const closingHash = (links: readonly Pick<Link, 'format' | 'text'>[]): string =>
  sha256(links.map(({ format, text }) => `${format}\n${text}`).join('\n'));

/** What is known of a chain outside of it. */
export interface Head {
  readonly count: number;
  readonly head: string;
  /** How many are closed by one hash, and by which. */
  readonly closed: number;
  readonly closing: string;
}

/**
 * What of a chain does not add up; null where all of it does.
 * @param links as they are kept, in order
 * @param what one of them, in words: `entry`, `version`
 */
export function brokenChain(
  links: readonly Link[],
  { count, head, closed, closing }: Head,
  what: string,
): string | null {
  const many = (n: number): string => `${n} ${n === 1 ? what : what.replace(/y$/, 'ie') + 's'}`;
  if (links.length < count) return `${count - links.length} of ${many(count)} missing`;
  if (links.length > count) return `${many(links.length - count)} too many`;
  const early = links.slice(0, closed);
  if (closed > 0 && closingHash(early) !== closing) return `the first ${many(closed)} are not as they were kept`;
  let before = closing;
  for (const [i, { n, format, text, hash }] of links.slice(closed).entries()) {
    const place = closed + i + 1;
    if (n !== place || hash !== linkHash(before, place, format, text)) return `${what} ${place} is not as it was kept`;
    before = hash;
  }
  return before === head ? null : `the last ${what} is not the one that was kept last`;
}
