// eslint (with the import boundaries), the format, exports that nobody uses, and the type check of every room: two lanes, for two cores.
import { spawn } from 'node:child_process';
import { ensurePackages, root } from './ensure.mjs';

ensurePackages();

const check = ([name, ...args]) =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, [`node_modules/${name}`, ...args], { cwd: root, stdio: 'inherit' });
    child.on('close', (code) => resolve(code === 0));
  });

/** Every command of a lane is run, so that one look tells all. */
async function lane(commands) {
  let good = true;
  for (const command of commands) good = (await check(command)) && good;
  return good;
}

// The native compiler takes a third of the time; Angular builds with the one that it knows. `tsconfig.node.json` holds
// what runs on Node – the server, the tools, the specs of the model – and `core` and `model` are checked without Node.
const types = ['core', 'model', 'tsconfig.node.json', 'e2e', 'web/tsconfig.lint.json'].map((project) => [
  'typescript-native/bin/tsc',
  '--noEmit',
  '-p',
  project,
]);
const good = await Promise.all([
  lane([['eslint/bin/eslint.js', '.', '--max-warnings', '0']]),
  lane([['oxfmt/bin/oxfmt', '--check', '.'], ['knip/bin/knip.js', '--no-progress'], ...types]),
]);
if (!good.every(Boolean)) process.exit(1);
console.log('lint: nothing found');
