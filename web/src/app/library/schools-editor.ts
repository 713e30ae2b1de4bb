import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { SCHOOLS, SCHOOL_KEYS, type SchoolKey, type Schools } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';

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
    <div class="all">
      @for (school of schools(); track school.id) {
        <div>
          <hs-choice
            [name]="prefix() + '-' + school.key"
            [label]="school.label"
            [options]="school.options"
            [value]="school.value"
            (chosen)="choose(school.key, $event)"
          />
          <p class="soft">{{ school.why }}</p>
        </div>
      }
    </div>
    @if (refused()) {
      <p class="caution" role="alert">
        Not taken: a ring gear that is pulled on strains the bolts and sits cocked. Write below why it has to be, then
        choose it again.
      </p>
    }
    @if (refused() || spec().ringGearNote !== '') {
      <hs-field
        [name]="prefix() + '-ring-gear-note'"
        label="Why the ring gear is pulled on"
        [text]="spec().ringGearNote"
        [read]="readNote"
        (taken)="noteAs($event)"
      />
    }
    <p class="soft">
      Those of plates and ramps are used where a plate unit is new to a build, those of the set-up, the joint and the
      order of work where one is begun: a build that has one keeps what it says. Side preload, oil and paint show on
      their sheets at once.
    </p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
    }
    .all {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
      gap: 12px 18px;
    }
    p {
      margin: 2px 0 0;
      font-size: var(--text-s);
    }
  `,
})
export class SchoolsEditor {
  readonly spec = input.required<Schools>();
  /** Start of the ids of its fields. */
  readonly prefix = input.required<string>();
  readonly changed = output<Edit<Schools>>();

  protected readonly refused = signal(false);
  private readonly refusals = signal(0);
  protected readonly schools = computed(() =>
    SCHOOL_KEYS.map((key) => {
      const { label, options } = SCHOOLS[key];
      const value: string = this.spec()[key];
      // A choice that was refused is drawn anew: the select itself has moved already.
      const id = key === 'ringGear' ? `${key}${this.refusals()}` : key;
      return {
        id,
        key,
        label,
        options: [...options],
        value,
        why: options.find((one) => one.value === value)?.why ?? '',
      };
    }),
  );
  protected readonly readName = textReader('Name', 80, 1);
  protected readonly readNote = textReader('Note', 300);

  protected choose(key: SchoolKey, value: string): void {
    const refused = key === 'ringGear' && value === 'pulled-on' && this.spec().ringGearNote === '';
    this.refused.set(refused);
    if (refused) this.refusals.update((n) => n + 1);
    else this.set({ [key]: value });
  }

  /** Without its reason the ring gear is heated again. */
  protected noteAs(ringGearNote: string): void {
    this.set({ ringGearNote, ...(ringGearNote === '' ? { ringGear: 'heated' } : {}) });
  }

  protected set(change: Partial<Schools>): void {
    this.changed.emit((newest) => ({ ...newest, ...change }));
  }
}
