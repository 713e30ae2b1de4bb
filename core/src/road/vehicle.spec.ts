import { GRAVITY } from './limits';
import fc from 'fast-check';
import { growthFactor } from '../gearing/corrections';
import { InputError } from '../base/errors';
import { converterPeakEfficiency, converterPoint, mostTorqueRatio, requireConverter } from './converter';
import { bestShiftSpeed, readyCar, wongInertiaFactor, type Push, type Vehicle } from './vehicle';

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
    const push: Push = { mps2: 0, limit: 'engine', factor: 0, thrustN: 0, contactN: 0, rollingN: 0 };
    car.push(2, gearOf(CAR, 0), push);
    expect(push.limit).toBe('tyre');
    const drag = 0.5 * 1.2 * 0.7 * 4;
    // drag pulls at the height of the centre of gravity unless told
    const load = 0.5 * 1200 * GRAVITY + ((1200 * push.mps2 + drag) * 500) / 2500;
    expect(push.contactN).toBeCloseTo(load, 6); // μ = 1
    expect(car.gripThrust(2)).toBeCloseTo(load, 6);
    // only the undriven wheels still roll against it [exact]
    expect(push.rollingN).toBeCloseTo(0.012 * (1200 * GRAVITY - load), 6);
    expect(1200 * 1.02 * push.mps2).toBeCloseTo(load - drag - push.rollingN, 6);
  });

  it('moves load by drag at its own height', () => {
    const at = (dragHeightMm: number) => readyCar({ ...CAR, aero: { dragAreaM2: 0.7, dragHeightMm } }).gripThrust(40);
    // (μ + C_rr)·ΔN + μ·transfer of the larger acceleration, through λ_f − (μ + C_rr)·h/L [exact, equilibrium]
    const moved = (0.5 * 1.2 * 0.7 * 1600 * 0.6) / 2.5;
    const gained = 1 + ((1.012 * 500) / 2500) * (1 / (1.02 - (1.012 * 500) / 2500));
    expect(at(900) - at(300)).toBeCloseTo(moved * gained, 6);
  });

  it('never grips with more than the whole weight, nor less than nothing', () => {
    const tall = { ...CAR, driven: { staticShare: 0.9, cgHeightMm: 2400, wheelbaseMm: 2500 } };
    expect(readyCar(tall).gripThrust(0)).toBeCloseTo(1200 * GRAVITY, 6);
    const push: Push = { mps2: 0, limit: 'engine', factor: 0, thrustN: 0, contactN: 0, rollingN: 0 };
    readyCar(tall).push(0, gearOf(tall, 0), push);
    expect(push.limit).toBe('wheelstand');
    expect(push.mps2).toBeCloseTo((GRAVITY * 0.1 * 2500) / 2400, 9); // g·b/h [exact]
    const front = readyCar({ ...CAR, driven: { staticShare: 0.1, cgHeightMm: 900, wheelbaseMm: 2500, axle: 'front' } });
    expect(front.gripThrust(0)).toBeGreaterThanOrEqual(0);
    const climbing = { ...CAR, gradePercent: 150, driven: { ...CAR.driven, axle: 'front' as const, cgHeightMm: 2000 } };
    expect(readyCar(climbing).gripThrust(0)).toBeGreaterThanOrEqual(0);
    expect(readyCar(climbing).acceleration(0, gearOf(climbing, 0))).toBeLessThan(0);
  });

  it('presses down with the square of speed', () => {
    const car = readyCar({
      ...CAR,
      aero: { dragAreaM2: 0.7, airDensity: 1.2, downforceAreaM2: 3 },
      driven: { ...CAR.driven, cgHeightMm: 0 },
    });
    const plain = readyCar({ ...CAR, driven: { ...CAR.driven, cgHeightMm: 0 } });
    expect(car.gripThrust(40) - plain.gripThrust(40)).toBeCloseTo(0.5 * 0.5 * 1.2 * 3 * 1600, 6);
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
      const sorted = [...gear.kinks()].sort((a, b) => a - b);
      expect(gear.kinks()).toEqual(sorted);
      for (const kink of gear.kinks()) expect(kink > 0 && kink < gear.limitMps).toBeTrue();
    }
  });

  it('a converter’s slip, a share of engine speed, lowers the speed at the limiter', () => {
    // s = 1 − n_turbine/n_engine: at 10 % the engine turns 1.111 times as fast [exact]
    const converter = { stallRpm: 2000, torqueRatio: 2, couplingRatio: 0.88, slip: 0.05 };
    expect(gearOf({ ...CAR, converter }, 3).limitMps).toBeCloseTo(gearOf(CAR, 3).limitMps * 0.95, 9);
  });

  it('weighs its rotating parts by the total ratio, or as it is told', () => {
    expect(gearOf(CAR, 0).inertiaKg).toBeCloseTo(1200 * wongInertiaFactor(12), 9);
    const told: Vehicle = { ...CAR, driveline: { efficiency: 0.9, inertiaFactor: 1.1 } };
    expect(gearOf(told, 0).inertiaKg).toBeCloseTo(1320, 9);
  });
});

