import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entryBase, entryOf, learnedFriction } from '@hot-spline/core';
import { ORIGIN_WORDS, leastOf, type FrictionTable } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { Bench } from '../state/bench';
import { Library } from '../state/library';

/** What the plates are, the oil they run in, and what the shop has measured of both. */
@Component({
  selector: 'hs-friction-fields',
  imports: [Choice, EntryField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bench.plate(); as p) {
      <hs-choice
        name="friction-table"
        label="From the shop’s table"
        [options]="options()"
        [value]="taken()"
        (chosen)="take($event)"
      />
      @if (p.frictionFrom; as from) {
        <p class="from">from “{{ from.name }}”: {{ originWords[from.origin] }}</p>
      }
      <hs-field
        name="friction-plates"
        label="Friction plates"
        placeholder="Bronze on steel"
        [text]="p.frictionPlates"
        [read]="readPlates"
        (taken)="setText('frictionPlates', $event)"
      />
      <hs-field
        name="oil"
        label="Oil and additive"
        placeholder="grade, additive"
        [text]="p.oil"
        [read]="readOil"
        (taken)="setText('oil', $event)"
      />
      <hs-entry
        name="friction-spread"
        label="Coefficient within ±"
        quantity="percent"
        [range]="spreadRange"
        [entry]="p.frictionSpread"
        [echo]="false"
        placeholder="15 %, ours"
        (taken)="setSpread($event)"
      />
      <hs-entry
        name="bedding"
        label="Left when bedded in"
        quantity="percent"
        [range]="beddingRange"
        [entry]="p.bedding"
        [echo]="false"
        (taken)="setBedding($event)"
      />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .from {
      align-self: center;
      font-size: var(--text-s);
      color: var(--soft);
    }
  `,
})
export class FrictionFields {
  protected readonly bench = inject(Bench);
  private readonly tables = inject(Library).ofKind('friction');
  protected readonly originWords = ORIGIN_WORDS;
  protected readonly readPlates = textReader('Friction plates', 60);
  protected readonly readOil = textReader('Oil', 60);
  protected readonly spreadRange = { min: 0, max: 100, unit: '%' };
  protected readonly beddingRange = { min: 40, max: 120, unit: '%' };

  private readonly known = computed(() =>
    this.tables().flatMap(({ id, spec }) => (spec.readings.length ? [{ id, spec, learned: learnedOf(spec) }] : [])),
  );
  protected readonly options = computed(() => [
    { value: '', label: this.known().length ? 'typed here' : 'nothing measured yet' },
    ...this.known().map(({ id, spec, learned }) => ({
      value: id,
      label: `${learned.mean.toFixed(3)} ${spec.name}${spec.oil ? `, ${spec.oil}` : ''} (${spec.readings.length})`,
    })),
  ]);
  /** The table that the build's coefficient is the mean of. */
  protected readonly taken = computed(() => {
    const plate = this.bench.plate();
    const same = this.known().find(
      ({ spec, learned }) =>
        spec.name === plate?.frictionPlates &&
        spec.oil === plate.oil &&
        Math.abs(learned.mean - entryBase(plate.frictionCoefficient)) < 5e-4,
    );
    return same?.id ?? '';
  });

  protected take(id: string): void {
    const known = this.known().find((one) => one.id === id);
    if (!known) return;
    const { mean, plusMinus } = known.learned;
    this.bench.changePlate((plate) => {
      plate.frictionFrom = {
        name: known.spec.name,
        origin: leastOf(known.spec.readings.map(({ origin }) => origin)),
      };
      plate.frictionPlates = known.spec.name.slice(0, 60);
      plate.oil = known.spec.oil;
      plate.frictionCoefficient = entryOf(Number(mean.toFixed(4)), '');
      const share = plusMinus === null ? null : Math.min(100, (100 * plusMinus) / mean);
      plate.frictionSpread = share === null ? null : entryOf(Number(share.toFixed(1)), '%');
    });
  }

  protected setText(key: 'frictionPlates' | 'oil', text: string): void {
    this.bench.changePlate((plate) => (plate[key] = text));
  }

  protected setSpread({ entry }: TakenEntry): void {
    this.bench.changePlate((plate) => (plate.frictionSpread = entry));
  }

  protected setBedding({ entry }: TakenEntry): void {
    this.bench.changePlate((plate) => (plate.bedding = entry));
  }
}

/** What the readings of a table say of the next one; a table without readings is not asked. */
function learnedOf({ readings }: FrictionTable) {
  return learnedFriction(readings.map(({ coefficient }) => entryBase(coefficient)));
}
