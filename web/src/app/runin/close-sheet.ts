import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { say } from '@hot-spline/core';
import { GATES, speedFan, type Finding } from '@hot-spline/model';
import { WorkEdit } from '../plan/work-edit';
import { activeTab } from '../shared/active-tab';
import { jumpTo } from '../shared/jump';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { VerdictMark } from '../shared/verdict';
import { RunInTab } from './run-in-tab';
import { CLOSE_TABS } from './tabs';

/** What is asked before it is closed, what goes into it, what the controller is told; then the run-in. */
@Component({
  selector: 'hs-close-sheet',
  imports: [RouterLink, RunInTab, SheetHead, Tabs, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './close-sheet.html',
  styleUrls: ['../shared/sheet.scss', './close-sheet.scss'],
})
export class CloseSheet {
  readonly tab = input<string>();
  readonly at = input<string>();
  protected readonly edit = inject(WorkEdit);
  private readonly bench = this.edit.bench;
  protected readonly tabs = CLOSE_TABS;
  protected readonly active = activeTab(CLOSE_TABS, this.tab);
  protected readonly axle = this.edit.axle;
  protected readonly work = this.edit.work;

  private readonly step = (id: string) => this.edit.state()?.steps.find((one) => one.step.id === id) ?? null;
  private readonly said = (id: string, record: string): string | null =>
    this.step(id)?.records.find((one) => one.record.id === record)?.said ?? null;

  /** What has to be so before the cover goes on. */
  protected readonly checks = computed(() => {
    const work = this.work();
    const gates = this.bench.derived()?.gates[this.axle()];
    const out = work?.trays.filter(({ out: off, back }) => back < off) ?? [];
    const before = this.edit.state()?.steps ?? [];
    const cover = before.findIndex(({ step }) => step.id === 'cover');
    const open = before.slice(0, Math.max(0, cover)).filter(({ status }) => status === 'open' || status === 'failed');
    const stops = (this.bench.derived()?.findings ?? []).filter(
      (one: Finding) => one.verdict === 'stop' && (one.place.axle ?? this.axle()) === this.axle(),
    );
    return [
      ...GATES.map((name) => ({
        what: `Gate ${name}`,
        met: gates?.[name].open ?? false,
        says: gates?.[name].open ? (gates[name].signature?.note ? 'opened with a note' : 'signed') : 'not signed',
        to: 'gates',
        tab: null as string | null,
      })),
      {
        what: 'Trays empty',
        met: out.length === 0,
        says:
          out.length === 0 ? 'all of it is back' : out.map((one) => `${one.out - one.back} × ${one.part}`).join(', '),
        to: 'parts',
        tab: 'trays',
      },
      {
        what: 'Steps before the cover',
        met: open.length === 0,
        says: open.length === 0 ? 'done' : `${open.length} to do, first ${open[0]?.step.title ?? ''}`,
        to: 'work',
        tab: 'order',
      },
      {
        what: 'Nothing says stop',
        met: stops.length === 0,
        says: stops.length === 0 ? 'nothing' : stops.map((one) => one.say(this.bench.system()).title).join('; '),
        to: stops[0]?.place.sheet ?? 'work',
        tab: stops[0]?.place.tab ?? null,
      },
    ];
  });

  private readonly sheet = computed(() => this.bench.axle()?.identity?.sheet ?? null);
  protected readonly fill = computed(() => {
    const sheet = this.sheet();
    const told = (key: 'fluid' | 'volume' | 'additive'): string => {
      const value = sheet?.[key];
      return value ? value.value : 'nobody has said it';
    };
    return [
      { what: 'Oil', asked: told('fluid'), done: this.said('fill', 'grade') },
      { what: 'Volume', asked: told('volume'), done: this.said('fill', 'volume') },
      ...(this.edit.state()?.facts.unitKind === 'plate'
        ? [{ what: 'Additive, first', asked: told('additive'), done: this.said('fill', 'additive') }]
        : []),
    ];
  });
  protected readonly filled = computed(() => this.said('fill', 'filled'));
  protected readonly dry = computed(() => this.filled()?.startsWith('dry') ?? false);

  /** What the controller is told: ratio, tyre turns, speeds at the limiter. */
  protected readonly recalibration = computed(() => {
    const [build, derived] = [this.bench.build(), this.bench.derived()];
    const own = derived?.gearing[this.axle()];
    if (!build || !own) return null;
    const system = this.bench.system();
    const turns = system === 'inch' ? 1_609_344 / own.circumferenceMm : 1_000_000 / own.circumferenceMm;
    return {
      ratio: own.finalRatio.toFixed(3),
      teeth: `${own.finalDrive.ring}/${own.finalDrive.pinion}`,
      turns: `${Math.round(turns)} per ${system === 'inch' ? 'mile' : 'km'}`,
      round: say(own.circumferenceMm, 'length', system, undefined, 'large'),
      shifts: speedFan(build, own, 0).map(({ gear, limitMps }) => ({
        name: gear,
        speed: say(limitMps, 'speed', system, 0),
      })),
      limit: build.engine.limitRpm,
      needed: this.step('recalibrate') !== null,
      entered: this.said('recalibrate', 'entered'),
    };
  });

  constructor() {
    jumpTo(this.at);
  }
}
