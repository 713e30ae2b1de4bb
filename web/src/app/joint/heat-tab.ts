import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import {
  EXPANSION,
  JOINT_LIMITS,
  LIMITS,
  RING_HEAT_C,
  entryBase,
  entryOf,
  say,
  type Entry,
  type JointMaterial,
} from '@hot-spline/core';
import { jointFigures, type Joint } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { EntryField } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';

type Fit = NonNullable<Joint['fit']>;
/** The drawn scale, °C. */
const SCALE = { from: 0, to: 260 };

/** How warm the ring goes on, with its limit drawn. */
@Component({
  selector: 'hs-heat-tab',
  imports: [Choice, EntryField, FigureButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (joint().fit; as fit) {
      <div class="columns">
        <section aria-label="Fit">
          <hs-entry
            [name]="'fit-diameter-' + axle()"
            label="Register, across"
            quantity="length"
            scale="large"
            [range]="diameter"
            [entry]="fit.diameter"
            [compact]="true"
            (taken)="set({ diameter: $event.entry })"
          />
          <hs-entry
            [name]="'fit-interference-' + axle()"
            label="Interference, on the diameter"
            quantity="length"
            scale="small"
            [range]="interference"
            [entry]="fit.interference"
            [compact]="true"
            (taken)="set({ interference: $event.entry })"
          />
          <hs-entry
            [name]="'fit-slide-' + axle()"
            label="To slide it on"
            quantity="length"
            scale="small"
            [range]="interference"
            [entry]="fit.slide"
            [compact]="true"
            (taken)="set({ slide: $event.entry })"
          />
          <hs-entry
            [name]="'fit-start-' + axle()"
            label="Now"
            quantity="temperature"
            [range]="celsius"
            [entry]="fit.start"
            [compact]="true"
            (taken)="set({ start: $event.entry })"
          />
          <hs-choice
            [name]="'fit-material-' + axle()"
            label="Material"
            [options]="materials"
            [value]="fit.material"
            (chosen)="set({ material: $event })"
          />
          <hs-entry
            [name]="'fit-limit-' + axle()"
            label="Most by the ring’s sheet"
            quantity="temperature"
            [range]="celsius"
            [entry]="fit.limit"
            placeholder="190 °C, ours"
            [compact]="true"
            (taken)="set({ limit: $event.entry })"
          />
          <p class="caution" role="note">
            It begins with round figures of ours: measure over them. Gloves and face shield. Hold it down until it
            takes; cool all through before the final torque. A carrier out of the freezer helps as much.
          </p>
        </section>
        <div class="drawn">
          <svg viewBox="0 0 120 300" role="img" [attr.aria-label]="words()">
            <rect class="tube" x="46" y="10" width="28" height="280" rx="14" />
            <rect class="hot" x="46" y="10" width="28" [attr.height]="y(limit()) - 10" />
            <rect class="warm" x="46" [attr.y]="y(limit())" width="28" [attr.height]="y(watchC) - y(limit())" />
            <line class="now" x1="34" x2="86" [attr.y1]="y(target())" [attr.y2]="y(target())" />
            <text x="92" [attr.y]="y(target()) + 5">{{ text(target()) }}</text>
            <text class="soft" x="0" [attr.y]="y(watchC) + 5">{{ text(watchC) }}</text>
            <text class="soft" x="0" [attr.y]="y(limit()) + 5">{{ text(limit()) }}</text>
          </svg>
          <hs-figure [id]="figures.heat(axle())" />
        </div>
      </div>
    } @else {
      <p>The ring heated, the carrier cold: how warm follows from the fit.</p>
      <button type="button" class="quiet main" [id]="'fit-diameter-' + axle()" (click)="begin()">
        Measure the fit
      </button>
    }
  `,
  styleUrl: './joint-sheet.scss',
  styles: `
    svg {
      width: 190px;
      height: 300px;
      overflow: visible;
    }
    .tube {
      fill: none;
      stroke: var(--field);
    }
    .hot {
      fill: var(--stop);
      opacity: 0.35;
    }
    .warm {
      fill: var(--ochre);
      opacity: 0.45;
    }
    .now {
      stroke: var(--ink);
      stroke-width: 4;
    }
    text {
      font-size: 15px;
      fill: var(--ink);
    }
    text.soft {
      font-size: 11px;
      fill: var(--soft);
    }
    .drawn {
      display: flex;
      gap: 20px;
      align-items: center;
    }
  `,
})
export class HeatTab {
  readonly joint = input.required<Joint>();
  private readonly bench = inject(Bench);
  protected readonly axle = this.bench.axleName;
  protected readonly figures = jointFigures;
  protected readonly diameter = LIMITS.diameterMm;
  protected readonly interference = JOINT_LIMITS.interferenceMm;
  protected readonly celsius = JOINT_LIMITS.celsius;
  protected readonly materials = (Object.keys(EXPANSION) as JointMaterial[]).map((value) => ({
    value,
    label: value.replace('-', ' '),
  }));
  protected readonly target = computed(() => this.bench.figure(jointFigures.heat(this.axle()))?.value ?? 0);
  protected readonly watchC = RING_HEAT_C.watch;
  protected readonly limit = computed(() => {
    const told = this.joint().fit?.limit;
    return told ? entryBase(told) : RING_HEAT_C.stop;
  });
  protected readonly words = computed(() => `Slides on at ${this.text(this.target())}`);

  protected y(celsius: number): number {
    const share = (celsius - SCALE.from) / (SCALE.to - SCALE.from);
    return 290 - 280 * Math.min(1, Math.max(0, share));
  }

  protected text(celsius: number): string {
    return say(celsius, 'temperature', this.bench.system(), 0);
  }

  protected begin(): void {
    const inch = this.bench.system() === 'inch';
    const of = (thou: number, mm: number): Entry => (inch ? entryOf(thou, 'thou') : entryOf(mm, 'mm'));
    // Round figures of ours, to be measured over.
    this.change({
      diameter: this.joint().boltCircle ?? (inch ? entryOf(6.5, 'in') : entryOf(160, 'mm')),
      interference: of(1.5, 0.04),
      slide: of(2.5, 0.06),
      start: inch ? entryOf(68, '°F') : entryOf(20, '°C'),
      material: 'steel',
      limit: null,
    });
  }

  protected set(change: Partial<Fit>): void {
    const { fit } = this.joint();
    if (fit) this.change({ ...fit, ...change });
  }

  private change(fit: Fit): void {
    this.bench.changeAxle(({ joint }) => {
      if (joint) joint.fit = fit;
    });
  }
}
