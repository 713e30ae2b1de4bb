import type { ChartParts } from './chart-changes';

type Pair = readonly (number | null)[];
interface LabelStyle {
  readonly show?: boolean;
  readonly formatter?: string;
  readonly color?: string;
  readonly fontFamily?: string;
  readonly fontSize?: number;
  readonly fontWeight?: number;
  readonly align?: CanvasTextAlign;
  /** Above, right, below, left, as in CSS. */
  readonly padding?: readonly number[];
}
interface PointItem {
  readonly value: Pair;
  readonly name?: string;
  readonly label?: LabelStyle;
}
/** The part of a line series of ECharts that is drawn here. */
interface MovingSeries {
  readonly data: readonly (Pair | PointItem)[];
  readonly lineStyle: {
    readonly color?: string;
    readonly width?: number;
    readonly opacity?: number;
    readonly type?: 'solid' | readonly number[];
  };
  readonly symbolSize?: number;
  readonly itemStyle?: { readonly color?: string; readonly borderColor?: string; readonly borderWidth?: number };
  readonly label?: LabelStyle;
}

/** Pixels between a point and a label above it that says nothing of its own. */
const ABOVE = 5;

const itemOf = (point: Pair | PointItem): PointItem => ('value' in point ? point : { value: point });

/**
 * What moves while something is dragged, drawn straight onto a canvas of its own above the chart and to its scale: at
 * every tick of a slider the chart itself would take longer than all the rest. Takes line series as ECharts does, with
 * lines, one size of dot and labels above the points.
 */
export class MovingLayer {
  private readonly canvas = document.createElement('canvas');
  private parts: ChartParts = {};

  constructor(private readonly element: HTMLElement) {
    this.canvas.style.cssText = 'position: absolute; inset: 0; width: 100%; height: 100%';
    element.append(this.canvas);
    this.resize();
  }

  show(parts: ChartParts): void {
    this.parts = parts;
    this.draw();
  }

  resize(): void {
    const { clientWidth, clientHeight } = this.element;
    const ratio = window.devicePixelRatio;
    this.canvas.width = Math.round(clientWidth * ratio);
    this.canvas.height = Math.round(clientHeight * ratio);
    this.draw();
  }

  dispose(): void {
    this.canvas.remove();
  }

  private draw(): void {
    const context = this.canvas.getContext('2d');
    const { grid, xAxis, yAxis, series } = this.parts as {
      grid?: { left: number; right: number; top: number; bottom: number };
      xAxis?: { min: number; max: number };
      yAxis?: { min: number; max: number };
      series?: readonly unknown[];
    };
    if (!context) return;
    const ratio = window.devicePixelRatio;
    const [width, height] = [this.canvas.width / ratio, this.canvas.height / ratio];
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, width, height);
    if (!grid || !xAxis || !yAxis || !series) return;
    const x = (value: number): number =>
      grid.left + ((value - xAxis.min) / (xAxis.max - xAxis.min)) * (width - grid.left - grid.right);
    const y = (value: number): number =>
      height - grid.bottom - ((value - yAxis.min) / (yAxis.max - yAxis.min)) * (height - grid.top - grid.bottom);
    for (const one of series as readonly MovingSeries[]) {
      const points = one.data.map((point) => {
        const { value, name, label } = itemOf(point);
        const [a = null, b = null] = value;
        return a === null || b === null ? null : { x: x(a), y: y(b), name, label };
      });
      drawLine(context, one, points);
      drawDots(context, one, points);
      for (const point of points) {
        const label = { ...one.label, ...point?.label };
        if (point && label.show) drawLabel(context, label, point, one.symbolSize ?? 0);
      }
    }
  }
}

interface Place {
  readonly x: number;
  readonly y: number;
  readonly name?: string | undefined;
}

function drawLine(
  context: CanvasRenderingContext2D,
  { lineStyle }: MovingSeries,
  points: readonly (Place | null)[],
): void {
  if (!lineStyle.width) return;
  context.beginPath();
  let pen = false;
  for (const point of points) {
    if (point && pen) context.lineTo(point.x, point.y);
    else if (point) context.moveTo(point.x, point.y);
    pen = point !== null;
  }
  context.setLineDash(typeof lineStyle.type === 'object' ? [...lineStyle.type] : []);
  context.globalAlpha = lineStyle.opacity ?? 1;
  context.lineWidth = lineStyle.width;
  context.strokeStyle = lineStyle.color ?? 'black';
  context.stroke();
  context.globalAlpha = 1;
}

function drawDots(
  context: CanvasRenderingContext2D,
  { itemStyle, symbolSize = 0 }: MovingSeries,
  points: readonly (Place | null)[],
): void {
  if (!itemStyle) return;
  context.setLineDash([]);
  for (const point of points) {
    if (!point) continue;
    context.beginPath();
    context.arc(point.x, point.y, symbolSize / 2, 0, 2 * Math.PI);
    context.fillStyle = itemStyle.color ?? 'black';
    context.fill();
    context.lineWidth = itemStyle.borderWidth ?? 0;
    context.strokeStyle = itemStyle.borderColor ?? 'black';
    if (context.lineWidth > 0) context.stroke();
  }
}

function drawLabel(
  context: CanvasRenderingContext2D,
  label: LabelStyle,
  { x, y, name = '' }: Place,
  size: number,
): void {
  const [, right = 0, bottom = ABOVE, left = 0] = label.padding ?? [];
  const align = label.align ?? 'center';
  context.font = `${label.fontWeight ?? 400} ${label.fontSize ?? 12}px ${label.fontFamily ?? 'sans-serif'}`;
  context.fillStyle = label.color ?? 'black';
  context.textAlign = align;
  context.textBaseline = 'bottom';
  const aside = align === 'right' ? -right : align === 'left' ? left : 0;
  context.fillText((label.formatter ?? '').replace('{b}', name), x + aside, y - size / 2 - bottom);
}
