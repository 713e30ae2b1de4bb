import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { TRIAL, TRIAL_KEYS, impossible, TRIAL_WORDS, type Trial, type TrialKey } from '@hot-spline/model';
import { SetUp } from './set-up';

/** State of the trial: stays from try to try, one tap changes one of it, every reading carries it. */
@Component({
  selector: 'hs-trial',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (came()) {
      <p class="came" role="status"><strong>As it came:</strong> nothing of it is loosened yet.</p>
    } @else if (items().length) {
      <div class="strip" role="group" aria-label="State of the trial">
        @for (item of items(); track item.key) {
          <button
            type="button"
            [id]="'state-' + item.key + '-' + axle()"
            [class.final]="item.final"
            [attr.aria-label]="item.label + ': ' + item.value + '; change'"
            (click)="next(item.key)"
          >
            <span class="label">{{ item.label }}</span>
            <span class="value">{{ item.value }}</span>
          </button>
        }
        <span class="verdict" role="status">{{ final() ? 'final: signs' : 'trial' }}</span>
      </div>
      @if (refused(); as why) {
        <p class="caution" role="alert">{{ why }}</p>
      }
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    .strip {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
      align-items: stretch;
      margin-bottom: 8px;
    }
    button {
      display: grid;
      gap: 0;
      min-height: 40px;
      padding: 2px 8px 3px;
      text-align: left;
      background: none;
      border: 1px solid var(--rule);
      border-radius: 6px;
      cursor: pointer;
    }
    button:hover {
      background: var(--blue-wash);
    }
    .label {
      font-size: var(--text-xs);
      line-height: 15px;
      color: var(--soft);
      white-space: nowrap;
    }
    .value {
      font-size: var(--text-s);
      line-height: 17px;
    }
    .came {
      margin: 0 0 8px;
    }
    .final .value {
      font-weight: 600;
      color: var(--fits);
    }
    .verdict {
      align-self: center;
      padding-left: 6px;
      font-size: var(--text-s);
      color: var(--soft);
    }
    @media #{$narrow} {
      .strip {
        flex-wrap: nowrap;
        overflow-x: auto;
        scrollbar-width: none;
      }
      button {
        min-height: 46px;
      }
    }
  `,
})
export class TrialStrip {
  private readonly setUp = inject(SetUp);
  protected readonly axle = this.setUp.axle;
  protected readonly came = this.setUp.asItCame;
  /** Why the last tap was not taken. */
  protected readonly refused = signal<string | null>(null);
  protected readonly final = computed(() => this.setUp.mesh()?.final ?? false);
  protected readonly items = computed(() => {
    const setup = this.setUp.setup();
    if (!setup) return [];
    const { state, gears } = setup;
    return TRIAL_KEYS.map((key) => {
      const words = TRIAL_WORDS[key] as Readonly<Record<string, string>>;
      const last = TRIAL[key].at(-1);
      const kept = gears === 'used' && (state[key] === 'used' || state[key] === 'old');
      return { key, label: words['label'], value: words[state[key]], final: state[key] === last || kept };
    });
  });

  /** The next one that can be, beside what else is said; why not is said where one is passed over. */
  protected next(key: TrialKey): void {
    const state = this.setUp.setup()?.state;
    if (!state) return;
    const all: readonly string[] = TRIAL[key];
    const at = all.indexOf(state[key]);
    const turns = all.map((_, i) => ({ ...state, [key]: all[(at + 1 + i) % all.length] }) as Trial);
    const [first, good] = [turns[0], turns.find((one) => impossible(one) === null)];
    this.refused.set(first ? impossible(first) : null);
    if (good)
      this.setUp.change((setup) => {
        setup.state = good;
      });
  }
}
