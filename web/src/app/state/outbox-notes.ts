import { tabStore } from '../base/device-store';
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
  // A picture can't be written down so; where there is no room, only the moment between here and IndexedDB is open again.
  if (write.kind !== 'photo') tabStore.set(key, JSON.stringify(write));
  return () => tabStore.remove(key);
}

/** Writes that a reload caught on their way, oldest first. */
export function notes(): { write: Write; done: () => void }[] {
  return tabStore
    .keys()
    .filter((key) => key.startsWith(NOTE))
    .sort()
    .map((key) => ({
      write: JSON.parse(tabStore.get(key) ?? '') as Write,
      done: () => tabStore.remove(key),
    }));
}
