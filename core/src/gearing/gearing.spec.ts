import fc from 'fast-check';
import { InputError } from '../base/errors';
import { M_PER_MILE } from '../units/quantities';
import { measuredCircumference, rollingCircumference } from './rolling-circumference';
import { axleMismatch, engineRpm, roadSpeed, rpmAfterShift } from './road-speed';
import { nearestToothPair, toothPair } from './tooth-pair';
import { tyreSize } from './tyre-size';

describe('gearing: tyre size', () => {
  // metric forms [standard: ISO 4000-1 / ETRTO designation]; the others by definition of the designation
  const sizes: [string, string, number][] = [
    ['245/40R18', 'metric', 653.2], // 18·25.4 + 2·245·0.40
    ['P275/60R15', 'metric', 711], // 15·25.4 + 2·275·0.60
    ['LT315/70R17', 'metric', 872.8], // 17·25.4 + 2·315·0.70
    ['245/40 ZR18 97Y', 'metric', 653.2],
    ['245/40r18 (97Y) XL', 'metric', 653.2],
    ['37x12.50R17', 'inch', 939.8],
    ['35', 'diameter', 889], // [standard: 25.4 mm in an inch]
    ['35 in', 'diameter', 889],
    ['32.5"', 'diameter', 825.5],
    ['890 mm', 'diameter', 890],
    ['35X12.50-15LT', 'inch', 889],
    ['16/35-15LT', 'inch-slick', 889], // the larger number is across, whichever comes first
    ['29.5/10.5-15W', 'inch-slick', 749.3],
    ['195/50VR15', 'metric', 576], // letters of speed, load and construction say nothing about size
    ['205/60SR13', 'metric', 576.2],
    ['LT285/75R16E', 'metric', 833.9],
    ['305/35ZR20 (107Y) XL', 'metric', 721.5],
    ['35x12.50R17LT/E 121Q 10PR', 'inch', 889],
    ['28.0/10.5-15', 'inch-slick', 711.2],
    ['300/680-18', 'metric-slick', 680],
    ['200/530R13', 'metric-slick', 530],
  ];
  for (const [text, form, diameter] of sizes) {
    it(`reads ${text} as ${form}, ${diameter} mm`, () => {
      const size = tyreSize(text);
      expect(size.form).toBe(form as typeof size.form);
      expect(size.overallDiameterMm).toBeCloseTo(diameter, 9);
    });
  }

  it('says which reading of the second number was taken', () => {
    expect(tyreSize('300/680-18').reading).toContain('680 is too much for an aspect ratio');
    expect(tyreSize('245/40R18').reading).toContain('40 % aspect');
  });

  for (const bad of [
    '',
    '245/40Z',
    '245',
    '245/40R',
    '245/40R180',
    '12x10R17',
    '300/400-18',
    'P/R',
    '９/1R2',
    "'; drop table--",
  ]) {
    it(`refuses “${bad}” and names the field`, () => {
      expect(() => tyreSize(bad)).toThrowMatching(
        (e) => e instanceof InputError && e.field === 'designation' && e.message.startsWith('designation'),
      );
    });
  }
});

describe('gearing: rolling circumference', () => {
  it('takes 3.05·D for a radial and π·D unloaded', () => {
    // [standard: ETRTO rolling-circumference factor, from memory]
    expect(rollingCircumference(653.2, 'radial')).toBeCloseTo(1992.26, 6);
    expect(rollingCircumference(653.2, 'unloaded')).toBeCloseTo(Math.PI * 653.2, 9); // [exact]
  });

  it('takes a measurement instead', () => {
    expect(measuredCircumference({ kind: 'rollout', rolloutMm: 2010 })).toBe(2010);
    expect(measuredCircumference({ kind: 'loaded-radius', loadedRadiusMm: 320 })).toBeCloseTo(2010.62, 2); // 2πr [exact]
    expect(measuredCircumference({ kind: 'turns', turnsPerKm: 500 })).toBe(2000); // 10⁶/n [exact]
    expect(() => measuredCircumference({ kind: 'turns', turnsPerKm: 0 })).toThrowError(/turnsPerKm/);
  });
});

