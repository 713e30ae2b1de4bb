import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  inject,
  input,
  signal,
  viewChild,
  viewChildren,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { RouterLink } from '@angular/router';
import { LIMITS, entryBase, entryOf, type PreloadActs, type WearModel } from '@hot-spline/core';
import { SIDES, UNIT_TYPE_WORDS, type PlateSpec, type Side, packFigures } from '@hot-spline/model';
import { Library } from '../state/library';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { isNarrow } from '../shared/narrow';
import { SheetHead } from '../shared/sheet-head';
import { activeTab } from '../shared/active-tab';
import { Tabs } from '../shared/tabs';
import { PACK_TABS } from './tabs';
import { Bench } from '../state/bench';
import { WrenchTab } from './wrench-tab';
import { FrictionFields } from './friction-fields';
import { readBand } from './band';
import { InspectTab } from './inspect-tab';
import { MeasureTab } from './measure-tab';
import { MemberEditor, type Scope, type ScopeOption } from './member-editor';
import { KIND_WORDS, addMember, mirrorLeft, moveMember, type MemberKind } from './members';
import { PackDrawing } from './pack-drawing';
import { ShimsTab } from './shims-tab';
import { SureTab } from './sure-tab';
import { WantedTab } from './wanted-tab';

/** The packs: order, heights, springs, and what the torque wrench will read. */
@Component({
  selector: 'hs-pack-sheet',
  imports: [
    WrenchTab,
    EntryField,
    FigureButton,
    FrictionFields,
    MeasureTab,
    Field,
    InspectTab,
    MemberEditor,
    NgTemplateOutlet,
    PackDrawing,
    RouterLink,
    Choice,
    SheetHead,
    ShimsTab,
    SureTab,
    Tabs,
    WantedTab,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pack-sheet.html',
  styleUrls: ['../shared/sheet.scss', './pack-sheet.scss'],
})
export class PackSheet {
  readonly at = input<string>();
  /** From the address. */
  readonly tab = input<string>();
  protected readonly bench = inject(Bench);
  protected readonly ids = packFigures;
  /** On a phone a piece opens under its own pack. */
  protected readonly narrow = isNarrow();

  protected readonly sides = SIDES;
  protected readonly tabs = PACK_TABS;
  protected readonly addable: { kind: MemberKind; label: string }[] = [
    { kind: 'eared', label: 'steel' },
    { kind: 'splined', label: 'friction' },
    { kind: 'shim', label: 'shim' },
    { kind: 'spring', label: 'spring' },
  ];
  protected readonly others: { kind: MemberKind; label: string }[] = [
    { kind: 'ring', label: 'pressure ring' },
    { kind: 'wave', label: 'wave plate' },
    { kind: 'coils', label: 'coil springs' },
    { kind: 's-spring', label: 'S-spring' },
  ];
  protected readonly faces = [
    { value: 'none', label: 'bare, both' },
    { value: 'gear', label: 'lined at the gear' },
    { value: 'wall', label: 'lined at the wall' },
    { value: 'both', label: 'lined, both' },
  ];
  protected readonly wearModels: { value: WearModel; label: string }[] = [
    { value: 'uniform-wear', label: 'Uniform wear (bedded)' },
    { value: 'uniform-pressure', label: 'Uniform pressure (new)' },
  ];
  protected readonly preloads: { value: PlateSpec['preload']['from']; label: string }[] = [
    { value: 'dished-springs', label: 'Springs in the pack' },
    { value: 'measured-force', label: 'Force as measured' },
  ];
  protected readonly actings: { value: PreloadActs; label: string }[] = [
    { value: 'series', label: 'clamp passes through it' },
    { value: 'parallel', label: 'it pushes with the thrust' },
  ];
  protected readonly loadRange = { min: 0, max: 90, unit: '%' };
  protected readonly range = LIMITS.thicknessMm;
  protected readonly diameterRange = LIMITS.diameterMm;
  protected readonly frictionRange = LIMITS.frictionCoefficient;
  protected readonly forceRange = LIMITS.forceN;
  protected readonly usualHeight = [3, 80] as const;
  protected readonly usualTolerance = [0.005, 0.5] as const;
  protected readonly usualDiameter = [20, 400] as const;

  protected readonly unitName = computed(() => UNIT_TYPE_WORDS[this.bench.axle()?.unit.type ?? 'open'].name);
  protected readonly plate = this.bench.plates;
  protected readonly packs = computed(() => this.bench.derived()?.axles[this.bench.axleName()]?.pack ?? null);
  /** How the wrench is held when it is read; with the other wheel held where nobody has said. */
  protected readonly hold = computed(() => this.plate()?.wanted?.hold ?? 'other-wheel-held');
  /** What there is to do about the packs: the gravest that was found of them. */
  protected readonly answer = computed(() => {
    const axle = this.bench.axleName();
    const of = this.bench
      .derived()
      ?.findings.find(({ place, verdict }) => place.sheet === 'pack' && place.axle === axle && verdict !== 'fits');
    return of
      ? of.say(this.bench.system())
      : { title: 'Nothing to change', detail: 'Heights, breakaway and springs are as they are wanted.' };
  });
  protected readonly active = activeTab(PACK_TABS, this.tab);
  protected readonly target = computed(() => entryBase(this.plate()?.targetHeight ?? entryOf(1, 'mm')));
  protected readonly tolerance = computed(() => entryBase(this.plate()?.tolerance ?? entryOf(1, 'mm')));
  protected readonly force = computed(() => {
    const preload = this.plate()?.preload;
    return preload?.from === 'measured-force' ? preload : null;
  });
  /** Whether a spring stands between the gears, whichever pack it is listed with. */
  protected readonly between = computed(() => (this.packs()?.left.between ?? null) !== null);

  /** How the springs act: the thrust through them, or both side by side, as the drawing beside the words has it. */
  private readonly acts = computed(() => {
    const packs = this.packs();
    if (!packs) return null;
    const { seriesN, parallelN } = packs.left.rest;
    return seriesN > 0 && parallelN > 0 ? 'both' : parallelN > 0 ? 'parallel' : seriesN > 0 ? 'series' : null;
  });
  protected readonly actsPath = computed(() => {
    const series = 'M2 9H22M52 9H72M22 9l4-6 6 12 6-12 6 12 6-12 2 6M66 5l6 4-6 4';
    const parallel = 'M2 4H72M66 1l6 3-6 3M2 14H22M52 14H72M22 14l4-5 6 8 6-8 6 8 6-8 2 5M66 11l6 3-6 3';
    return this.acts() === 'series' ? series : parallel;
  });
  protected readonly actsWords = computed(() => {
    const between = this.between() ? 'between the gears' : 'inside of the pressure ring';
    switch (this.acts()) {
      case 'series':
        return 'Springs in series: the clamp passes through them to the case. The larger of spring and thrust counts.';
      case 'parallel':
        return `Spring ${between}, in parallel: it pushes outwards along with the thrust. Both add up.`;
      case 'both':
        return `Springs in the pack in series, and ${between} in parallel: the larger of the first, and of the second with the thrust.`;
      default:
        return 'No spring presses: the thrust alone clamps.';
    }
  });

  private readonly injector = inject(Injector);
  private readonly editor = viewChild(MemberEditor, { read: ElementRef<HTMLElement> });
  private readonly drawings = viewChildren(PackDrawing);
  private readonly chosen = signal<string | null>(null);
  protected readonly selected = computed(() => {
    const id = this.chosen();
    const packs = this.packs();
    if (id === null || !packs) return null;
    for (const side of SIDES) {
      const index = packs[side].members.findIndex(({ member }) => member.id === id);
      const state = packs[side].members[index];
      if (state) return { side, index, state, count: packs[side].members.length };
    }
    return null;
  });

  /** Pieces marked beside the chosen one, and whether a touch marks instead of choosing. */
  private readonly also = signal<readonly string[]>([]);
  protected readonly marking = signal(false);
  protected readonly marked = computed<ReadonlySet<string>>(() => new Set(this.also()));
  protected readonly scope = signal<Scope>('one');
  /** What a change can go for, with the pieces of each. */
  protected readonly scopes = computed<readonly ScopeOption[]>(() => {
    const [selected, packs] = [this.selected(), this.packs()];
    if (!selected || !packs) return [];
    const { member } = selected.state;
    const ids = (sides: readonly Side[]): string[] =>
      sides.flatMap((side) => packs[side].members.flatMap(({ member: m }) => (m.kind === member.kind ? [m.id] : [])));
    const kind = KIND_WORDS[member.kind].replace(/,.*$/, '');
    const [here, all] = [ids([selected.side]), ids(SIDES)];
    const options: ScopeOption[] = [{ value: 'one', label: 'this piece', ids: [member.id] }];
    if (here.length > 1)
      options.push({ value: 'side', label: `${here.length} × ${kind}, ${selected.side}`, ids: here });
    if (all.length > here.length) options.push({ value: 'kind', label: `all ${all.length} × ${kind}`, ids: all });
    const marked = all.filter((id) => id === member.id || this.also().includes(id));
    if (marked.length > 1) options.push({ value: 'marked', label: `${marked.length} marked`, ids: marked });
    return options;
  });

  protected readonly bandText = computed(() => {
    const band = this.plate()?.sideGearBacklash;
    return band ? `${band.low.typed} – ${band.high.typed}` : '';
  });
  protected readonly readBand = (text: string): Understood<PlateSpec['sideGearBacklash']> =>
    readBand(text, this.bench.system());

  constructor() {
    inject(Library).open();
    jumpTo(this.at, () => ({ tab: this.active() }));
  }

  /** Marks a piece beside the chosen one, or takes the mark off; the first one is chosen. */
  protected mark(id: string): void {
    const chosen = this.chosen();
    if (chosen === null) {
      this.choose(id);
      return;
    }
    if (id === chosen) return;
    this.also.update((ids) => (ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id]));
    this.scope.set(this.scopes().some(({ value }) => value === 'marked') ? 'marked' : 'one');
  }

  protected choose(id: string): void {
    if (this.marking() && this.chosen() !== null) {
      this.mark(id);
      return;
    }
    this.unmark();
    this.chosen.set(this.chosen() === id ? null : id);
    // The editor opens below the drawing; on a low screen that is out of sight.
    this.afterwards(() => this.editor()?.nativeElement.scrollIntoView({ block: 'nearest' }));
  }

  private unmark(): void {
    this.also.set([]);
    this.scope.set('one');
    this.marking.set(false);
  }

  protected close(): void {
    this.unmark();
    this.chosen.set(null);
  }

  protected move(side: Side, { from, to }: { from: number; to: number }): void {
    const id = this.plate()?.packs[side].members[from]?.id;
    this.bench.changePlate((plate) => moveMember(plate, side, from, to));
    // The plate keeps the focus in its new place, so that it can be moved on with the keys.
    this.afterwards(() => {
      if (id)
        this.drawings()
          .find((drawing) => drawing.side() === side)
          ?.focusMember(id);
    });
  }

  /** Once what was changed is on the screen. */
  private afterwards(run: () => void): void {
    afterNextRender({ read: run }, { injector: this.injector });
  }

  protected add(side: Side, kind: MemberKind): void {
    this.bench.changePlate((plate) => this.chosen.set(addMember(plate, side, kind).id));
  }

  protected remove(side: Side, id: string): void {
    this.bench.changePlate(
      (plate) => (plate.packs[side].members = plate.packs[side].members.filter((member) => member.id !== id)),
    );
  }

  protected mirror(): void {
    this.bench.changePlate(mirrorLeft);
  }

  protected setWear(wearModel: WearModel): void {
    this.bench.changePlate((plate) => (plate.wearModel = wearModel));
  }

  protected setPreload(from: PlateSpec['preload']['from']): void {
    const clamp = this.packs()?.left.clampN ?? 0;
    this.bench.changePlate((plate) => {
      plate.preload =
        from === 'dished-springs'
          ? { from }
          : { from, force: entryOf(Math.round(clamp) || 1000, 'N'), acts: this.packs()?.left.acts ?? 'series' };
    });
  }

  protected setForce({ entry }: TakenEntry): void {
    this.bench.changePlate((plate) => {
      if (plate.preload.from === 'measured-force') plate.preload.force = entry;
    });
  }

  protected setActs(acts: PreloadActs): void {
    this.bench.changePlate((plate) => {
      if (plate.preload.from === 'measured-force') plate.preload.acts = acts;
    });
  }

  protected setLoad(end: 'minus' | 'plus', { entry }: TakenEntry): void {
    this.bench.changePlate((plate) => (plate.springLoad[end] = entry));
  }

  protected setDepth(side: Side, { entry }: TakenEntry): void {
    this.bench.changePlate((plate) => (plate.packs[side].caseDepth = entry));
  }

  protected other(side: Side, box: HTMLSelectElement): void {
    const item = this.others.find(({ kind }) => kind === box.value);
    box.value = '';
    if (item) this.add(side, item.kind);
  }

  protected facesOf(side: Side): string {
    const pack = this.plate()?.packs[side];
    if (!pack) return 'none';
    return pack.gearFace.lined ? (pack.caseWall.lined ? 'both' : 'gear') : pack.caseWall.lined ? 'wall' : 'none';
  }

  protected setFaces(side: Side, lined: string): void {
    this.bench.changePlate((plate) => {
      plate.packs[side].gearFace.lined = lined === 'gear' || lined === 'both';
      plate.packs[side].caseWall.lined = lined === 'wall' || lined === 'both';
    });
  }

  protected setBacklash(band: PlateSpec['sideGearBacklash']): void {
    this.bench.changePlate((plate) => (plate.sideGearBacklash = band));
  }

  protected setEntry(
    key:
      | 'targetHeight'
      | 'tolerance'
      | 'frictionCoefficient'
      | 'slidingCoefficient'
      | 'gearGap'
      | 'frictionOuterDiameter'
      | 'frictionInnerDiameter',
    { entry }: TakenEntry,
  ): void {
    this.bench.changePlate((plate) => {
      plate[key] = entry;
      // What is typed over is no longer what was taken from the library.
      if (key === 'frictionCoefficient') plate.frictionFrom = null;
    });
  }
}
