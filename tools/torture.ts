// Long runs by hand: npm run torture -- plan. Every permitted combination of facts against the checker of the trade's rules.
import { everyCombination, judged } from '../core/src/testing/order-checker';

const RUNS: Readonly<Record<string, () => boolean>> = {
  plan() {
    const wrong = new Map<string, string>();
    let orders = 0;
    for (const facts of everyCombination()) {
      orders++;
      for (const what of judged(facts)) if (!wrong.has(what)) wrong.set(what, JSON.stringify(facts));
      if (orders % 100_000 === 0) console.log(`${orders} orders, ${wrong.size} kinds of fault`);
    }
    for (const [what, facts] of wrong) console.error(`${what}\n  ${facts}`);
    console.log(`${orders} orders, ${wrong.size} kinds of fault`);
    return wrong.size === 0;
  },
};

const [name = ''] = process.argv.slice(2);
const run = RUNS[name];
if (!run) {
  console.error(`Torture what? One of ${Object.keys(RUNS).join(', ')}.`);
  process.exit(2);
}
process.exit(run() ? 0 : 1);
