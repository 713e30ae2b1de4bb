import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatIn, unitLabel } from '@hot-spline/core';
import { Bench } from '../state/bench';

const MIDDLE = 110;
const OUTER = 84;

/** Backlash round the ring as a closed curve: the band, what was read, and the run-out that fits it. */
@Component({
  selector: 'hs-backlash-ring',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 220 220" role="img" [attr.aria-label]="said()">
      @if (bandAt(); as b) {
        <path class="band" fill-rule="evenodd" [attr.d]="b.path" />
        <text [attr.x]="110" [attr.y]="110 - b.high - 3" text-anchor="middle">{{ b.highText }}</text>
        <text [attr.x]="110" [attr.y]="110 - b.low + 10" text-anchor="middle">{{ b.lowText }}</text>
      }
      @if (curve(); as c) {
        <path class="fit" [attr.d]="c" />
      }
      @if (points().length > 1) {
        <polygon class="read" [attr.points]="polygon()" />
      }
      @for (p of points(); track $index) {
        <circle class="point" [class.out]="p.out" r="4" [attr.cx]="p.x" [attr.cy]="p.y" />
      }
      @for (p of spokes(); track $index) {
        <text class="place" [class.here]="$index === here()" [attr.x]="p.x" [attr.y]="p.y + 4" text-anchor="middle">
          {{ $index + 1 }}
        </text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      max-width: 180px;
      margin: 0 auto;
    }
    .band {
      fill: var(--blue-wash);
    }
    .fit {
      fill: none;
      stroke: var(--ochre);
      stroke-width: 1.5;
      stroke-dasharray: 4 3;
    }
    .read {
      fill: none;
      stroke: var(--blue);
      stroke-width: 1.8;
    }
    .point {
      fill: var(--blue);
    }
    .point.out {
      fill: var(--stop);
    }
    text {
      font: 10px var(--mono);
      fill: var(--soft);
    }
    .here {
      fill: var(--ochre-text);
      font-weight: 700;
      font-size: 13px;
    }
  `,
})
export class BacklashRing {
  readonly mm = input.required<readonly number[]>();
  readonly places = input.required<number>();
  readonly band = input.required<readonly [number, number] | null>();
  /** Run-out once a turn: amplitude, direction of most, mean. */
  readonly wave = input<{ readonly meanMm: number; readonly amplitudeMm: number; readonly angleDeg: number } | null>(
    null,
  );
  /** The place that is read next. */
  readonly here = input(-1);
  private readonly system = inject(Bench).system;

  private readonly scale = computed(() => OUTER / (1.15 * Math.max(this.band()?.[1] ?? 0.1, ...this.mm(), 0.02)));
  /** Place 1 is on top, the others follow in the order in which they are read. */
  private spot(place: number, mm: number): { x: number; y: number } {
    const angle = (2 * Math.PI * place) / this.places();
    const r = mm * this.scale();
    return { x: MIDDLE + r * Math.sin(angle), y: MIDDLE - r * Math.cos(angle) };
  }

  protected readonly points = computed(() => {
    const band = this.band();
    return this.mm().map((mm, i) => ({
      ...this.spot(i, mm),
      out: band !== null && (mm < band[0] - 1e-9 || mm > band[1] + 1e-9),
    }));
  });
  protected readonly polygon = computed(() =>
    this.points()
      .map(({ x, y }) => `${x},${y}`)
      .join(' '),
  );
  protected readonly spokes = computed(() => {
    const out = 100 / this.scale();
    return Array.from({ length: this.places() }, (_, i) => this.spot(i, out));
  });
  protected readonly bandAt = computed(() => {
    const band = this.band();
    if (!band) return null;
    const [low, high] = [band[0] * this.scale(), band[1] * this.scale()];
    const ring = (r: number): string =>
      `M${MIDDLE - r} ${MIDDLE}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
    const text = (mm: number): string => formatIn(mm, 'length', this.system(), undefined, 'small').text;
    return { low, high, path: ring(high) + ring(low), lowText: text(band[0]), highText: text(band[1]) };
  });
  protected readonly curve = computed(() => {
    const wave = this.wave();
    if (!wave) return null;
    const at = (step: number): string => {
      const place = (step / 72) * this.places();
      const angle = (2 * Math.PI * step) / 72 - (wave.angleDeg * Math.PI) / 180;
      const { x, y } = this.spot(place, Math.max(0, wave.meanMm + wave.amplitudeMm * Math.cos(angle)));
      return `${x.toFixed(1)} ${y.toFixed(1)}`;
    };
    return `M${Array.from({ length: 73 }, (_, i) => at(i)).join('L')}`;
  });
  protected readonly said = computed(() => {
    const unit = unitLabel(formatIn(0.2, 'length', this.system(), undefined, 'small').unit);
    const read = this.mm().map((mm) => formatIn(mm, 'length', this.system(), undefined, 'small').text);
    return read.length === 0
      ? 'Backlash round the ring: not read'
      : `Backlash round the ring: ${read.join(', ')} ${unit}`;
  });
}
