import { InjectionToken } from '@angular/core';
import { InputError } from '@hot-spline/core/page';
import {
  FORMAT_VERSION,
  buildSchema,
  ledgerEntrySchema,
  librarySpecSchema,
  parseOrRefuse,
  upgrade,
  type Build,
  type BuildFile,
  type CustomerWrite,
  type LedgerEntry,
  type LibrarySpec,
  type ShopSettings,
} from '@hot-spline/model/document';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface Common {
  /** Id of the build or the library spec. */
  readonly record: string;
  /** Who made it. */
  readonly who: string;
  /** The shop that it was made for; null where none was known then. */
  readonly shop: string | null;
  /** Format of what is in it. */
  readonly formatVersion: number;
  /** Why the server did not take it; null while it waits. */
  readonly refused: Refusal | null;
}

/** What the server said to a write that it did not take. */
export interface Refusal {
  readonly status: number;
  readonly message: string;
  /** When, as this device saw it. */
  readonly at: string;
}

interface Versioned extends Common {
  readonly writeId: string;
  /** The acknowledged version that the change was made on; moved on when an own write before it is acknowledged. */
  readonly baseVersion: number;
  /** Whether it may have reached the server: only one that can't have may still be replaced by a newer one. */
  readonly tried: boolean;
}

export interface BuildWrite extends Versioned {
  readonly kind: 'build';
  readonly build: Build;
}

export interface LibraryWrite extends Versioned {
  readonly kind: 'library';
  readonly spec: LibrarySpec;
}

export interface LedgerWrite extends Common {
  readonly kind: 'ledger';
  readonly entry: LedgerEntry;
  /** How many entries the ledger had when it was made, where it stands only over these. */
  readonly over?: number;
}

/** A build that begins, with everything in its file. */
export interface CreateWrite extends Common {
  readonly kind: 'create';
  readonly writeId: string;
  readonly file: BuildFile;
}

/** Put away, or brought back. */
export interface ArchiveWrite extends Common {
  readonly kind: 'archive';
  readonly writeId: string;
  readonly of: 'build' | 'library';
  readonly archived: boolean;
}

export interface CustomerKept extends Common {
  readonly kind: 'customer';
  readonly writeId: string;
  /** Null where it is erased. */
  readonly customer: CustomerWrite | null;
}

export interface SettingsWrite extends Common {
  readonly kind: 'settings';
  readonly writeId: string;
  readonly settings: ShopSettings;
}

/** Its record is the hash of its bytes. */
export interface PhotoWrite extends Common {
  readonly kind: 'photo';
  readonly writeId: string;
  readonly photo: Blob;
}

/** Made on a version of its record. */
export type VersionedWrite = BuildWrite | LibraryWrite;
export type Write =
  | VersionedWrite
  | LedgerWrite
  | CreateWrite
  | ArchiveWrite
  | CustomerKept
  | SettingsWrite
  | PhotoWrite;

export const isVersioned = (write: Write): write is VersionedWrite =>
  write.kind === 'build' || write.kind === 'library';
/** What carries the name of who made it. */
export const isSigned = (write: Write): boolean => isVersioned(write) || write.kind === 'ledger';

export interface OutboxSchema extends DBSchema {
  writes: { key: number; value: Write; indexes: { record: string } };
}

export type OutboxDatabase = IDBPDatabase<OutboxSchema>;

export const DATABASE = 'hot-spline-outbox';

/** How this device's store is opened. */
export const OPEN_OUTBOX = new InjectionToken<() => Promise<OutboxDatabase>>('outbox', { factory: () => openOutbox });

const openOutbox = (): Promise<OutboxDatabase> =>
  openDB<OutboxSchema>(DATABASE, 1, {
    upgrade(db) {
      db.createObjectStore('writes', { autoIncrement: true }).createIndex('record', 'record');
    },
  });

/**
 * A write as this program makes them, whichever program has kept it: an earlier one's is upgraded. One that can't be
 * read is not touched; it says why.
 */
export function openWrite(kept: Write): Write {
  const { formatVersion = 1, who = '', shop = null, refused = null } = kept as Partial<Write>;
  const common = { who, shop, refused, formatVersion: FORMAT_VERSION };
  if (formatVersion === FORMAT_VERSION) return { ...kept, ...common };
  try {
    switch (kept.kind) {
      case 'build': {
        const build = parseOrRefuse(buildSchema, upgrade('build', formatVersion, kept.build), 'build');
        return { ...kept, ...common, build };
      }
      case 'library': {
        const spec = parseOrRefuse(librarySpecSchema, upgrade('library-spec', formatVersion, kept.spec), 'spec');
        return { ...kept, ...common, spec };
      }
      case 'ledger': {
        const entry = parseOrRefuse(ledgerEntrySchema, upgrade('ledger-entry', formatVersion, kept.entry), 'entry');
        return { ...kept, ...common, entry };
      }
      case 'create': {
        const build = parseOrRefuse(buildSchema, upgrade('build', formatVersion, kept.file.build), 'build');
        const ledger = kept.file.ledger.map((entry) =>
          parseOrRefuse(ledgerEntrySchema, upgrade('ledger-entry', formatVersion, entry), 'entry'),
        );
        return { ...kept, ...common, file: { ...kept.file, formatVersion: FORMAT_VERSION, build, ledger } };
      }
      default:
        return { ...kept, ...common };
    }
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const at = new Date().toISOString();
    return { ...kept, ...common, formatVersion, refused: refused ?? { status: 0, message: error.message, at } };
  }
}
