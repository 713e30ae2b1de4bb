import fc from 'fast-check';
import { InputError } from '../base/errors';
import { biasRatio, lockingValue, wheelTorques } from './bias';
import { rampFrictionShare, rampFromRotationPlane, rampLockCoefficient, rampThrust, solidRampAngle } from './ramp';
import { lockAt, preloadThat, unitLock } from './unit-lock';

const unit = { frictionCoefficient: 0.1, interfacesPerPack: 6, meanRadiusMm: 45, pinRadiusMm: 30 };
const ramp = (angleDeg: number) => ({ angleDeg, from: 'rotation-plane' as const });

describe('unit: bias', () => {
  it('TBR 3 ⇔ S 50 %', () => {
    expect(biasRatio(0.5)).toBe(3); // [exact]
    expect(lockingValue(3)).toBe(0.5);
  });

  it('round-trips locking value ↔ bias ratio (property)', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.999, noNaN: true }), (s) => {
        expect(Math.abs(lockingValue(biasRatio(s)) - s)).toBeLessThan(1e-12);
      }),
    );
  });

  it('splits the input torque without making any (property)', () => {
    const torque = fc.double({ min: 0, max: 5000, noNaN: true });
    fc.assert(
      fc.property(torque, torque, (input, lock) => {
        const { slowNm, fastNm } = wheelTorques(input, lock);
        expect(slowNm + fastNm).toBeCloseTo(input, 9);
        expect(fastNm).toBeGreaterThanOrEqual(0);
        expect(slowNm - fastNm).toBeCloseTo(Math.min(lock, input), 9);
      }),
    );
  });
});

