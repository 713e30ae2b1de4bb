import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { entryBase, formatIn, saySmall, type UnitSystem } from '@hot-spline/core';
import {
  WISHES,
  packContext,
  tuneFor,
  type Advice,
  type Behaviour,
  type Complaint,
  type TuneChange,
} from '@hot-spline/model';
import { COMPLAINT_OPTIONS } from '../identity/words';
import { attempt } from '../shared/attempt';
import { Toggles } from '../shared/toggles';
import { Bench } from '../state/bench';

/** Steps shown for each complaint. */
const SHOWN = 4;
const ACTIONS = { 'two-way': 'two-way', 'one-and-a-half-way': '1½-way', 'one-way': 'one-way' } as const;

/** A step in shop words. */
function changeWords(change: TuneChange, system: UnitSystem): string {
  switch (change.kind) {
    case 'drive-ramp':
      return `drive ramp ${change.from.value}° → ${change.to.value}°`;
    case 'overrun-ramp':
      return `overrun ramp ${change.from.value}° → ${change.to.value}°`;
    case 'action':
      return `${ACTIONS[change.from]} → ${ACTIONS[change.to]}`;
    case 'shim':
      return `${saySmall(change.moreMm, system)} ${change.moreMm > 0 ? 'more' : 'less'} shim a side`;
    case 'order':
      return `plates laid for ${change.to} interfaces, now ${change.from}`;
    case 'additive':
      return 'more friction additive (a tenth less friction is taken)';
  }
}

/** From what the driver says to single steps, each with what it does computed for this unit. */
@Component({
  selector: 'hs-tune-tab',
  imports: [RouterLink, Toggles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-toggles
      name="complaints"
      label="What the driver says"
      [options]="options"
      [values]="complaints()"
      (chosen)="setComplaints($event)"
    />
    @if (!plate()) {
      <p class="empty">Only a plate unit is tuned by ramps, preload and plates. Compare the types side by side.</p>
    } @else if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    } @else if (groups().length === 0) {
      <p class="empty">Choose what the driver says: every step that serves it follows, with what it does.</p>
    }
    @for (group of groups(); track group.complaint) {
      <section [attr.aria-label]="group.name" [id]="'complaint-' + group.complaint" tabindex="-1">
        <h3>{{ group.name }}</h3>
        <div class="scroll">
          <table class="table">
            <thead>
              <tr>
                <th scope="col">One step</th>
                <th scope="col">Lock under power</th>
                <th scope="col">Lock on overrun</th>
                <th scope="col">Breakaway, {{ torqueUnit() }}</th>
                <th><span class="visually-hidden">Actions</span></th>
              </tr>
            </thead>
            <tbody>
              @for (row of group.rows; track row.words) {
                <tr>
                  <th scope="row">{{ row.words }}</th>
                  @for (cell of row.cells; track $index) {
                    <td [class.moved]="cell.moved">
                      <span class="soft mono">{{ cell.before }}</span> <span class="mono">{{ cell.after }}</span>
                    </td>
                  }
                  <td>
                    <button
                      type="button"
                      class="quiet"
                      [class.go]="$first"
                      [attr.aria-label]="row.act + ': ' + row.words"
                      (click)="take(group.complaint, $index)"
                    >
                      {{ row.act }}
                    </button>
                  </td>
                </tr>
              } @empty {
                <tr>
                  <td colspan="5">No single step serves it without locking the unit solid.</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      </section>
    }
    @if (groups().length) {
      <p class="soft">
        One step at a time, then drive it. Directions are common practice; the sizes are computed for this unit at the
        operating point, overrun at the torque that the engine drags with. A shim step moves the target height:
        <a [routerLink]="['../pack']" [queryParams]="{ tab: 'shims' }">Shims from stock</a> then finds the pieces. The
        maker’s sheet wins.
      </p>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
      padding-bottom: 12px;
    }
    h3 {
      font-size: var(--text-m);
    }
    h3::first-letter,
    th::first-letter {
      text-transform: uppercase;
    }
    table {
      min-width: 560px;
      table-layout: fixed;
    }
    td {
      white-space: nowrap;
    }
    thead th:first-child {
      width: 38%;
    }
    td .mono + .mono {
      margin-left: 8px;
      font-size: var(--text-m);
    }
    .moved .mono + .mono {
      font-weight: 600;
    }
    td:last-child {
      text-align: right;
      padding-right: 0;
    }
    .go {
      border-color: var(--blue);
      background: var(--blue);
      color: var(--on-blue);
    }
    p {
      font-size: var(--text-s);
    }
    .empty {
      padding: 18px 0;
      font-size: var(--text-m);
    }
    @media #{$narrow} {
      button {
        min-height: 44px;
      }
    }
  `,
})
export class TuneTab {
  protected readonly bench = inject(Bench);
  protected readonly options = COMPLAINT_OPTIONS.filter(({ value }) => WISHES[value]);
  protected readonly plate = computed(() => {
    const unit = this.bench.axle()?.unit;
    return unit?.type === 'plate' ? unit.plate : null;
  });
  protected readonly complaints = computed(() =>
    (this.bench.build()?.brief.complaints ?? []).filter((complaint) => WISHES[complaint]),
  );
  protected readonly torqueUnit = computed(() => formatIn(0, 'torque', this.bench.system()).unit);
  private readonly attempt = attempt(() => {
    const plate = this.plate();
    const inputNm = this.bench.derived()?.inputNm ?? 0;
    const axle = this.bench.axle();
    const build = this.bench.build();
    if (!plate || !axle || !build) return null;
    const overrunNm = (inputNm * entryBase(build.road.overrun)) / 100;
    const tuning = { ...packContext(axle), readings: this.bench.readings(), inputNm, overrunNm };
    return new Map(
      this.complaints().map((complaint): [Complaint, Advice[]] => [
        complaint,
        tuneFor(complaint, plate, this.bench.axleName(), tuning).slice(0, SHOWN),
      ]),
    );
  });
  protected readonly problem = this.attempt.problem;

  protected readonly groups = computed(() => {
    const system = this.bench.system();
    const lock = (share: number): string => (share >= 1 ? 'solid' : `${Math.round(100 * share)} %`);
    const torque = (nm: number): string => formatIn(nm, 'torque', system, 1).text;
    const cell = (key: keyof Behaviour, words: (value: number) => string, { before, after }: Advice) => ({
      before: words(before[key]),
      after: words(after[key]),
      moved: words(before[key]) !== words(after[key]),
    });
    return [...(this.attempt.value() ?? [])].map(([complaint, list]) => ({
      complaint,
      name: COMPLAINT_OPTIONS.find(({ value }) => value === complaint)?.label ?? complaint,
      rows: list.map((one) => ({
        words: changeWords(one.change, system),
        cells: [cell('drive', lock, one), cell('overrun', lock, one), cell('breakaway', torque, one)],
        act: one.change.kind === 'shim' ? 'Aim for it' : 'Take it',
      })),
    }));
  });

  protected setComplaints(chosen: Complaint[]): void {
    this.bench.change((draft) => {
      const others = draft.brief.complaints.filter((complaint) => !WISHES[complaint]);
      draft.brief.complaints = [...others, ...chosen];
    });
  }

  protected take(complaint: Complaint, index: number): void {
    const advice = this.attempt.value()?.get(complaint)?.[index];
    if (!advice) return;
    this.bench.changePlate((plate) => Object.assign(plate, structuredClone(advice.plate)));
  }
}
