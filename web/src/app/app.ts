import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Toast } from 'primeng/toast';
import { FocusKeeper } from './shared/focus-keeper';
import { Away } from './state/away';

@Component({
  selector: 'hs-root',
  imports: [RouterOutlet, Toast],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <router-outlet />
    <p-toast position="bottom-center" [breakpoints]="{ '640px': { width: '94vw' } }" />
  `,
})
export class App {
  constructor() {
    inject(Away).begin();
    inject(FocusKeeper).begin();
  }
}
