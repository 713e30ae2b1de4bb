import { createHash } from 'node:crypto';
import fs from 'node:fs';
import net from 'node:net';
import path from 'node:path';

/** Somebody else has the data folder open. */
export class FolderInUse extends Error {
  constructor(readonly folder: string) {
    super(`The data folder ${folder} is in use by another Hot Spline.`);
  }
}

/** A socket name that belongs to the folder itself, whatever path leads to it. */
function socketName(folder: string): string {
  const { dev, ino } = fs.statSync(folder, { bigint: true });
  if (process.platform === 'linux') return `\0hot-spline-${dev}-${ino}`;
  const hash = createHash('sha256')
    .update(`${dev}-${ino}-${fs.realpathSync(folder)}`)
    .digest('hex')
    .slice(0, 16);
  if (process.platform === 'win32') return `\\\\.\\pipe\\hot-spline-${hash}`;
  return path.join(folder, 'lock.sock');
}

const listen = (name: string): Promise<net.Server> =>
  new Promise((resolve, reject) => {
    const server = net.createServer((socket) => socket.destroy());
    server.once('error', reject);
    server.listen(name, () => resolve(server.unref()));
  });

const answers = (name: string): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = net.connect(name, () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });

/**
 * Takes the data folder for this process. The lock is a listening socket, so the system frees it when the process
 * dies, however it dies. PGlite itself does not refuse a second process and would corrupt the folder.
 * @param folder must exist
 * @returns a function that lets go
 * @throws FolderInUse
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const name = socketName(folder);
  let server: net.Server;
  try {
    server = await listen(name);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
    // A socket file outlives its process on systems without abstract sockets: nobody answering means nobody there.
    const isFile = !name.startsWith('\0') && process.platform !== 'win32';
    if (!isFile || (await answers(name))) throw new FolderInUse(folder);
    fs.rmSync(name);
    server = await listen(name);
  }
  return () => new Promise((resolve) => server.close(() => resolve()));
}
