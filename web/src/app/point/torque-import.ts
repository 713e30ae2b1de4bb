import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, output, signal, viewChild } from '@angular/core';
import { type Build } from '@hot-spline/model';
import { CURVE_UNITS, readTorqueCsv, textOf, type CurveUnit } from '@hot-spline/model/csv';
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
      (input)="read(box.value, undefined)"
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
      @if (result(); as r) {
        <hs-choice
          name="torque-csv-unit"
          label="Unit of the second column"
          [labelHidden]="true"
          [options]="units"
          [value]="r.unit"
          (chosen)="read(text(), $event)"
        />
        <button type="button" class="quiet" [attr.aria-pressed]="swapped()" (click)="swapped.set(!swapped())">
          Swap the columns
        </button>
      }
    </div>
    @if (problem(); as p) {
      <p class="wrong" role="alert">{{ p }}</p>
    }
    @if (result(); as r) {
      <p role="status">
        {{ r.points.length }} points, {{ r.points[0]?.rpm }} to {{ r.points.at(-1)?.rpm }} rpm, read in {{ r.unit
        }}{{ r.recognised ? '' : ': not said in the file, please check' }}.
      </p>
      <table class="table understood">
        <caption class="visually-hidden">
          As it was understood
        </caption>
        <thead>
          <tr>
            <th scope="col">rpm</th>
            <th scope="col">torque</th>
          </tr>
        </thead>
        <tbody>
          @for (point of r.points.slice(0, 3); track point.rpm) {
            <tr>
              <td class="mono">{{ point.rpm }}</td>
              <td class="mono">{{ point.torque.typed }}</td>
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
      <button type="button" class="quiet go" [disabled]="!result()" (click)="take()">Take the curve</button>
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
    .understood {
      max-width: 240px;
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

  protected readonly units = CURVE_UNITS.map((value) => ({ value, label: value }));
  protected readonly text = signal('');
  protected readonly swapped = signal(false);
  private readonly chosen = signal<CurveUnit | undefined>(undefined);
  private readonly attempt = attempt(() =>
    this.text().trim() === '' ? null : readTorqueCsv(this.text(), this.chosen(), this.swapped()),
  );
  private readonly fileProblem = signal<string | null>(null);
  protected readonly result = this.attempt.value;
  protected readonly problem = computed(() => this.fileProblem() ?? this.attempt.problem());

  protected read(text: string, unit: CurveUnit | undefined): void {
    this.fileProblem.set(null);
    this.chosen.set(unit);
    this.text.set(text);
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
    this.read(textOf(new Uint8Array(await file.arrayBuffer())), undefined);
  }

  protected take(): void {
    const result = this.result();
    if (result) this.taken.emit(result.points.map(({ rpm, torque }) => ({ rpm, torque })));
  }
}
