import { findFinals, goalOverRatio, type FindProblem } from './find';
import { topSpeed } from './run';
import { readyCar } from './vehicle';

const TRUCK: FindProblem = {
  vehicle: {
    massKg: 2600,
    engine: {
      torqueCurve: [
        { rpm: 1000, torqueNm: 310 },
        { rpm: 2200, torqueNm: 480 },
        { rpm: 3800, torqueNm: 482 },
        { rpm: 5400, torqueNm: 372 },
      ],
      limitRpm: 5400,
    },
    gears: [4.12, 2.36, 1.54, 1.17, 0.9, 0.7],
    finalRatio: 41 / 10,
    driveline: { efficiency: 0.82, inertiaFactor: 'wong' },
    tyre: { rollingRadiusMm: 450, grip: 0.9 },
    aero: { dragAreaM2: 1.6 },
    rollingCoefficient: 0.02,
    driven: { staticShare: 0.5, cgHeightMm: 800, wheelbaseMm: 2950, axle: 'both' },
    converter: { stallRpm: 1900, torqueRatio: 2, couplingRatio: 0.87, slip: 0.02 },
    shiftTimeS: 0.3,
  },
  candidates: [
    { ring: 41, pinion: 11, price: 320, leadDays: 2 },
    { ring: 41, pinion: 10, price: 340, leadDays: 2 },
    { ring: 39, pinion: 8, price: 410, leadDays: 9 },
    { ring: 41, pinion: 8, price: 430, leadDays: 21, torqueLimitNm: 20_000 },
    { ring: 40, pinion: 8, price: 380, leadDays: 5 },
  ],
  goal: { kind: 'cruise', speedMps: 31.3, lowRpm: 2400, highRpm: 2700 },
  lowRange: 2.72,
  carriers: [
    { name: 'tall', fromRatio: 2.5, toRatio: 4.09 },
    { name: 'short', fromRatio: 4.1, toRatio: 6 },
  ],
  presentCarrier: 'tall',
};

const codes = (list: readonly { code: string }[]): string[] => list.map(({ code }) => code);

