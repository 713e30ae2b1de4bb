// Runs the Jasmine suites of the rooms that have no browser. Usage: node tools/jasmine.mjs [core model server | file…]
import { appendFileSync } from 'node:fs';
import Jasmine from 'jasmine';
import 'tsx';

const rooms = process.argv.slice(2).length ? process.argv.slice(2) : ['core', 'model', 'server'];
const runner = new Jasmine({ projectBaseDir: new URL('..', import.meta.url).pathname });
runner.loadConfig({
  spec_dir: '.',
  spec_files: rooms.map((room) => (/\.m?[jt]s$/.test(room) ? room : `${room}/src/**/*.spec.{ts,mjs}`)),
  random: true,
  failSpecWithNoExpectations: true,
});
// What hangs is ended; how long something takes says the machine.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 240_000;
// Each spec's time goes to the file that `npm test` lists the slowest from.
const times = process.env.SPEC_TIMES;
if (times)
  runner.addReporter({
    specDone: ({ fullName, duration }) =>
      appendFileSync(times, `${JSON.stringify({ ms: duration ?? 0, name: fullName })}\n`),
  });
runner.exitOnCompletion = false;
const result = await runner.execute();
process.exitCode = result.overallStatus === 'passed' ? 0 : 1;
