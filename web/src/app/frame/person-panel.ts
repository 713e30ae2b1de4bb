import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Asking } from '../shared/asking';
import { api } from '../state/api';
import { Session } from '../state/session';

/** Who is signed in on this device: another one by a tap and a PIN, one's own PIN and password, and out. */
@Component({
  selector: 'hs-person',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as why) {
      <p class="caution" role="alert">{{ why }}</p>
    }
    @if (others().length) {
      <ul>
        @for (one of others(); track one.id) {
          <li>
            <button
              type="button"
              class="quiet person"
              [attr.aria-expanded]="chosen() === one.id"
              (click)="chosen.set(one.id)"
            >
              {{ one.name }}
            </button>
            @if (chosen() === one.id) {
              <form (submit)="change($event, one.id, pin)">
                <label [for]="'pin-' + one.id">PIN of {{ one.name }}</label>
                <input
                  #pin
                  [id]="'pin-' + one.id"
                  class="control"
                  type="password"
                  inputmode="numeric"
                  maxlength="12"
                  autocomplete="off"
                />
                <button type="submit" class="quiet main" [disabled]="busy()">Change to {{ one.name }}</button>
              </form>
            }
          </li>
        }
      </ul>
    } @else {
      <p class="soft">
        Others who signed in on this device, and have a PIN, stand here: then it changes hands by a tap and the PIN.
      </p>
    }
    <details>
      <summary>{{ session.me()?.pin ? 'My PIN and password' : 'Set a PIN' }}</summary>
      <form (submit)="keepPin($event, mine.value, digits)">
        <label for="own-password">Your password</label>
        <input #mine id="own-password" class="control" type="password" autocomplete="current-password" />
        <label for="own-pin">PIN, 4 to 12 digits; empty: none</label>
        <input
          #digits
          id="own-pin"
          class="control"
          type="password"
          inputmode="numeric"
          maxlength="12"
          autocomplete="off"
        />
        <button type="submit" class="quiet" [disabled]="busy()">Keep the PIN</button>
        <label for="other-password">Another password</label>
        <input #other id="other-password" class="control" type="password" autocomplete="new-password" />
        <button type="button" class="quiet" [disabled]="busy()" (click)="keepPassword(mine.value, other.value)">
          Keep the password; sign out everywhere else
        </button>
      </form>
    </details>
    <div class="tools">
      @if (session.keeps()) {
        <a class="quiet" routerLink="/people" (click)="done.emit()">People</a>
      }
      <a class="quiet" routerLink="/sign-in" (click)="done.emit()">Sign in as somebody else</a>
      <button type="button" class="quiet" [disabled]="busy()" (click)="leave(false)">Sign out</button>
      <button type="button" class="quiet" [disabled]="busy()" (click)="leave(true)">Sign out everywhere</button>
    </div>
  `,
  styles: `
    :host,
    ul,
    form {
      display: grid;
      gap: 8px;
    }
    .person {
      width: 100%;
      min-height: 48px;
      font-size: var(--text-l);
    }
    label,
    p {
      font-size: var(--text-s);
      color: var(--soft);
    }
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .control,
    button,
    a.quiet,
    summary {
      min-height: 44px;
    }
  `,
})
export class PersonPanel {
  protected readonly session = inject(Session);
  /** Nothing is left to be done here. */
  readonly done = output();
  protected readonly others = computed(() => this.session.me()?.others ?? []);
  protected readonly chosen = signal<string | null>(null);
  private readonly asking = new Asking();
  protected readonly problem = this.asking.problem;
  protected readonly busy = this.asking.busy;

  protected change(event: Event, id: string, field: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const pin = field.value;
    field.value = '';
    return this.asking.run(async () => {
      this.session.take(await api.switchPerson(id, pin));
      this.chosen.set(null);
      this.done.emit();
    });
  }

  protected keepPin(event: Event, password: string, field: HTMLInputElement): Promise<void> {
    event.preventDefault();
    return this.asking.run(async () => {
      this.session.take(await api.savePin(password, field.value === '' ? null : field.value));
      field.value = '';
    });
  }

  protected keepPassword(before: string, password: string): Promise<void> {
    return this.asking.run(async () => this.session.take(await api.savePassword(before, password)));
  }

  protected leave(everywhere: boolean): Promise<void> {
    return this.asking.run(async () => {
      await this.session.signOut(everywhere);
      this.done.emit();
    });
  }
}
