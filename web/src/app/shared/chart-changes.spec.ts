import { chartChanges, chartLayers, type ChartParts } from './chart-changes';

const parts = (...series: { id: string; data: number[] }[]): ChartParts => ({
  grid: { left: 1 },
  xAxis: { max: 10 },
  series,
});

describe('what the chart is handed', () => {
  it('is everything at first, and when other series are there', () => {
    const one = parts({ id: 'a', data: [1] });
    expect(chartChanges(null, one)).toEqual({ option: one, replace: true });
    const two = parts({ id: 'a', data: [1] }, { id: 'b', data: [2] });
    expect(chartChanges(one, two)).toEqual({ option: two, replace: true });
    expect(chartChanges(two, one).replace).toBeTrue();
    expect(chartChanges(two, parts({ id: 'b', data: [2] }, { id: 'a', data: [1] })).replace).toBeTrue();
  });

  it('is only what differs while the series stay', () => {
    const before = parts({ id: 'a', data: [1] }, { id: 'b', data: [2] });
    expect(chartChanges(before, parts({ id: 'a', data: [1] }, { id: 'b', data: [3] }))).toEqual({
      option: { series: [{ id: 'b', data: [3] }] },
      replace: false,
    });
    expect(chartChanges(before, { ...before, xAxis: { max: 20 } })).toEqual({
      option: { xAxis: { max: 20 } },
      replace: false,
    });
    expect(chartChanges(before, structuredClone(before)).option).toEqual({});
  });
});

describe('layers of a chart', () => {
  const picture: ChartParts = {
    grid: { left: 1 },
    xAxis: { min: 0, max: 10, name: 'speed' },
    yAxis: { min: 0, max: 5, name: 'rpm' },
    series: [{ id: 'still' }, { id: 'moves' }],
  };

  it('are one where nothing moves', () => {
    expect(chartLayers(picture, [])).toEqual([picture]);
  });

  it('put what moves above, on the same scales and without axes of its own', () => {
    const [below, above] = chartLayers(picture, ['moves']);
    expect(below?.series).toEqual([{ id: 'still' }]);
    expect(above).toEqual({
      grid: { left: 1 },
      xAxis: { min: 0, max: 10 },
      yAxis: { min: 0, max: 5 },
      series: [{ id: 'moves' }],
    });
  });

  it('leave the lower one alone while only the upper one changes', () => {
    const after = { ...picture, series: [{ id: 'still' }, { id: 'moves', data: [1] }] };
    const [before, now] = [chartLayers(picture, ['moves']), chartLayers(after, ['moves'])];
    expect(chartChanges(before[0] ?? null, now[0] ?? {})).toEqual({ option: {}, replace: false });
    expect(chartChanges(before[1] ?? null, now[1] ?? {}).option).toEqual({ series: [{ id: 'moves', data: [1] }] });
  });
});
