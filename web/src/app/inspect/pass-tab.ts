import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Entry } from '@hot-spline/core';
import type { Work } from '@hot-spline/model';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { VerdictMark } from '../shared/verdict';
import { localDay, sayDay } from '../base/day';
import { WorkEdit } from '../plan/work-edit';

/** What has to pass what, before it is set up. */
const CHECKS = [
  { step: 'pin-pass', record: 'passes', label: 'Cross pin past the ring' },
  { step: 'clearances', record: 'turns', label: 'Carrier through its whole travel' },
  { step: 'locker-line', record: 'gap', label: 'Locker’s line to ring, caps, carrier' },
  { step: 'clearances', record: 'cleaned', label: 'Case cleaned twice after cutting' },
] as const;

/** Will it pass: checks before set-up, and whatever was cut. */
@Component({
  selector: 'hs-pass-tab',
  imports: [EntryField, Field, RemoveButton, RouterLink, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Checks">
      <h2 class="section-title">Before it is set up</h2>
      <ul>
        @for (check of checks(); track check.label) {
          <li>
            <hs-verdict [verdict]="check.verdict" />
            <a [routerLink]="['../work']" [queryParams]="{ tab: 'step', at: check.field }">{{
              check.label
            }}</a>&ngsp;<span class="mono">{{ check.said ?? 'not looked at yet' }}</span>
          </li>
        } @empty {
          <li class="soft">This job has nothing that could foul.</li>
        }
      </ul>
    </section>
    <section aria-label="Cut or ground">
      <h2 class="section-title">Cut or ground</h2>
      <ul>
        @for (cut of edit.work()?.cuts ?? []; track cut.id) {
          <li class="cut" [id]="'cut-' + cut.id + '-' + edit.axle()" tabindex="-1">
            <hs-field
              [name]="'cut-where-' + cut.id"
              label="What, where"
              [text]="cut.where"
              [read]="readWhere"
              [compact]="true"
              (taken)="set(cut.id, { where: $event })"
            />
            <hs-entry
              [name]="'cut-amount-' + cut.id"
              label="How much"
              quantity="length"
              scale="plate"
              [range]="range"
              [entry]="cut.amount"
              [compact]="true"
              (taken)="setAmount(cut.id, $event.entry)"
            />
            <span class="soft">{{ cut.by }}, {{ day(cut.on) }}</span>
            <hs-remove [what]="cut.where" (removed)="remove(cut.id)" />
          </li>
        } @empty {
          <li class="soft">Nothing was cut.</li>
        }
      </ul>
      <hs-field
        class="new"
        name="cut-new"
        label="What was cut, and where"
        text=""
        [read]="readWhere"
        [enterOnly]="true"
        verb="Add"
        (taken)="add($event)"
      />
      <p class="caution" role="note">
        After cutting the case is cleaned twice. Some shave two teeth or use a notched pin, which can fail: it is
        written here.
      </p>
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      max-width: 720px;
      margin-bottom: 14px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 22px minmax(0, 1fr) auto;
      gap: 8px;
      align-items: center;
      min-height: 40px;
      border-bottom: 1px solid var(--rule);
    }
    .cut {
      grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) auto auto;
    }
    a {
      color: inherit;
    }
    .new {
      max-width: 340px;
    }
  `,
})
export class PassTab {
  protected readonly edit = inject(WorkEdit);
  protected readonly day = sayDay;
  protected readonly readWhere = textReader('What', 120, 1);
  protected readonly range = { min: 0, max: 500, unit: 'mm' };
  protected readonly checks = computed(() =>
    CHECKS.flatMap(({ step, record, label }) => {
      const found = this.edit
        .state()
        ?.steps.find((one) => one.step.id === step)
        ?.records.find((one) => one.record.id === record);
      if (!found) return [];
      return [
        { label, said: found.said, verdict: found.verdict, field: `record-${step}-${record}-${this.edit.axle()}` },
      ];
    }),
  );

  protected add(where: string): void {
    this.edit.change((work) =>
      work.cuts.push({
        id: this.edit.fresh(work.cuts, 'c'),
        where,
        amount: null,
        by: this.edit.bench.who(),
        on: localDay(new Date()),
      }),
    );
  }

  protected set(id: string, change: Partial<Work['cuts'][number]>): void {
    this.edit.change((work) => (work.cuts = work.cuts.map((one) => (one.id === id ? { ...one, ...change } : one))));
  }

  protected setAmount(id: string, amount: Entry): void {
    this.set(id, { amount });
  }

  protected remove(id: string): void {
    this.edit.change((work) => (work.cuts = work.cuts.filter((one) => one.id !== id)));
  }
}
