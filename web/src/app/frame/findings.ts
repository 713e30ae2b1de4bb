import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Router } from '@angular/router';
import { VERDICTS, type Finding } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { addressOf } from '../shared/address';
import { sayDays } from '../base/day';
import { FindingsFocus } from '../shared/findings-focus';
import { VERDICT_WORDS, VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';
import { uiActions, uiFeature } from '../state/ui';
import { FindingsFold } from './findings-fold';
import { OpenSheet } from './open-sheet';

/** How many of each verdict, most serious first: `1 stop, 2 watch`. */
export function tally(findings: readonly Finding[]): string {
  const parts = (['stop', 'watch', 'not-yet'] as const).flatMap((verdict) => {
    const count = findings.filter((finding) => finding.verdict === verdict).length;
    return count ? [`${count} ${VERDICT_WORDS[verdict]}`] : [];
  });
  return parts.join(', ') || 'all fits';
}

@Component({
  selector: 'hs-findings',
  imports: [VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-labelledby="findings-title" [class.folded]="!open()">
      <header>
        <h2 id="findings-title">Findings</h2>
        <span class="soft">{{ tally() }}</span>
        <button
          type="button"
          class="quiet icon bare"
          [attr.aria-expanded]="open()"
          aria-controls="findings-list"
          (click)="flip()"
        >
          <i class="pi" [class.pi-angle-right]="open()" [class.pi-angle-left]="!open()" aria-hidden="true"></i>
          <span class="visually-hidden">{{ open() ? 'Fold findings' : 'Show findings' }}</span>
        </button>
      </header>
      @if (open()) {
        <div id="findings-list" class="lists">
          <h3>
            <span>{{ here().of }}</span>
            <span class="soft">{{ here().tally }}</span>
          </h3>
          <ul>
            @for (finding of here().list; track finding.id) {
              <li>
                <button type="button" (click)="jump(finding)" [title]="finding.rule">
                  <hs-verdict [verdict]="finding.verdict" />
                  <span class="text">
                    <strong>{{ days(finding.title) }}</strong>
                    <span class="detail">{{ days(finding.detail) }}</span>
                  </span>
                </button>
              </li>
            } @empty {
              <li class="none soft">Nothing is found here.</li>
            }
          </ul>
          @if (others().list.length) {
            <button
              type="button"
              class="others"
              aria-controls="findings-others"
              [attr.aria-expanded]="all()"
              (click)="flipOthers()"
            >
              @if (others().worst; as worst) {
                <hs-verdict [verdict]="worst" />
              }
              <span>Other sheets</span>
              <span class="soft">{{ others().tally }}</span>
              <i class="pi" [class.pi-angle-down]="!all()" [class.pi-angle-up]="all()" aria-hidden="true"></i>
            </button>
            @if (all()) {
              <ul id="findings-others">
                @for (finding of others().list; track finding.id) {
                  <li>
                    <button type="button" (click)="jump(finding)" [title]="finding.rule">
                      <hs-verdict [verdict]="finding.verdict" />
                      <span class="text">
                        <strong>{{ days(finding.title) }}</strong>
                        <span class="detail">{{ days(finding.detail) }}</span>
                      </span>
                    </button>
                  </li>
                }
              </ul>
            }
          }
        </div>
      }
    </section>
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: block;
      min-height: 0;
    }
    section {
      display: flex;
      flex-direction: column;
      max-height: 100%;
      height: 100%;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: var(--radius);
    }
    section.folded {
      height: auto;
    }
    /* Folded beside the sheet it is a strip. */
    @media #{$wide} {
      .folded header {
        flex-direction: column-reverse;
        padding: 6px 0 12px;
        width: 40px;
      }
      .folded h2,
      .folded header .soft {
        margin: 0;
        writing-mode: vertical-rl;
      }
    }
    header {
      display: flex;
      align-items: center;
      gap: 8px;
      padding: 6px 6px 6px 14px;
    }
    header .soft {
      margin-left: auto;
      font-size: var(--text-s);
    }
    h2 {
      font-size: var(--text-m);
    }
    .lists {
      flex: 1;
      min-height: 0;
      overflow-y: auto;
      padding: 0 6px 8px;
      scrollbar-width: thin;
    }
    h3,
    .others {
      display: flex;
      align-items: center;
      gap: 8px;
      width: 100%;
      min-height: 36px;
      padding: 4px 8px;
      border: 0;
      border-bottom: 1px solid var(--rule);
      background: none;
      font-size: var(--text-s);
      font-weight: 600;
      text-align: left;
    }
    h3 .soft,
    .others .soft {
      margin-left: auto;
      font-weight: 400;
    }
    .others {
      min-height: 44px;
      border-top: 1px solid var(--rule);
      font-weight: 400;
      cursor: pointer;
    }
    .none {
      padding: 8px;
      font-size: var(--text-s);
    }
    li + li {
      border-top: 1px solid var(--rule);
    }
    li button {
      display: flex;
      gap: 10px;
      width: 100%;
      padding: 8px;
      text-align: left;
      background: none;
      border: 0;
      border-radius: 6px;
      cursor: pointer;
    }
    li button:hover {
      background: var(--blue-wash);
    }
    hs-verdict {
      margin-top: 2px;
    }
    strong {
      display: block;
      font-weight: 600;
      font-size: var(--text-s);
      line-height: 1.3;
    }
    .detail {
      font-size: var(--text-s);
      color: var(--soft);
    }
  `,
})
export class Findings {
  protected readonly days = sayDays;
  private readonly bench = inject(Bench);
  private readonly store = inject(Store);
  private readonly router = inject(Router);

  private readonly fold = inject(FindingsFold);
  protected readonly open = this.fold.open;
  /** A step that is open narrows it further than its sheet. */
  private readonly focus = inject(FindingsFocus).now;
  private readonly sheet = inject(OpenSheet).sheet;
  private readonly findings = computed(() => this.bench.derived()?.findings ?? []);
  protected readonly tally = computed(() => tally(this.findings()));
  private readonly concerns = computed<{ of: string; finding: (one: Finding) => boolean }>(() => {
    const [focus, sheet] = [this.focus(), this.sheet()];
    return focus
      ? { of: `Of ${focus.of}`, finding: focus.concerns }
      : { of: 'This sheet', finding: ({ place }) => place.sheet === sheet?.sheet };
  });
  private readonly said = computed(() => {
    const system = this.bench.system();
    return this.findings().map((finding) => ({ ...finding, ...finding.say(system) }));
  });
  protected readonly here = computed(() => {
    const { of, finding } = this.concerns();
    const list = this.said().filter(finding);
    return { of, list, tally: list.length === 0 ? '' : tally(list) };
  });
  protected readonly others = computed(() => {
    const { finding } = this.concerns();
    const list = this.said().filter((one) => !finding(one));
    return { list, tally: tally(list), worst: VERDICTS.find((verdict) => list.some((one) => one.verdict === verdict)) };
  });
  /** What is found elsewhere is one line until it is asked for. */
  protected readonly all = this.store.selectSignal(uiFeature.selectElsewhereOpen);

  protected flipOthers(): void {
    this.store.dispatch(uiActions.elsewhereFlipped());
  }

  protected flip(): void {
    this.fold.flip();
  }

  protected jump({ place }: Finding): void {
    const { axle } = place;
    if (axle) this.store.dispatch(uiActions.axleChosen({ axle }));
    const { path, queryParams } = addressOf(this.bench.editor().id, place);
    void this.router.navigate(path, { queryParams });
  }
}
