import fc from 'fast-check';
import { gearLadder } from './ladder';
import { axialForce, balancingHelixDeg, reduction, type ReductionStage } from './reduction';

/**
 * Axial forces by vectors, apart from the code: shafts along +x, away from whoever looks from the motor. A shaft that turns clockwise for
 * them turns about +x. At the contact (y) the driver moves its tooth by ω × y; the flank's trace is (cos β, 0, ±sin β), + for a right
 * hand; the force on the driven tooth is at a right angle to it, on the side that the tooth moves to.
 */
function byVectors(stages: readonly ReductionStage[], torqueNm: number): number[] {
  const forces = Array.from({ length: stages.length + 1 }, () => 0);
  let [turns, torque] = [1, torqueNm];
  stages.forEach(({ driver, driven, normalModuleMm = 0, helixDeg = 0, driverHand }, i) => {
    const beta = (helixDeg * Math.PI) / 180;
    const hand = driverHand === 'left' ? -1 : 1;
    const trace = [Math.cos(beta), 0, hand * Math.sin(beta)] as const;
    const moves = [0, 0, turns] as const;
    let normal = [-trace[2], 0, trace[0]];
    const ahead = normal.reduce((sum, one, k) => sum + one * (moves[k] as number), 0);
    if (ahead < 0) normal = normal.map((one) => -one);
    const radius = (normalModuleMm * driver) / Math.cos(beta) / 2000;
    const size = torque / radius / Math.abs(normal[2] as number);
    const onDriven = size * (normal[0] as number);
    forces[i + 1] = (forces[i + 1] as number) + onDriven;
    forces[i] = (forces[i] as number) - onDriven;
    torque *= driven / driver;
    turns = -turns;
  });
  return forces;
}

const unit: ReductionStage[] = [
  { driver: 31, driven: 71, normalModuleMm: 1.7, helixDeg: 30, driverHand: 'right' },
  { driver: 19, driven: 71, normalModuleMm: 2.3, helixDeg: 20, driverHand: 'left' },
];
const OF = { stages: unit, motorLimitRpm: 14_500, rollingCircumferenceMm: 1900 };

