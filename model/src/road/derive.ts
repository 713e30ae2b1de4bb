import { InputError, entryBase, explain, haleFit, roadRun, type Run } from '@hot-spline/core';
import type { AxleName } from '../document/names';
import type { Build } from '../document/schema';
import { explainRun } from './calc-run';
import type { Derivation } from '../engine/derivation';
import type { Figure } from '../engine/figure';
import { roadFigures } from './ids';
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
