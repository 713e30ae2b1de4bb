import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { COLOURS, DAMAGE, type Condition } from '@hot-spline/model';
import { Field } from '../shared/field';
import { PhotoTaker } from '../shared/photo-taker';
import { textReader } from '../shared/readers';

export type ConditionEdit = (condition: Condition) => void;

/** What was seen on a piece: heat colour, damage, a note, photos. */
@Component({
  selector: 'hs-condition',
  imports: [Field, PhotoTaker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="marks" role="group" [attr.aria-label]="'Heat colour of ' + what()">
      <span class="soft">Colour</span>
      @for (colour of colours; track colour) {
        <button
          type="button"
          class="quiet mark"
          [class]="'quiet mark ' + colour"
          [attr.aria-pressed]="condition()?.colour === colour"
          (click)="colourAs(colour)"
        >
          {{ colour }}
        </button>
      }
    </div>
    <div class="marks" role="group" [attr.aria-label]="'Damage of ' + what()">
      <span class="soft">Damage</span>
      @for (damage of damages; track damage) {
        <button
          type="button"
          class="quiet mark"
          [attr.aria-pressed]="condition()?.damage?.includes(damage) ?? false"
          (click)="mark(damage)"
        >
          {{ damage }}
        </button>
      }
    </div>
    <div class="rest">
      <hs-field
        [name]="name() + '-note'"
        label="Note"
        placeholder="what was seen, where"
        [text]="condition()?.note ?? ''"
        [read]="readNote"
        (taken)="noteAs($event)"
      />
      <hs-photo-taker
        [what]="what()"
        [photos]="condition()?.photos ?? []"
        [keep]="keeper()"
        [droppable]="true"
        (dropped)="drop($event)"
      />
    </div>
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: grid;
      gap: 6px;
    }
    .marks {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px;
      font-size: var(--text-s);
    }
    .marks > span {
      min-width: 60px;
    }
    .mark {
      min-height: 28px;
      padding: 1px 9px;
    }
    .mark[aria-pressed='true'] {
      border-color: var(--blue);
      background: var(--blue-wash);
      box-shadow: inset 0 0 0 1px var(--blue);
    }
    .straw::before,
    .blue::before,
    .black::before,
    .clean::before {
      content: '';
      width: 11px;
      height: 11px;
      border: 1px solid var(--soft);
      border-radius: 50%;
      background: var(--steel-light);
    }
    .straw::before {
      background: #d9b24c;
    }
    .blue::before {
      background: #4a63b8;
    }
    .black::before {
      background: #16181a;
    }
    .rest {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 12px;
      align-items: end;
    }
    @media #{$narrow} {
      .rest {
        grid-template-columns: minmax(0, 1fr);
      }
      .mark {
        min-height: 44px;
      }
    }
  `,
})
export class ConditionEditor {
  /** Start of the ids of its fields. */
  readonly name = input.required<string>();
  /** The piece in words. */
  readonly what = input.required<string>();
  readonly condition = input.required<Condition | null>();
  /** Changes the newest condition of this piece, and goes on to mean this piece when another one is shown. */
  readonly change = input.required<(edit: ConditionEdit) => void>();

  protected readonly colours = COLOURS;
  protected readonly damages = DAMAGE;
  protected readonly readNote = textReader('Note', 500);

  protected colourAs(colour: NonNullable<Condition['colour']>): void {
    this.change()((condition) => (condition.colour = condition.colour === colour ? null : colour));
  }

  protected mark(damage: Condition['damage'][number]): void {
    this.change()((condition) => {
      condition.damage = condition.damage.includes(damage)
        ? condition.damage.filter((one) => one !== damage)
        : [...condition.damage, damage];
    });
  }

  protected noteAs(note: string): void {
    this.change()((condition) => (condition.note = note));
  }

  protected drop(photo: string): void {
    this.change()((condition) => (condition.photos = condition.photos.filter((one) => one !== photo)));
  }

  /** Names a photo on the piece that is shown now, whichever is shown later. */
  protected readonly keeper = computed(() => {
    const change = this.change();
    return (id: string): void =>
      change((condition) => {
        if (!condition.photos.includes(id)) condition.photos.push(id);
      });
  });
}

const SEEN_NOTHING: Condition = { colour: null, damage: [], note: '', photos: [] };

/** Applies a change to the condition of a piece or a face; one that says nothing is none. */
export function editCondition(of: { condition: Condition | null }, edit: ConditionEdit): void {
  const condition = structuredClone(of.condition ?? SEEN_NOTHING);
  edit(condition);
  const { colour, damage, note, photos } = condition;
  of.condition = colour === null && damage.length + photos.length === 0 && note === '' ? null : condition;
}
