import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatIn, type UnitSystem } from '@hot-spline/core';
import { readingBase, subjects, voidedBy, type Build, type LedgerEntry, type Reading } from '@hot-spline/model';
import { Bench } from '../state/bench';
import { jumpTo } from '../shared/jump';
import { SheetHead } from '../shared/sheet-head';
import { VoidButton } from '../shared/void-button';

interface Row {
  readonly entry: LedgerEntry;
  readonly what: string;
  readonly typed: string;
  readonly shown: string;
  readonly with: string;
  readonly note: string;
}

const kindOf = (reading: Reading) => subjects.find(({ what }) => what === reading.subject.what);

/** A value that is no number, in words. */
function otherValue({ value }: Reading): string {
  switch (value.of) {
    case 'places':
      return value.entries.map(({ typed }) => typed).join('; ');
    case 'pattern':
      return `drive ${value.drive.u} / ${value.drive.v}, coast ${value.coast.u} / ${value.coast.v}`;
    case 'choice':
      return value.choice;
    case 'signature':
      return value.name;
    case 'photos':
      return value.photos.length === 1 ? '1 photo' : `${value.photos.length} photos`;
    case 'number':
      return value.entries.map(({ typed }) => typed).join('; ');
  }
}

function readingRow(reading: Reading, build: Build, system: UnitSystem): Omit<Row, 'entry'> {
  const subject = kindOf(reading);
  const kind = subject?.value;
  const what = subject?.words(reading.subject, build) ?? reading.subject.what;
  const several = reading.value.of === 'number' && reading.value.entries.length > 1;
  const note = [several && `${reading.value.of === 'number' ? reading.value.counts : ''} of them counts`, reading.note];
  const common = { what, with: reading.instrument, note: note.filter(Boolean).join('; ') };
  const typed = otherValue(reading);
  if (kind?.of !== 'number') return { ...common, typed, shown: '' };
  const { text, unit } = formatIn(readingBase(reading), kind.quantity, system, undefined, kind.scale);
  return { ...common, typed, shown: `${text} ${unit}` };
}

/** What an entry says, in the words of the bench. */
export function ledgerRow(entry: LedgerEntry, build: Build, system: UnitSystem): Row {
  switch (entry.kind) {
    case 'reading':
      return { entry, ...readingRow(entry, build, system) };
    case 'decision':
      return { entry, what: entry.about, typed: entry.decided, shown: '', with: 'decision', note: entry.why };
    case 'signature':
      return {
        entry,
        what: `Gate ${entry.gate}`,
        typed: entry.name,
        shown: '',
        with: 'signature',
        note: entry.note ?? '',
      };
    case 'void':
      return { entry, what: 'Void', typed: '', shown: '', with: '', note: entry.reason };
  }
}

/** Everything measured on this build, newest first; nothing is ever changed, only voided. */
@Component({
  selector: 'hs-ledger-sheet',
  imports: [SheetHead, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-sheet-head
      title="Ledger"
      about="Everything measured on this build, newest first. Nothing is changed here, only voided with a reason."
    />
    @if (rows().length) {
      <div class="scroll">
        <table>
          <thead>
            <tr>
              <th scope="col">When</th>
              <th scope="col">What</th>
              <th scope="col" class="value">As typed</th>
              <th scope="col" class="value">{{ bench.system() === 'inch' ? 'Inch' : 'Metric' }}</th>
              <th scope="col">With</th>
              <th scope="col">Who</th>
              <th scope="col"><span class="visually-hidden">Void</span></th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.entry.id) {
              <tr [class.void]="row.voided">
                <td class="mono when">{{ row.when }}</td>
                <td>
                  {{ row.what }}
                  @if (row.note; as note) {
                    <span class="reason soft">{{ note }}</span>
                  }
                  @if (row.voided; as voided) {
                    <span class="reason">void: {{ voided.reason }}</span>
                  }
                </td>
                <td class="mono value">{{ row.typed }}</td>
                <td class="mono value">{{ row.shown }}</td>
                <td>{{ row.with }}</td>
                <td>{{ row.entry.who }}</td>
                <td>
                  @if (!row.voided) {
                    <hs-void [id]="row.entry.id" [what]="row.what + ', ' + row.typed" />
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
    } @else {
      <div class="empty">
        <h2>Nothing measured yet</h2>
        <p>
          Press <kbd class="mono">m</kbd> anywhere to measure the next piece; each reading lands here with its time and
          instrument.
        </p>
      </div>
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    .scroll {
      position: relative;
      overflow-x: auto;
    }
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 13.5px;
    }
    th {
      text-align: left;
      font-weight: 500;
      font-size: 12.5px;
      color: var(--soft);
    }
    td,
    th {
      padding: 4px 8px;
      border-bottom: 1px solid var(--rule);
    }
    .value {
      text-align: right;
      white-space: nowrap;
    }
    .when {
      white-space: nowrap;
      font-size: 12.5px;
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
      font-size: 12.5px;
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
      .filter((entry) => entry.kind !== 'void')
      .map((entry) => ({
        ...ledgerRow(entry, build, system),
        when: new Date(entry.at).toLocaleString([], { dateStyle: 'short', timeStyle: 'medium' }),
        voided: voids.get(entry.id) ?? null,
      }))
      .reverse();
  });

  constructor() {
    jumpTo(this.at);
  }
}
