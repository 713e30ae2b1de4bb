import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { CollapsibleNext } from '@hot-spline/core';
import { turningText } from '@hot-spline/model';
import { Bench } from '../state/bench';

const BOX = { left: 70, right: 470, top: 12, bottom: 172 } as const;

/** Turning torque against nut angle: the band, every reading, the knee, and how far it may be turned next. */
@Component({
  selector: 'hs-crush-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 480 200" role="img" [attr.aria-label]="said()">
      <rect class="box" x="70" y="12" width="400" height="160" />
      <rect class="band" x="70" width="400" [attr.y]="y(band()[1])" [attr.height]="y(band()[0]) - y(band()[1])" />
      <text x="66" [attr.y]="y(band()[1]) + 4" text-anchor="end">{{ text(band()[1]) }}</text>
      <text x="66" [attr.y]="y(band()[0]) + 4" text-anchor="end">{{ text(band()[0]) }}</text>
      @if (next()?.kneeDeg !== null && next()?.kneeDeg !== undefined && (next()?.chanceRising ?? 0) > 0.5) {
        <path class="knee" [attr.d]="'M' + x(next()!.kneeDeg!) + ' 12V172'" />
        <text [attr.x]="x(next()!.kneeDeg!)" y="24" text-anchor="middle">knee</text>
      }
      <polyline class="read" [attr.points]="line()" />
      @for (p of reads(); track $index) {
        <circle class="point" r="4" [attr.cx]="x(p.angleDeg)" [attr.cy]="y(p.nm)" />
      }
      @if (ahead(); as a) {
        <path class="spread" [attr.d]="a.spread" />
        <circle class="next" r="6" [attr.cx]="a.x" [attr.cy]="a.y" />
      }
      @for (tick of ticks(); track tick) {
        <text [attr.x]="x(tick)" y="186" text-anchor="middle">{{ tick }}°</text>
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-width: 620px;
    }
    .box {
      fill: none;
      stroke: var(--rule);
    }
    .band {
      fill: var(--blue-wash);
    }
    .knee {
      stroke: var(--soft);
      stroke-dasharray: 3 3;
    }
    .read {
      fill: none;
      stroke: var(--blue);
      stroke-width: 1.8;
    }
    .point {
      fill: var(--blue);
    }
    .spread {
      stroke: var(--ochre);
      stroke-width: 2;
    }
    .next {
      fill: var(--ochre-wash);
      stroke: var(--ochre);
      stroke-width: 2;
    }
    text {
      font: 10px var(--mono);
      fill: var(--soft);
    }
  `,
})
export class CrushChart {
  readonly reads = input.required<readonly { readonly angleDeg: number; readonly nm: number }[]>();
  readonly band = input.required<readonly [number, number]>();
  readonly next = input<CollapsibleNext | null>(null);
  private readonly system = inject(Bench).system;

  private readonly ends = computed(() => {
    const angles = [...this.reads().map(({ angleDeg }) => angleDeg), this.next()?.nextAngleDeg ?? 0];
    const most = Math.max(this.band()[1] * 1.25, ...this.reads().map(({ nm }) => nm * 1.1));
    const [from, to] = [Math.min(...angles), Math.max(...angles)];
    return { from, to: Math.max(to, from + 90) + 15, most };
  });
  protected x(angle: number): number {
    const { from, to } = this.ends();
    return BOX.left + ((angle - from) / (to - from)) * (BOX.right - BOX.left);
  }
  protected y(nm: number): number {
    return BOX.bottom - (nm / this.ends().most) * (BOX.bottom - BOX.top);
  }
  protected readonly line = computed(() =>
    this.reads()
      .map(({ angleDeg, nm }) => `${this.x(angleDeg)},${this.y(nm)}`)
      .join(' '),
  );
  protected readonly ahead = computed(() => {
    const next = this.next();
    if (typeof next?.nextAngleDeg !== 'number' || next.expectedNm === null) return null;
    const x = this.x(next.nextAngleDeg);
    const off = 2 * (next.deviationNm ?? 0);
    return {
      x,
      y: this.y(next.expectedNm),
      spread: `M${x} ${this.y(next.expectedNm - off)}V${this.y(next.expectedNm + off)}`,
    };
  });
  protected readonly ticks = computed(() => {
    const { from, to } = this.ends();
    const step = to - from > 400 ? 90 : to - from > 150 ? 45 : 30;
    const first = Math.ceil(from / step) * step;
    return Array.from({ length: Math.floor((to - first) / step) + 1 }, (_, i) => first + i * step);
  });
  protected text(nm: number): string {
    return turningText(nm, this.system());
  }
  protected readonly said = computed(() => {
    const read = this.reads().map(({ angleDeg, nm }) => `${this.text(nm)} at ${angleDeg}°`);
    return `Turning torque against nut angle: ${read.join(', ') || 'not read'}`;
  });
}
