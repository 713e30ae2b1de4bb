import { say, type UnitSystem } from '@hot-spline/core';
import { MONO, chartAxis, type ChartOption, type chartColours } from '../shared/chart';
import { roundScale } from './fan-chart';

export interface LadderColumn {
  readonly speedMps: number;
  /** As typed, where it was. */
  readonly label: string;
  readonly rungs: readonly { readonly gear: string; readonly rpm: number }[];
}

export interface LadderPicture {
  readonly columns: readonly LadderColumn[];
  readonly limitRpm: number;
  readonly window: { readonly lowRpm: number; readonly highRpm: number };
  readonly system: UnitSystem;
  readonly colours: ReturnType<typeof chartColours>;
}

/** Which rungs speak to the left: the second of two that are so near that their words would stand on each other. */
function leaning(rpm: readonly number[], near: number): boolean[] {
  const left: boolean[] = [];
  rpm.forEach((one, i) => left.push(i > 0 && Math.abs(one - (rpm[i - 1] ?? 0)) < near && !left[i - 1]));
  return left;
}

/** Engine speed in every gear at chosen road speeds: one column a speed, one rung a gear. */
export function ladderOption({ columns, limitRpm, window, system, colours }: LadderPicture): ChartOption {
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
  const scale = { max: limitRpm * 1.15, interval: roundScale(limitRpm).interval };
  const count = columns.length;
  const rungs = columns.flatMap(({ rungs: list }, i) => {
    const seen = list.filter(({ rpm }) => rpm <= scale.max);
    const left = leaning(
      seen.map(({ rpm }) => rpm),
      scale.max * 0.05,
    );
    return seen.map(({ gear, rpm }, k) => {
      const inside = rpm >= window.lowRpm && rpm <= window.highRpm;
      return {
        value: [i + 1, rpm],
        symbol: rpm > limitRpm ? 'emptyCircle' : 'circle',
        symbolSize: inside ? 11 : 8,
        itemStyle: { color: rpm > limitRpm ? colours.stop : inside ? colours.blue : colours.soft },
        label: {
          show: true,
          position: left[k] ? 'left' : 'right',
          distance: 6,
          formatter: `${gear} ${Math.round(rpm)}`,
          color: rpm > limitRpm ? colours.stop : colours.ink,
          fontFamily: MONO,
          fontSize: 11,
          fontWeight: inside ? 600 : 400,
        },
      };
    });
  });
  const rails = columns.map((_, i) =>
    line(
      `rail-${i}`,
      [
        [i + 1, 0],
        [i + 1, scale.max],
      ],
      { color: colours.rule, width: 1.5 },
    ),
  );
  const across = (id: string, rpm: number, colour: string, text: string, under = false) =>
    line(
      id,
      [
        [0.5, rpm],
        {
          value: [count + 0.95, rpm],
          symbol: 'circle',
          symbolSize: 1,
          // Beside the picture, so that it stands on no rung; what is near above and below leans away.
          label: {
            show: true,
            position: 'right',
            align: 'left',
            distance: 4,
            verticalAlign: under ? 'top' : 'bottom',
            formatter: text,
            color: colour,
            fontSize: 11,
            fontFamily: MONO,
          },
        },
      ],
      { color: colour, width: 1, type: [5, 4] },
    );
  return {
    animation: false,
    grid: { outerBoundsMode: 'none', left: 52, right: 96, top: 16, bottom: 38 },
    xAxis: chartAxis('road speed', colours, {
      min: 0.5,
      max: count + 0.95,
      interval: 1,
      splitLine: { show: false },
      axisLabel: {
        color: colours.ink,
        fontFamily: MONO,
        fontSize: 12,
        customValues: columns.map((_, i) => i + 1),
        formatter: (value: number) => {
          const column = columns[value - 1];
          return column ? say(column.speedMps, 'speed', system, 0) : '';
        },
      },
    }),
    yAxis: chartAxis('', colours, {
      min: 0,
      ...scale,
      axisLabel: {
        color: colours.soft,
        fontFamily: MONO,
        fontSize: 11,
        showMaxLabel: false,
        formatter: (v: number) => String(v),
      },
    }),
    series: [
      ...rails,
      across('limiter', limitRpm, colours.stop, `limiter ${Math.round(limitRpm)}`),
      across('low', window.lowRpm, colours.fits, `from ${Math.round(window.lowRpm)}`, true),
      across('high', window.highRpm, colours.fits, `to ${Math.round(window.highRpm)}`, true),
      line('rungs', rungs, { width: 0 }, { showSymbol: true }),
    ],
  } as ChartOption;
}
