import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import {
  InputError,
  MESH_LIMITS,
  entryBase,
  oneSidedMove,
  parseEntry,
  say,
  saySmall,
  type Entry,
  type SectionPart,
} from '@hot-spline/core';
import {
  BUILT_IN_SEQUENCE,
  adjusterMoveWords,
  meshFigures,
  moveWords,
  setupSubjects,
  type AdjusterMove,
  type Side,
  type SubjectOf,
} from '@hot-spline/model';
import { Library } from '../state/library';
import { Choice } from '../shared/choice';
import { Drafts } from '../shared/drafts';
import { EntryField } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { ShimPlay } from '../section/shim-play';
import { SheetHead } from '../shared/sheet-head';
import { unitsSaid } from '../shared/units-said';
import { AdjusterDrawing } from './adjuster-drawing';
import { BeginPanel } from './begin-panel';
import { FloatPanel } from './float-panel';
import { numberKind } from './number-kind';
import { planOf } from './next-assembly';
import { piecesMm, piecesReader, piecesText } from './pieces';
import { NOTHING_IN, SetUp, type Assembly } from './set-up';
import { TrialStrip } from './trial-strip';

/** The carrier in its construction: what moves it, what that costs, and what is put together next. */
@Component({
  selector: 'hs-carrier-sheet',
  imports: [
    AdjusterDrawing,
    BeginPanel,
    Choice,
    EntryField,
    Field,
    FigureButton,
    FloatPanel,
    RouterLink,
    SheetHead,
    ShimPlay,
    TrialStrip,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './carrier-sheet.html',
  styleUrls: ['../shared/sheet.scss', './carrier-sheet.scss'],
})
export class CarrierSheet {
  readonly at = input<string>();
  protected readonly setUp = inject(SetUp);
  private readonly router = inject(Router);
  protected readonly bench = this.setUp.bench;
  protected readonly axle = this.setUp.axle;
  protected readonly mesh = this.setUp.mesh;
  /** What moves the ring. */
  protected readonly sideParts: readonly SectionPart[] = [
    'shim-left',
    'shim-right',
    'adjuster-left',
    'adjuster-right',
    'side-bearing-left',
    'side-bearing-right',
  ];
  protected readonly figures = meshFigures;
  protected readonly sides = ['left', 'right'] as const;
  protected readonly moves = MESH_LIMITS.moveMm;
  protected readonly runout = numberKind(setupSubjects.ringRunout.value);
  protected readonly spread = numberKind(setupSubjects.caseSpread.value);
  protected readonly runoutSubject = computed(() => setupSubjects.ringRunout.of({ axle: this.axle() }));
  protected readonly spreadSubject = computed(() => setupSubjects.caseSpread.of({ axle: this.axle() }));
  protected readonly byNotches = computed(() => this.mesh()?.ringBy === 'adjusters');
  protected readonly now = computed(() => this.mesh()?.now ?? null);

  /** What is laid out: the plan, else what is in. */
  protected readonly next = computed<Assembly>(() => this.setUp.planned() ?? this.now()?.value ?? NOTHING_IN);
  protected readonly number = computed(() => this.setUp.number() + 1);
  protected readonly planned = computed(() => this.setUp.planned() !== null);
  protected readonly text = piecesText;
  protected readonly readPinion = computed(() => piecesReader('Pinion shims', this.bench.system()));
  protected readonly readSide = computed(() => ({
    left: piecesReader('Left shims', this.bench.system()),
    right: piecesReader('Right shims', this.bench.system()),
  }));
  protected readonly readNotches = (text: string): Understood<number> => {
    const value = Number(text.trim().replace('−', '-'));
    if (!/^[+−-]?\d{1,3}$/.test(text.trim()))
      throw new InputError('Notches', 'Notches must be a whole number.', '-999 to 999');
    return { value, said: value === 0 ? 'where it was' : value > 0 ? 'in' : 'out' };
  };

  /** How the construction sets the ring, what it costs and what to mind. */
  protected readonly how = computed(() => HOW[this.mesh()?.ringBy ?? 'none']);
  protected readonly inboard = computed(() => this.mesh()?.ringBy === 'inboard-shims');
  protected readonly rounds = computed(() => this.mesh()?.assemblies.filter(({ number }) => number > 0).length ?? 0);

  /** What changes from what is in, in shop words. */
  protected readonly changes = computed(() => {
    const [mesh, now, next] = [this.mesh(), this.now(), this.next()];
    if (!mesh || !now || !this.planned()) return [];
    const system = this.bench.system();
    const off = (pack: 'pinion' | Side): number => piecesMm(next[pack]) - piecesMm(now.value[pack]);
    const lines: string[] = [];
    for (const pack of ['pinion', 'left', 'right'] as const) {
      const stock = this.setUp.stock()[pack === 'pinion' ? 'pinion' : 'sides'];
      if (stock.length === 0) continue;
      const missing = next[pack].filter(
        (piece) => !stock.some(({ thicknessMm }) => Math.abs(thicknessMm - entryBase(piece)) < 0.0006),
      );
      if (missing.length > 0)
        lines.push(
          `${pack === 'pinion' ? 'Pinion' : pack === 'left' ? 'Left' : 'Right'} ${piecesText(missing)}: not in the drawer, to be found.`,
        );
    }
    const shim = off('pinion');
    if (Math.abs(shim) > 0.0005) {
      const deeper = shim > 0 === (mesh.shimMoves === 'deeper');
      lines.push(`Pinion ${saySmall(shim, system)} ${deeper ? 'deeper' : 'shallower'}.`);
    }
    if (this.byNotches()) {
      for (const side of this.sides) {
        const key = side === 'left' ? 'leftNotches' : 'rightNotches';
        const notches = next[key] - now.value[key];
        if (notches !== 0)
          lines.push(
            `${side === 'left' ? 'Left' : 'Right'} adjuster ${Math.abs(notches)} ${Math.abs(notches) === 1 ? 'notch' : 'notches'} ${notches > 0 ? 'in' : 'out'}.`,
          );
      }
      const both = next.leftNotches + next.rightNotches - now.value.leftNotches - now.value.rightNotches;
      if (both !== 0)
        lines.push(`Together ${Math.abs(both)} ${both > 0 ? 'more in: preload up' : 'out: preload down'}.`);
      return lines;
    }
    const [left, right] = [off('left'), off('right')];
    if (Math.abs(left) < 0.0005 && Math.abs(right) < 0.0005) return lines;
    const acts = mesh.setup.sideShims === 'under-flange' ? -1 : 1;
    const towards = (acts * (mesh.setup.ringSide === 'left' ? left - right : right - left)) / 2;
    const preload = acts * (left + right);
    lines.push(
      `Ring ${saySmall(towards, system)} ${towards > 0 ? 'toward' : 'away from'} the pinion${Math.abs(preload) > 0.0005 ? ' while both bearings are loaded' : ''}.`,
    );
    lines.push(
      Math.abs(preload) < 0.0005
        ? `Total stays ${say(piecesMm(next.left) + piecesMm(next.right), 'length', system)}: preload stays.`
        : `Total ${saySmall(preload, system)} ${preload > 0 ? 'more: preload up' : 'less: preload down'}. Once preload is gone, a side’s shim moves the ring by all of it.`,
    );
    return lines;
  });

  // Move the ring by so much: both sides at once.
  protected readonly readMove = computed(() => {
    const system = this.bench.system();
    return (text: string): Understood<{ entry: Entry; mm: number }> => {
      const { entry, base } = parseEntry(text, {
        field: 'Move',
        quantity: 'length',
        scale: 'small',
        range: MESH_LIMITS.moveMm,
        system,
      });
      const mesh = this.mesh();
      const words = mesh
        ? moveWords(base, mesh.ringBy, mesh.setup.ringSide, mesh.notchMm, mesh.setup.sideShims, system)
        : '';
      const one = this.byNotches()
        ? ''
        : ` On one side only the ring goes ${saySmall(oneSidedMove(base, true), system)}.`;
      return { value: { entry, mm: base }, said: `${words}${one}` };
    };
  });
  protected readonly needsAdjusterData = computed(() => this.byNotches() && this.mesh()?.notchMm === null);

  /** Drawers that side packs can come from; the first takes any. */
  protected readonly boxes = computed(() => [
    { value: '', label: 'any drawer for the sides' },
    ...this.setUp.boxesOf().sides.map(({ id, spec }) => ({ value: id, label: spec.name })),
  ]);

  // Adjusters, step by step: ticks are kept for this assembly, over a reload too.
  private readonly drafts = inject(Drafts);
  private readonly ticksKey = computed(
    () => `${this.bench.editor().id ?? ''}.adjusters.${this.axle()}.${this.number()}`,
  );
  protected readonly done = linkedSignal<readonly number[]>(
    () => JSON.parse(this.drafts.read(this.ticksKey()) ?? '[]') as number[],
  );
  protected readonly nextStep = computed(() => this.guided().findIndex((_, i) => !this.done().includes(i)));
  /** The moves of the sheet’s own sequence, else of the built-in one, with what stands round them. */
  protected readonly guided = computed(() => {
    const [first = '', ...after] = this.how().steps;
    const moves = this.sequence()?.moves ?? BUILT_IN_SEQUENCE;
    const plain = (text: string): { text: string; move: AdjusterMove | null } => ({ text, move: null });
    return [
      plain(first),
      ...moves.map((move) => ({ text: adjusterMoveWords(move, unitsSaid), move })),
      ...after.map(plain),
    ];
  });
  protected readonly sequence = computed(() => this.setUp.identity()?.adjusterSequence ?? null);
  protected readonly ringSide = computed(() => this.setUp.setup()?.ringSide ?? 'left');

  /** A step done, or not after all: what comes after it is not done either. */
  protected tick(step: number): void {
    const done = this.done().includes(step)
      ? this.done().filter((one) => one < step)
      : [...this.done().filter((one) => one < step), step];
    this.done.set(done);
    this.drafts.write(this.ticksKey(), JSON.stringify(done));
  }

  protected setDrawer(id: string): void {
    this.setUp.change(({ drawers }) => (drawers.sides = id === '' ? null : id));
  }

  constructor() {
    inject(Library).open();
    jumpTo(this.at);
  }

  protected move({ mm }: { mm: number }): void {
    const mesh = this.mesh();
    const now = this.now();
    if (!mesh || !now) return;
    try {
      const base = { pinionShimMm: now.pinionMm, ringShiftMm: now.ringMm + mm };
      const plan = planOf(mesh, base, { ...this.setUp.stock(), pinion: [] });
      this.setUp.plan({ ...plan, pinion: this.next().pinion });
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.bench.refuse(error);
    }
  }

  protected lay(change: Partial<Assembly>): void {
    this.setUp.plan({ ...this.next(), ...change });
  }

  protected layNotches(side: Side, notches: number): void {
    this.lay(side === 'left' ? { leftNotches: notches } : { rightNotches: notches });
  }

  protected assemble(): void {
    if (!this.setUp.assemble(this.next(), this.number())) return;
    void this.router.navigate(['/builds', this.bench.editor().id, 'mesh']);
  }

  protected drop(): void {
    this.setUp.plan(null);
  }

  protected entryOf(subject: SubjectOf): Entry | null {
    const value = this.bench.readingOf(subject)?.value;
    return value?.of === 'number' ? (value.entries[0] ?? null) : null;
  }

  protected write(subject: SubjectOf, value: Entry | readonly Entry[]): void {
    this.bench.record(subject, value, 'Dial indicator');
  }
}

/** What sets the ring in each construction, and what to mind (common practice). */
const HOW = {
  'outboard-shims': {
    title: 'Shims outboard of the bearings',
    steps: [
      'Spread the case no farther than the sheet says, an indicator across it.',
      'What goes out of one side goes into the other: the total keeps preload.',
      'Release, caps to torque, turn a few times, then read.',
    ],
    caution:
      'A spread case is under load and can crack: stay below its limit. The carrier falls when the second cap goes.',
  },
  'inboard-shims': {
    title: 'Shims under the carrier bearings',
    steps: [
      'The bearings come off for every change: set-up bearings with honed bores save them.',
      'What goes out of one side goes into the other: the total keeps preload.',
      'Measure both head heights of the final bearings against the set-up ones.',
    ],
    caution: 'Pulling a bearing off can spoil it: count the times, look at the rollers.',
  },
  adjusters: {
    title: 'Threaded adjusters',
    // What stands round the moves of its sequence.
    steps: [
      'Count the notches of both before either one is backed off; mark both, write them down here. Caps snug.',
      'Caps to the torque of the sheet. Turn it a few times and read backlash all round.',
      'Lash short: ring side out, far side in, the same number of notches. Too loose: begin again. Both end on a lock notch.',
    ],
    caution:
      'One adjuster far in and the other far out, or a carrier that rubs: stop, something is in the way. Torques are the maker’s sheet’s.',
  },
  'cover-shims': {
    title: 'Shims behind the side-bearing cups',
    steps: [
      'Old shims back in their old places for the first try.',
      'What goes out of one side goes into the other: the total keeps preload.',
      'Under a cover’s flange a shim acts the other way round: said on the baseline.',
    ],
    caution: 'The unit is heavy: hold the carrier before the second cover comes off.',
  },
  'shims-or-rings': {
    title: 'Shims or rings under the side bearings',
    steps: [
      'With rings: count turns before they are backed off.',
      'What goes out of one side goes into the other: the total keeps preload.',
      'Read with the case bolted up: an open half gives another figure.',
    ],
    caution: 'Magnesium and aluminium cases gall: clean threads, the sheet’s torque.',
  },
  none: {
    title: 'One shim sets end float',
    steps: [
      'Centre distance is fixed: there is no depth and no ring position to set.',
      'New shim = old shim + (measured − wanted).',
    ],
    caution: 'High voltage: the drive unit is isolated and checked by a trained hand before it is opened.',
  },
} as const;
