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
import type { DrawnPart, Outline, Point, Section, SectionAid, SectionPart } from '@hot-spline/core';
import { PART_NAMES, type Look, type Looks } from '@hot-spline/model';
import { LINE_PX, fitOf, layLabels, type Label } from './layout';

/** A part that goes on or comes off: an arrow says which way. */
export interface Moving {
  readonly part: SectionPart;
  readonly way: 'off' | 'on';
}

/** A part with words outside of the drawing. */
export interface Said {
  readonly part: SectionPart;
  readonly text: string;
}

/** What moves, mm; drawn larger than it is. */
export interface Shift {
  readonly deeperMm: number;
  readonly closerMm: number;
}

/** The largest of a shift is drawn this long. */
const SHIFT_PX = 11;
const ARROW_PX = 30;

const fixed = (value: number): string => value.toFixed(1);
let made = 0;

/** An axle cut along both of its axes, from its own numbers: what a hand is on in ochre, what is off as an outline. Our own drawing. */
@Component({
  selector: 'hs-section',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './section-drawing.html',
  styleUrl: './section-drawing.scss',
})
export class SectionDrawing {
  readonly section = input.required<Section>();
  readonly looks = input<Looks>({});
  readonly touched = input<readonly SectionPart[]>([]);
  readonly moving = input<readonly Moving[]>([]);
  readonly said = input<readonly Said[]>([]);
  readonly aid = input<SectionAid | null>(null);
  readonly shift = input<Shift | null>(null);
  /** Parts that answer to a hand. */
  readonly touchable = input<readonly SectionPart[]>([]);
  readonly label = input('Section of the axle');
  /** At most so high, px. */
  readonly most = input(330);
  readonly chosen = output<SectionPart>();
  protected readonly id = `section-${++made}`;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly width = signal(480);
  /** What the pointer is on. */
  protected readonly over = signal('');

  constructor() {
    const destroy = inject(DestroyRef);
    afterNextRender(() => {
      const measure = (): void => {
        if (this.host.clientWidth > 0) this.width.set(this.host.clientWidth);
      };
      const watch = new ResizeObserver(measure);
      watch.observe(this.host);
      measure();
      destroy.onDestroy(() => watch.disconnect());
    });
  }

  private readonly labels = computed(() => {
    const section = this.section();
    const parts = new Map(section.parts.map((part) => [part.part, part]));
    return this.said().flatMap(({ part, text }) => {
      const drawn = parts.get(part);
      return drawn ? [{ text, anchor: drawn.anchor, strong: this.touched().includes(part) }] : [];
    });
  });

  protected readonly drawn = computed(() => {
    const [section, width] = [this.section(), this.width()];
    // Rows of labels depend on the scale, and the scale on their rows: laid once without them, then with.
    const first = fitOf(section, width, this.most(), { above: 0, below: 0, side: 26 });
    const placed = (fit: typeof first): Label[] => this.labels().map((one) => ({ ...one, anchor: fit.to(one.anchor) }));
    const rows = layLabels(placed(first), width, first.height / 2);
    const margins = {
      above: 10 + rows.above * LINE_PX,
      below: 12 + rows.below * LINE_PX,
      side: 26,
    };
    const fit = fitOf(section, width, this.most(), margins);
    const laid = layLabels(placed(fit), width, fit.height / 2);
    const bottom = fit.height - margins.below;
    return { fit, labels: laid.at(margins.above, bottom), top: margins.above, bottom };
  });

  protected readonly parts = computed(() => {
    const { fit } = this.drawn();
    const [looks, touched, touchable] = [this.looks(), new Set(this.touched()), new Set(this.touchable())];
    return this.section().parts.map((part) => ({
      part: part.part,
      name: PART_NAMES[part.part],
      turns: part.turns,
      d: part.outlines.map((outline) => this.path(outline)).join(''),
      lines: part.lines
        .map(([a, b]) => [fit.to(a), fit.to(b)] as const)
        .map(([a, b]) => `M${fixed(a.x)} ${fixed(a.y)}L${fixed(b.x)} ${fixed(b.y)}`)
        .join(''),
      look: looks[part.part] ?? ('in' satisfies Look),
      touched: touched.has(part.part),
      shim: part.exaggerated,
      answers: touchable.has(part.part),
      move: this.moveOf(part),
    }));
  });

  private path(outline: Outline): string {
    const { to } = this.drawn().fit;
    return `M${outline
      .map(to)
      .map(({ x, y }) => `${fixed(x)} ${fixed(y)}`)
      .join('L')}Z`;
  }

  /** How far a part goes with the shift, px. */
  private moveOf({ turns, part }: DrawnPart): string {
    const shift = this.shift();
    const { deeper, closer } = this.section();
    if (!shift || !deeper || !closer) return 'translate(0 0)';
    const largest = Math.max(Math.abs(shift.deeperMm), Math.abs(shift.closerMm));
    if (largest === 0) return 'translate(0 0)';
    const px = SHIFT_PX / largest;
    const along = (way: Point, mm: number): string => `translate(${fixed(way.x * mm * px)} ${fixed(way.y * mm * px)})`;
    if (turns === 'pinion' && part !== 'pinion-shim') return along(deeper, shift.deeperMm);
    if (turns === 'carrier' || turns === 'shafts') return along(closer, shift.closerMm);
    return 'translate(0 0)';
  }

