import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import type { UnitSystem } from '@hot-spline/core';
import { Store } from '@ngrx/store';
import { SelectButton } from 'primeng/selectbutton';
import { Outbox } from '../state/outbox';
import { uiActions, uiFeature } from '../state/ui';

/** Name of the app and of the build, search, units, theme, and how the saving stands. */
@Component({
  selector: 'hs-header',
  imports: [RouterLink, SelectButton, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <a class="brand" routerLink="/">Hot Spline</a>
      <span class="title">{{ title() }}</span>
      <span class="saving" role="status" [class.trouble]="trouble() !== null">{{ saving() }}</span>
      <ng-content />
      <button type="button" class="find" (click)="find.emit()">
        <span>Find a build, part, figure</span>
        <kbd>/</kbd>
      </button>
      <p-selectbutton
        size="small"
        ariaLabelledBy="units-label"
        [options]="systems"
        [allowEmpty]="false"
        [ngModel]="system()"
        (ngModelChange)="choose($event)"
      />
      <span id="units-label" class="visually-hidden">Units</span>
      <button
        type="button"
        class="quiet icon bare theme"
        (click)="flipTheme()"
        [attr.aria-label]="night() ? 'Day theme' : 'Night theme'"
      >
        <i class="pi" [class.pi-sun]="night()" [class.pi-moon]="!night()" aria-hidden="true"></i>
      </button>
    </header>
  `,
  styles: `
    header {
      display: flex;
      align-items: center;
      gap: 10px;
      height: 44px;
      padding: 0 16px;
      border-bottom: 1px solid var(--rule);
    }
    .brand {
      font-size: 16px;
      font-weight: 600;
      color: var(--ink);
      text-decoration: none;
      white-space: nowrap;
    }
    .title {
      color: var(--soft);
      font-size: 15px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      min-width: 40px;
    }
    .saving {
      margin-left: auto;
      font-size: 12.5px;
      color: var(--soft);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
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
    kbd {
      font-family: var(--mono);
      font-size: 12px;
      padding: 0 6px;
      border: 1px solid var(--rule);
      border-radius: 4px;
    }
    @media (max-width: 820px) {
      header {
        flex-wrap: wrap;
        height: auto;
        padding: 4px 8px;
        gap: 4px 6px;
      }
      .brand {
        margin-right: auto;
      }
      .theme {
        order: 10;
      }
      .title:not(:empty) {
        order: 9;
        flex: 1 1 calc(100% - 60px);
      }
      .saving {
        margin-left: 0;
      }
      .find {
        width: auto;
        border-color: transparent;
        background: none;
      }
      .find span,
      .saving:not(.trouble) {
        display: none;
      }
      .trouble {
        max-width: 110px;
      }
    }
    @media print {
      .find,
      .saving,
      p-selectbutton,
      .quiet {
        display: none;
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

  protected readonly systems: UnitSystem[] = ['inch', 'metric'];
  protected readonly system = this.store.selectSignal(uiFeature.selectSystem);
  protected readonly night = this.store.selectSignal(uiFeature.selectNight);
  protected readonly trouble = this.outbox.trouble;
  protected readonly saving = computed(() => {
    const waiting = this.outbox.waiting();
    const trouble = this.outbox.trouble();
    if (trouble !== null) return `${trouble} ${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'}, kept here.`;
    if (this.outbox.holding()) return 'Held until you choose what to keep';
    if (waiting > 0) return 'Saving…';
    const at = this.savedAt();
    return at === null ? '' : `Saved ${new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}`;
  });

  protected choose(system: UnitSystem): void {
    this.store.dispatch(uiActions.systemChosen({ system }));
  }

  protected flipTheme(): void {
    this.store.dispatch(uiActions.themeFlipped());
  }
}
