import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { entryBase, formatIn, say, saySmall, type UnitSystem } from '@hot-spline/core';
import {
  MET_WHERE,
  OF_A_WHEEL,
  WISHES,
  packContext,
  tuneFor,
  type Advice,
  type Behaviour,
  type Complaint,
  type SideEffect,
  type TuneChange,
  type Wheel,
  type Where,
} from '@hot-spline/model';
import { COMPLAINT_OPTIONS } from '../identity/words';
import { attempt } from '../shared/attempt';
import { Choice } from '../shared/choice';
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
    case 'overrun-ramp-alone':
      return `overrun side alone ${change.from.value}° → ${change.to.value}°: a 1½-way then`;
    case 'shim-side':
      return `${saySmall(Math.abs(change.moreMm), system)} ${change.moreMm > 0 ? 'more' : 'less'} shim on the ${change.side} alone`;
    case 'action':
      return `${ACTIONS[change.from]} → ${ACTIONS[change.to]}`;
    case 'shim':
      return `${saySmall(Math.abs(change.moreMm), system)} ${change.moreMm > 0 ? 'more' : 'less'} shim a side`;
    case 'order':
      return `plates laid for ${change.to} interfaces, now ${change.from}`;
    case 'additive':
      return 'more friction additive (a tenth less friction is taken)';
  }
}

/** What a step does that nobody asked for; common practice, no published source. */
const BESIDES: Readonly<Record<SideEffect, string>> = {
  'drive-more': 'more lock under power: pushes wider on the throttle',
  'drive-less': 'less lock under power: the inside wheel spins sooner',
  'overrun-more': 'more lock on overrun: steadier on the lift, slower to turn in',
  'overrun-less': 'less lock on overrun: turns in sooner, looser on the lift',
  'breakaway-more': 'stiffer at walking pace, the tyres scrub',
  'breakaway-less': 'holds less with a wheel in the air',
  'apart-more': 'the packs hold farther apart: it pulls to one side',
  'new-ring': 'new pressure rings, or the ramps cut',
  'springs-flatter': 'the springs stand flatter and tire sooner',
  'fewer-plates-heat': 'the same heat on fewer faces',
  'additive-fades': 'goes with the oil: every oil change is a change of friction',
  'no-overrun': 'nothing holds on the lift: each rear wheel brakes for itself',
};
const WHERE_OPTIONS = [
  { value: '', label: 'not said' },
  { value: 'entry', label: 'turning in, off the throttle' },
  { value: 'middle', label: 'through the middle' },
  { value: 'exit', label: 'coming out, on the throttle' },
] as const;
const WHEEL_OPTIONS = [
  { value: '', label: 'not said' },
  { value: 'inside', label: 'the inside one' },
  { value: 'left', label: 'the left, always' },
  { value: 'right', label: 'the right, always' },
] as const;

