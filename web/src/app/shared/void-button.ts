import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { InputError } from '@hot-spline/core';
import { Dialog } from 'primeng/dialog';
import { Bench } from '../state/bench';
import { Field, type Understood } from './field';

/** Voids a reading, with a reason. The reading stays in the ledger. */
@Component({
  selector: 'hs-void',
  imports: [Dialog, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="quiet bare"
      [tabIndex]="beside() ? -1 : 0"
      (click)="open.set(true)"
      [attr.aria-label]="'Void ' + what()"
    >
      Void
    </button>
    <p-dialog
      header="Void this reading"
      closeAriaLabel="Close"
      [(visible)]="open"
      [modal]="true"
      [dismissableMask]="true"
      appendTo="body"
      [style]="{ width: 'min(420px, 94vw)' }"
    >
      @if (open()) {
        <p class="soft">{{ what() }}. It stays in the ledger, marked void.</p>
        <hs-field
          [name]="'void-' + id()"
          label="Reason"
          text=""
          [read]="read"
          [enterOnly]="true"
          verb="Void"
          (taken)="confirm($event)"
        />
      }
    </p-dialog>
  `,
  styles: `
    p {
      margin-bottom: 10px;
    }
  `,
})
export class VoidButton {
  /** Id of the entry. */
  readonly id = input.required<string>();
  readonly what = input.required<string>();
  /** Beside a field that is filled one after the other: Tab goes on to the next field; the keys void it in the ledger. */
  readonly beside = input(false);
  private readonly bench = inject(Bench);
  protected readonly open = signal(false);
  protected readonly read = (text: string): Understood<string> => {
    const value = text.trim();
    if (value === '' || value.length > 300)
      throw new InputError('Reason', 'Reason must say why.', '1 to 300 characters');
    return { value, said: 'Enter voids it' };
  };

  protected confirm(reason: string): void {
    this.bench.voidEntry(this.id(), reason);
    this.open.set(false);
  }
}
