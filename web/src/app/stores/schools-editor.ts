import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Schools } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../shared/edit';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';

const WEAR = [
  { value: 'uniform-wear', label: 'Uniform wear' },
  { value: 'uniform-pressure', label: 'Uniform pressure' },
] as const;
const RAMPS = [
  { value: 'rotation-plane', label: 'From the plane of rotation' },
  { value: 'axis', label: 'From the axle’s axis' },
] as const;

/** Where practitioners differ, what this shop does, and why one would. */
@Component({
  selector: 'hs-schools',
  imports: [Choice, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-field
      [name]="prefix() + '-name'"
      label="Name"
      [text]="spec().name"
      [read]="readName"
      (taken)="set({ name: $event })"
    />
    <hs-choice
      [name]="prefix() + '-wear'"
      label="Plates press by"
      [options]="wear"
      [value]="spec().wearModel"
      (chosen)="set({ wearModel: $event })"
    />
    <p class="soft">
      Wear is right for plates that have bedded in: what presses more wears more, until the torque is that of the mean
      radius. Pressure is right for new, flat ones and reads a little higher.
    </p>
    <hs-choice
      [name]="prefix() + '-ramp'"
      label="Ramp angles are quoted"
      [options]="ramps"
      [value]="spec().rampFrom"
      (chosen)="set({ rampFrom: $event })"
    />
    <p class="soft">
      Makers quote either the angle from the plane of rotation, where a smaller one locks harder, or its complement from
      the axis, where a larger one does. The steel is the same; the unit sheet draws which is meant.
    </p>
    <p class="soft">Used where a plate unit is new to a build. A build that has one keeps what it says.</p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      max-width: 60ch;
    }
    p {
      font-size: 13px;
    }
  `,
})
export class SchoolsEditor {
  readonly spec = input.required<Schools>();
  /** Start of the ids of its fields. */
  readonly prefix = input.required<string>();
  readonly changed = output<Edit<Schools>>();

  protected readonly wear = WEAR;
  protected readonly ramps = RAMPS;
  protected readonly readName = textReader('Name', 80, 1);

  protected set(change: Partial<Schools>): void {
    this.changed.emit((newest) => ({ ...newest, ...change }));
  }
}
