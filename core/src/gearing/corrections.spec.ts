import fc from 'fast-check';
import {
  crawlRatio,
  effectiveRatio,
  equalGearing,
  growthFactor,
  grownSpeed,
  slippingRpm,
  speedReadingCorrection,
  wornDiameter,
} from './corrections';

describe('gearing: corrections', () => {
  it('keep rpm on a larger tyre with a shorter final drive', () => {
    // i_new = i_old·D_new/D_old [exact]: 4.10 on 31 in asks for 4.6290 on 35 in
    expect(equalGearing(4.1, 31, 35)).toBeCloseTo((4.1 * 35) / 31, 12);
    expect(effectiveRatio(4.1, 31, 35)).toBeCloseTo((4.1 * 31) / 35, 12);
  });

  it('agree with the rule of thumb that 4.88 suits 35 in where the stock was about 4.10', () => {
    // common practice, no published source: stock tyres there are some 29 to 30 in
    expect(equalGearing(4.1, 29.5, 35)).toBeCloseTo(4.88, 1);
  });

  it('equal gearing there and back is the same ratio', () => {
    const size = fc.double({ min: 300, max: 1200, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: 2, max: 8, noNaN: true }), size, size, (ratio, a, b) => {
        expect(equalGearing(equalGearing(ratio, a, b), b, a)).toBeCloseTo(ratio, 9);
      }),
    );
  });

  it('take twice the wear off the diameter, and refuse more than there is', () => {
    expect(wornDiameter(650, 4)).toBe(642); // D − 2·wear [exact]
    expect(() => wornDiameter(60, 40)).toThrowError(/nothing of the tyre is left/);
    expect(() => wornDiameter(650, -1)).toThrowError(/wearMm/);
  });

  it('grow a bias tyre with the square of speed', () => {
    const growth = { share: 0.06, speedMps: 80 };
    expect(growthFactor(growth, 80)).toBeCloseTo(1.06, 12);
    expect(growthFactor(growth, 40)).toBeCloseTo(1.015, 12); // a quarter of it at half the speed [exact]
    expect(growthFactor({ share: 0, speedMps: 80 }, 60)).toBe(1);
  });

  it('grown speed solves its own equation', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        fc.double({ min: 1, max: 80, noNaN: true }),
        (share, ungrown) => {
          const growth = { share, speedMps: 90 };
          const speed = grownSpeed(growth, ungrown);
          expect(speed).toBeCloseTo(ungrown * growthFactor(growth, speed), 8);
        },
      ),
    );
    expect(() => grownSpeed({ share: 0.5, speedMps: 20 }, 60)).toThrowError(/without end/);
  });

  it('multiply first, low range, final and hub to the crawl ratio', () => {
    expect(crawlRatio(4.12, 2.72, 41 / 8)).toBeCloseTo(4.12 * 2.72 * 5.125, 12);
    expect(() => crawlRatio(4, 0, 5)).toThrowError(/lowRange/);
  });

  it('correct a speed reading by where the sender sits', () => {
    const change = { oldRatio: 3.73, newRatio: 4.1, oldCircumferenceMm: 640, newCircumferenceMm: 660 };
    // (i_old·D_new)/(i_new·D_old) [exact]
    expect(speedReadingCorrection({ ...change, sender: 'gearbox' })).toBeCloseTo((3.73 * 660) / (4.1 * 640), 12);
    expect(speedReadingCorrection({ ...change, sender: 'wheel' })).toBeCloseTo(660 / 640, 12);
    // equal gearing needs no correction ahead of the final drive
    const equal = { ...change, newRatio: equalGearing(3.73, 640, 660), sender: 'gearbox' as const };
    expect(speedReadingCorrection(equal)).toBeCloseTo(1, 12);
  });

  it('add converter and wheel slip to rpm', () => {
    expect(slippingRpm(3000, {})).toBe(3000);
    // shares of engine and of wheel speed: 10 % of a converter is 1.111 [exact]
    expect(slippingRpm(3000, { converter: 0.1 })).toBeCloseTo(3333.333, 3);
    expect(slippingRpm(3000, { converter: 0.05, wheel: 0.02 })).toBeCloseTo(3000 / (0.95 * 0.98), 9);
    expect(() => slippingRpm(3000, { wheel: -0.1 })).toThrowError(/slip.wheel/);
  });
});
