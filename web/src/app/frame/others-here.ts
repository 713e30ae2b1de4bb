import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { SHEETS } from '../shared/sheet-list';
import { Presence } from '../state/presence';

/** Who else is in this build, and where: a name each, said once. */
@Component({
  selector: 'hs-others-here',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (others().length) {
      <ul class="no-print" aria-label="Also in this build">
        @for (one of others(); track one.key) {
          <li [title]="one.says">
            <strong>{{ one.who }}</strong> <span>{{ one.sheet }}</span>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    ul {
      display: flex;
      gap: 6px;
    }
    li {
      padding: 1px 8px;
      border: 1px solid var(--blue);
      border-radius: 999px;
      font-size: var(--text-s);
      white-space: nowrap;
    }
    span {
      color: var(--soft);
    }
    @media #{$narrow} {
      span {
        display: none;
      }
    }
  `,
})
export class OthersHere {
  private readonly presence = inject(Presence);
  private readonly titles = new Map(inject(SHEETS).map(({ sheet, name }) => [sheet, name]));
  protected readonly others = computed(() => {
    const lines = this.presence.others().map(({ who, sheet }) => ({ who, sheet: this.titles.get(sheet) ?? '' }));
    // Two tabs of one person on one sheet are one.
    const once = new Map(lines.map((one) => [`${one.who}.${one.sheet}`, one]));
    return [...once].map(([key, one]) => ({
      key,
      ...one,
      says: `${one.who} is here too${one.sheet && `, on ${one.sheet}`}`,
    }));
  });
}
