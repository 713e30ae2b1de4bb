import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

export interface FrontPoint {
  readonly label: string;
  /** Along the first thing that is asked; smaller is better. */
  readonly x: number;
  /** Along the second; smaller is better. */
  readonly y: number;
  readonly present: boolean;
}

export interface FrontAxis {
  readonly name: string;
  readonly say: (value: number) => string;
  /** Where it ends for what is asked; null where nothing is. */
  readonly limit: number | null;
}

const WIDTH = 300;
const HEIGHT = 210;
const PAD = { left: 52, right: 14, top: 12, bottom: 34 };
/** A mean width of a letter of the small text, px. */
const LETTER = 6.4;

/** What is given for what: every candidate by the two things that are asked, those that nothing beats joined. */
@Component({
  selector: 'hs-front-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="said()">
      @if (limits().x; as x) {
        <rect class="over" [attr.x]="x" y="12" [attr.width]="right - x" [attr.height]="bottom - 12" />
      }
      @if (limits().y; as y) {
        <rect class="over" [attr.x]="left" y="12" [attr.width]="right - left" [attr.height]="y - 12" />
      }
      <path class="axis" [attr.d]="'M' + left + ' 12V' + bottom + 'H' + right" />
      @for (tick of ticks(); track $index) {
        <text class="tick" [attr.x]="tick.x" [attr.y]="tick.y" [attr.text-anchor]="tick.anchor">{{ tick.text }}</text>
      }
      <text class="name" [attr.x]="right" [attr.y]="bottom + 30" text-anchor="end">{{ along().name }}</text>
      <text class="name" [attr.x]="left + 4" y="10">{{ up().name }}</text>
      <polyline class="front" [attr.points]="front()" />
      @for (point of placed(); track point.label) {
        <circle
          [attr.cx]="point.px"
          [attr.cy]="point.py"
          [attr.r]="point.present ? 5 : 3.5"
          [class.on]="point.onFront"
          [class.present]="point.present"
        />
        <text
          class="label"
          [class.on]="point.onFront"
          [attr.x]="point.tx"
          [attr.y]="point.ty"
          [attr.text-anchor]="point.anchor"
        >
          {{ point.label }}
        </text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      max-width: 340px;
    }
    svg {
      display: block;
      width: 100%;
      overflow: visible;
    }
    .axis {
      fill: none;
      stroke: var(--soft);
    }
    .over {
      fill: var(--ochre-wash);
      opacity: 0.45;
    }
    text {
      font-family: var(--mono);
      font-size: 11px;
      fill: var(--soft);
    }
    .name {
      font-family: inherit;
    }
    .label.on {
      fill: var(--ink);
      font-weight: 600;
    }
    .front {
      fill: none;
      stroke: var(--blue);
      stroke-width: 1.5;
    }
    circle {
      fill: var(--sheet);
      stroke: var(--soft);
      stroke-width: 1.5;
    }
    circle.on {
      fill: var(--blue);
      stroke: var(--blue);
    }
    circle.present {
      stroke: var(--ink);
      stroke-width: 2.5;
    }
  `,
})
export class FrontPicture {
  readonly points = input.required<readonly FrontPoint[]>();
  readonly along = input.required<FrontAxis>();
  readonly up = input.required<FrontAxis>();
  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly left = PAD.left;
  protected readonly right = WIDTH - PAD.right;
  protected readonly bottom = HEIGHT - PAD.bottom;

  /** Those that nothing beats in both. */
  private readonly best = computed(
    () =>
      new Set(
        this.points()
          .filter(({ x, y }) => !this.points().some((one) => one.x <= x && one.y <= y && (one.x < x || one.y < y)))
          .map(({ label }) => label),
      ),
  );

  private readonly scale = computed(() => {
    const span = (values: readonly number[], limit: number | null) => {
      const all = limit === null ? values : [...values, limit];
      const [least, most] = [Math.min(...all), Math.max(...all)];
      const room = Math.max((most - least) * 0.12, Math.abs(most) * 1e-4, 1e-6);
      return { from: least - room, to: most + room };
    };
    const x = span(
      this.points().map((point) => point.x),
      this.along().limit,
    );
    const y = span(
      this.points().map((point) => point.y),
      this.up().limit,
    );
    return {
      x: (value: number) => this.left + ((value - x.from) / (x.to - x.from)) * (this.right - this.left),
      y: (value: number) => this.bottom - ((value - y.from) / (y.to - y.from)) * (this.bottom - PAD.top),
    };
  });
  protected readonly limits = computed(() => {
    const { x, y } = this.scale();
    const [along, up] = [this.along().limit, this.up().limit];
    return { x: along === null ? null : x(along), y: up === null ? null : y(up) };
  });
  /** Labels beside their points, above or below where another one would lie under them. */
  protected readonly placed = computed(() => {
    const { x, y } = this.scale();
    const taken: { x: number; y: number; wide: number }[] = [];
    return this.points().map((point) => {
      const [px, py] = [x(point.x), y(point.y)];
      const wide = point.label.length * LETTER;
      const left = px + wide + 10 > this.right;
      const at = left ? px - 8 - wide : px + 8;
      const free = (ty: number): boolean =>
        taken.every((other) => Math.abs(other.y - ty) > 12 || at > other.x + other.wide || at + wide < other.x);
      const ty = [4, -9, 17, -22, 30].map((by) => py + by).find(free) ?? py + 4;
      taken.push({ x: at, y: ty, wide });
      return {
        ...point,
        onFront: this.best().has(point.label),
        px,
        py,
        tx: left ? px - 8 : px + 8,
        ty,
        anchor: left ? 'end' : 'start',
      };
    });
  });
  protected readonly front = computed(() =>
    this.placed()
      .filter(({ onFront }) => onFront)
      .sort((a, b) => a.px - b.px)
      .map(({ px, py }) => `${px.toFixed(1)},${py.toFixed(1)}`)
      .join(' '),
  );
  protected readonly ticks = computed(() => {
    const { x, y } = this.scale();
    const ends = (values: readonly number[]): readonly number[] => [
      ...new Set([Math.min(...values), Math.max(...values)]),
    ];
    const [along, up] = [this.along(), this.up()];
    return [
      ...ends(this.points().map((point) => point.x)).map((value) => ({
        x: x(value),
        y: this.bottom + 14,
        anchor: 'middle',
        text: along.say(value),
      })),
      ...ends(this.points().map((point) => point.y)).map((value) => ({
        x: this.left - 6,
        y: y(value) + 4,
        anchor: 'end',
        text: up.say(value),
      })),
    ];
  });
  protected readonly said = computed(() => {
    return `${this.up().name} against ${this.along().name}; nothing beats ${[...this.best()].join(', ')}`;
  });
}
