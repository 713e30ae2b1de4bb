import { serverPath } from '../base/server-path';
import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, model, signal, viewChild } from '@angular/core';
import { Router } from '@angular/router';
import { cutText, say } from '@hot-spline/core';
import { AXLES, type Customer, type LibrarySpec } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Dialog } from 'primeng/dialog';
import { Bench } from '../state/bench';
import { ApiError, api } from '../state/api';
import { boardActions, boardFeature } from '../state/board';
import { uiActions } from '../state/ui';
import { kindOf, typedText } from '../shared/reading-words';
import { Library } from '../state/library';
import { matches } from './finder-words';
import { addressOf } from '../shared/address';
import { sayDay } from '../base/day';
import type { FieldFind } from '../shared/descriptor';
import { FIELD_LISTS, SHEETS } from '../shared/sheet-list';

interface Hit {
  readonly kind: string;
  readonly name: string;
  readonly more: string;
  run(): void;
}

const KINDS: Readonly<Record<string, readonly [string, string]>> = {
  build: ['build', 'builds'],
  command: ['command', 'commands'],
  library: ['library piece', 'library pieces'],
  sheet: ['sheet', 'sheets'],
  part: ['part', 'parts'],
  figure: ['figure', 'figures'],
  reading: ['reading', 'readings'],
  number: ['number', 'numbers'],
  customer: ['customer', 'customers'],
  step: ['step', 'steps'],
  field: ['field', 'fields'],
  code: ['code', 'codes'],
};
const KIND_NAMES: Readonly<Record<Exclude<LibrarySpec['kind'], 'schools'>, string>> = {
  axle: 'axle',
  gearbox: 'gearbox',
  shims: 'drawer of shims',
  friction: 'table of friction',
  instrument: 'instrument',
  'set-up-bearing': 'set-up bearing',
};

/** Id of a build, anywhere in what was typed or scanned. */
const BUILD_ID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/i;

/** Once the finder has closed, so that it is not on the paper. */
const printSoon = (): void => void setTimeout(() => window.print(), 350);

/** What is on the sheet as files; fetched when somebody wants it. */
const saveSoon = (what: 'table' | 'drawing'): void =>
  void setTimeout(() => void import('../shared/drawings').then(({ saveAll }) => saveAll(what)), 350);

