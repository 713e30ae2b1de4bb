import { InputError } from '@hot-spline/core';
import type { BadLine } from '../base/csv';
import { requireVersion, upgrade } from '../document/upgrade';
import { FORMAT_VERSION } from '../base/version';
import { parseOrRefuse } from '../base/refuse';
import { readLibraryCsv } from '../library/library-csv';
import { isDrawersCsv, readDrawersCsv } from '../library/drawers-csv';
import { libraryFileSchema, type GivenSpec, type HereSpec } from '../library/schema';

export interface LibraryImport {
  readonly specs: readonly GivenSpec[];
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
 * Reads a library from JSON, from CSV with a line a value, or from a table of drawers.
 * @param here what the library has: a table of drawers says bare numbers of what was typed there
 * @throws InputError naming the field
 */
export function readLibraryFile(text: string, here: readonly Pick<HereSpec, 'id' | 'spec'>[] = []): LibraryImport {
  if (!/^\s*\{/.test(text)) return isDrawersCsv(text) ? readDrawersCsv(text, here) : readLibraryCsv(text);
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new InputError('file', 'file is not JSON.', 'an exported library, JSON or CSV');
  }
  const { specs } = parseOrRefuse(libraryFileSchema, upgradeLibrary(parsed), 'file');
  return { specs: specs.map((spec) => ({ id: null, spec })), bad: [] };
}
