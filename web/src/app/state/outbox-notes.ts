import type { Write } from './outbox-store';

const NOTE = 'hot-spline.entering.';
let noted = 0;

/**
 * A write on its way into IndexedDB, noted where a reload in the very same moment can't lose it.
 * @returns what takes the note away again
 */
export function note(write: Write): () => void {
  noted += 1;
  const key = `${NOTE}${Date.now()}.${String(noted).padStart(9, '0')}`;
  try {
    sessionStorage.setItem(key, JSON.stringify(write));
  } catch (error) {
    // A full session store only opens the moment between here and IndexedDB again.
    console.warn('a change could not be noted before it is kept', error);
  }
  return () => sessionStorage.removeItem(key);
}

/** Writes that a reload caught on their way, oldest first. */
export function notes(): { write: Write; done: () => void }[] {
  return Object.keys(sessionStorage)
    .filter((key) => key.startsWith(NOTE))
    .sort()
    .map((key) => ({
      write: JSON.parse(sessionStorage.getItem(key) ?? '') as Write,
      done: () => sessionStorage.removeItem(key),
    }));
}
