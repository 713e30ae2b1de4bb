import fc from 'fast-check';
import { enginePower, engineTorque, powerTorque } from './engine-torque';
import { motorCurve, quickCurve } from './quick-curve';

describe('road: a curve from two peaks', () => {
  const peaks = { peakTorqueNm: 480, peakTorqueRpm: 4800, peakPowerW: 296_000, peakPowerRpm: 6600, limitRpm: 7400 };

  it('goes through both peaks, rpm ascending up to the limiter', () => {
    const curve = quickCurve(peaks);
    expect(engineTorque(curve, 4800)).toBe(480);
    expect(enginePower(engineTorque(curve, 6600), 6600)).toBeCloseTo(296_000, -1);
    expect(curve.at(-1)?.rpm).toBe(7400);
    curve.slice(1).forEach((point, i) => expect(point.rpm).toBeGreaterThan(curve[i]?.rpm ?? 0));
    expect(Math.max(...curve.map((point) => point.torqueNm))).toBe(480);
  });

  it('meets both peaks and exceeds neither, torque falling in between (property)', () => {
    // The sheet's own two peaks are all that is known [exact]. The parabola of before gave 391 kW for a sheet of 370.
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        number(80, 1200),
        fc.integer({ min: 1200, max: 6000 }),
        number(1.05, 3),
        number(1e-6, 1 - 1e-6),
        number(1, 1.4),
        (peakTorqueNm, peakTorqueRpm, wider, share, limit) => {
          const peakPowerRpm = Math.round(peakTorqueRpm * wider);
          const torque = peakTorqueNm * (share + ((1 - share) * peakTorqueRpm) / peakPowerRpm);
          const peakPowerW = enginePower(torque, peakPowerRpm);
          const limitRpm = Math.round(peakPowerRpm * limit);
          const curve = quickCurve({ peakTorqueNm, peakTorqueRpm, peakPowerW, peakPowerRpm, limitRpm });
          expect(engineTorque(curve, peakTorqueRpm)).toBeCloseTo(peakTorqueNm, 9);
          expect(enginePower(engineTorque(curve, peakPowerRpm), peakPowerRpm) / peakPowerW).toBeCloseTo(1, 9);
          let before = Number.POSITIVE_INFINITY;
          // One judgement a curve: what is worst of 401 places.
          let [torqueOver, powerOver, risesBy] = [-Infinity, -Infinity, -Infinity];
          for (let i = 0; i <= 400; i++) {
            const rpm = (limitRpm * i) / 400;
            const here = engineTorque(curve, rpm);
            torqueOver = Math.max(torqueOver, here / peakTorqueNm);
            powerOver = Math.max(powerOver, enginePower(here, rpm) / peakPowerW);
            if (rpm < peakTorqueRpm) continue;
            risesBy = Math.max(risesBy, here - before);
            before = here;
          }
          expect(torqueOver).toBeLessThanOrEqual(1 + 1e-12);
          expect(powerOver).toBeLessThanOrEqual(1 + 1e-9);
          expect(risesBy).toBeLessThanOrEqual(1e-9);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('refuses a power that the torque can’t make, and says what it could', () => {
    // 480 N·m at 6600 rpm is 331.8 kW [exact]
    expect(() => quickCurve({ ...peaks, peakPowerW: 340_000 })).toThrowMatching(
      (error) => error.field === 'peakPowerW' && error.allowed.includes('331.8 kW'),
    );
    expect(() => quickCurve({ ...peaks, peakPowerW: 100_000 })).toThrowError(/peakPowerW/);
    expect(() => quickCurve({ ...peaks, peakPowerRpm: 4000 })).toThrowError(/peakPowerRpm/);
    expect(() => quickCurve({ ...peaks, limitRpm: 5000 })).toThrowError(/limitRpm/);
    expect(() => quickCurve({ ...peaks, peakTorqueNm: Number.NaN })).toThrowError(/peakTorqueNm/);
  });
});

describe('road: the curve of a motor', () => {
  it('has constant torque, then constant power', () => {
    const curve = motorCurve({ peakTorqueNm: 310, peakPowerW: 150_000, limitRpm: 14_500 });
    const base = (60 * 150_000) / (2 * Math.PI * 310); // where they meet [exact]
    expect(curve[1]?.rpm).toBeCloseTo(base, 6);
    expect(engineTorque(curve, 2000)).toBe(310);
    for (const { rpm, torqueNm } of curve.slice(1)) expect(enginePower(torqueNm, rpm)).toBeCloseTo(150_000, 4);
    // between neighbours at most 1.15 apart the chord lies at most (2 + 1.15 + 1/1.15)/4 − 1 = 0.49 % above [exact]
    for (let rpm = 4700; rpm < 14_500; rpm += 37)
      expect(enginePower(engineTorque(curve, rpm), rpm)).toBeLessThan(150_000 * 1.0049);
  });

  it('refuses a base speed at which torque and power don’t meet', () => {
    expect(() =>
      motorCurve({ peakTorqueNm: 310, baseRpm: 8000, peakPowerW: 150_000, limitRpm: 14_500 }),
    ).toThrowMatching((error) => error.field === 'baseRpm' && /meet at 4621 rpm/.test(error.message));
    expect(motorCurve({ peakTorqueNm: 100, peakPowerW: 150_000, limitRpm: 9000 }).length).toBe(2);
  });

  it('torque and power are each other’s inverse', () => {
    expect(enginePower(powerTorque(88_000, 5200), 5200)).toBeCloseTo(88_000, 8);
  });
});