/** Finds anything: builds, sheets, parts, figures, readings, pieces of the library, commands. */
@Component({
  selector: 'hs-finder',
  imports: [Dialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [(visible)]="visible"
      [modal]="true"
      [dismissableMask]="true"
      [showHeader]="false"
      position="top"
      ariaLabelledBy="finder-label"
      [style]="{ width: 'min(560px, 94vw)' }"
      [contentStyle]="{ padding: '14px' }"
      (onShow)="shown()"
      (onHide)="gone()"
    >
      <label id="finder-label" for="finder-box" class="soft label">Find a build, part, figure or command</label>
      <input
        #box
        id="finder-box"
        class="control"
        autocomplete="off"
        role="combobox"
        aria-controls="finder-hits"
        aria-expanded="true"
        [attr.aria-activedescendant]="hits().length ? 'hit-' + at() : null"
        [value]="text()"
        (input)="type(box.value)"
        (keydown.arrowdown)="move(1); $event.preventDefault()"
        (keydown.arrowup)="move(-1); $event.preventDefault()"
        (keydown.enter)="run(hits()[at()])"
        (keydown.escape)="visible.set(false)"
      />
      <ul id="finder-hits" role="listbox" aria-label="Found">
        @for (hit of hits(); track hit.kind + hit.name + $index) {
          <li
            role="option"
            tabindex="-1"
            (keydown.enter)="run(hit)"
            [id]="'hit-' + $index"
            [attr.aria-selected]="$index === at()"
            [class.on]="$index === at()"
            (click)="run(hit)"
          >
            <span class="kind">{{ hit.kind }}</span>
            <span class="name">{{ hit.name }}</span>
            <span class="more mono">{{ hit.more }}</span>
          </li>
        } @empty {
          <li class="soft" role="option" aria-selected="false">{{ nothing() }}</li>
        }
      </ul>
    </p-dialog>
  `,
  styles: `
    .label {
      display: block;
      margin-bottom: 6px;
    }
    ul {
      margin-top: 8px;
      max-height: 50vh;
      overflow-y: auto;
    }
    li {
      display: flex;
      gap: 10px;
      align-items: center;
      min-height: 34px;
      padding: 2px 8px;
      border-radius: 6px;
      cursor: pointer;
    }
    li.on,
    li:hover {
      background: var(--blue-wash);
    }
    .kind {
      flex: 0 0 72px;
      font-size: var(--text-xs);
      color: var(--soft);
    }
    .name {
      flex: 1 1 55%;
      min-width: 0;
    }
    .more {
      max-width: 45%;
      overflow: hidden;
      text-overflow: ellipsis;
      margin-left: auto;
      color: var(--soft);
      font-size: var(--text-s);
      white-space: nowrap;
    }
  `,
})
export class Finder {
  readonly visible = model(false);
  private readonly bench = inject(Bench);
  private readonly library = inject(Library);
  private readonly fieldLists = inject(FIELD_LISTS);
  /** Fields of every sheet; fetched when the finder opens. */
  private readonly fields = signal<readonly FieldFind[]>([]);
  private readonly sheets = inject(SHEETS);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  private readonly builds = this.store.selectSignal(boardFeature.selectBuilds);
  /** Asked for when the finder opens; none while the server is away. */
  private readonly customers = signal<readonly Customer[]>([]);
  protected readonly text = signal('');
  protected readonly at = signal(0);

  private readonly all = computed<Hit[]>(() => {
    const id = this.bench.editor().id;
    const system = this.bench.system();
    const go =
      (...path: string[]) =>
      () =>
        void this.router.navigate(path);
    const hits: Hit[] = this.builds().map((build) => ({
      kind: 'build',
      name: build.name,
      more: cutText(build.vehicle, 34),
      run: go('/builds', build.id),
    }));
    hits.push(
      { kind: 'command', name: 'Board of builds', more: '', run: go('/') },
      { kind: 'command', name: 'Library of axles and gearboxes', more: '', run: go('/library') },
      { kind: 'command', name: 'Practice bench', more: '', run: go('/practice') },
      { kind: 'command', name: 'Import a build or an archive', more: 'on the board', run: go('/') },
      {
        kind: 'command',
        name: 'Archive of the whole shop',
        more: 'one file',
        run: () => location.assign(serverPath('/archive')),
      },
      { kind: 'command', name: 'Put a build away', more: 'on the board; nothing is deleted', run: go('/') },
      { kind: 'command', name: 'New build', more: 'on the board', run: go('/') },
      { kind: 'command', name: 'Print what is open', more: 'or save as PDF', run: printSoon },
      {
        kind: 'command',
        name: 'Flip inch and metric',
        more: 'u',
        run: () => this.store.dispatch(uiActions.unitsFlipped()),
      },
      {
        kind: 'command',
        name: 'Flip day and night',
        more: '',
        run: () => this.store.dispatch(uiActions.themeFlipped()),
      },
    );
    for (const { id: spec, spec: of } of this.library.active())
      if (of.kind !== 'schools')
        hits.push({
          kind: 'library',
          name: of.name,
          more: KIND_NAMES[of.kind],
          run: () => void this.router.navigate(['/library'], { queryParams: { spec } }),
        });
    for (const { name, reach, builds: count } of this.customers())
      hits.push({
        kind: 'customer',
        name,
        more: [reach, `${count} ${count === 1 ? 'build' : 'builds'}`].filter(Boolean).join(' · '),
        run: () => void this.router.navigate(['/'], { queryParams: { search: name } }),
      });
    const build = this.bench.build();
    const derived = this.bench.derived();
    if (id === null || !build || !derived) return hits;
    for (const { sheet, name, key, tabs, parts } of this.sheets) {
      hits.push({ kind: 'sheet', name, more: `g ${key}`, run: go('/builds', id, sheet) });
      for (const { tab, label } of tabs.slice(1))
        hits.push({
          kind: 'sheet',
          name: `${name}: ${label}`,
          more: '',
          run: () => void this.router.navigate(['/builds', id, sheet], { queryParams: { tab } }),
        });
      for (const { name: part, more, place } of parts?.(build) ?? []) {
        const { path, queryParams } = addressOf(id, place);
        hits.push({ kind: 'part', name: part, more, run: () => void this.router.navigate(path, { queryParams }) });
      }
    }
    const [shown, axle] = [new Map(this.sheets.map((one) => [one.sheet, one])), this.bench.axleName()];
    for (const [sheet, tab, label, field] of this.fields()) {
      const of = shown.get(sheet);
      if (!of || of.shows?.(build) === false) continue;
      const tabName = of.tabs.find((one) => one.tab === tab)?.label;
      const place = { sheet, ...(tab === '' ? {} : { tab }), field: field.replace('{axle}', axle) };
      const { path, queryParams } = addressOf(id, place);
      hits.push({
        kind: 'field',
        name: label,
        more: tabName === undefined || of.tabs.length < 2 ? of.name : `${of.name}, ${tabName}`,
        run: () => void this.router.navigate(path, { queryParams }),
      });
    }
    for (const figure of derived.figures.values()) {
      const more =
        figure.value === null
          ? (figure.instead ?? '')
          : say(figure.value, figure.quantity, system, figure.decimals, figure.scale);
      hits.push({ kind: 'figure', name: figure.label, more, run: () => this.bench.openWorking(figure.id) });
    }
    for (const entry of [...this.bench.ledger()].reverse()) {
      if (entry.kind !== 'reading') continue;
      hits.push({
        kind: 'reading',
        name: kindOf(entry)?.words(entry.subject, build) ?? entry.subject.what,
        more: `${cutText(typedText(entry), 28)} · ${sayDay(new Date(entry.at))}`,
        run: go('/builds', id, 'ledger'),
      });
    }
    for (const name of AXLES) {
      for (const { step, status } of derived.work[name]?.steps ?? [])
        hits.push({
          kind: 'step',
          name: step.title,
          more: status === 'open' ? name : `${name}, ${status}`,
          run: () =>
            void this.router.navigate(['/builds', id, 'work'], {
              queryParams: { tab: 'step', at: `step-${step.id}-${name}` },
            }),
        });
      for (const part of build.axles[name]?.work?.parts ?? [])
        if (part.number !== '')
          hits.push({
            kind: 'number',
            name: part.number,
            more: `${part.name}, ${name}`,
            run: () =>
              void this.router.navigate(['/builds', id, 'parts'], { queryParams: { at: `part-${part.id}-${name}` } }),
          });
      const marks = build.axles[name]?.matchNumbers;
      for (const part of ['ring', 'pinion'] as const)
        if (marks?.[part])
          hits.push({
            kind: 'number',
            name: marks[part],
            more: `match number of the ${part}, ${name}`,
            run: () => void this.router.navigate(['/builds', id, 'brief'], { queryParams: { tab: 'identity' } }),
          });
    }
    hits.push(
      { kind: 'command', name: 'One-page summary', more: 'to print', run: go('/builds', id, 'summary') },
      {
        kind: 'command',
        name: 'Export this build',
        more: 'one file',
        run: () => location.assign(serverPath(`/builds/${id}/export`)),
      },
      { kind: 'command', name: 'Save the tables of this sheet', more: 'CSV', run: () => saveSoon('table') },
      { kind: 'command', name: 'Save the drawings of this sheet', more: 'SVG', run: () => saveSoon('drawing') },
      { kind: 'command', name: 'Undo', more: 'Ctrl Z', run: () => this.bench.undo() },
      { kind: 'command', name: 'Redo', more: 'Ctrl Y', run: () => this.bench.redo() },
    );
    return hits;
  });
  protected readonly hits = computed(() => {
    const typed = this.text();
    const code = BUILD_ID.exec(typed)?.[0].toLowerCase();
    if (code !== undefined) return [this.scanned(code)];
    const found = this.all().filter((hit) => matches(typed, `${hit.kind} ${hit.name} ${hit.more}`));
    // What is called so goes before what only means it.
    const bare = typed.toLowerCase().trim();
    const called = ({ name }: Hit): number => {
      const said = name.toLowerCase();
      return said === bare ? 0 : said.startsWith(bare) ? 1 : said.includes(bare) ? 2 : 3;
    };
    // Places before what was once read there: a ledger is long.
    const late = ({ kind }: Hit): number => Number(kind === 'reading' || kind === 'build');
    return found.sort((a, b) => called(a) - called(b) || late(a) - late(b)).slice(0, 40);
  });
  /** A build by its id: typed, or as the code of a label carries it. */
  private scanned(id: string): Hit {
    const build = this.builds().find((one) => one.id === id);
    return {
      kind: 'code',
      name: build ? build.name : 'The build of this code',
      more: build ? cutText(build.vehicle, 34) : 'not on the board of this device',
      run: () => void this.router.navigate(['/builds', id]),
    };
  }

  /** What was searched, where there is nothing. */
  protected readonly nothing = computed(() => {
    const counts = new Map<string, number>();
    for (const { kind } of this.all()) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    const said = [...counts].map(([kind, count]) => `${count} ${KINDS[kind]?.[count === 1 ? 0 : 1] ?? kind}`);
    return `Nothing of that name among ${said.join(', ')}.`;
  });

  protected shown(): void {
    this.library.open();
    this.store.dispatch(boardActions.opened());
    void this.readCustomers();
    void Promise.all(this.fieldLists.map((list) => list())).then((lists) => this.fields.set(lists.flat()));
    this.box()?.nativeElement.focus();
  }

  private async readCustomers(): Promise<void> {
    try {
      this.customers.set(await api.customers());
    } catch (error) {
      // Away, as the header says: those that were known stay.
      if (!(error instanceof ApiError)) throw error;
    }
  }

  /** Emptied when it goes, not when it is there: who types at once loses nothing. */
  protected gone(): void {
    this.text.set('');
    this.at.set(0);
  }

  protected type(text: string): void {
    this.text.set(text);
    this.at.set(0);
  }

  protected move(by: number): void {
    const count = this.hits().length;
    if (count === 0) return;
    this.at.set((this.at() + by + count) % count);
    document.getElementById(`hit-${this.at()}`)?.scrollIntoView({ block: 'nearest' });
  }

  protected run(hit: Hit | undefined): void {
    if (!hit) return;
    this.visible.set(false);
    hit.run();
  }
}
