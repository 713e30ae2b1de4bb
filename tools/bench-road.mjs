// road.run against a general-purpose ODE package on the same equations, and the search by the size of its shelf.
// Plain JavaScript: the package's declarations don't go with strict TypeScript.
import { Solver } from 'odex';
import { readyCar, roadRun, roadSearch, seededRandom, shiftSpeeds } from '../core/src/index.ts';
import { gearSet, gearTable, paceTime, straightsOf } from '../core/src/road/pace.ts';
import { steppedRun } from '../core/src/road/stepped-run.ts';

const round = (value, digits = 3) => Number(value.toPrecision(digits));

const coupe = {
  massKg: 1350,
  engine: {
    torqueCurve: [
      { rpm: 1500, torqueNm: 210 },
      { rpm: 3500, torqueNm: 445 },
      { rpm: 4800, torqueNm: 480 },
      { rpm: 7400, torqueNm: 370 },
    ],
    limitRpm: 7400,
  },
  gears: [3.15, 2.07, 1.49, 1.15, 0.93, 0.77],
  finalRatio: 4.3,
  driveline: { efficiency: 0.88, inertiaFactor: 'wong' },
  tyre: { rollingRadiusMm: 308, grip: 1.1 },
  aero: { dragAreaM2: 0.68 },
  rollingCoefficient: 0.013,
  driven: { staticShare: 0.48, cgHeightMm: 480, wheelbaseMm: 2600 },
  launchRpm: 4500,
  shiftTimeS: 0.25,
};

/** The run in the package: one solve a gear and shift, each ended by dense output and bisection on it. */
function byPackage(distanceM, tolerance) {
  const car = readyCar(coupe);
  const leave = shiftSpeeds(car);
  let [t, x, v] = [0, 0, 0];
  const leg = (law, longest, excess) => {
    const solver = new Solver(2);
    solver.absoluteTolerance = tolerance;
    solver.relativeTolerance = tolerance;
    solver.denseOutput = true;
    let found = null;
    const end = solver.solve(law, 0, [x, v], longest, (_n, before, now, y, dense) => {
      if (excess(y[0], y[1]) < 0) return undefined;
      let [low, high] = [before, now];
      for (let i = 0; i < 50; i++) {
        const middle = (low + high) / 2;
        if (excess(dense(0, middle), dense(1, middle)) < 0) low = middle;
        else high = middle;
      }
      found = { t: high, x: dense(0, high), v: dense(1, high) };
      return false;
    });
    const last = found ?? { t: longest, x: end.y[0], v: end.y[1] };
    [t, x, v] = [t + last.t, last.x, last.v];
  };
  const push = {};
  for (const gear of car.gears) {
    const law =
      (locked) =>
      (_t, [, u]) => {
        car.push(u, gear, push, locked);
        return [u, push.mps2];
      };
    const top = leave[gear.index] ?? gear.limitMps;
    // The law jumps where the clutch closes: a leg to there, and one from there.
    for (const end of [Math.min(gear.lockMps, top), top])
      if (v < end && x < distanceM - 1e-6)
        leg(law(v >= gear.lockMps - 1e-12), 30, (px, pv) => Math.max(px - distanceM, pv - end));
    if (x >= distanceM - 1e-6) break;
    leg(
      (_t, [, u]) => [u, -car.resistance(u) / car.rollingKg],
      coupe.shiftTimeS,
      (px) => px - distanceM,
    );
  }
  return t;
}

function perSecond(run, forMs = 1200) {
  for (let i = 0; i < 20; i++) run();
  const start = performance.now();
  let count = 0;
  while (performance.now() - start < forMs) {
    run();
    count++;
  }
  return (1000 * count) / (performance.now() - start);
}

/** Relative error that is good enough here, and the tolerances that the package is tried with. */
const ERROR = 1e-8;
const TOLERANCES = [1e-4, 1e-5, 1e-6, 1e-7, 1e-8, 1e-9, 1e-10, 1e-11];

export function runAgainstPackage() {
  const distanceM = 402.336;
  const exact = byPackage(distanceM, 1e-12);
  const errorOf = (timeS) => Math.abs(timeS / exact - 1);
  const ours = roadRun(coupe, { distanceM });
  // The loosest tolerance at which the package errs no more than that.
  const tolerance = TOLERANCES.find((one) => errorOf(byPackage(distanceM, one)) <= ERROR) ?? 1e-11;
  // In turn, and the best of three each: what else the machine does falls on all of them.
  const rates = { ours: 0, older: 0, yardstick: 0 };
  const runs = {
    ours: () => roadRun(coupe, { distanceM }),
    older: () => steppedRun(coupe, { distanceM }),
    yardstick: () => byPackage(distanceM, tolerance),
  };
  for (let round = 0; round < 3; round++)
    for (const [name, run] of Object.entries(runs)) rates[name] = Math.max(rates[name], perSecond(run, 600));
  return {
    runsPerSecond: Math.round(rates.ours),
    stretches: ours.stretches,
    evaluations: ours.evaluations,
    relativeError: round(errorOf(ours.timeS), 2),
    yardstick: `odex, time alone, at tolerance ${tolerance}: the loosest with an error of ${ERROR} or less`,
    yardstickPerSecond: Math.round(rates.yardstick),
    ratio: round(rates.ours / rates.yardstick),
    olderWay: {
      way: 'Dormand–Prince 5(4), step by step in time',
      perSecond: Math.round(rates.older),
      relativeError: round(errorOf(steppedRun(coupe, { distanceM }).timeS), 2),
      ratio: round(rates.older / rates.yardstick),
    },
  };
}

