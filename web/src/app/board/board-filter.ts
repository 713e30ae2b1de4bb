import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { JOBS, type Job } from '@hot-spline/core';
import { JOB_WORDS, RESTS_FOR, RESTS_FOR_WORDS, type RestsFor } from '@hot-spline/model';
import { auditTime, filter } from 'rxjs';
import { Choice, type Option } from '../shared/choice';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { ApiError, api } from '../state/api';
import { Changes } from '../state/changes';
import { BoardRows } from './board-rows';
import { BOARD_PROMISES, type BoardPromise } from './board-words';
import { KeptViews } from './kept-views';

const RESTS: readonly Option<RestsFor | ''>[] = [
  { value: '', label: 'waiting or not' },
  ...RESTS_FOR.map((value) => ({ value, label: `waits for ${RESTS_FOR_WORDS[value]}` })),
];
const KINDS: readonly Option<Job | ''>[] = [
  { value: '', label: 'any kind of job' },
  ...JOBS.map((value) => ({ value, label: JOB_WORDS[value].label })),
];
/** Who works here changes seldom: of many changes the names are read again so often, ms. */
const NAMES_MS = 5000;

/** What of the board is looked for, beside words and states; and what is looked for again and again, under names. */
@Component({
  selector: 'hs-board-filter',
  imports: [Choice, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="quiet fold" [attr.aria-expanded]="!folded()" (click)="folded.set(!folded())">
      <i class="pi pi-filter" aria-hidden="true"></i>Filter
    </button>
    @if (workers().length > 1) {
      <hs-choice
        name="board-worker"
        label="Whose"
        [labelHidden]="true"
        [options]="workers()"
        [value]="board.worker()"
        (chosen)="ask(board.worker, $event)"
      />
    }
    <hs-choice
      name="board-rest"
      label="Waits for"
      [labelHidden]="true"
      [options]="rests"
      [value]="board.rest()"
      (chosen)="ask(board.rest, $event)"
    />
    <hs-choice
      name="board-job"
      label="Kind of job"
      [labelHidden]="true"
      [options]="kinds"
      [value]="board.job()"
      (chosen)="ask(board.job, $event)"
    />
    <hs-choice
      name="board-promised"
      label="Promised"
      [labelHidden]="true"
      [options]="promises"
      [value]="board.promised()"
      (chosen)="ask(board.promised, $event)"
    />
    @if (views.views().length) {
      <hs-choice
        name="board-kept"
        label="Kept view"
        [labelHidden]="true"
        [options]="kept()"
        [value]="shown()"
        (chosen)="show($event)"
      />
    }
    @if (shown()) {
      <hs-remove [what]="'the view ' + shown()" [asks]="true" (removed)="views.drop(shown())" />
    } @else if (asks() && !views.full()) {
      @if (naming()) {
        <hs-field
          name="board-view-name"
          label="Name of this view"
          [labelHidden]="true"
          text=""
          placeholder="Name of this view"
          [read]="readName"
          [enterOnly]="true"
          verb="Keep"
          [compact]="true"
          (taken)="keep($event)"
        />
      } @else {
        <button type="button" class="quiet" (click)="naming.set(true)">Keep this view</button>
      }
      <button type="button" class="quiet" (click)="all()">Show all</button>
    }
  `,
  host: { '[class.folded]': 'folded() && !board.filtered()' },
  styles: `
    @use 'breakpoints' as *;
    .fold {
      display: none;
    }
    /* A phone has room for the list: what it is looked at by is behind a button, unless it leaves something out. */
    @media #{$narrow} {
      .fold {
        display: inline-flex;
      }
      :host.folded hs-choice {
        display: none;
      }
    }
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 8px;
      align-items: center;
      margin-bottom: 8px;
    }
    hs-choice {
      flex: 0 1 auto;
    }
  `,
})
export class BoardFilter {
  /** Something else is looked for. */
  readonly asked = output<void>();
  protected readonly board = inject(BoardRows);
  protected readonly views = inject(KeptViews);
  protected readonly rests = RESTS;
  protected readonly kinds = KINDS;
  protected readonly promises: readonly Option<BoardPromise>[] = BOARD_PROMISES;
  protected readonly naming = signal(false);
  protected readonly folded = signal(true);
  protected readonly readName = textReader('Name', 40, 1);
  private readonly names = signal<readonly string[]>([]);
  protected readonly workers = computed<readonly Option<string>[]>(() => [
    { value: '', label: 'whoever’s' },
    ...[...new Set([...this.names(), this.board.worker()])]
      .filter(Boolean)
      .map((value) => ({ value, label: `${value}’s` })),
  ]);
  protected readonly kept = computed<readonly Option<string>[]>(() => [
    { value: '', label: 'kept views' },
    ...this.views.views().map(({ name }) => ({ value: name, label: name })),
  ]);
  protected readonly shown = computed(() => this.views.shown(this.board));
  /** Whether anything is left out. */
  protected readonly asks = computed(
    () => this.board.filtered() || this.board.state() !== null || this.board.search() !== '',
  );

  constructor() {
    void this.readNames();
    inject(Changes)
      .heard.pipe(
        filter(({ of }) => of === 'build' || of === 'all'),
        auditTime(NAMES_MS),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.readNames());
  }

  private async readNames(): Promise<void> {
    try {
      this.names.set(await api.workers());
    } catch (error) {
      // The board itself says that the server is away; the names that are known stay.
      if (!(error instanceof ApiError)) throw error;
    }
  }

  protected ask<T>(what: { set(value: T): void }, value: T): void {
    what.set(value);
    this.asked.emit();
  }

  protected show(name: string): void {
    if (name === '') return;
    this.views.show(name, this.board);
    this.asked.emit();
  }

  protected keep(name: string): void {
    this.views.keep(name, this.board);
    this.naming.set(false);
  }

  protected all(): void {
    this.board.clear();
    this.asked.emit();
  }
}
