import { InputError } from '../base/errors';
import { normalFrom, seededRandom } from '../base/random';
import { collapsiblePreload, crushRise, stepRisk, type NutReading } from './collapsible';

const refuses = (run: () => unknown, field: string): void => {
  expect(run).toThrowMatching((error) => error instanceof InputError && error.field === field);
};
const BAND = [1.8, 2.4] as const;
const WRENCH_NM = 0.06;

/** Turns as it is told until it stops being told. */
function crush(truth: (angle: number) => number, noise: () => number) {
  const readings: NutReading[] = [{ angleDeg: 0, torqueNm: Math.max(0, truth(0) + noise()) }];
  for (;;) {
    const next = collapsiblePreload(readings, BAND, WRENCH_NM);
    const from = readings.at(-1)?.angleDeg ?? 0;
    if (next.verdict !== 'go-on' || next.nextAngleDeg === null || readings.length === 60)
      return { next, readings, over: truth(from) > BAND[1] || next.verdict === 'over' };
    expect(next.nextAngleDeg - from).toBeGreaterThanOrEqual(2);
    expect(next.readingsExpected).toBeGreaterThanOrEqual(1);
    readings.push({ angleDeg: next.nextAngleDeg, torqueNm: Math.max(0, truth(next.nextAngleDeg) + noise()) });
  }
}

describe('a collapsible spacer', () => {
  // Rise of 0.02 to 0.1 N·m a degree, wrench ± 0.06 N·m, band 1.8 to 2.4: at most 1 in 20 over (estimates from memory; asked so).
  for (const rise of [0.02, 0.04, 0.065, 0.1])
    it(`of 40 that rise by ${rise} N·m a degree at most two go over, and none stops below the band`, () => {
      const random = seededRandom(Math.round(1000 * rise));
      const normal = normalFrom(random);
      let over = 0;
      for (let i = 0; i < 40; i++) {
        const [knee, base] = [10 + 130 * random(), 0.8 + 0.6 * random()];
        const truth = (angle: number): number => base + rise * Math.max(0, angle - knee);
        const found = crush(truth, () => (WRENCH_NM / 2) * normal());
        if (found.over) over++;
        else {
          expect(found.next.verdict).toBe('in-band');
          expect(truth(found.readings.at(-1)?.angleDeg ?? 0)).toBeGreaterThan(BAND[0] - 2 * WRENCH_NM);
        }
      }
      expect(over).toBeLessThanOrEqual(2);
    });

  it('what all steps together may risk is one in fifty, however many there are [exact: Σ 1/(n(n + 1)) = 1]', () => {
    const total = Array.from({ length: 100_000 }, (_, i) => stepRisk(i + 1)).reduce((a, b) => a + b, 0);
    expect(total).toBeLessThan(0.02);
    expect(total).toBeGreaterThan(0.0199);
    const first = collapsiblePreload([{ angleDeg: 0, torqueNm: 1 }], BAND, WRENCH_NM);
    expect(first.chanceOver).toBeLessThanOrEqual(stepRisk(1));
    const flat = Array.from({ length: 6 }, (_, i) => ({ angleDeg: 10 * i, torqueNm: 1 }));
    expect(collapsiblePreload(flat, BAND, WRENCH_NM).chanceOver).toBeLessThanOrEqual(stepRisk(6));
  });

  it('expects the middle rise at 0.08, 5 to 95 % from 0.03 to 0.15, in proportion to the pitch (handbook 11.1)', () => {
    const middle = [0.05, 0.5, 0.95].map((share) => Number(crushRise(share).toFixed(9)));
    expect(middle).toEqual([0.03, 0.08, 0.15]);
    const reads = [
      { angleDeg: 0, torqueNm: 1 },
      { angleDeg: 10, torqueNm: 1 },
    ];
    const by = (pitchMm: number): number =>
      (collapsiblePreload(reads, BAND, WRENCH_NM, BAND[0], 'nut', pitchMm).nextAngleDeg ?? 10) - 10;
    expect(by(3)).toBeLessThan(by(1.5));
    expect(by(0.75)).toBeGreaterThan(by(1.5));
  });

  it('says when it is over, in band, or can’t be judged', () => {
    const at = (torqueNm: number, u = WRENCH_NM) => collapsiblePreload([{ angleDeg: 0, torqueNm }], BAND, u);
    expect(at(2).verdict).toBe('in-band');
    const over = at(2.5);
    expect([over.verdict, over.nextAngleDeg, over.readingsExpected]).toEqual(['over', null, null]); // a new spacer, never back off
    expect(at(1, 0.3).verdict).toBe('cannot-judge'); // good to ± 0.3 on a band of 0.6
    expect(at(1).verdict).toBe('go-on');
  });

  it('aims at the upper part of the band where it is told to', () => {
    const reads = [{ angleDeg: 0, torqueNm: 1.9 }];
    expect(collapsiblePreload(reads, BAND, WRENCH_NM).verdict).toBe('in-band');
    expect(collapsiblePreload(reads, BAND, WRENCH_NM, 2.15).verdict).toBe('go-on');
    refuses(() => collapsiblePreload(reads, BAND, WRENCH_NM, 2.5), 'aimFromNm');
  });

  it('the steeper it already rises, the shorter the next turn; the knee is found', () => {
    const after = (torqueNm: number) =>
      collapsiblePreload(
        [
          { angleDeg: 0, torqueNm: 1 },
          { angleDeg: 12, torqueNm: 1 },
          { angleDeg: 18, torqueNm },
        ],
        BAND,
        WRENCH_NM,
      );
    expect(after(1.6).nextAngleDeg).toBeLessThan(after(1.05).nextAngleDeg ?? 0);
    expect(after(1.6).chanceRising).toBeGreaterThan(0.99);
    expect(after(1.6).kneeDeg).toBeLessThan(18);
    expect(after(1.6).readingsExpected).toBeLessThan(after(1.05).readingsExpected ?? 0);
  });

  it('a crush that was begun in the press is expected to rise soon: shorter turns', () => {
    const reads = [
      { angleDeg: 0, torqueNm: 1 },
      { angleDeg: 10, torqueNm: 1 },
    ];
    const by = (start: 'nut' | 'press') => collapsiblePreload(reads, BAND, WRENCH_NM, BAND[0], start);
    expect(by('press').nextAngleDeg).toBeLessThan(by('nut').nextAngleDeg ?? 0);
    expect(by('press').kneeDeg).toBeLessThan(by('nut').kneeDeg ?? 0);
  });

  it('refuses by name', () => {
    const one = [{ angleDeg: 0, torqueNm: 1 }];
    refuses(() => collapsiblePreload([], BAND, 0.1), 'readings');
    refuses(() => collapsiblePreload([...one, { angleDeg: -5, torqueNm: 1 }], BAND, 0.1), 'readings[1].angleDeg');
    refuses(() => collapsiblePreload([{ angleDeg: 0, torqueNm: -1 }], BAND, 0.1), 'readings[0].torqueNm');
    refuses(() => collapsiblePreload(one, [2, 1], 0.1), 'bandNm');
    refuses(() => collapsiblePreload(one, BAND, Number.NaN), 'instrumentUncertaintyNm');
    refuses(() => collapsiblePreload(one, BAND, 0.1, BAND[0], 'nut', 0), 'pitchMm');
  });
});
