import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Bench } from '../state/bench';

/** Says that nobody has said a value yet; pressing it says that the stand-in is right. */
@Component({
  selector: 'hs-assumed',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (open().length) {
      <button
        type="button"
        [attr.aria-label]="'Assumed, nobody has said it. It is so: keep ' + what()"
        title="A stand-in: nobody has said it yet, so it judges nothing. Type yours, or press here if it is so."
        (click)="bench.confirm(open())"
      >
        assumed
      </button>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    button {
      padding: 0 7px;
      min-height: 17px;
      background: none;
      border: 1px dashed var(--soft);
      border-radius: 10px;
      color: var(--soft);
      font-size: var(--text-xs);
      line-height: 15px;
      cursor: pointer;
    }
    button:hover {
      border-color: var(--blue);
      color: var(--blue);
    }
    @media (pointer: coarse) {
      button {
        min-height: 32px;
      }
    }
  `,
})
export class Assumed {
  /** Path of the build. */
  readonly path = input.required<string>();
  readonly what = input('');
  protected readonly bench = inject(Bench);
  protected readonly open = computed(() => {
    const path = this.path();
    const { assumed = [] } = this.bench.build() ?? {};
    return path === '' ? [] : assumed.filter((one) => one === path || one.startsWith(`${path}.`));
  });
}
