import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { GRAVITY, entryBase, readyCar, shiftSpeeds } from '@hot-spline/core';
import { vehicleOf } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { attempt } from '../shared/attempt';
import { Chart, chartColours, type ChartOption } from '../shared/chart';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { thrustOption } from './thrust-chart';

const SLOPES = [0, 10, 20, 30, 50];

/** Thrust in every gear against road load on slopes. */
@Component({
  selector: 'hs-thrust-tab',
  imports: [Chart, FigureButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    } @else {
      <hs-chart [option]="option()" label="Thrust in every gear against road load on slopes" />
      <p class="shifts" aria-label="Best shift points">
        <span class="soft">Shift up at</span>
        @for (shift of shifts(); track shift.name) {
          <span
            ><span class="soft">{{ shift.name }}</span> <span class="mono">{{ shift.rpm }}</span></span
          >
        }
        <span class="soft">rpm: where the next gear pulls harder, or the limiter</span>
      </p>
      <p class="soft">
        Where a gear’s curve crosses a load line is the fastest that it climbs that slope. On ochre the tyres, not the
        engine, are the limit at full throttle.
      </p>
    }
    <div class="figures">
      <hs-figure id="point.speed" />
      <hs-figure id="road.tyreLimit" label="Tyre is the limit, of the run" />
      <hs-figure id="match.crawl" />
      <hs-figure id="point.input" label="Torque into the unit" [decimals]="0" />
    </div>
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    :host {
      padding: 0 !important;
      flex: 1;
      min-height: 0;
    }
    hs-chart {
      flex: 1;
      height: auto;
      min-height: 300px;
    }
    .shifts {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 16px;
    }
    .shifts .mono {
      margin-left: 4px;
    }
    p {
      font-size: var(--text-s);
      margin: 4px 0 8px;
    }
  `,
})
export class ThrustTab {
  protected readonly bench = inject(Bench);
  private readonly night = inject(Store).selectSignal(uiFeature.selectNight);
  private readonly picture = attempt<ChartOption>(() => {
    const build = this.bench.build();
    const main = this.bench.axleName();
    const own = this.bench.derived()?.gearing[main];
    this.night();
    if (!build || !own) return null;
    const car = readyCar(vehicleOf(build, main, own, this.bench.point().range));
    const grade = entryBase(build.road.grade);
    const weight = car.massKg * GRAVITY;
    const rolling = entryBase(build.road.rollingCoefficient);
    const slopes = [...new Set([...SLOPES, ...(grade > 0 ? [grade] : [])])].sort((a, b) => a - b);
    const grades = slopes.map((percent) => {
      const angle = Math.atan(percent / 100);
      return {
        percent,
        resistance: (v: number) => car.drag * v * v + weight * (rolling * Math.cos(angle) + Math.sin(angle)),
      };
    });
    return thrustOption({
      car,
      gearNames: build.gearbox.gears.map((gear) => gear.name),
      grades,
      pointMps: this.bench.figure('point.speed')?.value ?? 0,
      system: this.bench.system(),
      colours: chartColours(),
    });
  });
  protected readonly problem = this.picture.problem;
  /** Engine speed at which each gear is best left. */
  protected readonly shifts = computed(() => {
    const build = this.bench.build();
    const main = this.bench.axleName();
    const own = this.bench.derived()?.gearing[main];
    if (!build || !own || this.problem() !== null) return [];
    const car = readyCar(vehicleOf(build, main, own, this.bench.point().range));
    const name = (i: number): string => build.gearbox.gears[i]?.name ?? '';
    return shiftSpeeds(car).map((speed, i) => ({
      name: `${name(i)}→${name(i + 1)}`,
      rpm: Math.round(car.gears[i]?.rpm(speed) ?? 0),
    }));
  });
  protected readonly option = computed(() => this.picture.value() ?? {});
}
