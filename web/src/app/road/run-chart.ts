import { scaleUnit, toBase, type Run, type UnitSystem } from '@hot-spline/core';
import { MONO, chartAxis, type ChartOption, type chartColours } from '../shared/chart';
import { DASHES, roundScale, speedUnit } from '../gearing/fan-chart';

export interface RunLine {
  readonly label: string;
  readonly run: Run;
}

export interface RunPicture {
  readonly lines: readonly RunLine[];
  readonly along: 'time' | 'distance';
  readonly system: UnitSystem;
  readonly colours: ReturnType<typeof chartColours>;
}

/** Speed over time or distance of every run; the present one in blue, ochre where its tyres are the limit. */
export function runOption({ lines, along, system, colours }: RunPicture): ChartOption {
  const unit = speedUnit(system);
  const length = toBase(1, scaleUnit('distance', system).unit);
  const at = (point: { timeS: number; distanceM: number }): number =>
    along === 'time' ? point.timeS : point.distanceM / length;
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
  const drawn = lines.map(({ run, label }, i) =>
    line(
      `run-${i}`,
      run.trace.map((point) => [at(point), point.speedMps / unit]),
      {
        color: i === 0 ? colours.blue : colours.soft,
        width: i === 0 ? 2.4 : 1.4,
        type: DASHES[i] ?? 'solid',
        opacity: i === 0 ? 1 : 0.8,
      },
      {
        z: i === 0 ? 4 : 3,
        endLabel: {
          show: i === 0,
          formatter: label,
          color: colours.blue,
          fontFamily: MONO,
          fontSize: 12,
          offset: [-46, -12],
        },
      },
    ),
  );
  const present = lines[0]?.run;
  // The tyres' part of the present run, with gaps.
  const gripped = present
    ? line(
        'tyre-limit',
        present.trace.map((point) =>
          point.limit === 'tyre' || point.limit === 'wheelstand' ? [at(point), point.speedMps / unit] : [null, null],
        ),
        { color: colours.ochre, width: 5, opacity: 0.85 },
        { z: 2 },
      )
    : null;
  const shifts = present
    ? line(
        'shifts',
        present.shifts.map((shift) => ({
          value: [at(shift), shift.speedMps / unit],
          label: {
            show: true,
            position: 'left',
            distance: 6,
            formatter: `${shift.gear + 2}`,
            color: colours.ink,
            fontFamily: MONO,
            fontSize: 11.5,
          },
        })),
        { width: 0 },
        { symbol: 'circle', symbolSize: 6, itemStyle: { color: colours.blue }, z: 5 },
      )
    : null;
  const most = Math.max(1e-6, ...lines.flatMap(({ run }) => [Math.max(...run.trace.map((p) => p.speedMps / unit))]));
  const longest = Math.max(
    1e-6,
    ...lines.map(({ run }) => at({ timeS: run.timeS, distanceM: run.marks.at(-1)?.distanceM ?? 0 })),
  );
  return {
    animation: false,
    grid: { outerBoundsMode: 'none', left: 48, right: 16, top: 14, bottom: 38 },
    xAxis: chartAxis(along === 'time' ? 'time, s' : system === 'inch' ? 'distance, ft' : 'distance, m', colours, {
      min: 0,
      ...roundScale(longest),
    }),
    yAxis: chartAxis(system === 'inch' ? 'speed, mph' : 'speed, km/h', colours, {
      min: 0,
      nameGap: 32,
      ...roundScale(most * 1.03),
    }),
    series: [...drawn, ...(gripped ? [gripped] : []), ...(shifts ? [shifts] : [])],
  } as ChartOption;
}
