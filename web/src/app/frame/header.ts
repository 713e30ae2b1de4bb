import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { UnitSystem } from '@hot-spline/core';
import { Store } from '@ngrx/store';
import { sayTime } from '../base/day';
import { Radios } from '../shared/radios';
import { Away } from '../state/away';
import { Outbox, type Keeps } from '../state/outbox';
import { Session } from '../state/session';
import { ShopSettings } from '../state/shop-settings';
import { NotTakenPanel } from './not-taken';
import { Who } from './who';
import { uiActions, uiFeature } from '../state/ui';

const UNKEPT_WORDS: Readonly<Record<Keeps, string | null>> = {
  all: null,
  'no-more': 'No room on this device: what you change goes to the server at once, or is said to be not kept.',
  nothing:
    'This browser keeps nothing on this device: what you change goes to the server at once, or is said to be not kept.',
};

/** Name of the app and of the build, search, units, theme, and how the saving stands. */
@Component({
  selector: 'hs-header',
  imports: [NotTakenPanel, Radios, RouterLink, Who],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <a class="brand" routerLink="/">Hot Spline</a>
      <span class="title">{{ title() }}</span>
      <span class="saving" role="status" [class.trouble]="trouble() !== null || away()">{{ saving() }}</span>
      <hs-not-taken />
      <ng-content />
      <button type="button" class="find" aria-label="Find a build, part, figure" (click)="find.emit()">
        <i class="pi pi-search" aria-hidden="true"></i>
        <span>Find a build, part, figure</span>
        <kbd>/</kbd>
      </button>
      <button
        type="button"
        class="quiet icon bare more"
        aria-label="Units, theme and who works here"
        [attr.aria-expanded]="open()"
        (click)="open.set(!open())"
      >
        <i class="pi pi-ellipsis-v" aria-hidden="true"></i>
      </button>
      <div class="tools" [class.open]="open()">
        <hs-radios
          name="units"
          label="Units"
          [labelHidden]="true"
          [options]="systems"
          [value]="system()"
          (chosen)="choose($event)"
        />
        <hs-who />
        <button
          type="button"
          class="quiet icon bare theme"
          (click)="flipTheme()"
          [attr.aria-label]="night() ? 'Day theme' : 'Night theme'"
        >
          <i class="pi" [class.pi-sun]="night()" [class.pi-moon]="!night()" aria-hidden="true"></i>
        </button>
      </div>
    </header>
    @if (unkept(); as words) {
      <p class="strip no-print" role="status">{{ words }}</p>
    }
    @if (session.looks()) {
      <p class="strip no-print" role="note">You look at this shop: nothing that you change here is kept.</p>
    }
    @if (shop.open()) {
      <p class="strip no-print" role="note">
        Open to the network: whoever reaches this address can read and change everything. Nobody signs in.
      </p>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    header {
      display: flex;
      align-items: center;
      gap: 10px;
      height: 44px;
      padding: 0 16px;
      border-bottom: 1px solid var(--rule);
    }
    .brand {
      font-size: var(--text-l);
      font-weight: 600;
      color: var(--ink);
      text-decoration: none;
      white-space: nowrap;
    }
    .title {
      color: var(--soft);
      font-size: var(--text-m);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      min-width: 40px;
    }
    .saving {
      margin-left: auto;
      font-size: var(--text-s);
      color: var(--soft);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .strip {
      padding: 2px 12px;
      font-size: var(--text-s);
      background: var(--ochre-wash);
      color: var(--ochre-text);
      border-bottom: 1px solid var(--rule);
    }
    .trouble {
      color: var(--ochre-text);
      background: var(--ochre-wash);
      padding: 2px 8px;
      border-radius: 6px;
    }
    .find {
      display: flex;
      justify-content: space-between;
      align-items: center;
      width: 220px;
      min-height: 30px;
      padding: 2px 10px;
      border: 1px solid var(--rule);
      border-radius: 6px;
      background: var(--sheet);
      color: var(--soft);
      cursor: pointer;
    }
    .find:hover {
      border-color: var(--blue);
    }
    .find .pi {
      display: none;
    }
    kbd {
      font-family: var(--mono);
      font-size: var(--text-xs);
      padding: 0 6px;
      border: 1px solid var(--rule);
      border-radius: 4px;
    }
    .tools {
      display: flex;
      align-items: center;
      gap: 10px;
    }
    .more {
      display: none;
    }
    @media #{$narrow} {
      header {
        position: relative;
        height: 52px;
        padding: 4px 8px;
        gap: 2px;
      }
      .brand:has(+ .title:not(:empty)) {
        display: none;
      }
      .title {
        flex: 1;
      }
      .title:empty {
        display: none;
      }
      .brand {
        margin-right: auto;
      }
      .find {
        width: auto;
        min-width: 44px;
        min-height: 44px;
        justify-content: center;
        border-color: transparent;
        background: none;
      }
      .find .pi {
        display: inline;
      }
      .find span,
      kbd,
      .saving:not(.trouble) {
        display: none;
      }
      .trouble {
        max-width: 110px;
      }
      .more {
        display: inline-flex;
        min-height: 44px;
      }
      .tools {
        display: none;
      }
      .tools.open {
        position: absolute;
        z-index: 15;
        top: 52px;
        right: 0;
        display: flex;
        padding: 8px;
        background: var(--sheet);
        border: 1px solid var(--rule);
        border-radius: 0 0 0 var(--radius);
      }
    }
  `,
})
export class Header {
  readonly title = input('');
  /** When the open build was last acknowledged by the server. */
  readonly savedAt = input<string | null>(null);
  readonly find = output<void>();
  private readonly store = inject(Store);
  private readonly outbox = inject(Outbox);
  protected readonly shop = inject(ShopSettings);
  protected readonly session = inject(Session);

  /** On a phone: the tools behind the last button. */
  protected readonly open = signal(false);
  protected readonly systems = [
    { value: 'inch', label: 'inch' },
    { value: 'metric', label: 'metric' },
  ] as const;
  protected readonly system = this.store.selectSignal(uiFeature.selectSystem);
  protected readonly night = this.store.selectSignal(uiFeature.selectNight);
  protected readonly trouble = this.outbox.trouble;
  /** What this device does not keep, in words. */
  protected readonly unkept = computed(() => UNKEPT_WORDS[this.outbox.keeps()]);
  private readonly server = inject(Away);
  protected readonly away = this.server.away;
  protected readonly saving = computed(() => {
    const waiting = this.outbox.waiting();
    const trouble = this.outbox.trouble();
    if (trouble !== null && waiting === 0) return trouble;
    if (trouble !== null) return `${trouble} ${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'}, kept here.`;
    if (this.outbox.holding()) return 'Held until you choose what to keep';
    if (this.away())
      return `Server away: as this device knew it last.${this.unkept() === null ? ' Readings are kept here.' : ''}`;
    if (waiting > 0) return 'Saving…';
    if (this.server.newer()) return 'A newer version is ready: reload';
    const at = this.savedAt();
    return at === null ? '' : `Saved ${sayTime(at)}`;
  });

  protected choose(system: UnitSystem): void {
    this.store.dispatch(uiActions.systemChosen({ system }));
  }

  protected flipTheme(): void {
    this.store.dispatch(uiActions.themeFlipped());
  }
}
