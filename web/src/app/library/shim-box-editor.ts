import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import {
  InputError,
  LIMITS,
  SHIM_LIMITS,
  entryBase,
  parseEntry,
  parseRow,
  saySmall,
  type Entry,
} from '@hot-spline/core';
import type { Origin, ShimBox } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { EntryField } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { countReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { Bench } from '../state/bench';
import { ORIGIN_OPTIONS, SEAT_OPTIONS } from './words';

/** So many shims of one thickness. */
interface Piece {
  readonly thickness: Entry;
  readonly count: number;
}

/** A drawer of shims: thicknesses and how many there are. Emits edits; keeps nothing itself. */
@Component({
  selector: 'hs-shim-box',
  imports: [Choice, EntryField, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = spec();
    @if (whole()) {
      <hs-field
        [name]="prefix() + '-name'"
        label="Drawer"
        [text]="s.name"
        [read]="readName"
        [compact]="true"
        (taken)="set({ name: $event })"
      />
      <div class="seat">
        <hs-choice
          [name]="prefix() + '-seat'"
          label="For"
          [options]="seats"
          [value]="s.seat"
          (chosen)="set({ seat: $event })"
        />
        <hs-entry
          [name]="prefix() + '-bore'"
          label="Bore"
          quantity="length"
          [range]="diameters"
          [entry]="s.bore"
          (taken)="set({ bore: $event.entry })"
        />
        <hs-entry
          [name]="prefix() + '-outside'"
          label="Outside"
          quantity="length"
          [range]="diameters"
          [entry]="s.outside"
          (taken)="set({ outside: $event.entry })"
        />
      </div>
      @if (where()) {
        <p class="soft">{{ where() }}</p>
      }
    }
    @if (s.pieces.length < most) {
      <hs-field
        [name]="prefix() + '-piece'"
        label="Add shims: thickness × how many"
        placeholder="0.35 mm × 3"
        text=""
        [read]="readPiece()"
        [enterOnly]="true"
        verb="Add"
        [compact]="true"
        (taken)="add($event)"
      />
    }
    <ul [class.whole]="whole()">
      @for (piece of rows(); track piece.index) {
        <li>
          <span class="mono">{{ piece.text }}</span>
          <span class="soft">×</span>
          <hs-field
            [name]="prefix() + '-count-' + piece.index"
            [label]="'How many of ' + piece.text"
            [labelHidden]="true"
            mode="numeric"
            [text]="'' + piece.count"
            [read]="readCount"
            [compact]="true"
            (taken)="setCount(piece.index, $event)"
          />
          @if (piece.fitted > 0) {
            <span class="soft" [class.short]="piece.fitted > piece.count">{{
              piece.fitted > piece.count ? piece.fitted + ' fitted: count again' : piece.fitted + ' fitted'
            }}</span>
          }
          @if (whole()) {
            <hs-choice
              [name]="prefix() + '-origin-' + piece.index"
              [label]="piece.text + ' known from'"
              [labelHidden]="true"
              [options]="originOptions"
              [value]="piece.origin"
              (chosen)="setOrigin(piece.index, $event)"
            />
          }
          <hs-remove [what]="piece.text" [asks]="true" (removed)="remove(piece.index)" />
        </li>
      } @empty {
        <li class="soft">Nothing in it yet.</li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
      gap: 2px 12px;
    }
    li {
      display: flex;
      align-items: center;
      gap: 6px;
      font-size: var(--text-s);
      white-space: nowrap;
    }
    .whole {
      grid-template-columns: repeat(auto-fill, minmax(310px, 1fr));
    }
    .seat {
      display: grid;
      grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr) minmax(0, 1fr);
      gap: 0 12px;
    }
    .short {
      color: var(--stop);
    }
    /* A cross a row shouts: they show where the hand or the cursor is. */
    @media (hover: hover) {
      li hs-remove {
        opacity: 0.25;
      }
      li:hover hs-remove,
      li:focus-within hs-remove {
        opacity: 1;
      }
    }
    li hs-field {
      flex: none;
      width: 58px;
    }
    li hs-choice {
      flex: none;
      width: 122px;
    }
  `,
})
export class ShimBoxEditor {
  readonly spec = input.required<ShimBox>();
  readonly prefix = input.required<string>();
  /** With its name and where each thickness is known from. */
  readonly whole = input(true);
  /** How many of each row are fitted somewhere, and where that is. */
  readonly fitted = input<readonly number[]>([]);
  readonly where = input('');
  readonly changed = output<Edit<ShimBox>>();

  private readonly bench = inject(Bench);
  private readonly system = this.bench.system;
  protected readonly most = SHIM_LIMITS.stock.max;
  protected readonly seats = SEAT_OPTIONS;
  protected readonly diameters = LIMITS.diameterMm;
  protected readonly originOptions = ORIGIN_OPTIONS;
  protected readonly readName = textReader('Name', 80, 1);
  protected readonly readCount = countReader('Count', 0, SHIM_LIMITS.count.max);
  /** Thinnest first, whatever order they were put in. */
  protected readonly rows = computed(() =>
    this.spec()
      .pieces.map(({ thickness, count, origin }, index) => ({
        index,
        base: entryBase(thickness),
        text: saySmall(entryBase(thickness), this.system()),
        count,
        fitted: this.fitted()[index] ?? 0,
        origin,
      }))
      .sort((a, b) => a.base - b.base),
  );
  protected readonly readPiece = computed(() => {
    const system = this.system();
    const rules = {
      field: 'Thickness',
      quantity: 'length',
      system,
      range: SHIM_LIMITS.thicknessMm,
      usual: [0.03, 10],
      decimal: this.bench.decimal(),
      doubts: true,
    } as const;
    const one = (text: string): Understood<readonly Piece[]> => {
      const match = /^(.*?)(?:\s*[x×*]\s*(\d{1,5}))?\s*$/i.exec(text);
      const thickness = parseEntry(match?.[1] ?? '', rules);
      const count = Number(match?.[2] ?? 1);
      if (count > SHIM_LIMITS.count.max)
        throw new InputError('Count', 'Count is too large.', `at most ${SHIM_LIMITS.count.max}`);
      const value = [{ thickness: thickness.entry, count }];
      const said = `${saySmall(thickness.base, system)}, ${count} of it`;
      const { doubt } = thickness;
      if (!doubt) return { value, said };
      const choices = doubt.likely.map((likely) => ({
        label: `${likely.typed} × ${count}`,
        value: [{ thickness: likely, count }],
      }));
      return { value, said, ask: 'Far from what a shim is.', choices, really: doubt.asTyped ? `really ${said}` : null };
    };
    return (text: string): Understood<readonly Piece[]> => {
      // `0.30 0.35 0.40 mm`: one of each; `0.3 mm × 2; 0.35 mm × 3`: so many of each.
      const parts = /[x×*]/i.test(text) ? text.split(/;|,\s/).filter((part) => part.trim() !== '') : [];
      if (parts.length > 1) {
        const all = parts.map((part) => one(part));
        return { value: all.flatMap(({ value }) => value), said: all.map(({ said }) => said).join('; ') };
      }
      if (parts.length === 1) return one(text);
      const row = parseRow(text, rules, SHIM_LIMITS.stock.max);
      if (row.length < 2) return one(text);
      return {
        value: row.map(({ entry }) => ({ thickness: entry, count: 1 })),
        said: row.map(({ base }) => saySmall(base, system)).join(', '),
      };
    };
  });

  private edit(recipe: (pieces: ShimBox['pieces']) => ShimBox['pieces']): void {
    this.changed.emit((newest) => ({ ...newest, pieces: recipe(newest.pieces) }));
  }

  protected set(change: Partial<ShimBox>): void {
    this.changed.emit((newest) => ({ ...newest, ...change }));
  }

  protected setCount(index: number, count: number): void {
    this.edit((pieces) => pieces.map((piece, i) => (i === index ? { ...piece, count } : piece)));
  }

  protected setOrigin(index: number, origin: Origin): void {
    this.edit((pieces) => pieces.map((piece, i) => (i === index ? { ...piece, origin } : piece)));
  }

  protected remove(index: number): void {
    this.edit((pieces) => pieces.filter((_, i) => i !== index));
  }

  /** A thickness that is there already gets more of it. */
  protected add(more: readonly Piece[]): void {
    const apart = (a: Entry, b: Entry): number => Math.abs(entryBase(a) - entryBase(b));
    this.edit((pieces) =>
      more.reduce<ShimBox['pieces']>(
        (now, { thickness, count }) =>
          now.some((piece) => apart(piece.thickness, thickness) < 1e-6)
            ? now.map((piece) =>
                apart(piece.thickness, thickness) < 1e-6 ? { ...piece, count: piece.count + count } : piece,
              )
            : [...now, { thickness, count, origin: 'not-said' as const }],
        pieces,
      ),
    );
  }
}
