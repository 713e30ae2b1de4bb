import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { LIMITS, entryOf, motorCurve, quickCurve, type Entry, type Quantity } from '@hot-spline/core';
import type { Build } from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { EntryField, type TakenEntry } from '../shared/entry-field';

type Key = 'peakTorqueNm' | 'peakTorqueRpm' | 'peakPowerW' | 'peakPowerRpm' | 'limitRpm' | 'baseRpm';
interface Wanted {
  readonly key: Key;
  readonly label: string;
  readonly quantity: Quantity;
  readonly max: number;
}

const TORQUE: Wanted = { key: 'peakTorqueNm', label: 'Peak torque', quantity: 'torque', max: 20_000 };
const POWER: Wanted = { key: 'peakPowerW', label: 'Peak power', quantity: 'power', max: 1e7 };
const rpm = (key: Key, label: string): Wanted => ({ key, label, quantity: 'rotation', max: LIMITS.rpm.max });

/** A curve from what a data sheet gives: two peaks of an engine, or torque, power and base speed of a motor. */
@Component({
  selector: 'hs-quick-curve',
  imports: [EntryField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="field-grid">
      @for (field of fields(); track field.key) {
        <hs-entry
          [name]="'quick-' + field.key"
          [label]="field.label"
          [quantity]="field.quantity"
          [range]="{ above: 0, max: field.max }"
          [entry]="given()[field.key] ?? null"
          [echo]="false"
          [compact]="true"
          (taken)="give(field.key, $event)"
        />
      }
    </div>
    @if (problem(); as p) {
      <p class="wrong" role="alert">{{ p }}</p>
    } @else if (curve(); as points) {
      <p class="soft" role="status">
        {{ points.length }} points up to {{ points.at(-1)?.rpm?.toFixed(0) }} rpm. A stand-in: measure the curve when
        you can.
      </p>
    }
    <div class="row">
      <button type="button" class="quiet" [disabled]="!curve()" (click)="take()">Take the curve</button>
      <button type="button" class="quiet" (click)="closed.emit()">Back</button>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    .field-grid {
      grid-template-columns: 1fr 1fr;
    }
    p {
      font-size: var(--text-s);
    }
    .wrong {
      color: var(--stop);
    }
    .row {
      display: flex;
      gap: 8px;
    }
  `,
})
export class QuickCurve {
  readonly electric = input.required<boolean>();
  readonly limitRpm = input.required<number>();
  readonly taken = output<{ curve: Build['engine']['torqueCurve']; limitRpm: number }>();
  readonly closed = output<void>();

  protected readonly fields = computed<Wanted[]>(() =>
    this.electric()
      ? [TORQUE, POWER, rpm('baseRpm', 'Base speed, if given'), rpm('limitRpm', 'Motor limit')]
      : [
          TORQUE,
          rpm('peakTorqueRpm', 'at engine speed'),
          POWER,
          rpm('peakPowerRpm', 'at engine speed, power'),
          rpm('limitRpm', 'Limiter'),
        ],
  );
  private readonly typed = signal<Partial<Record<Key, { entry: Entry; base: number }>>>({});
  private readonly limit = linkedSignal(() => entryOf(this.limitRpm(), 'rpm'));
  protected readonly given = computed<Partial<Record<Key, Entry>>>(() => {
    const entries = Object.entries(this.typed()).map(([key, value]) => [key, value.entry]);
    return { limitRpm: this.limit(), ...Object.fromEntries(entries) };
  });
  private readonly attempt = attempt(() => {
    const t = this.typed();
    const base = (key: Key): number | undefined => t[key]?.base;
    const limitRpm = base('limitRpm') ?? this.limitRpm();
    const [torque, power] = [base('peakTorqueNm'), base('peakPowerW')];
    if (torque === undefined || power === undefined) return null;
    if (this.electric()) {
      const baseRpm = base('baseRpm');
      return motorCurve({
        peakTorqueNm: torque,
        peakPowerW: power,
        limitRpm,
        ...(baseRpm === undefined ? {} : { baseRpm }),
      });
    }
    const [torqueRpm, powerRpm] = [base('peakTorqueRpm'), base('peakPowerRpm')];
    if (torqueRpm === undefined || powerRpm === undefined) return null;
    return quickCurve({
      peakTorqueNm: torque,
      peakTorqueRpm: torqueRpm,
      peakPowerW: power,
      peakPowerRpm: powerRpm,
      limitRpm,
    });
  });
  protected readonly curve = this.attempt.value;
  protected readonly problem = this.attempt.problem;

  protected give(key: Key, taken: TakenEntry): void {
    this.typed.update((now) => ({ ...now, [key]: taken }));
  }

  protected take(): void {
    const curve = this.curve();
    if (!curve) return;
    const points = curve.map(({ rpm: at, torqueNm }) => ({
      rpm: Math.round(at),
      torque: entryOf(Number(torqueNm.toFixed(1)), 'N·m'),
    }));
    this.taken.emit({ curve: points, limitRpm: this.typed().limitRpm?.base ?? this.limitRpm() });
  }
}
