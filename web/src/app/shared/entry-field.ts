import { ChangeDetectionStrategy, Component, computed, inject, input, output, viewChild } from '@angular/core';
import {
  scaleUnit,
  UNITS,
  entryBase,
  entryText,
  parseEntry,
  parseLeast,
  parseRow,
  say,
  saySmall,
  unitLabel,
  type Entry,
  type NumberRange,
  type Quantity,
  type Scale,
  type UnitName,
} from '@hot-spline/core';
import { Bench } from '../state/bench';
import { Field, type GaugeOffer, type Understood } from './field';
import type { TermName } from './terms';

/** What was typed, and its value in the base unit. */
export interface TakenEntry {
  readonly entry: Entry;
  readonly base: number;
  /** All readings, where several were and this is the least. */
  readonly several?: readonly Entry[];
  /** All of a row that was typed at once, this one first. */
  readonly row?: readonly Entry[];
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
      [mode]="mode()"
      [big]="big()"
      [enterOnly]="enterOnly()"
      [compact]="compact()"
      [path]="path()"
      [gauge]="offer()"
      [term]="term()"
      (taken)="take($event)"
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
  /** At which size the quantity is met: what a bare number means and how it is shown. */
  readonly scale = input<Scale | undefined>(undefined);
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
  /** Path of the build that this field says. */
  readonly path = input('');
  readonly big = input(false);
  readonly enterOnly = input(false);
  /** What it usually is, in the base unit: a reading far outside is asked for once before it is taken. */
  readonly plausible = input<readonly [number, number] | undefined>(undefined);
  /** Takes several readings apart by semicolons; the least counts. */
  readonly several = input(false);
  readonly compact = input(false);
  /** So many values may be typed in a row: this one and those after it. */
  readonly row = input(1);
  /** The word of the label that is explained at the place. */
  readonly term = input<TermName | null>(null);
  readonly taken = output<TakenEntry>();
  /** Whether it may be emptied: nothing is asked then. Told by `nothing`. */
  readonly optional = input(false);
  readonly nothing = output<void>();

  /** What is there in truth, in the base unit, where a stand-in is to read it; else what is usual. */
  readonly truth = input<number | null>(null);
  /** A measuring field takes a gauge. */
  protected readonly offer = computed<GaugeOffer | null>(() => {
    const plausible = this.plausible();
    if (!this.enterOnly()) return null;
    const usual = this.truth() ?? this.wanted() ?? (plausible ? (plausible[0] + plausible[1]) / 2 : 0);
    return { quantity: this.quantity(), scale: this.scale(), truth: [usual], many: 1 };
  });

  private readonly bench = inject(Bench);
  private readonly system = this.bench.system;
  private readonly decimal = this.bench.decimal;
  private readonly field = viewChild.required<Field<TakenEntry | null>>(Field);

  /** Keypad of a phone: what carries no unit takes figures alone; a unit, a fraction or a pair of teeth need letters and signs. */
  protected readonly mode = computed(() => {
    const quantity = this.quantity();
    if (quantity === 'count') return 'numeric' as const;
    return quantity === 'coefficient' || quantity === 'percent' || quantity === 'rotation'
      ? ('decimal' as const)
      : ('text' as const);
  });

  protected readonly text = computed(() => {
    const entry = this.entry();
    return entry ? entryText(entry, this.quantity(), this.system(), this.scale()) : '';
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
    const usual = this.usual() ?? this.plausible();
    const scale = this.scale();
    const several = this.several();
    const rules = {
      field: this.label(),
      quantity: this.quantity(),
      range: this.range(),
      system: this.system(),
      decimal: this.decimal(),
      doubts: true,
      ...(usual ? { usual } : {}),
      ...(scale ? { scale } : {}),
    };
    const optional = this.optional();
    const row = this.row();
    return (text: string): Understood<TakenEntry | null> => {
      if (optional && text.trim() === '') return { value: null, said: 'none' };
      if (row > 1) {
        const all = parseRow(text, rules, row);
        const [first] = all;
        const odd = all.map((one) => this.ask(one.base)).find((why) => why !== null);
        if (first && all.length > 1)
          return {
            ...(odd ? { ask: odd } : {}),
            value: { entry: first.entry, base: first.base, row: all.map((one) => one.entry) },
            said: `${all.length} in a row: ${all.map(({ entry: one }) => this.withUnit(one)).join(', ')}`,
          };
      }
      const { entry, base, note, all, doubt } = (several ? parseLeast : parseEntry)(text, rules);
      const value = { entry, base, ...(all ? { several: all } : {}) };
      const said = [this.inBoth(base), note].filter(Boolean).join('; ');
      if (doubt) {
        const choices = doubt.likely.map((one) => ({
          label: one.typed,
          value: { entry: one, base: entryBase(one) },
        }));
        const really = doubt.asTyped ? `really ${this.withUnit(doubt.asTyped)}` : null;
        return {
          value,
          said,
          ask: `${doubt.why[0]?.toUpperCase()}${doubt.why.slice(1)}${doubt.why.endsWith('.') ? '' : '.'}`,
          choices,
          really,
        };
      }
      const ask = this.ask(base);
      return ask === null ? { value, said } : { value, said, ask };
    };
  });

  protected take(taken: TakenEntry | null): void {
    if (taken) this.taken.emit(taken);
    else this.nothing.emit();
  }

  focus(): void {
    this.field().focus();
  }

  private ask(base: number): string | null {
    // What is usual of a piece whose size is known is asked about too, whatever the unit.
    const plausible = this.wanted() === null ? this.plausible() : (this.usual() ?? this.plausible());
    if (!plausible || (base >= plausible[0] && base <= plausible[1])) return null;
    const show = (system: 'inch' | 'metric'): string => say(base, this.quantity(), system, undefined, this.scale());
    const both = show('inch') === show('metric') ? show('inch') : `${show('inch')} = ${show('metric')}`;
    return `${both} is far from what this usually is. Write it all the same?`;
  }

  private withUnit({ typed, unit }: Entry): string {
    return unit === '' || /[a-z"″”°%]/i.test(typed) ? typed : `${typed} ${unitLabel(unit)}`;
  }

  /** The value in both systems; without the one that it was typed in, where that stands in the field already. */
  private inBoth(base: number, typed?: UnitName): string {
    const quantity = this.quantity();
    const off = this.against(base);
    const scale = this.scale();
    const unit = (system: 'inch' | 'metric') => scaleUnit(quantity, system, scale).unit;
    if (unit('inch') === unit('metric')) return quantity === 'ratio' ? say(base, quantity, 'inch') : off;
    const inches = say(base, quantity, 'inch', undefined, scale);
    const metric = say(base, quantity, 'metric', undefined, scale);
    const here = this.system();
    if (typed !== undefined && unit(here) === typed) return `${here === 'inch' ? metric : inches}${off}`;
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
