// The same equations through a general-purpose ODE package of the registry (odex: Gragg–Bulirsch–Stoer extrapolation).
// Plain JavaScript: the package's declarations don't go with strict TypeScript.
import { Solver } from 'odex';
import { seededRandom } from '../base/random.ts';
import { roadRun } from './run.ts';

const g = 9.80665;

const torqueOf = (curve) => (rpm) => {
  if (rpm <= curve[0].rpm) return curve[0].torqueNm;
  for (let i = 1; i < curve.length; i++) {
    const [p, q] = [curve[i - 1], curve[i]];
    if (rpm <= q.rpm) return p.torqueNm + ((q.torqueNm - p.torqueNm) * (rpm - p.rpm)) / (q.rpm - p.rpm);
  }
  return curve.at(-1).torqueNm;
};

/** Capacity of a converter, C·f·n², against the engine: f 1 up to 0.7, then straight to 0.5 at coupling [ours]. */
function converterSide({ stallRpm, torqueRatio, couplingRatio }, torque) {
  const f = (sr) => (sr <= 0.7 ? 1 : 1 - (0.5 * (sr - 0.7)) / (couplingRatio - 0.7));
  const spare = (n, share) => torque(n) - (share * torque(stallRpm) * n * n) / stallRpm ** 2;
  const root = (of) => {
    let [low, high] = [stallRpm, 20_000];
    if (of(low) <= 1e-9) return low;
    for (let k = 0; k < 100; k++) {
      const middle = (low + high) / 2;
      if (of(middle) > 0) low = middle;
      else high = middle;
    }
    return low;
  };
  const coupledRpm = root((n) => spare(n, 0.5));
  return {
    meetRpm: couplingRatio * coupledRpm,
    /** Engine speed, torque behind it, and whether it is tied to the road. */
    at(kinematic) {
      const locked = kinematic >= couplingRatio * coupledRpm;
      const n = locked ? Math.max(coupledRpm, kinematic) : root((rpm) => spare(rpm, f(kinematic / rpm)));
      const sr = kinematic / n;
      const multiply = sr >= couplingRatio ? 1 : torqueRatio - ((torqueRatio - 1) * sr) / couplingRatio;
      return { locked, torqueIn: torque(n) * multiply };
    },
  };
}

/** docs/road.md written out again, by forces: the force at the contact is tried first, then what it cannot be. */
function accelerationOf(car) {
  const { massKg: m, driven, tyre, aero, rollingCoefficient: crr, engine, launchRpm, converter } = car;
  const [r, mu, L, h] = [tyre.rollingRadiusMm / 1000, tyre.grip, driven.wheelbaseMm / 1000, driven.cgHeightMm / 1000];
  const torque = torqueOf(engine.torqueCurve);
  const slipping = converter && converterSide(converter, torque);
  const side = { rear: 1, front: -1 }[driven.axle] ?? 0;
  const angle = Math.atan(car.gradePercent / 100);
  const [W, G] = [m * g * Math.cos(angle), m * g * Math.sin(angle)];
  return (v, gear, pulling) => {
    const drag = 0.5 * 1.2 * aero.dragAreaM2 * v * v;
    const resistance = drag + crr * W + G;
    if (!pulling) return -resistance / (1.04 * m);
    const i = car.gears[gear] * car.finalRatio;
    const kinematic = ((v / r) * i * 30) / Math.PI;
    let [torqueIn, locked] = [0, true];
    if (converter) {
      ({ locked, torqueIn } = slipping.at(kinematic));
    } else {
      locked = gear > 0 || kinematic >= launchRpm;
      torqueIn = torque(gear > 0 ? kinematic : Math.max(launchRpm, kinematic));
    }
    const force = (torqueIn * i * car.driveline.efficiency) / r;
    const a = (force - resistance) / (m * (locked ? 1.04 + 0.0025 * i * i : 1.04));
    // load on the driven axle at an acceleration, and the ground force that goes with it
    const load = (x) => (side === 0 ? W : driven.staticShare * W + (side * ((m * x + drag + G) * h)) / L);
    const ground = (x) => 1.02 * m * x + drag + G + crr * (W - load(x));
    let [low, high] = [-50, 50];
    if (ground(a) <= mu * load(a) && load(a) <= W) return a;
    // grip: the acceleration at which the ground force is just μ·N; wheelstand: at which the load is just all
    for (let k = 0; k < 90; k++) {
      const middle = (low + high) / 2;
      if (ground(middle) <= mu * load(middle) && load(middle) <= W) low = middle;
      else high = middle;
    }
    return low;
  };
}

/** Integrates from `state` until `excess` is reached, found by bisection on the end of the interval. */
function leg(acceleration, state, gear, pulling, excess, longest) {
  const solve = (length) => {
    const solver = new Solver(2);
    solver.absoluteTolerance = 1e-9;
    solver.relativeTolerance = 1e-9;
    const law = (_t, [, v]) => [v, acceleration(v, gear, pulling)];
    const { y } = solver.solve(law, 0, [state.x, state.v], length);
    return { t: state.t + length, x: y[0], v: y[1] };
  };
  let [low, high] = [0, longest];
  if (excess(solve(high)) < 0) return solve(high);
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (excess(solve(middle)) < 0) low = middle;
    else high = middle;
  }
  return solve(high);
}