describe('road: what is the limit decides which parts have to be spun up', () => {
  const at = (vehicle: Vehicle, speedMps: number, index = 0): Push => {
    const push: Push = { mps2: 0, limit: 'engine', factor: 0, thrustN: 0, contactN: 0, rollingN: 0 };
    readyCar(vehicle).push(speedMps, gearOf(vehicle, index), push);
    return push;
  };
  const sticky: Vehicle = { ...CAR, tyre: { ...CAR.tyre, grip: 50 }, driven: { ...CAR.driven, cgHeightMm: 0 } };

  it('λ_w while the clutch slips, λ while the engine is tied to the road [exact, Newton]', () => {
    const meet = ((3000 * Math.PI) / 30 / 12) * 0.3;
    const [below, above] = [at(sticky, meet * 0.5), at(sticky, meet * 1.01)];
    expect([below.limit, above.limit]).toEqual(['engine', 'engine']);
    expect(below.factor).toBeCloseTo(1.04, 12);
    expect(above.factor).toBeCloseTo(wongInertiaFactor(12), 12);
    expect(below.mps2 * 1.04 * 1200).toBeCloseTo(
      gearOf(sticky, 0).engineThrust(meet * 0.5) - readyCar(sticky).resistance(meet * 0.5),
      6,
    );
    // the contact force is what is left when the engine has been spun up: F_e − m·(λ − λ_f)·a
    // less the rolling resistance of the driven wheels, a moment that the axle pays (handbook 4.6)
    const share = sticky.driven.staticShare;
    const air = 0.5 * 1.2 * sticky.aero.dragAreaM2 * (meet * 1.01) ** 2;
    const height = (sticky.aero.dragHeightMm ?? sticky.driven.cgHeightMm) / sticky.driven.wheelbaseMm;
    const driven = share * 1200 * GRAVITY + air * height;
    expect(above.contactN).toBeCloseTo(
      above.thrustN - 1200 * (above.factor - 1.02) * above.mps2 - sticky.rollingCoefficient * driven,
      6,
    );
  });

  it('the clutch slips where it would have to pass more than its capacity', () => {
    const meet = ((3000 * Math.PI) / 30 / 12) * 0.3;
    const weak: Vehicle = { ...sticky, clutchCapacityNm: 120 };
    expect(at(weak, meet * 0.5).limit).toBe('clutch');
    expect(at(weak, meet * 0.5).thrustN).toBeCloseTo((120 * 12 * 0.9) / 0.3, 6); // T·i·η/r [exact]
    // closed, it carries the engine's torque less what spins up the engine: 200 of some 217 N·m hold here
    const carried = (vehicle: Vehicle): number => {
      const push = at(vehicle, meet * 1.01);
      return ((push.mps2 * 1.04 * 1200 + readyCar(vehicle).resistance(meet * 1.01)) * 0.3) / (12 * 0.9);
    };
    expect(carried(sticky)).toBeLessThan(200);
    expect(at({ ...sticky, clutchCapacityNm: 200 }, meet * 1.01).limit).toBe('engine');
    expect(carried({ ...sticky, clutchCapacityNm: 120 })).toBeCloseTo(120, 6);
  });

  it('never more than engine, clutch, tyre or wheelstand alone allow (property)', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        number(0.2, 3),
        number(0.1, 0.98),
        number(1, 900),
        number(0, 40),
        number(60, 400),
        (grip, share, h, v, cap) => {
          const vehicle: Vehicle = {
            ...CAR,
            tyre: { ...CAR.tyre, grip },
            driven: { staticShare: share, cgHeightMm: h, wheelbaseMm: 2500 },
            clutchCapacityNm: cap,
          };
          const push = at(vehicle, v, 1);
          const car = readyCar(vehicle);
          expect(push.contactN).toBeLessThanOrEqual(car.gripThrust(v) + 0.012 * 1200 * GRAVITY + 1e-6);
          expect(push.mps2).toBeLessThanOrEqual((GRAVITY * (1 - share) * 2.5) / Math.max(h / 1000, 1e-9) + 1e-6);
          // a car that slows down is pushed by what turns with its engine as well
          if (push.mps2 >= 0) expect(push.thrustN).toBeLessThanOrEqual(gearOf(vehicle, 1).engineThrust(v) + 1e-6);
          // the clutch carries what is behind it, not what spins up the engine
          expect(1200 * 1.04 * push.mps2 + car.resistance(v)).toBeLessThanOrEqual((cap * 8 * 0.9) / 0.3 + 1e-6);
        },
      ),
    );
  });

  const converter = { stallRpm: 2500, torqueRatio: 2, couplingRatio: 0.88 };
  const bad: [string, Vehicle, RegExp][] = [
    ['launchRpm', { ...CAR, launchRpm: 7001 }, /above the limiter/],
    ['converter.stallRpm', { ...CAR, converter: { ...converter, stallRpm: 8000 } }, /above the limiter/],
    ['clutchCapacityNm', { ...CAR, clutchCapacityNm: 0 }, /clutchCapacityNm/],
    ['aero.dragHeightMm', { ...CAR, aero: { dragAreaM2: 1, dragHeightMm: -1 } }, /dragHeightMm/],
    [
      'driveline.freeInertiaFactor',
      { ...CAR, driveline: { ...CAR.driveline, freeInertiaFactor: 0.9 } },
      /freeInertiaFactor/,
    ],
    // TR₀ 3.0, SR_c 0.9: torque ratio × speed ratio peaks at 1.0125 [exact]
    ['converter.torqueRatio', { ...CAR, converter: { ...converter, torqueRatio: 3, couplingRatio: 0.9 } }, /101\.25 %/],
  ];
  for (const [field, vehicle, says] of bad) {
    it(`refuses by name: ${field}`, () => {
      expect(() => readyCar(vehicle)).toThrowMatching((error) => error.field === field && says.test(error.message));
    });
  }
});

