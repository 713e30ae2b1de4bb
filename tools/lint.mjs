// eslint (with the import boundaries), prettier, and the type check of every room.
import { ensurePackages, run } from './ensure.mjs';

ensurePackages();
run('npx', ['eslint', '.', '--max-warnings', '0']);
run('npx', ['prettier', '--check', '--log-level', 'warn', '.']);
for (const project of ['core', 'model', 'model/tsconfig.spec.json', 'server', 'e2e', 'tools'])
  run('npx', ['tsc', '-p', project]);
console.log('lint: nothing found');
