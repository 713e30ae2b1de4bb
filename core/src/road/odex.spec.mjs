// The same equations through a general-purpose ODE package of the registry (odex: Gragg–Bulirsch–Stoer extrapolation).
// Plain JavaScript: the package's declarations don't go with strict TypeScript.
import { Solver } from 'odex';
import { roadRun } from './run.ts';

const g = 9.80665;
const curve = [
  [1500, 210],
  [3500, 445],
  [4800, 480],
  [7400, 370],
];
const car = { m: 1350, r: 0.308, mu: 1.1, eta: 0.88, cda: 0.68, rho: 1.2, crr: 0.013, share: 0.48, h: 0.48, L: 2.6 };
const gears = [3.15, 2.07, 1.49, 1.15];
const final = 4.3;
const launch = 4500;
const limit = 7400;

function torque(rpm) {
  if (rpm <= curve[0][0]) return curve[0][1];
  for (let i = 1; i < curve.length; i++) {
    const [[n0, t0], [n1, t1]] = [curve[i - 1], curve[i]];
    if (rpm <= n1) return t0 + ((t1 - t0) * (rpm - n0)) / (n1 - n0);
  }
  return curve.at(-1)[1];
}

/** docs/road.md, written out again: thrust, resistance and λ of one gear. */
function acceleration(v, gear, pulling) {
  const i = gears[gear] * final;
  const lambda = 1.04 + 0.0025 * i * i;
  const n = (v / car.r) * i * (30 / Math.PI);
  const engine = (torque(gear === 0 ? Math.max(n, launch) : n) * i * car.eta) / car.r;
  const resistance = 0.5 * car.rho * car.cda * v * v + car.crr * car.m * g;
  // F ≤ μ·(share·W + m·a·h/L) with a = (F − R)/(λ·m), solved for F
  const k = (car.mu * car.h) / car.L / lambda;
  const grip = (car.mu * car.share * car.m * g - k * resistance) / (1 - k);
  return ((pulling ? Math.min(engine, grip) : 0) - resistance) / (lambda * car.m);
}

/** Integrates from `state` until `until(t, x, v)` changes sign, found by bisection on the end of the interval. */
function leg(state, gear, pulling, excess, longest) {
  const solve = (length) => {
    const solver = new Solver(2);
    solver.absoluteTolerance = 1e-10;
    solver.relativeTolerance = 1e-10;
    const law = (_t, [, v]) => [v, acceleration(v, gear, pulling)];
    const { y } = solver.solve(law, 0, [state.x, state.v], length);
    return { t: state.t + length, x: y[0], v: y[1] };
  };
  let [low, high] = [0, longest];
  if (excess(solve(high)) < 0) return solve(high);
  for (let i = 0; i < 44; i++) {
    const middle = (low + high) / 2;
    if (excess(solve(middle)) < 0) low = middle;
    else high = middle;
  }
  return solve(high);
}

describe('road: run, against a general-purpose ODE package', () => {
  it('agrees to 1e-4 in time and speed over 300 m with three shifts', () => {
    const distance = 300;
    const shiftTime = 0.25;
    let state = { t: 0, x: 0, v: 0 };
    for (let gear = 0; gear < gears.length; gear++) {
      const top = ((limit * Math.PI) / 30 / (gears[gear] * final)) * car.r;
      state = leg(state, gear, true, (s) => Math.max(s.v - top, s.x - distance), 12);
      if (state.x >= distance - 1e-6) break;
      state = leg(state, gear + 1, false, (s) => s.x - distance, shiftTime);
    }
    const run = roadRun(
      {
        massKg: car.m,
        engine: { torqueCurve: curve.map(([rpm, torqueNm]) => ({ rpm, torqueNm })), limitRpm: limit },
        gears,
        finalRatio: final,
        driveline: { efficiency: car.eta, inertiaFactor: 'wong' },
        tyre: { rollingRadiusMm: car.r * 1000, grip: car.mu },
        aero: { dragAreaM2: car.cda, airDensity: car.rho },
        rollingCoefficient: car.crr,
        driven: { staticShare: car.share, cgHeightMm: car.h * 1000, wheelbaseMm: car.L * 1000 },
        launchRpm: launch,
        shiftTimeS: shiftTime,
      },
      { distanceM: distance },
    );
    expect(run.shifts.length).toBe(3);
    expect(Math.abs(run.timeS / state.t - 1)).toBeLessThan(1e-4);
    expect(Math.abs(run.speedMps / state.v - 1)).toBeLessThan(1e-4);
  });
});
