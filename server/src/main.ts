import { fileURLToPath } from 'node:url';
import { InputError } from '@hot-spline/core';
import { readConfig } from './config';
import { FolderInUse } from './db/folder-lock';
import { PortInUse, ROOT, serve } from './serve';

/** A start that can't be made says in one line what to do, and leaves with code 1. */
function advice(error: unknown): string | null {
  if (error instanceof FolderInUse)
    return `${error.message} Stop that one first, or give this one its own folder: HOT_SPLINE_DATA=other-folder`;
  if (error instanceof PortInUse)
    return `${error.message} Stop it, or start here on another port: PORT=${error.port + 1}`;
  if (error instanceof InputError) return `${error.message} Allowed: ${error.allowed}`;
  return null;
}

try {
  const running = await serve(readConfig(process.env, fileURLToPath(ROOT)));
  process.stdout.write(`Hot Spline is at ${running.url}\n`);
  const stop = (): void => {
    running.stop().then(
      () => process.exit(0),
      (error: unknown) => {
        process.stderr.write(`${String(error)}\n`);
        process.exit(1);
      },
    );
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
} catch (error) {
  const line = advice(error);
  if (line === null) throw error;
  process.stderr.write(`${line}\n`);
  process.exitCode = 1;
}
