import { serverPath } from '../base/server-path';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { voidedBy } from '@hot-spline/model';
import { TableModule } from 'primeng/table';
import { Bench } from '../state/bench';
import { jumpTo } from '../shared/jump';
import { SheetHead } from '../shared/sheet-head';
import { VoidButton } from '../shared/void-button';
import { sayMoment } from '../base/day';
import { BringReadings } from './bring-readings';
import { ledgerRow } from './ledger-row';

/** Everything measured on this build, newest first; nothing is ever changed, only voided. */
@Component({
  selector: 'hs-ledger-sheet',
  imports: [BringReadings, SheetHead, TableModule, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-sheet-head
      title="Ledger"
      about="Everything measured on this build, newest first. Nothing is changed here, only voided with a reason."
    />
    @if (rows().length) {
      <div class="tools no-print">
        <label class="visually-hidden" for="ledger-filter">Filter the ledger</label>
        <input
          #filter
          id="ledger-filter"
          class="control"
          type="search"
          autocomplete="off"
          placeholder="Filter by piece, instrument, who"
          (input)="table.filterGlobal(filter.value, 'contains')"
        />
        <a class="quiet" [href]="csvUrl()" download><i class="pi pi-download" aria-hidden="true"></i>CSV</a>
        <hs-bring-readings />
      </div>
      <p-table
        #table
        size="small"
        dataKey="key"
        [value]="rows()"
        [globalFilterFields]="['what', 'typed', 'with', 'who', 'note']"
        [scrollable]="true"
        [scrollHeight]="many() ? 'calc(100dvh - 330px)' : 'auto'"
        [virtualScroll]="many()"
        [virtualScrollItemSize]="46"
        [tableStyle]="{ 'min-width': '620px', 'table-layout': 'fixed' }"
        [class.many]="many()"
      >
        <ng-template #header>
          <tr>
            <th scope="col" class="when" pSortableColumn="seq">When <p-sortIcon field="seq" /></th>
            <th scope="col" pSortableColumn="what">What <p-sortIcon field="what" /></th>
            <th scope="col">Reading</th>
            <th scope="col" class="with" pSortableColumn="with">With <p-sortIcon field="with" /></th>
            <th scope="col" class="who" pSortableColumn="who">Who <p-sortIcon field="who" /></th>
            <th scope="col" class="act"><span class="visually-hidden">Void</span></th>
          </tr>
        </ng-template>
        <ng-template #body let-row>
          <tr [class.void]="row.voided">
            <td class="mono when">{{ row.when }}</td>
            <td>
              <span class="clip">{{ row.what }}</span>
              @if (row.note; as note) {
                <span class="reason soft">{{ note }}</span>
              }
              @if (row.voided; as voided) {
                <span class="reason">void: {{ voided.reason }}</span>
              }
            </td>
            <td class="mono value" [title]="row.typed">
              <span class="clip">{{ row.typed }}</span>
              @if (row.shown !== '' && row.shown !== row.typed) {
                <span class="reason soft">{{ row.shown }}</span>
              }
            </td>
            <td>{{ row.with }}</td>
            <td>{{ row.who }}</td>
            <td>
              @if (!row.voided) {
                <hs-void [id]="row.key" [what]="row.what + ', ' + row.typed" />
              }
            </td>
          </tr>
        </ng-template>
        <ng-template #emptymessage>
          <tr>
            <td colspan="6" class="soft">Nothing of that kind in the ledger.</td>
          </tr>
        </ng-template>
      </p-table>
    } @else {
      <div class="empty">
        <h2>Nothing measured yet</h2>
        <p>
          Press <kbd class="mono">m</kbd> anywhere to measure the next piece; each reading lands here with its time and
          instrument.
        </p>
        <div class="tools no-print"><hs-bring-readings /></div>
      </div>
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: var(--space-2);
      margin-bottom: var(--space-2);
    }
    .tools input[type='search'] {
      flex: 1 1 220px;
      width: auto;
    }
    .value {
      overflow-wrap: anywhere;
    }
    .when {
      width: 138px;
    }
    .with {
      width: 116px;
    }
    .who {
      width: 72px;
    }
    .act {
      width: 62px;
    }
    /* Rows of one height, where only those in sight are drawn. */
    .many .clip {
      display: -webkit-box;
      overflow: hidden;
      -webkit-box-orient: vertical;
      -webkit-line-clamp: 1;
    }
    .void td {
      color: var(--soft);
    }
    .void .value,
    .void .when {
      text-decoration: line-through;
    }
    .reason {
      display: block;
      color: var(--ochre-text);
    }
  `,
})
export class LedgerSheet {
  readonly at = input<string>();
  protected readonly bench = inject(Bench);

  protected readonly rows = computed(() => {
    const build = this.bench.build();
    const ledger = this.bench.ledger();
    if (!build) return [];
    const voids = voidedBy(ledger);
    const system = this.bench.system();
    return ledger
      .map((entry, seq) => ({ entry, seq }))
      .filter(({ entry }) => entry.kind !== 'void')
      .map(({ entry, seq }) => ({
        ...ledgerRow(entry, build, system),
        key: entry.id,
        seq,
        who: entry.who,
        when: sayMoment(entry.at),
        voided: voids.get(entry.id) ?? null,
      }))
      .reverse();
  });

  /** Only the rows in sight are drawn once there are many. */
  protected readonly many = computed(() => this.rows().length > 80);
  protected readonly csvUrl = computed(() => serverPath(`/builds/${this.bench.editor().id}/ledger?as=csv`));

  constructor() {
    jumpTo(this.at);
  }
}