/** Up through the gears at the limiter. */
function byPackage(car, distance) {
  const acceleration = accelerationOf(car);
  let state = { t: 0, x: 0, v: 0 };
  let shifts = 0;
  for (let gear = 0; gear < car.gears.length; gear++) {
    const perRpm = ((Math.PI / 30 / (car.gears[gear] * car.finalRatio)) * car.tyre.rollingRadiusMm) / 1000;
    // where the law jumps the package starts anew
    const meet =
      perRpm * (car.converter ? converterSide(car.converter, torqueOf(car.engine.torqueCurve)).meetRpm : car.launchRpm);
    const top = car.engine.limitRpm * perRpm;
    for (const to of [...(state.v < meet && (gear === 0 || car.converter) ? [meet] : []), top]) {
      state = leg(acceleration, state, gear, true, (s) => Math.max(s.v - to, s.x - distance), 40);
      if (state.x >= distance - 1e-6) return { ...state, shifts };
    }
    state = leg(acceleration, state, gear + 1, false, (s) => s.x - distance, car.shiftTimeS);
    shifts++;
    if (state.x >= distance - 1e-6) return { ...state, shifts };
  }
  throw new Error('the last gear is too short for this check');
}

const coupe = {
  massKg: 1350,
  engine: {
    torqueCurve: [
      { rpm: 1500, torqueNm: 210 },
      { rpm: 3500, torqueNm: 445 },
      { rpm: 4800, torqueNm: 480 },
      { rpm: 7400, torqueNm: 370 },
    ],
    limitRpm: 7400,
  },
  gears: [3.15, 2.07, 1.49, 1.15],
  finalRatio: 4.3,
  driveline: { efficiency: 0.88, inertiaFactor: 'wong' },
  tyre: { rollingRadiusMm: 308, grip: 1.1 },
  aero: { dragAreaM2: 0.68, airDensity: 1.2 },
  rollingCoefficient: 0.013,
  driven: { staticShare: 0.48, cgHeightMm: 480, wheelbaseMm: 2600, axle: 'rear' },
  launchRpm: 4500,
  shiftTimeS: 0.25,
  gradePercent: 0,
};

describe('road: run, against a general-purpose ODE package', () => {
  it('agrees to 1e-7 in time and speed over 300 m with three shifts', () => {
    const [run, state] = [roadRun(coupe, { distanceM: 300 }), byPackage(coupe, 300)];
    expect(run.shifts.length).toBe(3);
    expect(Math.abs(run.timeS / state.t - 1)).toBeLessThan(1e-7);
    expect(Math.abs(run.speedMps / state.v - 1)).toBeLessThan(1e-7);
  });

  it('agrees for any car: driven axle, grip, height, slope, clutch or converter', () => {
    const random = seededRandom(8);
    const between = (low, high) => low + (high - low) * random();
    const limits = { tyre: 0, wheelstand: 0, engine: 0 };
    for (let n = 0; n < 14; n++) {
      const finalRatio = between(2.9, 4.9);
      const { launchRpm, ...rest } = coupe;
      const car = {
        ...rest,
        massKg: n % 5 === 0 ? between(550, 750) : between(600, 2400),
        finalRatio,
        gears: [3.3, 2.2, 1.6, 1.2, 0.92, 0.72],
        // torque that falls but gently, so that every gear is best used to its limiter
        engine: {
          torqueCurve: [
            { rpm: 1000, torqueNm: between(200, 400) },
            { rpm: 4000, torqueNm: between(380, 520) },
            { rpm: 7000, torqueNm: between(370, 420) },
          ],
          limitRpm: 7000,
        },
        tyre: { rollingRadiusMm: between(290, 360), grip: n % 5 === 0 ? between(2.4, 3) : between(0.5, 2) },
        driven: {
          staticShare: between(0.4, 0.65),
          cgHeightMm: n % 5 === 0 ? between(900, 1200) : between(300, 700),
          wheelbaseMm: between(2300, 3100),
          axle: ['rear', 'rear', 'front', 'both'][n % 4],
        },
        gradePercent: between(-5, 8),
        ...(n % 3 === 2
          ? { converter: { stallRpm: 2600, torqueRatio: 1.9, couplingRatio: 0.88 } }
          : { launchRpm: 3800 }),
      };
      const [run, state] = [roadRun(car, { distanceM: 120 }), byPackage(car, 120)];
      for (const [key, seconds] of Object.entries(run.limitTimesS)) if (key in limits) limits[key] += seconds;
      expect(run.shifts.length).withContext(`car ${n}`).toBe(state.shifts);
      expect(Math.abs(run.timeS / state.t - 1))
        .withContext(`car ${n}, time`)
        .toBeLessThan(1e-7);
      expect(Math.abs(run.speedMps / state.v - 1))
        .withContext(`car ${n}, speed`)
        .toBeLessThan(1e-7);
    }
    // every law was tried
    for (const seconds of Object.values(limits)) expect(seconds).toBeGreaterThan(0.5);
  });
});
