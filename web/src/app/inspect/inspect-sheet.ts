import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { DECISIONS, inspectSubjects, wholeJob, type PartDecision, type PartState } from '@hot-spline/model';
import { activeTab } from '../shared/active-tab';
import { Choice } from '../shared/choice';
import { Field, type Understood } from '../shared/field';
import { jumpTo } from '../shared/jump';
import { MarkPhoto } from '../shared/mark-photo';
import { PhotoTaker } from '../shared/photo-taker';
import { Radios } from '../shared/radios';
import { daysBetween, localDay } from '../base/day';
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
  imports: [Choice, Field, MarkPhoto, PassTab, PhotoTaker, Radios, SheetHead, Tabs, VerdictMark],
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
    const hands = { leftH: (this.edit.state()?.minutes.left ?? 0) / 60, rate: this.money.settings().hourRate };
    return work ? wholeJob(work, this.parts(), hands, (day) => daysBetween(localDay(new Date()), day)) : null;
  });
  protected readonly money = inject(ShopSettings);
  protected readonly problem = signal('');
  protected readonly readHours = numberReader('Hours', { min: 0, max: 1000 });
  protected readonly readRate = numberReader('An hour', { min: 0, max: 100_000 });
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

  /** What may be found on a donor part is what may be found on any; in words where it was so written. */
  protected donorOptions({ findings, donorFound }: PartState) {
    const known = findings.map(({ found }) => found);
    const first = donorFound === null ? [{ value: '', label: 'nobody has looked' }] : [];
    const all = donorFound === null || known.includes(donorFound) ? known : [...known, donorFound];
    return [...first, ...all.map((value) => ({ value, label: value }))];
  }

  protected donor(part: string, text: string): void {
    this.bench.record(inspectSubjects.partDonor.of({ axle: this.axle(), part }), { of: 'text', text }, 'By eye');
  }

  /** What an hour costs is the shop’s, for every job. */
  protected async setRate(hourRate: number | null): Promise<void> {
    try {
      await this.money.choose({ hourRate });
      this.problem.set('');
    } catch (error) {
      this.problem.set(`What an hour costs stays: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  protected setComplete(change: { price?: number | null; days?: number | null; hours?: number | null }): void {
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