describe('gearing: road speed', () => {
  it('reproduces mph = rpm·D[in]/(336.135·i)', () => {
    // 63360/(60π) = 336.135 [exact]; D is the rolling diameter, C = π·D
    const mph =
      (roadSpeed({ rollingCircumferenceMm: Math.PI * 25.4 * 26, gearRatio: 1, finalRatio: 4.1 }, 6000) * 3600) /
      M_PER_MILE;
    expect(mph).toBeCloseTo((6000 * 26) / (336.135 * 4.1), 3);
  });

  it('gives 180 km/h for 2 m, 6000 rpm, total 4', () => {
    // 2 m · 100 1/s / 4 = 50 m/s [exact]
    expect(roadSpeed({ rollingCircumferenceMm: 2000, gearRatio: 1, finalRatio: 4 }, 6000)).toBeCloseTo(50, 12);
  });

  it('round-trips speed ↔ rpm (property)', () => {
    const ratio = fc.double({ min: 0.3, max: 8, noNaN: true });
    fc.assert(
      fc.property(
        fc.double({ min: 300, max: 12000, noNaN: true }),
        ratio,
        ratio,
        ratio,
        fc.integer({ min: 800, max: 4000 }),
        (rpm, a, b, c, circumference) => {
          const gearing = {
            rollingCircumferenceMm: circumference,
            gearRatio: a,
            rangeRatio: b,
            finalRatio: c,
            hubRatio: 1.2,
          };
          const speed = roadSpeed(gearing, rpm);
          fc.pre(speed <= 500);
          expect(Math.abs(engineRpm(gearing, speed) / rpm - 1)).toBeLessThan(1e-12);
        },
      ),
    );
  });

  it('drops the revs by the ratio step', () => {
    expect(rpmAfterShift(7000, 2.1, 1.5)).toBeCloseTo(5000, 9); // n₂ = n₁·i₂/i₁ [exact]
  });

  it('finds the mismatch of 4.10 with 4.09 on equal tyres inside 1 %', () => {
    // common practice: different nominal ratios within about 1 % are normal (no published source)
    const mismatch = axleMismatch(
      { axleRatio: 4.1, rollingCircumferenceMm: 2400 },
      { axleRatio: 4.09, rollingCircumferenceMm: 2400 },
    );
    expect(mismatch).toBeCloseTo(0.002445, 6);
    expect(Math.abs(mismatch)).toBeLessThan(0.01);
  });

  for (const bad of [0, -1, Number.NaN, Number.POSITIVE_INFINITY, 1e308, 'x' as unknown as number]) {
    it(`refuses a final ratio of ${bad}`, () => {
      expect(() => roadSpeed({ rollingCircumferenceMm: 2000, gearRatio: 1, finalRatio: bad }, 6000)).toThrowMatching(
        (e) => e instanceof InputError && e.field === 'finalRatio',
      );
    });
  }
});

describe('gearing: tooth counts', () => {
  it('gives 41/15 = 2.733', () => {
    expect(toothPair({ ring: 41, pinion: 15 }).ratio).toBeCloseTo(2.733, 3); // [exact, trade example]
  });

  it('tells hunting, partial and non-hunting apart by the common divisor', () => {
    // gcd [exact]
    expect(toothPair({ ring: 41, pinion: 11 }).hunting).toBe('hunting');
    expect(toothPair({ ring: 42, pinion: 12 }).hunting).toBe('partial');
    expect(toothPair({ ring: 40, pinion: 10 }).hunting).toBe('non-hunting');
  });

  it('agrees with counting the meetings of the teeth (property)', () => {
    const count = fc.integer({ min: 3, max: 40 });
    fc.assert(
      fc.property(count, count, (a, b) => {
        const [ring, pinion] = a >= b ? [a, b] : [b, a];
        const met = new Set<number>();
        for (let turn = 0; turn < ring * pinion; turn++) if (turn % pinion === 0) met.add(turn % ring);
        const all = met.size === ring;
        expect(toothPair({ ring, pinion }).hunting === 'hunting').toBe(all);
      }),
    );
  });

  it('refuses swapped and impossible counts', () => {
    expect(() => toothPair({ ring: 11, pinion: 41 })).toThrowError(/swapped/);
    expect(() => toothPair({ ring: 41.5, pinion: 11 })).toThrowError(/whole number/);
    expect(() => toothPair({ ring: 41, pinion: 0 })).toThrowError(/pinion/);
  });

  it('finds the nearest tooth pair', () => {
    const { ring, pinion } = nearestToothPair(3.73, { ring: 41, pinion: 11 });
    expect(Math.abs(ring / pinion - 3.73)).toBeLessThan(0.02);
    expect(nearestToothPair(41 / 11, { ring: 41, pinion: 11 })).toEqual({ ring: 41, pinion: 11 });
  });
});
