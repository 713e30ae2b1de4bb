import { LOG_SAMPLES } from './limits';
import { InputError } from '../base/errors';
import { againstLog, logTime, thinLog, type LogSample } from './log';
import { type PacePoint } from './pace';

const every = (step: number, lengthM: number, speed: (x: number) => number): LogSample[] =>
  Array.from({ length: Math.round(lengthM / step) + 1 }, (_, i) => ({ atM: i * step, speedMps: speed(i * step) }));
const wavy = (x: number): number => 30 + 12 * Math.sin(x / 90) + 4 * Math.sin(x / 17);

describe('road: a recorded speed', () => {
  it('takes the time of its way: constant speed and constant acceleration [exact]', () => {
    expect(logTime(every(10, 600, () => 30))).toBeCloseTo(20, 12);
    // v² = 2·a·x from standing: t = √(2x/a), read at places that are far apart
    const a = 4;
    expect(logTime([0, 50, 200, 450].map((x) => ({ atM: x, speedMps: Math.sqrt(2 * a * x) })))).toBeCloseTo(
      Math.sqrt((2 * 450) / a),
      9,
    );
    expect(logTime([])).toBe(0);
  });

  it('is thinned to what says most of it: ends kept, and nowhere far from what it was', () => {
    const samples = every(1, 4000, wavy);
    const kept = thinLog(samples);
    expect(kept.length).toBe(LOG_SAMPLES);
    expect([kept[0], kept.at(-1)]).toEqual([samples[0], samples.at(-1)]);
    let worst = 0;
    for (const { atM, speedMps } of samples) {
      const i = Math.max(
        1,
        kept.findIndex((one) => one.atM >= atM),
      );
      const [a, b] = [kept[i - 1] as LogSample, kept[i] as LogSample];
      worst = Math.max(
        worst,
        Math.abs(a.speedMps + ((b.speedMps - a.speedMps) * (atM - a.atM)) / (b.atM - a.atM) - speedMps),
      );
    }
    expect(worst).toBeLessThan(0.3);
    expect(Math.abs(logTime(kept) / logTime(samples) - 1)).toBeLessThan(2e-3);
    // a straight line is said by its ends
    expect(thinLog(every(1, 500, () => 20)).length).toBe(2);
    expect(thinLog(samples.slice(0, 5))).toEqual(samples.slice(0, 5));
  });
});

describe('road: the log against the model', () => {
  const course = {
    lengthM: 1000,
    startMps: 20,
    fastestMps: null,
    corners: [{ atM: 400, lengthM: 100, speedMps: 20, brakingMps2: 8 }],
  };
  const constant = (speedMps: number): PacePoint[] =>
    [0, 400, 500, 1000].map((x) => ({ distanceM: x, timeS: x / speedMps, speedMps, gear: 0, rpm: 0 }));

  it('straight by straight, what each takes and how fast each is', () => {
    const log = every(10, 1000, (x) => (x < 500 ? 20 : 25));
    const { logS, modelS, stretches, most } = againstLog(course, log, constant(20));
    expect(modelS).toBeCloseTo(50, 9);
    // 25 m/s over 500 m is 20 s; the change between two samples 10 m apart is shared by both stretches
    expect(stretches.map(({ fromM, toM }) => [fromM, toM])).toEqual([
      [0, 500],
      [500, 1000],
    ]);
    expect(stretches[0]?.modelS).toBeCloseTo(25, 9);
    expect(stretches[0]?.logS).toBeCloseTo(25, 0);
    expect(stretches[1]?.logS).toBeCloseTo(20, 9);
    expect(stretches[1]?.logMps).toBe(25);
    expect(stretches[1]?.modelMps).toBe(20);
    expect(most[0]).toBe(1);
    expect(logS).toBeCloseTo(
      stretches.reduce((sum, one) => sum + one.logS, 0),
      12,
    );
  });

  it('a log that ends early is compared as far as it goes', () => {
    const { stretches } = againstLog(
      course,
      every(10, 700, () => 20),
      constant(20),
    );
    expect(stretches.at(-1)?.toM).toBe(700);
    expect(stretches.at(-1)?.logS).toBeCloseTo(10, 9);
    expect(stretches.at(-1)?.modelS).toBeCloseTo(10, 9);
  });

  it('refuses what is no log', () => {
    const bad: readonly [string, LogSample[]][] = [
      ['log', []],
      [
        'log[1].atM',
        [
          { atM: 0, speedMps: 1 },
          { atM: 0, speedMps: 1 },
        ],
      ],
      [
        'log[0].speedMps',
        [
          { atM: 0, speedMps: Number.NaN },
          { atM: 1, speedMps: 1 },
        ],
      ],
    ];
    for (const [field, log] of bad)
      expect(() => againstLog(course, log, constant(20))).toThrowMatching(
        (error) => error instanceof InputError && error.field === field,
      );
  });
});
