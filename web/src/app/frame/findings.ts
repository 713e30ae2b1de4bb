import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { Router } from '@angular/router';
import type { Finding } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { addressOf } from '../shared/address';
import { sayDays } from '../base/day';
import { FindingsFocus } from '../shared/findings-focus';
import { VERDICT_WORDS, VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';
import { uiActions } from '../state/ui';
import { FindingsFold } from './findings-fold';

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
        <ul id="findings-list">
          @if (focus(); as f) {
            <li class="focus">
              {{ all() ? 'All of the build.' : 'Of ' + f.of + '.' }}
              <button type="button" class="quiet bare" (click)="all.set(!all())">
                {{ all() ? 'Of this step alone' : 'All ' + findings().length }}
              </button>
            </li>
          }
          @for (finding of shown(); track finding.id) {
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
    ul {
      flex: 1;
      min-height: 0;
      overflow-y: auto;
      padding: 0 6px 8px;
      scrollbar-width: thin;
    }
    li + li {
      border-top: 1px solid var(--rule);
    }
    .focus {
      display: flex;
      align-items: center;
      justify-content: space-between;
      padding: 0 8px 4px;
      font-size: var(--text-s);
      color: var(--soft);
    }
    li:not(.focus) button {
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
    li:not(.focus) button:hover {
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
  protected readonly focus = inject(FindingsFocus).now;
  /** All of them, though a step is open. */
  protected readonly all = linkedSignal<string, boolean>({
    source: () => this.focus()?.of ?? '',
    computation: () => false,
  });
  protected readonly findings = computed(() => this.bench.derived()?.findings ?? []);
  protected readonly tally = computed(() => tally(this.findings()));
  protected readonly shown = computed(() => {
    const system = this.bench.system();
    const focus = this.all() ? null : this.focus();
    return this.findings()
      .filter((finding) => focus === null || focus.concerns(finding))
      .map((finding) => ({ ...finding, ...finding.say(system) }));
  });

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
