import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink } from '@angular/router';
import { filter, map } from 'rxjs';
import { VerdictMark } from '../shared/verdict';
import { WorkEdit } from './work-edit';

/** On the sheet that a step sent to: whether it has what the step asks for, and the way back or on. */
@Component({
  selector: 'hs-step-bar',
  imports: [RouterLink, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown(); as s) {
      <aside class="no-print" aria-label="The step that is in hand">
        <a class="quiet bare" [routerLink]="s.work" [queryParams]="{ tab: 'step', step: s.id }">‹ {{ s.title }}</a>
        <span role="status">
          <hs-verdict [verdict]="s.done ? 'fits' : 'not-yet'" />
          {{ s.done ? (s.byReading ? 'read, so done' : 'done') : s.missing || s.held || 'read: say Done at the step' }}
        </span>
        @if (s.next; as next) {
          <a class="quiet main" [routerLink]="s.work" [queryParams]="{ tab: 'step', step: next.id }"
            >Next: {{ next.title }}</a
          >
        }
      </aside>
    }
  `,
  styles: `
    aside {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 12px;
      padding: 4px 14px;
      font-size: var(--text-s);
      border-bottom: 1px solid var(--rule);
      background: var(--sheet);
    }
    .main {
      margin-left: auto;
    }
    span {
      display: inline-flex;
      align-items: center;
      gap: 6px;
    }
  `,
})
export class StepBar {
  private readonly edit = inject(WorkEdit);
  private readonly router = inject(Router);
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(() => this.router.url),
    ),
    { initialValue: this.router.url },
  );
  protected readonly shown = computed(() => {
    const { root, queryParams } = this.router.parseUrl(this.url());
    const [, id, sheet] = root.children['primary']?.segments.map(({ path }) => path) ?? [];
    const steps = this.edit.state()?.steps ?? [];
    const at = steps.findIndex(({ step }) => step.id === queryParams['step']);
    const one = steps[at];
    if (!one || sheet === 'work' || id === undefined) return null;
    const done = one.status === 'done';
    return {
      id: one.step.id,
      title: one.step.title,
      work: ['/builds', id, 'work'],
      done,
      byReading: one.byReading,
      missing: one.missing.join(', '),
      held: one.waits.find(({ holds }) => holds)?.what ?? '',
      next: done ? (steps[at + 1]?.step ?? null) : null,
    };
  });
}
