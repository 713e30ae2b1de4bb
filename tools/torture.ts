// Long runs by hand: npm run torture -- plan. Every permitted combination of facts (two million) against the checker of
// the trade's rules; with a number, every so many-th of them: npm run torture -- plan 11. And what a shop has to bear:
// npm run torture -- keep [seed] [share of the long run, %] [part of a name]: it prints a table, a seed brings the same again.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { TORTURES } from '../server/src/testing/torture';
import { everyCombination, judged } from '../model/src/testing/order-checker';

const RUNS: Readonly<Record<string, (each: number) => boolean>> = {
  plan(each) {
    const wrong = new Map<string, string>();
    let orders = 0;
    let at = 0;
    for (const facts of everyCombination()) {
      if (at++ % each !== 0) continue;
      orders++;
      for (const what of judged(facts)) if (!wrong.has(what)) wrong.set(what, JSON.stringify(facts));
      if (orders % 100_000 === 0) console.log(`${orders} orders, ${wrong.size} kinds of fault`);
    }
    for (const [what, facts] of wrong) console.error(`${what}\n  ${facts}`);
    console.log(`${orders} of ${at} orders, ${wrong.size} kinds of fault`);
    return wrong.size === 0;
  },
};

const SPECS: Readonly<Record<string, string>> = {
  'power cut, at every sync': 'server/src/db/power-cut.spec.ts',
  'database started anew': 'server/src/db/postgres.spec.ts',
};

async function keep([seed = '1', share = '100', part = '']: readonly string[]): Promise<boolean> {
  const bundle = fileURLToPath(new URL('../dist/server/main.mjs', import.meta.url));
  if (!existsSync(bundle)) throw new Error('The server is not built: npm run build');
  console.log(`seed ${seed}, ${share} % of 1 000 kills and 100 000 requests`);
  let well = true;
  for (const [what, { run, long }] of Object.entries(TORTURES)) {
    if (!what.includes(part)) continue;
    const times = Math.max(1, Math.round((long * Number(share)) / 100));
    const start = performance.now();
    const { lost, unnoticed, mistakes, hangs, notes } = await run({
      seed: Number(seed),
      times,
      server: [process.execPath, bundle],
      far: (done, { mistakes, hangs }) => console.error(`  ${done} of ${times}: 5xx ${mistakes}, hangs ${hangs}`),
    });
    const took = Math.round((performance.now() - start) / 1000);
    console.log(
      `${what.padEnd(32)} ${String(times).padStart(6)} times ${String(took).padStart(6)} s   lost ${lost}  unnoticed ${unnoticed}  5xx ${mistakes}  hangs ${hangs}`,
    );
    for (const note of notes.slice(0, 20)) console.log(`  ${note}`);
    well &&= lost + unnoticed + mistakes + hangs === 0;
  }
  // What is no matter of chance: every cut of the power, and a database that is started anew. Their specs are the torture.
  for (const [what, spec] of Object.entries(SPECS)) {
    if (!what.includes(part)) continue;
    const start = performance.now();
    const { status, stdout } = spawnSync(
      process.execPath,
      ['--liftoff-only', '--import', 'tsx', 'tools/jasmine.mjs', spec],
      { cwd: fileURLToPath(new URL('..', import.meta.url)), env: { ...process.env, HOT_SPLINE_CUTS: 'all' } },
    );
    const took = Math.round((performance.now() - start) / 1000);
    const [said = 'no specs ran'] = /\d+ specs?, .*/.exec(stdout.toString()) ?? [];
    console.log(`${what.padEnd(32)} ${' '.repeat(12)} ${String(took).padStart(6)} s   ${said}`);
    if (status !== 0) console.log(stdout.toString());
    well &&= status === 0;
  }
  return well;
}

const [name = '', ...rest] = process.argv.slice(2);
if (name === 'keep') process.exit((await keep(rest)) ? 0 : 1);
const [each = '1'] = rest;
const run = RUNS[name];
if (!run || !/^[1-9]\d*$/.test(each)) {
  console.error(`Torture what? One of ${Object.keys(RUNS).join(', ')}, and every how many-th; or keep.`);
  process.exit(2);
}
process.exit(run(Number(each)) ? 0 : 1);
