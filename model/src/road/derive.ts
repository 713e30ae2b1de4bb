import {
  GRAVITY,
  InputError,
  converterHeat,
  engineTorque,
  entryBase,
  explain,
  haleFit,
  readyCar,
  roadRun,
  rollingCircumference,
  toothPair,
  tyreSize,
  type Car,
  type Climb,
  type ConverterHeat,
  type Push,
  type Run,
  type SlipMark,
  type Vehicle,
} from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import { explainHeat } from './calc-heat';
import { explainRun } from './calc-run';
import type { Derivation } from '../frame/derivation';
import type { Figure } from '../frame/figure';
import { fact, type Place } from '../frame/finding';
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

/** The climb of the brief, as the core has it, with what is carried or towed. */
export function climbOf({ brief }: Build): Climb {
  const { climb } = brief;
  return { gear: climb.gear, speedMps: entryBase(climb.speed), gradePercent: entryBase(climb.grade) };
}

/** The car of the climb; with another final drive and tyre where they are given. */
export function climbingVehicle(build: Build, main: AxleName, own: AxleGearingState): Vehicle {
  const vehicle = vehicleOf(build, main, own);
  return { ...vehicle, massKg: vehicle.massKg + entryBase(build.brief.climb.load) };
}

/** Heat in the converter on the climb of the brief, now and with what was in before. */
function deriveHeat(build: Build, main: AxleName, own: AxleGearingState, d: Derivation): void {
  if (build.coupling.kind !== 'converter') return;
  const climb = climbOf(build);
  const { was } = build.brief;
  const tyre = build.axles[main]?.tyre;
  const before =
    was && tyre
      ? {
          ...own,
          finalRatio: toothPair(was.finalDrive).ratio,
          circumferenceMm: rollingCircumference(tyreSize(was.tyre).overallDiameterMm, tyre.factor),
        }
      : null;
  const figure = (id: string, label: string, state: AxleGearingState): ConverterHeat | null => {
    const vehicle = climbingVehicle(build, main, state);
    let heat: ConverterHeat | null = null;
    try {
      heat = converterHeat(vehicle, climb);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
    }
    d.figure({
      id,
      label,
      value: heat?.heatW ?? null,
      instead: 'none',
      quantity: 'power',
      decimals: 1,
      ...(heat ? { explain: () => explainHeat(vehicle, climb, label) } : {}),
    });
    return heat;
  };
  const now = figure(roadFigures.heat(), 'Heat in the converter on the climb', own);
  const then = before ? figure(roadFigures.heatBefore(), 'The same before the change', before) : null;
  // Why there is none, a run says as well: gears, converter, engine.
  if (!now) return;
  const coupled = now.speedRatio >= entryBase(build.coupling.couplingRatio) - 1e-9;
  const worse = then !== null && now.heatW > then.heatW * 1.02;
  d.finding({
    id: 'road.heat',
    uses: ['coupling', 'road.mass'],
    verdict: !now.holds ? 'stop' : worse || !coupled ? 'watch' : 'fits',
    place: { sheet: 'gearing', tab: 'heat', field: 'climb-grade' },
    station: 'coupling',
    figures: [roadFigures.heat()],
    rule: 'heat = engine power × (1 − speed ratio × torque ratio) [exact]; our guard: coupled, and no hotter than before',
    facts: {
      holds: now.holds,
      heat: fact(now.heatW, 'power'),
      speedRatio: fact(now.speedRatio, 'ratio'),
      coupled,
      ...(then ? { before: fact(then.heatW, 'power') } : {}),
      beforeFinal: was ? `${was.finalDrive.ring}/${was.finalDrive.pinion}` : '',
    },
    say: words.heat,
  });
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
  deriveHeat(build, main, own, d);
  const instead = 'not reached';
  const at = words.finishName(build.brief.distance);
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