describe('box: reductions and ladders', () => {
  it('ratio and speed at the motor’s limit [exact]', () => {
    const { ratio, speedAtLimitKmh, thrustsN } = reduction(OF);
    expect(ratio).toBeCloseTo((71 / 31) * (71 / 19), 12);
    expect(speedAtLimitKmh).toBeCloseTo((14_500 * 1.9 * 60) / ratio / 1000, 9);
    expect(thrustsN).toBeNull();
  });

  it('a right-hand driver that turns clockwise is pushed away from the motor; its driven gear towards it; left the other way', () => {
    const one = (driverHand: 'right' | 'left') =>
      reduction({ ...OF, stages: [{ ...unit[0], driver: 31, driven: 71, driverHand }], torqueNm: 100 }).thrustsN ?? [];
    expect(one('right')[0]).toBeGreaterThan(0);
    expect(one('right')[1]).toBeCloseTo(-(one('right')[0] ?? 0), 9);
    expect(one('left')[0]).toBeCloseTo(-(one('right')[0] ?? 0), 9);
    // F_t·tan β with d = m·z ÷ cos β [exact]
    const beta = Math.PI / 6;
    expect(one('right')[0]).toBeCloseTo((2 * 100 * Math.tan(beta) * Math.cos(beta)) / (0.0017 * 31), 6);
  });

  it('every shaft as a calculation by vectors has it, and all of them together are nought', () => {
    const hand = fc.constantFrom('right' as const, 'left' as const);
    const stage = fc.record({
      driver: fc.integer({ min: 12, max: 40 }),
      driven: fc.integer({ min: 20, max: 90 }),
      normalModuleMm: fc.double({ min: 1, max: 4, noNaN: true }),
      helixDeg: fc.double({ min: 0, max: 40, noNaN: true }),
      driverHand: hand,
    });
    fc.assert(
      fc.property(fc.array(stage, { minLength: 1, maxLength: 4 }), (stages) => {
        // more than that is no reduction, and is refused
        fc.pre(stages.reduce((ratio, one) => (ratio * one.driven) / one.driver, 1) <= 200);
        const found = reduction({ ...OF, stages, torqueNm: 120 }).thrustsN ?? [];
        const apart = byVectors(stages, 120);
        const most = Math.max(1, ...apart.map(Math.abs));
        found.forEach((force, i) => expect(Math.abs(force - (apart[i] ?? Number.NaN)) / most).toBeLessThan(1e-9));
        expect(Math.abs(found.reduce((sum, force) => sum + force, 0)) / most).toBeLessThan(1e-9);
      }),
      { numRuns: 200 },
    );
  });

  it('a layshaft of one hand: equal leads cancel its thrust [exact, handbook 14.1]', () => {
    const helix = balancingHelixDeg(
      { normalModuleMm: 1.7, teeth: 71, helixDeg: 30 },
      { normalModuleMm: 2.3, teeth: 19 },
    );
    // driven left, driving left: stage 1 has a right-hand driver, stage 2 a left-hand one
    const balanced = reduction({
      ...OF,
      stages: [unit[0] as ReductionStage, { ...(unit[1] as ReductionStage), helixDeg: helix ?? Number.NaN }],
      torqueNm: 200,
    }).thrustsN;
    expect(Math.abs(balanced?.[1] ?? 1)).toBeLessThan(1e-6);
    const lead = (module: number, teeth: number, deg: number): number =>
      (Math.PI * module * teeth) / Math.sin((deg * Math.PI) / 180);
    expect(lead(2.3, 19, helix ?? 0)).toBeCloseTo(lead(1.7, 71, 30), 9);
    expect(
      balancingHelixDeg({ normalModuleMm: 1, teeth: 15, helixDeg: 40 }, { normalModuleMm: 3, teeth: 60 }),
    ).toBeNull();
  });

  it('straight-cut has no thrust, without hands', () => {
    expect(axialForce({ normalModuleMm: 2, helixDeg: 0 }, 20, 100)).toBe(0);
    const stages = [{ driver: 20, driven: 40, normalModuleMm: 2, helixDeg: 0 }];
    expect(reduction({ ...OF, stages, torqueNm: 100 }).thrustsN).toEqual([0, 0]);
  });

  it('a ladder: ratios, steps, speeds and rpm after the shift, with an input pair in every gear', () => {
    const of = {
      pairs: [
        { driver: 14, driven: 39 },
        { driver: 18, driven: 36 },
        { driver: 22, driven: 34 },
      ],
      finalRatio: 3.636,
      limitRpm: 10_200,
      rollingCircumferenceMm: 1700,
    };
    const [low, second, top] = gearLadder(of);
    expect(low?.ratio).toBeCloseTo(39 / 14, 12);
    expect(low?.stepTo).toBeCloseTo(39 / 14 / 2, 12);
    expect(low?.rpmAfterShift).toBeCloseTo((10_200 * 2) / (39 / 14), 9);
    expect(second?.speedAtLimitKmh).toBeCloseTo((10_200 * 1.7 * 60) / (2 * 3.636) / 1000, 9);
    expect([top?.stepTo, top?.rpmAfterShift]).toEqual([null, null]);
    const [geared] = gearLadder({ ...of, inputPair: { driver: 20, driven: 25 } });
    expect(geared?.ratio).toBeCloseTo((1.25 * 39) / 14, 12);
  });

  it('refuses by the field', () => {
    const ladder = { finalRatio: 4, limitRpm: 9000, rollingCircumferenceMm: 1700 };
    const rising = [
      { driver: 20, driven: 30 },
      { driver: 20, driven: 30 },
    ];
    const cases: readonly (readonly [string, () => unknown])[] = [
      ['pairs[1]', () => gearLadder({ ...ladder, pairs: rising })],
      ['pairs', () => gearLadder({ ...ladder, pairs: Array.from({ length: 13 }, () => ({ driver: 20, driven: 30 })) })],
      ['pairs[0].driver', () => gearLadder({ ...ladder, pairs: [{ driver: 0, driven: 30 }] })],
      ['stages', () => reduction({ ...OF, stages: [] })],
      ['stages', () => reduction({ ...OF, stages: Array.from({ length: 3 }, () => ({ driver: 10, driven: 70 })) })],
      [
        'pairs[0]',
        () => gearLadder({ ...ladder, pairs: [{ driver: 3, driven: 300 }], inputPair: { driver: 3, driven: 30 } }),
      ],
      [
        'stages[0].helixDeg',
        () => reduction({ ...OF, stages: [{ driver: 20, driven: 40, normalModuleMm: 2 }], torqueNm: 1 }),
      ],
      [
        'stages[0].driverHand',
        () => reduction({ ...OF, stages: [{ driver: 20, driven: 40, normalModuleMm: 2, helixDeg: 9 }], torqueNm: 1 }),
      ],
      [
        'stages[0].helixDeg',
        () => reduction({ ...OF, stages: [{ ...unit[0], driver: 20, driven: 40, helixDeg: 90 }], torqueNm: 1 }),
      ],
    ];
    for (const [field, run] of cases)
      expect(run)
        .withContext(field)
        .toThrowMatching((error) => error.field === field);
  });
});
