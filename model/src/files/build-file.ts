import { InputError } from '@hot-spline/core/page';
import type { LedgerEntry } from '../frame/readings';
import { parseOrRefuse } from '../base/refuse';
import '../base/zod';
import * as z from 'zod';
import { photoId } from '../base/fields';
import { ledgerEntrySchema } from '../document/ledger';
import { PHOTO_BYTES, PHOTO_TYPES } from './photos';
import { librarySpecSchema, type LibrarySpec } from '../library/schema';
import { buildSchema } from '../document/schema';
import { requireVersion, upgrade } from '../document/upgrade';
import { FORMAT_VERSION } from '../base/version';

/** A photo in a file: its bytes in base64. The id is the hash of what was once sent; `kept` of these bytes, where they are not the same. */
export const photoSchema = z.strictObject({
  id: photoId,
  kept: photoId.optional(),
  type: z.enum(PHOTO_TYPES),
  data: z.base64().max(Math.ceil((PHOTO_BYTES * 4) / 3) + 4),
});

/** One build with everything measured on it: what is exported and imported, and what demo/ holds. */
export const buildFileSchema = z.strictObject({
  format: z.literal('hot-spline/build-file'),
  formatVersion: z.literal(FORMAT_VERSION),
  build: buildSchema,
  ledger: z.array(ledgerEntrySchema).max(100_000),
  /** Photos of pieces; absent where there are none. */
  photos: z.array(photoSchema).max(1000).optional(),
});

export type PhotoFile = z.infer<typeof photoSchema>;
export type BuildFile = z.infer<typeof buildFileSchema>;

/** All builds of a shop in one file. */
export const shopFileSchema = z.strictObject({
  format: z.literal('hot-spline/shop-file'),
  formatVersion: z.literal(FORMAT_VERSION),
  builds: z.array(buildFileSchema).max(10_000),
  /** What the shop knows; absent in files of before. */
  library: z.array(librarySpecSchema).max(5000).optional(),
  /** Builds of the shop that could not be read and are not in the file; absent where there are none. */
  leftOut: z.array(z.strictObject({ id: z.string(), name: z.string(), why: z.string() })).optional(),
});

/** A void must name an entry that stands before it, and no id may come twice. */
function checkLedger(ledger: readonly LedgerEntry[], at = ''): void {
  const voidable = new Set<string>();
  const ids = new Set<string>();
  ledger.forEach((entry, i) => {
    const field = `${at}ledger[${i}]`;
    if (ids.has(entry.id)) throw new InputError(`${field}.id`, `${field}.id stands twice in the file.`, 'each id once');
    ids.add(entry.id);
    if (entry.kind !== 'void') voidable.add(entry.id);
    else if (!voidable.has(entry.voids)) {
      throw new InputError(
        `${field}.voids`,
        `${field}.voids names no entry before it that could be voided.`,
        'the id of an earlier reading, decision or signature',
      );
    }
  });
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A build file of any version as one of today, still to be parsed. */
function upgradeFile(input: unknown): unknown {
  if (!isPlain(input) || input['format'] !== 'hot-spline/build-file') return input;
  const version = requireVersion(input['formatVersion']);
  const { build, ledger } = input;
  return {
    ...input,
    formatVersion: FORMAT_VERSION,
    build: upgrade('build', version, build),
    ledger: Array.isArray(ledger) ? ledger.map((entry) => upgrade('ledger-entry', version, entry)) : ledger,
  };
}

/**
 * Reads an exported build, of today or of any earlier version.
 * @throws InputError naming the field for missing and extra keys, values out of range and later versions
 */
export function readBuildFile(input: unknown): BuildFile {
  const file = parseOrRefuse(buildFileSchema, upgradeFile(input), 'file');
  checkLedger(file.ledger);
  return file;
}

/** What a file brings: builds, and of a whole shop its library too. */
export interface Brought {
  readonly builds: readonly BuildFile[];
  readonly library: readonly LibrarySpec[];
}

/**
 * Reads either a build file or a shop file.
 * @throws InputError naming the field
 */
export function readFile(input: unknown): Brought {
  if (!isPlain(input) || input['format'] !== 'hot-spline/shop-file')
    return { builds: [readBuildFile(input)], library: [] };
  const version = requireVersion(input['formatVersion']);
  const { builds, library } = input;
  const upgraded = {
    ...input,
    formatVersion: FORMAT_VERSION,
    builds: Array.isArray(builds) ? builds.map(upgradeFile) : builds,
    ...(Array.isArray(library) ? { library: library.map((spec) => upgrade('library-spec', version, spec)) } : {}),
  };
  const file = parseOrRefuse(shopFileSchema, upgraded, 'file');
  file.builds.forEach((one, i) => checkLedger(one.ledger, `builds[${i}].`));
  return { builds: file.builds, library: file.library ?? [] };
}