  protected readonly axes = computed(() => {
    const { to } = this.drawn().fit;
    return this.section()
      .axes.map(([a, b]) => [to(a), to(b)] as const)
      .map(([a, b]) => `M${fixed(a.x)} ${fixed(a.y)}L${fixed(b.x)} ${fixed(b.y)}`)
      .join('');
  });

  /** Arrows of what comes off and goes on, one for each part that has a way of its own. */
  protected readonly arrows = computed(() => {
    const { to } = this.drawn().fit;
    const parts = new Map(this.section().parts.map((part) => [part.part, part]));
    return this.moving().flatMap(({ part, way }) => {
      const drawn = parts.get(part);
      if (!drawn?.off) return [];
      const from = to(drawn.anchor);
      const { x, y } = drawn.off;
      const far = { x: from.x + x * ARROW_PX, y: from.y + y * ARROW_PX };
      return [way === 'off' ? this.arrow(from, far) : this.arrow(far, from)];
    });
  });

  private arrow(from: Point, to: Point): { line: string; head: string } {
    const long = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const [x, y] = [(to.x - from.x) / long, (to.y - from.y) / long];
    const neck = { x: to.x - x * 10, y: to.y - y * 10 };
    const corner = (side: number): string => `${fixed(neck.x - y * 6 * side)} ${fixed(neck.y + x * 6 * side)}`;
    return {
      line: `M${fixed(from.x)} ${fixed(from.y)}L${fixed(neck.x)} ${fixed(neck.y)}`,
      head: `M${fixed(to.x)} ${fixed(to.y)}L${corner(1)}L${corner(-1)}Z`,
    };
  }

  /** Dials that stand where they belong and where they don’t; distances; marks. */
  protected readonly aids = computed(() => {
    const [aid, section, { to, scale }] = [this.aid(), this.section(), this.drawn().fit];
    const stands = section.stands;
    const of =
      aid === 'indicator-tooth'
        ? stands.tooth
        : aid === 'indicator-ring-back'
          ? stands['ring-back']
          : aid === 'indicator-shaft'
            ? stands.shaft
            : undefined;
    const dial = ({ at, looks }: { at: Point; looks: Point }, right: boolean) => {
      const tip = to(at);
      const long = right ? 30 : 24;
      const middle = { x: tip.x - looks.x * long, y: tip.y - looks.y * long };
      return {
        tip,
        middle,
        right,
        r: right ? 12 : 9,
        stem: `M${fixed(tip.x)} ${fixed(tip.y)}L${fixed(middle.x)} ${fixed(middle.y)}`,
      };
    };
    const dials = of ? [...of.wrong.map((one) => dial(one, false)), dial(of.right, true)] : [];
    const lines =
      aid === 'depth-gauge' && section.depth ? [section.depth] : aid === 'race-to-flange' ? section.raceToFlange : [];
    const spans = lines.map(([a, b]) => {
      const [from, end] = [to(a), to(b)];
      return { ...this.arrow(from, end), back: this.arrow(end, from).head };
    });
    const by = (part: SectionPart): Point | null => {
      const drawn = section.parts.find((one) => one.part === part);
      return drawn ? to(drawn.anchor) : null;
    };
    // One dot on the right, two on the left: caps and covers by their side.
    const dots =
      aid === 'cap-marks'
        ? (['left', 'right'] as const).flatMap((side) => {
            const at = by(`cap-${side}`) ?? by(`side-cover-${side}`);
            if (!at) return [];
            return side === 'right'
              ? [at]
              : [
                  { x: at.x - 4, y: at.y },
                  { x: at.x + 4, y: at.y },
                ];
          })
        : [];
    const flange = by('flange');
    const pin = by('cross-pin');
    const ring = section.parts.find(({ part }) => part === 'ring')?.outlines.flat() ?? [];
    const backs = aid === 'faces' && ring.length > 0 ? this.backOf(ring) : '';
    return {
      dials,
      spans,
      dots,
      mark: aid === 'match-marks' && flange ? `M${fixed(flange.x - 14)} ${fixed(flange.y + 10)}h28` : '',
      pin: aid === 'pin-way' && pin ? this.arrow(pin, { x: pin.x + 0.72 * 100 * scale, y: pin.y }) : null,
      gap: aid === 'insert-gap' ? this.gap(by('side-gear-left'), by('side-gear-right')) : null,
      backs,
    };
  });

  /** The face of the ring that lies on its flange. */
  private backOf(ring: Outline): string {
    const { to } = this.drawn().fit;
    const up = (this.section().closer?.y ?? -1) < 0;
    const edge = up ? Math.max(...ring.map(({ y }) => y)) : Math.min(...ring.map(({ y }) => y));
    return [ring.filter(({ x, y }) => x < 0 && y === edge), ring.filter(({ x, y }) => x > 0 && y === edge)]
      .filter(({ length }) => length > 1)
      .map((points) => points.map(to))
      .map((points) => `M${points.map(({ x, y }) => `${fixed(x)} ${fixed(y)}`).join('L')}`)
      .join('');
  }

  private gap(a: Point | null, b: Point | null) {
    if (!a || !b) return null;
    const [top, bottom] = a.y < b.y ? [a, b] : [b, a];
    return { ...this.arrow(bottom, top), back: this.arrow(top, bottom).head };
  }

  protected touch(part: SectionPart, answers: boolean): void {
    if (answers) this.chosen.emit(part);
  }
}
