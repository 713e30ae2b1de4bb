import fc from 'fast-check';
import { gearSet, gearTable, gridUpTo, meet, pace, paceTime, straightsOf, sums, tableAt, type GearTable } from './pace';
import { boundBelow, type Search, type Stage } from './search-bound';
import { bestShiftSpeed, readyCar, type Vehicle } from './vehicle';
import type { Course } from './course';

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
    expect(paceTime(set, straights)).toBeCloseTo(pace(set, straights).timeS, 9);
  });

  it('take less time with more thrust, shorter shifts and faster corners', () => {
    const time = (vehicle: Vehicle, course: Course = HILL): number => {
      const ready = readyCar(vehicle);
      const made = ready.gears.map((gear) => gearTable(ready, gear, grid));
      return paceTime(gearSet(ready, grid, made), straightsOf(course));
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
        fc.array(fc.tuple(number(60, 250), number(9, 26)), { minLength: 1, maxLength: 4 }),
        (chain, settled, shiftTimeS, gaps) => {
          const ready = readyCar({ ...CAR, shiftTimeS });
          const options = ratios.map((list, k) =>
            list.map((ratio) => ({
              pair: { driver: 20, driven: Math.round(20 * ratio) },
              ratio,
              table: gearTable(ready, ready.gear(ratio, k), grid),
            })),
          );
          const leaves = options
            .slice(0, -1)
            .map((here, k) =>
              here.map(({ table }) =>
                Float64Array.from(options[k + 1] ?? [], (next) => bestShiftSpeed(table.gear, next.table.gear)),
              ),
            );
          const stage: Stage = { final: { ring: 38, pinion: 10 }, car: ready, options, leaves };
          let x = 0;
          const corners = gaps.map(([gap, speedMps]) => {
            const corner = { atM: x + gap, lengthM: 10, speedMps, brakingMps2: 9 };
            x = corner.atM + 10;
            return corner;
          });
          const straights = straightsOf({ lengthM: x + 200, startMps: 0, fastestMps: null, corners });
          const search: Search = { grid, straights, shrinking: false, reaches: () => true };
          const chosen = chain.map((a, k) => options[k]?.[a]?.table as GearTable);
          const timeS = paceTime(gearSet(ready, grid, chosen), straights);
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
