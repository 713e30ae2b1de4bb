import type { IncomingMessage } from 'node:http';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { requireFree } from '../base/room';

/** How often it is looked whether there is room for more, bytes. */
const LOOK_BYTES = 16e6;

/**
 * Writes a body into a file as it comes; it ends where the disk would have no room left for the database.
 * @param free bytes of the disk; nothing where it is another one than the data’s
 * @throws Problem 507; no half of the file is left
 */
export async function spool(request: IncomingMessage, file: string, free: (() => number) | undefined): Promise<void> {
  async function* pieces(): AsyncGenerator<Buffer> {
    let since = 0;
    // What is refused on the way is answered: the connection must outlive the reading.
    for await (const piece of request.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
      since += piece.length;
      if (since >= LOOK_BYTES) {
        since = 0;
        if (free) requireFree(free());
      }
      yield piece;
    }
  }
  try {
    await pipeline(pieces(), createWriteStream(file));
  } catch (error) {
    await rm(file, { force: true });
    throw error;
  }
}
