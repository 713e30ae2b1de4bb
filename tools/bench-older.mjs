// The older way of a law, measured beside the new one: core/ of an earlier commit, out of the project's own history.
import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { root } from './ensure.mjs';

/** @returns what that commit's core exports, bundled; null where its history is not at hand (a shallow clone, an archive) */
export async function olderCore(commit) {
  const folder = `${root}dist/bench/${commit}`;
  mkdirSync(folder, { recursive: true });
  try {
    const archive = execFileSync('git', ['archive', commit, 'core/src'], {
      cwd: root,
      maxBuffer: 1 << 28,
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    execFileSync('tar', ['-x', '-C', folder], { input: archive });
  } catch {
    return null;
  }
  const { build } = await import('esbuild');
  const outfile = `${folder}/core.mjs`;
  await build({
    entryPoints: [`${folder}/core/src/index.ts`],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
  });
  return import(outfile);
}
