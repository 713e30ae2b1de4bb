import { fileURLToPath } from 'node:url';
import { StartProblem } from './base/start-problem';
import { readConfig } from './config';
import { ROOT, serve, type Running } from './serve';

/** Who is told to stop, or can’t go on, is gone by then, ms. */
const LEAVES_MS = 5000;
/** It can’t go on as it is: who watches over it starts it again. */
const LOST = 70;

const say = (line: string): void => void process.stderr.write(`${line}\n`);

/** Leaves with a code, in order if that can be done in time. */
function leave(running: Running | null, code: number): void {
  setTimeout(() => process.exit(code || LOST), LEAVES_MS).unref();
  if (!running) return;
  running.stop().then(
    () => process.exit(code),
    (error: unknown) => {
      say(String(error));
      process.exit(code || 1);
    },
  );
}

/** Told to stop while it still starts, it ends what it is at first: a database that is being made is not left in the middle. */
let running: Running | null = null;
let told = false;
const stop = (): void => {
  if (told) return;
  told = true;
  leave(running, 0);
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);

try {
  running = await serve(readConfig(process.env, fileURLToPath(ROOT)));
  if (told) leave(running, 0);
  else {
    process.stdout.write(`Hot Spline is at ${running.url}\n`);
    if (running.trust) process.stdout.write(`Devices learn to trust it at ${running.trust}\n`);
  }
  void running.lost.then((why) => {
    say(why.message);
    leave(running, LOST);
  });
} catch (error) {
  if (error instanceof StartProblem) say(`${error.message} ${error.advice}`);
  else
    say(error instanceof Error ? `Hot Spline does not start: ${error.message}\n${error.stack ?? ''}` : String(error));
  process.exit(1);
}
