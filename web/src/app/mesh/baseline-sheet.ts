import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Entry } from '@hot-spline/core';
import { setupSubjects, type Construction, type Setup, type Side, type SubjectOf } from '@hot-spline/model';
import { Library } from '../state/library';
import { CONSTRUCTION_OPTIONS } from '../library/words';
import { PracticeTruth } from './practice-truth';
import { activeTab } from '../shared/active-tab';
import { Choice } from '../shared/choice';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { jumpTo } from '../shared/jump';
import { PhotoTaker } from '../shared/photo-taker';
import { Radios } from '../shared/radios';
import { countReader, textReader } from '../shared/readers';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { BeginPanel } from './begin-panel';
import { CarryOver } from './carry-over';
import { GaugeChoice, type GaugeUse } from './gauge-choice';
import { numberKind } from './number-kind';
import { piecesReader, piecesText } from './pieces';
import { NOTHING_IN, SetUp } from './set-up';
import { SequenceTab } from './sequence-tab';
import { SheetTab } from './sheet-tab';
import { StackTab } from './stack-tab';
import { BASELINE_TABS } from './tabs';

type Pack = 'pinion' | Side;
const PACKS: readonly { readonly pack: Pack; readonly label: string }[] = [
  { pack: 'pinion', label: 'Pinion shims that came out' },
  { pack: 'left', label: 'Left side' },
  { pack: 'right', label: 'Right side' },
];

