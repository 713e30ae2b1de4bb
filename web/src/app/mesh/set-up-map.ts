import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatIn, unitLabel, type MapPoint, type MeshMap } from '@hot-spline/core';
import { Bench } from '../state/bench';

const BOX = { left: 46, right: 392, top: 14, bottom: 190 } as const;

/** A pack this near stands for a place on the map. */
const NEAR_MM = 0.0127;

/** Round ticks over a range, at most six. */
function ticks(low: number, high: number): number[] {
  const raw = (high - low) / 5;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 5, 10].map((n) => n * power).find((one) => one >= raw) ?? raw;
  const from = Math.ceil(low / step);
  return Array.from({ length: Math.floor(high / step) - from + 1 }, (_, i) => (from + i) * step);
}

/** Pinion shim against ring position: the window that is in spec, every try, where the next one goes. */
@Component({
  selector: 'hs-set-up-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 400 222" role="img" [attr.aria-label]="said()">
      <rect
        class="box"
        [attr.x]="box.left"
        [attr.y]="box.top"
        [attr.width]="box.right - box.left"
        [attr.height]="box.bottom - box.top"
      />
      @for (tick of axes().x; track tick.at) {
        <path class="grid" [attr.d]="'M' + tick.at + ' 14V190'" />
        <text [attr.x]="tick.at" y="203" text-anchor="middle">{{ tick.text }}</text>
      }
      @for (tick of axes().y; track tick.at) {
        <path class="grid" [attr.d]="'M46 ' + tick.at + 'H392'" />
        <text x="42" [attr.y]="tick.at + 4" text-anchor="end">{{ tick.text }}</text>
      }
      <text class="name" x="392" y="217" text-anchor="end">pinion shim, {{ axes().unit }}</text>
      <text class="name" x="50" y="25">ring to the pinion, {{ axes().unit }}</text>
      <g clip-path="inset(0)">
        @for (gap of gaps(); track $index) {
          <rect class="none" [attr.x]="gap.x" y="14" [attr.width]="gap.width" height="176" />
        }
        @for (at of buildable(); track $index) {
          <path class="exists" [attr.d]="'M' + at + ' 184V190'" />
        }
        @for (at of notches(); track $index) {
          <path class="exists" [attr.d]="'M46 ' + at + 'h6'" />
        }
        @if (window(); as w) {
          <polygon class="window" [attr.points]="w.points" />
          <text class="in-spec" [attr.x]="w.x" [attr.y]="w.y" text-anchor="middle">in spec</text>
        }
        <polyline class="way" [attr.points]="way()" />
        @if (spread(); as e) {
          <ellipse class="spread" [attr.rx]="e.rx" [attr.ry]="e.ry" [attr.transform]="e.transform" />
        }
        @for (p of tries(); track $index) {
          <circle class="try" r="9" [attr.cx]="p.x" [attr.cy]="p.y" />
          <text class="number" [attr.x]="p.x" [attr.y]="p.y + 4" text-anchor="middle">{{ p.name }}</text>
        }
        @if (nextAt(); as p) {
          <circle class="next" r="10" [attr.cx]="p.x" [attr.cy]="p.y" />
          <text class="next-name" [attr.x]="p.x" [attr.y]="p.y + 4" text-anchor="middle">{{ nextName() }}</text>
        }
      </g>
    </svg>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    svg {
      display: block;
      width: 100%;
    }
    .box {
      fill: none;
      stroke: var(--rule);
    }
    .grid {
      stroke: var(--rule);
      stroke-width: 0.6;
    }
    .window {
      fill: var(--blue-wash);
      stroke: var(--blue);
    }
    .in-spec {
      fill: var(--blue);
      font: 11px var(--sans);
    }
    .way {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    .none {
      fill: var(--rule);
      opacity: 0.45;
    }
    .exists {
      stroke: var(--soft);
    }
    .spread {
      fill: none;
      stroke: var(--ochre);
      vector-effect: non-scaling-stroke;
    }
    .try {
      fill: var(--ink);
    }
    .number {
      fill: var(--sheet);
      font-weight: 600;
    }
    .next {
      fill: var(--ochre-wash);
      stroke: var(--ochre);
      stroke-width: 2;
    }
    .next-name {
      fill: var(--ochre-text);
      font-weight: 700;
    }
    text {
      font: 10px var(--mono);
      fill: var(--soft);
    }
    .name {
      font-family: var(--sans);
    }
  `,
})
export class SetUpMap {
  readonly map = input.required<MeshMap>();
  /** Number of the assembly of each try. */
  readonly numbers = input.required<readonly number[]>();
  readonly next = input<MapPoint | null>(null);
  readonly nextName = input('');
  /** Sums of pinion shims that the drawer can build; nothing where any can be had. */
  readonly shims = input<readonly number[]>([]);
  /** Travel of the ring for one notch on both sides; null where it stands anywhere. */
  readonly notchMm = input<number | null>(null);
  protected readonly box = BOX;
  private readonly system = inject(Bench).system;

  /** What is shown: every try, the next one and the window near them. */
  private readonly view = computed(() => {
    const { tries, target, window } = this.map();
    const next = this.next();
    const must = [...tries, target, ...(next ? [next] : [])];
    const range = (of: (point: MapPoint) => number): [number, number] => {
      const all = must.map(of);
      const [low, high] = [Math.min(...all), Math.max(...all)];
      const near = window.map(of).filter((mm) => mm > low - 0.3 && mm < high + 0.3);
      const [from, to] = [Math.min(low, ...near), Math.max(high, ...near)];
      const room = Math.max(0.06, 0.12 * (to - from));
      return [from - room, to + room];
    };
    return { x: range(({ pinionShimMm }) => pinionShimMm), y: range(({ ringShiftMm }) => ringShiftMm) };
  });
  private readonly scale = computed(() => {
    const { x, y } = this.view();
    return { x: (BOX.right - BOX.left) / (x[1] - x[0]), y: (BOX.bottom - BOX.top) / (y[1] - y[0]) };
  });

  private spot({ pinionShimMm, ringShiftMm }: MapPoint): { x: number; y: number } {
    const [view, scale] = [this.view(), this.scale()];
    return {
      x: BOX.left + (pinionShimMm - view.x[0]) * scale.x,
      y: BOX.bottom - (ringShiftMm - view.y[0]) * scale.y,
    };
  }

  protected readonly axes = computed(() => {
    const { x, y } = this.view();
    const unit = formatIn(1, 'length', this.system(), undefined, 'small').unit;
    const per = unit === 'thou' ? 0.0254 : 1;
    const of = (range: readonly [number, number], at: (mm: number) => number) =>
      ticks(range[0] / per, range[1] / per).map((n) => ({
        at: at(n * per),
        text: per === 1 ? n.toFixed(2) : String(Math.round(n)),
      }));
    return {
      unit: unitLabel(unit),
      x: of(x, (mm) => this.spot({ pinionShimMm: mm, ringShiftMm: 0 }).x),
      y: of(y, (mm) => this.spot({ pinionShimMm: 0, ringShiftMm: mm }).y),
    };
  });
  protected readonly tries = computed(() =>
    this.map().tries.map((point, i) => ({ ...this.spot(point), name: this.numbers()[i] ?? i + 1 })),
  );
  protected readonly way = computed(() =>
    this.tries()
      .map(({ x, y }) => `${x},${y}`)
      .join(' '),
  );
  protected readonly nextAt = computed(() => {
    const next = this.next();
    return next && this.spot(next);
  });
  protected readonly window = computed(() => {
    const corners = this.map().window.map((corner) => this.spot(corner));
    if (corners.length < 3) return null;
    return {
      points: corners.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '),
      x: corners.reduce((sum, { x }) => sum + x, 0) / corners.length,
      y: Math.max(BOX.top + 10, Math.min(...corners.map(({ y }) => y)) - 4),
    };
  });
  protected readonly spread = computed(() => {
    const { target, spread } = this.map();
    const { x, y } = this.spot(target);
    const scale = this.scale();
    // Axes of the picture are stretched differently: drawn in mm, then stretched.
    return {
      rx: Math.max(spread.majorMm, 0.002),
      ry: Math.max(spread.minorMm, 0.002),
      transform: `translate(${x} ${y}) scale(${scale.x} ${-scale.y}) rotate(${spread.angleDeg})`,
    };
  });
  protected readonly buildable = computed(() => {
    const { x } = this.view();
    return this.shims()
      .filter((mm) => mm >= x[0] && mm <= x[1])
      .map((pinionShimMm) => this.spot({ pinionShimMm, ringShiftMm: 0 }).x);
  });
  /** Where no pack of the drawer comes near: those shims can't be fitted. */
  protected readonly gaps = computed(() => {
    const { x } = this.view();
    const sums = [...this.shims()].sort((a, b) => a - b);
    if (sums.length === 0) return [];
    const at = (mm: number): number => this.spot({ pinionShimMm: mm, ringShiftMm: 0 }).x;
    const ends = [Math.min(x[0], sums[0] ?? 0) - NEAR_MM, ...sums, Math.max(x[1], sums.at(-1) ?? 0) + NEAR_MM];
    return ends.slice(1).flatMap((to, i) => {
      const [from, until] = [Math.max(x[0], (ends[i] as number) + NEAR_MM), Math.min(x[1], to - NEAR_MM)];
      return until - from > 0.002 ? [{ x: at(from), width: at(until) - at(from) }] : [];
    });
  });
  protected readonly notches = computed(() => {
    const { y } = this.view();
    const step = this.notchMm();
    if (!step || (y[1] - y[0]) / step > 60) return [];
    const from = Math.ceil(y[0] / step);
    return Array.from(
      { length: Math.floor(y[1] / step) - from + 1 },
      (_, i) => this.spot({ pinionShimMm: 0, ringShiftMm: (from + i) * step }).y,
    );
  });
  protected readonly said = computed(() => {
    const say = ({ pinionShimMm, ringShiftMm }: MapPoint): string => {
      const text = (mm: number): string => formatIn(mm, 'length', this.system(), undefined, 'small').text;
      return `shim ${text(pinionShimMm)}, ring ${text(ringShiftMm)} ${this.axes().unit}`;
    };
    const next = this.next();
    const tries = this.map().tries.map((point, i) => `try ${this.numbers()[i] ?? i + 1}: ${say(point)}`);
    return `Set-up map. ${tries.join('; ')}.${next ? ` Next: ${say(next)}.` : ''}`;
  });
}
