import { ChangeDetectionStrategy, Component, Injectable, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { HealthAnswer } from '@hot-spline/model';
import { sayMoment } from '../base/day';
import { ApiError, api } from '../state/api';

/** How the shop’s data is kept: whether all of it is there, and until when it is in a backup. */
@Injectable({ providedIn: 'root' })
export class KeepState {
  readonly health = signal<HealthAnswer | null>(null);
  readonly busy = signal('');

  read(): Promise<void> {
    return this.ask('', () => api.health());
  }

  check(): Promise<void> {
    return this.ask('check', () => api.check());
  }

  backUp(): Promise<void> {
    return this.ask('backup', () => api.backup());
  }

  private async ask(busy: string, call: () => Promise<HealthAnswer>): Promise<void> {
    this.busy.set(busy);
    try {
      this.health.set(await call());
    } catch (error) {
      // Away, as the header says: what was known stays.
      if (!(error instanceof ApiError)) throw error;
    } finally {
      this.busy.set('');
    }
  }
}

/** On the board: at its head what is wrong, at its foot how old the last backup is. */
@Component({
  selector: 'hs-keep-notice',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (keep.health(); as health) {
      @if (place() === 'head') {
        @if (health.damage.length) {
          <div class="caution" role="alert">
            <p><strong>Not all that was kept is here.</strong></p>
            <ul>
              @for (one of health.damage.slice(0, most); track one.build) {
                <li>
                  <a [routerLink]="['/builds', one.build]">{{ one.name }}</a>: {{ one.says }}
                </li>
              }
              @if (health.damage.length > most) {
                <li>and {{ health.damage.length - most }} more</li>
              }
            </ul>
            <p>
              The rest can be worked on. Look at the disk first; then bring back the last backup of before (<code
                >npm run restore</code
              >), or go on without it.
            </p>
            <button type="button" class="quiet" [disabled]="keep.busy() !== ''" (click)="keep.check()">
              {{ keep.busy() === 'check' ? 'Looking through everything…' : 'Look through everything again' }}
            </button>
          </div>
        }
        @if (trouble(); as why) {
          <div class="caution" role="alert">
            <p>{{ why }}</p>
            <button type="button" class="quiet" [disabled]="keep.busy() !== ''" (click)="keep.backUp()">
              {{ keep.busy() === 'backup' ? 'Making it…' : 'Make a backup now' }}
            </button>
          </div>
        }
      } @else if (health.backup; as backup) {
        <p class="soft foot no-print">
          {{
            backup.last
              ? 'All of it is in a backup until ' + moment(backup.last) + '.'
              : 'The first backup is being made.'
          }}
          @if (backup.last) {
            <button type="button" class="quiet bare" [disabled]="keep.busy() !== ''" (click)="keep.backUp()">
              {{ keep.busy() === 'backup' ? 'Making it…' : 'Make one now' }}
            </button>
          }
        </p>
      }
    }
  `,
  styles: `
    .caution {
      display: grid;
      gap: 6px;
      justify-items: start;
      margin-bottom: 12px;
    }
    ul {
      padding-left: 18px;
      list-style: disc;
    }
    .foot {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 10px;
      margin-top: 16px;
      font-size: var(--text-s);
    }
  `,
})
export class KeepNotice {
  readonly place = input.required<'head' | 'foot'>();
  protected readonly keep = inject(KeepState);
  protected readonly most = 8;
  protected readonly moment = sayMoment;
  /** Why the backups need somebody; empty while they don’t. The first one of a shop is made while one looks. */
  protected readonly trouble = computed(() => {
    const backup = this.keep.health()?.backup;
    if (!backup) return '';
    if (backup.problem) return `The last backup came to nothing: ${backup.problem}`;
    return backup.last !== null && backup.old
      ? `The last backup is of ${sayMoment(backup.last)}: too old to lean on.`
      : '';
  });
}
