import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { patchWords, type FlankPattern } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { CENTRED, edgesOf } from './patch';

/** The tooth in the picture: toe end, heel end, root line, height of face at both ends. */
const TOOTH = { left: 16, right: 284, root: 112, toeTop: 40, heelTop: 8 } as const;
const WIDTH = TOOTH.right - TOOTH.left;

const SHAPES: readonly { readonly value: FlankPattern['shape']; readonly label: string }[] = [
  { value: 'one', label: 'one patch' },
  { value: 'two-patches', label: 'two patches' },
  { value: 'crossed', label: 'crossed' },
  { value: 'faint', label: 'faint' },
];

type Edge = FlankPattern['edges'][number];
const EDGE_KEYS: Readonly<Record<string, Edge>> = { t: 'toe', h: 'heel', r: 'root', f: 'face' };

const within = (x: number, low: number, high: number): number => Math.min(high, Math.max(low, x));
const tidy = (x: number): number => Number(x.toFixed(2)) + 0;

/** One flank as a builder sees it: the paste patch is dragged to where it was seen, stretched and turned by its handles or keys. */
@Component({
  selector: 'hs-flank',
  imports: [Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="head">
      <h3>{{ flank() === 'drive' ? 'Drive, convex' : 'Coast, concave' }}</h3>
      @if (loaded()) {
        <span class="carries">carries</span>
      }
      <span class="words" role="status">{{ words() }}</span>
      <hs-choice
        [name]="'shape-' + name()"
        [label]="'Shape of the ' + flank() + ' pattern'"
        [labelHidden]="true"
        [options]="shapes"
        [value]="shape()"
        (chosen)="change({ shape: $event })"
      />
    </div>
    <svg
      #picture
      viewBox="0 0 300 132"
      tabindex="0"
      role="application"
      [id]="name()"
      [attr.aria-label]="
        (flank() === 'drive' ? 'Drive' : 'Coast') +
        ' side pattern: ' +
        words() +
        '. Arrows move the patch, with Shift they stretch it, brackets turn it; T, H, R, F: it runs off the toe, heel, root, face.'
      "
      (keydown)="key($event)"
      (pointerdown)="grab($event, 'place')"
      (pointermove)="drag($event)"
      (pointerup)="drop($event)"
      (pointercancel)="drop($event)"
    >
      <path class="tooth" [attr.d]="tooth()" />
      <path class="line" [attr.d]="lines()" />
      <ellipse
        class="wanted"
        [attr.cx]="wanted().x"
        [attr.cy]="wanted().y"
        [attr.rx]="wanted().rx"
        [attr.ry]="wanted().ry"
      />
      <g
        [attr.transform]="'rotate(' + turned() + ' ' + patch().x + ' ' + patch().y + ')'"
        [class.dim]="value() === null"
      >
        @if (shape() === 'two-patches') {
          <ellipse
            class="paste"
            [attr.cx]="patch().x - patch().rx * 0.6"
            [attr.cy]="patch().y"
            [attr.rx]="patch().rx * 0.42"
            [attr.ry]="patch().ry"
          />
          <ellipse
            class="paste"
            [attr.cx]="patch().x + patch().rx * 0.6"
            [attr.cy]="patch().y"
            [attr.rx]="patch().rx * 0.42"
            [attr.ry]="patch().ry"
          />
        } @else {
          <ellipse
            class="paste"
            [class.faint]="shape() === 'faint'"
            [class.crossed]="shape() === 'crossed'"
            [attr.cx]="patch().x"
            [attr.cy]="patch().y"
            [attr.rx]="patch().rx"
            [attr.ry]="patch().ry"
          />
        }
        <circle
          class="handle"
          r="7"
          [attr.cx]="patch().x + patch().rx"
          [attr.cy]="patch().y"
          (pointerdown)="grab($event, 'long')"
        />
        <circle
          class="handle"
          r="7"
          [attr.cx]="patch().x"
          [attr.cy]="patch().y - patch().ry"
          (pointerdown)="grab($event, 'tall')"
        />
      </g>
      @for (edge of edges(); track edge.edge) {
        <text
          class="edge"
          [class.off]="edge.off"
          [attr.x]="edge.x"
          [attr.y]="edge.y"
          [attr.text-anchor]="edge.anchor"
          (pointerdown)="toggleEdge($event, edge.edge)"
        >
          {{ edge.off ? 'off the ' + edge.edge : edge.edge }}
        </text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .head {
      display: flex;
      align-items: center;
      gap: 0 8px;
    }
    h3 {
      font-size: var(--text-s);
      white-space: nowrap;
    }
    .carries {
      padding: 0 6px;
      font-size: var(--text-xs);
      background: var(--blue-wash);
      color: var(--blue);
      border-radius: 4px;
    }
    .words {
      margin-left: auto;
      line-height: 1.2;
      text-align: right;
      font-size: var(--text-s);
      color: var(--ochre-text);
    }
    svg {
      display: block;
      width: 100%;
      max-height: 118px;
      touch-action: none;
      cursor: crosshair;
    }
    .tooth {
      fill: var(--steel-light);
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .line {
      fill: none;
      stroke: var(--rule);
    }
    .wanted {
      fill: none;
      stroke: var(--blue);
      stroke-dasharray: 3 3;
    }
    .paste {
      fill: var(--ochre);
      fill-opacity: 0.85;
    }
    .dim .paste {
      fill-opacity: 0.35;
    }
    .faint {
      fill-opacity: 0.3;
      stroke: var(--ochre);
      stroke-dasharray: 4 3;
    }
    .crossed {
      stroke: var(--ink);
      stroke-width: 1.5;
      stroke-dasharray: 8 4;
    }
    .handle {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 1.5;
      cursor: move;
    }
    text {
      font-size: 10px;
      fill: var(--soft);
    }
    .edge {
      cursor: pointer;
    }
    .off {
      fill: var(--ochre-text);
      font-weight: 700;
    }
    hs-choice {
      flex: none;
      width: 116px;
    }
  `,
})
export class Flank {
  readonly name = input.required<string>();
  readonly flank = input.required<'drive' | 'coast'>();
  /** Null while nobody has seen one: a patch in the middle waits to be dragged. */
  readonly value = input.required<FlankPattern | null>();
  readonly band = input.required<{ readonly u: number; readonly v: number }>();
  readonly loaded = input(false);
  readonly changed = output<FlankPattern>();

  protected readonly shapes = SHAPES;
  private readonly picture = viewChild.required<ElementRef<SVGSVGElement>>('picture');
  private readonly held = signal<'place' | 'long' | 'tall' | null>(null);
  /** Seen from outside the ring, the toe of the coast flank lies on the other side. */
  protected readonly mirrored = computed(() => this.flank() === 'coast');
  /** What is laid right now: a quick hand is ahead of what comes back from outside. */
  private readonly live = linkedSignal(() => this.value());
  private readonly now = computed(() => this.live() ?? CENTRED);
  protected readonly shape = computed(() => this.now().shape);
  protected readonly words = computed(() => (this.value() ? patchWords(this.now()) : 'drag the patch'));
  protected readonly turned = computed(() => (this.mirrored() ? -1 : 1) * this.now().turnedDeg);

  /** Height of the tooth at a share of its length from the toe. */
  private top(share: number): number {
    return TOOTH.toeTop + (TOOTH.heelTop - TOOTH.toeTop) * Math.sin((share * Math.PI) / 2);
  }

  private spot(u: number, v: number): { x: number; y: number; high: number } {
    const share = (u + 1) / 2;
    const x = TOOTH.left + share * WIDTH;
    const high = TOOTH.root - this.top(share);
    return { x: this.mirrored() ? 300 - x : x, y: TOOTH.root - ((v + 1) / 2) * high, high };
  }

  protected readonly patch = computed(() => {
    const { u, v, length, height } = this.now();
    const { x, y, high } = this.spot(u, v);
    return { x, y, rx: (length * WIDTH) / 2, ry: (height * high) / 2 };
  });
  protected readonly wanted = computed(() => {
    const { u, v } = this.band();
    const { x, y, high } = this.spot(0, 0);
    return { x, y, rx: (u * WIDTH) / 2, ry: (v * high) / 2 };
  });
  protected readonly tooth = computed(() => {
    const edge = [0, 0.25, 0.5, 0.75, 1].map((share) => {
      const { x, y } = this.spot(2 * share - 1, 1);
      return `${x.toFixed(1)} ${y.toFixed(1)}`;
    });
    const [toe, heel] = [this.spot(-1, -1), this.spot(1, -1)];
    return `M${toe.x} ${toe.y}L${edge.join('L')}L${heel.x} ${heel.y}Z`;
  });
  protected readonly lines = computed(() =>
    [-0.5, 0, 0.5]
      .map((v) => {
        const [a, b, c] = [this.spot(-1, v), this.spot(0, v), this.spot(1, v)];
        return `M${a.x} ${a.y}L${b.x} ${b.y}L${c.x} ${c.y}`;
      })
      .join(''),
  );

  protected change(part: Partial<FlankPattern>): void {
    const next = { ...this.now(), ...part };
    const patch: FlankPattern = {
      ...next,
      u: tidy(within(next.u, -1, 1)),
      v: tidy(within(next.v, -1, 1)),
      length: tidy(within(next.length, 0.05, 1)),
      height: tidy(within(next.height, 0.05, 1)),
      turnedDeg: Math.round(within(next.turnedDeg, -90, 90)),
      // What was said of the edges stays while only they were changed; a patch that is moved says it by itself.
      edges: part.edges ?? edgesOf(next),
    };
    this.live.set(patch);
    this.changed.emit(patch);
  }

  /** The four edges, as words round the tooth: one that the pattern runs off stands out. */
  protected readonly edges = computed(() => {
    const off = this.now().edges;
    const [left, right] = this.mirrored() ? (['heel', 'toe'] as const) : (['toe', 'heel'] as const);
    const of = (edge: Edge, x: number, y: number, anchor: string) => ({ edge, x, y, anchor, off: off.includes(edge) });
    return [
      of('root', 150, 128, 'middle'),
      of('face', 150, 12, 'middle'),
      of(left, 4, 128, 'start'),
      of(right, 296, 128, 'end'),
    ];
  });

  protected toggleEdge(event: Event, edge: Edge): void {
    event.stopPropagation();
    event.preventDefault();
    const off = this.now().edges;
    this.change({ edges: off.includes(edge) ? off.filter((one) => one !== edge) : [...off, edge] });
  }

  protected grab(event: PointerEvent, part: 'place' | 'long' | 'tall'): void {
    event.stopPropagation();
    event.preventDefault();
    this.picture().nativeElement.focus();
    this.picture().nativeElement.setPointerCapture(event.pointerId);
    this.held.set(part);
    if (part === 'place') this.drag(event);
  }

  protected drag(event: PointerEvent): void {
    const held = this.held();
    if (!held) return;
    const box = this.picture().nativeElement.getScreenCTM();
    if (!box) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(box.inverse());
    const patch = this.patch();
    if (held === 'place') {
      const along = this.mirrored() ? 300 - x : x;
      const u = within((2 * (along - TOOTH.left)) / WIDTH - 1, -1, 1);
      const high = TOOTH.root - this.top((u + 1) / 2);
      return this.change({ u, v: (2 * (TOOTH.root - y)) / high - 1 });
    }
    const [dx, dy] = [x - patch.x, y - patch.y];
    if (held === 'tall') return this.change({ height: (2 * Math.hypot(dx, dy)) / this.spot(this.now().u, 0).high });
    const angle = (Math.atan2(dy, dx) * 180) / Math.PI;
    const flat = angle > 90 ? angle - 180 : angle < -90 ? angle + 180 : angle;
    this.change({ length: (2 * Math.hypot(dx, dy)) / WIDTH, turnedDeg: (this.mirrored() ? -1 : 1) * flat });
  }

  protected drop(event: PointerEvent): void {
    if (!this.held()) return;
    this.held.set(null);
    this.picture().nativeElement.releasePointerCapture(event.pointerId);
  }

  protected key(event: KeyboardEvent): void {
    const { u, v, length, height, turnedDeg } = this.now();
    const way = this.mirrored() ? -1 : 1;
    const step = 0.05;
    const moves: Readonly<Record<string, Partial<FlankPattern>>> = event.shiftKey
      ? {
          ArrowLeft: { length: length - step },
          ArrowRight: { length: length + step },
          ArrowUp: { height: height + step },
          ArrowDown: { height: height - step },
        }
      : {
          ArrowLeft: { u: u - way * step },
          ArrowRight: { u: u + way * step },
          ArrowUp: { v: v + step },
          ArrowDown: { v: v - step },
          '[': { turnedDeg: turnedDeg - 5 },
          ']': { turnedDeg: turnedDeg + 5 },
        };
    const edge = EDGE_KEYS[event.key.toLowerCase()];
    if (edge && !event.ctrlKey && !event.metaKey && !event.altKey) return this.toggleEdge(event, edge);
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    this.change(move);
  }
}
