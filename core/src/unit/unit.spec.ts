import fc from 'fast-check';
import { InputError } from '../errors';
import { biasRatio, lockingValue, wheelTorques } from './bias';
import { rampFromRotationPlane, rampLockCoefficient, rampThrust, solidRampAngle } from './ramp';
import { lockAt, unitLock } from './unit-lock';

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
    // 60 + 0.5196·400 = 267.85; S 0.6696; TBR 5.054 [exact]
    const lock = unitLock({ ...unit, ramp: ramp(60) }, 60, 400);
    expect(lock.lockNm).toBeCloseTo(267.846, 3);
    expect(lock.lockingValue).toBeCloseTo(0.6696, 4);
    expect(lock.biasRatio).toBeCloseTo(5.054, 3);
    expect(lock.solid).toBe(false);
  });

  it('is solid at any torque with ramps of 30°, and on preload alone at little torque', () => {
    expect(unitLock({ ...unit, ramp: ramp(30) }, 0, 5000).solid).toBe(true);
    expect(unitLock({ ...unit, ramp: ramp(30) }, 0, 5000).biasRatio).toBeNull();
    expect(unitLock({ ...unit, ramp: ramp(60) }, 60, 100).solid).toBe(true);
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
