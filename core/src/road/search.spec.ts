import fc from 'fast-check';
import { courseFromTrace, type Course } from './course';
import { coursePace, pairName, roadSearch, type SearchProblem, type ShelfPair } from './search';
import { bestShiftSpeed, readyCar, type Car, type Vehicle } from './vehicle';
import type { GearState } from './gear-state';

const SINGLE_SEATER: Vehicle = {
  massKg: 520,
  engine: {
    torqueCurve: [
      { rpm: 3000, torqueNm: 118 },
      { rpm: 4500, torqueNm: 146 },
      { rpm: 6000, torqueNm: 171 },
      { rpm: 7500, torqueNm: 184 },
      { rpm: 8600, torqueNm: 182 },
      { rpm: 9400, torqueNm: 171 },
      { rpm: 10_200, torqueNm: 152 },
    ],
    limitRpm: 10_200,
  },
  gears: [2.6, 2.05, 1.68, 1.42],
  finalRatio: 40 / 11,
  driveline: { efficiency: 0.92, inertiaFactor: 'wong' },
  tyre: { rollingRadiusMm: 258, grip: 1.7 },
  aero: { dragAreaM2: 0.75, downforceAreaM2: 1.6 },
  rollingCoefficient: 0.015,
  driven: { staticShare: 0.58, cgHeightMm: 300, wheelbaseMm: 2450 },
  launchRpm: 6500,
  shiftTimeS: 0.08,
};

const HILL: Course = {
  lengthM: 900,
  startMps: 0,
  fastestMps: null,
  corners: [
    { atM: 120, lengthM: 14, speedMps: 14, brakingMps2: 10 },
    { atM: 300, lengthM: 10, speedMps: 24, brakingMps2: 11 },
    { atM: 420, lengthM: 18, speedMps: 11, brakingMps2: 10 },
    { atM: 640, lengthM: 12, speedMps: 19, brakingMps2: 12 },
  ],
};

/**
 * The same course in steps of half a millisecond, written without the search's tables: full thrust in the gear,
 * no thrust through a shift, braking from the point where the corner's speed is just met. Where it is quicker to hold the
 * speed of a shift to the braking point than to go on, that is done.
 */
function bruteForce(vehicle: Vehicle, course: Course): number {
  const car = readyCar(vehicle);
  const leave = car.gears.map((gear, i) => {
    const next = car.gears[i + 1];
    return next ? bestShiftSpeed(gear, next) : gear.limitMps;
  });
  const h = 0.0005;
  let [time, v] = [0, course.startMps];
  const straight = (length: number, to: number, braking: number): void => {
    const brakeM = (speed: number): number => (speed > to ? (speed * speed - to * to) / (2 * braking) : 0);
    let gear = leave.findIndex((speed) => v < speed);
    if (gear < 0) gear = leave.length - 1;
    let x = 0;
    let [held, heldTo] = [Number.POSITIVE_INFINITY, 0];
    while (x + brakeM(v) < length) {
      const state = car.gears[gear] as GearState;
      const limit = leave[gear] as number;
      if (v < limit) {
        const a = car.acceleration(v, state);
        const mid = Math.min(v + (a * h) / 2, limit);
        x += mid * h;
        v = Math.min(v + car.acceleration(mid, state) * h, limit);
        time += h;
        continue;
      }
      const holding = time + (length - brakeM(v) - x) / v + Math.max(0, v - to) / braking;
      if (holding < held) [held, heldTo] = [holding, Math.min(v, to)];
      const next = car.gears[gear + 1];
      const { coastM, after } = shifted(car, v, h);
      if (!next || x + coastM + brakeM(after) >= length) {
        [time, v] = [held, heldTo];
        return;
      }
      time += vehicle.shiftTimeS ?? 0;
      x += coastM;
      v = after;
      gear++;
    }
    const going = time + Math.max(0, v - to) / braking;
    [time, v] = going < held ? [going, Math.min(v, to)] : [held, heldTo];
  };
  let at = 0;
  for (const corner of course.corners) {
    straight(corner.atM - at, corner.speedMps, corner.brakingMps2);
    time += corner.lengthM / v;
    at = corner.atM + corner.lengthM;
  }
  straight(course.lengthM - at, Number.POSITIVE_INFINITY, 1);
  return time;
}

