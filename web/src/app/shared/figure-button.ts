import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatIn, unitLabel } from '@hot-spline/core';
import type { FigureId } from '@hot-spline/model';
import { Bench } from '../state/bench';

/** A figure that opens its working. */
@Component({
  selector: 'hs-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (figure(); as f) {
      <button
        type="button"
        [attr.data-figure]="f.id"
        [disabled]="!f.explain"
        [title]="f.explain ? 'Show the working' : ''"
        (click)="bench.openWorking(f.id)"
      >
        <span [class]="label() === '' ? 'visually-hidden' : 'label'">{{ label() || f.label }}</span>
        <span class="value"
          ><span class="number mono">{{ shown().text }}</span
          >&ngsp;<span class="unit mono">{{ shown().unit }}{{ suffix() }}</span>
          @if (f.rests === 'assumed') {
            <span
              class="ring"
              role="img"
              aria-label="rests on something assumed"
              title="Rests on something that nobody has said yet"
            ></span>
          }
        </span>
      </button>
    }
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    button {
      display: flex;
      flex-direction: column;
      justify-content: space-between;
      gap: 1px;
      width: 100%;
      height: 100%;
      padding: 4px 8px;
      text-align: left;
      background: none;
      border: 0;
      border-radius: 6px;
      cursor: pointer;
    }
    button:hover:not(:disabled) {
      background: var(--blue-wash);
    }
    button:disabled {
      cursor: default;
    }
    .label {
      font-size: var(--text-s);
      line-height: 1.3;
      color: var(--soft);
    }
    .value {
      display: flex;
      align-items: baseline;
      gap: 5px;
      white-space: nowrap;
    }
    .ring {
      flex: none;
      align-self: center;
      width: 11px;
      height: 11px;
      border: 1.6px solid var(--soft);
      border-radius: 50%;
    }
    .number {
      font-size: var(--text-figure);
      line-height: 1.15;
      font-weight: 500;
    }
    .unit {
      font-size: var(--text-s);
      color: var(--soft);
    }
    :host(.small) .number {
      font-size: var(--text-m);
    }
    :host(.small) .unit {
      font-size: var(--text-xs);
    }
    /* Label and number on one line, where the sheet needs its room. */
    :host(.line) button {
      flex-direction: row;
      flex-wrap: wrap;
      align-items: baseline;
      justify-content: flex-start;
      gap: 0 8px;
    }
    :host(.line) .number {
      font-size: var(--text-l);
    }
    :host(.tight) .unit {
      display: none;
    }
    :host(.tight) button {
      padding: 2px 5px;
      min-height: 24px;
    }
  `,
})
export class FigureButton {
  readonly id = input.required<FigureId>();
  readonly label = input<string | undefined>(undefined);
  readonly decimals = input<number | undefined>(undefined);
  readonly suffix = input('');
  protected readonly bench = inject(Bench);
  protected readonly figure = computed(() => this.bench.figure(this.id()));
  protected readonly shown = computed(() => {
    const f = this.figure();
    if (!f || f.value === null) return { text: f?.instead ?? '–', unit: '' };
    const { text, unit } = formatIn(f.value, f.quantity, this.bench.system(), this.decimals() ?? f.decimals, f.scale);
    return { text, unit: unitLabel(unit) };
  });
}