/** Strip with evidence: what the axle was like before anything was changed, the spec sheet, the pinion-shaft stack. */
@Component({
  selector: 'hs-baseline-sheet',
  imports: [
    BeginPanel,
    CarryOver,
    Choice,
    EntryField,
    Field,
    PhotoTaker,
    Radios,
    RouterLink,
    SheetHead,
    SequenceTab,
    SheetTab,
    StackTab,
    Tabs,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './baseline-sheet.html',
  styleUrls: ['../shared/sheet.scss', './baseline-sheet.scss'],
})
export class BaselineSheet {
  /** From the address. */
  readonly tab = input<string>();
  readonly at = input<string>();
  protected readonly setUp = inject(SetUp);
  private readonly truth = inject(PracticeTruth);
  protected readonly axle = this.setUp.axle;
  /** One shim sets end float: nothing of a ring and a pinion is asked. */
  protected readonly float = computed(() => this.setUp.identity()?.construction.value === 'electric-reduction');
  protected readonly tabs = computed(() =>
    BASELINE_TABS.filter(({ tab }) =>
      tab === 'stack' ? !this.float() : tab !== 'sequence' || this.setUp.mesh()?.ringBy === 'adjusters',
    ),
  );
  protected readonly active = activeTab(BASELINE_TABS, this.tab);
  protected readonly constructions = CONSTRUCTION_OPTIONS;
  protected readonly gears = [
    { value: 'new', label: 'new' },
    { value: 'used', label: 'goes back used' },
  ] as const;
  protected readonly sides = [
    { value: 'left', label: 'left' },
    { value: 'right', label: 'right' },
  ] as const;
  protected readonly spirals = [
    { value: 'left', label: 'left-hand' },
    { value: 'right', label: 'right-hand' },
  ] as const;
  protected readonly turns = [
    { value: 'clockwise', label: 'clockwise' },
    { value: 'anticlockwise', label: 'anticlockwise' },
  ] as const;
  protected readonly readPlaces = countReader('Places', 4, 12);
  protected readonly readMarks = textReader('Marks', 200);
  protected readonly turning = numberKind(setupSubjects.totalTorque.value);

  protected readonly loaded = computed(() =>
    this.setUp.mesh()?.loadedFlank === 'concave' ? 'concave flank: coast carries' : 'convex flank: drive carries',
  );
  /** Directions that are data of this axle. */
  protected readonly signs = computed(() => {
    const mesh = this.setUp.mesh();
    if (!mesh) return [];
    const { setup, construction } = mesh;
    const ways = (usual: string) =>
      [
        { value: '', label: usual },
        { value: 'deeper', label: 'deeper' },
        { value: 'shallower', label: 'shallower' },
      ] as const;
    const shim = {
      key: 'shimMoves',
      label: 'More shim moves the pinion',
      options: ways(construction === 'transaxle' ? 'not said' : 'as usual'),
      value: setup.shimMoves ?? '',
    } as const;
    const bearing = {
      key: 'bearingMoves',
      label: 'A taller head bearing moves it',
      options: ways(construction === 'transaxle' ? 'not said' : 'as usual'),
      value: setup.bearingMoves ?? '',
    } as const;
    const cover = {
      key: 'sideShims',
      label: 'Side shims lie',
      options: [
        { value: 'behind-cup', label: 'behind the cup' },
        { value: 'under-flange', label: 'under the cover’s flange' },
      ],
      value: setup.sideShims,
    } as const;
    if (construction === 'transaxle') return [shim, bearing];
    return construction === 'independent' ? [cover] : [];
  });
  private readonly came = computed(() => this.setUp.mesh()?.assemblies.find(({ number }) => number === 0) ?? null);
  protected readonly packs = computed(() => {
    const system = this.setUp.bench.system();
    const adjusters = this.setUp.mesh()?.ringBy === 'adjusters';
    const out = this.truth.cameOut();
    const packs = this.float()
      ? [{ pack: 'left' as const, label: 'Shim that came out' }]
      : PACKS.filter(({ pack }) => pack === 'pinion' || !adjusters);
    return packs.map(({ pack, label }) => {
      const subject = setupSubjects.packHeight.of({ axle: this.axle(), assembly: '0', seat: pack });
      const pieces = this.came()?.value[pack] ?? [];
      const whole = this.setUp.bench.readingOf(subject);
      return {
        pack,
        label,
        subject,
        kind: numberKind(setupSubjects.packHeight.value),
        text: piecesText(pieces),
        gauge: out ? { quantity: 'length' as const, scale: 'plate' as const, truth: [out[pack]], many: 1 } : null,
        read: piecesReader(label, system),
        mm: pieces.length > 0 ? this.sumOf(pack) : null,
        whole: whole?.value.of === 'number' ? (whole.value.entries[0] ?? null) : null,
      };
    });
  });
  protected readonly torqueSubject = computed(() =>
    setupSubjects.totalTorque.of({ axle: this.axle(), stage: 'as-it-came' }),
  );
  protected readonly cameTorque = computed(() => {
    const value = this.setUp.bench.readingOf(this.torqueSubject())?.value;
    return value?.of === 'number' ? (value.entries[0] ?? null) : null;
  });
  protected readonly capsPhotos = computed(() => {
    const value = this.setUp.bench.readingOf(setupSubjects.capsPhoto.of({ axle: this.axle() }))?.value;
    return value?.of === 'photos' ? value.photos : [];
  });
  protected readonly cameRead = computed(() => {
    const came = this.setUp.mesh()?.came;
    const missing = [!came?.backlash && 'backlash', !came?.pattern && 'pattern'].filter(Boolean);
    return missing.length === 0 ? ': both read.' : `: ${missing.join(' and ')} still to be read.`;
  });

  constructor() {
    inject(Library).open();
    jumpTo(this.at, () => ({ tab: this.active() }));
  }

  private sumOf(pack: Pack): number | null {
    const came = this.came();
    return came && (pack === 'pinion' ? came.pinionMm : pack === 'left' ? came.leftMm : came.rightMm);
  }

  private readonly gaugeChoice = inject(GaugeChoice);
  protected readonly gauges = this.gaugeChoice.gauges;

  protected setGauge(of: GaugeUse, id: string): void {
    this.gaugeChoice.choose(of, id);
  }

  protected set<K extends keyof Setup>(key: K, value: Setup[K]): void {
    this.setUp.change((setup) => (setup[key] = value));
  }

  protected setSign(key: 'shimMoves' | 'bearingMoves' | 'sideShims', value: string): void {
    this.setUp.change((setup) => {
      if (key === 'sideShims') setup.sideShims = value === 'under-flange' ? value : 'behind-cup';
      else setup[key] = value === 'deeper' || value === 'shallower' ? value : null;
    });
  }

  protected setConstruction(value: Construction): void {
    this.setUp.setConstruction(value);
  }

  protected writePack(pack: Pack, pieces: Entry[]): void {
    this.setUp.assemble({ ...(this.came()?.value ?? NOTHING_IN), [pack]: pieces }, 0);
  }

  protected write(subject: SubjectOf, value: Entry | readonly Entry[], instrument: string): void {
    this.setUp.bench.record(subject, value, instrument);
  }

  protected writeState(subject: SubjectOf, value: Entry): void {
    this.setUp.record(subject, value, 'Dial or beam torque wrench');
  }

  /** Kept with those that there are. */
  protected readonly keepPhoto = (id: string): void => {
    const subject = setupSubjects.capsPhoto.of({ axle: this.axle() });
    this.setUp.bench.record(subject, { of: 'photos', photos: [...this.capsPhotos(), id] }, 'Camera');
  };
}
