import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  ROLLOUT_M,
  VEHICLE_LIMITS,
  entryBase,
  entryOf,
  formatIn,
  roadRun,
  say,
  type Entry,
  type Run,
} from '@hot-spline/core';
import { finalsOf, vehicleOf, type Road } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { attempt } from '../shared/attempt';
import { Chart, chartColours } from '../shared/chart';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { SheetHead } from '../shared/sheet-head';
import { Choice } from '../shared/choice';
import { DASHES } from '../gearing/fan-chart';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { markName } from './marks';
import { runOption } from './run-chart';

interface Row {
  readonly label: string;
  readonly present: boolean;
  readonly dash: string;
  readonly cells: readonly { readonly time: string; readonly speed: string }[];
  readonly zeroTo100: string;
  readonly eightyTo120: string;
  readonly tyre: number;
  readonly gears: readonly string[];
}

/** A standing start with every final drive on the picture, laid over each other. */
@Component({
  selector: 'hs-road-sheet',
  imports: [Chart, Choice, EntryField, FigureButton, RouterLink, SheetHead],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './road-sheet.html',
  styleUrls: ['../shared/sheet.scss', './road-sheet.scss'],
})
export class RoadSheet {
  readonly at = input<string>();
  protected readonly bench = inject(Bench);
  private readonly night = inject(Store).selectSignal(uiFeature.selectNight);

  protected readonly along = signal<'time' | 'distance'>('time');
  protected readonly alongs = [
    { value: 'time' as const, label: 'over time' },
    { value: 'distance' as const, label: 'over distance' },
  ];
  /** Whether the clock starts with the car or as a time slip has it. */
  protected readonly clock = signal<'plain' | 'slip'>('plain');
  protected readonly clocks = [
    { value: 'plain' as const, label: 'standstill' },
    { value: 'slip' as const, label: 'time slip' },
  ];
  protected readonly rollout = computed(() => say(ROLLOUT_M * 1000, 'length', this.bench.system()));
  protected readonly limits = VEHICLE_LIMITS;
  protected readonly gripRange = { above: 0, max: 10 };
  protected readonly percentRange = { min: 1, max: 100, unit: '%' };
  protected readonly gradeRange = { min: -50, max: 100, unit: '%' };
  protected readonly distanceRange = { above: 0, max: 100_000, unit: 'm' };
  protected readonly launchRange = { min: 0, max: 100_000, unit: 'rpm' };
  protected readonly wong: Entry = entryOf(1.04, '');

  private readonly runs = attempt<{ label: string; present: boolean; run: Run }[]>(() => {
    const build = this.bench.build();
    const main = this.bench.axleName();
    const own = this.bench.derived()?.gearing[main];
    if (!build || !own) return null;
    const vehicle = vehicleOf(build, main, own);
    const distanceM = entryBase(build.brief.distance);
    return finalsOf(build, own).map(({ label, ratio, present }) => ({
      label,
      present,
      run: roadRun({ ...vehicle, finalRatio: ratio }, { distanceM, trace: true }),
    }));
  });
  protected readonly problem = this.runs.problem;
  private readonly lines = computed(() => this.runs.value() ?? []);
  protected readonly option = computed(() => {
    this.night();
    const lines = this.lines();
    return lines.length === 0
      ? {}
      : runOption({ lines, along: this.along(), system: this.bench.system(), colours: chartColours() });
  });
  protected readonly marks = computed(() =>
    (this.lines()[0]?.run.marks ?? []).map(({ distanceM }) => markName(distanceM, this.bench.system())),
  );
  protected readonly gearNames = computed(() => this.bench.build()?.gearbox.gears.map((gear) => gear.name) ?? []);
  protected readonly speedName = computed(() => (this.bench.system() === 'inch' ? 'mph' : 'km/h'));
  protected readonly rows = computed<Row[]>(() => {
    const system = this.bench.system();
    return this.lines().map(({ label, present, run }, i) => {
      const dash = DASHES[i] ?? 'solid';
      return {
        label,
        present,
        dash: dash === 'solid' ? '' : dash.join(' '),
        cells: (this.clock() === 'slip' ? run.slip.marks : run.marks).map(({ timeS, speedMps }) => ({
          time: timeS.toFixed(2),
          speed: speedMps === null ? '' : formatIn(speedMps, 'speed', system, 1).text,
        })),
        zeroTo100: run.zeroTo100S?.toFixed(2) ?? '–',
        eightyTo120: run.eightyTo120S?.toFixed(2) ?? '–',
        tyre: Math.round((100 * run.limitTimesS.tyre) / run.timeS),
        gears: run.gearTimesS.map((time) => (time > 0 ? time.toFixed(2) : '–')),
      };
    });
  });
  protected readonly converter = computed(() => this.bench.build()?.coupling.kind === 'converter');
  protected readonly clutch = computed(() => this.bench.build()?.coupling.kind === 'clutch');

  constructor() {
    jumpTo(this.at);
  }

  protected rpmEntry(value: number): Entry {
    return entryOf(value, 'rpm');
  }

  protected setDistance({ entry }: TakenEntry): void {
    this.bench.change((draft) => (draft.brief.distance = entry));
  }

  protected setRoad(key: keyof Road, { entry }: TakenEntry): void {
    this.bench.change((draft) => (draft.road[key] = entry));
  }

  protected setLaunch({ base }: TakenEntry): void {
    this.bench.change((draft) => (draft.engine.launchRpm = base));
  }

  protected setShift({ entry }: TakenEntry): void {
    this.bench.change((draft) => (draft.gearbox.shiftTime = entry));
  }
}
