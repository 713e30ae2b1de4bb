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

/** What is known of a chain outside of it. */
export interface Head {
  readonly count: number;
  readonly head: string;
  /** How many are closed by one hash, and by which. */
  readonly closed: number;
  readonly closing: string;
}

/** Follows a chain link by link: nothing of it has to be held. */
export class ChainReader {
  private links = 0;
  private before: string;
  private broken: string | null = null;
  /** Over all that was here before chains began. */
  private readonly early = createHash('sha256');

  /** @param what a link is, in words: `entry`, `version` */
  constructor(
    private readonly known: Head,
    private readonly what: string,
  ) {
    this.before = known.closing;
  }

  take({ n, format, text, hash }: Link): void {
    const place = ++this.links;
    if (place <= this.known.closed) {
      this.early.update(`${place === 1 ? '' : '\n'}${format}\n${text}`);
      return;
    }
    if (this.broken === null && (n !== place || hash !== linkHash(this.before, place, format, text)))
      this.broken = `${this.what} ${place} is not as it was kept`;
    this.before = hash ?? '';
  }

  /** What does not add up when all of it has been taken; null where all of it does. */
  end(): string | null {
    const { count, head, closed, closing } = this.known;
    const many = (n: number): string => `${n} ${n === 1 ? this.what : this.what.replace(/y$/, 'ie') + 's'}`;
    if (this.links < count) return `${count - this.links} of ${many(count)} missing`;
    if (this.links > count) return `${many(this.links - count)} too many`;
    if (closed > 0 && this.early.digest('hex') !== closing)
      return `the first ${many(closed)} are not as they were kept`;
    if (this.broken !== null) return this.broken;
    return this.before === head ? null : `the last ${this.what} is not the one that was kept last`;
  }
}