describe('gearing: rank', () => {
  it('puts first what cruises in the window and says why the others fall', () => {
    const ranked = findFinals(TRUCK);
    const first = ranked[0];
    // rpm = v·i/(2π·r)·60/(1 − slip): 5.0 · 0.7 · 31.3/(2π·0.45)·60/0.98 = 2372 [exact], 5.125 → 2430
    expect(first?.candidate).toEqual(jasmine.objectContaining({ ring: 41, pinion: 8 }));
    expect(first?.figures.cruiseRpm).toBeCloseTo((((31.3 * 60) / (2 * Math.PI * 0.45)) * 0.7 * 5.125) / 0.98, 6);
    expect(codes(first?.reasons ?? [])).toContain('window-met');
    expect(ranked.map(({ score }) => score)).toEqual([...ranked.map(({ score }) => score)].sort((a, b) => a - b));
    const tall = ranked.find(({ candidate }) => candidate.pinion === 11);
    expect(codes(tall?.reasons ?? [])).toContain('window-below');
    // cruise 2371·(3.727/5) = 1768, below stall 1900 + 500 (common practice 500 to 800): hot
    expect(tall?.verdict).toBe('watch');
    expect(tall?.reasons.find(({ code }) => code === 'stall-near')?.value).toBeLessThan(0);
  });

  it('counts growth and slip at the cruise, and the range when it crawls', () => {
    const growing = {
      ...TRUCK,
      vehicle: {
        ...TRUCK.vehicle,
        rangeRatio: 1.5,
        tyre: { ...TRUCK.vehicle.tyre, growth: { share: 0.04, speedMps: 31.3 } },
      },
      wheelSlip: 0.03,
    };
    const { lowRange: _, ...ranged } = growing;
    const found = findFinals(ranged)[0]?.figures;
    const ratio = findFinals(ranged)[0]?.ratio ?? 0;
    // n = v·i/(C·(1 + g))/((1 − c)(1 − s)) [exact]
    const kinematic = ((31.3 * 60) / (2 * Math.PI * 0.45 * 1.04)) * 0.7 * 1.5 * ratio;
    expect(found?.cruiseRpm).toBeCloseTo(kinematic / (0.98 * 0.97), 6);
    expect(found?.crawlRatio).toBeCloseTo(4.12 * 1.5 * ratio, 9);
    expect(findFinals(growing)[0]?.figures.crawlRatio).toBeCloseTo(4.12 * 2.72 * ratio, 9);
  });

  it('says what has to change with it: carrier, speed reading, timing marks', () => {
    const ranked = findFinals(TRUCK);
    const of = (ring: number, pinion: number) =>
      ranked.find((r) => r.candidate.ring === ring && r.candidate.pinion === pinion);
    expect(codes(of(41, 8)?.changes ?? [])).toEqual(['carrier', 'speed-reading', 'tyre']);
    expect(of(41, 8)?.changes[1]).toEqual({ code: 'speed-reading', factor: jasmine.any(Number) as never });
    // D_new/D_old = i_new/i_old keeps rpm [exact]
    expect(of(41, 8)?.changes[2]).toEqual({ code: 'tyre', factor: 41 / 8 / 4.1 });
    expect(codes(of(40, 8)?.changes ?? [])).toContain('timing-marks'); // gcd 8 [exact]
    expect(codes(of(41, 11)?.changes ?? [])).not.toContain('carrier');
  });

  it('says what the next better choice costs', () => {
    const ranked = findFinals(TRUCK);
    expect(ranked[0]?.behindNext).toBeNull();
    // both take a carrier, ring bolts and a recalibration of which no price is known
    expect(ranked[1]?.behindNext?.price).toBe((ranked[0]?.candidate.price ?? 0) - (ranked[1]?.candidate.price ?? 0));
    expect(ranked[1]?.behindNext?.score).toBeGreaterThanOrEqual(0);
  });

  it('counts everything that is bought: carrier, ring bolts, recalibration; the longest lead time of it', () => {
    const problem: FindProblem = {
      ...TRUCK,
      carriers: [
        { name: 'tall', fromRatio: 2.5, toRatio: 4.09, price: 150, leadDays: 4 },
        { name: 'short', fromRatio: 4.1, toRatio: 6, price: 190, leadDays: 30 },
      ],
      extras: { ringBolts: { price: 28, leadDays: 1 }, recalibration: { price: 60 } },
    };
    const bill = (of: FindProblem, ring: number, pinion: number) =>
      findFinals(of).find(({ candidate }) => candidate.ring === ring && candidate.pinion === pinion)?.bill;
    // [exact, addition]: set 430 + carrier 190 + bolts 28 + recalibration 60; the carrier takes longest
    const short = bill(problem, 41, 8);
    expect(short?.items.map(({ code }) => code)).toEqual(['set', 'carrier', 'ring-bolts', 'recalibration']);
    expect([short?.price, short?.whole, short?.leadDays]).toEqual([708, true, 30]);
    // the same carrier series: no carrier
    const tall = bill(problem, 41, 11);
    expect([tall?.price, tall?.leadDays]).toEqual([320 + 28 + 60, 2]);
    // the set that is in costs nothing
    expect(bill(problem, 41, 10)).toEqual({ items: [], price: 0, whole: true, leadDays: null });
    // a speed reading taken at the wheel needs no recalibration
    expect(bill({ ...problem, sender: 'wheel' }, 41, 11)?.price).toBe(348);
    // a ring welded to its carrier brings one with it, and no bolts; one that comes out welded takes its carrier along
    const welded = { ...problem, candidates: problem.candidates.map((one) => ({ ...one, welded: one.pinion === 11 })) };
    expect(bill(welded, 41, 11)?.items.map(({ code }) => code)).toEqual(['set', 'carrier', 'recalibration']);
    const stuck = { ...problem, candidates: problem.candidates.map((one) => ({ ...one, welded: one.pinion === 10 })) };
    expect(bill(stuck, 41, 11)?.items.map(({ code }) => code)).toEqual([
      'set',
      'carrier',
      'ring-bolts',
      'recalibration',
    ]);
    // what nobody has asked is said to be unknown
    expect(bill(TRUCK, 41, 8)?.whole).toBeFalse();
    const bad = { ...problem, extras: { ringBolts: { price: -1 } } };
    expect(() => findFinals(bad)).toThrowMatching((error) => error.field === 'extras.ringBolts.price');
  });

  it('stops what has no carrier, not enough strength or a cruise past the limiter', () => {
    const none = findFinals({ ...TRUCK, carriers: [{ name: 'tall', fromRatio: 2.5, toRatio: 4.2 }] });
    expect(
      none
        .filter(({ verdict }) => verdict === 'stop')
        .map(({ ratio }) => ratio)
        .every((r) => r > 4.2),
    ).toBeTrue();
    expect(none.at(-1)?.verdict).toBe('stop');
    const weak = findFinals({ ...TRUCK, candidates: TRUCK.candidates.map((c) => ({ ...c, torqueLimitNm: 3000 })) });
    expect(
      weak.every(({ verdict, reasons }) => verdict === 'stop' && codes(reasons).includes('torque-over')),
    ).toBeTrue();
    const fast = findFinals({ ...TRUCK, goal: { kind: 'time', distanceM: 402.336 }, cruiseMps: 90 });
    expect(codes(fast.find(({ verdict }) => verdict === 'stop')?.reasons ?? [])).toContain('cruise-limiter');
  });

  it('ranks by time to a mark, by rpm at the finish, by crawl', () => {
    const byTime = findFinals({ ...TRUCK, goal: { kind: 'time', distanceM: 201.168 } });
    expect(codes(byTime[0]?.reasons ?? [])[0]).toBe('goal-best');
    byTime.slice(1).forEach((r, i) => expect(r.score).toBeGreaterThanOrEqual(byTime[i]?.score ?? 0));
    const byFinish = findFinals({
      ...TRUCK,
      goal: { kind: 'finish', distanceM: 402.336, lowRpm: 3600, highRpm: 4400 },
    });
    const best = byFinish[0];
    if (best?.score === 0) expect(best.figures.finishRpm).toBeGreaterThanOrEqual(3600);
    const byCrawl = findFinals({ ...TRUCK, goal: { kind: 'crawl', ratio: 56 } });
    // 4.12 · 2.72 · 5.125 = 57.43 [exact]
    expect(byCrawl[0]?.figures.crawlRatio).toBeGreaterThanOrEqual(56);
    expect(codes(byCrawl.at(-1)?.reasons ?? [])).toContain('crawl-short');
  });

  it('refuses by name', () => {
    const bad: [string, Partial<FindProblem>][] = [
      ['candidates', { candidates: [] }],
      ['ring', { candidates: [{ ring: 8, pinion: 41 }] }],
      ['goal.highRpm', { goal: { kind: 'cruise', speedMps: 30, lowRpm: 3000, highRpm: 2000 } }],
      ['goal.distanceM', { goal: { kind: 'time', distanceM: -4 } }],
      ['candidates[0].price', { candidates: [{ ring: 41, pinion: 10, price: -1 }] }],
      ['lowRange', { lowRange: 0 }],
    ];
    for (const [field, change] of bad)
      expect(() => findFinals({ ...TRUCK, ...change }))
        .withContext(field)
        .toThrowMatching((error) => error.field === field);
  });
});

