import { gearingFigures } from '@hot-spline/model';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { entryBase, entryOf, say, toothPair, type Entry } from '@hot-spline/core';
import type { Build, Tyre } from '@hot-spline/model';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';
import { HIGH, onTyre, rpmAt, rpmText } from './at-speed';

/** What slips, grows and wears, and what a new tyre or ratio does to crawl and speed reading. */
@Component({
  selector: 'hs-match-tab',
  imports: [EntryField, FigureButton, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bench.build(); as build) {
      @let tyre = bench.axle()!.tyre;
      <div class="columns">
        <section aria-labelledby="slip-title">
          <h2 class="section-title" id="slip-title">Counted in every speed and rpm</h2>
          <div class="grid">
            <hs-entry
              name="wheel-slip"
              label="Driven wheels slip"
              quantity="percent"
              [range]="slipRange"
              [entry]="build.road.wheelSlip"
              [echo]="false"
              [big]="true"
              (taken)="setWheelSlip($event)"
            />
            @if (converterSlip(); as slip) {
              <hs-entry
                name="match-converter"
                label="Converter slips"
                quantity="percent"
                [range]="slipRange"
                [entry]="slip"
                [echo]="false"
                [big]="true"
                (taken)="setConverterSlip($event)"
              />
            }
            <hs-entry
              name="tyre-wear"
              label="Tread worn off"
              quantity="length"
              [range]="wearRange"
              [usual]="usualWear"
              [entry]="tyre.wear ?? none()"
              [echo]="tyre.wear !== null"
              [big]="true"
              [hint]="tyre.measured ? 'measured: wear is in it' : ''"
              (taken)="setTyre({ wear: $event.base === 0 ? null : $event.entry })"
            />
            <hs-entry
              name="growth-share"
              label="Tyre grows by"
              quantity="percent"
              [range]="growthRange"
              [entry]="tyre.growth?.share ?? noShare"
              [echo]="false"
              [big]="true"
              (taken)="setGrowth($event)"
            />
            @if (tyre.growth; as growth) {
              <hs-entry
                name="growth-speed"
                label="of its radius at"
                quantity="speed"
                [range]="speedRange"
                [entry]="growth.atSpeed"
                [big]="true"
                (taken)="setTyre({ growth: { share: growth.share, atSpeed: $event.entry } })"
              />
            }
          </div>
          <p class="soft">
            A radial hardly grows; a bias slick does, with the square of speed. Slip and growth are none unless you say
            so.
          </p>
          @if (matrix(); as m) {
            <div class="scroll">
              <table class="table numbers">
                <caption>
                  Engine at
                  {{
                    cruiseAt(build)
                  }}, rpm, by final drive and tyre
                </caption>
                <thead>
                  <tr>
                    <th scope="col">final</th>
                    @for (tyre of m.tyres; track $index) {
                      <th scope="col">
                        {{ tyre.name }} <span class="mono soft">{{ tyre.designation }}</span>
                      </th>
                    }
                  </tr>
                </thead>
                <tbody>
                  @for (row of m.rows; track row.label) {
                    <tr [class.present]="row.present">
                      <th scope="row">
                        <span class="mono">{{ row.label }}</span>&ngsp;<span class="mono soft">{{ row.ratio }}</span>
                      </th>
                      @for (rpm of row.rpm; track $index) {
                        <td class="mono">{{ rpm }}</td>
                      }
                    </tr>
                  }
                </tbody>
              </table>
            </div>
          }
        </section>
        <section aria-labelledby="what-if-title" id="match-reading" tabindex="-1">
          <h2 class="section-title" id="what-if-title">What the change does</h2>
          <div class="pairs">
            <hs-figure id="match.crawl" />
            @if (build.brief.plannedTyre) {
              <hs-figure id="match.equal" />
              <hs-figure id="match.effective" />
            }
            @if (build.brief.was) {
              <hs-figure id="match.reading" label="True speed for 100 shown" />
            }
            @if (mismatch()) {
              <hs-figure id="gearing.mismatch" label="Front shaft against rear" />
            }
          </div>
          @if (readings().length) {
            <table class="table numbers">
              <caption>
                Shown and true,
                {{
                  bench.system() === 'inch' ? 'mph' : 'km/h'
                }}
              </caption>
              <tbody>
                <tr>
                  <th scope="row">shown</th>
                  @for (reading of readings(); track reading.shown) {
                    <td class="mono soft">{{ reading.shown }}</td>
                  }
                </tr>
                <tr>
                  <th scope="row">true</th>
                  @for (reading of readings(); track reading.shown) {
                    <td class="mono">{{ reading.real }}</td>
                  }
                </tr>
              </tbody>
            </table>
          }
          @if (!build.brief.plannedTyre || !build.brief.was) {
            <p class="soft">
              Say in the <a [routerLink]="['../brief']">brief</a> which tyre is planned and with which final drive and
              tyre the speedometer was right: equal gearing and the correction of the reading follow.
            </p>
          }
        </section>
      </div>
      <div class="figures">
        <hs-figure id="gearing.cruise" label="Engine speed at cruise" />
        <hs-figure id="point.speed" />
        <hs-figure [id]="ids.circumference(bench.axleName())" label="Rolling circumference" />
        <hs-figure [id]="ids.final(bench.axleName())" label="Final drive" />
      </div>
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    @use 'breakpoints' as *;
    :host {
      padding: 0 !important;
      flex: 1;
    }
    .columns {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 24px;
    }
    section {
      display: grid;
      gap: 10px;
      align-content: start;
    }
    .grid,
    .pairs {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px 14px;
    }
    p {
      font-size: var(--text-s);
    }
    th,
    td {
      padding: 2px 8px;
    }
    thead th {
      font-weight: 400;
    }
    tr.present {
      background: var(--blue-wash);
    }
    @media #{$narrow} {
      .columns {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class MatchTab {
  protected readonly bench = inject(Bench);

  /** In the units of whoever looks. */
  protected cruiseAt({ cruiseSpeed }: Build): string {
    return say(entryBase(cruiseSpeed), 'speed', this.bench.system(), 0);
  }
  protected readonly ids = gearingFigures;
  protected readonly slipRange = { min: 0, max: 50, unit: '%' };
  protected readonly growthRange = { min: 0, max: 50, unit: '%' };
  protected readonly wearRange = { min: 0, max: 50, unit: 'mm' };
  protected readonly usualWear = [0.2, 15] as const;
  protected readonly speedRange = { above: 0, max: 200, unit: 'm/s' };
  protected readonly none = computed<Entry>(() => entryOf(0, this.bench.system() === 'inch' ? 'thou' : 'mm'));
  protected readonly noShare: Entry = entryOf(0, '%');
  protected readonly mismatch = computed(() => this.bench.figure('gearing.mismatch') !== null);
  protected readonly converterSlip = computed(() => {
    const coupling = this.bench.build()?.coupling;
    return coupling?.kind === 'converter' ? coupling.slip : null;
  });

  /** Engine speed at cruise with every final drive that exists for this axle, on the tyre that is on and the one planned. */
  protected readonly matrix = computed(() => {
    const build = this.bench.build();
    const axle = this.bench.axle();
    const own = this.bench.derived()?.gearing[this.bench.axleName()];
    if (!build || !axle || !own) return null;
    const planned = build.brief.plannedTyre;
    const tyres = [
      { name: 'on it', designation: axle.tyre.designation, state: own },
      ...(planned ? [{ name: 'planned', designation: planned, state: onTyre(own, axle.tyre, planned) }] : []),
    ];
    const pairs = [axle.finalDrive, ...build.candidates, ...(axle.identity?.sets ?? [])];
    const known = new Map(pairs.map((pair) => [`${pair.ring}/${pair.pinion}`, toothPair(pair).ratio]));
    const speed = entryBase(build.cruiseSpeed);
    const rows = [...known]
      .sort(([, a], [, b]) => a - b)
      .map(([label, finalRatio]) => ({
        label,
        ratio: finalRatio.toFixed(3),
        present: label === `${axle.finalDrive.ring}/${axle.finalDrive.pinion}`,
        rpm: tyres.map(({ state }) => rpmText(rpmAt(build, state, HIGH, speed, { finalRatio }))),
      }));
    return { tyres, rows };
  });

  /** What it really goes at round figures of the speedometer. */
  protected readonly readings = computed(() => {
    const factor = this.bench.figure('match.reading')?.value ?? null;
    if (factor === null) return [];
    const shown = this.bench.system() === 'inch' ? [20, 40, 55, 70, 100] : [30, 50, 80, 100, 130];
    return shown.map((value) => ({ shown: value, real: ((value * factor) / 100).toFixed(1) }));
  });

  protected setWheelSlip({ entry }: TakenEntry): void {
    this.bench.change((draft) => (draft.road.wheelSlip = entry));
  }

  protected setConverterSlip({ entry }: TakenEntry): void {
    this.bench.change((draft) => {
      if (draft.coupling.kind === 'converter') draft.coupling.slip = entry;
    });
  }

  protected setTyre(change: Partial<Tyre>): void {
    this.bench.changeAxle((axle) => Object.assign(axle.tyre, change));
  }

  protected setGrowth({ entry, base }: TakenEntry): void {
    const atSpeed = this.bench.axle()?.tyre.growth?.atSpeed ?? entryOf(200, 'km/h');
    this.setTyre({ growth: base === 0 ? null : { share: entry, atSpeed } });
  }
}
