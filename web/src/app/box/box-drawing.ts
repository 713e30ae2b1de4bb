import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { CdkDropList } from '@angular/cdk/drag-drop';
import {
  otherShaft,
  rollingRadius,
  teethOn,
  type BoxJudged,
  type BoxShaft,
  type BoxStack,
  type Laid,
  type StackedBox,
} from '@hot-spline/core';
import type { Verdict } from '@hot-spline/model';

interface DrawnPiece {
  readonly id: string;
  readonly look: string;
  readonly d: string;
  /** The cross of a bearing, the dogs of a hub. */
  readonly lines: string;
}
interface DrawnPair {
  readonly id: string;
  readonly name: string;
  readonly x: number;
  readonly width: number;
  readonly upper: number;
  readonly lower: number;
  readonly upperTeeth: number;
  readonly lowerTeeth: number;
  readonly look: string;
  readonly plane: string;
}

/** Room beside the shafts, above the upper gears and below the lower ones, px. */
const ROOM = { side: 14, above: 22, below: 44 } as const;
const rect = (x: number, y: number, w: number, h: number): string =>
  `M${x.toFixed(1)} ${y.toFixed(1)}h${w.toFixed(1)}v${h.toFixed(1)}h${(-w).toFixed(1)}Z`;

/** From where to where a shaft itself reaches: what closes it, on both sides of a collar where there is one. */
function rodOf({ fromMm, lengthMm, before }: BoxStack, laid: readonly Laid[]): readonly [number, number] {
  const collar = laid.find(({ piece }) => piece.kind === 'collar');
  return [collar && before ? collar.fromMm - before.lengthMm : fromMm, (collar?.toMm ?? fromMm) + lengthMm];
}