/** Coasting through a shift. */
function shifted(car: Car, from: number, h: number): { coastM: number; after: number } {
  let [v, x] = [from, 0];
  for (let t = 0; t < car.shiftTimeS - 1e-12; t += h) {
    const slower = v - (car.resistance(v) / car.rollingKg) * h;
    x += ((v + slower) / 2) * h;
    v = slower;
  }
  return { coastM: x, after: v };
}

/** Every chain that the rules allow, timed one by one. */
function exhaustive(problem: SearchProblem): { timeS: number; names: string } | null {
  const { vehicle, pairs, finals, rules } = problem;
  let best: { timeS: number; names: string } | null = null;
  const ratio = (pair: ShelfPair): number => pair.driven / pair.driver;
  const visit = (chain: ShelfPair[], finalRatio: number, name: string): void => {
    if (chain.length === vehicle.gears.length) {
      const gears = chain.map(ratio);
      const steps = gears.slice(1).map((r, i) => (gears[i] ?? 0) / r);
      if (rules?.steps !== 'descending' && steps.some((step, i) => i > 0 && step > (steps[i - 1] ?? 0) * (1 + 1e-9)))
        return;
      const set = { ...vehicle, gears, finalRatio };
      const car = readyCar(set);
      const fast = (problem.course.fastestMps ?? 0) * (1 - (rules?.limiterMargin ?? 0));
      if ((car.gears.at(-1)?.limitMps ?? 0) < fast) return;
      for (let k = 0; k + 1 < gears.length; k++) {
        const [gear, next] = [car.gears[k] as GearState, car.gears[k + 1] as GearState];
        const speed = bestShiftSpeed(gear, next);
        const after = speed - (car.resistance(speed) / car.rollingKg) * car.shiftTimeS;
        if (next.rpm(after) < (rules?.floorRpm ?? 0)) return;
      }
      const { timeS } = coursePace(set, problem.course);
      if (!best || timeS < best.timeS) best = { timeS, names: `${name} ${chain.map(pairName).join(' ')}` };
      return;
    }
    for (const pair of pairs) {
      if (pair.positions && !pair.positions.includes(chain.length + 1)) continue;
      const before = chain.at(-1);
      if (before && ratio(pair) >= ratio(before)) continue;
      visit([...chain, pair], finalRatio, name);
    }
  };
  for (const { ring, pinion } of finals) visit([], ring / pinion, `${ring}/${pinion}`);
  return best;
}

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const someCourse = fc
  .record({
    gaps: fc.array(fc.tuple(number(40, 260), number(5, 25), number(8, 32), number(6, 16)), {
      minLength: 1,
      maxLength: 6,
    }),
    startMps: fc.constantFrom(0, 12, 25),
    runOut: number(30, 400),
  })
  .map(({ gaps, startMps, runOut }): Course => {
    let x = 0;
    const corners = gaps.map(([gap, lengthM, speedMps, brakingMps2]) => {
      const corner = { atM: x + gap, lengthM, speedMps, brakingMps2 };
      x += gap + lengthM;
      return corner;
    });
    return { lengthM: x + runOut, startMps, corners, fastestMps: null };
  });
const somePairs = fc
  .tuple(
    ...[2.6, 2.05, 1.68, 1.42].map((r) =>
      fc
        .array(fc.tuple(fc.integer({ min: 14, max: 26 }), number(0.86, 1.16)), { minLength: 1, maxLength: 4 })
        .map((list) => list.map(([driver, f]) => ({ driver, driven: Math.round(driver * r * f) }))),
    ),
  )
  .map((places) => places.flatMap((place, k) => place.map((pair): ShelfPair => ({ ...pair, positions: [k + 1] }))));