describe('unit: ramps', () => {
  it('reproduces the three angles of docs/unit.md', () => {
    // μ 0.10, n 6, r_m 45 mm, r_p 30 mm [exact]
    expect(rampLockCoefficient({ ...unit, ramp: ramp(45) })).toBeCloseTo(0.9, 12);
    expect(rampLockCoefficient({ ...unit, ramp: ramp(60) })).toBeCloseTo(0.52, 3);
    expect(rampLockCoefficient({ ...unit, ramp: ramp(30) })).toBeCloseTo(1.559, 3);
  });

  it('reads the complement for makers who quote from the axis', () => {
    const fromAxis = rampLockCoefficient({ ...unit, ramp: { angleDeg: 30, from: 'axis' } });
    expect(fromAxis).toBeCloseTo(rampLockCoefficient({ ...unit, ramp: ramp(60) }), 12); // 90° − 30° [exact]
  });

  it('locks nothing at 90° and refuses 0°', () => {
    expect(rampLockCoefficient({ ...unit, ramp: ramp(90) })).toBe(0);
    expect(rampThrust(400, 30, ramp(90))).toBe(0);
    expect(() => rampFromRotationPlane(ramp(0))).toThrowMatching(
      (e) => e instanceof InputError && e.field === 'ramp.angleDeg',
    );
    expect(() => rampFromRotationPlane({ angleDeg: 90, from: 'axis' })).toThrowError(/without limit/);
  });

  it('gives a thrust of T/(2·r·tan α)', () => {
    expect(rampThrust(600, 30, ramp(45))).toBeCloseTo(10000, 6); // 600/(2·0.03·1) [exact]
  });

  it('finds the angle at which the unit just locks solid (property)', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.2, noNaN: true }), fc.integer({ min: 2, max: 16 }), (mu, n) => {
        const plate = { ...unit, frictionCoefficient: mu, interfacesPerPack: n };
        const angleDeg = solidRampAngle(plate);
        expect(rampLockCoefficient({ ...plate, ramp: ramp(angleDeg) })).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('unit: lock', () => {
  it('reproduces the worked example of the calculation list', () => {
    // series: max(60, 0.5196·400) = 207.85; S 0.5196; TBR 3.163 [exact, statics of the pressure ring]
    const series = unitLock({ ...unit, ramp: ramp(60) }, preloadThat('series', 60), 400);
    expect(series.lockNm).toBeCloseTo(207.846, 3);
    expect(series.lockingValue).toBeCloseTo(0.5196, 4);
    expect(series.biasRatio).toBeCloseTo(3.163, 3);
    expect(series.solid).toBe(false);
    // parallel: 60 + 0.5196·400 = 267.85; TBR 5.054 [exact]
    const parallel = unitLock({ ...unit, ramp: ramp(60) }, preloadThat('parallel', 60), 400);
    expect(parallel.lockNm).toBeCloseTo(267.846, 3);
    expect(parallel.biasRatio).toBeCloseTo(5.054, 3);
  });

  it('at little torque springs in series hold what they hold, and let slip what is above', () => {
    // 100 N·m: max(60, 52) = 60, S 0.6, TBR 4.0 [exact]; added up it would be solid
    const at = unitLock({ ...unit, ramp: ramp(60) }, preloadThat('series', 60), 100);
    expect(at.lockNm).toBe(60);
    expect(at.biasRatio).toBeCloseTo(4, 12);
    expect(at.solid).toBe(false);
    expect(unitLock({ ...unit, ramp: ramp(60) }, preloadThat('parallel', 60), 100).solid).toBe(true);
    // both kinds: the larger of T_series and T_parallel + k·T [exact]
    expect(unitLock({ ...unit, ramp: ramp(60) }, { seriesNm: 150, parallelNm: 60 }, 100).lockNm).toBe(150);
    expect(unitLock({ ...unit, ramp: ramp(60) }, { seriesNm: 100, parallelNm: 60 }, 100).lockNm).toBeCloseTo(111.96, 2);
  });

  it('friction on the ramp takes its part of the axial force', () => {
    // cot(α + ρ)/cot α, μ = tan ρ = 0.10: −18 % at 45°, −22 % at 60° [exact]
    expect(rampFrictionShare(ramp(45), 0.1)).toBeCloseTo(0.818, 3);
    expect(rampFrictionShare(ramp(60), 0.1)).toBeCloseTo(0.782, 3);
    expect(rampFrictionShare(ramp(60), 0)).toBe(1);
    expect(rampFrictionShare(ramp(85), 0.1)).toBe(0); // the pin sticks on so flat a ramp
    const with01 = unitLock({ ...unit, ramp: ramp(45), rampFriction: 0.1 }, preloadThat('series', 0), 1000);
    // pushed up the ramp: axial per tangential force is (cos α − μ·sin α)/(sin α + μ·cos α) [exact, friction circle]
    expect(with01.lockNm).toBeCloseTo((900 * (1 - 0.1)) / (1 + 0.1), 6);
    expect(rampThrust(600, 30, ramp(45), 0.1)).toBeCloseTo((10000 * 0.9) / 1.1, 6);
    const plate = { ...unit, rampFriction: 0.1 };
    expect(rampLockCoefficient({ ...plate, ramp: ramp(solidRampAngle(plate)) })).toBeCloseTo(1, 9);
    expect(() => rampFrictionShare(ramp(45), -0.1)).toThrowMatching((e) => e.field === 'rampFriction');
  });

  it('is solid at any torque with ramps of 30°', () => {
    expect(unitLock({ ...unit, ramp: ramp(30) }, 0, 5000).solid).toBe(true);
    expect(unitLock({ ...unit, ramp: ramp(30) }, 0, 5000).biasRatio).toBeNull();
    expect(unitLock({ ...unit, ramp: ramp(60) }, 60, 50).solid).toBe(true);
    expect(lockAt(0, 60).lockingValue).toBeNull();
    expect(lockAt(0, 0).solid).toBe(false);
    expect(lockAt(400, 0).biasRatio).toBe(1);
  });

  it('agrees with the wheel torques (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        fc.double({ min: 0, max: 0.99, noNaN: true }),
        (input, share) => {
          const lock = lockAt(input, input * share);
          const { slowNm, fastNm } = wheelTorques(input, lock.lockNm);
          expect((lock.biasRatio ?? 0) / (slowNm / fastNm)).toBeCloseTo(1, 8);
        },
      ),
    );
  });
});
