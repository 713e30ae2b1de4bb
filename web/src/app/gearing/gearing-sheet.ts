import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import {
  InputError,
  LIMITS,
  engineRpm,
  entryBase,
  nearestToothPair,
  say,
  toothPair,
  type ToothPair,
} from '@hot-spline/core';
import {
  finalsOf,
  gearingAt,
  gearingFigures,
  pointFigures,
  speedFan,
  type AxleGearingState,
  type Build,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { RemoveButton } from '../shared/remove-button';
import { Chart, chartColours } from '../shared/chart';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { isNarrow } from '../shared/narrow';
import { pairsReader } from '../shared/readers';
import { SheetHead } from '../shared/sheet-head';
import { activeTab } from '../shared/active-tab';
import { Tabs } from '../shared/tabs';
import { DASHES, FAN_MOVES, fanOption, fastestOf, speedUnit } from './fan-chart';
import { FindTab } from './find-tab';
import { HeatTab } from './heat-tab';
import { LadderTab } from './ladder-tab';
import { MatchTab } from './match-tab';
import { HIGH, onTyre, rpmAt, rpmText } from './at-speed';
import { OldTyre } from './old-tyre';
import { NoiseTab } from './noise-tab';
import { ThrustTab } from './thrust-tab';
import { GEARING_TABS } from './tabs';
import { TyrePanel } from './tyre-panel';

/** A ratio is said by two decimals: sets nearer than this are the one that is meant. */
const SAID_RATIO = 0.005;

/** Tyre and ratio: what speed belongs to what rpm, and how another final drive would change it. */
@Component({
  selector: 'hs-gearing-sheet',
  imports: [
    Chart,
    EntryField,
    Field,
    FigureButton,
    FindTab,
    HeatTab,
    LadderTab,
    MatchTab,
    NoiseTab,
    RemoveButton,
    SheetHead,
    Tabs,
    ThrustTab,
    TyrePanel,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './gearing-sheet.html',
  styleUrls: ['../shared/sheet.scss', './gearing-sheet.scss'],
})
export class GearingSheet {
  readonly at = input<string>();
  readonly tab = input<string>();
  protected readonly bench = inject(Bench);
  protected readonly ids = gearingFigures;
  protected readonly pointIds = pointFigures;
  private readonly night = inject(Store).selectSignal(uiFeature.selectNight);

  protected readonly moving = FAN_MOVES;
  protected readonly speedRange = { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
  protected readonly ratioRange = LIMITS.ratio;
  protected readonly tabs = GEARING_TABS;
  protected readonly about = computed(
    () =>
      ({
        speed: 'Drag the ochre cursor; the Line follows. Dashed fans are candidates.',
        thrust: 'What each gear pulls with, against what the road takes.',
        ladder: 'Which gear turns how fast at the speeds that matter.',
        match: 'Slip, growth and wear; crawl, planned tyre, speed reading.',
        heat: 'What the converter turns into heat on a climb, old final drive against new.',
        noise: 'What happens how often where it whines, and what to look at.',
        find: 'The sets that exist, ranked by the brief, with reasons.',
      })[this.active()],
  );
  protected readonly active = activeTab(GEARING_TABS, this.tab);
  private readonly narrow = isNarrow();
  /** The ratio being tried with the slider; null while the build’s own is shown. */
  protected readonly tried = signal<ToothPair | null>(null);

  protected readonly own = computed(() => this.bench.derived()?.gearing[this.bench.axleName()] ?? null);
  protected readonly finals = computed(() => {
    const build = this.bench.build();
    const own = this.own();
    if (!build || !own) return [];
    return finalsOf(build, own).map((final, i, all) => ({
      ...final,
      gears: speedFan(build, own, this.bench.point().range, final.ratio),
      cruise: rpmText(this.atCruise(build, own, final.ratio)),
      dash: this.dash(i),
      // Where the one that was picked is gone, the last one stands out.
      picked: i > 0 && i === Math.min(this.picked(), all.length - 1),
    }));
  });
  /** Row of the candidate that stands out on the picture. */
  protected readonly picked = signal(1);
  protected readonly old = inject(OldTyre);
  /** The same final drive on the tyre that is planned, and on the one that was on before. */
  protected readonly tyres = computed(() => {
    const [build, own] = [this.bench.build(), this.own()];
    const axle = this.bench.axle();
    if (!build || !own || !axle) return [];
    const rows = [
      { name: 'planned tyre', designation: build.brief.plannedTyre, old: false },
      { name: 'tyre before', designation: this.old.designation(), old: true },
    ];
    return rows.flatMap(({ designation, ...row }) => {
      if (designation === null) return [];
      const other = onTyre(own, axle.tyre, designation);
      const gears = speedFan(build, other, this.bench.point().range);
      return [{ ...row, designation, gears, cruise: rpmText(this.atCruise(build, other)) }];
    });
  });

  /** In the units of whoever looks. */
  protected readonly cruiseAt = computed(() => {
    const speed = this.bench.build()?.cruiseSpeed;
    return speed ? say(entryBase(speed), 'speed', this.bench.system(), 0) : '';
  });
  /** The range that the gears are shown in, where another one is chosen than the one that cruises. */
  protected readonly rangeText = computed(() => {
    const range = this.bench.point().range;
    const name = this.bench.build()?.transfer?.ranges[range]?.name;
    return range > 0 && name ? ` in ${name}` : '';
  });

  /** Engine speed at the cruise speed in the tallest gear. */
  private atCruise(build: Build, own: AxleGearingState, finalRatio?: number): number {
    return rpmAt(build, own, HIGH, entryBase(build.cruiseSpeed), { finalRatio });
  }

  /** Fastest speed shown; it only grows while something is dragged, so that the picture does not jump under the hand. */
  private readonly reach = linkedSignal<{ mps: number; dragging: boolean }, number>({
    source: () => ({ mps: fastestOf(this.finals()), dragging: this.bench.previewing() }),
    computation: ({ mps, dragging }, before) => (dragging && before ? Math.max(mps, before.value) : mps),
  });
  protected readonly option = computed(() => {
    const build = this.bench.build();
    this.night();
    const own = this.own();
    if (!build || !own) return {};
    return fanOption({
      finals: this.finals(),
      limitRpm: build.engine.limitRpm,
      stallRpm: build.coupling.kind === 'converter' ? build.coupling.stallRpm : null,
      cruiseMps: entryBase(build.cruiseSpeed),
      point: { mps: this.bench.figure('point.speed')?.value ?? 0, rpm: this.bench.point().rpm },
      system: this.bench.system(),
      colours: chartColours(),
      reachMps: this.reach(),
      narrow: this.narrow,
    });
  });
  protected readonly topGear = computed(() => {
    const gears = this.finals()[0]?.gears ?? [];
    return gears.reduce((best, gear, i) => (gear.limitMps > (gears[best]?.limitMps ?? 0) ? i : best), 0);
  });
  protected readonly mismatch = computed(() => this.bench.figure('gearing.mismatch') !== null);
  protected readonly hub = computed(() => this.bench.axle()?.hubRatio ?? null);

  protected readonly readRing = this.teethReader('ring');
  protected readonly readPinion = this.teethReader('pinion');
  /** Four can be told apart. */
  protected readonly readPairs = computed(() =>
    pairsReader('Candidate', 4 - (this.bench.build()?.candidates.length ?? 0), (ratio) => this.pairOf(ratio)),
  );

  constructor() {
    jumpTo(this.at, () => ({ tab: this.active() }));
  }

  /** The teeth that make a ratio: of a set that is known for this axle where one is that near, else the nearest to those in it. */
  private pairOf(ratio: number): ToothPair {
    const axle = this.bench.axle();
    const off = ({ ring, pinion }: ToothPair): number => Math.abs(ring / pinion / ratio - 1);
    const [known] = [...(axle?.identity?.sets ?? [])].sort((a, b) => off(a) - off(b));
    if (known && off(known) < SAID_RATIO) return { ring: known.ring, pinion: known.pinion };
    return nearestToothPair(ratio, axle?.finalDrive ?? { ring: 41, pinion: 10 });
  }

  private teethReader(name: 'ring' | 'pinion') {
    return (text: string): Understood<number> => {
      const teeth = Number(text.trim());
      const label = name === 'ring' ? 'Ring teeth' : 'Pinion teeth';
      if (!/^\d{1,3}$/.test(text.trim()) || teeth < 3 || teeth > 300) {
        throw new InputError(label, `${label} must be a whole number.`, '3 to 300');
      }
      const now = this.bench.axle()?.finalDrive;
      if (!now) return { value: teeth, said: '' };
      const pair = { ...now, [name]: teeth };
      if (pair.ring < pair.pinion)
        throw new InputError(label, `${pair.ring} / ${pair.pinion} looks swapped.`, 'ring at least as many as pinion');
      const { ratio, hunting } = toothPair(pair);
      return { value: teeth, said: `${ratio.toFixed(3)}, ${hunting}` };
    };
  }

  /** The dash pattern as the drawing in the table shows it. */
  private dash(i: number): string {
    const dash = DASHES[i] ?? 'solid';
    return dash === 'solid' ? '' : dash.join(' ');
  }

  protected speedText(mps: number): string {
    return (mps / speedUnit(this.bench.system())).toFixed(1);
  }

  protected dropText(rpm: number | null): string {
    return rpm === null ? '' : say(rpm, 'rotation', 'inch').replace(/\u202f?rpm$/, '');
  }

  protected setTeeth(name: 'ring' | 'pinion', teeth: number): void {
    this.bench.changeAxle((axle) => (axle.finalDrive[name] = teeth));
  }

  protected setHub({ entry }: TakenEntry): void {
    this.bench.changeAxle((axle) => (axle.hubRatio = entry));
  }

  protected setCruise({ entry }: TakenEntry): void {
    this.bench.change((draft) => (draft.cruiseSpeed = entry));
  }

  /** The slider moves through ratios; the nearest tooth pair is what is shown everywhere. */
  protected tryRatio(ratio: number): void {
    const name = this.bench.axleName();
    this.bench.drag((build) => {
      const axle = build.axles[name];
      if (!axle) return build;
      const finalDrive = nearestToothPair(ratio, axle.finalDrive);
      this.tried.set(finalDrive);
      return { ...build, axles: { ...build.axles, [name]: { ...axle, finalDrive } } };
    });
  }

  protected keepTried(): void {
    const pair = this.tried();
    this.tried.set(null);
    if (pair) this.bench.changeAxle((axle) => (axle.finalDrive = pair));
  }

  protected dropTried(): void {
    this.tried.set(null);
    this.bench.drop();
  }

  protected addTried(): void {
    const pair = this.tried();
    this.dropTried();
    if (pair) this.addCandidates([pair]);
  }

  protected addCandidates(pairs: readonly ToothPair[]): void {
    this.bench.change((draft) => draft.candidates.push(...pairs));
  }

  protected removeCandidate(index: number): void {
    this.bench.change((draft) => draft.candidates.splice(index, 1));
  }

  /** Swaps a candidate with the final drive in the build, so that neither is lost. */
  protected takeCandidate(index: number): void {
    this.bench.change((draft) => {
      const axle = draft.axles[this.bench.axleName()];
      const pair = draft.candidates[index];
      if (!axle || !pair) return;
      draft.candidates[index] = axle.finalDrive;
      axle.finalDrive = pair;
    });
  }

  /** Pointing at the chart moves the operating point along its gear. */
  protected dragPoint({ x }: { x: number }): void {
    const build = this.bench.build();
    const own = this.own();
    if (!build || !own) return;
    const { gear, range } = this.bench.point();
    const mps = x * speedUnit(this.bench.system());
    const speed = Math.min(Math.max(mps, 0), LIMITS.speedKmh.max / 3.6);
    const rpm = Math.round(engineRpm(gearingAt(build, own, gear, range), speed));
    this.bench.dragPoint({ rpm: Math.min(Math.max(rpm, 100), build.engine.limitRpm) });
  }

  protected keepPoint(): void {
    this.bench.lookAt({});
  }
}
