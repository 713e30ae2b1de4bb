import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { DECISIONS, inspectSubjects, wholeJob, type PartDecision, type PartState } from '@hot-spline/model';
import { activeTab } from '../shared/active-tab';
import { Field, type Understood } from '../shared/field';
import { jumpTo } from '../shared/jump';
import { MarkPhoto } from '../shared/mark-photo';
import { PhotoTaker } from '../shared/photo-taker';
import { Radios } from '../shared/radios';
import { daysBetween, localDay } from '../shared/day';
import { countReader, numberReader, textReader } from '../shared/readers';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { VerdictMark } from '../shared/verdict';
import { WorkEdit } from '../plan/work-edit';
import { ShopSettings } from '../state/shop-settings';
import { PassTab } from './pass-tab';
import { INSPECT_TABS } from './tabs';

/** What was found on every part of an axle that is apart: run on, replaced, or a donor part. */
@Component({
  selector: 'hs-inspect-sheet',
  imports: [Field, MarkPhoto, PassTab, PhotoTaker, Radios, SheetHead, Tabs, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './inspect-sheet.html',
  styleUrls: ['../shared/sheet.scss', './inspect-sheet.scss'],
})
export class InspectSheet {
  readonly tab = input<string>();
  readonly at = input<string>();
  protected readonly edit = inject(WorkEdit);
  private readonly bench = this.edit.bench;
  protected readonly tabs = INSPECT_TABS;
  protected readonly active = activeTab(INSPECT_TABS, this.tab);
  protected readonly axle = this.edit.axle;
  protected readonly readFound = textReader('Finding', 300, 1);
  protected readonly decisions = (Object.keys(DECISIONS) as PartDecision[]).map((value) => ({
    value,
    label: DECISIONS[value],
  }));
  protected readonly parts = computed(() => this.bench.derived()?.inspect[this.axle()] ?? []);
  protected readonly open = computed(() => this.parts().filter(({ decided }) => decided === null).length);
  protected readonly readPrice = numberReader('Price', { min: 0, max: 1e9 });
  private readonly days = countReader('Days', 0, 3650);
  protected readonly readDays = (text: string): Understood<number | null> =>
    text.trim() === '' ? { value: null, said: 'none' } : this.days(text);
  protected readonly choices = {
    overhaul: 'Overhaul it',
    replace: 'Take a complete unit',
    ask: 'Not clear yet',
  } as const;
  protected readonly complete = computed(() => this.edit.work()?.complete ?? null);
  protected readonly whole = computed(() => {
    const work = this.edit.work();
    return work ? wholeJob(work, this.parts(), (day) => daysBetween(localDay(new Date()), day)) : null;
  });
  private readonly money = inject(ShopSettings);
  protected readonly say = (price: number): string => this.money.say(price);
  /** The photo that is drawn on: of which part, and which one. */
  protected readonly marking = signal<{ readonly part: PartState; readonly photo: string } | null>(null);

  constructor() {
    jumpTo(this.at);
  }

  protected found({ id, decided }: PartState, text: string, decide?: PartDecision): void {
    const keys = { axle: this.axle(), part: id };
    this.bench.record(inspectSubjects.partFound.of(keys), { of: 'text', text }, 'By eye');
    if (decide && decided === null) this.decide(id, decide);
  }

  protected setComplete(change: { price?: number | null; days?: number | null }): void {
    this.edit.change((work) => (work.complete = { ...work.complete, ...change }));
  }

  protected decide(part: string, choice: PartDecision): void {
    this.bench.record(inspectSubjects.partDecided.of({ axle: this.axle(), part }), { of: 'choice', choice }, 'By eye');
  }

  protected keeper({ id, photos }: PartState): (photo: string) => void {
    const subject = inspectSubjects.partPhoto.of({ axle: this.axle(), part: id });
    return (photo) => this.bench.record(subject, { of: 'photos', photos: [...photos, photo] }, 'Camera');
  }

  /** The marked photo beside the one that it was drawn on. */
  protected keepMarked(photo: string): void {
    const marking = this.marking();
    if (marking) this.keeper(marking.part)(photo);
    this.marking.set(null);
  }
}
