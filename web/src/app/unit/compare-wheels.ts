import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { formatIn, type CompareResult } from '@hot-spline/core';
import { Bench } from '../state/bench';

/** What the wheels and shafts of one unit get in every situation. */
@Component({
  selector: 'hs-compare-wheels',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section [attr.aria-label]="'Wheels and shafts: ' + label()">
      <h2 class="section-title">{{ label() }}</h2>
      @if (pro() || contra()) {
        <p>
          @if (pro(); as words) {
            <span>+ {{ words }}</span>
          }
          @if (contra(); as words) {
            <span>− {{ words }}</span>
          }
        </p>
      }
      <div class="scroll">
        <table class="table numbers">
          <caption>
            Torque at the wheels and the most in one shaft,
            {{
              unit()
            }}
          </caption>
          <thead>
            <tr>
              <th scope="col"></th>
              @for (name of names(); track name) {
                <th scope="col">{{ name }}</th>
              }
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.what) {
              <tr>
                <th scope="row">{{ row.what }}</th>
                @for (text of row.texts; track $index) {
                  <td class="mono">{{ text }}</td>
                }
              </tr>
            }
          </tbody>
        </table>
      </div>
    </section>
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 0 20px;
      margin-bottom: 6px;
    }
    th,
    td {
      padding: 3px 6px;
      text-align: right;
    }
    thead th {
      white-space: normal;
      line-height: 1.2;
      vertical-align: bottom;
    }
    th:first-child {
      text-align: left;
    }
  `,
})
export class CompareWheels {
  readonly label = input.required<string>();
  readonly pro = input.required<string>();
  readonly contra = input.required<string>();
  /** What the situations are called, in the order of the results. */
  readonly names = input.required<readonly string[]>();
  readonly results = input.required<readonly CompareResult[]>();
  private readonly system = inject(Bench).system;
  protected readonly unit = computed(() => formatIn(0, 'torque', this.system()).unit);
  protected readonly rows = computed(() => {
    const texts = (of: (result: CompareResult) => number): string[] =>
      this.results().map((result) => formatIn(of(result), 'torque', this.system(), 0).text);
    return [
      { what: 'left wheel', texts: texts(({ leftNm }) => leftNm) },
      { what: 'right wheel', texts: texts(({ rightNm }) => rightNm) },
      { what: 'most in one shaft', texts: texts(({ shaftNm }) => shaftNm) },
    ];
  });
}
