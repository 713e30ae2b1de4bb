import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, model, signal, viewChild } from '@angular/core';
import { Router } from '@angular/router';
import { cutText, say } from '@hot-spline/core';
import { Store } from '@ngrx/store';
import { Dialog } from 'primeng/dialog';
import { Bench } from '../state/bench';
import { boardFeature } from '../state/board';
import { uiActions } from '../state/ui';
import { addressOf } from '../shared/address';
import { SHEETS } from '../sheets';

interface Hit {
  readonly kind: string;
  readonly name: string;
  readonly more: string;
  run(): void;
}

/** Finds anything: builds, sheets, parts, figures, commands. */
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
    >
      <label id="finder-label" for="finder-box" class="soft">Find a build, part, figure or command</label>
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
            <span>{{ hit.name }}</span>
            <span class="more mono">{{ hit.more }}</span>
          </li>
        } @empty {
          <li class="soft" role="option" aria-selected="false">Nothing of that name.</li>
        }
      </ul>
    </p-dialog>
  `,
  styles: `
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
    .more {
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
  private readonly sheets = inject(SHEETS);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  private readonly builds = this.store.selectSignal(boardFeature.selectBuilds);
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
    for (const figure of derived.figures.values()) {
      const more =
        figure.value === null
          ? (figure.instead ?? '')
          : say(figure.value, figure.quantity, system, figure.decimals, figure.scale);
      hits.push({ kind: 'figure', name: figure.label, more, run: () => this.bench.openWorking(figure.id) });
    }
    hits.push(
      { kind: 'command', name: 'Undo', more: 'Ctrl Z', run: () => this.bench.undo() },
      { kind: 'command', name: 'Redo', more: 'Ctrl Y', run: () => this.bench.redo() },
    );
    return hits;
  });
  protected readonly hits = computed(() => {
    const words = this.text().toLowerCase().split(/\s+/).filter(Boolean);
    return this.all()
      .filter((hit) => words.every((word) => `${hit.kind} ${hit.name} ${hit.more}`.toLowerCase().includes(word)))
      .slice(0, 40);
  });

  protected shown(): void {
    this.text.set('');
    this.at.set(0);
    this.box()?.nativeElement.focus();
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
