import { scaleUnit, say, toBase, type UnitSystem } from '@hot-spline/core';
import type { FanGear } from '@hot-spline/model';
import { MONO, chartAxis, type ChartOption, type chartColours } from '../shared/chart';

export interface FanLine {
  readonly label: string;
  readonly present: boolean;
  /** The one candidate that stands out of the others. */
  readonly picked?: boolean;
  readonly gears: readonly FanGear[];
}

export interface FanPicture {
  readonly finals: readonly FanLine[];
  readonly limitRpm: number;
  readonly stallRpm: number | null;
  readonly cruiseMps: number;
  readonly point: { readonly mps: number; readonly rpm: number };
  readonly system: UnitSystem;
  readonly colours: ReturnType<typeof chartColours>;
  /** The speed axis reaches at least this far. */
  readonly reachMps: number;
  /** Room is scarce: fewer labels. */
  readonly narrow: boolean;
}

/** Metres per second in one unit of the axis. */
export const speedUnit = (system: UnitSystem): number => toBase(1, scaleUnit('speed', system).unit);

/** Dash patterns that tell the candidates apart without colour. */
export const DASHES: readonly (number[] | 'solid')[] = ['solid', [7, 3], [2, 3], [10, 3, 2, 3], [4, 6]];

/** Series that move with the final drive and the operating point. */
export const FAN_MOVES: readonly string[] = ['fan-0', 'drops', 'names', 'speed', 'rpm', 'cursor'];

/** A round step and an end on it, so that some five steps reach past `value`. */
export function roundScale(value: number): { max: number; interval: number } {
  const power = 10 ** Math.floor(Math.log10(value / 5));
  const interval = [1, 2, 2.5, 5, 10].map((step) => step * power).find((step) => step * 5.6 >= value) ?? 10 * power;
  return { max: Math.ceil(value / interval) * interval, interval };
}

/** Speed at the limiter of the fastest gear of all, m/s. */
export const fastestOf = (finals: readonly FanLine[]): number =>
  Math.max(0, ...finals.flatMap((final) => final.gears.map((gear) => gear.limitMps)));

