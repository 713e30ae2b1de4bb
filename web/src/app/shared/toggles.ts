import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Option } from './choice';

/** Any number of a few. */
@Component({
  selector: 'hs-toggles',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset [id]="name()" tabindex="-1">
      <legend>{{ label() }}</legend>
      @for (option of options(); track option.value) {
        <button
          type="button"
          [class.on]="values().includes(option.value)"
          [attr.aria-pressed]="values().includes(option.value)"
          (click)="flip(option.value)"
        >
          {{ option.label }}
        </button>
      }
    </fieldset>
  `,
  styles: `
    @use 'breakpoints' as *;
    fieldset {
      display: flex;
      flex-wrap: wrap;
      gap: 5px;
      margin: 0;
      padding: 0;
      border: 0;
    }
    legend {
      padding: 0;
      margin-bottom: 3px;
      font-size: var(--text-s);
      color: var(--soft);
    }
    button {
      min-height: 30px;
      padding: 2px 11px;
      background: none;
      border: 1px solid var(--rule);
      border-radius: 15px;
      cursor: pointer;
      font-size: var(--text-s);
    }
    button.on {
      background: var(--blue-wash);
      border-color: var(--blue);
      font-weight: 600;
    }
    @media #{$narrow} {
      button {
        min-height: 44px;
      }
    }
  `,
})
export class Toggles<T extends string> {
  readonly name = input.required<string>();
  readonly label = input.required<string>();
  readonly options = input.required<readonly Option<T>[]>();
  readonly values = input.required<readonly T[]>();
  readonly chosen = output<T[]>();

  protected flip(value: T): void {
    const values = this.values();
    this.chosen.emit(values.includes(value) ? values.filter((one) => one !== value) : [...values, value]);
  }
}
