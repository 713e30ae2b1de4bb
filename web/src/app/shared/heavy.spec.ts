import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { InputError, type SearchProblem } from '@hot-spline/core';
import { HEAVY, SIDES, deriveBuild, surePackOf, unattended } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { until } from '../../testing/harness';
import { searchOutcome } from '../road/search-outcome';
import { Heavy } from './heavy';

const vehicle: SearchProblem['vehicle'] = {
  massKg: 700,
  engine: {
    torqueCurve: [
      { rpm: 3000, torqueNm: 150 },
      { rpm: 7000, torqueNm: 210 },
      { rpm: 9000, torqueNm: 180 },
    ],
    limitRpm: 9000,
  },
  gears: [2.5, 1.9, 1.5],
  finalRatio: 4,
  driveline: { efficiency: 0.9, inertiaFactor: 'wong' },
  tyre: { rollingRadiusMm: 290, grip: 1.3 },
  aero: { dragAreaM2: 0.7 },
  rollingCoefficient: 0.014,
  driven: { staticShare: 0.55, cgHeightMm: 350, wheelbaseMm: 2500 },
  shiftTimeS: 0.08,
};

/** A shelf with so many pairs a position; the ratios lie around the present ones. */
function shelf(each: number): SearchProblem {
  const pairs = vehicle.gears.flatMap((ratio, k) =>
    Array.from({ length: each }, (_, i) => ({ driver: 40, driven: Math.round(40 * ratio) + i, positions: [k + 1] })),
  );
  return {
    vehicle,
    course: {
      lengthM: 900,
      startMps: 0,
      fastestMps: null,
      corners: Array.from({ length: 8 }, (_, i) => ({
        atM: 90 + 100 * i,
        lengthM: 10,
        speedMps: 14 + ((i * 5) % 11),
        brakingMps2: 9,
      })),
    },
    pairs,
    finals: [
      { ring: 41, pinion: 10 },
      { ring: 37, pinion: 9 },
    ],
    rules: { steps: 'descending', floorRpm: 0, limiterMargin: 0.02 },
  };
}

describe('heavy work', () => {
  let heavy: Heavy;
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), Heavy] });
    heavy = TestBed.inject(Heavy);
  });

  it('searches a shelf in a worker and says that the best is proven', async () => {
    const searching = heavy.run('road.search', shelf(4), 5);
    expect(heavy.running()).toBe('road.search');
    const outcome = searchOutcome(await searching);
    expect(outcome.provenBest).toBeTrue();
    expect(outcome.combinations).toBe(4 ** 3 * 2); // [exact]
    expect(outcome.best[0]?.timeS ?? 0).toBeGreaterThan(10);
    expect(outcome.boundS).toBeLessThanOrEqual((outcome.best[0]?.timeS ?? 0) + 1e-9);
    expect(heavy.running()).withContext('the worker has ended').toBeNull();
  });

  it('answers with what it has when stopped, and never calls that proven', async () => {
    const searching = heavy.run('road.search', shelf(60), 5);
    await until(() => heavy.news() !== null);
    heavy.stop();
    const outcome = searchOutcome(await searching);
    expect([outcome.stopped, outcome.provenBest, outcome.best.length]).toEqual([true, false, 1]);
    expect(heavy.running()).toBeNull();
  });

  const refusalOf = async (run: Promise<unknown>): Promise<InputError> => {
    try {
      await run;
    } catch (error) {
      if (error instanceof InputError) return error;
      throw error;
    }
    throw new Error('it was taken');
  };

  it('names the field of what the core refuses', async () => {
    const bad = shelf(2);
    const error = await refusalOf(heavy.run('road.search', { ...bad, course: { ...bad.course, lengthM: -1 } }, 5));
    expect(error.field).toContain('lengthM');
    expect(error.message).toContain('lengthM');
    expect(heavy.running()).toBeNull();
  });

  it('new work takes the place of what runs: the old one has no result', async () => {
    const lines = Array.from({ length: 400 }, (_, i) => `${(i * 0.1).toFixed(1)},${90 + 40 * Math.sin(i / 30)}`);
    const file = new Blob([['Time [s],Speed (km/h)', ...lines].join('\n')]);
    const searching = heavy.run('road.search', shelf(60), 5);
    const { result } = await heavy.run('road.trace', { file, choice: {} });
    expect((await searching).result).toBeNull();
    expect([result?.rows, result?.columns.along]).toEqual([400, 'time']);
    expect(result?.course.lengthM).toBeGreaterThan(800);
  });

  it('refuses a file that is no trace in a sentence', async () => {
    const error = await refusalOf(heavy.run('road.trace', { file: new Blob(['hello\nworld\n']), choice: {} }));
    expect(error.message).toMatch(/trace/);
    expect(error.allowed.length).toBeGreaterThan(3);
  });

  it('draws both packs, the same for the same seed, in the worker and here', async () => {
    const build = plateBuild();
    const plate = build.axles.rear?.unit.plate;
    const packs = deriveBuild(build, []).axles.rear?.pack;
    if (!plate || !packs) throw new Error('no pack');
    const asked = (seed: number) => ({
      packs: SIDES.map((side) => surePackOf(plate, packs, side)),
      samples: 20_000,
      seed,
    });
    const drawn = async (seed: number) => (await heavy.run('pack.sure', asked(seed))).result ?? [];
    const [first, again, other] = [await drawn(1), await drawn(1), await drawn(2)];
    expect(first.length).toBe(2);
    expect(again).toEqual(first);
    expect(first).toEqual(await HEAVY['pack.sure'].run(asked(1), unattended));
    expect(other[0]?.breakaway.mean).not.toBe(first[0]?.breakaway.mean);
    expect((other[0]?.breakaway.mean ?? 0) / (first[0]?.breakaway.mean ?? 1)).toBeCloseTo(1, 1);
    expect(heavy.share()).toBeGreaterThan(0);
    await refusalOf(heavy.run('pack.sure', { ...asked(1), samples: -1 }));
  });

  it('ends with the sheet that holds it', async () => {
    const searching = heavy.run('road.search', shelf(60), 5);
    TestBed.resetTestingModule();
    expect((await searching).result).toBeNull();
  });
});
