import { normalFrom, seededRandom } from '../base/random';
import { packBreakaway } from './breakaway';
import { nestedDiscs, springColumn } from './spring-column';
import { packSure, type SurePack, type UncertainValue } from './sure';

const piece = (value: number, plusMinus: number, spread: UncertainValue['spread'] = 'uniform'): UncertainValue => ({
  label: `piece ${value}`,
  value,
  plusMinus,
  spread,
});
const SPRING = {
  outerDiameterMm: 100,
  innerDiameterMm: 70,
  thicknessMm: 1.5,
  coneHeightMm: 1.2,
  youngGPa: 206,
  poisson: 0.3,
};
const PACK: SurePack = {
  pieces: [piece(2, 0.02), piece(2.01, 0.02), piece(1.99, 0.02), piece(2, 0.02), piece(2, 0.02), piece(0.8, 0.01)],
  caseDepth: { label: 'case depth', value: 12.8, plusMinus: 0.03, spread: 'uniform' },
  springs: [nestedDiscs(SPRING, 1)],
  frictionCoefficient: { label: 'friction', value: 0.1, plusMinus: 0.015, spread: 'normal' },
  interfaces: 4,
  outerRadiusMm: 50,
  innerRadiusMm: 35,
  wearModel: 'uniform-wear',
  heightBandMm: [10.75, 10.85],
};
const run = (pack: SurePack, samples = 200_000, seed = 1) => {
  const result = packSure(pack, samples, seed);
  if (!result) throw new Error('stopped');
  return result;
};

describe('random numbers', () => {
  it('are the same for a seed, and others for another', () => {
    const take = (seed: number) => Array.from({ length: 5 }, seededRandom(seed));
    expect(take(1)).toEqual(take(1));
    expect(take(1)).not.toEqual(take(2));
  });

  it('are uniform and normal within sampling error', () => {
    const n = 400_000;
    const moments = (next: () => number): { mean: number; variance: number } => {
      const list = Array.from({ length: n }, next);
      const mean = list.reduce((a, b) => a + b, 0) / n;
      return { mean, variance: list.reduce((a, b) => a + (b - mean) ** 2, 0) / n };
    };
    const u = moments(seededRandom(9));
    const z = moments(normalFrom(seededRandom(10)));
    // uniform 1/2 and 1/12, normal 0 and 1 [exact]; 5 standard errors
    expect(Math.abs(u.mean - 0.5)).toBeLessThan(5 * Math.sqrt(1 / 12 / n));
    expect(Math.abs(u.variance - 1 / 12)).toBeLessThan(5 * Math.sqrt(1 / 180 / n));
    expect(Math.abs(z.mean)).toBeLessThan(5 / Math.sqrt(n));
    expect(Math.abs(z.variance - 1)).toBeLessThan(5 * Math.sqrt(2 / n));
  });
});

