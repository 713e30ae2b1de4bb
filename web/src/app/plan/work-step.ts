import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { formatIn, unitLabel } from '@hot-spline/core';
import {
  concerns,
  workSubjects,
  type RecordState,
  type StepNumber,
  type StepState,
  PHASE_WORDS,
  partOf,
  toolOf,
  type ToolId,
} from '@hot-spline/model';
import { SHEETS } from '../shared/sheet-list';
import { Drafts } from '../shared/drafts';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field } from '../shared/field';
import { isNarrow, watchNarrow } from '../shared/narrow';
import { StepDrawing } from '../section/step-drawing';
import { FindingsFocus } from '../shared/findings-focus';
import { PhotoTaker } from '../shared/photo-taker';
import { Radios } from '../shared/radios';
import { countReader, textReader } from '../shared/readers';
import { VerdictMark } from '../shared/verdict';
import { Presence } from '../state/presence';
import { OpenClock } from './open-clock';
import { WorkEdit } from './work-edit';

const MINUTE_MS = 60_000;

/** One step at a time, next to the car: what to do, one thing to measure, done. */
@Component({
  selector: 'hs-work-step',
  imports: [EntryField, Field, PhotoTaker, Radios, RouterLink, OpenClock, StepDrawing, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './work-step.html',
  styleUrl: './work-step.scss',
})
export class WorkStep {
  readonly state = input.required<StepState>();
  protected readonly presence = inject(Presence);
  protected readonly edit = inject(WorkEdit);
  private readonly sheets = inject(SHEETS);
  private readonly router = inject(Router);
  private readonly drafts = inject(Drafts);
  protected readonly axle = this.edit.axle;
  /** On a phone the drawing is the head of the step; beside it where there is room. */
  protected readonly narrow = signal(isNarrow());
  protected readonly phases = PHASE_WORDS;
  protected readonly readText = textReader('Text', 300, 1);
  protected readonly readWhy = textReader('Why', 300, 1);
  protected readonly readName = textReader('Name', 60, 1);
  protected readonly readMinutes = countReader('Minutes', 0, 100_000);
  protected readonly more = linkedSignal<string, boolean>({
    source: () => this.state().step.id,
    computation: (id, before) => before?.source === id && before.value,
  });
  protected readonly why = signal('');

  private readonly list = computed(() => this.edit.state()?.steps ?? []);
  protected readonly at = computed(() => this.list().findIndex(({ step }) => step.id === this.state().step.id));
  protected readonly of = computed(() => this.list().length);
  protected readonly before = computed(() => this.list()[this.at() - 1]?.step ?? null);
  protected readonly after = computed(() => this.list()[this.at() + 1]?.step ?? null);
  protected readonly tools = computed(() => {
    const known = new Map(this.edit.work()?.tools.map((one) => [one.id, one]));
    return (this.state().step.tools as readonly ToolId[]).map((id) => {
      const said = known.get(id);
      return {
        ...toolOf(id),
        id,
        missing: said?.state === 'missing',
        with: said?.state === 'stand-in' ? said.with : '',
      };
    });
  });
  protected readonly parts = computed(() =>
    this.state().step.parts.map((id) => {
      const said = this.edit.work()?.parts.find((one) => one.id === id);
      const part = partOf(id);
      return {
        name: said?.name ?? part?.name ?? id,
        state: said?.state ?? 'needed',
        mind: part?.mind ?? '',
      };
    }),
  );
  protected readonly place = computed(() => {
    const { place } = this.state().step;
    const sheet = this.sheets.find((one) => one.sheet === place?.sheet);
    if (!place || !sheet) return null;
    // Where the sheet knows what is measured next, its field is opened, not the sheet alone.
    const derived = this.edit.bench.derived();
    const next = derived ? (sheet.measure?.(derived) ?? null) : null;
    const here = next?.sheet === place.sheet && (place.tab === undefined || (next.tab ?? place.tab) === place.tab);
    const tab = place.tab ?? (here ? next.tab : undefined);
    const own = place.fields?.[0];
    // The beginning of several is no field.
    const field = own !== undefined && !own.endsWith('-') ? `${own}-${this.axle()}` : here ? next.field : null;
    const query = { tab: tab ?? null, at: field, step: this.state().step.id };
    return { sheet: place.sheet, name: sheet.name, query };
  });
  protected readonly closes = computed(() => this.titleOf(this.state().step.closedBy));
  /** What sets in it: sealant, also where oil goes in after it; compounds, but those of the ring's bolts have their own place. */
  protected readonly sets = computed(() => {
    const { parts, acts } = this.state().step;
    if (parts.includes('sealant') || (parts.includes('oil') && this.edit.state()?.sealant?.closed === true))
      return 'sealant' as const;
    return parts.includes('compound') || (parts.includes('threadlocker') && !acts.includes('ring-bolts'))
      ? ('compound' as const)
      : null;
  });
  protected readonly earlier = computed(() =>
    this.state()
      .waits.filter((one) => one.for === 'step')
      .map(({ what, id }) => ({ what, id })),
  );
  protected readonly holds = computed(() => {
    const found = new Map(this.edit.bench.derived()?.findings.map((one) => [one.id, one]));
    // What was found is said in the units of whoever looks.
    const said = (one: StepState['waits'][number]): string =>
      found.get(one.id)?.say(this.edit.bench.system()).title ?? one.what;
    return this.state()
      .waits.filter((one) => one.for !== 'step')
      .map((one) => ({ ...one, what: one.for === 'stop' ? said(one) : one.what }));
  });
  /** What can’t be taken back waits for a gate or a value of the sheet, and any step for what was read at it and says stop: somebody may put a name under doing it all the same. */
  protected readonly refused = computed(() => this.holds().some(({ holds }) => holds));
  /** Minutes since this step was opened on this device. */
  private readonly opened = computed(
    () => `${this.edit.bench.editor().id ?? ''}.opened.${this.axle()}.${this.state().step.id}`,
  );
  protected readonly minutes = linkedSignal<string, string>({
    source: () => this.state().step.id,
    computation: (id, before) => (before?.source === id ? before.value : ''),
  });
  protected readonly places = computed(() =>
    this.list()
      .filter(({ step }) => step.id !== this.state().step.id)
      .map(({ step }) => ({ value: step.id, label: step.title })),
  );
  protected readonly moveTo = signal('');

  constructor() {
    const focus = inject(FindingsFocus);
    effect(() => {
      const [{ step }, axle] = [this.state(), this.axle()];
      focus.now.set({ of: `“${step.title}”`, concerns: (finding) => concerns(step, axle, finding) });
    });
    inject(DestroyRef).onDestroy(() => focus.now.set(null));
    inject(DestroyRef).onDestroy(watchNarrow((narrow) => this.narrow.set(narrow)));
    effect(() => {
      const key = this.opened();
      const open = this.state().status === 'open';
      untracked(() => {
        if (open && this.drafts.read(key) === null) this.drafts.write(key, String(Date.now()));
      });
    });
  }

  private titleOf(id: string | null): string {
    return this.list().find(({ step }) => step.id === id)?.step.title ?? '';
  }

  protected field({ record }: RecordState): string {
    return `record-${this.state().step.id}-${record.id}-${this.axle()}`;
  }

  protected entryOf({ subject }: RecordState) {
    const value = this.edit.bench.readingOf(subject)?.value;
    return value?.of === 'number' ? (value.entries[0] ?? null) : null;
  }

  protected usual({ subject }: RecordState): readonly [number, number] | undefined {
    const kind = Object.values(workSubjects.STEP_READINGS).find(({ what }) => what === subject.what);
    return kind?.value.of === 'number' ? kind.value.plausible : undefined;
  }

  /** A number as it was typed, or a length in the units of whoever looks; empty where nobody has said it. */
  protected numberOf({ typed, mm }: StepNumber): string {
    if (mm === null) return typed ?? '';
    const { text, unit } = formatIn(mm, 'length', this.edit.bench.system(), undefined, 'small');
    return `${text} ${unitLabel(unit)}`;
  }

  /** What to do where a record is out: its own remedy, else the step’s. */
  protected remedy({ record }: RecordState): string {
    return (record.of === 'text' ? undefined : record.fails) ?? this.state().step.fails;
  }

  protected options(choices: readonly string[]) {
    return choices.map((value) => ({ value, label: value }));
  }

  protected said({ subject }: RecordState, text: string): void {
    this.edit.bench.record(subject, { of: 'text', text }, 'By hand');
  }

  protected read({ subject }: RecordState, { entry }: TakenEntry): void {
    this.edit.bench.record(subject, entry, 'By hand');
  }

  protected photo = (id: string): void => {
    const { step, photos } = this.state();
    const subject = workSubjects.stepPhoto.of({ axle: this.axle(), step: step.id });
    this.edit.bench.record(subject, { of: 'photos', photos: [...photos, id] }, 'Camera');
  };

  protected takeMinutes(minutes: number): void {
    this.minutes.set(String(minutes));
  }

  /** What is typed, else what the clock of this device says, where that is believable. */
  private taken(): number | null {
    if (this.minutes() !== '') return Number(this.minutes());
    const since = Number(this.drafts.read(this.opened()) ?? Number.NaN);
    const minutes = Math.round((Date.now() - since) / MINUTE_MS);
    return minutes >= 1 && minutes <= 600 ? minutes : null;
  }

  protected done(): void {
    const state = this.state();
    const next = this.after();
    this.edit.finish(state, 'done', this.taken());
    this.drafts.write(this.opened(), null);
    if (next) void this.router.navigate([], { queryParams: { tab: 'step', step: next.id } });
  }

  protected failed(): void {
    this.edit.finish(this.state(), 'failed', null);
  }

  protected again(): void {
    this.edit.finish(this.state(), 'open', null);
  }

  protected skip(why: string): void {
    this.edit.skip(this.state().step.id, why);
  }

  protected move(why: string): void {
    this.edit.move(this.state().step.id, this.moveTo() === '' ? null : this.moveTo(), why);
  }

  protected sign(name: string): void {
    this.edit.override(this.state().step.id, name, this.why());
    this.why.set('');
  }
}