describe('road: a course by its gears', () => {
  it('times a course as half-millisecond steps do', () => {
    for (const change of [{}, { shiftTimeS: 0.25 }, { finalRatio: 3.1 }, { finalRatio: 5, gears: [2.6, 2.05, 1.68] }]) {
      const vehicle = { ...SINGLE_SEATER, ...change };
      const { timeS } = coursePace(vehicle, HILL);
      const fine = bruteForce(vehicle, HILL);
      // the steps by their length, and a shift at the deceleration that it starts with
      expect(Math.abs(timeS / fine - 1))
        .withContext(`${timeS} ${fine}`)
        .toBeLessThan(4e-4);
    }
  });

  it('a corner that is too fast for the next one is slowed down to what can be braked', () => {
    const corners = [
      { atM: 300, lengthM: 0, speedMps: 40, brakingMps2: 10 },
      { atM: 310, lengthM: 10, speedMps: 10, brakingMps2: 10 },
    ];
    const points: { distanceM: number; speedMps: number }[] = [];
    coursePace(SINGLE_SEATER, { ...HILL, corners }, (point) => points.push(point));
    const first = points.filter((point) => Math.abs(point.distanceM - 300) < 0.01);
    for (const { speedMps } of first) expect(speedMps).toBeCloseTo(Math.sqrt(10 ** 2 + 2 * 10 * 10), 6); // v² = v₁² + 2·b·s [exact]
  });

  it('accounts for its time by gear, and tells its points in order', () => {
    const points: { distanceM: number; timeS: number; rpm: number }[] = [];
    const result = coursePace(SINGLE_SEATER, HILL, (point) => points.push(point));
    const inGears = result.gearTimesS.reduce((a, b) => a + b, 0);
    expect(inGears).toBeGreaterThan(0.5 * result.timeS); // braking and shifts are nobody's
    expect(inGears).toBeLessThan(result.timeS);
    points.slice(1).forEach((point, i) => {
      expect(point.distanceM).toBeGreaterThanOrEqual((points[i]?.distanceM ?? 0) - 1e-6);
      expect(point.timeS).toBeGreaterThanOrEqual((points[i]?.timeS ?? 0) - 1e-6);
      expect(point.rpm).toBeLessThan(10_201);
    });
    expect(points.at(-1)?.timeS).toBeCloseTo(result.timeS, 6);
    expect(points.at(-1)?.distanceM).toBeCloseTo(HILL.lengthM, 6);
  });
});

