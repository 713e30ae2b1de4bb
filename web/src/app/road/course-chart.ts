import { scaleUnit, toBase, type LogSample, type PacePoint, type UnitSystem } from '@hot-spline/core';
import { MONO, chartAxis, type ChartOption, type chartColours } from '../shared/chart';
import { roundScale, speedUnit } from '../gearing/fan-chart';

export interface CourseLine {
  readonly label: string;
  readonly points: readonly PacePoint[];
}

export interface CoursePicture {
  readonly lines: readonly CourseLine[];
  readonly limitRpm: number;
  /** What was recorded, drawn under the rest. */
  readonly log?: readonly LogSample[];
  /** Numbered where they are, as the list of the course has them. */
  readonly corners?: readonly { readonly atM: number; readonly speedMps: number }[];
  readonly system: UnitSystem;
  readonly colours: ReturnType<typeof chartColours>;
}

/** Speed above, engine speed below, both over the course; the first line solid, the second dashed, the log a broad pale one. */
export function courseOption({ lines, limitRpm, log = [], corners = [], system, colours }: CoursePicture): ChartOption {
  const unit = speedUnit(system);
  const length = toBase(1, scaleUnit('distance', system).unit);
  const line = (id: string, data: number[][], first: boolean, axis: number) => ({
    type: 'line' as const,
    id,
    data,
    xAxisIndex: axis,
    yAxisIndex: axis,
    symbol: 'none',
    silent: true,
    animation: false,
    lineStyle: {
      color: first ? colours.blue : colours.soft,
      width: first ? 2 : 1.4,
      type: first ? 'solid' : ([5, 3] as number[]),
    },
    z: first ? 4 : 3,
  });
  const x = (point: PacePoint): number => point.distanceM / length;
  const speeds = lines.map(({ points }, i) =>
    line(
      `speed-${i}`,
      points.map((point) => [x(point), point.speedMps / unit]),
      i === 0,
      0,
    ),
  );
  const recorded = {
    ...line(
      'log',
      log.map(({ atM, speedMps }) => [atM / length, speedMps / unit]),
      false,
      0,
    ),
    lineStyle: { color: colours.ochre, width: 5, type: 'solid' as const, opacity: 0.35 },
    z: 2,
  };
  const revs = lines.map(({ points }, i) =>
    line(
      `rpm-${i}`,
      points.map((point) => [x(point), point.rpm]),
      i === 0,
      1,
    ),
  );
  const end = Math.max(1, ...lines.map(({ points }) => x(points.at(-1) ?? ({ distanceM: 0 } as PacePoint))));
  const fastest = [...lines.flatMap(({ points }) => points), ...log].map(({ speedMps }) => speedMps / unit);
  const most = Math.max(1, ...fastest);
  const scale = { max: end, interval: roundScale(end).interval };
  const limiter = {
    ...line(
      'limiter',
      [
        [0, limitRpm],
        [end, limitRpm],
      ],
      false,
      1,
    ),
    lineStyle: { color: colours.stop, width: 1, type: [5, 4] },
  };
  const numbered = {
    ...line(
      'corners',
      corners.map(({ atM, speedMps }) => [atM / length, speedMps / unit]),
      false,
      0,
    ),
    lineStyle: { width: 0 },
    symbol: 'circle',
    symbolSize: 4,
    itemStyle: { color: colours.ink },
    label: {
      show: true,
      position: 'bottom',
      distance: 3,
      formatter: ({ dataIndex }: { dataIndex: number }) => String(dataIndex + 1),
      color: colours.ink,
      fontFamily: MONO,
      fontSize: 11,
    },
    labelLayout: { hideOverlap: true },
    z: 5,
  };
  const grid = { outerBoundsMode: 'none', left: 66, right: 14 };
  const hidden = { axisLabel: { show: false }, name: '' };
  return {
    animation: false,
    grid: [
      { ...grid, top: 12, height: '40%' },
      { ...grid, bottom: 36, height: '30%' },
    ],
    xAxis: [
      chartAxis('', colours, { min: 0, ...scale, gridIndex: 0, ...hidden }),
      chartAxis(system === 'inch' ? 'along the course, ft' : 'along the course, m', colours, {
        min: 0,
        ...scale,
        gridIndex: 1,
        axisLabel: {
          color: colours.soft,
          fontFamily: MONO,
          fontSize: 11,
          showMaxLabel: false,
          formatter: (v: number) => String(Math.round(v)),
        },
      }),
    ],
    yAxis: [
      chartAxis(system === 'inch' ? 'mph' : 'km/h', colours, {
        min: 0,
        gridIndex: 0,
        nameGap: 46,
        ...roundScale(most * 1.03),
      }),
      chartAxis('rpm', colours, {
        min: 0,
        gridIndex: 1,
        nameGap: 46,
        max: Math.ceil((limitRpm * 1.08) / 2000) * 2000,
        interval: Math.ceil(limitRpm / 4 / 1000) * 1000,
        axisLabel: { color: colours.soft, fontFamily: MONO, fontSize: 11, formatter: (v: number) => String(v) },
      }),
    ],
    series: [...(log.length > 0 ? [recorded] : []), ...speeds, ...revs, limiter, numbered],
  } as unknown as ChartOption;
}
