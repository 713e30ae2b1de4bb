import { serverPath } from '../base/server-path';
import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { Router, RouterLink, RouterOutlet } from '@angular/router';
import { fieldWords, valueWords } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Dialog } from 'primeng/dialog';
import { Bench } from '../state/bench';
import { editorActions } from '../state/editor';
import { uiActions, uiFeature } from '../state/ui';
import { Findings } from './findings';
import { FindingsFold } from './findings-fold';
import { Finder } from './finder';
import { Header } from './header';
import { GaugeDock } from './gauge-dock';
import { KeyReader } from './keys';
import { Line } from './line';
import { OpenSheet } from './open-sheet';
import { OthersHere } from './others-here';
import { addressOf } from '../shared/address';
import { sayDay, sayMoment } from '../base/day';
import { SHEETS, framePartsOf } from '../shared/sheet-list';
import { Rail } from './rail';
import { WorkingPanel } from './working-panel';

/** The frame around the sheets of one build: header, Line, Rail, Findings. */
@Component({
  selector: 'hs-build-page',
  imports: [
    NgComponentOutlet,
    Dialog,
    Findings,
    Finder,
    GaugeDock,
    Header,
    Line,
    OthersHere,
    Rail,
    RouterLink,
    RouterOutlet,
    WorkingPanel,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'key($event)' },
  template: `
    <a class="skip" href="#sheet" (click)="toSheet($event)">To the sheet</a>
    <hs-header [title]="title()" [savedAt]="bench.editor().savedAt" (find)="finding.set(true)">
      <hs-others-here />
      @if (ready()) {
        <button
          type="button"
          class="quiet icon bare"
          [disabled]="!bench.canUndo()"
          (click)="bench.undo()"
          aria-label="Undo"
          title="Undo (Ctrl Z)"
        >
          <i class="pi pi-undo" aria-hidden="true"></i>
        </button>
        <button
          type="button"
          class="quiet icon bare"
          [disabled]="!bench.canRedo()"
          (click)="bench.redo()"
          aria-label="Redo"
          title="Redo (Ctrl Y)"
        >
          <i class="pi pi-refresh flip" aria-hidden="true"></i>
        </button>
        <a
          class="quiet icon bare export"
          [href]="exportUrl()"
          download
          aria-label="Export this build"
          title="Export this build as one file"
        >
          <i class="pi pi-download" aria-hidden="true"></i>
        </a>
      }
    </hs-header>
    @switch (bench.editor().status) {
      @case ('ready') {
        <hs-line [class.stands-back]="atBench()" [folded]="atBench()" />
        @for (bar of bars(); track bar) {
          <ng-container *ngComponentOutlet="bar" />
        }
        <div class="body" [class.wide]="!findingsOpen()">
          <hs-rail class="no-print" />
          <main id="sheet" tabindex="-1">
            <p class="print-only">{{ title() }} · {{ today }}</p>
            <router-outlet />
          </main>
          <hs-findings />
        </div>
        <hs-gauge-dock />
      }
      @case ('missing') {
        <main class="notice">
          <h1>No such build</h1>
          <p>{{ bench.editor().problem }}</p>
          <a class="quiet" routerLink="/">To the board</a>
        </main>
      }
      @case ('failed') {
        <main class="notice">
          <h1>The build can’t be read</h1>
          <p>{{ bench.editor().problem }} Nothing typed here is lost.</p>
          <button type="button" class="quiet" (click)="reload()">Try again</button>
        </main>
      }
      @default {
        <main class="notice" aria-busy="true"><p class="soft">Reading the build…</p></main>
      }
    }
    <hs-working />
    <hs-finder [(visible)]="finding" />
    <p-dialog
      header="Keys"
      closeAriaLabel="Close"
      [visible]="keysOpen()"
      (visibleChange)="$event || flipKeys()"
      [modal]="true"
      [dismissableMask]="true"
      [style]="{ width: 'min(420px, 94vw)' }"
    >
      <dl class="keys">
        @for (line of keyLines; track line[0]) {
          <dt>
            <kbd>{{ line[0] }}</kbd>
          </dt>
          <dd>{{ line[1] }}</dd>
        }
      </dl>
    </p-dialog>
    <p-dialog
      header="Changed elsewhere"
      [visible]="conflict() !== null"
      [closable]="false"
      [closeOnEscape]="false"
      [modal]="true"
      [style]="{ width: 'min(520px, 94vw)' }"
    >
      @if (conflict(); as theirs) {
        <p>
          While your change was on its way, this build was saved
          {{ theirs.current.who === '' ? 'from another tab or machine' : 'by ' + theirs.current.who }}
          ({{ when(theirs.current.at) }}). What touches different places is put together. Both have changed:
        </p>
        <div class="differences">
          <table class="table">
            <thead>
              <tr>
                <th scope="col">Field</th>
                <th scope="col">Mine</th>
                <th scope="col">Theirs</th>
              </tr>
            </thead>
            <tbody>
              @for (line of differences(); track line.field) {
                <tr>
                  <th scope="row">{{ line.field }}</th>
                  <td class="mono">{{ line.mine }}</td>
                  <td class="mono">{{ line.theirs }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        <div class="choices">
          <button type="button" class="quiet" (click)="settle('ours')">Keep mine</button>
          <button type="button" class="quiet" (click)="settle('theirs')">Take theirs; mine stays in undo</button>
        </div>
      }
    </p-dialog>
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: flex;
      flex-direction: column;
      height: 100dvh;
    }
    .skip {
      position: absolute;
      left: -999px;
    }
    .skip:focus {
      left: 8px;
      top: 8px;
      z-index: 20;
      padding: 6px 10px;
      background: var(--sheet);
    }
    .flip {
      transform: scaleX(1);
    }
    .body {
      flex: 1;
      min-height: 0;
      display: grid;
      grid-template-columns: 184px minmax(0, 1fr) 272px;
      grid-template-rows: minmax(0, 1fr);
      gap: 12px;
      padding: 12px;
    }
    .body.wide {
      grid-template-columns: 184px minmax(0, 1fr) auto;
    }
    @media #{$tight} {
      .body {
        gap: 8px;
        padding: 8px;
      }
    }
    hs-rail {
      min-height: 0;
      overflow-y: auto;
      scrollbar-width: thin;
    }
    main {
      position: relative;
      min-width: 0;
      min-height: 0;
      overflow: auto;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      scrollbar-width: thin;
    }
    main:focus {
      outline: none;
    }
    .notice {
      margin: 12vh auto;
      padding: 24px;
      max-width: 460px;
      display: grid;
      gap: 12px;
      justify-items: start;
    }
    .keys {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 6px 14px;
    }
    kbd {
      font-family: var(--mono);
      padding: 1px 7px;
      border: 1px solid var(--rule);
      border-radius: 4px;
    }
    .differences {
      margin: 10px 0;
      max-height: 200px;
      overflow: auto;
      font-size: var(--text-s);
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    @media #{$narrow} {
      :host {
        height: auto;
        min-height: 100dvh;
      }
      .body,
      .body.wide {
        display: flex;
        flex-direction: column;
        padding: 0 0 12px;
        gap: 8px;
      }
      main {
        overflow: visible;
        border-width: 1px 0;
        border-radius: 0;
      }
      hs-findings {
        margin: 0 8px;
      }
      .export {
        display: none;
      }
      /* In the hand of who works a step, that step comes first. */
      .stands-back {
        display: none;
      }
    }
    @media print {
      :host {
        height: auto;
      }
      .body {
        display: block;
      }
      main {
        overflow: visible;
        border: 0;
      }
    }
  `,
})
export class BuildPage {
  /** From the address. */
  readonly id = input.required<string>();
  protected readonly bench = inject(Bench);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly pageTitle = inject(Title);
  private readonly keyReader = new KeyReader();
  private readonly sheets = inject(SHEETS);
  protected readonly bars = framePartsOf('bar');

