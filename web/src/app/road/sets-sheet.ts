import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import {
  InputError,
  LEVEL,
  againstLog,
  courseLoads,
  coursePace,
  entryBase,
  entryOf,
  formatIn,
  wearOfSet,
  type FoundSet,
  type GearPair,
  type Pace,
  type PacePoint,
  type SetOnCourse,
  type Vehicle,
} from '@hot-spline/core';
import {
  againstLogWords,
  searchProblemOf,
  torqueCurve,
  vehicleOf,
  type Build,
  type SearchNews,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { TableModule } from 'primeng/table';
import { attempt } from '../shared/attempt';
import { Chart, chartColours } from '../shared/chart';
import { Choice } from '../shared/choice';
import { Heavy, SEARCH_LIMITS_S } from '../shared/heavy';
import { searchOutcome, type SearchOutcome } from './search-outcome';
import { jumpTo } from '../shared/jump';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { SETS_TABS } from './tabs';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { courseOption } from './course-chart';
import { CourseTab } from './course-tab';
import { ShelfTab } from './shelf-tab';

interface Driven {
  readonly pace: Pace;
  readonly points: readonly PacePoint[];
}

/** Gear pairs off the shelf for the least time on a course. */
@Component({
  selector: 'hs-sets-sheet',
  imports: [Chart, Choice, CourseTab, SheetHead, ShelfTab, TableModule, Tabs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [Heavy],
  templateUrl: './sets-sheet.html',
  styleUrls: ['../shared/sheet.scss', './sets-sheet.scss'],
})
export class SetsSheet {
  readonly at = input<string>();
  readonly tab = input<string>();
  protected readonly bench = inject(Bench);
  protected readonly heavy = inject(Heavy);
  private readonly night = inject(Store).selectSignal(uiFeature.selectNight);

  protected readonly tabs = SETS_TABS;
  protected readonly active = computed(() => this.tabs.find(({ tab }) => tab === this.tab())?.tab ?? 'search');
  protected readonly limits = SEARCH_LIMITS_S.map((s) => ({ value: String(s), label: `at most ${s} s` }));
  protected readonly limit = signal(String(SEARCH_LIMITS_S[0]));

  protected readonly problem = signal<{ text: string; field: string } | null>(null);
  private readonly found = signal<{ outcome: SearchOutcome; asked: string } | null>(null);
  protected readonly chosen = signal(0);

  private readonly own = computed(() => this.bench.derived()?.gearing[this.bench.axleName()] ?? null);
  protected readonly ready = computed(() => {
    const build = this.bench.build();
    return build !== null && build.course !== null && build.shelf.pairs.length + build.shelf.finals.length > 0;
  });
  /** What was asked; another question makes an answer an old one. */
  private readonly asked = computed(() => {
    const build = this.bench.build();
    const own = this.own();
    if (!build?.course || !own) return '';
    return JSON.stringify(searchProblemOf(build, this.bench.axleName(), own));
  });
  protected readonly outcome = computed(() => this.found()?.outcome ?? null);
  protected readonly old = computed(() => {
    const found = this.found();
    return found !== null && found.asked !== this.asked();
  });
  private readonly vehicle = computed<Vehicle | null>(() => {
    const build = this.bench.build();
    const own = this.own();
    return build && own ? vehicleOf(build, this.bench.axleName(), own) : null;
  });
  private readonly present = attempt(() => {
    const vehicle = this.vehicle();
    return vehicle ? this.drive(vehicle) : null;
  });
  protected readonly presentPace = computed(() => this.present.value()?.pace ?? null);
  protected readonly presentProblem = this.present.problem;
  private readonly picked = attempt(() => {
    const set = this.outcome()?.best[this.chosen()];
    const vehicle = this.vehicle();
    if (!set || !vehicle) return null;
    return this.drive(this.withSet(vehicle, set));
  });
  protected readonly pickedPace = computed(() => this.picked.value()?.pace ?? null);
  protected readonly option = computed(() => {
    const present = this.present.value();
    const build = this.bench.build();
    this.night();
    if (!build || !present) return {};
    const picked = this.picked.value();
    const lines = [
      ...(picked ? [{ label: 'found', points: picked.points }] : []),
      { label: 'present', points: present.points },
    ];
    return courseOption({
      lines,
      limitRpm: build.engine.limitRpm,
      log: build.course?.log?.samples ?? [],
      corners: build.course?.corners ?? [],
      system: this.bench.system(),
      colours: chartColours(),
    });
  });
  /** The log against the set that is in: what it took, where most of the difference lies, and by what. */
  protected readonly logWords = computed(() => {
    const course = this.bench.build()?.course;
    const present = this.present.value();
    if (!course?.log || course.log.samples.length < 2 || !present) return '';
    return againstLogWords(againstLog(course, course.log.samples, present.points), course, this.bench.system());
  });
  /** Teeth of the gears that are in the box, where they were typed as teeth. */
  private readonly teethIn = computed(() =>
    (this.bench.build()?.gearbox.gears ?? []).map(({ ratio }): GearPair | null => {
      const teeth = /^\s*(\d{1,3})\s*\/\s*(\d{1,3})\s*$/.exec(ratio.typed);
      return teeth ? { driven: Number(teeth[1]), driver: Number(teeth[2]) } : null;
    }),
  );

  /** What each gear of a set turns on the course, with its teeth. */
  private onCourse(driven: Driven, pairs: readonly (GearPair | null)[]): SetOnCourse {
    const curve = torqueCurve(this.bench.build() as Build);
    return { loads: courseLoads(driven.points, curve, pairs.length), pairs };
  }

  /** How fast the flanks of each found set wear against those that are in: the gear that wears most, and all of them. */
  protected readonly wear = computed(() => {
    const outcome = this.outcome();
    const now = this.present.value();
    const vehicle = this.vehicle();
    const gears = this.bench.build()?.gearbox.gears ?? [];
    if (!outcome || !now || !vehicle) return [];
    const before = this.onCourse(now, this.teethIn());
    return outcome.best.map((set) => {
      const pairs = set.pairs.length > 0 ? set.pairs : this.teethIn();
      const driven = this.drive(this.withSet(vehicle, set));
      if (!driven || pairs.length !== before.pairs.length) return { most: '', all: '' };
      const times = wearOfSet(this.onCourse(driven, pairs), before);
      const known = times.flatMap((one, i) => (one === null ? [] : [{ one, name: gears[i]?.name ?? '' }]));
      const worst = known.reduce<(typeof known)[number] | null>((a, b) => (a && a.one >= b.one ? a : b), null);
      return {
        most: worst ? `×${worst.one.toFixed(2)} in ${worst.name}` : 'teeth not said',
        all: known.map(({ one, name }) => `${name}: ×${one.toFixed(2)}`).join(', '),
      };
    });
  });
  protected readonly rows = computed(() => {
    const outcome = this.outcome();
    const now = this.presentPace();
    if (!outcome || !now) return [];
    const heads = outcome.best.flatMap(({ line }, index) => (line === index ? [index] : []));
    return outcome.best.map((set, index) => ({
      index,
      line: set.line,
      place: index === 0 ? 'best' : set.line === index ? `no. ${heads.indexOf(index) + 1}` : 'level',
      level: outcome.best.filter((other) => other.line === index).length - 1,
      finalRatio: set.final.ring / set.final.pinion,
      timeS: set.timeS,
      final: `${set.final.ring}/${set.final.pinion}`,
      // A box that stays as it is shows its own gears.
      pairs:
        set.pairs.length > 0
          ? set.pairs.map(({ driven, driver }) => ({
              text: `${driven}/${driver}`,
              ratio: (driven / driver).toFixed(3),
            }))
          : this.cells(),
      time: set.timeS.toFixed(2),
      gain: now.timeS - set.timeS,
      wear: this.wear()[index],
    }));
  });
  /** Sets that are level with a quicker one stand behind it, until they are asked for. */
  protected readonly unfolded = signal<ReadonlySet<number>>(new Set());
  protected readonly lines = computed(() =>
    this.rows().filter(({ index, line }) => line === index || this.unfolded().has(line)),
  );
  protected readonly gearNames = computed(() => this.bench.build()?.gearbox.gears.map((gear) => gear.name) ?? []);
  protected readonly gap = computed(() => {
    const outcome = this.outcome();
    const best = outcome?.best[0]?.timeS;
    return outcome && best !== undefined ? best - outcome.boundS : 0;
  });
  protected readonly cells = computed(() => {
    const build = this.bench.build();
    if (!build) return [];
    return build.gearbox.gears.map(({ ratio }) => {
      const text = ratio.typed;
      return { text, ratio: /\//.test(text) ? entryBase(ratio).toFixed(3) : '' };
    });
  });

  /** Seconds over the course against the set that is in. */
  protected gainWords(seconds: number): string {
    if (Math.abs(seconds) < 0.005) return 'the same';
    const gain = `${Math.abs(seconds).toFixed(2)} s ${seconds > 0 ? 'faster' : 'slower'}`;
    const now = this.presentPace()?.timeS ?? Number.POSITIVE_INFINITY;
    // Nearer than the model can tell.
    return Math.abs(seconds) < LEVEL * now ? `level (${gain})` : gain;
  }

  constructor() {
    jumpTo(this.at, () => ({ tab: this.active() }));
  }

  private withSet(vehicle: Vehicle, set: FoundSet): Vehicle {
    return {
      ...vehicle,
      gears: set.pairs.length > 0 ? set.pairs.map(({ driven: d, driver }) => d / driver) : vehicle.gears,
      finalRatio: set.final.ring / set.final.pinion,
    };
  }

  private drive(vehicle: Vehicle): Driven | null {
    const course = this.bench.build()?.course;
    if (!course) return null;
    const points: PacePoint[] = [];
    const { lengthM, startMps, fastestMps, corners, slopes } = course;
    const driven = { lengthM, startMps, fastestMps, corners, slopes };
    const pace = coursePace(vehicle, driven, (point) => points.push(point));
    return { pace, points };
  }

  protected async search(): Promise<void> {
    const build = this.bench.build();
    const own = this.own();
    if (!build || !own) return;
    this.problem.set(null);
    const asked = this.asked();
    try {
      const problem = searchProblemOf(build, this.bench.axleName(), own);
      const outcome = searchOutcome(await this.heavy.run('road.search', problem, Number(this.limit())));
      this.chosen.set(0);
      this.unfolded.set(new Set());
      this.found.set({ outcome, asked });
    } catch (error) {
      const text = error instanceof Error ? error.message : String(error);
      this.problem.set({ text, field: error instanceof InputError ? error.field : 'search' });
    }
  }

  /** The best time of a search that runs, as far as it has told. */
  protected readonly bestSoFar = computed(() => (this.heavy.news() as SearchNews | null)?.bestS ?? null);

  protected unfold(line: number): void {
    this.unfolded.update((open) => {
      const next = new Set(open);
      if (!next.delete(line)) next.add(line);
      return next;
    });
  }

  protected percent(share: number): string {
    return `${Math.floor(100 * share)} %`;
  }

  protected fast(mps: number): string {
    const { text, unit } = formatIn(mps, 'speed', this.bench.system(), 0);
    return `${text} ${unit}`;
  }

  /** Puts a found set into the build: its pairs as the gears, its final drive into the axle. */
  protected take(index: number): void {
    const set = this.outcome()?.best[index];
    if (!set) return;
    this.bench.change((draft) => {
      draft.gearbox.gears.forEach((gear, i) => {
        const pair = set.pairs[i];
        if (pair) gear.ratio = { ...entryOf(pair.driven / pair.driver, ''), typed: `${pair.driven}/${pair.driver}` };
      });
      const axle = draft.axles[this.bench.axleName()];
      if (axle) axle.finalDrive = { ...set.final };
    });
  }

  protected taken(index: number): boolean {
    const set = this.outcome()?.best[index];
    const build = this.bench.build();
    const own = this.own();
    if (!set || !build || !own) return false;
    return (
      own.finalDrive.ring === set.final.ring &&
      own.finalDrive.pinion === set.final.pinion &&
      set.pairs.every(({ driven, driver }, i) => {
        const gear = build.gearbox.gears[i];
        return gear !== undefined && Math.abs(entryBase(gear.ratio) - driven / driver) < 1e-9;
      })
    );
  }
}
