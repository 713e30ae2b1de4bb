import { gearingFigures } from '@hot-spline/model';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { LIMITS, entryOf, say, tyreSize, type Quantity, type NumberRange } from '@hot-spline/core';
import type { Tyre } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { OldTyre } from './old-tyre';
import { Bench } from '../state/bench';

type Rolling = Tyre['factor'] | NonNullable<Tyre['measured']>['kind'];

const MEASURES: Readonly<
  Record<
    NonNullable<Tyre['measured']>['kind'],
    { label: string; quantity: Quantity; range: NumberRange; usual: [number, number] }
  >
> = {
  rollout: { label: 'One turn', quantity: 'length', range: LIMITS.circumferenceMm, usual: [600, 5000] },
  'loaded-radius': { label: 'Loaded radius', quantity: 'length', range: LIMITS.radiusMm, usual: [100, 800] },
  turns: {
    label: 'Turns',
    quantity: 'turns-per-distance',
    range: { min: 50, max: 10000, unit: 'turns/km' },
    usual: [200, 1500],
  },
};

/** Tyre of one axle: designation in any form, and what stands in for it once measured. */
@Component({
  selector: 'hs-tyre-panel',
  imports: [EntryField, Field, FigureButton, Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (tyre(); as t) {
      <hs-field
        [name]="'tyre-' + bench.axleName()"
        [path]="'axles.' + bench.axleName() + '.tyre'"
        label="Tyre"
        [text]="t.designation"
        [read]="readDesignation()"
        [hint]="reading()"
        (taken)="setDesignation($event)"
      />
      <div class="pair">
        <hs-choice
          [name]="'rolling-' + bench.axleName()"
          label="Rolls by"
          [options]="rollings"
          [value]="rolling()"
          (chosen)="setRolling($event)"
        />
        @if (measure(); as m) {
          <hs-entry
            [name]="'tyre-' + bench.axleName() + '-measured'"
            [label]="m.label"
            [quantity]="m.quantity"
            [range]="m.range"
            [usual]="m.usual"
            [entry]="t.measured!.value"
            (taken)="setMeasured($event)"
          />
        } @else {
          <hs-figure
            class="small"
            [id]="ids.circumference(bench.axleName())"
            label="One turn"
            [decimals]="bench.system() === 'inch' ? 1 : 0"
          />
        }
        <ng-content />
      </div>
    }
  `,
  styles: `
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr 1fr;
      align-items: start;
      gap: 6px;
    }
    .small {
      display: block;
      font-size: var(--text-s);
      color: var(--soft);
      margin-bottom: 2px;
    }
  `,
})
export class TyrePanel {
  protected readonly bench = inject(Bench);
  protected readonly ids = gearingFigures;
  protected readonly rollings: { value: Rolling; label: string }[] = [
    { value: 'radial', label: 'Radial' },
    { value: 'unloaded', label: 'Unloaded' },
    { value: 'rollout', label: 'Rollout' },
    { value: 'loaded-radius', label: 'Radius' },
    { value: 'turns', label: 'Turns' },
  ];
  protected readonly tyre = computed(() => this.bench.axle()?.tyre ?? null);
  protected readonly rolling = computed<Rolling>(() => this.tyre()?.measured?.kind ?? this.tyre()?.factor ?? 'radial');
  protected readonly measure = computed(() => {
    const kind = this.tyre()?.measured?.kind;
    return kind ? MEASURES[kind] : null;
  });
  protected readonly reading = computed(() => {
    const tyre = this.tyre();
    return tyre ? this.describe(tyre.designation) : '';
  });
  protected readonly readDesignation = computed(() => {
    this.bench.system();
    return (text: string): Understood<string> => ({ value: text.trim(), said: this.describe(text) });
  });

  private readonly old = inject(OldTyre);

  private describe(designation: string): string {
    const size = tyreSize(designation);
    const system = this.bench.system();
    return `Ø ${say(size.overallDiameterMm, 'length', system, system === 'inch' ? 2 : 0)}; ${size.reading}`;
  }

  protected setDesignation(designation: string): void {
    this.old.keep(this.tyre()?.designation ?? designation, designation);
    this.bench.changeAxle((axle) => (axle.tyre.designation = designation));
  }

  protected setRolling(rolling: Rolling): void {
    const circumference = this.bench.figure(`gearing.${this.bench.axleName()}.circumference`)?.value ?? 2000;
    const inch = this.bench.system() === 'inch';
    const length = (mm: number) =>
      inch ? entryOf(Number((mm / 25.4).toFixed(2)), 'in') : entryOf(Math.round(mm), 'mm');
    this.bench.changeAxle((axle) => {
      if (rolling === 'radial' || rolling === 'unloaded') axle.tyre = { ...axle.tyre, factor: rolling, measured: null };
      else if (rolling === 'rollout') axle.tyre.measured = { kind: rolling, value: length(circumference) };
      else if (rolling === 'loaded-radius')
        axle.tyre.measured = { kind: rolling, value: length(circumference / (2 * Math.PI)) };
      else {
        const perKm = 1e6 / circumference;
        const value = inch
          ? entryOf(Number((perKm * 1.609344).toFixed(1)), 'turns/mile')
          : entryOf(Number(perKm.toFixed(1)), 'turns/km');
        axle.tyre.measured = { kind: rolling, value };
      }
    });
  }

  protected setMeasured({ entry }: TakenEntry): void {
    this.bench.changeAxle((axle) => {
      if (axle.tyre.measured) axle.tyre.measured.value = entry;
    });
  }
}
