// Server and web app with reload: the server at 8017, the app at 4200 with its API passed on.
import concurrently from 'concurrently';
import { ensurePackages, root } from './ensure.mjs';

ensurePackages();
const { result } = concurrently(
  [
    { name: 'server', command: 'node --watch --import tsx server/src/main.ts', env: { HOT_SPLINE_DEMO: '1' } },
    { name: 'web', command: 'npx ng serve' },
  ],
  { cwd: root, killOthersOn: ['failure', 'success'] },
);
result.catch(() => process.exit(1));
