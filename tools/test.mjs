// Every suite: those that keep one core busy two at a time, then the stories on both; the last line adds them up.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureBundle } from './bundle.mjs';
import { ensureChromium, ensurePackages, root } from './ensure.mjs';

ensurePackages();
const chromium = ensureChromium();

/** Where every suite writes how long each of its tests took. */
const noted = mkdtempSync(path.join(tmpdir(), 'hot-spline-times-'));
const times = path.join(noted, 'times.jsonl');

const plain = (text) => text.replace(/\u001b\[[0-9;]*[A-Za-z]/g, '');
const lastMatch = (text, pattern) => [...text.matchAll(pattern)].at(-1);

/** The Jasmine suite of a room without a browser. */
const room = (name, ...flags) => ({
  name,
  command: [process.execPath, ...flags, '--import', 'tsx', 'tools/jasmine.mjs', name],
  count(text) {
    const match = lastMatch(text, /(\d+) specs?, (\d+) failures?/g);
    return match && { passed: match[1] - match[2], failed: Number(match[2]) };
  },
  failures: (text) => /^Failures:$[\s\S]*?(?=^\d+ specs?, )/m.exec(text)?.[0],
});

const build = { name: 'build', command: [process.execPath, 'tools/build.mjs', '--what-is-older'] };
const suites = [
  room('core'),
  room('model'),
  // The database's WebAssembly is compiled once, not a second time for speed that a test has no use for.
  room('server', '--liftoff-only'),
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
    child.on('close', (code) => resolve({ code, text }));
  });
}

let passed = 0;
let failed = 0;
const said = [];
const seconds = () => `${(performance.now() / 1000).toFixed(0)} s`;

/** @param aloud what it says is said at once; else at its end, so that two of them don't talk into each other */
async function run({ name, command, count, failures }, aloud = false) {
  if (aloud) console.log(`\n== ${name}`);
  const { code, text } = await start(command, aloud);
  if (!aloud) console.log(`\n== ${name}\n${text}`);
  console.log(`== ${name}: done after ${seconds()}`);
  const counted = count?.(plain(text));
  passed += counted?.passed ?? 0;
  failed += counted?.failed ?? 0;
  // A suite that ends badly without a failed test (it never started, say) is a failure too.
  const brokeOff = count ? !counted || (code !== 0 && counted.failed === 0) : code !== 0;
  if (brokeOff) failed += 1;
  if (brokeOff || counted?.failed > 0) {
    const lines = (failures?.(plain(text)) ?? `ended with code ${code}:\n${text.slice(-2000)}`).split('\n');
    said.push(`== ${name}`, ...lines.slice(0, 80));
  }
}

const [core, model, server, components, stories] = suites;
// The longest first; each of two lanes takes the next that is left.
const left = [components, build, core, server, model];
const lane = async () => {
  for (let next = left.shift(); next; next = left.shift()) await run(next);
};
// What commands of the suites run is made once, before two of them want it.
for (const name of ['server', 'calc']) await ensureBundle(name);
await Promise.all([lane(), lane()]);
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
