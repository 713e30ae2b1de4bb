import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { SelectButton } from 'primeng/selectbutton';
import type { Option } from './choice';

/** One of two to six, all of them in sight: the library's select button, with arrow keys and a label. */
@Component({
  selector: 'hs-radios',
  imports: [FormsModule, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span [id]="name() + '-label'" [class.visually-hidden]="labelHidden()">{{ label() }}</span>
    <p-selectbutton
      size="small"
      optionLabel="label"
      optionValue="value"
      [ariaLabelledBy]="name() + '-label'"
      [options]="mutable()"
      [allowEmpty]="false"
      [ngModel]="value()"
      (ngModelChange)="chosen.emit($event)"
    />
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    span {
      display: block;
      margin-bottom: 2px;
      font-size: var(--text-s);
      color: var(--soft);
    }
  `,
})
export class Radios<T extends string> {
  readonly name = input.required<string>();
  readonly label = input.required<string>();
  readonly labelHidden = input(false);
  readonly options = input.required<readonly Option<T>[]>();
  readonly value = input.required<T>();
  readonly chosen = output<T>();
  /** The library wants an array of its own. */
  protected readonly mutable = computed(() => [...this.options()]);
}