  protected readonly finding = signal(false);
  protected readonly findingsOpen = inject(FindingsFold).open;
  protected readonly keysOpen = this.store.selectSignal(uiFeature.selectKeysOpen);
  protected readonly today = sayDay(new Date());
  protected readonly ready = computed(() => this.bench.editor().status === 'ready');
  protected readonly conflict = computed(() => this.bench.editor().conflict);
  protected readonly title = computed(() => {
    const build = this.bench.build();
    return build ? `${build.name}${build.vehicle ? `, ${build.vehicle}` : ''}` : '';
  });
  protected readonly open = inject(OpenSheet).sheet;
  /** At the bench the Line stands back: dragging it is for specifying. */
  protected readonly atBench = computed(() => {
    const group = this.open()?.group;
    return group !== undefined && group !== 'Specify';
  });
  /** Name of the sheet that is open, for the title of the page. */
  private readonly sheetName = computed(() => this.open()?.name ?? '');
  protected readonly exportUrl = computed(() => serverPath(`/builds/${this.id()}/export`));
  protected readonly keyLines: readonly (readonly [string, string])[] = [
    ...this.sheets.map(({ key, name }) => [`g ${[...key].join(' ')}`, name] as const),
    ['g b o', 'Board of builds'],
    ['/', 'Find anything'],
    ['m', 'Measure the next thing'],
    ['space', 'In an empty measuring field: take the gauge'],
    ['u', 'Flip inch and metric'],
    ['Ctrl Z', 'Undo'],
    ['Ctrl Y', 'Redo'],
    ['Alt ← →', 'Move the chosen plate'],
    ['Alt Delete', 'Remove the row that is typed in'],
    ['?', 'These keys'],
  ];
  /** The places that both have changed, by the field's own label. */
  protected readonly differences = computed(() =>
    (this.conflict()?.overlaps ?? []).map(({ path, ours, theirs }) => ({
      field: path.length === 0 ? 'The whole build' : fieldWords(path),
      mine: valueWords(ours),
      theirs: valueWords(theirs),
    })),
  );

