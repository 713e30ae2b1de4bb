import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import {
  InputError,
  entryBase,
  formatIn,
  say,
  type Influence,
  type Outcome,
  type PackSure,
  type SurePack,
} from '@hot-spline/core';
import { FRICTION_SHARE, SIDES, surePackOf, wantedBandNm } from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { Heavy } from '../shared/heavy';
import { Bench } from '../state/bench';

const SAMPLES = 1_000_000;
const SEED = 1;
/** Typing goes on for a while: draws start when it has stopped. */
const PATIENCE_MS = 350;

interface Bar {
  readonly x: number;
  readonly width: number;
  readonly height: number;
  readonly inside: boolean;
}

/** How sure height and breakaway of both packs are: a million draws in a worker, worst case, and what dominates. */
@Component({
  selector: 'hs-sure-tab',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [Heavy],
  template: `
    @if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    }
    @if (heavy.running()) {
      <p class="run">
        <button type="button" class="quiet" (click)="heavy.stop()">Stop</button>
        <progress [value]="heavy.share()" max="1" aria-label="Draws done"></progress>
        <span class="soft" role="status">drawing…</span>
      </p>
    } @else if (shown()) {
      <p class="run soft" role="status">
        {{ samples }} draws a pack in {{ seconds().toFixed(1) }} s, seed {{ seed }}: the same again gives the same
        answer.
      </p>
    } @else if (!problem()) {
      <p class="run"><button type="button" class="quiet" (click)="again()">Draw</button></p>
    }
    @if (shown()) {
      <div class="packs">
        @for (pack of pictures(); track pack.side) {
          <section [attr.aria-label]="pack.side + ' pack'" [attr.data-side]="pack.side">
            <h3>{{ pack.side }} pack</h3>
            <div class="line">
              <div>
                <span class="small">Friction torque, 95 of 100 draws</span>
                <span class="number mono">{{ pack.range }}</span>
                <span class="soft small">{{ pack.unit }}; nominal {{ pack.nominal }}, worst case {{ pack.worst }}</span>
              </div>
              @if (pack.lands !== null) {
                <div class="lands">
                  <span class="small">In the wanted band</span>
                  <span class="number mono">{{ pack.lands }}</span>
                </div>
              }
              @if (pack.open; as open) {
                <div class="open">
                  <span class="small">Won’t close</span>
                  <span class="number mono">{{ open }}</span>
                  <span class="soft small">springs would go past flat; never in a band</span>
                </div>
              }
              <div>
                <span class="small">Height in its band</span>
                <span class="number mono">{{ pack.chance }}</span>
                <span class="soft small">± {{ pack.heightRss }} by root of squares</span>
              </div>
            </div>
            <svg
              viewBox="0 0 340 112"
              role="img"
              [attr.aria-label]="'Draws of the friction torque: ' + pack.range + ' ' + pack.unit"
            >
              @if (pack.band; as b) {
                <rect class="band" [attr.x]="b.x" y="2" [attr.width]="b.width" height="90" />
              }
              @for (bar of pack.bars; track $index) {
                <rect
                  [attr.x]="bar.x"
                  [attr.y]="92 - bar.height"
                  [attr.width]="bar.width"
                  [attr.height]="bar.height"
                  [class.inside]="bar.inside"
                />
              }
              <path d="M0 92.5h340" stroke="var(--rule)" />
              <path [attr.d]="'M' + pack.mark + ' 4v92'" stroke="var(--ochre)" stroke-width="1.5" />
              <text x="2" y="108">{{ pack.from }}</text>
              <text [attr.x]="pack.mark" y="108" text-anchor="middle" class="now">{{ pack.nominal }}</text>
              <text x="338" y="108" text-anchor="end">{{ pack.to }}</text>
            </svg>
            <h4>What dominates</h4>
            <ol>
              @for (row of pack.tornado; track row.label) {
                <li>
                  <span class="name">{{ row.label }}</span>
                  <span class="track"
                    ><span class="bar" [style.left.%]="row.left" [style.width.%]="row.width"></span
                  ></span>
                  <span class="mono">{{ row.swing }}</span>
                </li>
              }
            </ol>
          </section>
        }
      </div>
      <p class="soft small">
        Read with a micrometer ± 0.002 mm, a caliper or depth gauge ± 0.02 mm, catalogue values ± 0.05 mm: guard bands
        of ours.
        {{ frictionWords() }}
      </p>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
      padding-bottom: 12px;
    }
    .run {
      display: flex;
      align-items: center;
      gap: 12px;
      min-height: 32px;
      font-size: var(--text-s);
    }
    progress {
      width: 200px;
      accent-color: var(--ochre);
    }
    .packs {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      gap: 26px;
    }
    h3 {
      font-size: var(--text-m);
    }
    h3::first-letter {
      text-transform: uppercase;
    }
    h4 {
      margin: 4px 0;
      font-size: var(--text-s);
      font-weight: 500;
      color: var(--soft);
    }
    .line {
      display: grid;
      grid-template-columns: 1.7fr 0.9fr 1fr;
      gap: 14px;
    }
    .small {
      display: block;
      font-size: var(--text-s);
    }
    .number {
      font-size: var(--text-xl);
      white-space: nowrap;
    }
    svg {
      width: 100%;
      margin-top: 6px;
    }
    rect {
      fill: var(--steel);
    }
    rect.band {
      fill: color-mix(in srgb, var(--fits) 16%, transparent);
    }
    rect.inside {
      fill: var(--blue);
    }
    text {
      font: 11px var(--mono);
      fill: var(--soft);
    }
    text.now {
      fill: var(--ochre-text);
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 110px 84px;
      align-items: center;
      gap: 8px;
      font-size: var(--text-s);
    }
    .name {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .track {
      position: relative;
      height: 9px;
      background: var(--steel-light);
      border-radius: 3px;
    }
    .bar {
      position: absolute;
      inset: 0 auto;
      background: var(--blue);
      border-radius: 3px;
    }
    li .mono {
      text-align: right;
    }
    @media #{$narrow} {
      .packs {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class SureTab {
  private readonly bench = inject(Bench);
  protected readonly samples = SAMPLES.toLocaleString('en');
  protected readonly seed = SEED;
  protected readonly frictionWords = computed(() => {
    const spread = this.bench.plate()?.frictionSpread;
    return spread
      ? `Friction ± ${entryBase(spread)} %, from the shop’s table or typed.`
      : `Friction ± ${100 * FRICTION_SHARE} %, ours, until the shop’s table knows it better.`;
  });
  protected readonly heavy = inject(Heavy);
  protected readonly seconds = signal(0);
  private readonly results = signal<readonly PackSure[] | null>(null);
  private readonly failed = signal<string | null>(null);
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** What is asked, as text, so that nothing is drawn again for a change that does not touch it. */
  private readonly asked = attempt(() => {
    const packs = this.bench.derived()?.axles[this.bench.axleName()]?.pack;
    const plate = this.bench.plate();
    return packs && plate ? JSON.stringify(SIDES.map((side) => surePackOf(plate, packs, side))) : null;
  });
  protected readonly problem = computed(() => this.asked.problem() ?? this.failed());
  protected readonly shown = computed(() => this.results() !== null && !this.problem());

  protected readonly pictures = computed(() => {
    const system = this.bench.system();
    const torque = (nm: number): string => formatIn(nm, 'torque', system, 1).text;
    const plate = this.bench.plate();
    const wheel = this.bench.derived()?.axles[this.bench.axleName()]?.pack?.wheel;
    const band = plate && wheel && wantedBandNm(plate, wheel);
    return (this.results() ?? []).map(({ breakaway, height, tornado, wontClose }, i) => {
      const [low, , high] = breakaway.percentiles;
      const { from, to } = breakaway.histogram;
      return {
        side: SIDES[i] ?? 'left',
        range: `${torque(low)} – ${torque(high)}`,
        unit: formatIn(0, 'torque', system).unit,
        nominal: torque(breakaway.nominal),
        worst: `${torque(breakaway.worstCase[0])} – ${torque(breakaway.worstCase[1])}`,
        chance: height.chance === null ? '–' : percent(height.chance),
        heightRss: say(height.rss, 'length', system),
        lands: breakaway.chance === null ? null : percent(breakaway.chance),
        band: band && bandOf(band, from, to),
        bars: bars(breakaway),
        open: wontClose > 0 ? percent(wontClose) : null,
        mark: ((breakaway.nominal - from) / (to - from)) * 340,
        from: torque(from),
        to: torque(to),
        tornado: influences(tornado, (nm) => say(nm, 'torque', system, 1)),
      };
    });
  });

  constructor() {
    effect(() => {
      const text = this.asked.value();
      clearTimeout(this.timer);
      if (text === null) return;
      this.timer = setTimeout(() => untracked(() => void this.draw(text)), untracked(this.results) ? PATIENCE_MS : 0);
    });
    inject(DestroyRef).onDestroy(() => clearTimeout(this.timer));
  }

  protected again(): void {
    const text = this.asked.value();
    if (text !== null) void this.draw(text);
  }

  private async draw(text: string): Promise<void> {
    try {
      const packs = JSON.parse(text) as SurePack[];
      const { result, seconds } = await this.heavy.run('pack.sure', { packs, samples: SAMPLES, seed: SEED });
      if (!result) return;
      this.failed.set(null);
      this.results.set(result);
      this.seconds.set(seconds);
    } catch (error) {
      if (error instanceof InputError) this.failed.set(`${error.message} Allowed: ${error.allowed}.`);
      else this.failed.set(error instanceof Error ? error.message : String(error));
    }
  }
}

const percent = (share: number): string => `${(100 * share).toFixed(share > 0.99 && share < 1 ? 1 : 0)} %`;

/** Where the wanted band lies on the picture. */
function bandOf([low, high]: readonly [number, number], from: number, to: number): { x: number; width: number } {
  const at = (nm: number): number => (340 * Math.min(Math.max(nm - from, 0), to - from)) / (to - from);
  return { x: at(low), width: at(high) - at(low) };
}

/** The histogram; 95 of 100 draws lie in the dark bars. */
function bars({ histogram, percentiles }: Outcome): Bar[] {
  const { from, to, counts } = histogram;
  const most = Math.max(...counts, 1);
  const step = (to - from) / counts.length;
  return counts.map((count, i) => {
    const middle = from + (i + 0.5) * step;
    return {
      x: (i * 340) / counts.length,
      width: 340 / counts.length - 0.8,
      height: (86 * count) / most,
      inside: middle >= percentiles[0] && middle <= percentiles[2],
    };
  });
}

/** The five that move the breakaway most, on one scale. */
function influences(tornado: readonly Influence[], words: (nm: number) => string) {
  const five = tornado.slice(0, 5);
  const low = Math.min(...five.flatMap(({ lowNm, highNm }) => [lowNm, highNm]));
  const high = Math.max(...five.flatMap(({ lowNm, highNm }) => [lowNm, highNm]));
  const span = high - low || 1;
  return five.map(({ label, lowNm, highNm }) => ({
    label,
    left: (100 * (Math.min(lowNm, highNm) - low)) / span,
    width: Math.max((100 * Math.abs(highNm - lowNm)) / span, 1),
    swing: words(Math.abs(highNm - lowNm)),
  }));
}
