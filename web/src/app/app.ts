import { ApplicationRef, ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { Toast } from 'primeng/toast';
import { ScannedChoice } from './frame/scanned-choice';
import { Scanner } from './frame/scanner';
import { FocusKeeper } from './shared/focus-keeper';
import { Away } from './state/away';
import { Changes } from './state/changes';
import { uiActions, uiFeature } from './state/ui';

@Component({
  selector: 'hs-root',
  imports: [RouterOutlet, ScannedChoice, Toast],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <router-outlet />
    @defer (when scanner.choice()) {
      <hs-scanned />
    }
    <p-toast position="bottom-center" [breakpoints]="{ '640px': { width: '94vw' } }">
      <ng-template #message let-message>
        <div class="p-toast-message-text">
          <span class="p-toast-summary">{{ message.summary }}</span>
          <div class="p-toast-detail">{{ message.detail }}</div>
        </div>
        @if (message.data?.undo; as undo) {
          <button type="button" class="quiet" (click)="undo(); close($event)">Undo</button>
        }
      </ng-template>
    </p-toast>
  `,
})
export class App {
  protected readonly scanner = inject(Scanner);

  constructor() {
    inject(Away).begin();
    inject(Changes).begin();
    inject(FocusKeeper).begin();
    this.scanner.begin();
    this.printByDay();
  }

  /** Drawings are made of the colours in force: by night they are drawn by day for as long as it is printed. */
  private printByDay(): void {
    const store = inject(Store);
    const app = inject(ApplicationRef);
    const night = store.selectSignal(uiFeature.selectNight);
    let turned = false;
    const turn = (): void => {
      store.dispatch(uiActions.themeFlipped());
      app.tick();
      turned = !turned;
    };
    addEventListener('beforeprint', () => night() && turn());
    addEventListener('afterprint', () => turned && turn());
  }

  /** As its own cross does: cleared from outside, a message that the mouse leaves comes back. */
  protected close({ currentTarget }: Event): void {
    if (currentTarget instanceof HTMLElement)
      currentTarget.closest('p-toastitem')?.querySelector<HTMLElement>('.p-toast-close-button')?.click();
  }
}
