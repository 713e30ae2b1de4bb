import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { Store } from '@ngrx/store';
import { VERDICTS, type Verdict } from '@hot-spline/model';
import { RAIL_GROUPS } from '../shared/descriptor';
import { VerdictMark } from '../shared/verdict';
import { SHEETS } from '../shared/sheet-list';
import { Bench } from '../state/bench';
import { uiActions } from '../state/ui';
import { OpenSheet } from './open-sheet';
import { tally } from './findings';

@Component({
  selector: 'hs-rail',
  imports: [RouterLink, RouterLinkActive, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="fold" aria-controls="rail" [attr.aria-expanded]="open()" (click)="open.set(!open())">
      @if (here(); as item) {
        @if (item.verdict) {
          <hs-verdict [verdict]="item.verdict" />
        }
        <strong>{{ item.name }}</strong>
      }
      @if (next(); as item) {
        <span class="next">next: {{ item.name }}</span>
      }
      <i class="pi" [class.pi-angle-down]="!open()" [class.pi-angle-up]="open()" aria-hidden="true"></i>
      <span class="visually-hidden">{{ open() ? 'Fold the Rail' : 'Show the Rail' }}</span>
    </button>
    <nav id="rail" [class.open]="open()" aria-label="The Rail: order of work">
      @for (group of groups(); track group.heading) {
        <h2>
          <button
            type="button"
            [attr.aria-expanded]="group.heading === shown()"
            [attr.aria-controls]="'rail-' + $index"
            (click)="shown.set(group.heading === shown() ? null : group.heading)"
          >
            <span>{{ group.heading }}</span>
            @if (group.heading !== shown()) {
              <span class="worst">
                @if (group.worst) {
                  <hs-verdict [verdict]="group.worst" />
                }
                {{ group.tally }}
              </span>
            }
          </button>
        </h2>
        <ul [id]="'rail-' + $index" [hidden]="group.heading !== shown()">
          @for (item of group.items; track item.sheet) {
            <li>
              <a
                [routerLink]="item.sheet"
                (click)="open.set(false)"
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
      <button type="button" class="keys" (click)="showKeys()">Keys <kbd>?</kbd></button>
    </nav>
  `,
  styles: `
    @use 'breakpoints' as *;
    nav {
      padding: 8px 0 0 4px;
    }
    h2 {
      margin: 0;
    }
    h2 button {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 6px;
      width: 100%;
      min-height: 36px;
      padding: 2px 8px;
      border: 0;
      border-radius: 6px;
      background: none;
      color: var(--soft);
      font-size: var(--text-s);
      font-weight: 500;
      cursor: pointer;
    }
    h2 button:hover {
      background: var(--steel-light);
    }
    h2 button[aria-expanded='true'] {
      color: var(--ink);
      font-weight: 600;
    }
    .worst {
      display: flex;
      align-items: center;
      gap: 5px;
      font-weight: 400;
    }
    .worst hs-verdict {
      width: 12px;
      height: 12px;
    }
    ul[hidden] {
      display: none;
    }
    ul {
      margin-bottom: 6px;
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
      font-size: var(--text-s);
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
      font-size: var(--text-xs);
      color: var(--soft);
    }
    .keys {
      margin: 10px 0 0 11px;
      padding: 4px 0;
      border: 0;
      background: none;
      color: var(--soft);
      font-size: var(--text-s);
      cursor: pointer;
    }
    kbd {
      padding: 0 5px;
      border: 1px solid var(--rule);
      border-radius: 4px;
      font-family: var(--mono);
    }
    .fold {
      display: none;
    }
    @media #{$narrow} {
      .fold {
        display: flex;
        align-items: center;
        gap: 8px;
        width: 100%;
        min-height: 44px;
        padding: 0 12px;
        background: none;
        border: 0;
        cursor: pointer;
      }
      .next {
        margin-left: auto;
        color: var(--soft);
        font-size: var(--text-s);
      }
      .keys {
        display: none;
      }
      nav:not(.open) {
        display: none;
      }
      nav {
        padding: 0 8px 8px;
      }
      a,
      h2 button {
        min-height: 44px;
      }
    }
  `,
})
export class Rail {
  private readonly store = inject(Store);
  private readonly bench = inject(Bench);
  private readonly sheets = inject(SHEETS);
  private readonly sheet = inject(OpenSheet).sheet;
  /** On a phone: where I am and what is next, until it is opened. */
  protected readonly open = signal(false);
  private readonly items = computed(() => this.groups().flatMap(({ items }) => items));
  protected readonly here = computed(() => {
    const sheet = this.sheet()?.sheet;
    return this.items().find((item) => item.sheet === sheet) ?? null;
  });
  /** The first sheet after this one where something is open. */
  protected readonly next = computed(() => {
    const items = this.items();
    const at = items.findIndex((item) => item === this.here());
    const open = ({ verdict }: (typeof items)[number]): boolean => verdict !== null && verdict !== 'fits';
    return [...items.slice(at + 1), ...items.slice(0, Math.max(at, 0))].find(open) ?? null;
  });
  protected readonly groups = computed(() => {
    const findings = this.bench.derived()?.findings ?? [];
    const entries = this.bench.ledger().length;
    const build = this.bench.build();
    const worst = (sheet: string): Verdict | null =>
      VERDICTS.find((verdict) => findings.some(({ place, verdict: of }) => place.sheet === sheet && of === verdict)) ??
      null;
    return RAIL_GROUPS.map((heading) => {
      const sheets = this.sheets.filter(({ group }) => group === heading).map(({ sheet }) => sheet);
      const of = findings.filter(({ place, verdict }) => sheets.includes(place.sheet) && verdict !== 'fits');
      return {
        heading,
        worst: VERDICTS.find((verdict) => of.some((one) => one.verdict === verdict)) ?? null,
        tally: of.length === 0 ? '' : tally(of).replace(/,.*/, ''),
        items: this.sheets
          .filter(({ group, shows }) => group === heading && (build === null || shows?.(build) !== false))
          .map(({ sheet, name, counts }) => ({
            sheet,
            name,
            verdict: worst(sheet),
            count: counts === 'ledger' ? entries : 0,
          })),
      };
    });
  });
  /** The group in hand is open; another one that is asked for, until one goes to another sheet. */
  protected readonly shown = linkedSignal<string | null>(() => this.sheet()?.group ?? RAIL_GROUPS[0]);

  protected showKeys(): void {
    this.store.dispatch(uiActions.keysFlipped());
  }
}