describe('pack: how sure', () => {
  it('a sum of uniform pieces has the mean and deviation of the closed form', () => {
    const { height } = run(PACK);
    // variance of a uniform ±a is a²/3, and variances add [exact]
    const deviation = Math.sqrt((5 * 0.02 ** 2 + 0.01 ** 2) / 3);
    expect(height.nominal).toBeCloseTo(10.8, 12);
    expect(Math.abs(height.mean - 10.8)).toBeLessThan((5 * deviation) / Math.sqrt(200_000));
    expect(Math.abs(height.deviation / deviation - 1)).toBeLessThan(0.01);
    expect(height.worstCase[0]).toBeCloseTo(10.69, 9);
    expect(height.rss).toBeCloseTo(2 * deviation, 9);
  });

  it('a sum of normal pieces lands in two deviations as often as the normal law says', () => {
    const pieces = [piece(2, 0.02, 'normal'), piece(3, 0.03, 'normal'), piece(5.8, 0.01, 'normal')];
    const deviation = Math.sqrt(0.01 ** 2 + 0.015 ** 2 + 0.005 ** 2);
    const band = [10.8 - 2 * deviation, 10.8 + 2 * deviation] as const;
    const { height } = run({ ...PACK, pieces, heightBandMm: band });
    expect(Math.abs(height.deviation / deviation - 1)).toBeLessThan(0.01);
    // erf(√2) = 0.9545 [exact]; 5 standard errors
    expect(Math.abs((height.chance ?? 0) - 0.9545)).toBeLessThan(5 * Math.sqrt((0.9545 * 0.0455) / 200_000));
    expect(height.percentiles[0]).toBeCloseTo(10.8 - 1.96 * deviation, 3);
    expect(height.percentiles[2]).toBeCloseTo(10.8 + 1.96 * deviation, 3);
  });

  it('the nominal breakaway is that of the pack calculation', () => {
    const { breakaway } = run(PACK, 1000);
    const free = SPRING.coneHeightMm + SPRING.thicknessMm;
    const clampN = springColumn([nestedDiscs(SPRING, 1)], free - (12.8 - 10.8)).forceN;
    const nominal = packBreakaway({
      frictionCoefficient: 0.1,
      interfaces: 4,
      clampN,
      outerRadiusMm: 50,
      innerRadiusMm: 35,
      wearModel: 'uniform-wear',
    });
    expect(breakaway.nominal / nominal).toBeCloseTo(1, 4);
  });

  it('coils press in proportion: the deviation of the breakaway is closed form', () => {
    // F = rate × travel is linear in every piece [exact]: T = μ·n·r·rate·(free − depth + Σ pieces)
    const rate = 300;
    const pack = { ...PACK, springs: [{ rateNPerMm: rate, freeMm: 12, solidMm: 1 }] };
    const still = { ...pack, frictionCoefficient: { ...PACK.frictionCoefficient, plusMinus: 0 } };
    const { breakaway } = run(still, 200_000);
    const deviation = Math.sqrt(
      [...still.pieces, still.caseDepth].reduce(
        (sum, { plusMinus, spread }) => sum + (plusMinus / (spread === 'normal' ? 2 : Math.sqrt(3))) ** 2,
        0,
      ),
    );
    const perMm = (0.1 * PACK.interfaces * (PACK.outerRadiusMm + PACK.innerRadiusMm) * rate) / 2000;
    expect(breakaway.nominal).toBeCloseTo(perMm * (12 - (12.8 - 10.8)), 6);
    expect(Math.abs(breakaway.deviation / (perMm * deviation) - 1)).toBeLessThan(0.01);
    expect(Math.abs(breakaway.rss / (2 * perMm * deviation) - 1)).toBeLessThan(0.001);
  });

  it('says what dominates, and no draw lies past the worst case of uniform values', () => {
    const uniformFriction = { ...PACK.frictionCoefficient, spread: 'uniform' as const };
    const { breakaway, tornado } = run({ ...PACK, frictionCoefficient: uniformFriction });
    expect(tornado[0]?.label).toBe('friction');
    const sizes = tornado.map(({ lowNm, highNm }) => Math.abs(highNm - lowNm));
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
    const { from, to, counts } = breakaway.histogram;
    const width = (to - from) / counts.length;
    counts.forEach((count, i) => {
      const [low, high] = [from + i * width, from + (i + 1) * width];
      if (high < breakaway.worstCase[0] || low > breakaway.worstCase[1]) expect(count).toBe(0);
    });
    expect(counts.reduce((a, b) => a + b, 0)).toBe(200_000);
  });

  it('a pack that won’t close is never in band, and its share is said', () => {
    // flat at 1.2 mm of travel: clearance = free 2.7 − travel; a uniform case depth alone decides [exact]
    const sure = (value: UncertainValue): UncertainValue => ({ ...value, plusMinus: 0 });
    const pack: SurePack = {
      ...PACK,
      pieces: PACK.pieces.map(sure),
      frictionCoefficient: sure(PACK.frictionCoefficient),
      // room 1.6 ± 0.2: below 1.5 the springs would have to go past flat, a quarter of the draws
      caseDepth: { ...PACK.caseDepth, value: 10.8 + 1.6, plusMinus: 0.2 },
      heightBandMm: [10, 12],
      breakawayBandNm: [0, 1e4],
    };
    const { wontClose, breakaway, height } = run(pack);
    expect(wontClose).toBeCloseTo(0.25, 2);
    expect(breakaway.chance).toBeCloseTo(0.75, 2);
    expect(height.chance).toBeCloseTo(0.75, 2);
    expect(breakaway.histogram.counts.reduce((a, b) => a + b, 0)).toBe(Math.round(200_000 * (1 - wontClose)));
    expect(run(PACK).wontClose).toBe(0);
  });

  it('the load of the springs is one of the uncertain values', () => {
    // alone, a uniform load from −7.5 to +15 % [standard: EN 16983, from memory]: mean +3.75 %, ends as they are [exact]
    const sure = (value: UncertainValue): UncertainValue => ({ ...value, plusMinus: 0 });
    const alone: SurePack = {
      ...PACK,
      pieces: PACK.pieces.map(sure),
      caseDepth: sure(PACK.caseDepth),
      frictionCoefficient: sure(PACK.frictionCoefficient),
      springLoad: { minus: 0.075, plus: 0.15 },
    };
    const { breakaway, tornado } = run(alone);
    expect(breakaway.worstCase[0] / breakaway.nominal).toBeCloseTo(0.925, 9);
    expect(breakaway.worstCase[1] / breakaway.nominal).toBeCloseTo(1.15, 9);
    expect(breakaway.mean / breakaway.nominal).toBeCloseTo(1.0375, 3);
    expect(breakaway.deviation / breakaway.nominal).toBeCloseTo(0.1125 / Math.sqrt(3), 3);
    expect(tornado).toEqual([
      { label: 'spring load', lowNm: jasmine.any(Number), highNm: jasmine.any(Number) },
    ] as never);
  });

  it('of springs in the pack and springs between the gears the stronger clamps', () => {
    const coils = { rateNPerMm: 100, freeMm: 30, solidMm: 18 };
    const gap: UncertainValue = { label: 'gap', value: 22, plusMinus: 0.5, spread: 'uniform' };
    const perN = (0.1 * 4 * 42.5) / 1000;
    const only = run({ ...PACK, springs: [], between: { springs: [coils], gap } }, 20_000);
    expect(only.breakaway.nominal).toBeCloseTo(perN * 100 * (30 - 22), 6); // F = k·(free − gap) [exact]
    expect(only.wontClose).toBe(0);
    const weak = { ...coils, rateNPerMm: 1 };
    expect(run({ ...PACK, between: { springs: [weak], gap } }, 1000).breakaway.nominal).toBeCloseTo(
      run(PACK, 1000).breakaway.nominal,
      9,
    );
  });

  it('without any uncertainty there is one answer', () => {
    const sure = (value: UncertainValue): UncertainValue => ({ ...value, plusMinus: 0 });
    const { breakaway, height } = run(
      {
        ...PACK,
        pieces: PACK.pieces.map(sure),
        caseDepth: sure(PACK.caseDepth),
        frictionCoefficient: sure(PACK.frictionCoefficient),
      },
      1000,
    );
    expect(breakaway.deviation).toBeCloseTo(0, 9);
    expect(breakaway.mean).toBeCloseTo(breakaway.nominal, 9);
    expect(height.chance).toBe(1);
  });

  it('the same seed gives the same answer; it can be stopped', () => {
    expect(run(PACK, 20_000, 5)).toEqual(run(PACK, 20_000, 5));
    expect(run(PACK, 20_000, 5)).not.toEqual(run(PACK, 20_000, 6));
    expect(packSure(PACK, 1_000_000, 1, (share) => share < 0.2)).toBeNull();
  });

  const bad: [string, Partial<SurePack>][] = [
    ['pieces', { pieces: [] }],
    ['pieces[0].value', { pieces: [piece(0, 0.1)] }],
    ['pieces[0].plusMinus', { pieces: [piece(2, -0.1)] }],
    ['frictionCoefficient.value', { frictionCoefficient: { ...PACK.frictionCoefficient, value: 0 } }],
    ['heightBandMm', { heightBandMm: [11, 10] }],
    ['nested', { springs: [nestedDiscs(SPRING, 0)] }],
    ['springs', { springs: [] }],
    ['springLoad.minus', { springLoad: { minus: -1, plus: 0 } }],
    ['between.springs', { between: { springs: [], gap: piece(20, 0.1) } }],
    ['solidMm', { springs: [{ rateNPerMm: 100, freeMm: 3, solidMm: 3 }] }],
    ['innerRadiusMm', { innerRadiusMm: 60 }],
  ];
  for (const [field, change] of bad) {
    it(`refuses by name: ${field}`, () => {
      expect(() => packSure({ ...PACK, ...change }, 1000, 1)).toThrowMatching((error) => error.field === field);
    });
  }
});
