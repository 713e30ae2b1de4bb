import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Choice } from '../shared/choice';
import { Field, type Understood } from '../shared/field';
import { textReader } from '../shared/readers';
import { Gauge, MEANS } from '../gauge/gauge';
import { PARITIES } from '../gauge/settings';

/** The gauge dock: the live reading, what it will be written to, and one key that takes it. */
@Component({
  selector: 'hs-gauge-dock',
  imports: [Choice, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (gauge.status() === 'off') {
      <div class="closed no-print">
        <button type="button" (click)="gauge.openStandIn()">Gauge: simulated</button>
        <button type="button" (click)="gauge.openSerial()">serial line</button>
        @if (gauge.problem(); as problem) {
          <span role="alert">{{ problem }}</span>
        }
      </div>
    } @else {
      <section class="dock no-print" aria-label="Gauge">
        <span class="source">{{ source() }}</span>
        @if (gauge.status() !== 'setting-up') {
          <span class="reading mono" [class.held]="gauge.held()"
            >{{ gauge.shown().text }} <span class="unit">{{ gauge.shown().unit }}</span></span
          >
        }
        <span class="goes" role="status">{{ goes() }}</span>
        @if (gauge.status() === 'setting-up') {
          <span class="tools"><button type="button" (click)="gauge.close()">Close</button></span>
          <button type="button" class="take" (click)="gauge.connect()">Connect</button>
        } @else {
          <span class="tools">
            @if ((gauge.target()?.many ?? 0) > 1) {
              <button type="button" (mousedown)="$event.preventDefault()" (click)="gauge.sweep()">
                {{ gauge.places() ? 'Sweep: ' + gauge.places()!.length + ' of ' + gauge.target()!.many : 'Sweep' }}
              </button>
            }
            <button
              type="button"
              [attr.aria-pressed]="gauge.held()"
              (mousedown)="$event.preventDefault()"
              (click)="gauge.held.set(!gauge.held())"
            >
              Hold
            </button>
            <button type="button" (mousedown)="$event.preventDefault()" (click)="gauge.setZero()">Zero</button>
            <button type="button" (mousedown)="$event.preventDefault()" (click)="nextMean()">
              Mean of {{ gauge.mean() }}
            </button>
            @if (gauge.source() === 'serial') {
              <button type="button" [attr.aria-expanded]="settings()" (click)="settings.set(!settings())">
                How it is read
              </button>
            }
            <button type="button" (click)="gauge.close()">Close</button>
          </span>
          <button
            type="button"
            class="take"
            [disabled]="!gauge.fits()"
            (mousedown)="$event.preventDefault()"
            (click)="gauge.take()"
          >
            <kbd>space</kbd> take
          </button>
        }
        @if (gauge.source() === 'serial' && (settings() || gauge.status() === 'setting-up' || asksUnit())) {
          <div class="settings">
            <hs-field
              name="gauge-name"
              label="Name of this gauge"
              placeholder="stands beside its readings"
              [text]="gauge.settings().name"
              [read]="readName"
              (taken)="gauge.set({ name: $event })"
            />
            <hs-field
              name="gauge-unit"
              label="It reads in, where its lines don’t say"
              placeholder="mm, in, N·m, lbf·in …"
              [text]="gauge.settings().unit"
              [read]="readUnit"
              (taken)="gauge.set({ unit: $event })"
            />
            <hs-choice
              name="gauge-baud"
              label="Baud"
              [options]="bauds"
              [value]="'' + gauge.settings().baudRate"
              (chosen)="gauge.set({ baudRate: +$event })"
            />
            <hs-choice
              name="gauge-parity"
              label="Parity"
              [options]="parities"
              [value]="gauge.settings().parity"
              (chosen)="gauge.set({ parity: $event })"
            />
            <hs-field
              name="gauge-pattern"
              label="Pattern: first group the number, second the unit"
              placeholder="found by itself"
              [text]="gauge.settings().pattern"
              [read]="readPattern"
              (taken)="gauge.set({ pattern: $event })"
            />
          </div>
        }
        @if (gauge.problem(); as problem) {
          <span class="settings" role="alert">{{ problem }}</span>
        }
      </section>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: block;
      flex: none;
    }
    .closed {
      display: flex;
      gap: 6px;
      justify-content: flex-end;
      align-items: center;
      padding: 0 14px 6px;
      font-size: var(--text-xs);
      color: var(--soft);
    }
    .closed button {
      min-height: 24px;
      padding: 0 8px;
      background: none;
      border: 1px solid var(--rule);
      border-radius: 6px;
      color: var(--soft);
      cursor: pointer;
    }
    .dock {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 18px;
      align-items: center;
      min-height: 44px;
      padding: 4px 16px;
      background: #16243a;
      color: #e6eaee;
    }
    .source,
    .goes {
      font-size: var(--text-s);
    }
    .reading {
      min-width: 132px;
      font-size: var(--text-xl);
    }
    .unit {
      font-size: var(--text-s);
    }
    .held {
      color: #e2b04a;
    }
    .goes {
      flex: 1;
      min-width: 160px;
    }
    .tools {
      display: flex;
      gap: 4px;
    }
    .dock button {
      min-height: 32px;
      padding: 2px 9px;
      background: none;
      border: 1px solid #4b5862;
      border-radius: 6px;
      color: inherit;
      font-size: var(--text-s);
      cursor: pointer;
    }
    .dock .take {
      min-height: 36px;
      border-color: #e2b04a;
      color: #f3cf86;
    }
    .dock button:disabled {
      opacity: 0.5;
    }
    [aria-pressed='true'] {
      border-color: #e2b04a !important;
    }
    kbd {
      padding: 0 6px;
      border: 1px solid #4b5862;
      border-radius: 4px;
      font-family: var(--mono);
    }
    .settings {
      display: flex;
      gap: 10px;
      align-items: end;
      width: 100%;
      padding: 6px;
      background: var(--sheet);
      color: var(--ink);
      border-radius: 6px;
    }
    .settings hs-field {
      flex: 1;
    }
    @media #{$narrow} {
      /* At hand while it is open; closed it stands below the sheet and covers nothing. */
      :host:has(.dock) {
        position: sticky;
        bottom: 0;
        z-index: 5;
      }
      .closed button {
        min-height: 44px;
      }
      .dock .take {
        flex: 1;
        min-height: 52px;
        font-size: var(--text-l);
      }
      .dock button {
        min-height: 44px;
      }
      .tools {
        order: 3;
        width: 100%;
        overflow-x: auto;
      }
      .goes {
        width: 100%;
        flex: none;
      }
    }
  `,
})
export class GaugeDock {
  protected readonly gauge = inject(Gauge);
  protected readonly settings = signal(false);
  protected readonly bauds = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200].map((rate) => ({
    value: String(rate),
    label: String(rate),
  }));
  protected readonly parities = PARITIES.map((value) => ({ value, label: value }));
  protected readonly readName = textReader('Name', 80);
  /** Its lines name no unit: nothing is taken before somebody has said it. */
  protected readonly asksUnit = computed(() => this.gauge.refused()?.why === 'no-unit');
  protected readonly source = computed(() => {
    const name = this.gauge.source() === 'serial' ? this.gauge.settings().name || 'Gauge' : 'Gauge, simulated';
    const status = this.gauge.status();
    if (status === 'setting-up') return `${name}: how it is read`;
    return status === 'lost' ? `${name}: lost, last reading` : status === 'connecting' ? `${name}: connecting` : name;
  });
  protected readonly goes = computed(() => {
    const target = this.gauge.target();
    const rubbish = this.gauge.rubbish();
    const refused = this.gauge.refused();
    if (refused) return REFUSED[refused.why](refused.text);
    if (rubbish > 3) return `${rubbish} lines without a reading: set speed, parity or a pattern.`;
    if (this.gauge.madeUp()) return 'Made up: on this build it is marked simulated and counts for nothing.';
    if (!target) return 'Go to a measuring field: it is written there.';
    return this.gauge.fits() || this.gauge.base() === null
      ? `goes to: ${target.label}`
      : `${target.label} takes another quantity`;
  });
  protected readonly readUnit = (text: string): Understood<string> => {
    this.gauge.check({ unit: text.trim() });
    return { value: text.trim(), said: '' };
  };
  protected readonly readPattern = (text: string): Understood<string> => {
    this.gauge.check({ pattern: text });
    return { value: text, said: '' };
  };

  protected nextMean(): void {
    const at = MEANS.indexOf(this.gauge.mean());
    this.gauge.mean.set(MEANS[(at + 1) % MEANS.length] ?? 1);
  }
}

/** Why a line is not taken. */
const REFUSED: Readonly<Record<'no-unit' | 'unknown-unit' | 'several' | 'decimal-sign', (text: string) => string>> = {
  'no-unit': (text) => `Its lines name no unit (${text}): say what this gauge reads in.`,
  'unknown-unit': (text) => `What stands behind ${text} is no unit: set a pattern.`,
  several: (text) => `Two values in one line (${text}): set a pattern for the one that counts.`,
  'decimal-sign': (text) => `${text} can be two numbers: say in the settings of the shop what separates decimals.`,
};