/** From what the driver says to single steps, each with what it does computed for this unit. */
@Component({
  selector: 'hs-tune-tab',
  imports: [Choice, RouterLink, Toggles],
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
        <div class="met">
          <h3>{{ group.name }}</h3>
          @if (group.asksWhere) {
            <hs-choice
              [name]="'met-where-' + group.complaint"
              label="Where in the turn"
              [of]="group.name"
              [options]="whereOptions"
              [value]="group.where"
              (chosen)="setMet(group.complaint, { where: $event || null })"
            />
          }
          @if (group.asksWheel) {
            <hs-choice
              [name]="'met-wheel-' + group.complaint"
              label="Which wheel"
              [of]="group.name"
              [options]="wheelOptions"
              [value]="group.wheel"
              (chosen)="setMet(group.complaint, { wheel: $event || null })"
            />
          }
        </div>
        @if (group.apart) {
          <p>{{ group.apart }}</p>
        }
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
                  <th scope="row">
                    <span class="words">{{ row.words }}</span>
                    @if (row.besides) {
                      <span class="soft besides">Besides: {{ row.besides }}</span>
                    }
                  </th>
                  @for (cell of row.cells; track $index) {
                    <td [class.moved]="cell.moved">
                      <span class="soft mono">{{ cell.before }}</span> <span class="mono">{{ cell.after }}</span>
                    </td>
                  }
                  <td>
                    @if (row.act === '') {
                      <a [routerLink]="['../pack']" [queryParams]="{ tab: 'shims' }">Shims</a>
                    } @else {
                      <button
                        type="button"
                        class="quiet"
                        [class.go]="$first"
                        [attr.aria-label]="row.act + ': ' + row.words"
                        (click)="take(group.complaint, $index)"
                      >
                        {{ row.act }}
                      </button>
                    }
                  </td>
                </tr>
              } @empty {
                <tr>
                  <td colspan="5">{{ group.nothing }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        @if (group.leads.length) {
          <p class="soft">Where in the turn changes the answer. First of each:</p>
          <dl class="leads">
            @for (lead of group.leads; track lead.where) {
              <dt>
                <button type="button" class="quiet bare" (click)="setMet(group.complaint, { where: lead.where })">
                  {{ lead.name }}
                </button>
              </dt>
              <dd>{{ lead.words }}</dd>
            }
          </dl>
        }
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
    .words::first-letter {
      text-transform: uppercase;
    }
    .met {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 16px;
      align-items: end;
      margin-bottom: 4px;
    }
    .words {
      display: block;
    }
    .leads {
      display: grid;
      grid-template-columns: max-content minmax(0, 1fr);
      align-items: baseline;
      gap: 2px 14px;
      margin-top: 8px;
      font-size: var(--text-s);
    }
    .leads dd {
      margin: 0;
    }
    .besides {
      display: block;
      font-size: var(--text-s);
      font-weight: 400;
      line-height: 1.35;
    }
    table {
      min-width: 560px;
      table-layout: fixed;
    }
    td {
      white-space: nowrap;
    }
    thead th {
      white-space: normal;
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
  protected readonly whereOptions = WHERE_OPTIONS;
  protected readonly wheelOptions = WHEEL_OPTIONS;

  /** Where the driver meets it, and at which wheel. */
  private met(complaint: Complaint): { wheel: Wheel | null; where: Where | null } {
    const said = this.bench.build()?.brief.complaintAt.find((one) => one.complaint === complaint);
    return { wheel: said?.wheel ?? null, where: said?.where ?? null };
  }

  protected setMet(complaint: Complaint, change: { wheel?: Wheel | null; where?: Where | null }): void {
    const now = this.met(complaint);
    this.bench.change((draft) => {
      const others = draft.brief.complaintAt.filter((one) => one.complaint !== complaint);
      draft.brief.complaintAt = [...others, { complaint, ...now, ...change }];
    });
  }

  protected readonly torqueUnit = computed(() => formatIn(0, 'torque', this.bench.system()).unit);
  /** What every step is worked out at; null where there is no plate unit. */
  private readonly tuning = computed(() => {
    const plate = this.plate();
    const inputNm = this.bench.derived()?.inputNm ?? 0;
    const axle = this.bench.axle();
    const build = this.bench.build();
    if (!plate || !axle || !build) return null;
    const overrunNm = (inputNm * entryBase(build.road.overrun)) / 100;
    const tuning = { ...packContext(axle), readings: this.bench.readings(), inputNm, overrunNm };
    return { plate, axle: this.bench.axleName(), tuning };
  });
  private readonly attempt = attempt(() => {
    const of = this.tuning();
    if (!of) return null;
    return new Map(
      this.complaints().map((complaint) => {
        const all = tuneFor(complaint, of.plate, of.axle, of.tuning, this.met(complaint));
        return [complaint, { steps: all.slice(0, SHOWN), leads: this.leads(complaint) }] as const;
      }),
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
    const packs = this.bench.derived()?.axles[this.bench.axleName()]?.pack;
    return [...(this.attempt.value() ?? [])].map(([complaint, { steps, leads }]) => ({
      complaint,
      leads,
      ...this.asks(complaint),
      apart: packs ? this.apartWords(complaint, packs.left.breakawayNm, packs.right.breakawayNm) : '',
      nothing:
        this.sideOf(complaint) === null
          ? 'No single step serves it without locking the unit solid.'
          : 'The packs hold alike: no step of the unit serves one side. Look at that side’s shaft, tyre, spring and corner weight.',
      name: COMPLAINT_OPTIONS.find(({ value }) => value === complaint)?.label ?? complaint,
      rows: steps.map((one) => ({
        words: changeWords(one.change, system),
        cells: [cell('drive', lock, one), cell('overrun', lock, one), cell('breakaway', torque, one)],
        besides: one.besides.map((effect) => BESIDES[effect]).join('; '),
        act: one.change.kind === 'shim-side' ? '' : one.change.kind === 'shim' ? 'Aim for it' : 'Take it',
      })),
    }));
  });

  /** What would be the first step for each place in the turn, while nobody has said which it is. */
  private leads(complaint: Complaint) {
    const { wheel, where } = this.met(complaint);
    const of = this.tuning();
    if (where !== null || !MET_WHERE.includes(complaint) || this.sideOf(complaint) !== null || !of) return [];
    return WHERE_OPTIONS.flatMap(({ value, label }) => {
      if (value === '') return [];
      const [first] = tuneFor(complaint, of.plate, of.axle, of.tuning, { wheel, where: value });
      const words = first ? changeWords(first.change, this.bench.system()) : 'no single step serves it';
      return [{ where: value, name: label, words }];
    });
  }

  private asks(complaint: Complaint) {
    const { wheel, where } = this.met(complaint);
    return {
      asksWhere: MET_WHERE.includes(complaint),
      asksWheel: OF_A_WHEEL.includes(complaint),
      where: where ?? ('' as const),
      wheel: wheel ?? ('' as const),
    };
  }

  /** The side that a complaint is of always; null where it is of none. */
  private sideOf(complaint: Complaint): 'left' | 'right' | null {
    const { wheel } = this.met(complaint);
    return OF_A_WHEEL.includes(complaint) && (wheel === 'left' || wheel === 'right') ? wheel : null;
  }

  private apartWords(complaint: Complaint, leftNm: number, rightNm: number): string {
    const side = this.sideOf(complaint);
    if (side === null) return '';
    const torque = (nm: number): string => say(nm, 'torque', this.bench.system());
    return `Always the ${side} wheel: the left pack holds ${torque(leftNm)}, the right ${torque(rightNm)}.`;
  }

  protected setComplaints(chosen: Complaint[]): void {
    this.bench.change((draft) => {
      const others = draft.brief.complaints.filter((complaint) => !WISHES[complaint]);
      draft.brief.complaints = [...others, ...chosen];
    });
  }

  protected take(complaint: Complaint, index: number): void {
    const advice = this.attempt.value()?.get(complaint)?.steps[index];
    if (!advice) return;
    this.bench.changePlate((plate) => Object.assign(plate, structuredClone(advice.plate)));
  }
}
