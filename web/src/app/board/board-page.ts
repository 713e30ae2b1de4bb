import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, inject, signal, viewChild } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { InputError, cutText } from '@hot-spline/core';
import {
  BOARD_STATE_WORDS,
  FORMAT_VERSION,
  readFile,
  type BoardRow,
  type BoardState,
  type Build,
  type BuildFile,
  type LibrarySpec,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { TableModule, type TableLazyLoadEvent } from 'primeng/table';
import { Finder } from '../frame/finder';
import { Header } from '../frame/header';
import { KeyReader } from '../frame/keys';
import { auditTime, filter } from 'rxjs';
import { Changes } from '../state/changes';
import { api, type BuildSummary } from '../state/api';
import { Outbox } from '../state/outbox';
import { uiActions } from '../state/ui';
import { localDay, sayDay } from '../base/day';
import { Radios } from '../shared/radios';
import { BoardFilter } from './board-filter';
import { BoardRows } from './board-rows';
import { BOARD_SORTS, type BoardSort } from './board-words';
import { FirstStart } from './first-start';
import { KeepNotice, KeepState } from './keep-notice';
import { ArchivePanel } from './archive-panel';
import { ArrivalState } from './arrival-state';
import { Restore } from './restore';
import { OrdersPanel } from './orders-panel';
import { RecallPanel } from './recall-panel';
import { stateWords } from './row-words';
import { StartSheet } from './start-sheet';
import { WeekView } from './week-view';
import { newId } from '../base/new-id';

/** Largest file that is read into memory here; the server has its own limit. */
const LARGEST_FILE = 32 * 1024 * 1024;

/** A bench day with hands on one car: ours, for saying that a promise is tight. */
const HOURS_A_DAY = 6;
const VIEWS = [
  { value: 'list', label: 'List' },
  { value: 'states', label: 'By state' },
  { value: 'week', label: 'By day' },
] as const;
type BoardView = (typeof VIEWS)[number]['value'];

interface Clash {
  readonly file: BuildFile;
  readonly here: BuildSummary;
}

/** Of many changes one after the other, the board is read again so often, ms. */
const FOLLOW_MS = 700;

/** All builds of the shop: open, start, copy, import, export, put away. */
@Component({
  selector: 'hs-board-page',
  imports: [
    ArchivePanel,
    BoardFilter,
    FirstStart,
    KeepNotice,
    Restore,
    Finder,
    Header,
    Radios,
    OrdersPanel,
    RecallPanel,
    RouterLink,
    StartSheet,
    TableModule,
    WeekView,
  ],
  providers: [BoardRows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'key($event)' },
  templateUrl: './board-page.html',
  styleUrl: './board-page.scss',
})
export class BoardPage {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly messages = inject(MessageService);
  private readonly outbox = inject(Outbox);
  private readonly keyReader = new KeyReader();
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');

  protected readonly board = inject(BoardRows);
  /** Builds that begin on this device: the server has not heard of them yet. */
  protected readonly begun = signal<readonly { readonly id: string; readonly name: string }[]>([]);
  protected readonly words = BOARD_STATE_WORDS;
  protected readonly sorts = BOARD_SORTS;
  protected readonly views = VIEWS;
  protected readonly view = signal<BoardView>('list');
  protected readonly recalling = signal(false);
  protected readonly ordering = signal(false);
  protected readonly archiving = signal(false);
  private readonly arrivals = inject(ArrivalState);
  private waiting: ReturnType<typeof setTimeout> | undefined;
  protected readonly finding = signal(false);
  protected readonly starting = signal(false);
  protected readonly busy = signal(false);
  /** Builds of a file whose names are here already. */
  protected readonly clashes = signal<readonly Clash[]>([]);
  /** Whether the file brought one build: it is opened then. */
  private alone = false;

  constructor() {
    void inject(KeepState).read();
    // The finder names what is looked for.
    inject(ActivatedRoute)
      .queryParamMap.pipe(takeUntilDestroyed())
      .subscribe((query) => {
        this.board.search.set(query.get('search') ?? '');
        this.again();
      });
    inject(Changes)
      .heard.pipe(
        filter(({ of }) => of === 'build' || of === 'ledger' || of === 'customers' || of === 'all'),
        auditTime(FOLLOW_MS),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.follow());
  }

  /** Looks for it a moment after the last letter. */
  protected look(text: string): void {
    clearTimeout(this.waiting);
    this.waiting = setTimeout(() => {
      this.board.search.set(text.trim());
      this.again();
    }, 150);
  }

  protected again(): void {
    void this.outbox.pendingNew().then((begun) => this.begun.set([...begun].map(([id, { name }]) => ({ id, name }))));
    if (this.view() !== 'week') void (this.view() === 'states' ? this.board.byState() : this.board.load());
  }

  /** Something changed: what is shown is read again, where it stands. */
  private follow(): void {
    if (this.view() !== 'week') void (this.view() === 'states' ? this.board.byState() : this.board.refresh());
  }

  protected show(view: BoardView): void {
    this.view.set(view);
    this.again();
  }

  protected of(state: BoardState | null): void {
    this.board.state.set(this.board.state() === state ? null : state);
    this.view.set('list');
    this.again();
  }

  protected order(sort: BoardSort): void {
    this.board.sort.set(sort);
    this.again();
  }

  protected reach({ first, rows }: TableLazyLoadEvent): void {
    void this.board.reach(first ?? 0, rows ?? 60);
  }

  /** Whether the day that it is promised for is past, or nearer than the work that is left. */
  protected late({ promised, work }: BoardRow): 'late' | 'tight' | '' {
    if (promised === null || work.state === 'done' || work.state === 'due') return '';
    const days = (new Date(`${promised}T18:00`).getTime() - Date.now()) / 86_400_000;
    return days < 0 ? 'late' : work.leftH > Math.max(0, days) * HOURS_A_DAY ? 'tight' : '';
  }

  protected stateWord({ work }: BoardRow): string {
    return BOARD_STATE_WORDS[work.state];
  }

  protected readonly says = stateWords;

  protected hours(hours: number): string {
    return `${Math.round(hours * 10) / 10} h`;
  }

  protected key(event: KeyboardEvent): void {
    const command = this.keyReader.read(event);
    if (command?.kind === 'find') {
      event.preventDefault();
      this.finding.set(true);
    } else if (command?.kind === 'units') this.store.dispatch(uiActions.unitsFlipped());
  }

  protected day(day: string): string {
    return sayDay(day);
  }

  protected when(build: BuildSummary): string {
    return sayDay(build.updatedAt);
  }

  /** What is to be looked at again, once its day has come. */
  protected due({ rechecks }: BuildSummary): string {
    const today = localDay(new Date());
    const [first] = rechecks.filter(({ on }) => on <= today);
    return first ? `Recheck since ${sayDay(`${first.on}T12:00`)}${first.why ? `: ${first.why}` : ''}` : '';
  }

  protected async start(build: Build): Promise<void> {
    await this.create([{ format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build, ledger: [] }], true);
  }

  protected async copy(build: BuildSummary): Promise<void> {
    await this.work(async () => {
      const file = await api.exportBuild(build.id);
      await this.create(
        [{ ...file, build: { ...file.build, name: `${cutText(file.build.name, 73)} (copy)` }, ledger: [] }],
        false,
      );
    });
  }

  protected async archive(build: BuildSummary, archived: boolean): Promise<void> {
    await this.work(async () => {
      await this.outbox.putArchived('build', build.id, archived);
      await this.outbox.sent();
      this.again();
    });
  }

  protected pick(): void {
    this.picker().nativeElement.click();
  }

  protected async import(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    if (/\.zip$/i.test(file.name)) {
      this.archiving.set(true);
      await this.arrivals.send(file);
      return;
    }
    await this.work(async () => {
      if (file.size > LARGEST_FILE)
        throw new InputError('file', `file “${file.name}” is larger than 32 MB.`, 'at most 32 MB');
      let parsed: unknown;
      try {
        parsed = JSON.parse(await file.text());
      } catch {
        throw new InputError('file', `file “${file.name}” is not JSON.`, 'an exported build');
      }
      const { builds, library } = readFile(parsed);
      // Asked of the server, not of what this page has read: that may be old, or not there yet.
      const active = (await api.builds()).filter(({ archived }) => !archived);
      const clashes = builds.flatMap((one): Clash[] => {
        const here = active.find(({ name }) => name === one.build.name);
        return here ? [{ file: one, here }] : [];
      });
      this.clashes.set(clashes);
      this.alone = builds.length === 1;
      const others = builds.filter((one) => clashes.every((clash) => clash.file !== one));
      const words = await this.takeLibrary(library);
      await this.create(others, others.length === 1 && builds.length === 1);
      if (words !== '') this.messages.add({ severity: 'info', summary: 'Library', detail: words, life: 8000 });
    });
  }

  /** Specs that are not here yet, the same, are added beside those that are. @returns what was done */
  private async takeLibrary(library: readonly LibrarySpec[]): Promise<string> {
    if (library.length === 0) return '';
    const here = new Set((await api.library()).map(({ spec }) => JSON.stringify(spec)));
    const fresh = library.filter((spec) => !here.has(JSON.stringify(spec)));
    for (const spec of fresh) await this.outbox.putLibrary(newId(), 0, spec);
    return `${fresh.length} taken, ${library.length - fresh.length} were here already.`;
  }

  /** What is done with a build of a name that is here already; what is replaced is put away, not deleted. */
  protected async settle({ file, here }: Clash, how: 'replace' | 'both' | 'skip'): Promise<void> {
    await this.work(async () => {
      const id = newId();
      if (how !== 'skip') await this.outbox.putNew(id, file);
      if (how === 'replace') await this.outbox.putArchived('build', here.id, true);
      await this.outbox.sent();
      this.clashes.update((clashes) => clashes.filter((clash) => clash.file !== file));
      if (how !== 'skip' && this.alone) await this.router.navigate(['/builds', id]);
      else this.again();
    });
  }

  private async create(files: readonly BuildFile[], open: boolean): Promise<void> {
    await this.work(async () => {
      let last = '';
      for (const file of files) {
        last = newId();
        await this.outbox.putNew(last, file);
      }
      await this.outbox.sent();
      if (open) await this.router.navigate(['/builds', last]);
      else this.again();
    });
  }

  /** Runs something that may fail, and says so where it is seen. */
  protected readonly work = async (run: () => Promise<void>): Promise<void> => {
    this.busy.set(true);
    try {
      await run();
    } catch (error) {
      this.messages.add({
        severity: 'error',
        summary: 'Not done',
        detail: error instanceof Error ? error.message : String(error),
        life: 12_000,
      });
    } finally {
      this.busy.set(false);
    }
  };
}
