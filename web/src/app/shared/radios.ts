import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Option } from './choice';

/** One of two to six, all of them in sight: the system's own radio buttons, so that Tab comes once and the arrow keys choose. */
@Component({
  selector: 'hs-radios',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="label" [id]="name() + '-label'" [class.visually-hidden]="labelHidden()">{{ label() }}</span>
    <div class="group" [class.loose]="wraps()" role="radiogroup" [attr.aria-labelledby]="name() + '-label'">
      @for (option of options(); track option.value) {
        <label [class.on]="option.value === value()">
          <input
            type="radio"
            [name]="name()"
            [value]="option.value"
            [checked]="option.value === value()"
            (change)="chosen.emit(option.value)"
          /><span>{{ option.label }}</span>
        </label>
      }
    </div>
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: block;
      min-width: 0;
    }
    .label {
      display: block;
      margin-bottom: 2px;
      font-size: var(--text-s);
      color: var(--soft);
    }
    .group {
      display: inline-flex;
      max-width: 100%;
      border: 1px solid var(--field);
      border-radius: 6px;
    }
    .group.loose {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      border: 0;
    }
    .loose label:is(:first-child, :last-child, :not(:only-child)) {
      border: 1px solid var(--field);
      border-radius: 6px;
    }
    label {
      position: relative;
      display: grid;
      place-items: center;
      min-height: 30px;
      padding: 0 11px;
      font-size: var(--text-s);
      text-align: center;
      cursor: pointer;
    }
    label + label {
      border-left: 1px solid var(--rule);
    }
    label:first-child {
      border-radius: 5px 0 0 5px;
    }
    label:last-child {
      border-radius: 0 5px 5px 0;
    }
    label.on {
      background: var(--blue);
      color: var(--on-blue);
    }
    /* The whole of it is the button: what is drawn is the label. */
    input {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      margin: 0;
      opacity: 0;
      cursor: pointer;
    }
    label:has(:focus-visible) {
      outline: 2px solid var(--blue);
      outline-offset: 2px;
      z-index: 1;
    }
    @media #{$narrow} {
      label {
        min-height: 44px;
      }
    }
  `,
})
export class Radios<T extends string> {
  readonly name = input.required<string>();
  readonly label = input.required<string>();
  readonly labelHidden = input(false);
  /** Long words in a narrow column: each its own button, on as many lines as it takes. */
  readonly wraps = input(false);
  readonly options = input.required<readonly Option<T>[]>();
  /** Null: none is chosen yet. */
  readonly value = input.required<T | null>();
  readonly chosen = output<T>();
}
