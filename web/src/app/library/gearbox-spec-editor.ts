import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { LIMITS, entryOf } from '@hot-spline/core';
import type { GearboxSpec, Origin } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { GEARBOX_OPTIONS, ORIGIN_OPTIONS } from './words';

/** Everything known of a gearbox, each value with where it comes from. Emits edits; keeps nothing itself. */
@Component({
  selector: 'hs-gearbox-spec',
  imports: [Choice, EntryField, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = spec();
    <div class="line wide">
      <hs-field
        [name]="prefix() + '-name'"
        label="Gearbox"
        [text]="s.name"
        [read]="readName"
        [compact]="true"
        (taken)="setName($event)"
      />
      <hs-choice
        [name]="prefix() + '-box'"
        label="Kind"
        [options]="boxes"
        [value]="s.box.value"
        (chosen)="setBox({ value: $event })"
      />
      <hs-choice
        [name]="prefix() + '-box-origin'"
        of="gearbox"
        label="Known from"
        [options]="origins"
        [value]="s.box.origin"
        (chosen)="setBox({ origin: $event })"
      />
    </div>
    <div class="line wide">
      <hs-entry
        [name]="prefix() + '-torque'"
        label="Stands at its input"
        quantity="torque"
        [range]="torqueRange"
        [entry]="s.torqueLimit?.value ?? null"
        [compact]="true"
        (taken)="setTorque($event)"
      />
      <hs-choice
        [name]="prefix() + '-torque-origin'"
        of="torque limit"
        label="Known from"
        [options]="origins"
        [value]="s.torqueLimit?.origin ?? 'guess'"
        (chosen)="setTorqueOrigin($event)"
      />
    </div>
    <h3>
      Gears
      <button type="button" class="quiet bare" [disabled]="s.gears.length >= 12" (click)="addGear()">
        <i class="pi pi-plus" aria-hidden="true"></i>Add gear
      </button>
    </h3>
    <ul>
      @for (gear of s.gears; track $index) {
        <li class="line carrier">
          <span class="mono">{{ gear.name }}</span>
          <hs-entry
            [name]="prefix() + '-gear-' + $index"
            [label]="'Gear ' + gear.name"
            [labelHidden]="true"
            quantity="ratio"
            [range]="ratioRange"
            [entry]="gear.ratio"
            [echo]="false"
            [compact]="true"
            (taken)="setGear($index, $event)"
          />
          <span></span>
          <hs-choice
            [name]="prefix() + '-gear-origin-' + $index"
            [label]="'Gear ' + gear.name + ' known from'"
            [labelHidden]="true"
            [options]="origins"
            [value]="gear.origin"
            (chosen)="setGearOrigin($index, $event)"
          />
          <span></span>
          <hs-remove
            [what]="'gear ' + gear.name"
            [asks]="true"
            [disabled]="s.gears.length <= 1"
            (removed)="removeGear($index)"
          />
        </li>
      }
    </ul>
  `,
  styleUrl: './spec-editor.scss',
})
export class GearboxSpecEditor {
  readonly spec = input.required<GearboxSpec>();
  readonly prefix = input.required<string>();
  readonly changed = output<Edit<GearboxSpec>>();

  protected readonly origins = ORIGIN_OPTIONS;
  protected readonly boxes = GEARBOX_OPTIONS;
  protected readonly ratioRange = LIMITS.ratio;
  protected readonly torqueRange = { above: 0, max: 1e6, unit: 'N·m' };
  protected readonly readName = textReader('Name', 80, 1);

  private edit(recipe: (newest: GearboxSpec) => Partial<GearboxSpec>): void {
    this.changed.emit((newest) => ({ ...newest, ...recipe(newest) }));
  }

  protected setName(name: string): void {
    this.edit(() => ({ name }));
  }

  protected setBox(change: Partial<GearboxSpec['box']>): void {
    this.edit(({ box }) => ({ box: { ...box, ...change } }));
  }

  protected setTorque({ entry: value }: TakenEntry): void {
    this.edit(({ torqueLimit }) => ({ torqueLimit: { value, origin: torqueLimit?.origin ?? 'maker' } }));
  }

  protected setTorqueOrigin(origin: Origin): void {
    this.edit(({ torqueLimit }) => ({ torqueLimit: torqueLimit && { ...torqueLimit, origin } }));
  }

  protected setGear(index: number, { entry: ratio }: TakenEntry): void {
    this.edit(({ gears }) => ({ gears: gears.map((gear, i) => (i === index ? { ...gear, ratio } : gear)) }));
  }

  protected setGearOrigin(index: number, origin: Origin): void {
    this.edit(({ gears }) => ({ gears: gears.map((gear, i) => (i === index ? { ...gear, origin } : gear)) }));
  }

  protected addGear(): void {
    this.edit(({ gears }) => {
      const last = gears.at(-1)?.ratio.value ?? 1;
      const ratio = entryOf(Number((last * 0.8).toFixed(3)), '');
      return { gears: [...gears, { name: String(gears.length + 1), ratio, origin: 'guess' }] };
    });
  }

  protected removeGear(index: number): void {
    this.edit(({ gears }) => ({ gears: gears.filter((_, i) => i !== index) }));
  }
}
