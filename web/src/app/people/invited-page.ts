import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Router } from '@angular/router';
import { Asking } from '../shared/asking';
import { api } from '../state/api';
import { Outbox } from '../state/outbox';
import { Session } from '../state/session';

/** Behind the link of an invitation: a name and a password of one’s own. The secret stands behind the #, which no server’s log sees. */
@Component({
  selector: 'hs-invited-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      <h1>You are invited</h1>
      <form (submit)="accept($event, name.value, word.value, again.value)">
        <label for="new-name">Name or initials, as they will stand on what you write</label>
        <input #name id="new-name" class="control" maxlength="60" autocomplete="username" />
        <label for="new-password">Password, eight characters at the least</label>
        <input #word id="new-password" class="control" type="password" maxlength="200" autocomplete="new-password" />
        <label for="new-again">Once more</label>
        <input #again id="new-again" class="control" type="password" maxlength="200" autocomplete="new-password" />
        @if (problem(); as why) {
          <p class="caution" role="alert">{{ why }}</p>
        }
        <button type="submit" class="quiet main" [disabled]="busy()">Come in</button>
      </form>
    </main>
  `,
  styleUrl: './door.scss',
})
export class InvitedPage {
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly outbox = inject(Outbox);
  private readonly token = location.hash.slice(1);
  private readonly asking = new Asking();
  protected readonly problem = this.asking.problem;
  protected readonly busy = this.asking.busy;

  constructor() {
    if (this.token === '') this.problem.set('This link is not whole: ask for it once more.');
  }

  protected async accept(event: Event, name: string, password: string, again: string): Promise<void> {
    event.preventDefault();
    if (password !== again) {
      this.problem.set('The two passwords are not the same.');
      return;
    }
    await this.asking.run(async () => {
      this.session.take(await api.acceptInvitation(this.token, name, password));
      this.outbox.resume();
      await this.router.navigateByUrl('/');
    });
  }
}
