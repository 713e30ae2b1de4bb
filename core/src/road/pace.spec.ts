import fc from 'fast-check';
import {
  courseSlopes,
  gearSet,
  gearTable,
  gridUpTo,
  meet,
  pace,
  paceTime,
  straightsOf,
  sums,
  tableAt,
  type GearTable,
} from './pace';
import { boundBelow, type Search, type Stage } from './search-bound';
import { bestShiftSpeed, readyCar, type Vehicle } from './vehicle';
import { meanGrade, slopesFrom, type Course, type Slope } from './course';

const CAR: Vehicle = {
  massKg: 600,
  engine: {
    torqueCurve: [
      { rpm: 2000, torqueNm: 120 },
      { rpm: 6000, torqueNm: 180 },
      { rpm: 9500, torqueNm: 140 },
    ],
    limitRpm: 9500,
  },
  gears: [2.8, 2.1, 1.6, 1.3],
  finalRatio: 3.8,
  driveline: { efficiency: 0.92, inertiaFactor: 1.1 },
  tyre: { rollingRadiusMm: 270, grip: 1.6 },
  aero: { dragAreaM2: 0.7 },
  rollingCoefficient: 0.015,
  driven: { staticShare: 0.6, cgHeightMm: 300, wheelbaseMm: 2400 },
  launchRpm: 5000,
  shiftTimeS: 0.1,
};
const HILL: Course = {
  lengthM: 800,
  startMps: 0,
  fastestMps: null,
  corners: [
    { atM: 150, lengthM: 10, speedMps: 15, brakingMps2: 10 },
    { atM: 400, lengthM: 20, speedMps: 22, brakingMps2: 10 },
  ],
};
const car = readyCar(CAR);
const grid = gridUpTo(Math.max(...car.gears.map(({ limitMps }) => limitMps)));
const tables = car.gears.map((gear) => gearTable(car, gear, grid));

describe('road: tables of one gear', () => {
  it('sum time and distance of constant slowness exactly', () => {
    // a = 2 m/s²: t = v/a, x = v²/(2a) [exact]
    const { time, distance } = sums(new Float64Array(100).fill(0.5), 0.4);
    expect(time[100]).toBeCloseTo(20, 9);
    expect(distance[100]).toBeCloseTo(40 ** 2 / 4, 9);
  });

  it('read between their nodes in a straight line, and stop at their end', () => {
    const table = Float64Array.from({ length: 11 }, (_, i) => i * i);
    const small = { cell: 2, cells: 10 };
    expect(tableAt(table, small, 6)).toBe(9);
    expect(tableAt(table, small, 7)).toBe((9 + 16) / 2);
    expect(tableAt(table, small, 20)).toBe(100);
  });

  it('a speed is met where the excess passes zero', () => {
    const table = Float64Array.from({ length: 101 }, (_, i) => i * i);
    const small = { cell: 1, cells: 100 };
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(number(1, 9000), number(0, 0.4), (wanted, extra) => {
        const excess = (u: number, x: number): number => x + extra * u * u - wanted;
        const speed = meet(table, small, 0, 100, excess);
        if (excess(100, 10_000) < 0) return;
        expect(Math.abs(excess(speed, tableAt(table, small, speed)))).toBeLessThan(1e-6 * wanted + 1e-6);
      }),
    );
  });

  it('past the limiter nothing pulls', () => {
    const first = tables[0] as GearTable;
    const past = Math.floor(first.limitMps / grid.cell) + 2;
    expect(first.slowness[past]).toBeGreaterThan(1000);
    expect(first.slowness[past - 10]).toBeLessThan(10);
  });
});

describe('road: straights', () => {
  it('reach from corner to corner, and end at the finish', () => {
    const straights = straightsOf(HILL);
    expect(straights.map(({ lengthM }) => lengthM)).toEqual([150, 240, 380]);
    expect(straights.map(({ fromMps }) => fromMps)).toEqual([0, 15, 22]);
    expect(straights.at(-1)?.toMps).toBe(Number.POSITIVE_INFINITY);
    expect(straightsOf({ ...HILL, corners: [] }).length).toBe(1);
  });

  it('start slower where the first corner could not be braked for', () => {
    const near: Course = { ...HILL, startMps: 60, corners: [{ atM: 20, lengthM: 5, speedMps: 10, brakingMps2: 8 }] };
    expect(straightsOf(near)[0]?.fromMps).toBeCloseTo(Math.sqrt(100 + 2 * 8 * 20), 9); // v² = v₁² + 2·b·s [exact]
  });

  it('are as fast one by one as with what explains them', () => {
    const set = gearSet(car, grid, tables);
    const straights = straightsOf(HILL);
    expect(paceTime([set], straights)).toBeCloseTo(pace([set], straights).timeS, 9);
  });

  it('take less time with more thrust, shorter shifts and faster corners', () => {
    const time = (vehicle: Vehicle, course: Course = HILL): number => {
      const ready = readyCar(vehicle);
      const made = ready.gears.map((gear) => gearTable(ready, gear, grid));
      return paceTime([gearSet(ready, grid, made)], straightsOf(course));
    };
    const now = time(CAR);
    expect(time({ ...CAR, massKg: 550 })).toBeLessThan(now);
    expect(time({ ...CAR, shiftTimeS: 0.02 })).toBeLessThan(now);
    expect(time({ ...CAR, aero: { dragAreaM2: 1.4 } })).toBeGreaterThan(now);
    const faster = HILL.corners.map((corner) => ({ ...corner, speedMps: corner.speedMps + 2 }));
    expect(time(CAR, { ...HILL, corners: faster })).toBeLessThan(now);
  });
});

