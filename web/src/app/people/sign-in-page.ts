import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { Router } from '@angular/router';
import { Asking } from '../shared/asking';
import { api } from '../state/api';
import { Outbox } from '../state/outbox';
import { Session } from '../state/session';

/** The door of a shop: name and password; what this device still holds waits until somebody is in. */
@Component({
  selector: 'hs-sign-in-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      <h1>Hot Spline</h1>
      <form (submit)="enter($event, name.value, word.value)">
        <label for="in-name">Name, as it stands on what you write</label>
        <input #name id="in-name" class="control" maxlength="60" autocomplete="username" autocapitalize="words" />
        <label for="in-password">Password</label>
        <input #word id="in-password" class="control" type="password" maxlength="200" autocomplete="current-password" />
        @if (problem(); as why) {
          <p class="caution" role="alert">{{ why }}</p>
        }
        <button type="submit" class="quiet main" [disabled]="busy()">Sign in</button>
        @if (waiting(); as n) {
          <p class="soft">
            {{ n }} {{ n === 1 ? 'change waits' : 'changes wait' }} on this device, and will go out then.
          </p>
        }
        <p class="soft">No account yet? Somebody who owns this shop invites you, by a link or a code to scan.</p>
      </form>
    </main>
  `,
  styleUrl: './door.scss',
})
export class SignInPage {
  readonly to = input<string>();
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly outbox = inject(Outbox);
  protected readonly waiting = this.outbox.waiting;
  private readonly asking = new Asking();
  protected readonly problem = this.asking.problem;
  protected readonly busy = this.asking.busy;

  protected async enter(event: Event, name: string, password: string): Promise<void> {
    event.preventDefault();
    await this.asking.run(async () => {
      this.session.take(await api.signIn(name, password));
      this.outbox.resume();
      const to = this.to() ?? '/';
      // Only within the app: what a link says is not followed elsewhere.
      await this.router.navigateByUrl(/^\/(?![/\\])/.test(to) ? to : '/');
    });
  }
}
