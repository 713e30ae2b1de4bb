import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { say, type Source, type WorkingValue } from '@hot-spline/core';
import type { Rests } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import type { ButtonProps } from 'primeng/button';
import { Drawer } from 'primeng/drawer';
import { Bench } from '../state/bench';
import { uiActions, uiFeature } from '../state/ui';

const KIND_WORDS: Readonly<Record<Source['kind'], string>> = {
  standard: 'standard',
  trade: 'common practice',
  exact: 'exact',
  'guard-band': 'our guard band',
};

const RESTS_WORDS: Readonly<Record<Rests, string>> = {
  assumed: 'Rests on something that nobody has said yet.',
  memory: 'Rests on something from memory.',
  trade: 'Rests on common practice.',
  said: 'Rests on what was typed, not all of it measured.',
  library: 'Rests on the shop’s library.',
  sheet: 'Rests on the maker’s sheet.',
  measured: 'Rests on what was measured.',
};

/** Formula, inputs, steps, source and sensitivity of one figure. */
@Component({
  selector: 'hs-working',
  imports: [Drawer],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-drawer
      [visible]="working() !== null"
      (visibleChange)="$event || close()"
      position="right"
      styleClass="working-drawer"
      [style]="{ width: 'min(440px, 100vw)' }"
      [header]="working()?.title ?? 'Working'"
      [blockScroll]="false"
      [closeButtonProps]="closeButton"
    >
      @if (working(); as w) {
        <p class="result">
          <span class="mono">{{ show(w.result) }}</span> <span class="soft">{{ w.result.label }}</span>
        </p>
        <p class="soft">{{ rests() }}</p>
        <h3>Formula</h3>
        <p class="formula">{{ w.formula }}</p>
        <h3>Inputs</h3>
        <dl>
          @for (line of w.inputs; track $index) {
            <dt>{{ line.label }}</dt>
            <dd class="mono">{{ show(line) }}</dd>
          }
        </dl>
        @if (w.steps.length) {
          <h3>Steps</h3>
          <dl>
            @for (line of w.steps; track $index) {
              <dt>{{ line.label }}</dt>
              <dd class="mono">{{ show(line) }}</dd>
            }
          </dl>
        }
        <h3>Source</h3>
        <ul class="sources">
          @for (source of w.sources; track $index) {
            <li>
              <span class="kind">{{ kindOf(source) }}</span> {{ source.text }}
            </li>
          }
        </ul>
        @if (w.sensitivity.length) {
          <h3>Most sensitive to</h3>
          <ul class="sources">
            @for (line of w.sensitivity.slice(0, 4); track $index) {
              <li>1 % more {{ line.label }}: {{ percent(line.percentPerPercent) }}</li>
            }
          </ul>
        }
        @if (w.note) {
          <p class="soft note">{{ w.note }}</p>
        }
      }
    </p-drawer>
  `,
  styles: `
    .result {
      font-size: var(--text-m);
    }
    .result .mono {
      margin-right: 8px;
      font-size: var(--text-figure);
      font-weight: 500;
    }
    h3 {
      margin: 14px 0 4px;
      font-size: var(--text-s);
      font-weight: 500;
      color: var(--soft);
    }
    .formula {
      padding: 8px 10px;
      background: var(--blue-wash);
      border-radius: 6px;
    }
    dl {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 3px 14px;
      font-size: var(--text-s);
    }
    dd {
      text-align: right;
    }
    .sources {
      font-size: var(--text-s);
      display: grid;
      gap: 4px;
    }
    .kind {
      display: inline-block;
      padding: 0 6px;
      border: 1px solid var(--rule);
      border-radius: 4px;
      font-size: var(--text-xs);
      color: var(--soft);
    }
    .note {
      margin-top: 14px;
    }
  `,
})
export class WorkingPanel {
  private readonly bench = inject(Bench);
  private readonly store = inject(Store);
  protected readonly closeButton: ButtonProps = {
    severity: 'secondary',
    text: true,
    rounded: true,
    ariaLabel: 'Close the working',
  };
  private readonly open = this.store.selectSignal(uiFeature.selectWorking);

  private readonly figure = computed(() => this.bench.derived()?.figures.get(this.open() ?? '') ?? null);
  protected readonly working = computed(() => this.figure()?.explain?.() ?? null);
  protected readonly rests = computed(() => {
    const figure = this.figure();
    return figure ? RESTS_WORDS[figure.rests] : '';
  });

  protected show({ value, quantity }: WorkingValue): string {
    return typeof value === 'string' ? value : say(value, quantity, this.bench.system());
  }

  protected kindOf({ kind, fromMemory }: Source): string {
    return fromMemory ? `${KIND_WORDS[kind]}, from memory` : KIND_WORDS[kind];
  }

  protected percent(value: number): string {
    return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)} %`;
  }

  protected close(): void {
    this.store.dispatch(uiActions.workingClosed());
  }
}