describe('road: search', () => {
  it('finds what trying everything finds, on any shelf small enough to try', () => {
    let proven = 0;
    fc.assert(
      fc.property(
        someCourse,
        somePairs,
        fc.constantFrom<'shrinking' | 'descending'>('shrinking', 'descending'),
        fc.constantFrom(0, 4500, 6200),
        fc.constantFrom(0, 0.08, 0.3),
        (course, pairs, steps, floorRpm, shiftTimeS) => {
          const problem: SearchProblem = {
            vehicle: { ...SINGLE_SEATER, shiftTimeS },
            course,
            pairs,
            finals: [
              { ring: 40, pinion: 11 },
              { ring: 37, pinion: 12 },
            ],
            rules: { steps, floorRpm },
          };
          const all = exhaustive(problem);
          if (!all) {
            expect(() => roadSearch(problem)).toThrowError();
            return;
          }
          const result = roadSearch(problem);
          expect(result.provenBest).toBeTrue();
          expect(Math.abs((result.best[0]?.timeS ?? 0) - all.timeS)).toBeLessThan(1e-7);
          const set = result.best[0];
          if (!set) throw new Error('no set');
          const gears = set.pairs.map((pair) => pair.driven / pair.driver);
          const again = coursePace(
            { ...problem.vehicle, gears, finalRatio: set.final.ring / set.final.pinion },
            course,
          );
          expect(again.timeS).toBeCloseTo(all.timeS, 7);
          proven++;
        },
      ),
      { numRuns: 60 },
    );
    expect(proven).toBeGreaterThan(20);
  });

  const shelf = (): SearchProblem => ({
    vehicle: SINGLE_SEATER,
    course: HILL,
    pairs: [2.6, 2.05, 1.68, 1.42].flatMap((r, k) =>
      [-2, -1, 0, 1, 2].map((d) => ({ driver: 20 + k, driven: Math.round((20 + k) * r) + d, positions: [k + 1] })),
    ),
    finals: [
      { ring: 40, pinion: 11 },
      { ring: 41, pinion: 10 },
    ],
  });

  it('gives the same answer twice, bounded by itself', () => {
    const [once, twice] = [roadSearch(shelf()), roadSearch(shelf())];
    expect(once).toEqual(twice);
    expect(once.boundS).toBe(once.best[0]?.timeS ?? 0);
    expect(once.combinations).toBe(5 ** 4 * 2);
    once.best.slice(1).forEach((set, i) => expect(set.timeS).toBeGreaterThanOrEqual(once.best[i]?.timeS ?? 0));
  });

  it('stopped early, it says how far its bound is', () => {
    const problem = shelf();
    const many = [2.6, 2.05, 1.68, 1.42].flatMap((r, k) =>
      Array.from({ length: 16 }, (_, i) => ({
        driver: 40 + i,
        driven: Math.round((40 + i) * r * (0.9 + 0.012 * i)),
        positions: [k + 1],
      })),
    );
    const stopped = roadSearch({ ...problem, pairs: many, rules: { steps: 'descending' } }, () => false);
    expect(stopped.provenBest).toBeFalse();
    expect(stopped.best.length).toBeGreaterThan(0);
    expect(stopped.boundS).toBeLessThan(stopped.best[0]?.timeS ?? 0);
    expect(stopped.boundS).toBeGreaterThan(0.9 * (stopped.best[0]?.timeS ?? 0));
    expect(stopped.visited).withContext('stopped at the first set it told of').toBe(0);
  });

  it('without pairs the box stays and finals are compared, each as driven alone [coursePace, the same simulation]', () => {
    const { vehicle, course } = shelf();
    const finals = [
      { ring: 37, pinion: 9 },
      { ring: 41, pinion: 9 },
      { ring: 43, pinion: 9 },
    ];
    const found = roadSearch({ vehicle, course, pairs: [], finals });
    const each = finals.map((final) => coursePace({ ...vehicle, finalRatio: final.ring / final.pinion }, course).timeS);
    expect(found.best.map(({ timeS }) => timeS)).toEqual([...each].sort((a, b) => a - b));
    expect([found.provenBest, found.combinations, found.best[0]?.pairs.length]).toEqual([true, 3, 0]);
  });

  it('with which the car comes to a stand, that is no set; where it does with all of them, that is said', () => {
    const { vehicle, course, pairs } = shelf();
    // 38 % up from standstill: the thrust of the tall one is less than the weight along the road
    const heavy = { ...vehicle, massKg: 1500, tyre: { rollingRadiusMm: 258, grip: 1.7 } };
    const steep = { ...course, corners: [], slopes: [{ atM: 0, gradePercent: 38 }] };
    const [short, tall] = [
      { ring: 60, pinion: 10 },
      { ring: 20, pinion: 10 },
    ];
    const found = roadSearch({ vehicle: heavy, course: steep, pairs: [], finals: [tall, short] });
    expect(found.best.map(({ final }) => final)).toEqual([short]);
    const stands = (run: () => unknown) => expect(run).toThrowMatching((e) => e.field === 'gears[0]');
    stands(() => coursePace({ ...heavy, finalRatio: 2 }, steep));
    stands(() => roadSearch({ vehicle: heavy, course: steep, pairs: [], finals: [tall] }));
    stands(() => roadSearch({ vehicle: heavy, course: steep, pairs, finals: [tall] }));
  });

  const refusals: [string, Partial<SearchProblem>, string, RegExp][] = [
    [
      'the course’s speed',
      { course: { ...HILL, fastestMps: 90 } },
      'rules.limiterMargin',
      /324.0 km\/h.*on the limiter/,
    ],
    ['the rpm floor', { rules: { floorRpm: 10_000 } }, 'rules.floorRpm', /gear 1 to 2 ends below the rpm floor/],
    [
      'a missing gear',
      { pairs: shelf().pairs.filter((pair) => !pair.positions?.includes(3)) },
      'pairs',
      /none fits gear 3/,
    ],
    ['torque', { pairs: shelf().pairs.map((pair) => ({ ...pair, torqueLimitNm: 150 })) }, 'pairs', /torque limit/],
    [
      'ratios that don’t fall',
      {
        pairs: shelf()
          .pairs.filter((p) => !p.positions?.includes(4))
          .concat({ driver: 10, driven: 40, positions: [4] }),
      },
      'pairs',
      /no pair for gear 4 is taller/,
    ],
    ['teeth', { pairs: [{ driver: 0, driven: 20 }] }, 'pairs[0].driver', /from 3 to 300/],
    ['no finals', { finals: [] }, 'finals', /1|0 entries/],
    [
      'no torque curve',
      { vehicle: { ...SINGLE_SEATER, engine: { constantPowerW: 1e5 } } },
      'vehicle.engine',
      /torque curve/,
    ],
    [
      'corners out of order',
      { course: { ...HILL, corners: [...HILL.corners].reverse() } },
      'course.corners[1].atM',
      /before the end/,
    ],
    ['a corner past the end', { course: { ...HILL, lengthM: 500 } }, 'course.corners[3].atM', /past the end/],
  ];
  for (const [what, change, field, message] of refusals) {
    it(`says which constraint leaves nothing: ${what}`, () => {
      expect(() => roadSearch({ ...shelf(), ...change })).toThrowMatching(
        (error) => error.field === field && message.test(error.message),
      );
    });
  }
});

