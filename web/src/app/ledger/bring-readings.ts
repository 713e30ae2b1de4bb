import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { InputError } from '@hot-spline/core';
import { compareLedger, readLedgerCsv, textOf, type LedgerImport } from '@hot-spline/model/csv';
import { v5 } from 'uuid';
import { BadLines } from '../shared/bad-lines';
import { Bench } from '../state/bench';
import { ledgerRow } from './ledger-row';

const LARGEST_FILE = 8 * 1024 * 1024;
/** So many of the new ones are shown. */
const SHOWN = 12;

const NOTHING = { entries: [], made: new Set<string>() };

interface Brought extends LedgerImport {
  readonly name: string;
}

/** Readings of a file into the open ledger: said first what is new, appended when somebody says so. */
@Component({
  selector: 'hs-bring-readings',
  imports: [BadLines],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="quiet" (click)="picker.click()">
      <i class="pi pi-upload" aria-hidden="true"></i>Import CSV
    </button>
    <input
      #picker
      type="file"
      accept=".csv,text/csv"
      aria-label="CSV file of readings"
      class="visually-hidden"
      tabindex="-1"
      (change)="read()"
    />
    @if (problem(); as why) {
      <p class="caution" role="alert">{{ why }}</p>
    }
    @if (brought(); as file) {
      <section aria-label="What the file brings">
        <h2>“{{ file.name }}”</h2>
        <p>
          <strong>{{ compared().fresh.length }}</strong> new, {{ compared().same }} here already.
        </p>
        @if (compared().other.length) {
          <p class="caution">
            {{ compared().other.length }} say something else than the entry that is here under their id: an entry is
            never changed. Void it, and read again.
          </p>
        }
        @if (compared().signed) {
          <p class="caution">
            {{ compared().signed }} {{ compared().signed === 1 ? 'signature stays' : 'signatures stay' }} out: a name
            stands for what its owner saw. Sign here.
          </p>
        }
        @if (compared().loose.length) {
          <p class="caution">{{ compared().loose.length }} void what is not here, or is void already: left out.</p>
        }
        <ul>
          @for (row of rows(); track row.entry.id) {
            <li>
              <span>{{ row.what }}</span> <strong class="mono">{{ row.typed }}</strong>
              <span class="soft">{{ row.with }}{{ row.entry.who ? ', ' + row.entry.who : '' }}</span>
            </li>
          }
          @if (compared().fresh.length > shown) {
            <li class="soft">and {{ compared().fresh.length - shown }} more</li>
          }
        </ul>
        <hs-bad-lines [lines]="file.bad" />
        <div class="doing">
          @if (compared().fresh.length) {
            <button type="button" class="quiet main" (click)="take()">Append {{ compared().fresh.length }}</button>
          }
          <button type="button" class="quiet" (click)="brought.set(null)">Leave it</button>
        </div>
      </section>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    section,
    .caution[role] {
      flex: 1 0 100%;
      order: 9;
    }
    section {
      display: grid;
      gap: 8px;
      padding: 12px 16px;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: 8px;
    }
    h2 {
      font-size: var(--text-l);
      overflow-wrap: anywhere;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 12px;
      padding: 3px 0;
      border-bottom: 1px solid var(--rule);
      font-size: var(--text-s);
    }
    .doing {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .main {
      background: var(--blue);
      border-color: var(--blue);
      color: var(--on-blue);
      font-weight: 600;
    }
  `,
})
export class BringReadings {
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');
  private readonly bench = inject(Bench);
  protected readonly shown = SHOWN;
  protected readonly problem = signal('');
  protected readonly brought = signal<Brought | null>(null);
  /** Against the ledger as it is now: what comes meanwhile is seen. */
  protected readonly compared = computed(() => compareLedger(this.brought() ?? NOTHING, this.bench.ledger()));
  protected readonly rows = computed(() => {
    const build = this.bench.build();
    return build
      ? this.compared()
          .fresh.slice(0, SHOWN)
          .map((entry) => ledgerRow(entry, build, this.bench.system()))
      : [];
  });

  protected async read(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    const { id } = this.bench.editor();
    if (!file || id === null) return;
    this.problem.set('');
    this.brought.set(null);
    try {
      if (file.size > LARGEST_FILE)
        throw new InputError('file', `file “${file.name}” is larger than 8 MB.`, 'at most 8 MB');
      const text = textOf(new Uint8Array(await file.arrayBuffer()));
      const writer = {
        idOf: (line: string) => v5(line, id),
        at: new Date().toISOString(),
        who: this.bench.who() ?? '',
      };
      this.brought.set({ name: file.name, ...readLedgerCsv(text, writer) });
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.problem.set(`Nothing taken. ${error.message} Allowed: ${error.allowed}.`);
    }
  }

  protected take(): void {
    this.bench.bring(this.compared().fresh);
    this.brought.set(null);
  }
}
