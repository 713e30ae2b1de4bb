import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { CONSTRUCTION_OPTIONS } from '../library/words';
import { SetUp } from './set-up';

/** What is to be said before there is a set-up at all: that it begins, and how the axle is put together. */
@Component({
  selector: 'hs-begin',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="empty">
      @if (!setUp.setup()) {
        <h2>The set-up of this axle has not begun</h2>
        <p>
          Before anything is loosened: backlash, pattern and turning torque as they are, caps marked, every shim
          measured. Hot Spline keeps every try from then on.
        </p>
        <button type="button" class="quiet" [id]="'begin-' + setUp.axle()" (click)="setUp.begin()">
          Begin the set-up
        </button>
      } @else {
        <h2>How is this axle put together?</h2>
        <p>The same shim moves parts in opposite directions in different axles.</p>
        <div class="choices" [id]="'construction-' + setUp.axle()" tabindex="-1">
          @for (option of constructions; track option.value) {
            <button type="button" class="quiet" (click)="setUp.setConstruction(option.value)">
              {{ option.label }}
            </button>
          }
        </div>
      }
    </div>
  `,
  styles: `
    .empty {
      display: grid;
      gap: 12px;
      justify-items: start;
      max-width: 560px;
      padding: 32px 0;
    }
    .choices {
      display: grid;
      gap: 6px;
      width: 100%;
    }
    button {
      min-height: 44px;
    }
  `,
})
export class BeginPanel {
  protected readonly setUp = inject(SetUp);
  protected readonly constructions = CONSTRUCTION_OPTIONS;
}
