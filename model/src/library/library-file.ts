import { InputError } from '@hot-spline/core';
import type { BadLine } from '../document/csv';
import { parseOrRefuse } from '../refuse';
import { readLibraryCsv } from './library-csv';
import { libraryFileSchema, type LibrarySpec } from './schema';

export interface LibraryImport {
  readonly specs: readonly LibrarySpec[];
  readonly bad: readonly BadLine[];
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
  return { specs: parseOrRefuse(libraryFileSchema, parsed, 'file').specs, bad: [] };
}
