import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { LIMITS, converterHeat, entryBase, rollingCircumference, say, toothPair, tyreSize } from '@hot-spline/core';
import { climbOf, climbingVehicle, finalsOf, type Brief, type Build } from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';

type Climb = Brief['climb'];

/** Heat in the torque converter on a climb: with the final drive that is in, the old one, and those compared. */
@Component({
  selector: 'hs-heat-tab',
  imports: [Choice, EntryField, FigureButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bench.build(); as build) {
      @if (build.coupling.kind !== 'converter') {
        <p class="empty">
          This car has no torque converter. What runs hot then is the gear oil: level, grade, preload of the bearings, a
          unit that drags. Read the oil after the same stretch, before and after a change.
        </p>
      } @else {
        @let climb = build.brief.climb;
        <div class="entries">
          <hs-entry
            name="climb-grade"
            label="Slope"
            quantity="percent"
            [range]="gradeRange"
            [entry]="climb.grade"
            [echo]="false"
            [big]="true"
            (taken)="set({ grade: $event.entry })"
          />
          <hs-entry
            name="climb-speed"
            label="Steady speed"
            quantity="speed"
            [range]="speedRange"
            [entry]="climb.speed"
            [big]="true"
            (taken)="set({ speed: $event.entry })"
          />
          <hs-entry
            name="climb-load"
            label="Carried or towed"
            quantity="mass"
            [range]="loadRange"
            [entry]="climb.load"
            [big]="true"
            (taken)="set({ load: $event.entry })"
          />
          <hs-choice
            name="climb-gear"
            label="In gear"
            [options]="gears()"
            [value]="'' + gear()"
            (chosen)="set({ gear: +$event })"
          />
        </div>
        @if (problem(); as p) {
          <p class="caution" role="alert">{{ p }}</p>
        } @else {
          <div class="scroll">
            <table class="table numbers">
              <caption class="visually-hidden">
                Heat in the converter by final drive
              </caption>
              <thead>
                <tr>
                  <th scope="col">Final drive</th>
                  <th scope="col">Heat</th>
                  <th scope="col">Engine</th>
                  <th scope="col">Speed ratio</th>
                  <th scope="col">Engine gives</th>
                  <th scope="col">Against now</th>
                </tr>
              </thead>
              <tbody>
                @for (row of rows(); track row.label) {
                  <tr [class.present]="row.present">
                    <th scope="row">
                      <span class="mono">{{ row.label }}</span>
                      <span class="soft what">{{ row.what }}</span>
                    </th>
                    <td class="mono big">{{ row.heat }}</td>
                    <td class="mono">{{ row.rpm }}</td>
                    <td class="mono">{{ row.ratio }}</td>
                    <td class="mono">{{ row.torque }}</td>
                    <td class="mono">{{ row.against }}</td>
                  </tr>
                }
              </tbody>
            </table>
          </div>
          <p class="soft">
            Steady speed, full balance of drag, rolling and slope. Below coupling the converter multiplies torque and
            slips; a shorter final drive that lifts the speed ratio is what cools it. No lock-up clutch counted.
            {{ oil() }}
          </p>
        }
      }
      <div class="figures">
        <hs-figure id="road.heat" label="Heat on the climb, now" />
        <hs-figure id="road.heatBefore" label="Before the change" />
        <hs-figure id="gearing.cruise" [label]="'Cruise at ' + cruiseAt(build)" />
      </div>
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    @use 'breakpoints' as *;
    :host {
      padding: 0 !important;
      flex: 1;
      min-height: 0;
    }
    .entries {
      display: grid;
      grid-template-columns: repeat(4, minmax(0, 1fr));
      gap: 12px;
      margin-bottom: 12px;
    }
    .what {
      margin-left: 8px;
    }
    .big {
      font-size: var(--text-l);
      font-weight: 600;
    }
    p {
      margin: 10px 0;
      font-size: var(--text-s);
    }
    .empty {
      padding: 18px 0;
      font-size: var(--text-m);
    }
    @media #{$narrow} {
      .entries {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class HeatTab {
  protected readonly bench = inject(Bench);
  protected readonly gradeRange = { min: 0, max: 100, unit: '%' };
  protected readonly speedRange = { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
  protected readonly loadRange = { min: 0, max: 200_000, unit: 'kg' };
  protected readonly gears = computed(
    () => this.bench.build()?.gearbox.gears.map(({ name }, i) => ({ value: String(i), label: name })) ?? [],
  );
  protected readonly gear = computed(() => this.bench.build()?.brief.climb.gear ?? 0);

  /** In the units of whoever looks. */
  protected cruiseAt({ cruiseSpeed }: Build): string {
    return say(entryBase(cruiseSpeed), 'speed', this.bench.system(), 0);
  }

  protected readonly oil = computed(() =>
    this.bench.system() === 'inch'
      ? 'Converter oil: 230 °F is an alarm (ours); its maker’s figure wins.'
      : 'Converter oil: 110 °C is an alarm (ours); its maker’s figure wins.',
  );
  private readonly attempt = attempt(() => {
    const build = this.bench.build();
    const main = this.bench.axleName();
    const own = this.bench.derived()?.gearing[main];
    const tyre = build?.axles[main]?.tyre;
    if (!build || !own || !tyre || build.coupling.kind !== 'converter') return null;
    const { was } = build.brief;
    const tried = finalsOf(build, own).map(({ label, ratio, present }) => ({
      label,
      what: present ? 'in the axle' : 'compared',
      present,
      state: { ...own, finalRatio: ratio },
    }));
    const before = was
      ? [
          {
            label: `${was.finalDrive.ring}/${was.finalDrive.pinion}`,
            what: `before, on ${was.tyre}`,
            present: false,
            state: {
              ...own,
              finalRatio: toothPair(was.finalDrive).ratio,
              circumferenceMm: rollingCircumference(tyreSize(was.tyre).overallDiameterMm, tyre.factor),
            },
          },
        ]
      : [];
    return [...tried, ...before].map(({ state, ...row }) => ({
      ...row,
      heat: converterHeat(climbingVehicle(build, main, state), climbOf(build)),
    }));
  });
  protected readonly problem = this.attempt.problem;
  protected readonly rows = computed(() => {
    const system = this.bench.system();
    const list = this.attempt.value() ?? [];
    const now = list.find(({ present }) => present)?.heat.heatW ?? 0;
    return list.map(({ label, what, present, heat }) => ({
      label,
      what: heat.holds ? what : `${what}: can’t hold it`,
      present,
      heat: say(heat.heatW, 'power', system, 1),
      rpm: say(heat.engineRpm, 'rotation', system),
      ratio: heat.speedRatio.toFixed(2),
      torque: say(heat.impellerNm, 'torque', system, 0),
      against:
        present || now === 0
          ? ''
          : `${heat.heatW > now ? '+' : '−'}${Math.abs(Math.round(100 * (heat.heatW / now - 1)))} %`,
    }));
  });

  protected set(change: Partial<Climb> | { grade: TakenEntry['entry'] }): void {
    this.bench.change((draft) => Object.assign(draft.brief.climb, change));
  }
}
