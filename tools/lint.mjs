// eslint (with the import boundaries), prettier, and the type check of every room: two lanes, for two cores.
import { spawn } from 'node:child_process';
import { ensurePackages, root } from './ensure.mjs';

ensurePackages();

const check = (command, args) =>
  new Promise((resolve) => {
    spawn(command, args, { cwd: root, stdio: 'inherit' }).on('close', (code) => resolve(code === 0));
  });

/** Every command of a lane is run, so that one look tells all. */
async function lane(commands) {
  let good = true;
  for (const args of commands) good = (await check('npx', args)) && good;
  return good;
}

const types = ['core', 'model', 'model/tsconfig.spec.json', 'server', 'e2e', 'tools'].map((project) => [
  'tsc',
  '-p',
  project,
]);
const good = await Promise.all([
  lane([['eslint', '.', '--max-warnings', '0']]),
  lane([['prettier', '--check', '--log-level', 'warn', '.'], ...types]),
]);
if (!good.every(Boolean)) process.exit(1);
console.log('lint: nothing found');
