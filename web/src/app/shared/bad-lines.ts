import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { BadLine } from '@hot-spline/model/csv';

/** So many are listed. */
const LISTED = 40;

/** Lines of a file that can’t be used, each with why. */
@Component({
  selector: 'hs-bad-lines',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (lines().length) {
      <p>{{ lines().length }} {{ lines().length === 1 ? 'line' : 'lines' }} can’t be used:</p>
      <ul>
        @for (line of listed(); track $index) {
          <li>
            <span class="mono">line {{ line.line }}</span> {{ line.why }} <span class="soft mono">{{ line.text }}</span>
          </li>
        }
        @if (lines().length > listed().length) {
          <li class="soft">and {{ lines().length - listed().length }} more</li>
        }
      </ul>
    }
  `,
  styles: `
    ul {
      max-height: 200px;
      margin: 4px 0 0;
      padding: 0;
      overflow-y: auto;
      font-size: var(--text-s);
      list-style: none;
    }
    li {
      padding: 3px 0;
      border-bottom: 1px solid var(--rule);
      overflow-wrap: anywhere;
    }
  `,
})
export class BadLines {
  readonly lines = input.required<readonly BadLine[]>();
  protected readonly listed = computed(() => this.lines().slice(0, LISTED));
}