describe('road: the bound of the search', () => {
  const ratios = [
    [2.9, 2.7],
    [2.2, 2.0],
    [1.7, 1.55],
    [1.35, 1.25],
  ];
  const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

  it('never lies above the time of any set below its branch', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 1 }), { minLength: 4, maxLength: 4 }),
        fc.integer({ min: 0, max: 3 }),
        number(0, 0.3),
        fc.array(fc.tuple(number(60, 250), number(9, 26), number(-12, 12)), { minLength: 1, maxLength: 4 }),
        (chain, settled, shiftTimeS, gaps) => {
          let x = 0;
          const slopes: Slope[] = [];
          const corners = gaps.map(([gap, speedMps, gradePercent]) => {
            slopes.push({ atM: x, gradePercent });
            const corner = { atM: x + gap, lengthM: 10, speedMps, brakingMps2: 9 };
            x = corner.atM + 10;
            return corner;
          });
          const course = { lengthM: x + 200, startMps: 0, fastestMps: null, corners, slopes };
          const cars = courseSlopes(course).grades.map((gradePercent) =>
            readyCar({ ...CAR, shiftTimeS, gradePercent }),
          );
          const options = ratios.map((list, k) =>
            list.map((ratio) => ({
              pair: { driver: 20, driven: Math.round(20 * ratio) },
              ratio,
              tables: cars.map((on) => gearTable(on, on.gear(ratio, k), grid)),
            })),
          );
          const leaves = options
            .slice(0, -1)
            .map((here, k) =>
              here.map(({ tables: [low] }) =>
                Float64Array.from(options[k + 1] ?? [], ({ tables: [next] }) =>
                  low && next ? bestShiftSpeed(low.gear, next.gear) : Number.NaN,
                ),
              ),
            );
          const stage: Stage = { final: { ring: 38, pinion: 10 }, cars, options, leaves };
          const straights = straightsOf(course);
          const search: Search = { grid, straights, shrinking: false, reaches: () => true };
          const sets = cars.map((on, slope) =>
            gearSet(
              on,
              grid,
              chain.map((a, k) => options[k]?.[a]?.tables[slope] as GearTable),
            ),
          );
          const timeS = paceTime(sets, straights);
          // asked for anything that could beat a little more than this set takes, the bound has to let it live
          const { child, idealS } = boundBelow({ stage, chain: chain.slice(0, settled) }, search, timeS * 1.0001);
          expect(child[chain[settled] as number]).toBeLessThanOrEqual(timeS + 1e-9);
          expect(idealS).toBeLessThanOrEqual(timeS + 1e-9);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('road: slopes along a course', () => {
  it('the mean slope is the rise over the way', () => {
    const slopes = [
      { atM: 100, gradePercent: 5 },
      { atM: 300, gradePercent: -10 },
    ];
    // level, 200 m at 5 %, 100 m at −10 %: 10 − 10 m over 400 m [exact]
    expect(meanGrade(slopes, 0, 400)).toBeCloseTo(0, 12);
    expect(meanGrade(slopes, 0, 200)).toBeCloseTo(2.5, 12);
    expect(meanGrade(slopes, 350, 400)).toBeCloseTo(-10, 12);
    expect(meanGrade([], 0, 400)).toBe(0);
    expect(meanGrade(slopes, 50, 50)).toBe(0);
  });

  it('a recorded altitude gives its slope, however often it is sampled; without one there is none', () => {
    const height = (x: number): number => (x < 1000 ? 0.04 * x : 40 - 0.06 * (x - 1000));
    for (const step of [1, 7, 25]) {
      const samples = Array.from({ length: Math.floor(2000 / step) + 1 }, (_, i) => ({
        atM: i * step,
        altitudeM: height(i * step) + 310,
      }));
      const slopes = slopesFrom(samples);
      const end = samples.at(-1)?.atM ?? 0;
      expect((meanGrade(slopes, 0, end) * end) / 100).toBeCloseTo(height(end), 0);
      expect(meanGrade(slopes, 200, 800)).toBeCloseTo(4, 1);
      expect(meanGrade(slopes, 1300, 1800)).toBeCloseTo(-6, 1);
    }
    expect(slopesFrom([{ atM: 0 }, { atM: 500 }])).toEqual([]);
    expect(slopesFrom([{ atM: 0, altitudeM: 4 }])).toEqual([]);
  });

  it('each straight has its own, a few kinds in all', () => {
    const course: Course = {
      ...HILL,
      slopes: HILL.corners.map(({ atM }, i) => ({ atM, gradePercent: i % 2 === 0 ? 6 : -6 })),
    };
    const { grades, at } = courseSlopes(course);
    expect(grades.length).toBeLessThanOrEqual(6);
    expect(at.length).toBe(HILL.corners.length + 1);
    expect(courseSlopes(HILL).grades).toEqual([0]);
    const wild = { ...HILL, slopes: Array.from({ length: 40 }, (_, i) => ({ atM: i * 5, gradePercent: i - 20 })) };
    expect(courseSlopes(wild).grades.length).toBeLessThanOrEqual(6);
  });

  it('one slope all the way is the same as a car on that slope, and uphill is slower', () => {
    const timeOn = (gradePercent: number, slopes: Slope[]): number => {
      const course: Course = { ...HILL, slopes };
      const sets = courseSlopes(course).grades.map((grade) => {
        const on = readyCar({ ...CAR, gradePercent: gradePercent + grade });
        return gearSet(
          on,
          grid,
          on.gears.map((gear) => gearTable(on, gear, grid)),
        );
      });
      return paceTime(sets, straightsOf(course));
    };
    for (const grade of [-8, 5, 12])
      expect(timeOn(0, [{ atM: 0, gradePercent: grade }])).toBeCloseTo(timeOn(grade, []), 9);
    expect(timeOn(0, [{ atM: 0, gradePercent: 8 }])).toBeGreaterThan(timeOn(0, []));
    expect(timeOn(0, [{ atM: 0, gradePercent: -8 }])).toBeLessThan(timeOn(0, []));
  });

  it('a straight on its own slope: the time of the equation of motion, integrated apart', () => {
    // Level for 300 m to a corner of 20 m/s, then 400 m at 9 %: fourth-order steps in time, written from m·dv/dt alone.
    const slopes = [{ atM: 310, gradePercent: 9 }];
    const corners = [{ atM: 300, lengthM: 10, speedMps: 20, brakingMps2: 9 }];
    const course: Course = { lengthM: 710, startMps: 12, fastestMps: null, corners, slopes };
    const { grades, at } = courseSlopes(course);
    expect(at.map((i) => grades[i])).toEqual([0, 9]);
    const cars = grades.map((gradePercent) => readyCar({ ...CAR, shiftTimeS: 0, gradePercent }));
    const sets = cars.map((on) =>
      gearSet(
        on,
        grid,
        on.gears.map((gear) => gearTable(on, gear, grid)),
      ),
    );
    const { timeS } = pace(sets, straightsOf(course));
    const steep = cars[at[1] as number] as (typeof cars)[number];
    const flat = cars[at[0] as number] as (typeof cars)[number];
    const set = sets[0] as (typeof sets)[number];
    const pull = (on: typeof steep, v: number): number => {
      let gear = 0;
      while (gear < set.shifts.length && v >= (set.shifts[gear] as number)) gear++;
      const state = on.gears[gear] as (typeof on.gears)[number];
      return v >= state.limitMps ? 0 : on.acceleration(v, state);
    };
    const drive = (on: typeof steep, from: number, until: (x: number, v: number) => boolean) => {
      let [x, v, t] = [0, from, 0];
      const dt = 5e-4;
      while (!until(x, v)) {
        const k1 = pull(on, v);
        const k2 = pull(on, v + (dt * k1) / 2);
        const k3 = pull(on, v + (dt * k2) / 2);
        const k4 = pull(on, v + dt * k3);
        x += dt * (v + (dt * (k1 + k2 + k3)) / 6);
        v += (dt * (k1 + 2 * k2 + 2 * k3 + k4)) / 6;
        t += dt;
      }
      return { x, v, t };
    };
    const brake = (v: number): number => (v > 20 ? (v * v - 400) / 18 : 0);
    const first = drive(flat, 12, (x, v) => x + brake(v) >= 300);
    const second = drive(steep, 20, (x) => x >= 400);
    const apart = first.t + (first.v - 20) / 9 + 10 / 20 + second.t;
    expect(Math.abs(timeS / apart - 1)).toBeLessThan(2e-3);
  });
});
