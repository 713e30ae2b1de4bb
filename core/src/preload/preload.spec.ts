import { InputError } from '../base/errors';
import { solidPreload } from './solid';
import { carrierPreload } from './total';

const refuses = (run: () => unknown, field: string): void => {
  expect(run).toThrowMatching((error) => error instanceof InputError && error.field === field);
};

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

  it('a reading with play, and packs nearer than a micrometer can tell, teach nothing and say so', () => {
    const loose = { shimMm: 1.2, torqueNm: 0.05 };
    const two = [
      { shimMm: 0.9, torqueNm: 3.1 },
      { shimMm: 1, torqueNm: 2.5 },
    ];
    // What the wrench can't tell from none is left out of the line.
    expect(solidPreload([...two, loose], band, stock)).toEqual(solidPreload(two, band, stock));
    const says = (run: () => unknown, word: string): void => {
      expect(run).toThrowMatching((e) => e instanceof InputError && e.field === 'readings' && e.message.includes(word));
    };
    says(() => solidPreload([{ shimMm: 0.9, torqueNm: 3.1 }, loose], band, stock), 'play');
    const near = { shimMm: 0.904, torqueNm: 3 };
    says(() => solidPreload([{ shimMm: 0.9, torqueNm: 3.1 }, near], band, stock), 'micrometer');
    expect(
      solidPreload([{ shimMm: 0.9, torqueNm: 3.1 }, near], band, stock, { micrometerMm: 0.001 }).shimMm,
    ).toBeGreaterThan(0.904);
    refuses(() => solidPreload(two, band, stock, { micrometerMm: -1 }), 'micrometerMm');
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
