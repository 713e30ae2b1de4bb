import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { type OwnStep, type Phase } from '@hot-spline/core';
import { faultText, type StepState, type Work, PHASE_WORDS } from '@hot-spline/model';
import { Library } from '../state/library';
import { activeTab } from '../shared/active-tab';
import { Choice, type Option } from '../shared/choice';
import { readDay } from '../shared/day-reader';
import { Field } from '../shared/field';
import { jumpTo } from '../shared/jump';
import { isNarrow, watchNarrow } from '../shared/narrow';
import { StepDrawing } from '../section/step-drawing';
import { countReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { daysBetween, localDay, sayDay } from '../base/day';
import { WORK_TABS } from './tabs';
import { JOB_OPTIONS, WorkEdit } from './work-edit';
import { FactsPanel } from './facts-panel';
import { MetalPanel } from './metal-panel';
import { WorkLike } from './work-like';
import { WorkPromise } from './work-promise';
import { WhosePanel } from './whose-panel';
import { WorkStep } from './work-step';

interface Group {
  readonly phase: Phase;
  readonly name: string;
  readonly steps: readonly StepState[];
  readonly done: number;
  /** Something is left to do in it. */
  readonly open: boolean;
}

const HOLD_OPTIONS: readonly Option<NonNullable<Work['hold']>['for']>[] = [
  { value: 'parts', label: 'parts' },
  { value: 'tool', label: 'tool' },
  { value: 'machine-shop', label: 'machine shop' },
  { value: 'customer', label: 'customer' },
  { value: 'other', label: 'something else' },
];

/** The order of work: what is next, every step of the job, and one step at a time for whoever stands at the car. */
@Component({
  selector: 'hs-work-sheet',
  imports: [
    Choice,
    FactsPanel,
    Field,
    MetalPanel,
    RemoveButton,
    RouterLink,
    SheetHead,
    StepDrawing,
    Tabs,
    WhosePanel,
    WorkLike,
    WorkPromise,
    WorkStep,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './work-sheet.html',
  styleUrls: ['../shared/sheet.scss', './work-sheet.scss'],
})
export class WorkSheet {
  readonly tab = input<string>();
  readonly step = input<string>();
  readonly at = input<string>();
  protected readonly edit = inject(WorkEdit);
  protected readonly tabs = WORK_TABS;
  protected readonly active = activeTab(WORK_TABS, this.tab);
  protected readonly axle = this.edit.axle;
  protected readonly jobs = this.edit.jobs;
  protected readonly jobOptions = JOB_OPTIONS;
  protected readonly holds = HOLD_OPTIONS;
  protected readonly day = sayDay;
  protected readonly readDay = readDay;
  protected readonly holdWord = (of: NonNullable<Work['hold']>['for']): string =>
    HOLD_OPTIONS.find(({ value }) => value === of)?.label ?? of;
  protected readonly readWhy = textReader('Why', 300, 1);
  protected readonly readTitle = textReader('Step', 80, 1);
  protected readonly readDoes = textReader('What is done', 300);
  protected readonly readMinutes = countReader('Minutes', 0, 10_000);
  protected readonly holdFor = signal<NonNullable<Work['hold']>['for']>('parts');

  protected readonly narrow = signal(isNarrow());
  protected readonly state = this.edit.state;
  protected readonly groups = computed<readonly Group[]>(() => {
    const groups: { phase: Phase; name: string; steps: StepState[] }[] = [];
    for (const one of this.state()?.steps ?? []) {
      const last = groups.at(-1);
      if (last?.phase === one.step.phase) last.steps.push(one);
      else groups.push({ phase: one.step.phase, name: PHASE_WORDS[one.step.phase], steps: [one] });
    }
    const ended = ({ status, passed }: StepState): boolean => status === 'done' || status === 'skipped' || passed;
    return groups.map((group) => {
      const done = group.steps.filter(ended).length;
      return { ...group, done, open: done < group.steps.length };
    });
  });
  protected readonly ended = computed(
    () => this.state()?.steps.filter(({ status }) => status === 'done' || status === 'skipped').length ?? 0,
  );
  /** Days that the job has been apart, or took: first day and last both counted. */
  protected readonly calendar = computed(() => {
    const state = this.state();
    if (!state?.from || !state.to) return null;
    const [from, to] = [state.from, state.next === null ? state.to : new Date()].map((at) => localDay(new Date(at)));
    return from === undefined || to === undefined ? null : { from, days: daysBetween(from, to) + 1 };
  });
  protected readonly faults = computed(() => {
    const state = this.state();
    const titles = new Map(state?.steps.map(({ step }) => [step.id, step.title]));
    return state?.faults.map((fault) => faultText(fault, titles)) ?? [];
  });
  /** The step that one stands at: named by the address or by the place that it jumps to, else the next one. */
  protected readonly shown = computed(() => {
    const steps = this.state()?.steps ?? [];
    const at = this.at() ?? '';
    const named = [...steps]
      .sort((a, b) => b.step.id.length - a.step.id.length)
      .find(({ step }) => at.startsWith(`step-${step.id}-`) || at.startsWith(`record-${step.id}-`));
    return named ?? steps.find(({ step }) => step.id === this.step()) ?? this.state()?.next ?? steps[0] ?? null;
  });

  constructor() {
    inject(DestroyRef).onDestroy(watchNarrow((narrow) => this.narrow.set(narrow)));
    inject(Library).open();
    jumpTo(this.at, () => (this.active() === 'step' ? { step: this.shown()?.step.id } : {}));
  }

  protected hours(minutes: number): string {
    return minutes < 90 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 6) / 10} h`;
  }

  protected mark({ status, step, passed }: StepState): string {
    if (passed) return '·';
    if (status === 'done') return '✓';
    if (status === 'skipped') return '–';
    if (status === 'failed') return '!';
    return step.gate ?? '';
  }

  /** What is to be known of a step before it is reached. */
  protected tags({ step, waits, status, records, passed }: StepState): readonly string[] {
    if (passed) return ['passed: a later step was done without it'];
    if (status === 'done' || status === 'skipped') return [];
    return [
      ...(step.closedBy === null ? [] : ['only now']),
      ...(step.behind === null ? [] : [`behind Gate ${step.behind}`]),
      ...(step.hand === 'left' ? ['LEFT-hand thread'] : step.hand === 'unknown' ? ['thread hand not known'] : []),
      ...waits.filter((one) => one.for === 'sheet' || one.for === 'part' || one.for === 'tool').map(({ what }) => what),
      ...records.filter(({ verdict }) => verdict === 'stop').map(({ record }) => `${record.label}: out`),
    ];
  }

  protected addOwn(title: string): void {
    const after = this.state()?.next?.step.id ?? null;
    this.edit.change((work) => {
      const steps = this.state()?.steps ?? [];
      const at = steps.findIndex(({ step }) => step.id === after);
      work.own.push({
        id: this.edit.fresh(work.own, 'own-'),
        follows: steps[at - 1]?.step.id ?? null,
        title,
        does: '',
        minutes: 10,
      });
    });
  }

  protected setOwn(id: string, change: Partial<OwnStep>): void {
    this.edit.change((work) => (work.own = work.own.map((one) => (one.id === id ? { ...one, ...change } : one))));
  }

  protected removeOwn(id: string): void {
    this.edit.change((work) => (work.own = work.own.filter((one) => one.id !== id)));
  }
}
