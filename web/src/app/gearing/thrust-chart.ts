import { scaleUnit, fromBase, type Car, type Push, type UnitSystem } from '@hot-spline/core';
import { MONO, chartAxis, type ChartOption, type chartColours } from '../shared/chart';
import { roundScale, speedUnit } from './fan-chart';

export interface ThrustPicture {
  readonly car: Car;
  readonly gearNames: readonly string[];
  /** Slopes whose road load is drawn, in percent; the one of the build is among them. */
  readonly grades: readonly { readonly percent: number; readonly resistance: (speedMps: number) => number }[];
  readonly pointMps: number;
  readonly system: UnitSystem;
  readonly colours: ReturnType<typeof chartColours>;
}

/** Speeds at which a curve is drawn: its bends and evenly in between. */
function speeds(limit: number, kinks: readonly number[]): number[] {
  const even = Array.from({ length: 25 }, (_, i) => (limit * i) / 24);
  return [...new Set([...even, ...kinks])].sort((a, b) => a - b);
}

/** Thrust in every gear against road load on slopes; ochre where the tyres, not the engine, are the limit. */
export function thrustOption({ car, gearNames, grades, pointMps, system, colours }: ThrustPicture): ChartOption {
  const perSpeed = speedUnit(system);
  const unit = scaleUnit('force', system).unit;
  const force = (newton: number): number => fromBase(newton, unit) / 1000;
  const x = (mps: number): number => mps / perSpeed;
  const fastest = Math.max(...car.gears.map((gear) => gear.limitMps));
  const line = (id: string, data: unknown[], style: object, more: object = {}) => ({
    type: 'line' as const,
    id,
    data,
    symbol: 'none',
    silent: true,
    animation: false,
    lineStyle: style,
    ...more,
  });
  const gears = car.gears.map((gear, i) => {
    const data = speeds(gear.limitMps, gear.kinks()).map((v) => [x(v), force(gear.engineThrust(v))]);
    const peak = data.reduce((best, point) => ((point[1] ?? 0) > (best[1] ?? 0) ? point : best), data[0] ?? [0, 0]);
    return line(
      `gear-${i}`,
      data,
      { color: colours.blue, width: 2.2 },
      {
        markPoint: {
          silent: true,
          animation: false,
          symbol: 'circle',
          symbolSize: 1,
          data: [
            {
              coord: peak,
              label: {
                show: true,
                formatter: gearNames[i] ?? '',
                position: 'top',
                distance: 3,
                color: colours.ink,
                backgroundColor: colours.sheet,
                padding: [0, 3],
                fontFamily: MONO,
                fontSize: 12,
              },
            },
          ],
        },
      },
    );
  });
  const most = Math.max(
    ...car.gears.flatMap((gear) => speeds(gear.limitMps, gear.kinks()).map((v) => force(gear.engineThrust(v)))),
  );
  const push: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
  // Where a gear would push harder than the tyres or the weight allow: gaps elsewhere.
  const grip = car.gears.map((gear, i) =>
    line(
      `grip-${i}`,
      speeds(gear.limitMps, gear.kinks()).map((v) => {
        car.push(v, gear, push);
        return push.limit === 'engine' ? [null, null] : [x(v), force(gear.engineThrust(v))];
      }),
      { color: colours.ochre, width: 6, opacity: 0.8 },
      { z: 1 },
    ),
  );
  const loads = grades.map(({ percent, resistance }) =>
    line(
      `load-${percent}`,
      speeds(fastest, []).map((v) => [x(v), force(resistance(v))]),
      { color: colours.soft, width: 1.3, type: percent === 0 ? 'solid' : [3, 3] },
      {
        endLabel: {
          show: true,
          formatter: percent === 0 ? 'level' : `${percent} %`,
          color: colours.soft,
          fontSize: 11,
          fontFamily: MONO,
          offset: [2, 0],
          backgroundColor: colours.sheet,
        },
        labelLayout: { moveOverlap: 'shiftY' },
      },
    ),
  );
  // The picture ends a little above the highest curve, not at the next round figure.
  const scale = {
    x: { max: x(fastest) * 1.06, interval: roundScale(x(fastest)).interval },
    y: { max: most * 1.1, interval: roundScale(most).interval },
  };
  const axisLabel = {
    color: colours.soft,
    fontFamily: MONO,
    fontSize: 11,
    showMaxLabel: false,
    formatter: (value: number) => String(Math.round(value * 10) / 10),
  };
  const cursor = line(
    'cursor',
    [
      [x(pointMps), 0],
      [x(pointMps), scale.y.max],
    ],
    { color: colours.ochre, width: 1.5 },
  );
  return {
    animation: false,
    grid: { outerBoundsMode: 'none', left: 52, right: 46, top: 16, bottom: 38 },
    xAxis: chartAxis(system === 'inch' ? 'road speed, mph' : 'road speed, km/h', colours, {
      min: 0,
      axisLabel,
      ...scale.x,
    }),
    yAxis: chartAxis(system === 'inch' ? 'thrust at the tyres, 1000 lbf' : 'thrust at the tyres, kN', colours, {
      min: 0,
      nameGap: 34,
      axisLabel,
      ...scale.y,
    }),
    series: [...loads, ...grip, ...gears, cursor],
  } as ChartOption;
}
