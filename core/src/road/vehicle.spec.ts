import fc from 'fast-check';
import { growthFactor } from '../gearing/corrections';
import { GRAVITY, bestShiftSpeed, readyCar, wongInertiaFactor, type Vehicle } from './vehicle';

const CAR: Vehicle = {
  massKg: 1200,
  engine: {
    torqueCurve: [
      { rpm: 1000, torqueNm: 150 },
      { rpm: 4000, torqueNm: 250 },
      { rpm: 7000, torqueNm: 180 },
    ],
    limitRpm: 7000,
  },
  gears: [3, 2, 1.4, 1],
  finalRatio: 4,
  driveline: { efficiency: 0.9, inertiaFactor: 'wong' },
  tyre: { rollingRadiusMm: 300, grip: 1 },
  aero: { dragAreaM2: 0.7, airDensity: 1.2 },
  rollingCoefficient: 0.012,
  driven: { staticShare: 0.5, cgHeightMm: 500, wheelbaseMm: 2500 },
  launchRpm: 3000,
};
const gearOf = (vehicle: Vehicle, index: number) => {
  const gear = readyCar(vehicle).gears[index];
  if (!gear) throw new Error('no such gear');
  return gear;
};

describe('road: a vehicle made ready', () => {
  it('puts torque to the tyre by ratio, efficiency and radius', () => {
    const third = gearOf(CAR, 2);
    const speed = ((4000 * 2 * Math.PI) / 60 / (1.4 * 4)) * 0.3;
    expect(third.rpm(speed)).toBeCloseTo(4000, 9);
    expect(third.engineThrust(speed)).toBeCloseTo((250 * 1.4 * 4 * 0.9) / 0.3, 9); // T·i·η/r [exact]
    expect(third.limitMps).toBeCloseTo(((7000 * 2 * Math.PI) / 60 / 5.6) * 0.3, 9);
  });

  it('holds the launch rpm in first gear only', () => {
    expect(gearOf(CAR, 0).rpm(0)).toBe(3000);
    expect(gearOf(CAR, 1).rpm(0)).toBe(0);
    const torque = 150 + (100 * 2000) / 3000;
    expect(gearOf(CAR, 0).engineThrust(0)).toBeCloseTo((torque * 12 * 0.9) / 0.3, 9);
  });

  it('resists with drag, rolling and slope', () => {
    const car = readyCar({ ...CAR, gradePercent: 10 });
    const angle = Math.atan(0.1);
    const weight = 1200 * GRAVITY;
    // ½ρC_dA·v² + C_rr·W·cosθ + W·sinθ [exact, docs/road.md]
    expect(car.resistance(30)).toBeCloseTo(
      0.5 * 1.2 * 0.7 * 900 + 0.012 * weight * Math.cos(angle) + weight * Math.sin(angle),
      6,
    );
  });

  it('grips by its own load transfer: F = μ·(N₀ + m·a·h/L)', () => {
    const car = readyCar(CAR);
    const gear = gearOf(CAR, 0);
    const force = car.gripThrust(0, gear);
    const acceleration = (force - car.resistance(0)) / gear.inertiaKg;
    const load = 0.5 * 1200 * GRAVITY + (1200 * acceleration * 500) / 2500;
    expect(force).toBeCloseTo(load, 6); // μ = 1
  });

  it('never grips with more than the whole weight, nor less than nothing', () => {
    const tall = readyCar({ ...CAR, driven: { staticShare: 0.9, cgHeightMm: 2400, wheelbaseMm: 2500 } });
    expect(tall.gripThrust(0, gearOf(CAR, 0))).toBeCloseTo(1200 * GRAVITY, 6);
    const front = readyCar({ ...CAR, driven: { staticShare: 0.1, cgHeightMm: 900, wheelbaseMm: 2500, axle: 'front' } });
    expect(front.gripThrust(0, gearOf(CAR, 0))).toBeGreaterThanOrEqual(0);
  });

  it('presses down with the square of speed', () => {
    const car = readyCar({
      ...CAR,
      aero: { dragAreaM2: 0.7, airDensity: 1.2, downforceAreaM2: 3 },
      driven: { ...CAR.driven, cgHeightMm: 0 },
    });
    const plain = readyCar({ ...CAR, driven: { ...CAR.driven, cgHeightMm: 0 } });
    const gear = gearOf(CAR, 0);
    expect(car.gripThrust(40, gear) - plain.gripThrust(40, gear)).toBeCloseTo(0.5 * 0.5 * 1.2 * 3 * 1600, 6);
  });

  it('a growing tyre turns slower and pushes less at speed', () => {
    const growth = { share: 0.05, speedMps: 60 };
    const grown = gearOf({ ...CAR, tyre: { ...CAR.tyre, growth } }, 3);
    const plain = gearOf(CAR, 3);
    expect(grown.rpm(50) * growthFactor(growth, 50)).toBeCloseTo(plain.rpm(50), 6);
    expect(grown.limitMps).toBeGreaterThan(plain.limitMps);
    expect(grown.rpm(grown.limitMps)).toBeCloseTo(7000, 6);
  });

  it('lists the bends of its thrust, ascending and below the limiter', () => {
    for (const index of [0, 1, 2, 3]) {
      const gear = gearOf(CAR, index);
      const sorted = [...gear.kinks].sort((a, b) => a - b);
      expect(gear.kinks).toEqual(sorted);
      for (const kink of gear.kinks) expect(kink > 0 && kink < gear.limitMps).toBeTrue();
    }
  });

  it('a converter’s slip lowers the speed at the limiter', () => {
    const converter = { stallRpm: 2000, torqueRatio: 2, couplingRatio: 0.88, slip: 0.05 };
    expect(gearOf({ ...CAR, converter }, 3).limitMps).toBeCloseTo(gearOf(CAR, 3).limitMps / 1.05, 9);
  });

  it('weighs its rotating parts by the total ratio, or as it is told', () => {
    expect(gearOf(CAR, 0).inertiaKg).toBeCloseTo(1200 * wongInertiaFactor(12), 9);
    const told: Vehicle = { ...CAR, driveline: { efficiency: 0.9, inertiaFactor: 1.1 } };
    expect(gearOf(told, 0).inertiaKg).toBeCloseTo(1320, 9);
  });
});

describe('road: where to shift', () => {
  it('where the thrusts meet, never past the limiter, for any curve', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(fc.array(number(50, 400), { minLength: 3, maxLength: 8 }), number(1.05, 2.2), (torques, step) => {
        const torqueCurve = torques.map((torqueNm, i) => ({ rpm: 1500 + 900 * i, torqueNm }));
        const limitRpm = torqueCurve.at(-1)?.rpm ?? 0;
        const car = readyCar({ ...CAR, engine: { torqueCurve, limitRpm }, gears: [2 * step, 2] });
        const [gear, next] = car.gears;
        if (!gear || !next) throw new Error('two gears');
        const speed = bestShiftSpeed(gear, next);
        expect(speed).toBeLessThanOrEqual(gear.limitMps);
        expect(speed).toBeGreaterThan(0);
        // just above the shift the next gear pulls at least as hard, up to the limiter
        if (speed < gear.limitMps * 0.999) {
          for (const share of [0.01, 0.5, 0.99]) {
            const above = speed + share * (gear.limitMps - speed);
            expect(next.engineThrust(above)).toBeGreaterThanOrEqual(gear.engineThrust(above) * (1 - 1e-9));
          }
        }
      }),
      { numRuns: 200 },
    );
  });
});