describe('road: a course from a trace', () => {
  /** A recorded lap made from a known course. */
  function recorded(step: number): { distanceM: number; speedMps: number }[] {
    const points: { distanceM: number; speedMps: number }[] = [];
    coursePace(SINGLE_SEATER, HILL, ({ distanceM, speedMps }) => points.push({ distanceM, speedMps }));
    const samples: { distanceM: number; speedMps: number }[] = [];
    for (let x = 0, i = 0; x <= HILL.lengthM; x += step) {
      while (i + 2 < points.length && (points[i + 1]?.distanceM ?? 0) < x) i++;
      const [a, b] = [points[i], points[i + 1]];
      if (!a || !b) break;
      const share =
        b.distanceM > a.distanceM ? Math.min(1, Math.max(0, (x - a.distanceM) / (b.distanceM - a.distanceM))) : 0;
      samples.push({ distanceM: x, speedMps: a.speedMps + (b.speedMps - a.speedMps) * share });
    }
    return samples;
  }

  it('finds the corners that were driven, at any sample rate', () => {
    for (const step of [0.5, 2, 5]) {
      const course = courseFromTrace(recorded(step));
      expect(course.corners.length).withContext(`every ${step} m`).toBe(4);
      course.corners.forEach((corner, i) => {
        const driven = HILL.corners[i];
        expect(Math.abs(corner.speedMps / (driven?.speedMps ?? 1) - 1)).toBeLessThan(0.05);
        expect(Math.abs(corner.atM - (driven?.atM ?? 0))).toBeLessThan(3 * step + 4);
        expect(Math.abs(corner.brakingMps2 / (driven?.brakingMps2 ?? 1) - 1)).toBeLessThan(0.25);
      });
    }
  });

  it('the set that drove the trace takes its time on the course made from it', () => {
    const driven = coursePace(SINGLE_SEATER, HILL).timeS;
    const rebuilt = coursePace(SINGLE_SEATER, courseFromTrace(recorded(1))).timeS;
    expect(Math.abs(rebuilt / driven - 1)).toBeLessThan(0.01);
  });

  it('refuses too little, repeated and broken samples by name', () => {
    expect(() => courseFromTrace([])).toThrowMatching((error) => error.field === 'trace');
    const samples = recorded(5);
    const at = (i: number, change: object) => samples.map((s, k) => (k === i ? { ...s, ...change } : s));
    expect(() => courseFromTrace(at(7, { speedMps: Number.NaN }))).toThrowMatching(
      (e) => e.field === 'trace[7].speedMps',
    );
    expect(() => courseFromTrace(at(7, { distanceM: samples[6]?.distanceM }))).toThrowMatching(
      (e) => e.field === 'trace[7].distanceM',
    );
  });
});
