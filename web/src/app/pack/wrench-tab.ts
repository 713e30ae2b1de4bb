import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { HOLDS, say, type Hold } from '@hot-spline/core';
import {
  HOLD_WORDS,
  breakaway,
  packFigures,
  packPrint,
  perPackOf,
  readingBase,
  readingEntry,
  steadyTorque,
  turningInForce,
  turningTorque,
} from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { VoidButton } from '../shared/void-button';
import { Bench } from '../state/bench';
import { LearnBar } from './learn-bar';

/** What the torque wrench reads, by how the axle is held; a reading can’t be written without its hold. */
@Component({
  selector: 'hs-wrench-tab',
  imports: [Choice, EntryField, FigureButton, LearnBar, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="caution" role="note">
      Both wheels off the ground: on stands, not on a jack, chocked, nobody in line with the shafts. The maker’s sheet
      says how this unit is checked; it wins over what is computed here.
    </p>
    <div class="turning">
      <hs-entry
        name="turning-entry"
        label="Turning torque, both wheels free"
        quantity="torque"
        [range]="turningRange"
        [entry]="turning().entry"
        [plausible]="turningPlausible"
        [enterOnly]="true"
        placeholder="neutral"
        (taken)="writeTurning($event)"
      />
      <hs-choice name="turning-at" label="Read at the" [options]="ends" [value]="at()" (chosen)="at.set($event)" />
      <p class="soft">
        Turn both wheels together first, nothing held: half of it is in every reading with the other wheel held. At the
        pinion it is multiplied by the ratio.
        @if (turning().known; as known) {
          Taken off: <span class="mono">{{ known }}</span>.
        } @else {
          Not read yet: what is learned would be too high.
        }
        @if (turning().reading; as reading) {
          <hs-void [id]="reading.id" what="Turning torque" />
        }
      </p>
    </div>
    <fieldset>
      <legend class="section-title">How is it held while you turn one wheel?</legend>
      @for (row of rows(); track row.hold) {
        <div class="hold" [class.on]="hold() === row.hold">
          <label>
            <input
              type="radio"
              name="hold"
              [value]="row.hold"
              [checked]="hold() === row.hold"
              (change)="hold.set(row.hold)"
            />
            <span>{{ row.words }}</span>
          </label>
          <hs-figure class="small" [id]="row.figure" label="predicted" />
          <div class="measured" [id]="'breakaway-' + row.hold" tabindex="-1">
            @if (hold() === row.hold) {
              <hs-entry
                [name]="'breakaway-entry-' + row.hold"
                label="Breakaway reading"
                quantity="torque"
                [range]="range"
                [entry]="row.entry"
                [plausible]="plausible"
                [enterOnly]="true"
                placeholder="breakaway"
                (taken)="write(row.hold, $event)"
              />
              <hs-entry
                [name]="'steady-entry-' + row.hold"
                label="Steady reading, slipping"
                quantity="torque"
                [range]="range"
                [entry]="row.steady"
                [plausible]="plausible"
                [enterOnly]="true"
                placeholder="steady"
                (taken)="writeSteady(row.hold, $event)"
              />
            } @else if (row.entry; as entry) {
              <span class="mono">{{ entry.typed }}</span>
              @if (row.steady; as steady) {
                <span class="soft">steady</span> <span class="mono">{{ steady.typed }}</span>
              }
            } @else {
              <span class="soft">not measured</span>
            }
          </div>
          <div class="per-pack">
            @if (row.perPack !== null) {
              <span class="soft">a pack holds</span> <span class="mono">{{ row.perPack }}</span>
            }
            @if (row.reading; as reading) {
              <hs-void [id]="reading.id" [what]="'Breakaway ' + row.entry?.typed" />
            }
            @if (row.steadyReading; as reading) {
              <hs-void [id]="reading.id" [what]="'Steady reading ' + row.steady?.typed" />
            }
          </div>
        </div>
      }
    </fieldset>
    <div class="bedded">
      <hs-figure class="small" [id]="ids.bedded(bench.axleName())" label="Predicted when bedded in" />
      <span class="soft"
        >Write the first reading with fresh plates, and one more after the run-in: it is another number.</span
      >
    </div>
    <hs-learn-bar />
  `,
  styles: `
    @use 'breakpoints' as *;
    fieldset {
      border: 0;
      margin: 14px 0 0;
      padding: 0;
    }
    .turning {
      display: grid;
      grid-template-columns: minmax(150px, 1fr) 120px minmax(0, 2fr);
      gap: 12px;
      align-items: start;
      margin-top: 12px;
      font-size: var(--text-s);
    }
    .measured {
      display: flex;
      flex-direction: column;
      gap: 6px;
    }
    .hold {
      display: grid;
      grid-template-columns: minmax(0, 1.5fr) 118px minmax(0, 1.2fr) minmax(0, 1fr);
      gap: 12px;
      align-items: center;
      min-height: 62px;
      padding: 6px 8px;
      border-top: 1px solid var(--rule);
    }
    .hold.on {
      background: var(--blue-wash);
    }
    label span::first-letter {
      text-transform: uppercase;
    }
    label {
      display: flex;
      gap: 9px;
      align-items: center;
      min-height: 44px;
      cursor: pointer;
    }
    input[type='radio'] {
      flex: none;
      width: 18px;
      height: 18px;
      accent-color: var(--blue);
    }
    .per-pack {
      font-size: var(--text-s);
    }
    .per-pack .mono {
      margin-left: 4px;
    }
    .bedded {
      display: flex;
      gap: 16px;
      align-items: center;
      padding: 6px 8px;
      border-top: 1px solid var(--rule);
      font-size: var(--text-s);
    }
    @media #{$narrow} {
      .turning {
        grid-template-columns: 1fr 1fr;
      }
      .turning p {
        grid-column: 1 / -1;
      }
      .hold {
        grid-template-columns: 1fr 1fr;
      }
      label {
        grid-column: 1 / -1;
      }
    }
  `,
})
export class WrenchTab {
  protected readonly bench = inject(Bench);
  protected readonly ids = packFigures;
  protected readonly hold = signal<Hold | null>(null);
  protected readonly range = { above: 0, max: 1e5, unit: 'N·m' };
  protected readonly plausible = breakaway.value.plausible;

  protected readonly turningRange = { min: 0, max: 1e4, unit: 'N·m' };
  protected readonly turningPlausible = turningTorque.value.plausible;
  protected readonly at = signal<'wheel' | 'pinion'>('wheel');
  protected readonly ends = [
    { value: 'wheel' as const, label: 'wheel' },
    { value: 'pinion' as const, label: 'pinion' },
  ];
  /** The turning torque in force, and what of it is in a reading with the other wheel held. */
  protected readonly turning = computed(() => {
    const axle = this.bench.axleName();
    const found = turningInForce(axle, this.bench.readings());
    const wheel = this.bench.derived()?.axles[axle]?.pack?.wheel;
    return {
      reading: found?.reading ?? null,
      entry: found && found.at === this.at() ? readingEntry(found.reading) : null,
      known: found && wheel ? say((wheel.turningNm ?? 0) / 2, 'torque', this.bench.system()) : null,
    };
  });

  protected readonly rows = computed(() => {
    const axle = this.bench.axleName();
    const system = this.bench.system();
    const wheel = this.bench.derived()?.axles[axle]?.pack?.wheel;
    return HOLDS.map((hold) => {
      const reading = this.bench.readingOf(breakaway.of({ axle, hold }));
      const perPack = reading && wheel ? perPackOf({ hold, torqueNm: readingBase(reading) }, wheel) : null;
      const steady = this.bench.readingOf(steadyTorque.of({ axle, hold }));
      return {
        hold,
        words: HOLD_WORDS[hold],
        figure: packFigures.wrench(axle, hold),
        entry: reading ? readingEntry(reading) : null,
        reading,
        perPack: perPack === null ? null : say(perPack, 'torque', system),
        steady: steady ? readingEntry(steady) : null,
        steadyReading: steady,
      };
    });
  });

  protected writeTurning({ entry }: TakenEntry): void {
    const of = turningTorque.of({ axle: this.bench.axleName(), at: this.at() });
    this.bench.record(of, entry, 'Dial or beam torque wrench');
  }

  /** How it was held, and on which packs: once they lie otherwise it says nothing of them. */
  private about(hold: Hold) {
    const plate = this.bench.plate();
    return { axle: this.bench.axleName(), hold, ...(plate ? { packs: packPrint(plate) } : {}) };
  }

  protected writeSteady(hold: Hold, { entry }: TakenEntry): void {
    this.bench.record(steadyTorque.of(this.about(hold)), entry, 'Torque wrench');
  }

  protected write(hold: Hold, { entry }: TakenEntry): void {
    this.bench.record(breakaway.of(this.about(hold)), entry, 'Torque wrench');
  }
}
