// Measures what speed rests on, as ratios against a yardstick of the same run. Prints JSON.
import { spawnSync } from 'node:child_process';
import { ensureBuilt } from './build.mjs';
import { ensureChromium, ensurePackages, root } from './ensure.mjs';

ensurePackages({ quiet: true });
const chromium = ensureChromium({ quiet: true });
ensureBuilt({ quiet: true });
const result = spawnSync(process.execPath, ['--import', 'tsx', 'tools/bench-run.ts'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, CHROME_BIN: chromium },
});
process.exit(result.status ?? 1);
