import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MESH_LIMITS, saySmall } from '@hot-spline/core';
import { STACK_PARTS, stackError, type StackPart } from '@hot-spline/model';
import { RemoveButton } from '../shared/remove-button';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { SetUp } from './set-up';

const words = (part: StackPart['part']): string => part.replaceAll('-', ' ');
/** What usually lies between the pinion head and the case. */
const SETS_DEPTH: readonly StackPart['part'][] = ['head-shim', 'baffle', 'head-bearing'];

/** What is on the pinion shaft, from the head outwards: as it came out, as it goes in. */
@Component({
  selector: 'hs-stack-tab',
  imports: [EntryField, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">
      From the head outwards. A part that lies between head and case moves the pinion: left out, or of another height,
      it is a depth error.
    </p>
    @if (error(); as e) {
      <p class="caution" role="status">{{ e }}</p>
    }
    <ol>
      @for (part of parts(); track part.id) {
        <li [attr.aria-label]="words(part.part)">
          <span class="name">{{ $index + 1 }} {{ words(part.part) }}</span>
          <hs-entry
            [name]="'was-' + part.id"
            label="came out"
            quantity="length"
            [range]="range"
            [entry]="part.was"
            placeholder="not there"
            [echo]="false"
            (taken)="set(part.id, { was: $event.entry })"
          />
          <hs-entry
            [name]="'is-' + part.id"
            label="goes in"
            quantity="length"
            [range]="range"
            [entry]="part.is"
            placeholder="left out"
            [echo]="false"
            (taken)="set(part.id, { is: $event.entry })"
          />
          <hs-field
            [name]="'faces-' + part.id"
            label="faces the head"
            placeholder="which face"
            [text]="part.faces"
            [read]="readFaces"
            [compact]="true"
            (taken)="set(part.id, { faces: $event })"
          />
          <label class="depth"
            ><input
              type="checkbox"
              [checked]="part.setsDepth"
              (change)="set(part.id, { setsDepth: !part.setsDepth })"
            />
            sets depth</label
          >
          <span class="tools">
            @if (part.is) {
              <button
                type="button"
                class="quiet bare"
                (click)="set(part.id, { is: null })"
                [attr.aria-label]="words(part.part) + ' is left out'"
              >
                leave out
              </button>
            }
            <button
              type="button"
              class="quiet icon bare"
              [disabled]="$first"
              (click)="move($index)"
              [attr.aria-label]="'Move ' + words(part.part) + ' toward the head'"
            >
              <i class="pi pi-arrow-up" aria-hidden="true"></i>
            </button>
            <hs-remove [what]="words(part.part)" (removed)="remove(part.id)" />
          </span>
        </li>
      }
    </ol>
    <div class="add" [id]="'stack-add-' + axle()" tabindex="-1">
      <span class="soft">Add</span>
      @for (part of all; track part) {
        <button type="button" class="quiet bare" (click)="add(part)" [attr.aria-label]="'Add ' + words(part)">
          {{ words(part) }}
        </button>
      }
    </div>
  `,
  styles: `
    @use 'breakpoints' as *;
    p {
      margin-bottom: 8px;
      font-size: var(--text-s);
    }
    li {
      display: grid;
      grid-template-columns: 116px 1fr 1fr 1fr auto auto;
      gap: 0 10px;
      align-items: start;
    }
    .name {
      padding-top: 24px;
      font-size: var(--text-s);
    }
    .depth {
      padding-top: 26px;
      font-size: var(--text-s);
      white-space: nowrap;
    }
    .tools {
      display: flex;
      padding-top: 20px;
    }
    .add {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      font-size: var(--text-s);
    }
    @media #{$narrow} {
      li {
        grid-template-columns: 1fr 1fr;
        margin-bottom: 10px;
      }
    }
  `,
})
export class StackTab {
  private readonly setUp = inject(SetUp);
  protected readonly axle = this.setUp.axle;
  protected readonly all = STACK_PARTS;
  protected readonly words = words;
  protected readonly range = MESH_LIMITS.heightMm;
  protected readonly readFaces = textReader('Faces', 60);
  protected readonly parts = computed(() => this.setUp.setup()?.stack ?? []);
  protected readonly error = computed(() => {
    const mesh = this.setUp.mesh();
    const error = mesh && stackError(mesh);
    if (!error) return null;
    const size = saySmall(error.deeperMm, this.setUp.bench.system());
    return `${error.parts}: the pinion sits ${size} ${error.deeperMm > 0 ? 'deeper' : 'shallower'} than it did.`;
  });

  protected set(id: string, change: Partial<StackPart>): void {
    this.setUp.change((setup) => {
      setup.stack = setup.stack.map((part) => (part.id === id ? { ...part, ...change } : part));
    });
  }

  protected add(part: StackPart['part']): void {
    this.setUp.change(({ stack }) => {
      const taken = stack.map(({ id }) => id);
      let n = stack.length + 1;
      while (taken.includes(`s${n}`)) n++;
      stack.push({ id: `s${n}`, part, was: null, is: null, setsDepth: SETS_DEPTH.includes(part), faces: '' });
    });
  }

  protected move(index: number): void {
    this.setUp.change(({ stack }) => {
      const [part] = stack.splice(index, 1);
      if (part) stack.splice(index - 1, 0, part);
    });
  }

  protected remove(id: string): void {
    this.setUp.change((setup) => (setup.stack = setup.stack.filter((part) => part.id !== id)));
  }
}
