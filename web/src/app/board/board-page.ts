import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { InputError, cutText } from '@hot-spline/core';
import { FORMAT_VERSION, readFile, type Build, type BuildFile } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { Button } from 'primeng/button';
import { TableModule } from 'primeng/table';
import { Finder } from '../frame/finder';
import { Header } from '../frame/header';
import { KeyReader } from '../frame/keys';
import { api, type BuildSummary } from '../state/api';
import { boardActions, boardFeature } from '../state/board';
import { uiActions } from '../state/ui';
import { localDay } from '../shared/day';
import { StartSheet } from './start-sheet';

/** Largest file that is read into memory here; the server has its own limit. */
const LARGEST_FILE = 32 * 1024 * 1024;

/** All builds of the shop: open, start, copy, import, export, put away. */
@Component({
  selector: 'hs-board-page',
  imports: [Button, Finder, Header, RouterLink, StartSheet, TableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'key($event)' },
  templateUrl: './board-page.html',
  styleUrl: './board-page.scss',
})
export class BoardPage {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly messages = inject(MessageService);
  private readonly keyReader = new KeyReader();
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');

  protected readonly status = this.store.selectSignal(boardFeature.selectStatus);
  protected readonly problem = this.store.selectSignal(boardFeature.selectProblem);
  private readonly builds = this.store.selectSignal(boardFeature.selectBuilds);
  protected readonly active = computed(() => this.builds().filter((build) => !build.archived));
  protected readonly archived = computed(() => this.builds().filter((build) => build.archived));
  protected readonly finding = signal(false);
  protected readonly starting = signal(false);
  protected readonly busy = signal(false);

  constructor() {
    this.store.dispatch(boardActions.opened());
  }

  protected key(event: KeyboardEvent): void {
    const command = this.keyReader.read(event);
    if (command?.kind === 'find') {
      event.preventDefault();
      this.finding.set(true);
    } else if (command?.kind === 'units') this.store.dispatch(uiActions.unitsFlipped());
  }

  protected when(build: BuildSummary): string {
    return new Date(build.updatedAt).toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' });
  }

  /** What is to be looked at again, once its day has come. */
  protected due({ rechecks }: BuildSummary): string {
    const today = localDay(new Date());
    const [first] = rechecks.filter(({ on }) => on <= today);
    return first ? `Recheck since ${first.on}${first.why ? `: ${first.why}` : ''}` : '';
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
      await api.archive(build.id, archived);
      this.store.dispatch(boardActions.opened());
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
    await this.work(async () => {
      if (file.size > LARGEST_FILE)
        throw new InputError('file', `file “${file.name}” is larger than 32 MB.`, 'at most 32 MB');
      let parsed: unknown;
      try {
        parsed = JSON.parse(await file.text());
      } catch {
        throw new InputError('file', `file “${file.name}” is not JSON.`, 'an exported build');
      }
      const builds = readFile(parsed);
      await this.create(builds, builds.length === 1);
    });
  }

  private async create(files: readonly BuildFile[], open: boolean): Promise<void> {
    await this.work(async () => {
      let last = '';
      for (const file of files) {
        last = crypto.randomUUID();
        await api.create(last, file);
      }
      if (open) await this.router.navigate(['/builds', last]);
      else this.store.dispatch(boardActions.opened());
    });
  }

  /** Runs something that may fail, and says so where it is seen. */
  private async work(run: () => Promise<void>): Promise<void> {
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
  }
}
