import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { LIMITS, type Entry, type NumberRange, type Quantity } from '@hot-spline/core';
import { insertFit, readingEntry, UNIT_PARTS, type Unit } from '@hot-spline/model';
import { ToggleSwitch } from 'primeng/toggleswitch';
import { EntryField } from '../shared/entry-field';
import { Bench } from '../state/bench';

type Part = 'sideGear' | 'cone' | 'helical' | 'insert';

interface PartField {
  readonly part: Part;
  readonly key: string;
  readonly label: string;
  readonly quantity: Quantity;
  readonly range: NumberRange;
  readonly usual?: readonly [number, number];
  /** Of these types alone. */
  readonly only?: Unit['type'];
}

const ANGLE = { above: 0, max: 90, unit: '°' };
const LOCK = { min: 0, max: 1e5, unit: 'N·m' };
const RADIUS = [5, 150] as const;

const FIELDS: readonly PartField[] = [
  {
    part: 'cone',
    key: 'frictionCoefficient',
    label: 'Friction coefficient',
    quantity: 'coefficient',
    range: LIMITS.frictionCoefficient,
  },
  {
    part: 'cone',
    key: 'meanRadius',
    label: 'Mean radius of the cone',
    quantity: 'length',
    range: LIMITS.radiusMm,
    usual: RADIUS,
  },
  { part: 'cone', key: 'halfAngle', label: 'Half cone angle', quantity: 'angle', range: ANGLE },
  { part: 'cone', key: 'preload', label: 'Spring force, each', quantity: 'force', range: LIMITS.forceN },
  {
    part: 'sideGear',
    key: 'meanRadius',
    label: 'Side gear, mean radius',
    quantity: 'length',
    range: LIMITS.radiusMm,
    usual: RADIUS,
  },
  { part: 'sideGear', key: 'pressureAngle', label: 'Pressure angle', quantity: 'angle', range: ANGLE },
  { part: 'sideGear', key: 'coneAngle', label: 'Pitch cone angle', quantity: 'angle', range: ANGLE },
  {
    part: 'helical',
    key: 'biasRatio',
    label: 'Bias ratio of the gears',
    quantity: 'ratio',
    range: { min: 1, max: 20 },
  },
  { part: 'helical', key: 'preload', label: 'Locking torque at no input', quantity: 'torque', range: LOCK },
  { part: 'helical', key: 'platesFrom', label: 'Plates come in at', quantity: 'torque', range: LOCK, only: 'hybrid' },
  {
    part: 'helical',
    key: 'platesHold',
    label: 'They hold, of what is above',
    quantity: 'percent',
    range: { min: 0, max: 200, unit: '%' },
    only: 'hybrid',
  },
  { part: 'insert', key: 'lock', label: 'Locking torque, both sides', quantity: 'torque', range: LOCK },
];

/** What describes a unit beside its plates: side gears, cones, helical gears, an insert, the switch of a locker. */
@Component({
  selector: 'hs-unit-parts',
  imports: [EntryField, FormsModule, ToggleSwitch],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (field of fields(); track field.name) {
      <hs-entry
        [name]="field.name"
        [label]="field.label"
        [quantity]="field.quantity"
        [range]="field.range"
        [usual]="field.usual"
        [entry]="field.entry"
        [echo]="false"
        (taken)="set(field, $event.entry)"
      />
    }
    @if (unit()?.type === 'friction-insert') {
      <hs-entry
        name="insert-fit"
        label="Fit, measured"
        quantity="length"
        scale="small"
        [range]="fitKind.range"
        [plausible]="fitKind.plausible"
        [entry]="fit()"
        placeholder="not yet"
        [enterOnly]="true"
        (taken)="measure($event.entry)"
      />
    }
    @if (unit()?.type === 'selectable-locker') {
      <div class="switch">
        <label for="locker-engaged">Locked now</label>
        <p-toggleswitch inputId="locker-engaged" [ngModel]="unit()?.engaged" (ngModelChange)="engage($event)" />
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px 10px;
      align-items: end;
    }
    .switch {
      display: flex;
      gap: 10px;
      align-items: center;
      min-height: 34px;
    }
  `,
})
export class UnitParts {
  private readonly bench = inject(Bench);
  protected readonly unit = computed(() => this.bench.axle()?.unit ?? null);
  protected readonly fitKind = insertFit.value;
  protected readonly fit = computed(() => {
    const reading = this.bench.readingOf(insertFit.of({ axle: this.bench.axleName() }));
    return reading ? readingEntry(reading) : null;
  });
  protected readonly fields = computed(() => {
    const unit = this.unit();
    if (!unit) return [];
    const parts: readonly string[] = UNIT_PARTS[unit.type];
    return FIELDS.filter(({ part, only }) => parts.includes(part) && (only === undefined || only === unit.type)).map(
      (field) => ({
        ...field,
        name: `unit-${field.part}-${field.key}`,
        entry: (unit[field.part] as Readonly<Record<string, Entry>> | null)?.[field.key] ?? null,
      }),
    );
  });

  protected set({ part, key }: { part: Part; key: string }, entry: Entry): void {
    this.bench.changeAxle(({ unit }) => {
      const of = unit[part] as Record<string, Entry> | null;
      if (of) of[key] = entry;
    });
  }

  protected measure(entry: Entry): void {
    this.bench.record(insertFit.of({ axle: this.bench.axleName() }), entry, 'Feeler gauge');
  }

  protected engage(engaged: boolean): void {
    this.bench.changeAxle(({ unit }) => (unit.engaged = engaged));
  }
}
