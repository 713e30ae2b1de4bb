import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MESH_LIMITS } from '@hot-spline/core';
import type { SetUpBearing } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { ORIGIN_OPTIONS } from './words';

/** A bearing with an honed bore that stands in while things are tried. Emits edits; keeps nothing itself. */
@Component({
  selector: 'hs-set-up-bearing',
  imports: [Choice, EntryField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = spec();
    <div class="two">
      <hs-field
        [name]="prefix() + '-name'"
        label="Set-up bearing"
        placeholder="Head bearing, honed"
        [text]="s.name"
        [read]="readName"
        [compact]="true"
        (taken)="edit({ name: $event })"
      />
      <hs-entry
        [name]="prefix() + '-taller'"
        label="Taller than the final one by (− lower)"
        quantity="length"
        scale="small"
        [range]="range"
        [entry]="s.taller"
        (taken)="edit({ taller: $event.entry })"
      />
      <hs-choice
        [name]="prefix() + '-origin'"
        of="set-up bearing"
        label="Known from"
        [options]="origins"
        [value]="s.origin"
        (chosen)="edit({ origin: $event })"
      />
    </div>
    <p class="soft">The difference goes into the pinion shim when the final bearing goes on.</p>
  `,
  styleUrl: './spec-editor.scss',
})
export class SetUpBearingEditor {
  readonly spec = input.required<SetUpBearing>();
  readonly prefix = input.required<string>();
  readonly changed = output<Edit<SetUpBearing>>();
  protected readonly origins = ORIGIN_OPTIONS;
  protected readonly range = MESH_LIMITS.markMm;
  protected readonly readName = textReader('Name', 80, 1);

  protected edit(change: Partial<SetUpBearing>): void {
    this.changed.emit((newest) => ({ ...newest, ...change }));
  }
}
