import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

export interface CompareRow {
  readonly label: string;
  /** As it is shown. */
  readonly score: string;
  /** The unit that is in the build. */
  readonly own: boolean;
  readonly pinned: boolean;
  /** Its wheels and shafts are shown. */
  readonly open: boolean;
}

/** Who a row of the comparison is: its points, its name that shows its wheels, the pin, and what takes it into the build. */
@Component({
  selector: 'hs-compare-head',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="score mono" [attr.aria-label]="'Serves ' + useName() + ' to ' + row().score">{{ row().score }}</span>
    <button type="button" class="quiet bare who" [attr.aria-pressed]="row().open" (click)="looked.emit()">
      <span class="name">{{ row().label }}</span>
    </button>
    <button
      type="button"
      class="quiet icon bare pin"
      [attr.aria-pressed]="row().pinned"
      [attr.aria-label]="'Keep ' + row().label + ' at the top'"
      [title]="row().pinned ? 'No longer at the top' : 'Keep at the top'"
      [disabled]="!row().pinned && full()"
      (click)="pin.emit()"
    >
      <i class="pi pi-thumbtack" aria-hidden="true"></i>
    </button>
    @if (row().own) {
      <span></span>
    } @else {
      <button
        type="button"
        class="quiet bare take"
        [attr.aria-label]="'Take ' + row().label + ' into the build'"
        (click)="taken.emit()"
      >
        Take
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 42px minmax(0, 1fr) 24px auto;
      gap: 0 2px;
      align-items: center;
      min-height: 34px;
      line-height: 1.2;
    }
    .score {
      font-size: var(--text-m);
    }
    .who {
      justify-content: flex-start;
      padding: 0 4px;
      text-align: left;
      white-space: normal;
    }
    .who[aria-pressed='true'] .name {
      color: var(--blue);
    }
    .take {
      padding: 0 6px;
      color: var(--blue);
    }
    .pin {
      color: var(--soft);
    }
    .pin[aria-pressed='true'] {
      color: var(--blue);
    }
    @media (pointer: fine) {
      .who,
      .pin,
      .take {
        min-height: 26px;
      }
      .pin {
        min-width: 24px;
      }
    }
  `,
})
export class CompareHead {
  readonly row = input.required<CompareRow>();
  readonly useName = input.required<string>();
  /** No more can be pinned. */
  readonly full = input.required<boolean>();
  readonly looked = output();
  readonly pin = output();
  readonly taken = output();
}
