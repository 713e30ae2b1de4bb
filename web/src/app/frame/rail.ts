import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { VERDICTS, type Verdict } from '@hot-spline/model';
import { RAIL_GROUPS } from '../shared/descriptor';
import { VerdictMark } from '../shared/verdict';
import { SHEETS } from '../sheets';
import { Bench } from '../state/bench';

@Component({
  selector: 'hs-rail',
  imports: [RouterLink, RouterLinkActive, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="The Rail: order of work">
      @for (group of groups(); track group.heading) {
        <h2>{{ group.heading }}</h2>
        <ul>
          @for (item of group.items; track item.sheet) {
            <li>
              <a
                [routerLink]="item.sheet"
                queryParamsHandling="preserve"
                routerLinkActive="here"
                ariaCurrentWhenActive="page"
              >
                @if (item.verdict) {
                  <hs-verdict [verdict]="item.verdict" />
                } @else {
                  <span class="gap"></span>
                }
                <span class="name">{{ item.name }}</span>
                @if (item.count) {
                  <span class="count mono">{{ item.count }}</span>
                }
              </a>
            </li>
          }
        </ul>
      }
    </nav>
  `,
  styles: `
    nav {
      padding: 8px 0 0 4px;
    }
    h2 {
      margin: 10px 0 4px;
      font-size: 12.5px;
      font-weight: 500;
      color: var(--soft);
    }
    a {
      display: flex;
      align-items: center;
      gap: 9px;
      min-height: 32px;
      padding: 2px 8px;
      border-left: 3px solid transparent;
      border-radius: 6px;
      color: var(--ink);
      text-decoration: none;
      font-size: 13.5px;
    }
    a:hover {
      background: var(--steel-light);
    }
    a.here {
      background: var(--sheet);
      border-left-color: var(--blue);
      font-weight: 600;
    }
    .gap {
      width: 14px;
    }
    .count {
      margin-left: auto;
      font-size: 12px;
      color: var(--soft);
    }
    @media (max-width: 820px) {
      nav {
        display: flex;
        overflow-x: auto;
        padding: 6px 8px 0;
        gap: 4px;
        scrollbar-width: none;
      }
      h2 {
        display: none;
      }
      ul {
        display: flex;
        gap: 4px;
      }
      a {
        min-height: 44px;
        white-space: nowrap;
        border-left: 0;
        border-bottom: 3px solid transparent;
      }
      a.here {
        border-bottom-color: var(--blue);
      }
    }
  `,
})
export class Rail {
  private readonly bench = inject(Bench);
  protected readonly groups = computed(() => {
    const findings = this.bench.derived()?.findings ?? [];
    const entries = this.bench.ledger().length;
    const worst = (sheet: string): Verdict | null =>
      VERDICTS.find((verdict) => findings.some(({ place, verdict: of }) => place.sheet === sheet && of === verdict)) ??
      null;
    return RAIL_GROUPS.map((heading) => ({
      heading,
      items: SHEETS.filter(({ group }) => group === heading).map(({ sheet, name, counts }) => ({
        sheet,
        name,
        verdict: worst(sheet),
        count: counts === 'ledger' ? entries : 0,
      })),
    }));
  });
}
