import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { InputError, LIMITS, entryOf, type Entry } from '@hot-spline/core';
import type { Instrument } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { EntryField } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { textReader } from '../shared/readers';

type Reads = Instrument['reads'];
type Use = 'length' | 'turning' | 'tightening';

const USES = [
  { value: 'length', label: 'small lengths' },
  { value: 'turning', label: 'turning torque of bearings' },
  { value: 'tightening', label: 'tightening torque' },
] as const;
const HANDS = [
  { value: 'right', label: 'right-hand threads only' },
  { value: 'both', label: 'both hands' },
] as const;
const SCALE = [
  { key: 'from', label: 'Reads from' },
  { key: 'to', label: 'to' },
  { key: 'resolution', label: 'One step of its scale' },
  { key: 'plusMinus', label: 'Good to ±' },
] as const;

const useOf = (reads: Reads): Use => (reads.of === 'length' ? 'length' : reads.use);

/** What something would start with that reads this. */
function startOf(use: Use): Reads {
  if (use === 'length')
    return {
      of: 'length',
      from: entryOf(0, 'mm'),
      to: entryOf(10, 'mm'),
      resolution: entryOf(0.01, 'mm'),
      plusMinus: entryOf(0.01, 'mm'),
    };
  const [to, step] = use === 'turning' ? [6, 0.1] : [200, 1];
  return {
    of: 'torque',
    from: entryOf(0, 'N·m'),
    to: entryOf(to, 'N·m'),
    resolution: entryOf(step, 'N·m'),
    plusMinus: entryOf(step, 'N·m'),
    use,
    hand: 'right',
  };
}

/** An instrument of the shop: how far it reads, how well, when it was checked last. Emits edits; keeps nothing itself. */
@Component({
  selector: 'hs-instrument',
  imports: [Choice, EntryField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = spec();
    <div class="two">
      <hs-field
        [name]="prefix() + '-name'"
        label="Instrument"
        placeholder="Dial indicator on its stand"
        [text]="s.name"
        [read]="readName"
        [compact]="true"
        (taken)="edit({ name: $event })"
      />
      <hs-choice
        [name]="prefix() + '-use'"
        label="It reads"
        [options]="uses"
        [value]="use()"
        (chosen)="setUse($event)"
      />
      @for (part of scale; track part.key) {
        <hs-entry
          [name]="prefix() + '-' + part.key"
          [label]="part.label"
          [quantity]="s.reads.of"
          [scale]="use() === 'tightening' ? undefined : use() === 'turning' ? 'turning' : 'small'"
          [range]="range()[part.key]"
          [entry]="s.reads[part.key]"
          (taken)="setScale(part.key, $event.entry)"
        />
      }
      <hs-field
        [name]="prefix() + '-checked'"
        label="Checked last on"
        placeholder="2026-03-01"
        [text]="s.checked ?? ''"
        [read]="readDay"
        [compact]="true"
        (taken)="edit({ checked: $event })"
      />
      @if (s.reads.of === 'torque' && s.reads.use === 'tightening') {
        <hs-choice
          [name]="prefix() + '-hand'"
          label="It works in"
          [options]="hands"
          [value]="s.reads.hand"
          (chosen)="setHand($event)"
        />
      }
    </div>
  `,
  styleUrl: './spec-editor.scss',
})
export class InstrumentEditor {
  readonly spec = input.required<Instrument>();
  readonly prefix = input.required<string>();
  readonly changed = output<Edit<Instrument>>();

  protected readonly uses = USES;
  protected readonly hands = HANDS;
  protected readonly scale = SCALE;
  protected readonly readName = textReader('Name', 80, 1);
  protected readonly use = computed(() => useOf(this.spec().reads));
  protected readonly range = computed(() => {
    const most =
      this.spec().reads.of === 'length'
        ? ({ max: 10_000, unit: 'mm' } as const)
        : ({ max: LIMITS.torqueNm.max, unit: 'N·m' } as const);
    const above = { ...most, above: 0 };
    return { from: { ...most, min: 0 }, to: above, resolution: above, plusMinus: above };
  });

  protected readonly readDay = (text: string): Understood<string | null> => {
    const day = text.trim();
    if (day === '') return { value: null, said: 'not known' };
    if (!/^\d{4}-\d{2}-\d{2}$/.test(day) || Number.isNaN(Date.parse(day)))
      throw new InputError('Checked last on', 'Checked last on is no day.', 'a day as 2026-03-01');
    return { value: day, said: '' };
  };

  protected edit(change: Partial<Instrument>): void {
    this.changed.emit((newest) => ({ ...newest, ...change }));
  }

  protected setUse(use: Use): void {
    this.changed.emit((newest) => ({ ...newest, reads: startOf(use) }));
  }

  protected setScale(key: (typeof SCALE)[number]['key'], entry: Entry): void {
    this.changed.emit((newest) => ({ ...newest, reads: { ...newest.reads, [key]: entry } }));
  }

  protected setHand(hand: 'right' | 'both'): void {
    this.changed.emit((newest) =>
      newest.reads.of === 'torque' ? { ...newest, reads: { ...newest.reads, hand } } : newest,
    );
  }
}
