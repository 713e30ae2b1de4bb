// Measures what speed rests on, as ratios against a yardstick of the same run. Prints JSON.
// Usage: npm run bench [-- advisor board …]: all of it, or some sections by their names.
import { spawnSync } from 'node:child_process';
import { ensureBuilt } from './build.mjs';
import { ensureChromium, ensurePackages, root } from './ensure.mjs';

ensurePackages({ quiet: true });
const chromium = ensureChromium({ quiet: true });
ensureBuilt({ quiet: true });
const result = spawnSync(process.execPath, ['--import', 'tsx', 'tools/bench-run.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, CHROME_BIN: chromium },
});
process.exit(result.status ?? 1);
