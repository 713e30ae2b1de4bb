import { ChangeDetectionStrategy, Component, computed, inject, input, output, viewChild } from '@angular/core';
import {
  scaleUnit,
  UNITS,
  entryBase,
  entryText,
  parseEntry,
  parseLeast,
  say,
  saySmall,
  type Entry,
  type NumberRange,
  type Quantity,
  type UnitName,
} from '@hot-spline/core';
import { Bench } from '../state/bench';
import { Field, type Understood } from './field';

/** What was typed, and its value in the base unit. */
export interface TakenEntry {
  readonly entry: Entry;
  readonly base: number;
  /** All readings as typed, where several were and this is the least. */
  readonly several?: string;
}

/** The measuring field used everywhere: takes either system, shows what it understood in both, and how far off it is. */
@Component({
  selector: 'hs-entry',
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-field
      [name]="name()"
      [label]="label()"
      [labelHidden]="labelHidden()"
      [text]="text()"
      [read]="read()"
      [hint]="hint() || (echo() ? both() : '')"
      [placeholder]="placeholder()"
      [mode]="quantity() === 'count' ? 'numeric' : 'text'"
      [big]="big()"
      [enterOnly]="enterOnly()"
      [compact]="compact()"
      (taken)="taken.emit($event)"
    />
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
  `,
})
export class EntryField {
  readonly name = input.required<string>();
  readonly label = input.required<string>();
  readonly quantity = input.required<Quantity>();
  readonly range = input.required<NumberRange>();
  /** The value in force; null where nothing is entered yet. */
  readonly entry = input.required<Entry | null>();
  readonly usual = input<readonly [number, number] | undefined>(undefined);
  /** What the value should be, in the base unit: the field says how far off it is. */
  readonly wanted = input<number | null>(null);
  readonly hint = input('');
  readonly placeholder = input('');
  /** Says the value in both systems while nothing is being typed. */
  readonly echo = input(true);
  readonly labelHidden = input(false);
  readonly big = input(false);
  readonly enterOnly = input(false);
  /** Takes several readings apart by semicolons; the least counts. */
  readonly several = input(false);
  readonly compact = input(false);
  readonly taken = output<TakenEntry>();

  private readonly system = inject(Bench).system;
  private readonly field = viewChild.required<Field<TakenEntry>>(Field);

  protected readonly text = computed(() => {
    const entry = this.entry();
    return entry ? entryText(entry, this.quantity(), this.system()) : '';
  });
  protected readonly both = computed(() => {
    const entry = this.entry();
    if (!entry) return '';
    const home = entry.unit === '' ? 'both' : UNITS[entry.unit].system;
    const elsewhere = home !== 'both' && home !== this.system();
    return elsewhere
      ? `typed ${entry.typed}${this.against(entryBase(entry))}`
      : this.inBoth(entryBase(entry), entry.unit);
  });
  protected readonly read = computed(() => {
    const usual = this.usual();
    const several = this.several();
    const rules = {
      field: this.label(),
      quantity: this.quantity(),
      range: this.range(),
      system: this.system(),
      ...(usual ? { usual } : {}),
    };
    return (text: string): Understood<TakenEntry> => {
      const { entry, base, note } = (several ? parseLeast : parseEntry)(text, rules);
      const readings = several && text.includes(';') ? { several: text.trim() } : {};
      return { value: { entry, base, ...readings }, said: [this.inBoth(base), note].filter(Boolean).join('; ') };
    };
  });

  focus(): void {
    this.field().focus();
  }

  /** The value in both systems; without the one that it was typed in, where that stands in the field already. */
  private inBoth(base: number, typed?: UnitName): string {
    const quantity = this.quantity();
    const off = this.against(base);
    if (SYSTEM_UNITS[quantity].inch === SYSTEM_UNITS[quantity].metric) {
      return quantity === 'ratio' ? say(base, quantity, 'inch') : off;
    }
    const inches = say(base, quantity, 'inch');
    const metric = say(base, quantity, 'metric');
    const here = this.system();
    if (typed !== undefined && SYSTEM_UNITS[quantity][here] === typed)
      return `${here === 'inch' ? metric : inches}${off}`;
    return `${inches} = ${metric}${off}`;
  }

  /** How far a length is off what was wanted. */
  private against(base: number): string {
    const wanted = this.wanted();
    if (wanted === null || this.quantity() !== 'length') return '';
    const off = base - wanted;
    if (Math.abs(off) < 0.0005) return ', as specified';
    return `, ${saySmall(off, this.system())} ${off < 0 ? 'under' : 'over'}`;
  }
}