/** Both shafts of a box to scale, every piece in its place, planes joined; what does not go is marked where it is. */
@Component({
  selector: 'hs-box-drawing',
  imports: [CdkDropList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './box-drawing.html',
  styleUrl: './box-drawing.scss',
})
export class BoxDrawing {
  readonly stacked = input.required<StackedBox>();
  readonly judged = input.required<BoxJudged>();
  /** What is said of each pair, in a word or two. */
  readonly verdicts = input<Readonly<Record<string, Verdict>>>({});
  readonly names = input<Readonly<Record<string, string>>>({});
  /** The pair that is looked at in place of another. */
  readonly tried = input<readonly string[]>([]);
  readonly chosen = input<string | null>(null);
  /** The end of the shim on each shaft; null while nobody has said: then none is drawn. */
  readonly shims = input<Readonly<Record<BoxShaft, 'engine' | 'far' | null>>>({ driving: null, driven: null });
  readonly shimWords = input<Readonly<Record<BoxShaft, string>>>({ driving: '', driven: '' });
  readonly label = input('Both shafts of the box');
  /** A pair of teeth is held over the place of a gear, or leaves it. */
  readonly over = output<{ readonly id: string; readonly teeth: unknown }>();
  readonly left = output();
  readonly dropped = output<{ readonly id: string; readonly teeth: unknown }>();
  readonly choose = output<string>();
  private readonly width = signal(560);

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const destroy = inject(DestroyRef);
    afterNextRender(() => {
      const measure = (): void => {
        if (host.clientWidth > 0) this.width.set(host.clientWidth);
      };
      const watch = new ResizeObserver(measure);
      watch.observe(host);
      measure();
      destroy.onDestroy(() => watch.disconnect());
    });
  }

  private readonly frame = computed(() => {
    const box = this.stacked();
    const { shafts } = this.judged();
    const ends = (['driving', 'driven'] as const).flatMap((shaft) => {
      const { laid } = shafts[shaft];
      const [from, to] = rodOf(box.shafts[shaft], laid);
      return [from, to, laid[0]?.fromMm ?? from, laid.at(-1)?.toMm ?? from];
    });
    const [from, to] = [Math.min(...ends) - 8, Math.max(...ends) + 8];
    const largest = (shaft: BoxShaft): number =>
      Math.max(box.normalModuleMm, ...box.pairs.map((pair) => rollingRadius(box, pair, shaft))) + box.normalModuleMm;
    const tall = largest('driven') + box.centreMm + largest('driving');
    const width = this.width();
    // As wide as there is, and never taller than a sheet has room for.
    const scale = Math.min((width - 2 * ROOM.side) / (to - from), 340 / tall);
    const left = (width - scale * (to - from)) / 2;
    const upper = ROOM.above + scale * largest('driven');
    const lower = upper + scale * box.centreMm;
    return {
      width,
      height: lower + scale * largest('driving') + ROOM.below,
      scale,
      x: (mm: number) => left + scale * (mm - from),
      axis: { driven: upper, driving: lower },
    };
  });

  private half({ piece }: Laid, shaft: BoxShaft): number {
    const box = this.stacked();
    const pair = box.pairs.find(({ id }) => id === piece.pair);
    // What is no gear has no diameter in the spec: drawn in proportion to the centres.
    const c = box.centreMm;
    const halves = { gear: 0, hub: 0.3, spacer: 0.2, washer: 0.24, bearing: 0.38, clip: 0.22, collar: 0.3 };
    return pair ? rollingRadius(box, pair, shaft) + box.normalModuleMm : c * halves[piece.kind];
  }

  protected readonly view = computed(() => {
    const box = this.stacked();
    const judged = this.judged();
    const { scale, x, axis, width, height } = this.frame();
    const verdicts = this.verdicts();
    const shaftHalf = scale * box.centreMm * 0.14;
    const shafts = (['driven', 'driving'] as const).map((shaft) => {
      const [from, to] = rodOf(box.shafts[shaft], judged.shafts[shaft].laid);
      return {
        shaft,
        rod: rect(x(from - 6), axis[shaft] - shaftHalf, scale * (to - from + 12), 2 * shaftHalf),
        line: `M${(x(from) - 18).toFixed(1)} ${axis[shaft].toFixed(1)}H${(x(to) + 18).toFixed(1)}`,
      };
    });
    const pieces = (['driven', 'driving'] as const).flatMap((shaft) =>
      judged.shafts[shaft].laid.map((laid): DrawnPiece => {
        const { piece, faceFromMm, faceToMm } = laid;
        const half = scale * this.half(laid, shaft);
        const [x0, w] = [x(faceFromMm), Math.max(1.2, scale * (faceToMm - faceFromMm))];
        const y = axis[shaft];
        const bad = piece.pair !== null && verdicts[piece.pair] === 'stop';
        const tried = piece.pair !== null && this.tried().includes(piece.pair);
        const both = (inner: number): string =>
          rect(x0, y - half, w, half - inner) + rect(x0, y + inner, w, half - inner);
        const d =
          (piece.kind === 'gear' && !piece.loose) || piece.kind === 'collar'
            ? rect(x0, y - half, w, 2 * half)
            : both(shaftHalf);
        return {
          id: piece.id,
          look: `${piece.kind} ${shaft}${piece.loose ? ' loose' : ''}${bad ? ' bad' : ''}${tried ? ' tried' : ''}`,
          d: piece.kind === 'hub' ? this.hub(laid, y, half, shaftHalf) : d,
          lines:
            piece.kind === 'bearing'
              ? [1, -1]
                  .map((side) => {
                    const [a, b] = [y + side * shaftHalf, y + side * half];
                    return `M${x0} ${a}L${x0 + w} ${b}M${x0 + w} ${a}L${x0} ${b}`;
                  })
                  .join('')
              : '',
        };
      }),
    );
    return { width, height, shafts, pieces, pairs: this.pairs(), shims: this.shimMarks() };
  });

  private hub({ piece, fromMm, toMm }: Laid, y: number, half: number, inner: number): string {
    const { scale, x } = this.frame();
    const middle = (fromMm + toMm) / 2;
    const core = scale * (toMm - fromMm) * 0.42;
    const ring = scale * (piece.ringMm ?? (toMm - fromMm) * 0.55);
    const [cx, rim] = [x(middle), half * 0.32];
    return [-1, 1]
      .map((side) => {
        const top = side < 0 ? y - half : y + half - rim;
        const stem = side < 0 ? y - half + rim : y + inner;
        return rect(cx - core / 2, stem, core, half - rim - inner) + rect(cx - ring / 2, top, ring, rim);
      })
      .join('');
  }

  private pairs(): readonly DrawnPair[] {
    const box = this.stacked();
    const { scale, x, axis } = this.frame();
    const { shafts, pairs } = this.judged();
    return pairs.flatMap(({ pair }): DrawnPair[] => {
      const at = (shaft: BoxShaft) => shafts[shaft].laid.find(({ piece }) => piece.pair === pair.id);
      const [upper, lower] = [at('driven'), at('driving')];
      const some = upper ?? lower;
      if (!some) return [];
      const middle = (laid: Laid): number => x((laid.faceFromMm + laid.faceToMm) / 2);
      const top = axis.driven - scale * (rollingRadius(box, pair, 'driven') + box.normalModuleMm);
      const foot = axis.driving + scale * (rollingRadius(box, pair, 'driving') + box.normalModuleMm);
      const verdict = this.verdicts()[pair.id] ?? 'fits';
      return [
        {
          id: pair.id,
          name: this.names()[pair.id] ?? '',
          x: middle(some),
          width: Math.max(26, scale * (some.faceToMm - some.faceFromMm)),
          upper: top,
          lower: foot,
          upperTeeth: teethOn(pair, 'driven'),
          lowerTeeth: teethOn(pair, otherShaft('driven')),
          look: `${verdict}${this.chosen() === pair.id ? ' chosen' : ''}${this.tried().includes(pair.id) ? ' tried' : ''}`,
          plane:
            upper && lower
              ? `M${middle(upper).toFixed(1)} ${top.toFixed(1)}V${axis.driven.toFixed(1)}L${middle(lower).toFixed(1)} ${axis.driving.toFixed(1)}V${foot.toFixed(1)}`
              : '',
        },
      ];
    });
  }

  private shimMarks() {
    const { scale, x, axis } = this.frame();
    const { shafts } = this.judged();
    return (['driven', 'driving'] as const).flatMap((shaft) => {
      const far = this.shims()[shaft] === 'far';
      const laid = far ? shafts[shaft].laid.at(-1) : shafts[shaft].laid[0];
      const words = this.shimWords()[shaft];
      if (!laid || words === '' || this.shims()[shaft] === null) return [];
      const at = far ? x(laid.toMm) : x(laid.fromMm) - 4;
      const half = scale * this.half(laid, shaft);
      return [{ shaft, words, d: rect(at, axis[shaft] - half, 4, 2 * half) }];
    });
  }
}