describe('road: converter', () => {
  it('never gives more than it gets, and says what would be allowed', () => {
    // TR₀²·SR_c/(4·(TR₀ − 1)) [exact]; against a fine search along the straight line
    for (const [torqueRatio, couplingRatio] of [
      [3, 0.9],
      [2.2, 0.85],
      [1.8, 0.9],
      [4, 0.6],
    ] as const) {
      const line = { stallRpm: 2500, torqueRatio, couplingRatio };
      let most = 0;
      for (let sr = 0; sr <= couplingRatio; sr += couplingRatio / 20_000)
        most = Math.max(most, sr * (torqueRatio - ((torqueRatio - 1) * sr) / couplingRatio));
      expect(converterPeakEfficiency(line)).toBeCloseTo(most, 6);
    }
    expect(converterPeakEfficiency({ stallRpm: 1, torqueRatio: 3, couplingRatio: 0.9 })).toBeCloseTo(1.0125, 12);
    const least = mostTorqueRatio(0.9);
    expect(converterPeakEfficiency({ stallRpm: 1, torqueRatio: least, couplingRatio: 0.9 })).toBeCloseTo(1, 12);
    expect(() => requireConverter({ stallRpm: 2500, torqueRatio: least, couplingRatio: 0.9 })).not.toThrow();
  });

  it('slip of the wheels turns the engine faster than the road, by 1/(1 − s) [exact]', () => {
    const gear = (wheelSlip: number) => gearOf({ ...CAR, wheelSlip }, 0);
    expect(gear(0.1).kinematicRpm(10) / gear(0).kinematicRpm(10)).toBeCloseTo(1 / 0.9, 12);
    expect(gear(0.1).limitMps / gear(0).limitMps).toBeCloseTo(0.9, 12);
    expect(() => readyCar({ ...CAR, wheelSlip: 0.95 })).toThrowMatching(
      (error) => error instanceof InputError && error.field === 'wheelSlip',
    );
  });

  it('turns into heat what it does not pass on: P·(1 − speed ratio × torque ratio)', () => {
    const converter = { stallRpm: 2000, torqueRatio: 2, couplingRatio: 0.8 };
    // Told backwards [exact]: speed ratio 0.4 is torque ratio 1.5; at 1500 rpm the impeller takes 300·(1500/2000)²
    const impeller = 300 * 0.75 ** 2;
    const point = converterPoint(converter, 300, 600, 1.5 * impeller);
    expect(point.engineRpm).toBeCloseTo(1500, 6);
    expect(point.speedRatio).toBeCloseTo(0.4, 9);
    expect(point.heatW).toBeCloseTo(((impeller * 1500 * Math.PI) / 30) * (1 - 0.6), 4);
    // Between 0.7 and coupling it takes less (ours): half way, at 0.75, three quarters of C·n².
    const less = 0.75 * 300 * 0.75 ** 2;
    const ratio = 2 - 0.75 / 0.8;
    const near = converterPoint(converter, 300, 0.75 * 1500, ratio * less);
    expect(near.engineRpm).toBeCloseTo(1500, 6);
    expect(near.impellerNm).toBeCloseTo(less, 6);
    // coupled: the engine turns n_turbine/SR_c, and a fifth of its power is heat
    const coupled = converterPoint(converter, 300, 3000, 100);
    expect(coupled.engineRpm).toBeCloseTo(3750, 9);
    expect(coupled.heatW).toBeCloseTo(((100 * 3750 * Math.PI) / 30) * 0.2, 6);
    // standing: all of it is heat
    const standing = converterPoint(converter, 300, 0, 600);
    expect(standing.engineRpm).toBeCloseTo(2000, 5);
    expect(standing.heatW).toBeCloseTo((300 * 2000 * Math.PI) / 30, 2);
  });

  it('what goes in comes out at the shaft or as heat (property)', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(number(1.2, 2.5), number(0.7, 0.9), number(0, 4000), number(1, 1500), (torqueRatio, sr, rpm, nm) => {
        const point = converterPoint({ stallRpm: 2200, torqueRatio, couplingRatio: sr }, 350, rpm, nm);
        const [into, out] = [point.impellerNm * point.engineRpm, nm * rpm].map((x) => (x * Math.PI) / 30);
        expect(point.heatW).toBeCloseTo((into as number) - (out as number), 3);
        expect(point.heatW).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  it('refuses by name', () => {
    const converter = { stallRpm: 2000, torqueRatio: 2, couplingRatio: 0.8 };
    for (const [field, run] of [
      ['turbineNm', () => converterPoint(converter, 300, 600, -1)],
      ['turbineRpm', () => converterPoint(converter, 300, Number.NaN, 1)],
      ['stallTorqueNm', () => converterPoint(converter, 0, 600, 1)],
    ] as const)
      expect(run).toThrowMatching((error) => error.field === field);
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
