import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { entryBase, formatIn } from '@hot-spline/core';
import {
  SIDES,
  caseDepth,
  isSpring,
  readingEntry,
  sideGearBacklash,
  stackHeight,
  thickness,
  type MemberState,
  type PackState,
  type Reading,
  type Side,
  type Subject,
  type SubjectOf,
  type ValueKind,
} from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { TermButton } from '../shared/term-button';
import { VoidButton } from '../shared/void-button';
import { Bench } from '../state/bench';

interface Row {
  readonly anchor: string;
  readonly subject: SubjectOf;
  /** Quantity, scale and what is plausible, as the subject says it. */
  readonly kind: Extract<ValueKind, { of: 'number' }>;
  readonly label: string;
  readonly reading: Reading | null;
  readonly wanted: number | null;
  readonly placeholder: string;
}

/** The subject, and how its number is read and shown. */
function numberOf({ value }: Subject, subject: SubjectOf): Pick<Row, 'subject' | 'kind'> {
  if (value.of !== 'number') throw new Error(`${subject.what} is no number`);
  return { subject, kind: value };
}

const USUAL_BACKLASH = [0.02, 0.6] as const;
export const INSTRUMENTS = ['Micrometer', 'Caliper', 'Depth gauge', 'Feeler gauge', 'Dial indicator'] as const;

