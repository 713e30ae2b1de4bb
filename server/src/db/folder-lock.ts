import { createHash } from 'node:crypto';
import fs from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { StartProblem } from '../base/start-problem';

/** Somebody else has the data folder open. */
export class FolderInUse extends StartProblem {
  constructor(readonly folder: string) {
    super(
      `The data folder ${folder} is in use by another Hot Spline.`,
      'Stop that one first, or give this one its own folder: HOT_SPLINE_DATA=other-folder',
    );
  }
}

/** The lock that is seen wherever the folder is: also from another container on the same volume. */
export const LOCK_FILE = 'lock.sock';

export interface FolderLock {
  /** Whether the lock in the folder is still this process's own. */
  readonly holds: () => boolean;
  readonly release: () => Promise<void>;
}

const codeOf = (error: unknown): string => (error as NodeJS.ErrnoException).code ?? '';

const listen = (name: string): Promise<net.Server> =>
  new Promise((resolve, reject) => {
    const server = net.createServer((socket) => socket.destroy());
    server.once('error', reject);
    server.listen(name, () => resolve(server.unref()));
  });

const close = (server: net.Server): Promise<void> => new Promise((resolve) => server.close(() => resolve()));

const answers = (name: string): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = net.connect(name, () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });

/** The file's own number; null where there is none. */
const inodeOf = (file: string): bigint | null =>
  fs.statSync(file, { bigint: true, throwIfNoEntry: false })?.ino ?? null;

/**
 * Takes away the file of a process that is gone. Renamed first: where it has become another's lock meanwhile it goes back.
 * @returns whether it is away
 */
function removeStale(file: string, stale: bigint | null): boolean {
  const aside = `${file}.${process.pid}`;
  try {
    fs.renameSync(file, aside);
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return true;
    throw error;
  }
  const mine = inodeOf(aside) === stale;
  if (!mine) fs.linkSync(aside, file);
  fs.rmSync(aside);
  return mine;
}

/** A listening socket in the folder itself. Its path is short whatever the folder's is: a socket's ends at 107 bytes. */
async function lockFile(folder: string): Promise<FolderLock> {
  const file = path.join(folder, LOCK_FILE);
  const handle = process.platform === 'linux' ? fs.openSync(folder, 'r') : null;
  const short = handle === null ? file : `/proc/self/fd/${handle}/${LOCK_FILE}`;
  const give = (): void => {
    if (handle !== null) fs.closeSync(handle);
  };
  const bind = async (again: boolean): Promise<net.Server> => {
    const before = inodeOf(file);
    try {
      return await listen(short);
    } catch (error) {
      if (codeOf(error) !== 'EADDRINUSE')
        throw new StartProblem(
          `The folder ${folder} can’t be locked: ${codeOf(error)} for a socket in it.`,
          'Its volume must hold Unix sockets, or two servers would write over each other: use a folder on a local disk.',
        );
      if (!again || (await answers(short)) || !removeStale(file, before)) throw new FolderInUse(folder);
      return bind(false);
    }
  };
  try {
    const server = await bind(true);
    const own = inodeOf(file);
    const holds = (): boolean => own !== null && inodeOf(file) === own;
    return {
      holds,
      async release() {
        // Only what is still ours is taken away with it.
        if (!holds()) server.unref();
        else await close(server);
        give();
      },
    };
  } catch (error) {
    give();
    throw error;
  }
}

/** A name that belongs to the folder, whatever path leads to it: on Linux the system frees it however the process dies. */
function socketName(folder: string): string | null {
  const { dev, ino } = fs.statSync(folder, { bigint: true });
  if (process.platform === 'linux') return `\0hot-spline-${dev}-${ino}`;
  if (process.platform !== 'win32') return null;
  const hash = createHash('sha256')
    .update(`${dev}-${ino}-${fs.realpathSync(folder)}`)
    .digest('hex');
  return `\\\\.\\pipe\\hot-spline-${hash.slice(0, 16)}`;
}

async function lockName(folder: string): Promise<net.Server | null> {
  const name = socketName(folder);
  if (name === null) return null;
  try {
    return await listen(name);
  } catch (error) {
    if (codeOf(error) === 'EADDRINUSE') throw new FolderInUse(folder);
    throw error;
  }
}

/**
 * Takes the data folder for this process: by a name in this network namespace, and by a listening socket in the folder, which
 * other namespaces see. Both free themselves when the process dies, however it dies. PGlite itself does not refuse a second
 * process and would corrupt the folder.
 * @param folder must exist
 * @throws FolderInUse, StartProblem where the volume can't hold a lock
 */
export async function lockFolder(folder: string): Promise<FolderLock> {
  const named = await lockName(folder);
  try {
    const file = process.platform === 'win32' ? null : await lockFile(folder);
    return {
      holds: () => file?.holds() ?? true,
      async release() {
        await file?.release();
        if (named) await close(named);
      },
    };
  } catch (error) {
    if (named) await close(named);
    throw error;
  }
}
