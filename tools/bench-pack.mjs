// pack.shims against a mixed-integer solver on the same stock, in the same run.
import highsLoader from 'highs';
import { packShims } from '../core/src/index.ts';

const round = (value, digits = 3) => Number(value.toPrecision(digits));

/** A made-up drawer: the same numbers every time. */
function drawer(pieces) {
  let seed = 5;
  const random = () => (seed = (seed * 1664525 + 1013904223) % 4294967296) / 4294967296;
  return Array.from({ length: pieces }, () => ({
    thicknessMm: Math.round(100 + random() * 1300) / 1000,
    count: 1,
  }));
}

const sides = [
  { fixedMm: 15.713, targetMm: 17.65 },
  { fixedMm: 15.729, targetMm: 17.65 },
];
const most = 3;

/** Minimise w with |fixed + sum - target| at most w on both sides, three pieces a side, every piece once. */
function model(stock) {
  const sum = (side) => stock.map(({ thicknessMm }, i) => ` + ${thicknessMm} ${side}${i}`).join('');
  const count = (side) => stock.map((_, i) => ` + ${side}${i}`).join('');
  const rows = ['l', 'r'].flatMap((side, k) => {
    const wanted = (sides[k].targetMm - sides[k].fixedMm).toFixed(6);
    return [
      ` ${side}over:${sum(side)} - w <= ${wanted}`,
      ` ${side}under:${sum(side)} + w >= ${wanted}`,
      ` ${side}count:${count(side)} <= ${most}`,
    ];
  });
  const shared = stock.map(({ count: there }, i) => ` c${i}: l${i} + r${i} <= ${there}`);
  const integers = stock.map((_, i) => ` l${i} r${i}`).join('');
  return `Minimize\n w\nSubject To\n${[...rows, ...shared].join('\n')}\nBounds\n w >= 0\nGeneral\n${integers}\nEnd`;
}

/** @param older core before pairs were met from both ends of the drawer, from `olderCore`; null where it is not at hand */
export async function shimsAgainstSolver(older) {
  const highs = await highsLoader();
  const rows = [20, 60, 200].map((pieces) => {
    const stock = drawer(pieces);
    packShims(sides, stock, most);
    let start = performance.now();
    const ours = packShims(sides, stock, most);
    const oursMs = performance.now() - start;
    start = performance.now();
    const before = older?.packShims(sides, stock, most);
    const olderMs = performance.now() - start;
    const text = model(stock);
    start = performance.now();
    const solved = highs.solve(text, { time_limit: 30, mip_rel_gap: 0, mip_abs_gap: 0 });
    const solverMs = performance.now() - start;
    return {
      pieces,
      oursMs: round(oursMs),
      yardstickMs: round(solverMs),
      ratio: round(solverMs / oursMs),
      worstErrorMm: ours.worstErrorMm,
      yardstickErrorMm: round(solved.ObjectiveValue, 4),
      yardstickStatus: solved.Status,
      olderWay: before
        ? { ms: round(olderMs), ratio: round(solverMs / olderMs), worstErrorMm: before.worstErrorMm }
        : 'its commit is not at hand here',
    };
  });
  return { yardstick: 'highs, a mixed-integer solver, for the worst error alone', rows };
}
