// Starts Hot Spline: installs what is missing, builds if needed, then serves. With --demo the demo data is put in once.
import { spawn } from 'node:child_process';
import { ensurePackages, root } from './ensure.mjs';
import { ensureBuilt } from './build.mjs';

ensurePackages();
ensureBuilt();
const demo = process.argv.includes('--demo') ? { HOT_SPLINE_DEMO: '1' } : {};
const env = { ...process.env, LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn', ...demo };
const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], { cwd: root, stdio: 'inherit', env });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 1));
