import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatIn, entryBase, type Quantity } from '@hot-spline/core';
import { HOLD_WORDS, voidedBy, type Build, type Reading, type Subject } from '@hot-spline/model';
import { Bench } from '../state/bench';
import { jumpTo } from '../shared/jump';
import { SheetHead } from '../shared/sheet-head';
import { VoidButton } from '../shared/void-button';

/** What was measured, in the words of the bench. */
export function subjectWords(subject: Subject, build: Build): string {
  const axle = subject.axle === 'rear' ? 'Rear' : 'Front';
  switch (subject.what) {
    case 'thickness': {
      const members = build.axles[subject.axle]?.unit.plate?.packs[subject.side].members ?? [];
      const at = members.findIndex((member) => member.id === subject.memberId);
      const piece = at < 0 ? 'a piece no longer in the pack' : `${at + 1} ${members[at]?.label}`;
      return `${axle}, ${subject.side} pack: ${piece}`;
    }
    case 'stack-height':
      return `${axle}, ${subject.side} pack: whole stack`;
    case 'case-depth':
      return `${axle}, ${subject.side}: case depth`;
    case 'side-gear-backlash':
      return `${axle}, ${subject.side}: side-gear backlash`;
    case 'insert-fit':
      return `${axle}: fit of the friction insert`;
    case 'breakaway':
      return `${axle}: breakaway, ${HOLD_WORDS[subject.hold]}`;
  }
}

const quantityOf = (subject: Subject): Quantity => (subject.what === 'breakaway' ? 'torque' : 'length');

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
              <th scope="col"><span class="visually-hidden">Void</span></th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.reading.id) {
              <tr [class.void]="row.voided">
                <td class="mono when">{{ row.when }}</td>
                <td>
                  {{ row.what }}
                  @if (row.reading.note; as note) {
                    <span class="reason soft">{{ note }}</span>
                  }
                  @if (row.voided; as voided) {
                    <span class="reason">void: {{ voided.reason }}</span>
                  }
                </td>
                <td class="mono value">{{ row.reading.value.typed }}</td>
                <td class="mono value">{{ row.shown }}</td>
                <td>{{ row.reading.instrument }}</td>
                <td>
                  @if (!row.voided) {
                    <hs-void [id]="row.reading.id" [what]="row.what + ', ' + row.reading.value.typed" />
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
    return ledger
      .filter((entry): entry is Reading => entry.kind === 'reading')
      .map((reading) => {
        const { text, unit } = formatIn(entryBase(reading.value), quantityOf(reading.subject), this.bench.system());
        return {
          reading,
          what: subjectWords(reading.subject, build),
          when: new Date(reading.at).toLocaleString([], { dateStyle: 'short', timeStyle: 'medium' }),
          shown: `${text} ${unit}`,
          voided: voids.get(reading.id) ?? null,
        };
      })
      .reverse();
  });

  constructor() {
    jumpTo(this.at);
  }
}