/** Measured thickness of every piece, or of the whole stack, and the case depth: each reading goes to the ledger. */
@Component({
  selector: 'hs-measure-tab',
  imports: [Choice, EntryField, TermButton, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="with">
      <hs-choice
        name="instrument"
        label="Measured with"
        [options]="instruments"
        [value]="instrument()"
        (chosen)="instrument.set($event)"
      />
      <span class="soft"
        >Enter writes the reading and goes to the next piece; of several, “78.5; 78.2; 78.9 thou”, the least counts. A
        mistake is voided, not overwritten.</span
      >
    </div>
    @if (kinds().length) {
      <div class="alike" role="group" aria-label="All of a kind at once">
        @for (kind of kinds(); track kind.kind) {
          <hs-entry
            [name]="'measure-all-' + kind.kind"
            [label]="kind.label"
            quantity="length"
            [range]="kind.range"
            [plausible]="kind.plausible"
            [usual]="kind.plausible"
            [entry]="null"
            [wanted]="kind.wanted"
            [placeholder]="kind.placeholder"
            [enterOnly]="true"
            [row]="kind.rows.length"
            (taken)="writeAll(kind.rows, $event)"
          />
        }
      </div>
    }
    <div class="sides">
      @for (side of sides(); track side.side) {
        <section [attr.aria-label]="side.side + ' pack'">
          <h2 class="section-title">{{ side.side === 'left' ? 'Left' : 'Right' }}</h2>
          <ol>
            @for (row of side.rows; track row.anchor) {
              <li [class.done]="row.reading">
                <span class="label"
                  >{{ row.label }}
                  @if (row.anchor.endsWith('-depth')) {
                    <hs-term word="caseDepth" />
                  } @else if (row.anchor.endsWith('-stack')) {
                    <hs-term word="stackTarget" />
                  }
                </span>
                <hs-entry
                  [name]="row.anchor"
                  [label]="row.label + ' ' + side.side"
                  [labelHidden]="true"
                  [quantity]="row.kind.quantity"
                  [scale]="row.kind.scale"
                  [range]="row.kind.range"
                  [plausible]="row.kind.plausible"
                  [usual]="usual(row)"
                  [entry]="row.reading ? entryOf(row.reading) : null"
                  [wanted]="row.wanted"
                  [placeholder]="row.placeholder"
                  [enterOnly]="true"
                  [several]="true"
                  (taken)="write(row, $event)"
                />
                @if (row.reading; as reading) {
                  <hs-void [id]="reading.id" [what]="row.label + ', ' + entryOf(reading).typed" [beside]="true" />
                } @else {
                  <span></span>
                }
              </li>
            }
          </ol>
        </section>
      }
    </div>
  `,
  styles: `
    @use 'breakpoints' as *;
    .with {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
      margin-bottom: 8px;
      font-size: var(--text-s);
    }
    .alike {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(180px, 240px));
      gap: 0 16px;
      margin-bottom: 6px;
    }
    .sides {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 24px;
    }
    li {
      display: grid;
      grid-template-columns: 104px minmax(0, 1fr) 48px;
      gap: 8px;
      align-items: start;
    }
    .label {
      line-height: 34px;
      font-size: var(--text-s);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    li:not(.done) .label {
      color: var(--soft);
    }
    @media #{$narrow} {
      .sides {
        grid-template-columns: minmax(0, 1fr);
      }
      .label {
        line-height: 44px;
      }
    }
  `,
})
export class MeasureTab {
  protected readonly bench = inject(Bench);
  protected readonly instruments = INSTRUMENTS.map((value) => ({ value, label: value }));
  protected readonly instrument = signal<(typeof INSTRUMENTS)[number]>(INSTRUMENTS[0]);
  protected readonly entryOf = readingEntry;

  protected readonly sides = computed(() => {
    const axle = this.bench.axleName();
    const packs = this.bench.derived()?.axles[axle]?.pack;
    return packs ? SIDES.map((side) => ({ side, rows: this.rows(packs, side) })) : [];
  });

  /** Kinds of which several are still to be measured: what is read once is written for each of them. */
  protected readonly kinds = computed(() => {
    const packs = this.bench.derived()?.axles[this.bench.axleName()]?.pack;
    const rows = this.sides().flatMap((side) => side.rows);
    if (!packs) return [];
    return (['eared', 'splined'] as const).flatMap((kind) => {
      const open = SIDES.flatMap((side) =>
        packs[side].members.flatMap(({ member, reading }) =>
          member.kind === kind && !reading ? [{ member, anchor: `measure-${side}-${member.id}` }] : [],
        ),
      );
      const anchors = new Set(open.map(({ anchor }) => anchor));
      const of = rows.filter(({ anchor }) => anchors.has(anchor));
      const [first] = of;
      const sizes = new Set(open.map(({ member }) => entryBase(member.thickness)));
      // Of several catalogue sizes none stands for all.
      if (!first || open.length < 2 || sizes.size > 1) return [];
      return [
        {
          kind,
          rows: of,
          label: `All ${open.length} ${kind === 'eared' ? 'steels' : 'frictions'}, alike or in a row`,
          range: first.kind.range,
          plausible: this.usual(first),
          wanted: first.wanted,
          placeholder: first.placeholder,
        },
      ];
    });
  });

  /** A reading of its own for each piece: the same for all, or a row of them in the order in which they lie. */
  protected writeAll(rows: readonly Row[], { entry, row }: TakenEntry): void {
    const values = row ?? rows.map(() => entry);
    values.forEach((value, i) => {
      const piece = rows[i];
      if (piece) this.bench.record(piece.subject, value, this.instrument());
    });
  }

  private rows(packs: PackState, side: Side): Row[] {
    const axle = this.bench.axleName();
    const pack = packs[side];
    const plate = this.bench.plate();
    const text = (mm: number): string => formatIn(mm, 'length', this.bench.system()).text;
    const pieces = pack.members.map(({ member, reading }: MemberState, i): Row => {
      const wanted = entryBase(member.thickness);
      return {
        anchor: `measure-${side}-${member.id}`,
        ...numberOf(thickness, thickness.of({ axle, side, memberId: member.id })),
        label: `${i + 1} ${member.label}`,
        reading,
        wanted,
        placeholder: text(wanted),
      };
    });
    const solid = pack.members.filter(({ member }) => !isSpring(member)).map(({ member }) => member.id);
    const target = plate ? entryBase(plate.targetHeight) : 0;
    const depth = plate ? entryBase(plate.packs[side].caseDepth) : 0;
    if (solid.length > 0) {
      pieces.push({
        anchor: `measure-${side}-stack`,
        ...numberOf(stackHeight, stackHeight.of({ axle, side, memberIds: solid })),
        label: 'Whole stack',
        reading: pack.stackReading,
        wanted: target,
        placeholder: text(target),
      });
    }
    pieces.push({
      anchor: `measure-${side}-depth`,
      ...numberOf(caseDepth, caseDepth.of({ axle, side })),
      label: 'Case depth',
      reading: pack.caseDepthReading,
      wanted: depth,
      placeholder: text(depth),
    });
    pieces.push({
      anchor: `measure-${side}-backlash`,
      ...numberOf(sideGearBacklash, sideGearBacklash.of({ axle, side })),
      label: 'Gear backlash',
      reading: this.bench.readingOf(sideGearBacklash.of({ axle, side })),
      wanted: null,
      placeholder: 'not yet',
    });
    return pieces;
  }

  /** A plate wears and swells by less than a fifth; any shim may lie there. What is farther off is asked about. */
  protected usual({ wanted, label }: Row): readonly [number, number] {
    if (wanted === null) return USUAL_BACKLASH;
    return /shim/i.test(label) ? [wanted / 3, wanted * 3] : [0.8 * wanted, 1.2 * wanted];
  }

  protected write(row: Row, { entry, several }: TakenEntry): void {
    this.bench.record(row.subject, several ?? entry, this.instrument());
    const rows = this.sides().flatMap((side) => side.rows);
    const here = rows.findIndex((candidate) => candidate.anchor === row.anchor);
    const next = [...rows.slice(here + 1), ...rows.slice(0, here)].find(
      ({ reading, anchor }) => !reading && !/stack|depth|backlash/.test(anchor),
    );
    const input = next && document.getElementById(next.anchor);
    if (input instanceof HTMLInputElement) input.focus();
  }
}
