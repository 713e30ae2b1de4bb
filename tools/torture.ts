// Long runs by hand: npm run torture -- plan. Every permitted combination of facts (two million) against the checker of
// the trade's rules; with a number, every so many-th of them: npm run torture -- plan 11.
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

const [name = '', each = '1'] = process.argv.slice(2);
const run = RUNS[name];
if (!run || !/^[1-9]\d*$/.test(each)) {
  console.error(`Torture what? One of ${Object.keys(RUNS).join(', ')}, and every how many-th.`);
  process.exit(2);
}
process.exit(run(Number(each)) ? 0 : 1);
