import { InputError } from '../errors';
import { seededRandom, normalFrom } from '../random';
import { collapsiblePreload, type NutReading } from './collapsible';
import { solidPreload } from './solid';
import { carrierPreload } from './total';

const refuses = (run: () => unknown, field: string): void => {
  expect(run).toThrowMatching((error) => error instanceof InputError && error.field === field);
};
/** N·m of a lbf·in [standard: NIST SP 811]. */
const LBF_IN = 0.112984829;

describe('carrier preload from the total', () => {
  it('is what is above the pinion, times the ratio [exact]', () => {
    expect(carrierPreload({ totalNm: 3.2, pinionNm: 2.2, ratio: 4.1 })).toBeCloseTo(4.1, 12);
    expect(carrierPreload({ totalNm: 2.2, pinionNm: 2.2, ratio: 4.1 })).toBe(0);
    refuses(() => carrierPreload({ totalNm: 2, pinionNm: 2.2, ratio: 4.1 }), 'totalNm');
    refuses(() => carrierPreload({ totalNm: 2, pinionNm: 1, ratio: 0 }), 'ratio');
  });
});

describe('a solid spacer', () => {
  const stock = [0.1, 0.25, 0.5, 0.53, 0.6, 0.9].map((thicknessMm) => ({ thicknessMm, count: 2 }));
  const band = [1.98, 2.26] as const;

  it('two readings give the slope, and the pack for the middle of the band [exact: straight line]', () => {
    const readings = [
      { shimMm: 0.9, torqueNm: 3.1 },
      { shimMm: 1, torqueNm: 2.5 },
    ];
    const next = solidPreload(readings, band, stock);
    expect(next.slopeNmPerMm).toBeCloseTo(-6, 9);
    expect(next.shimMm).toBeCloseTo(1 + (2.5 - 2.12) / 6, 9);
    expect(next.piecesMm).toEqual([0.53, 0.53]);
    expect(next.expectedNm).toBeCloseTo(3.1 - 6 * 0.16, 9);
  });

  it('more readings are fitted: the mean of the readings lies on the line [exact: least squares]', () => {
    const readings = [0.9, 0.95, 1, 1.05].map((shimMm, i) => ({
      shimMm,
      torqueNm: 3.1 - 5 * (shimMm - 0.9) + 0.02 * (i % 2),
    }));
    const { slopeNmPerMm, shimMm } = solidPreload(readings, band, stock);
    const [mx, my] = [0.975, readings.reduce((sum, { torqueNm }) => sum + torqueNm, 0) / 4];
    expect(my + slopeNmPerMm * (shimMm - mx)).toBeCloseTo(2.12, 9);
  });

  it('refuses contradictions by name', () => {
    const two = (a: number, b: number) => [
      { shimMm: 0.9, torqueNm: a },
      { shimMm: 1, torqueNm: b },
    ];
    refuses(() => solidPreload(two(2, 3), band, stock), 'readings'); // more shim, more torque
    refuses(() => solidPreload([{ shimMm: 1, torqueNm: 2 }], band, stock), 'readings');
    refuses(
      () =>
        solidPreload(
          [
            { shimMm: 1, torqueNm: 2 },
            { shimMm: 1, torqueNm: 3 },
          ],
          band,
          stock,
        ),
      'readings',
    );
    refuses(() => solidPreload(two(3, 2), [2.26, 1.98], stock), 'bandNm');
    refuses(() => solidPreload(two(-3, 2), band, stock), 'readings[0].torqueNm');
    refuses(() => solidPreload(two(3, 2), band, []), 'stock');
  });
});

