import { formatIn, say, fromBase, type UnitSystem, scaleUnit } from '@hot-spline/core';
import type { LockPoint } from '@hot-spline/model';
import { MONO, chartAxis, type ChartOption, type chartColours } from '../shared/chart';

export interface LockPicture {
  readonly curve: readonly LockPoint[];
  readonly mostNm: number;
  readonly point: LockPoint;
  readonly system: UnitSystem;
  readonly colours: ReturnType<typeof chartColours>;
}

/** Locking torque against input torque; overrun to the left. Above the grey line nothing slips. */
export function lockOption({ curve, mostNm, point, system, colours }: LockPicture): ChartOption {
  const unit = scaleUnit('torque', system).unit;
  const torque = (nm: number): number => fromBase(nm, unit);
  const step = 10 ** Math.floor(Math.log10(torque(mostNm))) / 2;
  const most = Math.ceil(torque(mostNm) / step) * step;
  const line = (id: string, data: number[][], colour: string, width: number, type: 'solid' | number[]) => ({
    type: 'line',
    id,
    data,
    symbol: 'none',
    silent: true,
    animation: false,
    lineStyle: { color: colour, width, type },
  });
  const name = (text: string, x: number, y: number, colour: string) => ({
    coord: [x, y],
    symbolSize: 1,
    label: { show: true, formatter: text, position: 'right', distance: 2, color: colour, fontSize: 11.5 },
  });
  // Room for the longest number of the axis, and its name beyond it.
  const wide = 22 + 7 * String(Math.round(most)).length;
  return {
    animation: false,
    grid: { outerBoundsMode: 'none', left: wide + 18, right: 18, top: 18, bottom: 38 },
    xAxis: chartAxis(`overrun  ←  torque into the unit, ${unit}  →  power`, colours, { min: -most, max: most }),
    yAxis: chartAxis(`locking torque, ${unit}`, colours, { min: 0, max: most, nameGap: wide }),
    series: [
      {
        ...line(
          'spool',
          [
            [-most, most],
            [0, 0],
            [most, most],
          ],
          colours.soft,
          1.4,
          [6, 4],
        ),
        markPoint: {
          silent: true,
          animation: false,
          symbol: 'circle',
          data: [name('spool holds all', -most * 0.84, most * 0.9, colours.soft)],
        },
      },
      line(
        'open',
        [
          [-most, 0],
          [most, 0],
        ],
        colours.soft,
        1.4,
        [2, 3],
      ),
      line(
        'unit',
        curve.map((p) => [torque(p.inputNm), Math.min(torque(p.lockNm), most)]),
        colours.blue,
        2.6,
        'solid',
      ),
      {
        ...line('point', [[torque(point.inputNm), Math.min(torque(point.lockNm), most)]], colours.ochre, 0, 'solid'),
        // Its words lie over the lines.
        z: 10,
        symbol: 'circle',
        symbolSize: 12,
        itemStyle: { color: colours.ochre, borderColor: colours.sheet, borderWidth: 2 },
        label: {
          show: true,
          position: 'left',
          distance: 10,
          backgroundColor: colours.sheet,
          padding: [1, 3],
          formatter: `${formatIn(point.lockNm, 'torque', system, 0).text} of ${say(point.inputNm, 'torque', system, 0)}`,
          color: colours.ochreText,
          fontFamily: MONO,
          fontSize: 12,
        },
      },
    ],
  } as ChartOption;
}
