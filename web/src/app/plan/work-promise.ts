import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { ENOUGH_JOBS, promiseOf, type WorkState } from '@hot-spline/model';
import { Advisor } from '../mesh/advisor';
import { ShopSetUps } from '../state/set-ups';
import { Bench } from '../state/bench';

const hours = (minutes: number): string =>
  minutes < 90 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 6) / 10} h`;

/** What can be promised of the work that is left: hands on, rounds of the loop, and the calendar, each by itself. */
@Component({
  selector: 'hs-work-promise',
  providers: [Advisor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (says(); as s) {
      <dl aria-label="What can be promised">
        <div>
          <dt>Hands on, still</dt>
          <dd>
            <strong class="mono">{{ s.handsOn }}</strong>
            @if (s.range) {
              <span class="soft">{{ s.range }}</span>
            }
          </dd>
        </div>
        @if (s.rounds) {
          <div>
            <dt>Put together yet</dt>
            <dd>
              <strong class="mono">{{ s.rounds }}</strong> <span class="soft">{{ s.why }}</span>
            </dd>
          </div>
        }
        <div>
          <dt>By the calendar</dt>
          <dd>
            @if (s.days) {
              <strong class="mono">{{ s.days }}</strong>
            }
            <span class="soft">{{ s.calendar }}</span>
          </dd>
        </div>
        <div>
          <dt>Known from</dt>
          <dd class="soft">{{ s.from }}</dd>
        </div>
      </dl>
    }
  `,
  styles: `
    dl {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 28px;
      margin: 10px 0 16px;
      font-size: var(--text-s);
    }
    dt {
      color: var(--soft);
    }
    dd {
      margin: 0;
    }
    strong + span {
      margin-left: 6px;
    }
    div:last-child {
      flex-basis: 100%;
    }
  `,
})
export class WorkPromise {
  readonly state = input.required<WorkState>();
  private readonly advice = inject(Advisor).advice;
  private readonly shop = inject(ShopSetUps);
  private readonly own = inject(Bench).editor;
  protected readonly says = computed(() => {
    const state = this.state();
    if (state.next === null) return null;
    const past = this.shop.times().filter(({ build }) => build !== this.own().id);
    const chance = this.advice()?.chanceInSpec ?? null;
    const promise = promiseOf(state, past, chance);
    const { handsOnMinutes, fromMinutes, toMinutes, rounds, waitsHours, days, ownSteps, steps } = promise;
    return {
      handsOn: hours(handsOnMinutes),
      range: toMinutes > fromMinutes ? `${hours(fromMinutes)} to ${hours(toMinutes)}, quarter to quarter` : '',
      rounds: rounds === null ? '' : `about ${Math.round(rounds * 10) / 10} times`,
      why:
        chance !== null
          ? `the next one is right with ${Math.round(100 * chance)} %`
          : past.filter((one) => one.rounds > 0).length >= ENOUGH_JOBS
            ? 'as this shop’s set-ups took'
            : 'as the advisor takes on made-up axles',
      days: days === null ? '' : `${Math.round(days.median)} days`,
      calendar:
        days === null
          ? `${waitsHours > 0 ? `${waitsHours} h of waiting in it; ` : ''}fewer than ${ENOUGH_JOBS} jobs of this kind were handed over here`
          : `median of ${days.jobs} jobs of this kind here${waitsHours > 0 ? `, ${waitsHours} h of waiting in it` : ''}`,
      from: `${ownSteps} of ${steps} steps by this shop’s own times, the others by a guess of ours.`,
    };
  });
}
