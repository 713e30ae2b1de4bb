import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, afterRenderEffect, input, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';

export interface TabItem {
  readonly tab: string;
  readonly label: string;
}

/** Parts of a sheet, each with its own address. */
@Component({
  selector: 'hs-tabs',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav #nav [attr.aria-label]="label()">
      @for (item of tabs(); track item.tab) {
        <a
          [routerLink]="[]"
          [queryParams]="{ tab: item.tab, at: null }"
          queryParamsHandling="merge"
          [class.on]="active() === item.tab"
          [attr.aria-current]="active() === item.tab ? 'page' : null"
          >{{ item.label }}</a
        >
      }
    </nav>
  `,
  styles: `
    @use 'breakpoints' as *;
    nav {
      display: flex;
      gap: 18px;
      margin-bottom: 10px;
      border-bottom: 1px solid var(--rule);
      overflow-x: auto;
      scrollbar-width: none;
    }
    a {
      padding: 4px 0 6px;
      color: var(--soft);
      text-decoration: none;
      white-space: nowrap;
      border-bottom: 2px solid transparent;
    }
    a.on {
      color: var(--ink);
      font-weight: 600;
      border-bottom-color: var(--blue);
    }
    @media #{$narrow} {
      a {
        padding: 12px 0;
      }
    }
  `,
})
export class Tabs {
  readonly label = input.required<string>();
  readonly tabs = input.required<readonly TabItem[]>();
  readonly active = input.required<string>();
  private readonly nav = viewChild.required<ElementRef<HTMLElement>>('nav');

  constructor() {
    // Where they don't all fit, the one that is open can be seen.
    afterRenderEffect({
      mixedReadWrite: () => {
        this.active();
        const nav = this.nav().nativeElement;
        const on = nav.querySelector<HTMLElement>('[aria-current]');
        if (!on) return;
        const [from, to] = [on.offsetLeft - nav.offsetLeft, on.offsetLeft - nav.offsetLeft + on.offsetWidth];
        if (from < nav.scrollLeft || to > nav.scrollLeft + nav.clientWidth) nav.scrollLeft = from - 24;
      },
    });
  }
}
