import { InputError } from '@hot-spline/core';
import type { BadLine } from '../base/csv';
import { requireVersion, upgrade } from '../document/upgrade';
import { FORMAT_VERSION } from '../base/version';
import { parseOrRefuse } from '../base/refuse';
import { readLibraryCsv } from '../library/library-csv';
import { libraryFileSchema, type LibrarySpec } from '../library/schema';

export interface LibraryImport {
  readonly specs: readonly LibrarySpec[];
  readonly bad: readonly BadLine[];
}

/** A library file of any version as one of today, still to be parsed. */
function upgradeLibrary(file: unknown): unknown {
  if (typeof file !== 'object' || file === null || !('formatVersion' in file) || !('specs' in file)) return file;
  const version = requireVersion(file.formatVersion);
  const { specs } = file;
  return {
    ...file,
    formatVersion: FORMAT_VERSION,
    specs: Array.isArray(specs) ? specs.map((spec) => upgrade('library-spec', version, spec)) : specs,
  };
}

/**
 * Reads a library from JSON or CSV text.
 * @throws InputError naming the field
 */
export function readLibraryFile(text: string): LibraryImport {
  if (!/^\s*\{/.test(text)) return readLibraryCsv(text);
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new InputError('file', 'file is not JSON.', 'an exported library, JSON or CSV');
  }
  return { specs: parseOrRefuse(libraryFileSchema, upgradeLibrary(parsed), 'file').specs, bad: [] };
}
