import { InputError } from '@hot-spline/core';
import { buildSchema, photoId } from './schema';
import { ledgerEntrySchema, type LedgerEntry } from './ledger';
import { parseOrRefuse } from '../refuse';
import { z } from '../zod';
import { PHOTO_BYTES, PHOTO_TYPES } from './photos';

/** A photo in a file: its bytes in base64. */
export const photoSchema = z.strictObject({
  id: photoId,
  type: z.enum(PHOTO_TYPES),
  data: z.base64().max(Math.ceil((PHOTO_BYTES * 4) / 3) + 4),
});

/** One build with everything measured on it: what is exported and imported, and what demo/ holds. */
export const buildFileSchema = z.strictObject({
  format: z.literal('hot-spline/build-file'),
  formatVersion: z.literal(1),
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
  formatVersion: z.literal(1),
  builds: z.array(buildFileSchema).max(10_000),
});

/** A void must name a reading that stands before it, and no id may come twice. */
function checkLedger(ledger: readonly LedgerEntry[]): void {
  const readings = new Set<string>();
  const ids = new Set<string>();
  ledger.forEach((entry, i) => {
    if (ids.has(entry.id))
      throw new InputError(`ledger[${i}].id`, `ledger[${i}].id stands twice in the file.`, 'each id once');
    ids.add(entry.id);
    if (entry.kind === 'reading') readings.add(entry.id);
    else if (!readings.has(entry.voids)) {
      throw new InputError(
        `ledger[${i}].voids`,
        `ledger[${i}].voids names no reading before it.`,
        'the id of an earlier reading',
      );
    }
  });
}

/**
 * Reads an exported build.
 * @throws InputError naming the field for missing and extra keys and values out of range
 */
export function readBuildFile(input: unknown): BuildFile {
  const file = parseOrRefuse(buildFileSchema, input, 'file');
  checkLedger(file.ledger);
  return file;
}

/**
 * Reads either a build file or a shop file; both end as a list of builds.
 * @throws InputError naming the field
 */
export function readFile(input: unknown): BuildFile[] {
  if (typeof input === 'object' && input !== null && 'format' in input && input.format === 'hot-spline/shop-file') {
    const { builds } = parseOrRefuse(shopFileSchema, input, 'file');
    for (const file of builds) checkLedger(file.ledger);
    return builds;
  }
  return [readBuildFile(input)];
}
