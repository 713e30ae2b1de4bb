import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { BadLine, ComparedSpec } from '@hot-spline/model/csv';
import { BadLines } from '../shared/bad-lines';

/** A file of the library, compared with what is here. */
export interface BroughtSpecs {
  readonly name: string;
  readonly specs: readonly ComparedSpec[];
  readonly bad: readonly BadLine[];
}

/** So many changes of a spec are shown. */
const SHOWN = 8;

/** Before anything of a file is taken into the library: what is new, what becomes otherwise and how, what is the same. */
@Component({
  selector: 'hs-bring-specs',
  imports: [BadLines],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="What the file brings">
      <h2>“{{ brought().name }}”</h2>
      <p>
        <strong>{{ of().new.length }}</strong> new, <strong>{{ of().changed.length }}</strong> changed,
        {{ of().same.length }} the same.
      </p>
      @if (of().new.length) {
        <p class="soft">New: {{ names(of().new) }}</p>
      }
      @for (one of of().changed; track one.id) {
        <div class="change">
          <strong>{{ one.spec.name }}</strong>
          <ul>
            @for (line of one.changes.slice(0, shown); track $index) {
              <li>{{ line }}</li>
            }
            @if (one.changes.length > shown) {
              <li class="soft">and {{ one.changes.length - shown }} more</li>
            }
          </ul>
        </div>
      }
      @if (of().torn.length) {
        <p class="caution">
          {{ names(of().torn) }}: a line can’t be used, and what it lacks would be taken out. What is here stays.
        </p>
      }
      <hs-bad-lines [lines]="brought().bad" />
      <div class="doing">
        @if (takes()) {
          <button type="button" class="quiet main" (click)="taken.emit()">Take {{ takes() }} in</button>
        }
        <button type="button" class="quiet" (click)="left.emit()">Leave it</button>
      </div>
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
      padding: 12px 16px;
      margin-bottom: 16px;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: 8px;
    }
    h2 {
      font-size: var(--text-l);
      overflow-wrap: anywhere;
    }
    .change ul {
      margin: 0;
      padding-left: 18px;
      font-size: var(--text-s);
    }
    .doing {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .main {
      background: var(--blue);
      border-color: var(--blue);
      color: var(--on-blue);
      font-weight: 600;
    }
  `,
})
export class BringSpecs {
  readonly brought = input.required<BroughtSpecs>();
  readonly taken = output();
  readonly left = output();
  protected readonly shown = SHOWN;
  protected readonly of = computed(() => {
    const of = (fate: ComparedSpec['fate']) => this.brought().specs.filter((one) => one.fate === fate);
    return { new: of('new'), changed: of('changed'), same: of('same'), torn: of('torn') };
  });
  protected readonly takes = computed(() => this.of().new.length + this.of().changed.length);

  protected names(specs: readonly ComparedSpec[]): string {
    return specs.map(({ spec }) => spec.name).join(', ');
  }
}