describe('gearing: a goal with limits beside it', () => {
  const quick: FindProblem = { ...TRUCK, goal: { kind: 'time', distanceM: 402.336 }, cruiseMps: 31.3 };

  it('whoever keeps the limits is ahead of whoever is quicker and does not, and each says so', () => {
    const free = findFinals(quick);
    const open = free.filter(({ verdict }) => verdict !== 'stop');
    const shortest = open.reduce((a, b) => (b.ratio > a.ratio ? b : a));
    expect(free[0]?.ratio).not.toBe(shortest.ratio);
    const crawlRatio = shortest.figures.crawlRatio * 0.999;
    const limited = findFinals({ ...quick, limits: { crawlRatio } });
    expect(limited[0]?.ratio).toBe(shortest.ratio);
    expect(limited[0]?.missed).toBe(0);
    for (const one of limited.slice(1)) {
      expect(one.missed).toBeCloseTo(Math.max(0, 1 - one.figures.crawlRatio / crawlRatio), 12);
      const reason = one.reasons.find(({ code }) => code === 'limit-crawl');
      expect(reason?.side).toBe(one.missed > 0 ? 'against' : 'for');
      if (one.missed > 0) expect(one.verdict).not.toBe('fits');
    }
    const order = limited.filter(({ verdict }) => verdict !== 'stop').map(({ missed }) => missed);
    expect(order).toEqual([...order].sort((a, b) => a - b));
  });

  it('time, top speed and crawl are limits too, at most and at least', () => {
    const [first] = findFinals(quick);
    const { timeS, topMps, crawlRatio } = first?.figures ?? { timeS: 0, topMps: 0, crawlRatio: 0 };
    const missedBy = (limits: FindProblem['limits']): number =>
      findFinals({ ...quick, limits }).find(({ ratio }) => ratio === first?.ratio)?.missed ?? Number.NaN;
    expect(missedBy({ timeS: timeS + 0.001, topMps: topMps - 0.001, crawlRatio: crawlRatio - 0.001 })).toBe(0);
    expect(missedBy({ timeS: timeS / 1.1 })).toBeCloseTo(0.1, 9);
    expect(missedBy({ topMps: topMps / 0.9 })).toBeCloseTo(0.1, 9);
    expect(missedBy({ crawlRatio: crawlRatio / 0.8, topMps: topMps / 0.9 })).toBeCloseTo(0.3, 9);
  });

  it('on the front is who is beaten by nobody in all that is asked: by brute force', () => {
    const limits = { cruiseRpm: 2300, topMps: 40 };
    const ranked = findFinals({ ...quick, limits });
    const open = ranked.filter(({ verdict }) => verdict !== 'stop');
    const costs = ({ figures }: (typeof ranked)[number]): number[] => [
      figures.timeS,
      figures.cruiseRpm ?? 0,
      -figures.topMps,
    ];
    for (const one of ranked) {
      const beaten = open.some((other) => {
        const [a, b] = [costs(other), costs(one)];
        const level = (i: number): number => 0.005 * Math.abs(b[i] ?? 0);
        return (
          a.every((cost, i) => cost <= (b[i] ?? 0) + level(i)) && a.some((cost, i) => cost < (b[i] ?? 0) - level(i))
        );
      });
      expect(one.onFront)
        .withContext(String(one.ratio))
        .toBe(one.verdict !== 'stop' && !beaten);
    }
    expect(ranked.some(({ onFront }) => onFront)).toBeTrue();
  });

  it('the top speed is where thrust meets what resists, or the limiter', () => {
    const car = readyCar(TRUCK.vehicle);
    const top = topSpeed(car);
    const best = Math.max(...car.gears.map((gear) => (top <= gear.limitMps ? car.acceleration(top, gear) : -1)));
    expect(best).toBeGreaterThanOrEqual(-1e-6);
    for (const gear of car.gears)
      if (top + 0.01 <= gear.limitMps) expect(car.acceleration(top + 0.01, gear)).toBeLessThan(0);
    // so much power that only the limiter ends it: v = ω·r/i [exact]
    const light = readyCar({
      ...TRUCK.vehicle,
      aero: { dragAreaM2: 0.05 },
      massKg: 800,
      rollingCoefficient: 0.005,
      gears: [2],
    });
    expect(topSpeed(light)).toBeCloseTo(light.gears[0]?.limitMps ?? 0, 9);
    expect(topSpeed(readyCar({ ...TRUCK.vehicle, gradePercent: 15 }))).toBeLessThan(top);
  });

  it('the goal over any ratio is what a set of that ratio would score; ratios that do not move off are left out', () => {
    const curve = goalOverRatio(quick);
    expect(curve.length).toBeGreaterThan(10);
    expect(curve[0]?.ratio).toBeCloseTo(4.1 / 1.35, 9);
    expect(curve.at(-1)?.ratio).toBeCloseTo(4.1 * 1.35, 9);
    curve.slice(1).forEach(({ ratio }, i) => expect(ratio).toBeGreaterThan(curve[i]?.ratio ?? 0));
    // the present ratio lies in its middle: the same as the candidate 41/10
    const present = findFinals(quick).find(({ ratio }) => Math.abs(ratio - 4.1) < 1e-9);
    expect(curve[8]?.score).toBeCloseTo(present?.score ?? Number.NaN, 9);
    const steep = { ...quick, vehicle: { ...quick.vehicle, gradePercent: 100 } };
    expect(goalOverRatio(steep)).toEqual([]);
  });

  it('refuses limits that are none, by their field', () => {
    for (const [field, limits] of [
      ['limits.cruiseRpm', { cruiseRpm: 0 }],
      ['limits.timeS', { timeS: -1 }],
      ['limits.topMps', { topMps: Number.NaN }],
      ['limits.crawlRatio', { crawlRatio: 0 }],
    ] as const)
      expect(() => findFinals({ ...quick, limits })).toThrowMatching((error) => error.field === field);
    // a limit that nothing can be held against is no limit that is kept
    const { cruiseMps: _, ...nowhere } = quick;
    expect(() => findFinals({ ...nowhere, limits: { cruiseRpm: 2500 } })).toThrowMatching(
      (error) => error.field === 'cruiseMps',
    );
  });
});
