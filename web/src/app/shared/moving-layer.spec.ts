import { MovingLayer } from './moving-layer';

describe('the layer of what moves', () => {
  let element: HTMLDivElement;
  let layer: MovingLayer;
  const scale = {
    grid: { left: 20, right: 20, top: 10, bottom: 10 },
    xAxis: { min: 0, max: 10 },
    yAxis: { min: 0, max: 100 },
  };

  beforeEach(() => {
    element = document.createElement('div');
    element.style.cssText = 'position: relative; width: 240px; height: 120px';
    document.body.append(element);
    layer = new MovingLayer(element);
  });

  afterEach(() => {
    layer.dispose();
    element.remove();
  });

  /** Whether anything is drawn within a pixel of a place, in CSS pixels. */
  function inked(x: number, y: number): boolean {
    const canvas = element.querySelector('canvas');
    const ratio = window.devicePixelRatio;
    const box = canvas?.getContext('2d')?.getImageData((x - 1) * ratio, (y - 1) * ratio, 3 * ratio, 3 * ratio);
    return [...(box?.data ?? [])].some((value, i) => i % 4 === 3 && value > 0);
  }

  const line = (data: (number | null)[][]) => ({
    id: 'a',
    data,
    lineStyle: { color: '#123456', width: 2 },
  });

  it('draws lines to the scale of the chart, with their gaps', () => {
    layer.show({
      ...scale,
      series: [
        line([
          [0, 0],
          [5, 50],
          [null, null],
          [7.5, 50],
          [10, 50],
        ]),
      ],
    });
    expect(inked(20, 110)).toBeTrue(); // the origin: left edge, height less bottom edge [exact]
    expect(inked(120, 60)).toBeTrue(); // the middle of both axes
    expect(inked(145, 60)).withContext('the gap').toBeFalse();
    expect(inked(200, 60)).toBeTrue();
  });

  it('draws anew at each change, and after the room has changed', () => {
    layer.show({
      ...scale,
      series: [
        line([
          [5, 0],
          [5, 100],
        ]),
      ],
    });
    layer.show({
      ...scale,
      series: [
        line([
          [2.5, 0],
          [2.5, 100],
        ]),
      ],
    });
    expect(inked(120, 60)).toBeFalse();
    expect(inked(70, 60)).toBeTrue();
    element.style.width = '440px';
    layer.resize();
    expect(inked(120, 60)).toBeTrue();
    expect(inked(70, 60)).toBeFalse();
  });

  it('draws a dot on its point and a label above it', () => {
    layer.show({
      ...scale,
      series: [
        {
          id: 'cursor',
          data: [{ name: '3', value: [5, 50] }],
          lineStyle: { width: 0 },
          symbolSize: 12,
          itemStyle: { color: '#a60', borderColor: '#fff', borderWidth: 2 },
          label: { show: true, formatter: 'MMMM{b}', color: '#000', fontSize: 14 },
        },
      ],
    });
    expect(inked(120, 60)).toBeTrue();
    expect(inked(120, 43)).withContext('text above the dot').toBeTrue();
    expect(inked(120, 80)).toBeFalse();
  });

  it('is empty where nothing moves', () => {
    layer.show({
      ...scale,
      series: [
        line([
          [0, 50],
          [10, 50],
        ]),
      ],
    });
    layer.show({});
    expect(inked(120, 60)).toBeFalse();
  });
});
