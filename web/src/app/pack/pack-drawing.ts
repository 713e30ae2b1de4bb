import { CdkDrag, CdkDragPlaceholder, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { formatIn, formatSmall, saySmall } from '@hot-spline/core';
import { isSpring, type MemberState, type PackSideState, type Side } from '@hot-spline/model';
import { isNarrow } from '../shared/narrow';
import { Bench } from '../state/bench';

interface Drawn {
  readonly state: MemberState;
  /** Place outwards from the gear, from 0. */
  readonly index: number;
  readonly width: number;
  /** What it takes across: wider than it is drawn where a thumb has to meet it. */
  readonly slot: number;
  /** A working interface on the side towards the gear. */
  readonly litInside: boolean;
  /** A working interface against the case wall. */
  readonly litOutside: boolean;
  readonly number: string;
  /** Its number stands on end: lying it would lie over that of its neighbour. */
  readonly upright: boolean;
  readonly name: string;
}

/** Pixels for the deepest pack, where there is room. */
const ROOM = 276;
const LEAST = 13;
/** What a thumb needs: so wide is the place of a plate in the hand, however thin it is drawn. */
const THUMB = 44;
/** A digit of a number above a piece, px. */
const DIGIT = 7;
/** Wall, side gear and some air beside them. */
const BESIDE = 50;

/** One pack plate by plate, to scale across: what turns with the case is hatched with ears, with the gear dotted with teeth. */
@Component({
  selector: 'hs-pack-drawing',
  imports: [CdkDrag, CdkDragPlaceholder, CdkDropList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.left]': "side() === 'left'" },
  template: `
    <div class="pack" [class.tall]="tall()" [id]="'stack-' + side()" tabindex="-1">
      <div class="wall" aria-hidden="true"></div>
      <div
        class="members"
        role="listbox"
        [attr.aria-multiselectable]="true"
        [attr.aria-label]="side() + ' pack, outwards from the side gear'"
        aria-orientation="horizontal"
        cdkDropList
        cdkDropListOrientation="horizontal"
        (cdkDropListDropped)="drop($event)"
      >
        @for (drawn of shown(); track drawn.state.member.id) {
          <button
            type="button"
            role="option"
            cdkDrag
            [cdkDragStartDelay]="{ touch: 150, mouse: 0 }"
            [class]="'plate ' + drawn.state.member.kind"
            [class.gear]="drawn.state.keyedTo === 'gear'"
            [class.lined]="drawn.state.lined"
            [class.lit-inside]="drawn.litInside"
            [class.lit-outside]="drawn.litOutside"
            [class.marked]="marked().has(drawn.state.member.id)"
            [attr.aria-selected]="selected() === drawn.state.member.id || marked().has(drawn.state.member.id)"
            [attr.aria-label]="drawn.name"
            [title]="drawn.name"
            [attr.data-member]="drawn.state.member.id"
            [tabindex]="drawn.state.member.id === stop() ? 0 : -1"
            (focus)="at.set(drawn.state.member.id)"
            [style.width.px]="drawn.slot"
            [style.--drawn.px]="drawn.width"
            (click)="pick($event, drawn.state.member.id)"
            (keydown)="key($event, drawn)"
          >
            <span class="number mono" [class.upright]="drawn.upright" aria-hidden="true">{{ drawn.number }}</span>
            @if (outline(drawn); as line) {
              <svg viewBox="0 0 20 100" preserveAspectRatio="none" aria-hidden="true" [class.line]="line.open">
                <path [attr.d]="line.path" />
              </svg>
            } @else {
              <span class="body" aria-hidden="true"></span>
            }
            <ng-template cdkDragPlaceholder
              ><span class="placeholder" [style.width.px]="drawn.slot"></span
            ></ng-template>
          </button>
        }
      </div>
      <div class="side-gear" aria-hidden="true"><span>side gear</span></div>
    </div>
    <svg
      class="scale"
      [attr.viewBox]="'0 0 ' + (room() + 20) + ' 26'"
      [style.width.px]="room() + 20"
      aria-hidden="true"
    >
      <rect [attr.x]="x(target()) - band() / 2" y="4" [attr.width]="band()" height="18" class="band" />
      <path [attr.d]="dimension()" class="dim" />
    </svg>
    <p
      class="height mono"
      [class.off]="off() > 2 * tolerance()"
      [class.near]="off() > tolerance() && off() <= 2 * tolerance()"
    >
      {{ height() }}
    </p>
    <p class="against">{{ side() }}: {{ against() }}</p>
  `,
  styleUrl: './pack-drawing.scss',
})
export class PackDrawing {
  readonly side = input.required<Side>();
  readonly pack = input.required<PackSideState>();
  readonly target = input.required<number>();
  readonly tolerance = input.required<number>();
  readonly selected = input<string | null>(null);
  /** Pieces marked beside the chosen one: what is changed is changed on all of them. */
  readonly marked = input<ReadonlySet<string>>(new Set<string>());
  readonly choose = output<string>();
  readonly mark = output<string>();
  readonly moved = output<{ from: number; to: number }>();
  readonly removed = output<string>();

  /** Tab comes to one piece of the pack, the arrow keys go on from there: the one that had it last, the chosen one, the first. */
  protected readonly at = signal<string | null>(null);
  protected readonly stop = computed(() => {
    const ids = this.shown().map(({ state }) => state.member.id);
    return [this.at(), this.selected()].find((id) => id !== null && ids.includes(id)) ?? ids[0] ?? null;
  });

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly system = inject(Bench).system;
  private readonly thumb = isNarrow() && matchMedia('(pointer: coarse)').matches;
  private readonly width = signal(ROOM + BESIDE);
  /** As much as there is, so that both packs are whole side by side. */
  protected readonly room = computed(() => Math.max(120, Math.min(ROOM, this.width() - BESIDE)));
  protected readonly scale = computed(() => this.room() / Math.max(this.pack().caseDepthMm, this.pack().stackMm, 1));

  constructor() {
    const seen = new ResizeObserver(([entry]) => {
      if (entry && entry.contentRect.width > 0) this.width.set(Math.floor(entry.contentRect.width));
    });
    seen.observe(this.host.nativeElement);
    inject(DestroyRef).onDestroy(() => seen.disconnect());
  }

  private readonly outwards = computed<Drawn[]>(() => {
    const pack = this.pack();
    const springs = pack.members.filter(({ member }) => isSpring(member)).length;
    const springMm = Math.max(pack.springInstalledMm, 0) / Math.max(springs, 1);
    return pack.members.map((state, index) => {
      const { member } = state;
      const mm = isSpring(member) ? springMm : state.thicknessMm;
      const shown = formatIn(state.thicknessMm, 'length', this.system());
      const turns = state.keyedTo === 'gear' ? 'turns with the side gear' : 'turns with the case';
      const number =
        member.kind === 'shim'
          ? formatSmall(state.thicknessMm, this.system()).text.replace(/\.0$/, '')
          : String(index + 1);
      const slot = Math.max(this.thumb ? THUMB : LEAST, mm * this.scale());
      return {
        state,
        index,
        width: Math.max(LEAST, mm * this.scale()),
        slot,
        upright: number.length * DIGIT > slot,
        litInside: pack.gaps[index] ?? false,
        litOutside: index === pack.members.length - 1 && (pack.gaps[index + 1] ?? false),
        number,
        name: `${index + 1} ${member.label}, ${shown.text} ${shown.unit} ${state.reading ? 'measured' : 'catalogue'}, ${turns}${state.lined ? ', lined' : ''}`,
      };
    });
  });
  protected readonly tall = computed(() => this.outwards().some(({ upright }) => upright));
  /** As drawn from left to right: the left pack has its gear at the right. */
  protected readonly shown = computed(() =>
    this.side() === 'left' ? [...this.outwards()].reverse() : this.outwards(),
  );

  /** Width of the target band: to scale, but never too thin to see. */
  protected readonly band = computed(() => Math.max(4, 2 * this.tolerance() * this.scale()));
  protected readonly off = computed(() => Math.abs(this.pack().stackMm - this.target()));
  protected readonly height = computed(() => {
    const { text, unit } = formatIn(this.pack().stackMm, 'length', this.system());
    return `${text} ${unit}`;
  });
  protected readonly against = computed(() => {
    const off = this.pack().stackMm - this.target();
    const target = formatIn(this.target(), 'length', this.system()).text;
    const from = this.pack().stackFrom === 'stack' ? 'measured as a stack, ' : '';
    if (Math.abs(off) < 0.001) return `${from}on target ${target}`;
    return `${from}${saySmall(off, this.system())} ${off < 0 ? 'under' : 'over'} target ${target}`;
  });
  protected readonly dimension = computed(() => {
    const start = this.x(0);
    const end = this.x(this.pack().stackMm);
    return `M${start} 4v18M${end} 4v18M${start} 13H${end}`;
  });

  /** Place of a height on the scale: from the side gear outwards. */
  protected x(mm: number): number {
    return this.side() === 'left' ? this.room() + 10 - mm * this.scale() : 10 + mm * this.scale();
  }

  /** What a spring looks like from the side; a plate has a body instead. */
  protected outline({ state: { member } }: Drawn): { path: string; open: boolean } | null {
    switch (member.kind) {
      case 'spring':
        return { path: this.cone(member.hollow), open: false };
      case 'wave':
        return { path: 'M6 2Q18 14 10 26T10 50T10 74T14 98', open: true };
      case 'coils':
        return { path: 'M1 10H19L1 22H19L1 34M1 66H19L1 78H19L1 90', open: true };
      case 's-spring':
        return { path: 'M1 18H12Q19 18 19 34T10 50T1 66T8 82H19', open: true };
      default:
        return null;
    }
  }

  private cone(hollow: 'in' | 'out'): string {
    const hollowRight = (hollow === 'in') === (this.side() === 'left');
    return hollowRight ? 'M19 2 3 50 19 98 14 98 1 50 14 2Z' : 'M1 2 17 50 1 98 6 98 19 50 6 2Z';
  }

  /** With Ctrl, Shift or Command it is marked beside the chosen one. */
  protected pick(event: MouseEvent, id: string): void {
    if (event.ctrlKey || event.shiftKey || event.metaKey) this.mark.emit(id);
    else this.choose.emit(id);
  }

  protected key(event: KeyboardEvent, drawn: Drawn): void {
    if (event.key === 'Delete') {
      event.preventDefault();
      this.removed.emit(drawn.state.member.id);
      return;
    }
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    if (event.altKey) {
      this.moved.emit({ from: drawn.index, to: drawn.index + (this.side() === 'left' ? -step : step) });
      return;
    }
    const plates = [
      ...((event.currentTarget as HTMLElement).parentElement?.querySelectorAll<HTMLElement>('.plate') ?? []),
    ];
    plates[plates.indexOf(event.currentTarget as HTMLElement) + step]?.focus();
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    const last = this.pack().members.length - 1;
    const place = (index: number): number => (this.side() === 'left' ? last - index : index);
    if (previousIndex !== currentIndex) this.moved.emit({ from: place(previousIndex), to: place(currentIndex) });
  }

  /** Gives a piece the focus, so that it can be moved on with the keys. */
  focusMember(id: string): void {
    this.host.nativeElement.querySelector<HTMLElement>(`[data-member="${id}"]`)?.focus();
  }
}
