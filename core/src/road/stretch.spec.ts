import { seededRandom } from '../base/random';
import { InputError } from '../base/errors';
import { roadRun } from './run';
import { steppedRun } from './stepped-run';
import { stretchFrom } from './stretch';
import { readyCar, type Push, type Vehicle } from './vehicle';

const random = seededRandom(25);
const between = (low: number, high: number): number => low + (high - low) * random();
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;

/** Any car: curves that no engine has, slopes either way, a clutch, a converter or constant power. */
function anyCar(): Vehicle {
  const torqueCurve: { rpm: number; torqueNm: number }[] = [];
  for (let rpm = between(500, 2000); torqueCurve.length < 1 || (torqueCurve.length < 8 && random() < 0.8);) {
    torqueCurve.push({ rpm, torqueNm: between(50, 600) });
    rpm += between(200, 2000);
  }
  const gears = [between(2, 4.5)];
  while (gears.length < 7 && random() < 0.8) gears.push((gears.at(-1) as number) * between(0.6, 0.95));
  const powered = random() < 0.1;
  const converter = {
    stallRpm: between(1500, 3400),
    torqueRatio: between(1, 2.2),
    couplingRatio: between(0.8, 0.97),
    slip: pick([0, between(0, 0.1)]),
  };
  return {
    massKg: between(400, 3000),
    engine: powered ? { constantPowerW: between(2e4, 8e5) } : { torqueCurve, limitRpm: between(5000, 9000) },
    gears,
    finalRatio: between(2.5, 5.5),
    driveline: { efficiency: between(0.8, 1), inertiaFactor: pick(['wong', 1, 1.3]) },
    tyre: {
      rollingRadiusMm: between(250, 450),
      grip: between(0.3, 3),
      ...(random() < 0.15 ? { growth: { share: between(0, 0.03), speedMps: 100 } } : {}),
    },
    aero: {
      dragAreaM2: between(0, 1.5),
      downforceAreaM2: pick([0, between(-0.5, 4)]),
      dragHeightMm: between(200, 900),
    },
    rollingCoefficient: pick([0, between(0, 0.05)]),
    driven: {
      staticShare: between(0.3, 0.7),
      cgHeightMm: between(200, 1300),
      wheelbaseMm: between(2000, 3500),
      axle: pick(['rear', 'front', 'both']),
    },
    shiftTimeS: pick([0, between(0, 0.6), between(0, 5)]),
    gradePercent: pick([0, between(-20, 25)]),
    wheelSlip: pick([0, between(0, 0.2)]),
    ...(random() < 0.3 ? { clutchCapacityNm: between(100, 600) } : {}),
    ...(powered ? {} : random() < 0.25 ? { converter } : random() < 0.7 ? { launchRpm: between(0, 3400) } : {}),
  };
}

describe('road: stretches of one law', () => {
  it('are what the car does at every speed in them, and end where the limit changes (property)', () => {
    const now: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
    let changes = 0;
    for (let n = 0; n < 150; n++) {
      const car = readyCar(anyCar());
      for (const gear of car.gears) {
        const top = Math.min(gear.limitMps, 120);
        for (let v = 0, k = 0; v < top && k < 60; k++) {
          const locked = v >= gear.lockMps;
          const stretch = stretchFrom(car, gear, v, locked, locked ? top : Math.min(top, gear.lockMps));
          expect(stretch.end).withContext(`car ${n}`).toBeGreaterThan(v);
          const { law, rolling } = stretch;
          for (const share of [0.02, 0.3, 0.7, 0.98]) {
            const u = v + (stretch.end - v) * share;
            if (typeof law === 'function' || !rolling) continue;
            car.push(u, gear, now, locked);
            const a = (law.power === 0 ? 0 : law.power / u) + law.still + law.perMps * u + law.perV2 * u * u;
            expect(Math.abs(a - now.mps2))
              .withContext(`car ${n}, ${u} m/s`)
              .toBeLessThan(1e-9 * (1 + Math.abs(a)));
            expect(stretch.limit).toBe(now.limit);
            expect(stretch.factor).toBeCloseTo(now.factor, 12);
            const rollingN = car.rollingCoefficient * (rolling.still + rolling.perV2 * u * u);
            if (u * u * car.contact.whole.perV2 > -car.contact.whole.still)
              expect(Math.abs(rollingN - now.rollingN))
                .withContext(`car ${n}, ${now.limit}`)
                .toBeLessThan(1e-6);
            // It rests where it says, not before.
            if (stretch.rest === null || u < stretch.rest) expect(a > 0).toBe(stretch.mps2 > 0);
          }
          if (stretch.end < top) changes++;
          v = stretch.end;
        }
      }
    }
    expect(changes).toBeGreaterThan(500);
  });

  it('sum up to the run that is integrated step by step, for any car [Dormand–Prince, steps of 5 ms]', () => {
    const close = (value: number | null, target: number | null, what: string): void => {
      if (value === null || target === null) expect(value).withContext(what).toBe(target);
      else
        expect(Math.abs(value / target - 1))
          .withContext(`${what}: ${value}, ${target}`)
          .toBeLessThan(5e-5);
    };
    let [ran, shifts] = [0, 0];
    for (let n = 0; n < 160; n++) {
      const vehicle = anyCar();
      const options = { distanceM: pick([402.336, between(5, 1500)]) };
      const tried = (run: typeof roadRun) => {
        try {
          return run(vehicle, options);
        } catch (error) {
          if (!(error instanceof InputError)) throw error;
          return error.field;
        }
      };
      const [run, stepped] = [
        tried(roadRun),
        tried((v, o) => ({ ...steppedRun(v, o, 0.005), stretches: 0, evaluations: 0 })),
      ];
      if (typeof run === 'string' || typeof stepped === 'string') {
        expect(run).withContext(`car ${n}`).toBe(stepped);
        continue;
      }
      ran++;
      shifts += run.shifts.length;
      expect(run.shifts.length).withContext(`car ${n}`).toBe(stepped.shifts.length);
      close(run.timeS, stepped.timeS, `car ${n}, time`);
      close(run.speedMps, stepped.speedMps, `car ${n}, speed`);
      close(run.slip.rolloutS, stepped.slip.rolloutS, `car ${n}, rollout`);
      close(run.zeroTo100S, stepped.zeroTo100S, `car ${n}, 0–100`);
      run.marks.forEach((mark, i) => close(mark.timeS, stepped.marks[i]?.timeS ?? 0, `car ${n}, mark ${i}`));
      const { drive, kinetic, rotating, drag, rolling, grade } = run.energy;
      const put = kinetic + rotating + drag + rolling + grade;
      expect(Math.abs(drive - put))
        .withContext(`car ${n}, energy`)
        .toBeLessThan(1e-8 * (kinetic + Math.abs(grade)));
      expect(Math.abs(drag - stepped.energy.drag)).toBeLessThan(5e-5 * (drag + 1));
    }
    expect(ran).toBeGreaterThan(140);
    expect(shifts).toBeGreaterThan(150);
  });
});
