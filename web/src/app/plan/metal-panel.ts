import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Metal } from '@hot-spline/model';

/** The state of the metal: what is out, what is done for good, what must not be done yet. */
@Component({
  selector: 'hs-metal',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="State of the metal">
      <h2 class="section-title">State of the metal</h2>
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
    </section>
  `,
  styles: `
    dl {
      display: grid;
      gap: 6px;
      margin: 0 0 12px;
      font-size: var(--text-s);
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
}