  protected when(at: string): string {
    return sayMoment(at);
  }

  constructor() {
    effect(() => this.store.dispatch(editorActions.opened({ id: this.id() })));
    effect(() =>
      this.pageTitle.setTitle([this.sheetName(), this.bench.build()?.name, 'Hot Spline'].filter(Boolean).join(' · ')),
    );
    // A build that opens begins at its sheet, not at the top of the frame.
    effect(() => {
      if (this.ready())
        setTimeout(
          () =>
            document.activeElement === document.body &&
            document.getElementById('sheet')?.focus({ preventScroll: true }),
        );
    });
  }

  protected reload(): void {
    this.store.dispatch(editorActions.opened({ id: this.id() }));
  }

  protected flipKeys(): void {
    this.store.dispatch(uiActions.keysFlipped());
  }

  protected settle(keep: 'ours' | 'theirs'): void {
    this.store.dispatch(editorActions.settled({ keep }));
  }

  protected toSheet(event: Event): void {
    event.preventDefault();
    document.getElementById('sheet')?.focus();
  }

  protected key(event: KeyboardEvent): void {
    const command = this.keyReader.read(event);
    if (!command) return;
    if (command.kind !== 'go') event.preventDefault();
    switch (command.kind) {
      case 'find':
        return this.finding.set(true);
      case 'units':
        return this.store.dispatch(uiActions.unitsFlipped());
      case 'keys':
        return this.flipKeys();
      case 'undo':
        return this.bench.undo();
      case 'redo':
        return this.bench.redo();
      case 'measure':
        return this.measure();
      case 'go':
        return this.go(command.key);
    }
  }

  private go(key: string): void {
    if (key === 'bo') return void this.router.navigate(['/']);
    const item = this.sheets.find((candidate) => candidate.key === key);
    if (item) void this.router.navigate(['/builds', this.id(), item.sheet]);
  }

  /** Goes to what is measured next, as the sheets in their order say. */
  private measure(): void {
    const derived = this.bench.derived();
    if (!derived) return;
    for (const { measure } of this.sheets) {
      const place = measure?.(derived);
      if (!place) continue;
      const { path, queryParams } = addressOf(this.id(), place);
      return void this.router.navigate(path, { queryParams });
    }
  }
}
