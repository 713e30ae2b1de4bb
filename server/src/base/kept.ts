import { isDeepStrictEqual } from 'node:util';
import { InputError } from '@hot-spline/core';
import { parseOrRefuse, upgrade, type Kept, type z } from '@hot-spline/model';

/** Something out of the database as this program knows it, or why it can't be read. */
export type Opened<T> =
  | { readonly value: T; readonly unreadable: null }
  | { readonly value: null; readonly unreadable: string };

/**
 * Opens a row: upgraded from the version that it was kept in, then parsed. A row that can't be read fails alone.
 * @param text the document as text: a driver that parses it could fail for the whole query
 */
export function open<S extends z.ZodType>(schema: S, kept: Kept, version: number, text: string): Opened<z.output<S>> {
  try {
    return { value: parseOrRefuse(schema, upgrade(kept, version, JSON.parse(text)), kept), unreadable: null };
  } catch (error) {
    if (error instanceof InputError) return { value: null, unreadable: error.message };
    if (error instanceof SyntaxError) return { value: null, unreadable: `It is not JSON: ${error.message}` };
    throw error;
  }
}

/** Whether two documents say the same, whatever the order of their keys. */
export const same = (a: unknown, b: unknown): boolean =>
  isDeepStrictEqual(JSON.parse(JSON.stringify(a)), JSON.parse(JSON.stringify(b)));
