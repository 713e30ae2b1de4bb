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

/**
 * How far another run is from the present one, at each point of its trace: seconds behind at the same place, or metres ahead at
 * the same time. Between the points of a trace it goes evenly; past the end of the other run nothing is said.
 */
export function gapTo(present: Run, other: Run, along: 'time' | 'distance'): [number, number][] {
  const key = along === 'time' ? ('timeS' as const) : ('distanceM' as const);
  const value = along === 'time' ? ('distanceM' as const) : ('timeS' as const);
  const gaps: [number, number][] = [];
  let i = 0;
  for (const point of present.trace) {
    while (i < other.trace.length - 2 && (other.trace[i + 1]?.[key] ?? Infinity) < point[key]) i++;
    const [from, to] = [other.trace[i], other.trace[i + 1]];
    if (!from || !to || point[key] > to[key]) break;
    const share = to[key] > from[key] ? (point[key] - from[key]) / (to[key] - from[key]) : 0;
    gaps.push([point[key], from[value] + share * (to[value] - from[value]) - point[value]]);
  }
  return gaps;
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
  const gaps = lines.slice(1).map(({ run, label }, i) =>
    line(
      `gap-${i + 1}`,
      present
        ? gapTo(present, run, along).map(([x, gap]) => [
            along === 'time' ? x : x / length,
            along === 'time' ? gap / length : gap,
          ])
        : [],
      { color: colours.ink, width: 1.4, type: DASHES[i + 1] ?? 'solid' },
      {
        xAxisIndex: 1,
        yAxisIndex: 1,
        endLabel: { show: true, formatter: label, color: colours.ink, fontFamily: MONO, fontSize: 11, offset: [2, 0] },
        labelLayout: { moveOverlap: 'shiftY' },
      },
    ),
  );
  const apart = gaps.length > 0;
  const most = Math.max(1e-6, ...lines.flatMap(({ run }) => [Math.max(...run.trace.map((p) => p.speedMps / unit))]));
  const longest = Math.max(
    1e-6,
    ...lines.map(({ run }) => at({ timeS: run.timeS, distanceM: run.marks.at(-1)?.distanceM ?? 0 })),
  );
  const grid = { outerBoundsMode: 'none', left: 48, right: apart ? 52 : 16 };
  const across = chartAxis(along === 'time' ? 'time, s' : system === 'inch' ? 'distance, ft' : 'distance, m', colours, {
    min: 0,
    ...roundScale(longest),
  });
  const upright = chartAxis(system === 'inch' ? 'speed, mph' : 'speed, km/h', colours, {
    min: 0,
    nameGap: 32,
    ...roundScale(most * 1.03),
  });
  const series = [...drawn, ...(gripped ? [gripped] : []), ...(shifts ? [shifts] : []), ...gaps];
  if (!apart) {
    const whole = { ...grid, top: 14, bottom: 38 };
    return { animation: false, grid: whole, xAxis: across, yAxis: upright, series } as ChartOption;
  }
  // Speeds that lie on each other say little: below, how far each is from the present one.
  const far = system === 'inch' ? 'ft ahead' : 'm ahead';
  return {
    animation: false,
    grid: [
      { ...grid, top: 14, height: '52%' },
      { ...grid, bottom: 38, height: '24%' },
    ],
    xAxis: [
      { ...across, gridIndex: 0, name: '', axisLabel: { show: false } },
      { ...across, gridIndex: 1 },
    ],
    yAxis: [
      { ...upright, gridIndex: 0 },
      chartAxis(along === 'time' ? far : 's behind', colours, { gridIndex: 1, nameGap: 36, splitNumber: 2 }),
    ],
    series,
  } as ChartOption;
}
