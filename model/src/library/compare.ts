import { cutText } from '@hot-spline/core';
import { sameDocument } from '../base/same';
import { specLines } from './library-csv';
import type { GivenSpec, HereSpec, LibrarySpec } from './schema';

/** How a spec of a file stands to the library. */
export interface ComparedSpec {
  /** `torn`: it is here, and the file has not all of it in a form that can be used; what is here stays. */
  readonly fate: 'new' | 'changed' | 'same' | 'torn';
  /** The one here that it changes or is, else its own; null: a new one is to be made. */
  readonly id: string | null;
  /** Of the one here; 0 for a new one. */
  readonly version: number;
  readonly spec: LibrarySpec;
  /** What becomes otherwise, a line each. */
  readonly changes: readonly string[];
}

function changesOf(before: LibrarySpec, after: LibrarySpec): string[] {
  /** The whole of each line, and no more than can be read of it when it is said. */
  const wordsOf = (spec: LibrarySpec): string[] =>
    specLines(spec).map(([field, value, origin]) => `${field} ${value}${origin === '' ? '' : `, ${origin}`}`);
  const [was, is] = [wordsOf(before), wordsOf(after)];
  const renamed = before.name === after.name ? [] : [`is called ${after.name}`];
  return [
    ...renamed,
    ...is.filter((line) => !was.includes(line)).map((line) => `comes: ${cutText(line, 90)}`),
    ...was.filter((line) => !is.includes(line)).map((line) => `goes: ${cutText(line, 90)}`),
  ];
}

/**
 * Compares specs of a file with the library: by their ids, and where the file says none by kind and name.
 * @param here what the library has
 */
export function compareLibrary(given: readonly GivenSpec[], here: readonly HereSpec[]): ComparedSpec[] {
  return given.map(({ id, spec, torn }): ComparedSpec => {
    const known = here.find((one) =>
      id === null ? one.archived !== true && one.spec.kind === spec.kind && one.spec.name === spec.name : one.id === id,
    );
    if (known?.spec.kind !== spec.kind) return { fate: 'new', id: known ? null : id, version: 0, spec, changes: [] };
    const { id: at, version } = known;
    if (torn) return { fate: 'torn', id: at, version, spec, changes: [] };
    if (sameDocument(known.spec, spec)) return { fate: 'same', id: at, version, spec, changes: [] };
    return { fate: 'changed', id: at, version, spec, changes: changesOf(known.spec, spec) };
  });
}