describe('a collapsible spacer', () => {
  /** Flat at 13 to 15 lbf·in for long, then rising: the shape that is met in practice (common practice). */
  const spacer = (kneeDeg: number, risePerDeg: number) => (angle: number) =>
    (13 + Math.min(2, angle / 150)) * LBF_IN + risePerDeg * Math.max(0, angle - kneeDeg);
  const band = [16 * LBF_IN, 19 * LBF_IN] as const;

  /** Turns as told until it stops being told. */
  function crush(truth: (angle: number) => number, noise: () => number, u = 0.1) {
    const readings: NutReading[] = [{ angleDeg: 0, torqueNm: truth(0) + noise() }];
    for (let i = 0; i < 58; i++) {
      const next = collapsiblePreload(readings, band, u);
      const from = readings.at(-1)?.angleDeg ?? 0;
      if (next.verdict !== 'go-on' || next.nextAngleDeg === null) return { next, readings };
      expect(next.nextAngleDeg - from).toBeLessThanOrEqual(90);
      expect(next.nextAngleDeg).toBeGreaterThan(from);
      readings.push({ angleDeg: next.nextAngleDeg, torqueNm: truth(next.nextAngleDeg) + noise() });
    }
    throw new Error('never done');
  }

  it('lands in the band, whatever the knee and the steepness', () => {
    for (const knee of [40, 120, 300, 500])
      for (const rise of [0.005, 0.012, 0.02]) {
        const { next, readings } = crush(spacer(knee, rise), () => 0);
        expect(next.verdict).withContext(`${knee}° ${rise}`).toBe('in-band');
        expect(readings.length).toBeLessThan(40);
      }
  });

  it('goes past the band on fewer than one in ten of noisy spacers; the knee is found', () => {
    const random = seededRandom(4);
    const normal = normalFrom(random);
    let over = 0;
    const off: number[] = [];
    for (let i = 0; i < 30; i++) {
      const [knee, rise] = [60 + 400 * random(), 0.005 + 0.02 * random()];
      const { next } = crush(spacer(knee, rise), () => 0.03 * normal());
      if (next.verdict === 'over') over++;
      else off.push(Math.abs((next.kneeDeg ?? 0) - knee));
    }
    expect(off.sort((a, b) => a - b)[off.length >> 1]).toBeLessThan(30); // half of the knees to a twelfth of a turn
    expect(over).toBeLessThanOrEqual(3);
  });

  it('says when it is over, in band, or can’t be judged', () => {
    const at = (torqueNm: number, u = 0.1) => collapsiblePreload([{ angleDeg: 0, torqueNm }], band, u);
    expect(at(18 * LBF_IN).verdict).toBe('in-band');
    const over = at(20 * LBF_IN);
    expect(over.verdict).toBe('over');
    expect(over.nextAngleDeg).toBeNull(); // a new spacer, never back off
    expect(at(10 * LBF_IN, 5 * LBF_IN).verdict).toBe('cannot-judge'); // good to ± 5 on a band of 3
    const go = at(12 * LBF_IN);
    expect(go.verdict).toBe('go-on');
    expect(go.chanceOver).toBeLessThanOrEqual(0.02);
  });

  it('aims at the upper part of the band where it is told to', () => {
    const reads = [{ angleDeg: 0, torqueNm: 17 * LBF_IN }];
    expect(collapsiblePreload(reads, band, 0.1).verdict).toBe('in-band');
    expect(collapsiblePreload(reads, band, 0.1, 18 * LBF_IN).verdict).toBe('go-on');
    refuses(() => collapsiblePreload(reads, band, 0.1, 20 * LBF_IN), 'aimFromNm');
  });

  it('the steeper it already rises, the shorter the next turn', () => {
    const after = (torqueNm: number) =>
      (collapsiblePreload(
        [
          { angleDeg: 0, torqueNm: 13 * LBF_IN },
          { angleDeg: 40, torqueNm: 13.1 * LBF_IN },
          { angleDeg: 60, torqueNm },
        ],
        band,
        0.05,
      ).nextAngleDeg ?? 60) - 60;
    expect(after(15.5 * LBF_IN)).toBeLessThan(after(13.2 * LBF_IN));
  });

  it('a crush that was begun in the press is expected to rise soon: shorter turns', () => {
    const reads = [
      { angleDeg: 0, torqueNm: 13 * LBF_IN },
      { angleDeg: 30, torqueNm: 13 * LBF_IN },
    ];
    const by = (start: 'nut' | 'press') => collapsiblePreload(reads, band, 0.1, band[0], start);
    expect(by('press').nextAngleDeg).toBeLessThan(by('nut').nextAngleDeg ?? 0);
    expect(by('press').kneeDeg).toBeLessThan(by('nut').kneeDeg ?? 0);
  });

  it('refuses by name', () => {
    const one = [{ angleDeg: 0, torqueNm: 1 }];
    refuses(() => collapsiblePreload([], band, 0.1), 'readings');
    refuses(() => collapsiblePreload([...one, { angleDeg: -5, torqueNm: 1 }], band, 0.1), 'readings[1].angleDeg');
    refuses(() => collapsiblePreload([{ angleDeg: 0, torqueNm: -1 }], band, 0.1), 'readings[0].torqueNm');
    refuses(() => collapsiblePreload(one, [2, 1], 0.1), 'bandNm');
    refuses(() => collapsiblePreload(one, band, Number.NaN), 'instrumentUncertaintyNm');
  });
});