/** Road speed against engine speed in every gear, one fan a final drive; the present one with its shift drops. */
export function fanOption(picture: FanPicture): ChartOption {
  const { finals, limitRpm, system, colours, point } = picture;
  const unit = speedUnit(system);
  const speed = (mps: number): number => mps / unit;
  const fastest = Math.max(picture.reachMps, fastestOf(finals));
  const shown = say(point.mps, 'speed', system);
  // The two labels above the picture must not stand on each other.
  const near = Math.abs(point.mps - picture.cruiseMps) < 0.16 * fastest;
  const beside =
    point.mps < picture.cruiseMps
      ? { align: 'right', padding: [0, 26, 6, 0] }
      : { align: 'left', padding: [0, 0, 6, 26] };

  // Few series with gaps, and no marking components: several times cheaper to redraw at every tick of a slider.
  const gap = [null, null];
  const line = (id: string, data: (number | null)[][], lineStyle: object) => ({
    type: 'line' as const,
    id,
    data,
    symbol: 'none',
    silent: true,
    animation: false,
    clip: false,
    emphasis: { disabled: true },
    lineStyle,
  });
  const fans = finals.map((final, f) => ({
    ...line(
      `fan-${f}`,
      final.gears.flatMap((gear) => [[0, 0], [speed(gear.limitMps), limitRpm], gap]),
      {
        color: final.present ? colours.blue : final.picked ? colours.ink : colours.soft,
        width: final.present ? 2.2 : final.picked ? 1.4 : 0.9,
        opacity: final.present || final.picked ? 1 : 0.35,
        type: DASHES[f] ?? 'solid',
      },
    ),
    z: final.present ? 3 : 2,
  }));
  const gears = finals.find((final) => final.present)?.gears ?? [];
  const drops = line(
    'drops',
    gears.flatMap((gear) =>
      gear.afterShiftRpm === null
        ? []
        : [[speed(gear.limitMps), limitRpm], [speed(gear.limitMps), gear.afterShiftRpm], gap],
    ),
    { color: colours.blue, width: 1.2, type: [3, 3] },
  );

  const scale = { x: roundScale(speed(fastest) * 1.02), y: roundScale(limitRpm * 1.04) };
  const most = { x: scale.x.max, y: scale.y.max };
  /** A straight mark with its name at its last point. */
  const mark = (
    id: string,
    [from, to]: [number[], number[]],
    colour: string,
    style: object,
    name: string,
    label: object,
  ) => ({
    ...line(id, [], { color: colour, width: 1, type: [5, 4], ...style }),
    data: [
      { value: from, symbol: 'none' },
      {
        value: to,
        symbol: name === '' ? 'none' : 'circle',
        label: { show: name !== '', formatter: name, color: colour, fontFamily: MONO, fontSize: 11, ...label },
      },
    ],
    symbol: 'circle',
    symbolSize: 1,
    z: 4,
  });
  const across = {
    position: 'left',
    distance: 0,
    verticalAlign: 'bottom',
    padding: [4, 3, 4, 3],
    backgroundColor: colours.sheet,
  };
  const marks = [
    mark(
      'limiter',
      [
        [0, limitRpm],
        [most.x, limitRpm],
      ],
      colours.stop,
      {},
      `limiter\n${Math.round(limitRpm)}`,
      // Beside the picture: along the line stand the gears and their names.
      { position: 'right', distance: 4, align: 'left', verticalAlign: 'middle', lineHeight: 14 },
    ),
    mark(
      'cruise',
      [
        [speed(picture.cruiseMps), 0],
        [speed(picture.cruiseMps), most.y],
      ],
      colours.fits,
      {},
      'cruise',
      {
        align: 'center',
        verticalAlign: 'bottom',
        distance: 0,
        padding: [0, 0, 6, 0],
      },
    ),
    mark(
      'speed',
      [
        [speed(point.mps), 0],
        [speed(point.mps), most.y],
      ],
      colours.ochre,
      { width: 1.5, type: 'solid' },
      shown,
      {
        color: colours.ochreText,
        fontSize: 12,
        verticalAlign: 'bottom',
        distance: 0,
        ...(near ? beside : { align: 'center', padding: [0, 0, 6, 0] }),
      },
    ),
    mark(
      'rpm',
      [
        [0, point.rpm],
        [most.x, point.rpm],
      ],
      colours.ochre,
      { type: [1, 3] },
      '',
      {},
    ),
    ...(picture.stallRpm === null
      ? []
      : [
          mark(
            'stall',
            [
              [0, picture.stallRpm + 500],
              [most.x, picture.stallRpm + 500],
            ],
            colours.ochreText,
            {},
            picture.narrow ? 'stall + 500' : `stall ${picture.stallRpm} + 500`,
            across,
          ),
        ]),
  ];
  const names = {
    ...line('names', [], { width: 0 }),
    data: gears.map((gear) => ({ name: gear.gear, value: [speed(gear.limitMps), limitRpm] })),
    symbol: 'circle',
    symbolSize: 1,
    label: {
      show: true,
      formatter: '{b}',
      position: 'top',
      color: colours.ink,
      fontFamily: MONO,
      fontSize: 12,
      fontWeight: 500,
    },
  };
  const cursor = {
    ...line('cursor', [[speed(point.mps), point.rpm]], { width: 0 }),
    z: 5,
    symbol: 'circle',
    symbolSize: 12,
    itemStyle: { color: colours.ochre, borderColor: colours.sheet, borderWidth: 2 },
  };

  return {
    animation: false,
    grid: { outerBoundsMode: 'none', left: 46, right: 60, top: 24, bottom: 38 },
    xAxis: chartAxis(system === 'inch' ? 'road speed, mph' : 'road speed, km/h', colours, {
      min: 0,
      ...scale.x,
    }),
    yAxis: chartAxis('', colours, {
      min: 0,
      ...scale.y,
      axisLabel: { color: colours.soft, fontFamily: MONO, fontSize: 11, formatter: (v: number) => String(v) },
    }),
    series: [...fans, drops, ...marks, names, cursor],
  } as ChartOption;
}
