import { enginePower, formatIn, type TorquePoint, type UnitSystem } from '@hot-spline/core';
import { chartAxis, type ChartOption, type chartColours } from '../shared/chart';

const WATT_PER_HP = 745.69987;

/** Torque and power at full load against engine speed. */
export function torqueOption(
  curve: readonly TorquePoint[],
  limitRpm: number,
  system: UnitSystem,
  colours: ReturnType<typeof chartColours>,
): ChartOption {
  const torque = (nm: number): number => Number(formatIn(nm, 'torque', system, 1).text.replace(/[^\d.]/g, ''));
  const power = (watt: number): number => (system === 'inch' ? watt / WATT_PER_HP : watt / 1000);
  const fine = curve.flatMap((point, i) => {
    const next = curve[i + 1];
    if (!next) return [point];
    return Array.from({ length: 8 }, (_, k) => ({
      rpm: point.rpm + ((next.rpm - point.rpm) * k) / 8,
      torqueNm: point.torqueNm + ((next.torqueNm - point.torqueNm) * k) / 8,
    }));
  });
  const line = (id: string, data: number[][], colour: string, axis: number, dashed: boolean, symbol: string) => ({
    type: 'line',
    id,
    data,
    yAxisIndex: axis,
    symbol,
    symbolSize: 6,
    silent: true,
    animation: false,
    itemStyle: { color: colour },
    lineStyle: { color: colour, width: 2, type: dashed ? [6, 4] : 'solid' },
  });
  return {
    animation: false,
    grid: { outerBoundsMode: 'none', left: 56, right: 56, top: 24, bottom: 38 },
    xAxis: chartAxis('engine speed, rpm', colours, { max: Math.ceil(limitRpm / 500) * 500 }),
    yAxis: [
      chartAxis(system === 'inch' ? 'torque, lbf·ft' : 'torque, N·m', colours, { nameGap: 38 }),
      chartAxis(system === 'inch' ? 'power (dashed), hp' : 'power (dashed), kW', colours, {
        nameGap: 38,
        splitLine: { show: false },
      }),
    ],
    series: [
      line(
        'torque',
        curve.map((p) => [p.rpm, torque(p.torqueNm)]),
        colours.blue,
        0,
        false,
        'circle',
      ),
      line(
        'power',
        fine.map((p) => [p.rpm, power(enginePower(p.torqueNm, p.rpm))]),
        colours.ochre,
        1,
        true,
        'none',
      ),
      {
        type: 'line',
        id: 'limit',
        data: [],
        animation: false,
        markLine: {
          silent: true,
          symbol: 'none',
          animation: false,
          label: { show: true, formatter: 'limiter', color: colours.stop, fontSize: 11 },
          lineStyle: { color: colours.stop, type: 'dashed' },
          data: [{ xAxis: limitRpm }],
        },
      },
    ],
  } as ChartOption;
}
