import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { HOOK_EVENTS, type Hook, type HookEventType } from '@hot-spline/model';
import { sayMoment } from '../base/day';
import { Asking } from '../shared/asking';
import { RemoveButton } from '../shared/remove-button';
import { api } from '../state/api';

const EVENT_WORDS: Readonly<Record<HookEventType, string>> = {
  'build.state': 'a build changes its state',
  'gate.signed': 'a gate is signed',
  'part.needed': 'a part is needed',
};

/** Programs of others that are told what happens here: where, of what, and how it went. */
@Component({
  selector: 'hs-hooks',
  imports: [RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Programs that are told</h2>
    <p class="soft">
      A program of yours is called when something happens here, signed after Standard Webhooks; what it does not take is
      told again, for two days.
    </p>
    @if (asking.problem(); as why) {
      <p class="caution" role="alert">{{ why }}</p>
    }
    <ul>
      @for (one of hooks(); track one.id) {
        <li>
          <strong class="mono">{{ one.url }}</strong>
          <span class="soft">{{ wordsOf(one) }}</span>
          <span [class.stop]="one.problem">{{ stateOf(one) }}</span>
          <button
            type="button"
            class="quiet"
            [disabled]="asking.busy()"
            [attr.aria-label]="'Try it: ' + one.url"
            (click)="test(one)"
          >
            Try it
          </button>
          <hs-remove [what]="one.url" [asks]="true" (removed)="drop(one.id)" />
        </li>
      } @empty {
        <li class="soft">Nobody is told anything.</li>
      }
    </ul>
    @if (tried(); as how) {
      <p role="status">{{ how }}</p>
    }
    @if (secret(); as words) {
      <div class="caution" role="status">
        <p>The secret that its calls are signed with. It is not shown again.</p>
        <code>{{ words }}</code>
      </div>
    }
    <form (submit)="add($event, url)">
      <label for="hook-url">Address that is called</label>
      <input
        #url
        id="hook-url"
        class="control"
        type="url"
        maxlength="500"
        placeholder="https://office.shop.example/told"
      />
      <fieldset>
        <legend class="soft">When</legend>
        @for (one of events; track one) {
          <label
            ><input type="checkbox" [checked]="wanted().includes(one)" (change)="want(one)" /> {{ words[one] }}</label
          >
        }
      </fieldset>
      <button type="submit" class="quiet main" [disabled]="asking.busy() || wanted().length === 0">Tell it</button>
    </form>
  `,
  styles: `
    :host {
      display: block;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: center;
      padding: 6px 0;
      overflow-wrap: anywhere;
    }
    .stop {
      color: var(--stop);
    }
    form {
      display: grid;
      gap: 8px;
      justify-items: start;
      margin-top: 12px;
    }
    .control {
      width: min(460px, 100%);
    }
    fieldset {
      display: grid;
      gap: 2px;
      margin: 0;
      padding: 0;
      border: 0;
    }
    fieldset label {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 32px;
    }
    code {
      overflow-wrap: anywhere;
    }
  `,
})
export class HooksPanel {
  protected readonly asking = new Asking();
  protected readonly events = HOOK_EVENTS;
  protected readonly words = EVENT_WORDS;
  protected readonly hooks = signal<readonly Hook[]>([]);
  protected readonly wanted = signal<readonly HookEventType[]>(HOOK_EVENTS);
  protected readonly secret = signal('');
  protected readonly tried = signal('');

  constructor() {
    void this.asking.run(() => this.read());
  }

  private async read(): Promise<void> {
    this.hooks.set(await api.hooks());
  }

  protected wordsOf({ events }: Hook): string {
    return `when ${events.map((one) => EVENT_WORDS[one]).join(', or ')}`;
  }

  protected stateOf({ okAt, problem, waiting }: Hook): string {
    const took = okAt === null ? 'took nothing yet' : `took something last on ${sayMoment(okAt)}`;
    const rest = waiting === 0 ? '' : `; ${waiting} still to be told`;
    return problem === '' ? `${took}${rest}` : `${problem}${rest}`;
  }

  protected want(event: HookEventType): void {
    this.wanted.update((all) => HOOK_EVENTS.filter((one) => all.includes(one) !== (one === event)));
  }

  protected async add(event: Event, url: HTMLInputElement): Promise<void> {
    event.preventDefault();
    await this.asking.run(async () => {
      const { secret } = await api.addHook({ url: url.value, events: [...this.wanted()] });
      this.secret.set(secret);
      url.value = '';
      await this.read();
    });
  }

  protected async test({ id, url }: Hook): Promise<void> {
    await this.asking.run(async () => {
      const { took, problem } = await api.testHook(id);
      this.tried.set(took ? `${url} took it.` : `${url} did not take it. ${problem}`);
    });
  }

  protected async drop(id: string): Promise<void> {
    await this.asking.run(async () => {
      await api.dropHook(id);
      await this.read();
    });
  }
}
