import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  LIMITS,
  VEHICLE_LIMITS,
  entryOf,
  say,
  tyreSize,
  type Entry,
  type Quantity,
  type ToothPair,
} from '@hot-spline/core';
import { USES, type Brief, type Build, type Road, type Use } from '@hot-spline/model';
import { Library } from '../state/library';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { pairReader, textReader, tyreReader } from '../shared/readers';
import { SheetHead } from '../shared/sheet-head';
import { activeTab } from '../shared/active-tab';
import { Tabs } from '../shared/tabs';
import { BRIEF_TABS } from './tabs';
import { Toggles } from '../shared/toggles';
import { Bench } from '../state/bench';
import { IdentityTab } from './identity-tab';
import { COMPLAINT_LEADS, COMPLAINT_OPTIONS, GOAL_OPTIONS, USE_WORDS } from './words';

/** What the job is, what the car weighs, and what the axle is: steers all later judgements. */
@Component({
  selector: 'hs-brief-sheet',
  imports: [Choice, EntryField, Field, FigureButton, IdentityTab, RouterLink, SheetHead, Tabs, Toggles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './brief-sheet.html',
  styleUrls: ['../shared/sheet.scss', './brief-sheet.scss'],
})
export class BriefSheet {
  readonly at = input<string>();
  readonly tab = input<string>();
  protected readonly bench = inject(Bench);

  protected readonly tabs = BRIEF_TABS;
  protected readonly active = activeTab(BRIEF_TABS, this.tab);
  protected readonly uses = USES.map((value) => ({ value, label: USE_WORDS[value] ?? value }));
  protected readonly goals = GOAL_OPTIONS;
  /** Each complaint leads to where something is done about it. */
  protected readonly leads = computed(() =>
    (this.bench.build()?.brief.complaints ?? []).map((complaint) => {
      const { sheet, tab, at, where } = COMPLAINT_LEADS[complaint];
      const label = COMPLAINT_OPTIONS.find(({ value }) => value === complaint)?.label ?? complaint;
      return { complaint, label, where, sheet, query: { tab, at } };
    }),
  );
  protected readonly complaints = COMPLAINT_OPTIONS;
  protected readonly senders = [
    { value: 'gearbox' as const, label: 'Ahead of the final drive' },
    { value: 'wheel' as const, label: 'At the wheel' },
  ];
  protected readonly distanceRange = { above: 0, max: 100_000, unit: 'm' };
  protected readonly rpmRange = { min: 1, max: LIMITS.rpm.max, unit: 'rpm' };
  protected readonly crawlRange = { above: 0, max: 2000 };
  protected readonly shareRange = { min: 1, max: 100, unit: '%' };
  protected readonly limits = VEHICLE_LIMITS;
  /** Asked about beyond: a mass in tonnes, an engine speed in thousands. */
  protected readonly usualMass = [250, 12_000] as const;
  protected readonly usualRpm = [500, 25_000] as const;
  protected readonly usualCg = [200, 1500] as const;
  protected readonly trackRange = { above: 0, max: 10_000, unit: 'mm' };
  protected readonly usualTrack = [900, 2300] as const;
  protected readonly usualBase = [1500, 6000] as const;

  protected readonly readName = textReader('Name', 80, 1);
  protected readonly readVehicle = textReader('Vehicle', 120);
  protected readonly readNotes = textReader('Notes', 4000);
  protected readonly readWas = pairReader('Final drive before');
  protected readonly readTyre = computed(() => {
    const system = this.bench.system();
    return tyreReader(
      (text) => `Ø ${say(tyreSize(text).overallDiameterMm, 'length', system, system === 'inch' ? 2 : 0)}`,
    );
  });

  constructor() {
    inject(Library).open();
    jumpTo(this.at, () => ({ tab: this.active() }));
  }

  protected edit(recipe: (draft: Build) => void): void {
    this.bench.change(recipe);
  }

  protected rpmEntry(value: number): Entry {
    return entryOf(value, 'rpm');
  }

  protected setText(key: 'name' | 'vehicle' | 'notes', text: string): void {
    this.edit((draft) => (draft[key] = text));
  }

  protected setUse(use: Use): void {
    this.edit((draft) => (draft.use = use));
  }

  protected setBrief(change: Partial<Brief>): void {
    this.edit((draft) => Object.assign(draft.brief, change));
  }

  /** What may be asked beside the goal. */
  protected readonly conditions = [
    { key: 'cruiseRpm', name: 'brief-limit-cruise', label: 'Cruise at most', quantity: 'rotation', range: LIMITS.rpm },
    {
      key: 'time',
      name: 'brief-limit-time',
      label: 'Run at most',
      quantity: 'time',
      range: { above: 0, max: 3600, unit: 's' },
    },
    {
      key: 'topSpeed',
      name: 'brief-limit-top',
      label: 'Top speed at least',
      quantity: 'speed',
      range: { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' },
    },
    {
      key: 'crawl',
      name: 'brief-limit-crawl',
      label: 'Crawl at least',
      quantity: 'ratio',
      range: { above: 0, max: 2000 },
    },
  ] as const satisfies readonly { key: keyof Brief['limits']; quantity: Quantity; [more: string]: unknown }[];
  protected readonly limited = computed(() => Object.values(this.bench.build()?.brief.limits ?? {}).some(Boolean));

  protected setLimit(key: keyof Brief['limits'], entry: Entry | null): void {
    this.edit((draft) => (draft.brief.limits[key] = entry));
  }

  protected setWindow(key: 'lowRpm' | 'highRpm', { base }: TakenEntry): void {
    this.edit((draft) => (draft.brief.window[key] = base));
  }

  protected setWasFinal(pair: ToothPair): void {
    this.edit((draft) => {
      const tyre = this.bench.axle()?.tyre.designation ?? '';
      draft.brief.was = { finalDrive: pair, tyre: draft.brief.was?.tyre ?? tyre };
    });
  }

  protected setWasTyre(tyre: string | null): void {
    this.edit((draft) => {
      const finalDrive = draft.brief.was?.finalDrive ?? this.bench.axle()?.finalDrive;
      draft.brief.was = tyre === null || !finalDrive ? null : { finalDrive, tyre };
    });
  }

  protected setRoad(key: keyof Road, { entry }: TakenEntry): void {
    this.edit((draft) => (draft.road[key] = entry));
  }
}
