import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Metal } from '@hot-spline/model';

/** The state of the metal: what is out, what is done for good, what must not be done yet. */
@Component({
  selector: 'hs-metal',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details aria-label="State of the metal" [open]="!folded()">
      <summary class="section-title">State of the metal</summary>
      <dl>
        <div>
          <dt>Out</dt>
          <dd>{{ metal().out.join(', ') || 'nothing' }}</dd>
        </div>
        <div>
          <dt>Made for good</dt>
          <dd>{{ metal().made.join(', ') || 'nothing yet' }}</dd>
        </div>
        @for (one of metal().notYet; track one.gate) {
          <div class="not">
            <dt>Not before Gate {{ one.gate }}</dt>
            <dd>{{ one.steps.join(', ') }}</dd>
          </div>
        }
      </dl>
    </details>
  `,
  styles: `
    :host {
      display: block;
      container-type: inline-size;
    }
    summary {
      cursor: pointer;
    }
    dl {
      display: grid;
      gap: 6px;
      margin: 0 0 12px;
      font-size: var(--text-s);
    }
    @container (min-width: 340px) {
      dl > div {
        display: grid;
        grid-template-columns: 110px minmax(0, 1fr);
        gap: 8px;
      }
    }
    dt {
      color: var(--soft);
    }
    dd {
      margin: 0;
    }
    .not dd {
      color: var(--ochre-text);
    }
  `,
})
export class MetalPanel {
  readonly metal = input.required<Metal>();
  /** One tap away, where there is no room beside the step. */
  readonly folded = input(false);
}
