import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  InputError,
  LIMITS,
  entryBase,
  parseEntry,
  solidPreload,
  saySmall,
  type Entry,
  type ShimStock,
} from '@hot-spline/core';
import { SCHOOLS, preloadFigures, preloadVerdict, setupSubjects, turningText, type Setup } from '@hot-spline/model';
import { Library } from '../state/library';
import { Sound } from '../state/sound';
import { SoundButton } from '../shared/sound-button';
import { activeTab } from '../shared/active-tab';
import { attempt } from '../shared/attempt';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { Radios } from '../shared/radios';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { VoidButton } from '../shared/void-button';
import { BeginPanel } from '../mesh/begin-panel';
import { numberKind } from '../mesh/number-kind';
import { piecesReader } from '../mesh/pieces';
import { SetUp, pieceOf } from '../mesh/set-up';
import { TrialStrip } from '../mesh/trial-strip';
import { PracticeTruth } from '../mesh/practice-truth';
import { CrushChart } from './crush-chart';
import { SideTab } from './side-tab';
import { PRELOAD_TABS } from './tabs';

const degrees = (angle: number): string => `${Number(angle.toFixed(1))}°`;

/** As a share of the lower end of the band: from here on the next step is a small one; ours. */
const NEAR = 0.7;

/** Pinion preload: reading by reading towards the band, never past it. */
@Component({
  selector: 'hs-preload-sheet',
  imports: [
    BeginPanel,
    CrushChart,
    EntryField,
    Field,
    FigureButton,
    Radios,
    RouterLink,
    SheetHead,
    SoundButton,
    SideTab,
    Tabs,
    TrialStrip,
    VoidButton,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './preload-sheet.html',
  styleUrls: ['../shared/sheet.scss', './preload-sheet.scss'],
})
export class PreloadSheet {
  readonly tab = input<string>();
  readonly at = input<string>();
  private readonly sound = inject(Sound);
  protected readonly tabs = PRELOAD_TABS;
  protected readonly active = activeTab(PRELOAD_TABS, this.tab);
  protected readonly setUp = inject(SetUp);
  protected readonly bench = this.setUp.bench;
  private readonly library = inject(Library);
  private readonly drawers = this.library.ofKind('shims');
  /** As this shop does it. */
  protected readonly oiledWith = computed(() => {
    const school = this.library.schools()?.preloadOil;
    const oil = SCHOOLS.preloadOil.options.find(({ value }) => value === school)?.label;
    return oil ? `Oiled with ${oil.toLowerCase()}` : 'Oiled';
  });
  protected readonly axle = this.setUp.axle;
  protected readonly mesh = this.setUp.mesh;
  protected readonly state = this.setUp.preload;
  protected readonly figures = preloadFigures;
  protected readonly torque = numberKind(setupSubjects.pinionTorque.value);
  protected readonly wrenchRange = { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' } as const;
  protected readonly spacers = [
    { value: 'collapsible', label: 'collapsible' },
    { value: 'solid', label: 'solid' },
  ] as const;
  protected readonly crushes = [
    { value: 'nut', label: 'by the nut' },
    { value: 'press', label: 'in the press' },
  ] as const;
  protected readonly aims = [
    { value: 'middle', label: 'the middle' },
    { value: 'top', label: 'the top' },
    { value: 'heavy', label: 'heavy' },
  ] as const;
  protected readonly collapsible = computed(() => this.setUp.setup()?.spacer !== 'solid');
  protected readonly gateA = computed(() => this.setUp.gates()?.A ?? null);
  /** A new collapsible spacer on final bearings is crushed for good: only behind Gate A. */
  protected readonly locked = computed(() => {
    const state = this.setUp.setup()?.state;
    const final = state?.spacer === 'new' || state?.pinionBearings === 'new';
    return final && this.gateA()?.open !== true;
  });
  protected readonly readsOf = computed(() => this.state()?.reads ?? []);
  /** The spacer that is read on now; one more after it was thrown away. */
  protected readonly spacer = linkedSignal(() => this.state()?.spacer ?? 1);
  protected readonly fresh = computed(() => this.spacer() > (this.state()?.spacer ?? 1) || this.readsOf().length === 0);
  protected readonly shown = computed(() => (this.fresh() ? [] : this.readsOf()));
  protected readonly points = computed(() =>
    this.shown().flatMap(({ counts, angleDeg, nm }) => (counts && angleDeg !== null ? [{ angleDeg, nm }] : [])),
  );
  protected readonly next = computed(() => (this.fresh() ? null : (this.state()?.next ?? null)));
  protected readonly aim = computed(() => this.state()?.band?.aimNm ?? null);
  protected readonly verdict = computed(() => {
    const [mesh, state] = [this.mesh(), this.state()];
    return mesh && state && !this.fresh() ? preloadVerdict(mesh, state) : null;
  });
  /** What to do now: the biggest thing on the sheet. */
  protected readonly say = computed(() => {
    const [verdict, next, last] = [this.verdict(), this.next(), this.state()?.last];
    if (this.locked())
      return {
        title: 'Behind Gate A',
        detail: 'A final bearing or a new spacer: pattern and backlash are approved first.',
      };
    if (!this.aim()) return { title: 'No band', detail: 'Type the turning torque of the sheet on the baseline.' };
    if (verdict === null && last?.state.spacer === 'none' && this.state()?.band)
      return {
        title: 'A trial reading',
        detail: 'Over the band, and no spacer is in: nothing was crushed. The nut goes back a little.',
      };
    if (verdict === null || !last) return { title: 'Read the first one', detail: 'Oiled, a few turns, then steady.' };
    if (verdict === 'in-band')
      return {
        title: 'In band: stop',
        detail: 'Turn it a dozen times and read again: it falls as the bearings bed in.',
      };
    if (verdict === 'cannot-judge') return { title: 'Cannot judge', detail: 'The wrench is too coarse for this band.' };
    if (verdict === 'over')
      return this.collapsible()
        ? { title: 'Over: new spacer', detail: 'Never back the nut off: the spacer does not come back.' }
        : { title: 'Over: more shim', detail: 'More shim beside the spacer, less torque.' };
    if (typeof next?.nextAngleDeg === 'number') {
      const from = this.points().at(-1)?.angleDeg ?? 0;
      return {
        title: `Turn ${degrees(next.nextAngleDeg - from)} at most`,
        detail: `Nut against flange, to ${degrees(next.nextAngleDeg)}, then read again: expect ${turningText(next.expectedNm ?? 0, this.bench.system())}${(next.chanceRising ?? 0) > 0.5 ? '; it has begun to rise' : '; it still stands'}. About ${next.readingsExpected ?? 1} readings to go.`,
      };
    }
    return {
      title: 'Not there yet',
      detail: this.collapsible() ? 'Give the nut angle with the reading.' : 'Less shim, more torque.',
    };
  });
  /** Next shims beside a solid spacer, out of the drawer. */
  private readonly solid = attempt(() => {
    const state = this.state();
    const aim = this.aim();
    if (this.collapsible() || !state || !aim || state.solid.length < 2) return null;
    return solidPreload(state.solid, aim, this.stock(), { wrenchNm: state.wrenchNm });
  });
  protected readonly solidProblem = this.solid.problem;
  protected readonly solidSay = computed(() => {
    const next = this.solid.value();
    if (!next) return null;
    const system = this.bench.system();
    const pieces = next.piecesMm.map((mm) => saySmall(mm, system)).join(' + ');
    const per = turningText(Math.abs(next.slopeNmPerMm) * 0.0254, system);
    return `Next ${pieces}: expect ${turningText(next.expectedNm, system)}. Each thou less gives ${per} more.`;
  });
  private readonly stock = computed<ShimStock[]>(() => {
    const drawer = this.drawers()
      .filter(({ spec }) => spec.seat === 'preload')
      .flatMap(({ spec }) => spec.pieces.map(({ thickness, count }) => ({ thicknessMm: entryBase(thickness), count })));
    // Without a drawer any thickness in thou steps can be had.
    return drawer.length > 0
      ? drawer
      : Array.from({ length: 120 }, (_, i) => ({ thicknessMm: Number(((i + 10) * 0.0254).toFixed(4)), count: 1 }));
  });

  private readonly truth = inject(PracticeTruth);
  protected readonly truthNm = computed(() => {
    const angle = this.angle();
    return this.truth.torque(angle ? entryBase(angle) : 0);
  });
  protected readonly truthTotalNm = computed(() => {
    const pinion = this.truth.torque(this.points().at(-1)?.angleDeg ?? 0);
    return pinion === null ? null : pinion + 0.3;
  });

  protected readonly readAngle = computed(() => (text: string): Understood<Entry> => {
    const { entry, base } = parseEntry(text, {
      field: 'Nut angle',
      quantity: 'angle',
      range: { min: -10_000, max: 10_000, unit: '°' },
      system: this.bench.system(),
    });
    const last = this.points().at(-1)?.angleDeg;
    if (last !== undefined && base < last)
      throw new InputError(
        'Nut angle',
        `Nut angle ${base}° is before ${last}°: the nut is never backed off.`,
        `${last}° or more`,
      );
    return { value: entry, said: last === undefined ? '' : `${degrees(base - last)} on` };
  });
  protected readonly readShims = computed(() => piecesReader('Shims', this.bench.system()));
  /** Where the nut stands, or what lies beside the spacer: goes with the next reading. */
  protected readonly angle = linkedSignal<Entry | null>(() => {
    const last = this.points().at(-1)?.angleDeg;
    const next = this.next()?.nextAngleDeg;
    const at = next ?? (last === undefined ? 0 : last);
    return { typed: degrees(at), value: Number(at.toFixed(1)), unit: '°' };
  });
  protected readonly shims = linkedSignal<readonly Entry[]>(() => {
    const about = this.readsOf().at(-1)?.reading.subject;
    return (about && setupSubjects.pinionTorque.read(about)?.shims) ?? [];
  });
  protected readonly sealSubject = computed(() => setupSubjects.sealDrag.of({ axle: this.axle() }));
  protected readonly totalSubject = computed(() =>
    setupSubjects.totalTorque.of({ axle: this.axle(), stage: this.setUp.stage() }),
  );

  constructor() {
    this.library.open();
    jumpTo(this.at);
  }

  protected set<K extends keyof Setup>(key: K, value: Setup[K]): void {
    this.setUp.change((setup) => (setup[key] = value));
  }

  protected write({ entry, several }: TakenEntry): void {
    const step = this.fresh() ? 1 : this.readsOf().length + 1;
    const last = Number(
      setupSubjects.pinionTorque.read(this.readsOf().at(-1)?.reading.subject ?? { what: '' })?.step ?? 0,
    );
    const subject = setupSubjects.pinionTorque.of({
      axle: this.axle(),
      spacer: String(this.spacer()),
      step: String(this.fresh() ? step : last + 1),
      angle: this.collapsible() ? this.angle() : null,
      shims: this.collapsible() ? [] : [...this.shims()],
    });
    this.setUp.record(subject, several ?? entry, this.setUp.instrument('turning'));
    // It rises late and then fast: heard before the eye is back from the wrench.
    const low = this.aim()?.[0];
    if (low !== undefined && entryBase(entry) >= NEAR * low) this.sound.near();
  }

  protected writeState(of: 'seal' | 'total', { entry, several }: TakenEntry): void {
    if (of === 'seal') this.bench.record(this.sealSubject(), several ?? entry, this.setUp.instrument('turning'));
    else this.setUp.record(this.totalSubject(), several ?? entry, this.setUp.instrument('turning'));
  }

  protected entryOf(of: 'seal' | 'total'): Entry | null {
    const value = this.bench.readingOf(of === 'seal' ? this.sealSubject() : this.totalSubject())?.value;
    return value?.of === 'number' ? (value.entries[0] ?? null) : null;
  }

  protected setWrench(plusMinus: Entry): void {
    this.setUp.change(({ gauges }) => (gauges.turning = { name: gauges.turning?.name ?? '', plusMinus }));
  }

  protected readonly noneLeft = computed(() => this.setUp.nextSpacer()?.left === 0);

  /** One more goes in: out of its drawer, where spacers are kept in one. */
  protected newSpacer(): void {
    const number = (this.state()?.spacer ?? 0) + 1;
    const piece = this.setUp.nextSpacer()?.piece;
    if (piece)
      this.bench.record(
        setupSubjects.spacerIn.of({ axle: this.axle(), spacer: String(number), drawer: piece.drawer }),
        pieceOf(piece.mm),
        'from the drawer',
      );
    this.spacer.set(number);
  }

  protected text(nm: number): string {
    return turningText(nm, this.bench.system());
  }

  protected piecesText(): string {
    return this.shims()
      .map(({ typed }) => typed)
      .join(' + ');
  }
}
