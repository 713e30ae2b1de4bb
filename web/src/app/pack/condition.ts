import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, input, signal, viewChild } from '@angular/core';
import { InputError } from '@hot-spline/core';
import { COLOURS, DAMAGE, type Condition } from '@hot-spline/model';
import { Field } from '../shared/field';
import { readPhoto } from '../shared/photo';
import { textReader } from '../shared/readers';
import { ApiError, api } from '../state/api';

export type ConditionEdit = (condition: Condition) => void;

/** What was seen on a piece: heat colour, damage, a note, photos. */
@Component({
  selector: 'hs-condition',
  imports: [Field],
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
      <div class="photos">
        @for (photo of condition()?.photos ?? []; track photo) {
          <span class="photo">
            <a [href]="'/api/photos/' + photo" target="_blank" rel="noopener">
              <img [src]="'/api/photos/' + photo" [alt]="'Photo of ' + what()" />
            </a>
            <button type="button" class="quiet icon bare" aria-label="Take the photo off" (click)="drop(photo)">
              <i class="pi pi-times" aria-hidden="true"></i>
            </button>
          </span>
        }
        <button type="button" class="quiet" [disabled]="busy()" (click)="pick()">
          <i class="pi pi-camera" aria-hidden="true"></i>{{ busy() ? 'Keeping…' : 'Add photo' }}
        </button>
        <input
          #picker
          type="file"
          accept="image/*"
          multiple
          class="visually-hidden"
          tabindex="-1"
          [attr.aria-label]="'Photo of ' + what()"
          (change)="add()"
        />
      </div>
    </div>
    @if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    }
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
    .photos {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: center;
    }
    .photo {
      position: relative;
    }
    .photo img {
      display: block;
      width: 76px;
      height: 57px;
      object-fit: cover;
      border: 1px solid var(--rule);
      border-radius: 4px;
    }
    .photo button {
      position: absolute;
      top: -8px;
      right: -8px;
      min-width: 24px;
      min-height: 24px;
      padding: 0;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: 50%;
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

  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');
  protected readonly colours = COLOURS;
  protected readonly damages = DAMAGE;
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
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

  protected pick(): void {
    this.picker().nativeElement.click();
  }

  /** A photo is named on the build only once the server has it. */
  protected async add(): Promise<void> {
    const input = this.picker().nativeElement;
    const files = [...(input.files ?? [])];
    input.value = '';
    this.problem.set('');
    this.busy.set(true);
    const change = this.change();
    try {
      for (const file of files) {
        const { id, blob } = await readPhoto(file);
        await api.keepPhoto(id, blob);
        change((condition) => {
          if (!condition.photos.includes(id)) condition.photos.push(id);
        });
      }
    } catch (error) {
      if (!(error instanceof InputError || error instanceof ApiError)) throw error;
      this.problem.set(
        error instanceof ApiError ? `The photo was not kept: ${error.message} Choose it again.` : error.message,
      );
    } finally {
      this.busy.set(false);
    }
  }
}

const SEEN_NOTHING: Condition = { colour: null, damage: [], note: '', photos: [] };

/** Applies a change to the condition of a piece or a face; one that says nothing is none. */
export function editCondition(of: { condition: Condition | null }, edit: ConditionEdit): void {
  const condition = structuredClone(of.condition ?? SEEN_NOTHING);
  edit(condition);
  const { colour, damage, note, photos } = condition;
  of.condition = colour === null && damage.length + photos.length === 0 && note === '' ? null : condition;
}
