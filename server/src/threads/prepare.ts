import { InputError } from '@hot-spline/core';
import {
  FORMAT_VERSION,
  holdingsOf,
  parseOrRefuse,
  readBuildFile,
  readingsInForce,
  routes,
  type Build,
  type BuildFile,
  type Holding,
  type LedgerEntry,
  type PhotoFile,
} from '@hot-spline/model';

/** Entries of one build at most: ours, far above what anybody reads of one car. */
export const MOST_ENTRIES = 100_000;

/** An entry as it is kept. */
export interface EntryRow {
  readonly id: string;
  readonly kind: string;
  readonly voids: string | null;
  readonly format: number;
  readonly text: string;
}

export const rowOf = (entry: LedgerEntry): EntryRow => ({
  id: entry.id,
  kind: entry.kind,
  voids: entry.kind === 'void' ? entry.voids : null,
  format: FORMAT_VERSION,
  text: JSON.stringify(entry),
});

interface Head {
  readonly id: string;
  readonly build: Build;
  readonly holdings: readonly Holding[];
  /** Entries, each once. */
  readonly entries: number;
}

/** A build file, checked, as it goes into rows: a line of JSON each for its head, its entries and its photos. */
export class Prepared {
  private constructor(private readonly text: string) {}

  /** Of what another thread has prepared. */
  static of(text: string): Prepared {
    return new Prepared(text);
  }

  /** Of a file that was read already. @throws InputError where it has more than a build may have */
  static from(id: string, { build, ledger, photos = [] }: BuildFile): Prepared {
    if (ledger.length > MOST_ENTRIES)
      throw new InputError(
        'file.ledger',
        `file.ledger has ${ledger.length} entries.`,
        `at most ${MOST_ENTRIES}; a shop of more goes by its archive`,
      );
    const once = new Map<string, LedgerEntry>();
    for (const entry of ledger) if (!once.has(entry.id)) once.set(entry.id, entry);
    const head: Head = {
      id,
      build,
      // Practice takes nothing out of drawers.
      holdings: build.practice === null ? holdingsOf(readingsInForce(ledger)) : [],
      entries: once.size,
    };
    const rows = [...once.values()].map(rowOf);
    return new Prepared([head, ...rows, ...photos].map((one) => `${JSON.stringify(one)}\n`).join(''));
  }

  toString(): string {
    return this.text;
  }

  private *lines(): Generator<string> {
    for (let from = 0; from < this.text.length;) {
      const to = this.text.indexOf('\n', from);
      yield this.text.slice(from, to);
      from = to + 1;
    }
  }

  get head(): Head {
    return JSON.parse(this.text.slice(0, this.text.indexOf('\n'))) as Head;
  }

  /** Its entries, in order, one after the other. */
  *rows(): Generator<EntryRow> {
    const { entries } = this.head;
    let n = 0;
    for (const line of this.lines()) {
      if (n > entries) return;
      if (n++ > 0) yield JSON.parse(line) as EntryRow;
    }
  }

  *photos(): Generator<PhotoFile> {
    const { entries } = this.head;
    let n = 0;
    for (const line of this.lines()) if (n++ > entries) yield JSON.parse(line) as PhotoFile;
  }
}

/**
 * Reads the body of a new build.
 * @throws InputError naming the field; `json` where it is none
 */
export function prepareBuild(bytes: Uint8Array): string {
  let said: unknown;
  try {
    said = bytes.length === 0 ? {} : JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new InputError('json', 'body can’t be read as JSON.', 'JSON in UTF-8');
  }
  const { id, file } = parseOrRefuse(routes.createBuild.body.schema, said, 'body');
  return Prepared.from(id, readBuildFile(file)).toString();
}
