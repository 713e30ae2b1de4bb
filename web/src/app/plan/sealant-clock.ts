import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, signal } from '@angular/core';
import { workSubjects } from '@hot-spline/model';
import { WorkEdit } from './work-edit';

/** Sealant skins, is closed on, and cures: how long it has been on the face, and since when the face is closed. */
@Component({
  selector: 'hs-sealant-clock',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = edit.state()?.sealant;
    @if (s && !s.closed) {
      <p>
        <strong class="mono">{{ minutes() }} min</strong> since the sealant went on. Close it when a finger comes away
        clean: its tube says when, and until when.
      </p>
      <button type="button" class="quiet" (click)="set('closed')">Closed on it</button>
      <button type="button" class="quiet" (click)="set('cleaned off')">Set too long: cleaned off</button>
    } @else if (s) {
      <p>
        <strong class="mono">{{ hours() }}</strong> since it was closed on the sealant. Oil and driving wait until it
        has cured: the hours are on its tube.
      </p>
    } @else {
      <p class="soft">Both faces dry and without oil first.</p>
      <button type="button" class="quiet" (click)="set('on')">Sealant is on the face</button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 12px;
      margin: 8px 0;
      padding: 8px 12px;
      border: 1px solid var(--rule);
      border-radius: 6px;
    }
    p {
      flex: 1 1 260px;
      margin: 0;
    }
  `,
})
export class SealantClock {
  protected readonly edit = inject(WorkEdit);
  private readonly now = signal(Date.now());
  protected readonly minutes = computed(() => {
    const at = this.edit.state()?.sealant?.at;
    return at === undefined ? 0 : Math.max(0, Math.floor((this.now() - Date.parse(at)) / 60_000));
  });
  protected readonly hours = computed(() =>
    this.minutes() < 90 ? `${this.minutes()} min` : `${Math.floor(this.minutes() / 60)} h`,
  );

  constructor() {
    const timer = setInterval(() => this.now.set(Date.now()), 10_000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  protected set(choice: 'on' | 'closed' | 'cleaned off'): void {
    this.edit.bench.record(workSubjects.sealant.of({ axle: this.edit.axle() }), { of: 'choice', choice }, 'By hand');
    this.now.set(Date.now());
  }
}
