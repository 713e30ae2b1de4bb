import {
  GRAVITY,
  InputError,
  engineTorque,
  entryBase,
  explain,
  haleFit,
  readyCar,
  roadRun,
  type Car,
  type Push,
  type Run,
  type SlipMark,
} from '@hot-spline/core';
import type { AxleName } from '../document/names';
import type { Build } from '../document/schema';
import { explainRun } from './calc-run';
import type { Derivation } from '../engine/derivation';
import type { Figure } from '../engine/figure';
import { fact, type Place } from '../engine/finding';
import { roadFigures } from './ids';
import * as words from './words';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { peakPower, torqueCurve } from './torque-curve';
import { vehicleOf } from './vehicle';

/** A figure that is worked out when somebody looks at it: a run takes longer than everything else together. */
function lazily(figure: Omit<Figure, 'value' | 'rests'>, value: () => number | null): Omit<Figure, 'rests'> {
  let known: number | null | undefined;
  const read = (): number | null => (known = known === undefined ? value() : known);
  return {
    ...figure,
    get value() {
      return read();
    },
    get explain() {
      return read() === null ? undefined : figure.explain;
    },
  };
}

/** Where a refusal of the vehicle is mended. */
const FIELDS: Readonly<Record<string, Place>> = {
  launchRpm: { sheet: 'road', field: 'run-launch' },
  'converter.stallRpm': { sheet: 'engine', field: 'converter-stall' },
  'converter.torqueRatio': { sheet: 'engine', field: 'converter-torque' },
};

/** What limits the launch beside tyres and engine, and what keeps a run from being worked out at all. */
function findLaunch(build: Build, main: AxleName, own: AxleGearingState, d: Derivation): void {
  const common = { station: 'tyres' as const, figures: [roadFigures.time()] };
  let car: Car;
  try {
    car = readyCar(vehicleOf(build, main, own));
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    d.finding({
      ...common,
      id: 'road.refused',
      verdict: 'stop',
      place: FIELDS[error.field] ?? { sheet: 'road', field: 'road-mass' },
      rule: 'values that no car can have [exact]',
      facts: { error: error.message, allowed: error.allowed },
      say: words.refused,
    });
    return;
  }
  const first = car.gears[0];
  if (!first) return;
  const push: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
  car.push(0, first, push);
  if (push.limit === 'wheelstand')
    d.finding({
      ...common,
      id: 'road.wheelstand',
      verdict: 'watch',
      place: { sheet: 'road', field: 'road-cgHeight' },
      rule: 'at the wheelstand limit all of the weight is on the driven axle: a = g × distance of the centre of gravity from it ÷ its height [exact]',
      facts: {
        lifts: main === 'rear' ? 'front' : 'rear',
        most: fact(push.mps2 / GRAVITY, 'ratio'),
        height: fact(entryBase(build.road.cgHeight), 'length'),
      },
      say: words.wheelstand,
    });
  if (push.limit === 'clutch' && build.coupling.kind === 'clutch')
    d.finding({
      ...common,
      id: 'road.clutch',
      verdict: 'watch',
      place: { sheet: 'engine', field: 'clutch-capacity' },
      rule: 'a slipping clutch passes what it holds and no more [exact]',
      facts: {
        capacity: fact(entryBase(build.coupling.capacity), 'torque'),
        torque: fact(engineTorque(torqueCurve(build), build.engine.launchRpm), 'torque'),
      },
      say: words.clutch,
    });
}

/** The run of the brief: worked out when it is asked for, null where the car does not get there. */
export function deriveRoad(build: Build, main: AxleName, own: AxleGearingState, all: Derivation): void {
  const d = all.using(['engine', 'coupling', 'gearbox', `axles.${main}.tyre`, `axles.${main}.finalDrive`, 'road']);
  const distanceM = entryBase(build.brief.distance);
  let known: Run | null | undefined;
  const run = (): Run | null => {
    if (known !== undefined) return known;
    try {
      known = roadRun(vehicleOf(build, main, own), { distanceM });
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      known = null;
    }
    return known;
  };
  findLaunch(build, main, own, d);
  const instead = 'not reached';
  const at = build.brief.distance.typed;
  const figure = (
    id: string,
    label: string,
    quantity: Figure['quantity'],
    decimals: number,
    read: (r: Run) => number | null,
  ) =>
    d.figure(
      lazily(
        {
          id,
          label,
          quantity,
          decimals,
          instead,
          explain: () =>
            explainRun(
              vehicleOf(build, main, own),
              { distanceM },
              {
                label: label.toLowerCase(),
                quantity,
                read: (r) => read(r) ?? 0,
              },
            ),
        },
        () => {
          const result = run();
          return result ? read(result) : null;
        },
      ),
    );
  figure(roadFigures.time(), `Time to ${at}`, 'time', 3, (r) => r.timeS);
  figure(roadFigures.speed(), `Speed at ${at}`, 'speed', 1, (r) => r.speedMps);
  figure(roadFigures.rpm(), `Engine speed at ${at}`, 'rotation', 0, (r) => r.rpm);
  const slip = (r: Run): SlipMark | undefined => r.slip.marks.at(-1);
  figure(roadFigures.slipTime(), `Time slip at ${at}`, 'time', 3, (r) => slip(r)?.timeS ?? null);
  figure(
    roadFigures.slipSpeed(),
    `Time slip at ${at}, speed over the last 66 ft`,
    'speed',
    1,
    (r) => slip(r)?.speedMps ?? null,
  );
  figure(roadFigures.zeroTo100(), '0 to 100 km/h', 'time', 2, (r) => r.zeroTo100S);
  figure(roadFigures.tyreLimit(), 'Tyre is the limit', 'percent', 0, (r) => (100 * r.limitTimesS.tyre) / r.timeS);
  const mass = entryBase(build.road.mass);
  const power = peakPower(torqueCurve(build)).powerW;
  if (power <= 0) return;
  d.figure({
    id: roadFigures.hale(),
    label: 'Quarter mile by weight and power alone',
    value: haleFit(mass, power).timeS,
    quantity: 'time',
    decimals: 2,
    explain: () =>
      explain({
        title: 'Quarter mile by weight and power alone',
        formula: 'time = 5.825 × (lb ÷ hp)^⅓, a guard band for the run and no prediction',
        inputs: [
          { key: 'mass', label: 'mass', value: mass, quantity: 'mass' },
          { key: 'power', label: 'peak power', value: power, quantity: 'power' },
        ],
        sources: [{ kind: 'standard', text: 'Hale’s fit', fromMemory: true }],
        result: { label: 'time', quantity: 'time' },
        compute: ({ mass: m = 1, power: p = 1 }) => ({ value: haleFit(m, p).timeS }),
      }),
  });
}
