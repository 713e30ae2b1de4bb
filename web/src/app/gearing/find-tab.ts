import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  LEVEL,
  findFinals,
  goalOverRatio,
  formatIn,
  say,
  type BillItem,
  type FindFigures,
  type FoundFinal,
} from '@hot-spline/core';
import { changeWords, goalOf, limitsOf, findProblemOf, findStandIns, reasonWords, scoreWords } from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';
import { goalWords } from './goal-words';
import { RatioCurve } from './ratio-curve';
import { FrontPicture, type FrontAxis } from './front-picture';
import { ShopSettings } from '../state/shop-settings';

const BILL_WORDS: Readonly<Record<BillItem['code'], string>> = {
  set: 'set',
  carrier: 'carrier',
  'ring-bolts': 'ring bolts',
  recalibration: 'recalibration',
};

/** Final drives that exist for this axle, ranked by the goal of the brief, each with its reasons. */
@Component({
  selector: 'hs-find-tab',
  imports: [FrontPicture, RatioCurve, RouterLink, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    } @else {
      <p class="soft goal">
        Goal of the <a [routerLink]="['../brief']">brief</a>: <strong>{{ goalText() }}</strong>. {{ from() }}
      </p>
      @if (standIns().length) {
        <p class="caution" role="note">
          Nobody has said {{ standIns().join(', ') }} yet: the order below rests on stand-ins of ours and judges
          nothing.
          <a [routerLink]="['../brief']" [queryParams]="{ tab: 'job' }">Say it in the brief</a>
        </p>
      }
      <ol>
        @for (row of rows(); track row.label) {
          <li
            [class.present]="row.present"
            [class.first]="$first"
            [attr.data-final]="row.label"
            [attr.data-answer]="$first ? '' : null"
          >
            <div class="place mono">{{ $index + 1 }}</div>
            <div class="what">
              <p>
                <span class="pair mono">{{ row.label }}</span>
                <span class="mono soft">{{ row.ratio }}</span>
              </p>
              <p class="score">
                <hs-verdict [verdict]="row.verdict" />
                <span class="mono big" [class.long]="row.score.length > 8">{{ row.score }}</span>
                @if (row.level) {
                  <span class="soft small" title="Nearer to the first than the model can tell">level</span>
                }
              </p>
              @if (row.present) {
                <p class="tag">in the axle</p>
              }
            </div>
            <div class="reasons">
              <ul class="why">
                @for (reason of row.pro; track reason) {
                  <li><span class="sign" aria-label="for">+</span>{{ reason }}</li>
                }
                @for (reason of row.contra; track reason) {
                  <li><span class="sign" aria-label="against">−</span>{{ reason }}</li>
                }
              </ul>
              <div class="more">
                @if (row.aside) {
                  <p class="soft">{{ row.aside }}</p>
                }
                @if (row.changes) {
                  <p>Changes too: {{ row.changes }}</p>
                }
                @if (row.bill.length > 1) {
                  <p>Needs: {{ row.bill.join(' · ') }}</p>
                }
                @if (row.next) {
                  <p class="soft">{{ row.next }}</p>
                }
              </div>
            </div>
            <div class="acts">
              @if (!row.present) {
                @if (row.compared) {
                  <a class="soft small" [routerLink]="[]" [queryParams]="{ tab: null }">on the picture</a>
                } @else {
                  <button
                    type="button"
                    class="quiet"
                    (click)="compare(row.index)"
                    [disabled]="full()"
                    [attr.aria-label]="'Compare ' + row.label"
                  >
                    Compare
                  </button>
                }
                <button type="button" class="quiet" (click)="take(row.index)" [attr.aria-label]="'Take ' + row.label">
                  Take
                </button>
              }
            </div>
          </li>
        }
      </ol>
      @if (picture(); as p) {
        <figure>
          <figcaption>What is given for what; nothing beats those on the line</figcaption>
          <hs-front-picture [points]="p.points" [along]="p.along" [up]="p.up" />
        </figure>
      } @else if (curve(); as c) {
        <figure>
          <figcaption>{{ c.words }}</figcaption>
          <hs-ratio-curve [points]="c.points" [present]="c.present" [say]="c.say" [label]="c.words" />
        </figure>
      }
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    .goal {
      margin-bottom: 8px;
      font-size: var(--text-s);
    }
    ol > li {
      display: grid;
      grid-template-columns: 20px 150px minmax(0, 1fr) 92px;
      gap: 4px 12px;
      align-items: start;
      padding: 8px 4px;
      border-top: 1px solid var(--rule);
    }
    li.present {
      background: var(--blue-wash);
    }
    .first .pair {
      font-size: var(--text-figure);
    }
    .first .big {
      font-size: var(--text-xl);
    }
    .place {
      color: var(--soft);
      padding-top: 3px;
    }
    .pair {
      font-size: var(--text-l);
      font-weight: 600;
      margin-right: 6px;
    }
    .small {
      font-size: var(--text-s);
    }
    .tag {
      font-size: var(--text-s);
      color: var(--blue);
    }
    .score {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    .big {
      font-size: var(--text-l);
    }
    li .big.long {
      font-size: var(--text-l);
      white-space: nowrap;
    }
    .why,
    .more {
      font-size: var(--text-s);
      line-height: 1.45;
    }
    .why {
      display: flex;
      flex-wrap: wrap;
      gap: 0 18px;
    }
    .sign {
      display: inline-block;
      width: 14px;
      font-family: var(--mono);
      color: var(--soft);
    }
    .acts {
      display: flex;
      flex-direction: column;
      gap: 4px;
    }
    @media #{$narrow} {
      :host {
        display: flex;
        flex-direction: column;
      }
      /* The answer first. */
      .goal {
        order: 1;
      }
      ol > li {
        grid-template-columns: 22px 1fr auto;
      }
      .reasons,
      .acts {
        grid-column: 2 / -1;
      }
      .acts {
        flex-direction: row;
      }
      .acts .quiet {
        min-height: 44px;
      }
    }
  `,
})
export class FindTab {
  protected readonly bench = inject(Bench);
  private readonly prices = inject(ShopSettings);
  private readonly attempt = attempt(() => {
    const build = this.bench.build();
    const main = this.bench.axleName();
    const own = this.bench.derived()?.gearing[main];
    return build && own ? findFinals(findProblemOf(build, main, own)) : null;
  });
  /** What nobody has said yet of what the order rests on. */
  protected readonly standIns = computed(() => {
    const build = this.bench.build();
    return build ? findStandIns(build, this.bench.axleName()) : [];
  });
  private readonly ranked = computed(() => this.attempt.value() ?? []);
  protected readonly problem = this.attempt.problem;
  protected readonly full = computed(() => (this.bench.build()?.candidates.length ?? 0) >= 4);
  protected readonly goalText = computed(() => {
    const build = this.bench.build();
    return build ? goalWords(build, this.bench.system()) : '';
  });
  protected readonly from = computed(() => {
    const identity = this.bench.axle()?.identity;
    return identity && identity.sets.length > 0
      ? `${identity.sets.length === 1 ? 'One set is' : `${identity.sets.length} sets are`} known for ${identity.name}.`
      : 'No sets are known for this axle: identify it in the brief. Ranked here are the present one and the candidates.';
  });
  protected readonly rows = computed(() => {
    const build = this.bench.build();
    const own = this.bench.axle()?.finalDrive;
    if (!build) return [];
    const system = this.bench.system();
    const { kind } = goalOf(build);
    const best = this.ranked()[0]?.score ?? 0;
    return this.ranked().map((one, index) => {
      const { ring, pinion } = one.candidate;
      const { bill } = one;
      const words = (side: 'for' | 'against'): string[] =>
        one.reasons.filter((reason) => reason.side === side).map((reason) => reasonWords(reason, system));
      const next = one.behindNext;
      const cost = [
        next?.price ? `costs ${this.prices.say(Math.abs(next.price))} ${next.price > 0 ? 'more' : 'less'}` : '',
        next?.leadDays ? `${Math.abs(next.leadDays)} days ${next.leadDays > 0 ? 'later' : 'sooner'}` : '',
      ].filter(Boolean);
      const bought = [
        bill.price === null ? '' : `${bill.whole ? '' : 'from '}${this.prices.say(bill.price)}`,
        bill.leadDays === null ? '' : `${bill.leadDays} days`,
      ]
        .filter(Boolean)
        .join(', ');
      return {
        index,
        label: `${ring}/${pinion}`,
        ratio: one.ratio.toFixed(3),
        verdict: this.standIns().length > 0 ? ('not-yet' as const) : one.verdict,
        present: own?.ring === ring && own.pinion === pinion,
        compared: build.candidates.some((pair) => pair.ring === ring && pair.pinion === pinion),
        score: scoreWords(kind, one.score),
        // Nearer to the first than the model can tell.
        level: kind === 'time' && index > 0 && one.missed === 0 && Math.abs(one.score - best) < LEVEL * best,
        aside: [
          one.missed > 0 ? 'misses a limit of the brief' : '',
          one.figures.cruiseRpm === null ? '' : `cruise ${say(one.figures.cruiseRpm, 'rotation', 'inch')}`,
          own?.ring === ring && own.pinion === pinion ? '' : bought,
        ]
          .filter(Boolean)
          .join(' · '),
        pro: words('for'),
        contra: words('against'),
        changes: one.changes.map(changeWords).join('; '),
        bill: bill.items.map(({ code, name, price, leadDays }) => {
          const what = code === 'carrier' && name ? `carrier ${name}` : BILL_WORDS[code];
          const days = leadDays === null ? '' : `, ${leadDays} d`;
          return `${what} ${price === null ? 'not asked' : this.prices.say(price)}${days}`;
        }),
        next: next && cost.length > 0 ? `The one above ${cost.join(', ')}.` : '',
      };
    });
  });

  /** Every candidate by the goal and by what is asked beside it, or by the cruise where nothing is. */
  protected readonly picture = computed(() => {
    const build = this.bench.build();
    const own = this.bench.axle()?.finalDrive;
    const found = this.ranked().filter(({ verdict }) => verdict !== 'stop');
    if (!build || found.length < 3) return null;
    const goal = goalOf(build);
    const limits = limitsOf(build);
    const system = this.bench.system();
    const seconds = (value: number): string => value.toFixed(2);
    const up = {
      name: { time: 'time, s', finish: 'rpm off the window', cruise: 'rpm off the window', crawl: 'crawl short, %' }[
        goal.kind
      ],
      say: (value: number) =>
        goal.kind === 'time'
          ? seconds(value)
          : goal.kind === 'crawl'
            ? (100 * value).toFixed(0)
            : String(Math.round(value)),
      limit: goal.kind === 'time' ? (limits.timeS ?? null) : null,
    };
    const { figures: any } = found[0] as FoundFinal;
    const rpm = (value: number): string => String(Math.round(value));
    // What is worse when it is larger: what should be large is turned round.
    const axes: Readonly<
      Record<string, FrontAxis & { readonly of: (one: FindFigures) => number; readonly asked: boolean }>
    > = {
      cruise: {
        name: 'cruise, rpm',
        say: rpm,
        limit: limits.cruiseRpm ?? null,
        of: ({ cruiseRpm }) => cruiseRpm ?? 0,
        asked: limits.cruiseRpm !== undefined,
      },
      top: {
        name: `top speed, ${formatIn(0, 'speed', system).unit}`,
        say: (value) => formatIn(-value, 'speed', system, 0).text,
        limit: limits.topMps === undefined ? null : -limits.topMps,
        of: ({ topMps }) => -topMps,
        asked: limits.topMps !== undefined,
      },
      crawl: {
        name: 'crawl ratio',
        say: (value) => (-value).toFixed(0),
        limit: limits.crawlRatio === undefined ? null : -limits.crawlRatio,
        of: ({ crawlRatio }) => -crawlRatio,
        asked: limits.crawlRatio !== undefined,
      },
      time: {
        name: 'time, s',
        say: seconds,
        limit: limits.timeS ?? null,
        of: ({ timeS }) => timeS,
        asked: limits.timeS !== undefined && goal.kind !== 'time',
      },
    };
    const [usual, other] =
      goal.kind === 'cruise' || any.cruiseRpm === null ? [axes['time'], axes['top']] : [axes['cruise'], axes['top']];
    const along =
      Object.values(axes).find(({ asked }) => asked) ??
      (goal.kind === 'time' && usual === axes['time'] ? other : usual);
    if (!along) return null;
    return {
      up,
      along,
      points: found.map((one) => ({
        label: `${one.candidate.ring}/${one.candidate.pinion}`,
        x: along.of(one.figures),
        y: one.score,
        present: own?.ring === one.candidate.ring && own.pinion === one.candidate.pinion,
      })),
    };
  });

  /** With so few sets that nothing is chosen yet: what any ratio would do. */
  private readonly swept = attempt(() => {
    const build = this.bench.build();
    const main = this.bench.axleName();
    const own = this.bench.derived()?.gearing[main];
    if (!build || !own || this.picture() !== null || this.ranked().length === 0) return null;
    return { points: goalOverRatio(findProblemOf(build, main, own)), present: own.finalRatio, goal: goalOf(build) };
  });
  protected readonly curve = computed(() => {
    const found = this.swept.value();
    if (!found) return null;
    const { points, present, goal } = found;
    const { kind } = goal;
    const [first, last] = [points[0], points.at(-1)];
    if (!first || !last || points.length < 3) return null;
    const best = points.reduce((a, b) => (b.score < a.score ? b : a));
    const flat = Math.max(...points.map(({ score }) => score)) - best.score <= LEVEL * Math.abs(best.score);
    const end = best === first || best === last ? ', or beyond' : '';
    return {
      points,
      present,
      say: (score: number) =>
        kind === 'time'
          ? score.toFixed(2)
          : kind === 'crawl'
            ? `${(100 * score).toFixed(0)} %`
            : String(Math.round(score)),
      words: flat
        ? 'Any ratio round the present one does as well for this goal.'
        : `Of any ratio, best near ${best.ratio.toFixed(2)}${end}: ${scoreWords(kind, best.score)}; whether such a set is made is another matter.`,
    };
  });

  private candidate(index: number) {
    const one = this.ranked()[index]?.candidate;
    return one ? { ring: one.ring, pinion: one.pinion } : null;
  }

  protected compare(index: number): void {
    const pair = this.candidate(index);
    if (pair) this.bench.change((draft) => draft.candidates.push(pair));
  }

  /** The set that comes out stays on the picture, so that it can be taken back. */
  protected take(index: number): void {
    const pair = this.candidate(index);
    if (!pair) return;
    this.bench.change((draft) => {
      const axle = draft.axles[this.bench.axleName()];
      if (!axle) return;
      const out = axle.finalDrive;
      draft.candidates = draft.candidates.filter((one) => one.ring !== pair.ring || one.pinion !== pair.pinion);
      if (draft.candidates.length < 4) draft.candidates.push(out);
      axle.finalDrive = pair;
    });
  }
}
