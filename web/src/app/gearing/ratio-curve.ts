import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { GoalAtRatio } from '@hot-spline/core';

const WIDTH = 420;
const HEIGHT = 190;
const PAD = { left: 56, right: 16, top: 16, bottom: 34 };

/** The goal over any ratio: where a better set would have to lie. The present one is marked. */
@Component({
  selector: 'hs-ratio-curve',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn(); as d) {
      <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="label()">
        <path class="axis" [attr.d]="'M' + left + ' 16V' + bottom + 'H' + right" />
        <polyline [attr.points]="d.line" />
        <path class="best" [attr.d]="'M' + d.bestX + ' 16V' + bottom" />
        <circle [attr.cx]="d.nowX" [attr.cy]="d.nowY" r="5" />
        @for (tick of d.ticks; track $index) {
          <text [attr.x]="tick.x" [attr.y]="tick.y" [attr.text-anchor]="tick.anchor">{{ tick.text }}</text>
        }
        <text [attr.x]="right" [attr.y]="bottom + 30" text-anchor="end">final drive ratio</text>
      </svg>
    }
  `,
  styles: `
    :host {
      display: block;
      max-width: 480px;
    }
    svg {
      display: block;
      width: 100%;
      overflow: visible;
    }
    path,
    polyline {
      fill: none;
      stroke: var(--soft);
    }
    polyline {
      stroke: var(--blue);
      stroke-width: 2;
    }
    .best {
      stroke-dasharray: 4 3;
    }
    circle {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 2;
    }
    text {
      font-family: var(--mono);
      font-size: 11px;
      fill: var(--soft);
    }
  `,
})
export class RatioCurve {
  /** Two at least, ratios ascending. */
  readonly points = input.required<readonly GoalAtRatio[]>();
  readonly present = input.required<number>();
  readonly say = input.required<(score: number) => string>();
  readonly label = input.required<string>();
  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly left = PAD.left;
  protected readonly right = WIDTH - PAD.right;
  protected readonly bottom = HEIGHT - PAD.bottom;

  protected readonly drawn = computed(() => {
    const points = this.points();
    const [first, last] = [points[0], points.at(-1)];
    if (!first || !last || last.ratio <= first.ratio) return null;
    const scores = points.map(({ score }) => score);
    const [least, most] = [Math.min(...scores), Math.max(...scores)];
    const x = (ratio: number): number =>
      this.left + ((ratio - first.ratio) / (last.ratio - first.ratio)) * (this.right - this.left);
    const y = (score: number): number =>
      this.bottom - ((score - least) / Math.max(most - least, 1e-9)) * (this.bottom - PAD.top);
    const best = points.reduce((a, b) => (b.score < a.score ? b : a));
    const near = points.reduce((a, b) =>
      Math.abs(b.ratio - this.present()) < Math.abs(a.ratio - this.present()) ? b : a,
    );
    return {
      line: points.map(({ ratio, score }) => `${x(ratio).toFixed(1)},${y(score).toFixed(1)}`).join(' '),
      bestX: x(best.ratio).toFixed(1),
      nowX: x(near.ratio).toFixed(1),
      nowY: y(near.score).toFixed(1),
      ticks: [
        { x: x(first.ratio), y: this.bottom + 14, anchor: 'middle', text: first.ratio.toFixed(2) },
        { x: x(last.ratio), y: this.bottom + 14, anchor: 'middle', text: last.ratio.toFixed(2) },
        { x: x(best.ratio), y: 11, anchor: 'middle', text: best.ratio.toFixed(2) },
        { x: this.left - 6, y: y(least) + 4, anchor: 'end', text: this.say()(least) },
        { x: this.left - 6, y: y(most) + 4, anchor: 'end', text: this.say()(most) },
      ],
    };
  });
}
