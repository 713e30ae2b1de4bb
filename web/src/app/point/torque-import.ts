import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, output, signal, viewChild } from '@angular/core';
import { type Build } from '@hot-spline/model';
import { CURVE_UNITS, WHEEL_LOSS, readTorqueCsv, textOf, type TorqueSaid } from '@hot-spline/model/csv';
import { attempt } from '../shared/attempt';
import { Choice } from '../shared/choice';

const LARGEST_FILE = 2 * 1024 * 1024;

/** A torque curve pasted or from a CSV file: what was understood is shown for confirmation before it is taken. */
@Component({
  selector: 'hs-torque-import',
  imports: [Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label for="torque-csv">Paste rpm, torque (or power), or open a CSV file</label>
    <textarea
      #box
      id="torque-csv"
      class="control mono"
      rows="4"
      spellcheck="false"
      placeholder="rpm, torque (N·m)&#10;1500, 210&#10;2500, 320"
      [value]="text()"
      (input)="read(box.value)"
    ></textarea>
    <div class="row">
      <input
        #picker
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        class="visually-hidden"
        tabindex="-1"
        aria-label="CSV file of a torque curve"
        (change)="open()"
      />
      <button type="button" class="quiet" (click)="picker.click()">Open file</button>
    </div>
    @if (result(); as r) {
      <div class="row said">
        @if (r.columns.length > 2 || r.asks.includes('columns')) {
          <hs-choice
            name="torque-csv-rpm"
            label="Engine speed is in"
            [options]="columns()"
            [value]="'' + (r.rpmAt ?? '')"
            (chosen)="say('rpmAt', $event)"
          />
          <hs-choice
            name="torque-csv-value"
            label="Torque or power is in"
            [options]="columns()"
            [value]="'' + (r.valueAt ?? '')"
            (chosen)="say('valueAt', $event)"
          />
        } @else {
          <button type="button" class="quiet" (click)="swap(r.rpmAt, r.valueAt)">Swap the columns</button>
        }
        <hs-choice
          name="torque-csv-unit"
          label="Torque or power in"
          [options]="units()"
          [value]="r.unit ?? ''"
          (chosen)="unit($event)"
        />
        @if (r.atWheels) {
          <hs-choice
            name="torque-csv-loss"
            label="Measured at the wheels; lost on the way"
            [options]="losses"
            [value]="'' + (said().lossPercent ?? '')"
            (chosen)="say('lossPercent', $event)"
          />
        }
      </div>
    }
    @if (problem(); as p) {
      <p class="wrong" role="alert">{{ p }}</p>
    }
    @if (result(); as r) {
      <p role="status">
        @if (r.points.length) {
          {{ r.points.length }} points, {{ r.points[0]?.rpm }} to {{ r.points.at(-1)?.rpm }} rpm{{
            r.unit ? ', read in ' + r.unit : ''
          }}.
        }
        <strong>{{ asked() }}</strong>
      </p>
      <table class="table understood">
        <caption class="visually-hidden">
          {{
            r.asks.length ? 'The first lines' : 'As it was understood'
          }}
        </caption>
        <thead>
          <tr>
            @for (name of heads(); track $index) {
              <th scope="col">{{ name }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of shown(); track $index) {
            <tr>
              @for (cell of row; track $index) {
                <td class="mono">{{ cell }}</td>
              }
            </tr>
          }
        </tbody>
      </table>
      @for (notice of r.notices; track notice) {
        <p class="soft">{{ notice }}</p>
      }
      @if (r.bad.length) {
        <ul class="bad" aria-label="Lines left out">
          @for (line of r.bad; track line.line) {
            <li>
              <span class="mono">{{ line.line }}</span> {{ line.why }} <span class="soft mono">{{ line.text }}</span>
            </li>
          }
        </ul>
      }
    }
    <div class="row">
      <button type="button" class="quiet go" [disabled]="!ready()" (click)="take()">Take the curve</button>
      <button type="button" class="quiet" (click)="closed.emit()">Back</button>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
      min-height: 0;
      overflow: auto;
    }
    label,
    p {
      font-size: var(--text-s);
    }
    textarea {
      resize: vertical;
      font-size: var(--text-s);
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .said {
      align-items: end;
    }
    .understood {
      max-width: 420px;
    }
    .bad {
      max-height: 96px;
      overflow: auto;
      font-size: var(--text-s);
    }
    .wrong {
      color: var(--stop);
    }
    .go:not(:disabled) {
      border-color: var(--blue);
      color: var(--blue);
    }
  `,
})
export class TorqueImportPanel {
  readonly taken = output<Build['engine']['torqueCurve']>();
  readonly closed = output<void>();
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');

  protected readonly losses = [
    { value: '', label: 'not said' },
    { value: '0', label: 'nothing: the engine’s already' },
    ...[10, 12, WHEEL_LOSS, 18, 20, 25].map((loss) => ({
      value: String(loss),
      label: `${loss} %${loss === WHEEL_LOSS ? ', ours: the middle' : ''}`,
    })),
  ];
  protected readonly text = signal('');
  protected readonly said = signal<TorqueSaid>({});
  private readonly attempt = attempt(() =>
    this.text().trim() === '' ? null : readTorqueCsv(this.text(), this.said()),
  );
  private readonly fileProblem = signal<string | null>(null);
  protected readonly result = this.attempt.value;
  protected readonly problem = computed(() => this.fileProblem() ?? this.attempt.problem());
  protected readonly ready = computed(() => this.result()?.asks.length === 0);
  /** An empty first one only while nobody has said it. */
  protected readonly units = computed(() => [
    ...(this.result()?.unit ? [] : [{ value: '', label: 'not said' }]),
    ...CURVE_UNITS.map((value) => ({ value, label: value })),
  ]);
  protected readonly columns = computed(() => {
    const { columns = [], asks = [] } = this.result() ?? {};
    return [
      ...(asks.includes('columns') ? [{ value: '', label: 'not said' }] : []),
      ...columns.map((label, i) => ({ value: String(i), label })),
    ];
  });
  protected readonly asked = computed(() => {
    const asks = this.result()?.asks ?? [];
    if (asks.includes('columns')) return 'No column says that it is torque: which one is it?';
    if (asks.includes('unit')) return 'The file says no unit: which is it?';
    return asks.includes('loss') ? 'It was measured at the wheels: what is lost on the way?' : '';
  });
  protected readonly heads = computed(() => (this.ready() ? ['rpm', 'torque'] : (this.result()?.columns ?? [])));
  protected readonly shown = computed(() => {
    const { points = [], first = [] } = this.result() ?? {};
    return this.ready() ? points.slice(0, 3).map(({ rpm, torque }) => [String(rpm), torque.typed]) : first;
  });

  protected read(text: string): void {
    this.fileProblem.set(null);
    this.said.set({});
    this.text.set(text);
  }

  protected say(what: 'rpmAt' | 'valueAt' | 'lossPercent', value: string): void {
    const { rpmAt, valueAt } = this.result() ?? {};
    const known = { rpmAt: rpmAt ?? undefined, valueAt: valueAt ?? undefined };
    const said = value === '' ? undefined : Number(value);
    this.said.update((before) => ({ ...before, ...(what === 'lossPercent' ? {} : known), [what]: said }));
  }

  protected unit(value: string): void {
    this.said.update((before) => ({ ...before, unit: CURVE_UNITS.find((unit) => unit === value) }));
  }

  protected swap(rpmAt: number | null, valueAt: number | null): void {
    this.said.update((before) => ({ ...before, rpmAt: valueAt ?? 1, valueAt: rpmAt ?? 0 }));
  }

  protected async open(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    if (file.size > LARGEST_FILE) {
      this.fileProblem.set(`File “${file.name}” is larger than 2 MB: a torque curve has a few hundred lines.`);
      return;
    }
    this.read(textOf(new Uint8Array(await file.arrayBuffer())));
  }

  protected take(): void {
    const result = this.result();
    if (result && this.ready()) this.taken.emit(result.points.map(({ rpm, torque }) => ({ rpm, torque })));
  }
}