/** A made-up shelf of so many pairs a gear: the same numbers every time. */
function shelf(pairs, finals) {
  let seed = 7;
  const random = () => (seed = (seed * 1664525 + 1013904223) % 4294967296) / 4294967296;
  const ratios = [2.6, 2.05, 1.68, 1.42, 1.22, 1.08];
  const list = ratios.flatMap((ratio, k) =>
    Array.from({ length: pairs }, (_, i) => {
      const driver = 17 + k + Math.floor(random() * 12);
      const driven = Math.round(driver * ratio * (0.87 + (0.26 * (i + random() * 0.5)) / pairs));
      return { driver, driven: Math.max(driven, driver), positions: [k + 1] };
    }),
  );
  let at = 0;
  const corners = Array.from({ length: 9 }, () => {
    const corner = {
      atM: at + 80 + random() * 110,
      lengthM: 10 + random() * 15,
      speedMps: 9 + random() * 18,
      brakingMps2: 9 + random() * 3,
    };
    at = corner.atM + corner.lengthM;
    return corner;
  });
  return {
    vehicle: {
      ...coupe,
      massKg: 520,
      engine: {
        torqueCurve: [
          { rpm: 3000, torqueNm: 118 },
          { rpm: 6000, torqueNm: 171 },
          { rpm: 7500, torqueNm: 184 },
          { rpm: 10200, torqueNm: 152 },
        ],
        limitRpm: 10200,
      },
      gears: ratios,
      finalRatio: 40 / 11,
      tyre: { rollingRadiusMm: 258, grip: 1.7 },
      aero: { dragAreaM2: 0.75, downforceAreaM2: 1.6 },
      launchRpm: 6500,
      shiftTimeS: 0.06,
    },
    course: { lengthM: at + 250, startMps: 0, corners, fastestMps: null },
    pairs: list,
    finals: Array.from({ length: finals }, (_, i) => ({ ring: 34 + 2 * i, pinion: 11 })),
    rules: { steps: 'shrinking', floorRpm: 5500 },
  };
}

const LONGEST_MS = 5000;

/** @param older core before sets were built up gear by gear, from `olderCore`; null where it is not at hand */
export function searchBySize(older) {
  const rows = [
    [3, 2],
    [5, 4],
    [8, 4],
    [12, 8],
    [20, 8],
  ].map(([pairs, finals]) => {
    const problem = shelf(pairs, finals);
    const searched = (search) => {
      const start = performance.now();
      const result = search(problem, () => performance.now() - start < LONGEST_MS);
      const seconds = (performance.now() - start) / 1000;
      const best = result.best[0]?.timeS ?? Number.NaN;
      return {
        seconds: round(seconds),
        provenBest: result.provenBest,
        gapPercent: round((100 * (best - result.boundS)) / best, 2),
        bestS: round(best, 7),
      };
    };
    const before = older && searched(older.roadSearch);
    const now = searched(roadSearch);
    return {
      pairsAGear: pairs,
      finals,
      combinations: shelfSize(problem),
      ...now,
      // the yardstick: timing every combination one by one at the rate of this run
      speedUpOverExhaustive: round(shelfSize(problem) / timed.perSecond / now.seconds, 2),
      olderWay: before ? { ...before, ratio: round(before.seconds / now.seconds) } : 'its commit is not at hand here',
    };
  });
  return { yardstick: `timing every set from tables, ${timed.perSecond} a second here`, ...timed, rows };
}

const shelfSize = ({ vehicle, pairs, finals }) =>
  vehicle.gears.reduce(
    (product, _, k) =>
      product *
      new Set(pairs.filter(({ positions }) => positions.includes(k + 1)).map((p) => p.driven / p.driver)).size,
    finals.length,
  );

/** Sets timed on a course from the tables of their gears, and what making those takes. */
const timed = (() => {
  const problem = shelf(20, 1);
  const { ring, pinion } = problem.finals[0];
  const car = readyCar({ ...problem.vehicle, finalRatio: ring / pinion });
  const straights = straightsOf(problem.course);
  const start = performance.now();
  const tables = problem.vehicle.gears.map((_, k) =>
    problem.pairs
      .filter(({ positions }) => positions.includes(k + 1))
      .map(({ driven, driver }) => gearTable(car, car.gear(driven / driver, k))),
  );
  const tablesMs = round(performance.now() - start);
  const random = seededRandom(3);
  const sets = Array.from({ length: 2000 }, () => tables.map((list) => list[Math.floor(random() * list.length)]));
  const all = () => sets.reduce((sum, set) => sum + paceTime([gearSet(car, set)], straights), 0);
  for (let i = 0; i < 10; i++) all();
  const perSecondOf = () => {
    const from = performance.now();
    all();
    return (1000 * sets.length) / (performance.now() - from);
  };
  return {
    perSecond: Math.round(Math.max(perSecondOf(), perSecondOf(), perSecondOf())),
    tables: tables.flat().length,
    tablesMs,
  };
})();
