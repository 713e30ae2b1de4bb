import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ORIGIN_WORDS, type FactFrom, type FactState, type SaidFact, type Work } from '@hot-spline/model';
import { Choice, type Option } from '../shared/choice';
import { AXLE_SAID, type AxleSaidKey } from '../library/axle-said';
import { BOX_LABELS, JOB_OPTIONS, WorkEdit } from './work-edit';

const LABELS: Readonly<Record<SaidFact, string>> = {
  arrives: 'Comes as',
  gears: 'Gears',
  unit: 'Unit',
  sideBearings: 'Side bearings',
  pinionBearings: 'Pinion bearings',
  ringOff: 'Ring comes off',
  pinionOut: 'Pinion comes out',
  depthShim: 'Depth shim',
  ringPlacedBy: 'Ring is placed by',
  box: 'Gearbox',
};
/** What a value of a fact is called. */
const WORDS: Readonly<Record<string, string>> = {
  ...BOX_LABELS,
  car: 'a car',
  axle: 'an axle on stands',
  'loose-unit': 'a loose unit',
  parts: 'in pieces, or new parts',
  stay: 'stay',
  new: 'new',
  used: 'another used pair',
  stays: 'stays as it is',
  'new-closed': 'new, stays closed',
  'new-opened': 'new, opened to be set',
  'own-overhauled': 'its own, overhauled',
  insert: 'insert into the open carrier',
  locker: 'selectable locker',
  spool: 'spool',
  yes: 'yes',
  no: 'no',
  'head-bearing': 'under the head bearing',
  cup: 'behind its cup',
  support: 'under the pinion support',
  'box-shaft': 'on the box shaft',
  none: 'none',
  'outboard-shims': 'shims outside the bearings',
  'inboard-shims': 'shims under the bearings',
  adjusters: 'threaded adjusters',
  covers: 'shims under the side covers',
};
/** What stands in for what nobody has said of an axle. */
const UNSAID: Readonly<Partial<Record<AxleSaidKey, string>>> = {
  retention: 'nobody has said: worked as with c-clips',
  spread: 'nobody has said: a spreader where shims are pressed in beside the carrier, else nothing',
};
const WHY: Readonly<Record<FactFrom, string>> = {
  said: 'said here',
  job: 'by the job',
  axle: 'by the axle’s spec',
  usual: 'the usual; nobody has said the axle',
  follows: 'follows from the rest',
};

