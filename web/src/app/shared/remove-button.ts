import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MessageService } from 'primeng/api';
import { Bench } from '../state/bench';

/** How long a removal can be taken back at the place, ms. */
const TAKE_BACK_MS = 8000;

/**
 * Removes the row that it stands in. Tab goes past it, from field to field; Alt Delete in the row does the same as a press. In a
 * build the removal can be taken back at the place; where nothing is undone, it asks first.
 */
@Component({
  selector: 'hs-remove',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="quiet bare"
      tabindex="-1"
      aria-keyshortcuts="Alt+Delete"
      title="Remove (Alt Delete)"
      [class.icon]="!asking()"
      [disabled]="disabled()"
      [attr.aria-label]="(asking() ? 'Really remove ' : 'Remove ') + what()"
      (click)="press()"
      (blur)="asking.set(false)"
      (keydown.escape)="asking.set(false)"
    >
      @if (asking()) {
        Remove?
      } @else {
        <i class="pi pi-times" aria-hidden="true"></i>
      }
    </button>
  `,
  styles: `
    :host {
      display: inline-block;
    }
  `,
})
export class RemoveButton {
  /** What is removed, for whoever does not see where the button stands. */
  readonly what = input.required<string>();
  readonly disabled = input(false);
  /** Asks first: for what no undo brings back. */
  readonly asks = input(false);
  readonly removed = output();
  protected readonly asking = signal(false);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly bench = inject(Bench);
  private readonly messages = inject(MessageService);

  constructor() {
    const end = inject(DestroyRef);
    afterNextRender(() => {
      const row = this.host.nativeElement.closest('li, tr, [data-row]');
      const key = (event: Event): void => {
        if (!(event instanceof KeyboardEvent) || !event.altKey || event.key !== 'Delete' || this.disabled()) return;
        event.preventDefault();
        event.stopPropagation();
        this.press();
      };
      row?.addEventListener('keydown', key);
      end.onDestroy(() => row?.removeEventListener('keydown', key));
    });
  }

  protected press(): void {
    if (this.asks() && !this.asking()) {
      this.asking.set(true);
      // A press of a key from a field: the question has the focus, so that Enter answers it and Tab drops it.
      this.host.nativeElement.querySelector('button')?.focus();
      return;
    }
    this.asking.set(false);
    this.removed.emit();
    if (this.asks()) return;
    const after = this.bench.build();
    this.messages.add({
      summary: `Removed ${this.what()}`,
      life: TAKE_BACK_MS,
      data: { undo: () => (this.bench.build() === after ? this.bench.undo() : this.sayChanged()) },
    });
  }

  private sayChanged(): void {
    this.messages.add({
      severity: 'warn',
      summary: 'Something else was changed since',
      detail: 'Undo step by step with Ctrl Z, or with the arrow at the top.',
    });
  }
}
