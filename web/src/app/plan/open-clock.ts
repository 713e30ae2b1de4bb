import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, input, signal } from '@angular/core';
import { entryBase } from '@hot-spline/core';
import { workSubjects } from '@hot-spline/model';
import { WorkEdit } from './work-edit';

const WORDS = {
  sealant: {
    first: 'Both faces dry and without oil first.',
    begin: 'Sealant is on the face',
    open: 'since the sealant went on. Close it when a finger comes away clean: its tube says when, and until when.',
    end: 'Closed on it',
    closed: 'since it was closed on the sealant. Oil and driving wait until it has cured: the hours are on its tube.',
  },
  compound: {
    first: 'Every place clean, dry and without oil first.',
    begin: 'Compound is on',
    open: 'since the compound went on. Started means finished before it sets.',
    end: 'Finished in time',
    closed: 'since it was finished. It cures by its own hours before it is loaded or gets oil.',
  },
} as const;

/** What sets while it is worked with: how long it has been open, against the time that its sheet gives, and since when it cures. */
@Component({
  selector: 'hs-open-clock',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = state();
    @let w = words();
    @if (s && !s.closed) {
      <p [class.over]="over()">
        <strong class="mono">{{ minutes() }} min</strong> {{ w.open }}
        @if (over()) {
          <strong>Over its open time of {{ limit() }} min: cleaned off, and begun again.</strong>
        } @else if (limit(); as of) {
          Open for {{ of }} min by its sheet.
        }
      </p>
      <button type="button" class="quiet" (click)="set('closed')">{{ w.end }}</button>
      <button type="button" class="quiet" (click)="set('cleaned off')">Set too long: cleaned off</button>
    } @else if (s) {
      <p>
        <strong class="mono">{{ hours() }}</strong> {{ w.closed }}
      </p>
    } @else {
      <p class="soft">{{ w.first }}</p>
      <button type="button" class="quiet" (click)="set('on')">{{ w.begin }}</button>
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
    .over strong {
      color: var(--stop);
    }
  `,
})
export class OpenClock {
  /** What sets: sealant on the face of the axle, or the compounds of a step. */
  readonly of = input.required<keyof typeof WORDS>();
  readonly step = input.required<string>();
  protected readonly edit = inject(WorkEdit);
  private readonly now = signal(Date.now());
  protected readonly words = computed(() => WORDS[this.of()]);
  protected readonly state = computed(() =>
    this.of() === 'sealant'
      ? (this.edit.state()?.sealant ?? null)
      : (this.edit.state()?.steps.find(({ step }) => step.id === this.step())?.compound ?? null),
  );
  /** Minutes that its sheet leaves it open; null where nobody has said. */
  protected readonly limit = computed(() => {
    const sheet = this.edit.bench.axle()?.identity?.sheet;
    const told = this.of() === 'sealant' ? sheet?.sealantOpen : sheet?.compoundOpen;
    return told ? Math.round(entryBase(told.value) / 60) : null;
  });
  protected readonly minutes = computed(() => {
    const at = this.state()?.at;
    return at === undefined ? 0 : Math.max(0, Math.floor((this.now() - Date.parse(at)) / 60_000));
  });
  protected readonly over = computed(() => {
    const limit = this.limit();
    return limit !== null && this.minutes() > limit;
  });
  protected readonly hours = computed(() =>
    this.minutes() < 90 ? `${this.minutes()} min` : `${Math.floor(this.minutes() / 60)} h`,
  );

  constructor() {
    const timer = setInterval(() => this.now.set(Date.now()), 10_000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  protected set(choice: 'on' | 'closed' | 'cleaned off'): void {
    const axle = this.edit.axle();
    const subject =
      this.of() === 'sealant'
        ? workSubjects.sealant.of({ axle })
        : workSubjects.compound.of({ axle, step: this.step() });
    this.edit.bench.record(subject, { of: 'choice', choice }, 'By hand');
    this.now.set(Date.now());
  }
}
