// Runs a registered calculation: npm run --silent calc -- NAME '{json}' (or JSON on standard input).
import { spawnSync } from 'node:child_process';
import { ensurePackages, root } from './ensure.mjs';

ensurePackages({ quiet: true });
const result = spawnSync(process.execPath, ['--import', 'tsx', 'tools/calc-cli.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(result.status ?? 1);
