import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

export interface Option<T extends string> {
  readonly value: T;
  readonly label: string;
}

/** One of a few. The system's own select: it works with a thumb, the keyboard and a screen reader as it is. */
@Component({
  selector: 'hs-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="name()" [class.visually-hidden]="labelHidden()"
      >{{ label() }}
      @if (of(); as what) {
        <span class="visually-hidden">, {{ what }}</span>
      }
    </label>
    <select #box class="control" [id]="name()" (change)="choose(box.value)">
      @for (option of options(); track option.value) {
        <option [value]="option.value" [selected]="option.value === value()">{{ option.label }}</option>
      }
    </select>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    label {
      display: block;
      margin-bottom: 2px;
      font-size: var(--text-s);
      color: var(--soft);
    }
  `,
})
export class Choice<T extends string> {
  /** Id of the select; findings jump to it. */
  readonly name = input.required<string>();
  readonly label = input.required<string>();
  readonly options = input.required<readonly Option<T>[]>();
  readonly value = input.required<T>();
  /** What it belongs to, for whoever does not see where it stands. */
  readonly of = input('');
  readonly labelHidden = input(false);
  readonly chosen = output<T>();

  protected choose(value: string): void {
    const option = this.options().find((candidate) => candidate.value === value);
    if (option) this.chosen.emit(option.value);
  }
}