/** The facts that the order of work follows from: each as it is, why, and changed with one tap. */
@Component({
  selector: 'hs-facts',
  imports: [Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Facts of the job">
      <h2 class="visually-hidden">Facts of the job</h2>
      <div class="facts">
        <div>
          <hs-choice
            [name]="'job-' + edit.axle()"
            label="Job"
            [options]="jobs()"
            [value]="edit.work()!.job"
            (chosen)="edit.setJob($event)"
          />
        </div>
        <p class="soft">
          A job only sets the switches below. Change one, and the order of work, its gates and its parts follow.
        </p>
      </div>
      <div class="facts">
        @for (one of facts(); track one.fact) {
          <div [class.said]="one.from === 'said'">
            @if (one.may.length > 1 || one.from === 'said') {
              <hs-choice
                [name]="'fact-' + one.fact + '-' + edit.axle()"
                [label]="labels[one.fact]"
                [options]="options(one)"
                [value]="one.from === 'said' ? one.value : ''"
                (chosen)="edit.sayFact(one.fact, $event === '' ? null : $event)"
              />
            } @else {
              <span class="label">{{ labels[one.fact] }}</span>
              <span class="fixed">{{ words[one.value] ?? one.value }}</span>
            }
            <span class="why">{{ why[one.from] }}</span>
          </div>
        }
      </div>
    </section>
    <section aria-label="Of the axle">
      <h2 class="section-title">Of the axle</h2>
      <div class="facts">
        @for (one of ofAxle(); track one.key) {
          <div [class.said]="one.value !== ''">
            <hs-choice
              [name]="'fact-' + one.field + '-' + edit.axle()"
              [label]="one.label"
              [options]="one.options"
              [value]="one.value"
              (chosen)="edit.sayAxle(one.key, $event)"
            />
            <span class="why">{{ one.why }}</span>
          </div>
        }
      </div>
    </section>
    @if (edit.state(); as s) {
      <section aria-label="How it is done here">
        <h2 class="section-title">How it is done here</h2>
        <div class="facts">
          @if (s.facts.construction !== 'electric-reduction') {
            <div>
              <hs-choice
                [name]="'work-depth-' + edit.axle()"
                label="Pinion depth"
                [options]="depths"
                [value]="edit.work()!.schools.depth"
                (chosen)="edit.change(setSchool('depth', $event))"
              />
            </div>
            <div>
              <hs-choice
                [name]="'work-bearings-' + edit.axle()"
                label="Trial bearings"
                [options]="bearings"
                [value]="edit.work()!.schools.bearings"
                (chosen)="edit.change(setSchool('bearings', $event))"
              />
            </div>
            <div>
              <hs-choice
                [name]="'work-ring-' + edit.axle()"
                label="Ring gear"
                [options]="rings"
                [value]="edit.work()!.schools.ringGear"
                (chosen)="edit.change(setSchool('ringGear', $event))"
              />
            </div>
            @if (s.facts.unit === 'locker') {
              <div>
                <hs-choice
                  [name]="'work-locker-rings-' + edit.axle()"
                  label="Sealing rings of the locker"
                  [options]="lockerRings"
                  [value]="edit.work()!.schools.lockerRings"
                  (chosen)="edit.change(setSchool('lockerRings', $event))"
                />
              </div>
            }
          }
        </div>
      </section>
    }
  `,
  styles: `
    .facts {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 12px 20px;
      margin-bottom: 18px;
    }
    .facts > div {
      padding-left: 8px;
      border-left: 3px solid transparent;
    }
    .label,
    .why {
      display: block;
      font-size: var(--text-s);
      color: var(--soft);
    }
    .fixed {
      display: flex;
      align-items: center;
      min-height: 36px;
    }
    .facts > .said {
      border-left-color: var(--blue);
    }
    p {
      grid-column: span 2;
      align-self: end;
      font-size: var(--text-s);
    }
    @media (max-width: 900px) {
      .facts {
        grid-template-columns: minmax(0, 1fr);
      }
      p {
        grid-column: auto;
      }
    }
  `,
})
export class FactsPanel {
  protected readonly edit = inject(WorkEdit);
  protected readonly labels = LABELS;
  protected readonly words = WORDS;
  protected readonly why = WHY;
  protected readonly depths = [
    { value: 'gauge-first', label: 'gauge first' },
    { value: 'pattern-first', label: 'pattern first' },
    { value: 'gauge-decides', label: 'gauge decides' },
  ] as const;
  protected readonly bearings = [
    { value: 'set-up', label: 'set-up bearings' },
    { value: 'press-on', label: 'pressed on each time' },
  ] as const;
  protected readonly lockerRings = [
    { value: 'after-dry-trial', label: 'after a dry trial' },
    { value: 'first-fitting', label: 'from the first fitting' },
  ] as const;
  protected readonly rings = [
    { value: 'heated', label: 'heated' },
    { value: 'pulled-on', label: 'drawn on, a few dry bolts' },
  ] as const;
  /** The job that it is stays on the list, also where the unit has become another kind since. */
  protected readonly jobs = computed(() => {
    const now = this.edit.work()?.job;
    const may = this.edit.jobs();
    return may.some(({ value }) => value === now)
      ? may
      : JOB_OPTIONS.filter((one) => one.value === now || may.includes(one));
  });
  /** What the axle is decides steps too: kept on its spec, as on Brief and axle. */
  protected readonly ofAxle = computed(() => {
    const identity = this.edit.bench.axle()?.identity ?? null;
    return AXLE_SAID.map(({ key, field, label, options }) => {
      const said = identity?.[key] ?? null;
      const why = said ? ORIGIN_WORDS[said.origin] : (UNSAID[key] ?? 'nobody has said');
      return { key, field, label, options, value: said?.value ?? '', why };
    });
  });
  protected readonly facts = computed<readonly FactState[]>(() => this.edit.facts());

  protected readonly setSchool =
    <K extends keyof Work['schools']>(key: K, value: Work['schools'][K]) =>
    (work: Work) => {
      work.schools[key] = value;
    };

  /** The first option is what it follows as, and takes back what was said. */
  protected options({ otherwise, from, may }: FactState): readonly Option<string>[] {
    const follows = WORDS[otherwise] ?? otherwise;
    return [
      { value: '', label: from === 'said' ? `${follows}, as it would follow` : follows },
      ...may.map((value) => ({ value, label: WORDS[value] ?? value })),
    ];
  }
}
