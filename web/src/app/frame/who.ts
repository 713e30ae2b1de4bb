import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { Dialog } from 'primeng/dialog';
import { Outbox } from '../state/outbox';
import { Session } from '../state/session';
import { uiActions, uiFeature } from '../state/ui';
import { PersonPanel } from './person-panel';

/** Who works on this device: chosen once, stamped on every write. */
@Component({
  selector: 'hs-who',
  imports: [Dialog, PersonPanel, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="quiet bare"
      [attr.aria-label]="who() === '' ? 'Say who works on this device' : 'This device writes as ' + who()"
      [title]="who() === '' ? 'Say who works here: it is stamped on what you write' : 'This device writes as ' + who()"
      (click)="open.set(true)"
    >
      <i class="pi pi-user" aria-hidden="true"></i><span class="name">{{ who() }}</span>
    </button>
    <p-dialog
      [header]="session.byName() ? 'You are ' + who() : 'Who works here'"
      closeAriaLabel="Close"
      [visible]="open() || asks()"
      (visibleChange)="open.set($event)"
      [modal]="true"
      [closable]="!asks()"
      [closeOnEscape]="!asks()"
      [dismissableMask]="!asks()"
      [style]="{ width: 'min(380px, 94vw)' }"
    >
      @if (session.byName()) {
        <hs-person (done)="open.set(false)" />
      } @else {
        <form (submit)="keep($event, box.value)">
          <label for="who-name">Name or initials, stamped on every reading and change of this device</label>
          <input
            #box
            id="who-name"
            class="control"
            maxlength="60"
            autocomplete="off"
            [value]="who()"
            (input)="typed.set(box.value)"
          />
          @if (asks()) {
            <p class="soft">Asked once. What you just wrote is kept here, and goes with this name.</p>
          }
          <button type="submit" class="quiet main" [disabled]="typed().trim() === ''">Keep</button>
          @if (session.me()?.door === 'alone') {
            <p class="soft">
              <a routerLink="/people" (click)="open.set(false)">People</a>: open this shop to its network, each with a
              name.
            </p>
          }
        </form>
      }
    </p-dialog>
  `,
  styles: `
    :host {
      display: contents;
    }
    .name {
      max-width: 90px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    form {
      display: grid;
      gap: var(--space-2);
    }
    label {
      font-size: var(--text-s);
      color: var(--soft);
    }
  `,
})
export class Who {
  private readonly store = inject(Store);
  protected readonly who = this.store.selectSignal(uiFeature.selectWho);
  protected readonly open = signal(false);

  protected readonly typed = linkedSignal(() => this.who());
  private readonly outbox = inject(Outbox);
  protected readonly session = inject(Session);
  /** The first write of this device asks for a name, once: nothing leaves without one, and what waits goes with it. */
  protected readonly asks = computed(() => this.who() === '' && this.outbox.unsigned() > 0 && !this.session.byName());

  protected keep(event: Event, who: string): void {
    event.preventDefault();
    if (who.trim() === '') return;
    this.store.dispatch(uiActions.whoChosen({ who: who.trim() }));
    this.open.set(false);
  }
}
