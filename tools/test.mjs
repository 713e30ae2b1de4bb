// Every suite: what needs one core each beside each other, the stories alone; the last line adds them up.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureChromium, ensurePackages, root } from './ensure.mjs';

ensurePackages();
const chromium = ensureChromium();

/** Where every suite writes how long each of its tests took. */
const noted = mkdtempSync(path.join(tmpdir(), 'hot-spline-times-'));
const times = path.join(noted, 'times.jsonl');

const plain = (text) => text.replace(/\u001b\[[0-9;]*[A-Za-z]/g, '');
const lastMatch = (text, pattern) => [...text.matchAll(pattern)].at(-1);

const suites = [
  {
    name: 'core, model and server',
    command: [process.execPath, '--import', 'tsx', 'tools/jasmine.mjs'],
    count(text) {
      const match = lastMatch(text, /(\d+) specs?, (\d+) failures?/g);
      return match && { passed: match[1] - match[2], failed: Number(match[2]) };
    },
    failures: (text) => /^Failures:$[\s\S]*?(?=^\d+ specs?, )/m.exec(text)?.[0],
  },
  {
    name: 'components',
    command: ['npx', 'ng', 'test', '--no-watch', '--no-progress'],
    count(text) {
      const failed = lastMatch(text, /Executed (\d+) of \d+ .*?\((\d+) FAILED\)/g);
      if (failed) return { passed: failed[1] - failed[2], failed: Number(failed[2]) };
      const match = lastMatch(text, /Executed (\d+) of \d+ .*?SUCCESS/g);
      return match && { passed: Number(match[1]), failed: 0 };
    },
    failures: (text) => text.match(/^.* FAILED$(\n(\t|\s{2}).*)*/gm)?.join('\n'),
  },
  {
    name: 'stories in the browser',
    command: ['npx', 'playwright', 'test', '--config', 'e2e/playwright.config.ts'],
    count(text) {
      // In the lines that add up alone: the name of a story may count something too.
      const number = (word) => Number(lastMatch(text, new RegExp(`^\\s*(\\d+) ${word}\\b`, 'gm'))?.[1] ?? 0);
      const passed = number('passed');
      return passed + number('failed') > 0 ? { passed, failed: number('failed') + number('did not run') } : undefined;
    },
    failures: (text) => /^ {2}1\) [\s\S]*?(?=^ {2}\d+ failed$)/m.exec(text)?.[0],
  },
];

/** @param aloud what it says is said at once, not at its end */
function start([command, ...args], aloud) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: root,
      env: { ...process.env, CHROME_BIN: chromium, SPEC_TIMES: times },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let text = '';
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (chunk) => {
        text += chunk;
        if (aloud) process.stdout.write(chunk);
      });
    }
    child.on('close', (code) => {
      if (!aloud) process.stdout.write(text);
      resolve({ code, text: plain(text) });
    });
  });
}

let passed = 0;
let failed = 0;
const said = [];
async function run({ name, command, count, failures }, aloud) {
  if (aloud) console.log(`\n== ${name}`);
  const { code, text } = await start(command, aloud);
  const counted = count(text);
  if (!aloud) console.log(`== ${name}: done`);
  passed += counted?.passed ?? 0;
  failed += counted?.failed ?? 0;
  // A suite that ends badly without a failed test (it never started, say) is a failure too.
  const brokeOff = !counted || (code !== 0 && counted.failed === 0);
  if (brokeOff) failed += 1;
  if (brokeOff || counted.failed > 0) {
    const lines = (failures(text) ?? `ended with code ${code}:\n${text.slice(-2000)}`).split('\n');
    said.push(`== ${name}`, ...lines.slice(0, 80));
  }
}

const [rooms, components, stories] = suites;
// Each of the two lanes keeps one core busy. The second speaks when it is done, so that they don't talk into each other.
const built = async () => {
  const make =
    "const { ensureBuilt } = await import('./tools/build.mjs'); const { ensureBundle } = await import('./tools/bundle.mjs'); ensureBuilt(); await ensureBundle('server');";
  const { code } = await start([process.execPath, '--input-type=module', '-e', make], false);
  if (code !== 0) process.exit(1);
};
await Promise.all([run(rooms, true).then(built), run(components, false)]);
await run(stories, true);
const slowest = (existsSync(times) ? readFileSync(times, 'utf8').trim().split('\n') : [])
  .map((line) => JSON.parse(line))
  .sort((a, b) => b.ms - a.ms)
  .slice(0, 10);
rmSync(noted, { recursive: true, force: true });
console.log(
  `\nThe ten slowest:\n${slowest.map(({ ms, name }) => `${(ms / 1000).toFixed(1).padStart(6)} s  ${name}`).join('\n')}`,
);
// Where only the end of a long output is kept, what failed is in it.
if (said.length > 0) console.log(`\nWhat failed, once more:\n${said.join('\n')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
