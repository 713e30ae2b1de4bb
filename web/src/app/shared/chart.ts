import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  effect,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, MarkPointComponent } from 'echarts/components';
import { init, use, type ComposeOption, type ECharts } from 'echarts/core';
import type { LineSeriesOption } from 'echarts/charts';
import { chartChanges, chartLayers, type ChartParts } from './chart-changes';
import { MovingLayer } from './moving-layer';
import type { GridComponentOption } from 'echarts/components';
import { CanvasRenderer, SVGRenderer } from 'echarts/renderers';
import { drawnBy } from './drawings';

use([LineChart, GridComponent, MarkLineComponent, MarkPointComponent, CanvasRenderer, SVGRenderer]);

export type ChartOption = ComposeOption<LineSeriesOption | GridComponentOption>;

/** Colours of the theme in force, for the canvas. */
export function chartColours(): Record<
  'ink' | 'soft' | 'rule' | 'blue' | 'ochre' | 'stop' | 'fits' | 'sheet' | 'ochreText',
  string
> {
  const style = getComputedStyle(document.documentElement);
  const role = (name: string): string => style.getPropertyValue(`--${name}`).trim();
  return {
    ink: role('ink'),
    soft: role('soft'),
    rule: role('rule'),
    blue: role('blue'),
    ochre: role('ochre'),
    ochreText: role('ochre-text'),
    stop: role('stop'),
    fits: role('fits'),
    sheet: role('sheet'),
  };
}

export const MONO = "'Spline Sans Mono', monospace";

/** Axis in the house look. */
export function chartAxis(name: string, colours: ReturnType<typeof chartColours>, more: object = {}): object {
  return {
    type: 'value',
    name,
    nameLocation: 'middle',
    nameGap: 24,
    nameTextStyle: { color: colours.soft, fontFamily: "'Spline Sans', sans-serif", fontSize: 12 },
    axisLine: { lineStyle: { color: colours.rule } },
    axisTick: { lineStyle: { color: colours.rule } },
    axisLabel: {
      color: colours.soft,
      fontFamily: MONO,
      fontSize: 11,
      formatter: (value: number) => String(Math.round(value * 10) / 10),
    },
    splitLine: { lineStyle: { color: colours.rule, opacity: 0.45 } },
    ...more,
  };
}

/** A line chart drawn by ECharts. Pointing at it gives the point in the units of the axes. */
@Component({
  selector: 'hs-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div #canvas class="canvas" role="img" [attr.aria-label]="label()">
      <div #base class="layer"></div>
      @if (moving().length) {
        <div #over class="layer"></div>
      }
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      width: 100%;
      height: 100%;
      min-height: 120px;
      overflow: hidden;
    }
    .canvas {
      flex: 1;
      position: relative;
      min-height: 0;
      width: 100%;
    }
    .layer {
      position: absolute;
      inset: 0;
    }
    :host(.grab) .canvas {
      cursor: crosshair;
      touch-action: pan-y;
    }
  `,
})
export class Chart {
  readonly option = input.required<ChartOption>();
  readonly label = input.required<string>();
  /**
   * Ids of the series that move while something is dragged: they are drawn on a layer of their own, so that a tick does
   * not lay out axes and draw again what stands still.
   */
  readonly moving = input<readonly string[]>([]);
  /** While the pointer is down. */
  readonly dragged = output<{ x: number; y: number }>();
  readonly dropped = output<void>();

  private readonly host: Element = inject(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLDivElement>>('canvas');
  private readonly base = viewChild.required<ElementRef<HTMLDivElement>>('base');
  private readonly over = viewChild<ElementRef<HTMLDivElement>>('over');
  private layer: Layer | null = null;
  private above: MovingLayer | null = null;

  constructor() {
    const destroy = inject(DestroyRef);
    afterNextRender(() => {
      const element = this.canvas().nativeElement;
      const over = this.over()?.nativeElement;
      this.layer = new Layer(this.base().nativeElement);
      if (over) this.above = new MovingLayer(over);
      this.show();
      drawnBy(this.host, () => this.svg(element));
      const observer = new ResizeObserver(() =>
        requestAnimationFrame(() => {
          this.layer?.resize();
          this.above?.resize();
        }),
      );
      observer.observe(element);
      let down = false;
      const point = (event: PointerEvent): void => {
        const box = element.getBoundingClientRect();
        const value = this.layer?.at(event.clientX - box.left, event.clientY - box.top);
        this.dragged.emit({ x: value?.[0] ?? 0, y: value?.[1] ?? 0 });
      };
      element.addEventListener('pointerdown', (event) => {
        down = true;
        element.setPointerCapture(event.pointerId);
        point(event);
      });
      element.addEventListener('pointermove', (event) => {
        if (down) point(event);
      });
      for (const end of ['pointerup', 'pointercancel'] as const) {
        element.addEventListener(end, () => {
          if (down) this.dropped.emit();
          down = false;
        });
      }
      destroy.onDestroy(() => {
        observer.disconnect();
        this.layer?.dispose();
        this.above?.dispose();
      });
    });
    effect(() => {
      this.option();
      this.show();
    });
  }

  /** The whole picture, layers together, as it is now. */
  private svg({ clientWidth: width, clientHeight: height }: Element): string {
    const chart = init(null, null, { renderer: 'svg', ssr: true, width, height });
    chart.setOption({ animation: false, backgroundColor: chartColours().sheet, ...this.option() });
    const svg = chart.renderToSVGString();
    chart.dispose();
    return svg;
  }

  private show(): void {
    const parts = chartLayers(this.option() as ChartParts, this.moving());
    this.layer?.show(parts[0] ?? {});
    this.above?.show(parts[1] ?? {});
  }
}

/** One canvas, handed only what changed. */
class Layer {
  private readonly chart: ECharts;
  private shown: ChartParts | null = null;

  constructor(element: HTMLDivElement) {
    this.chart = init(element, null, { renderer: 'canvas' });
  }

  show(parts: ChartParts): void {
    const { option, replace } = chartChanges(this.shown, parts);
    this.shown = parts;
    if (!replace && Object.keys(option).length === 0) return;
    this.chart.setOption(option, replace ? { replaceMerge: ['series'] } : {});
    // Drawn now, not in the frame after the next: what is dragged must follow the hand.
    this.chart.getZr().flush();
  }

  at(x: number, y: number): number[] {
    return this.chart.convertFromPixel({ gridIndex: 0 }, [x, y]) as number[];
  }

  resize(): void {
    if (!this.chart.isDisposed()) this.chart.resize();
  }

  dispose(): void {
    this.chart.dispose();
  }
}
