import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { BEARING_LIMITS, LIMITS, bearingOrders, engineRpm, entryBase, orderFrequency } from '@hot-spline/core';
import { gearingAt, type Brief } from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { countReader } from '../shared/readers';
import { Bench } from '../state/bench';

type Noise = Brief['noise'];

/** What to look at for each kind of whine, in the order in which it is quick to look (common practice, no published source). */
const LOOK = [
  'Does it change with load? Under power: drive flank. On overrun: coast flank. Both, and with speed alone: bearings.',
  'Debris on the magnet, colour of the oil, level.',
  'Backlash at four places or more, and how it varies: a bent flange or a burr under the ring.',
  'Contact pattern on both flanks, under drag.',
  'Pinion bearing turning torque, oiled; play at the flange.',
  'Pitted races, edge of the ring lifted at a bolt hole, loose ring bolts.',
  'Prop shaft: joints, angles, balance. It whines with the gearbox output, not with the wheel.',
] as const;

/** Where a whine comes from: what happens how often at the speed at which it is heard, and what to look at. */
@Component({
  selector: 'hs-noise-tab',
  imports: [EntryField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bench.build(); as build) {
      @let noise = build.brief.noise;
      <div class="entries">
        <hs-entry
          name="noise-speed"
          label="Heard at"
          quantity="speed"
          [range]="speedRange"
          [entry]="noise.speed"
          [big]="true"
          (taken)="set({ speed: $event.entry })"
        />
        <hs-field
          name="noise-rollers"
          label="Rollers of the bearing"
          mode="numeric"
          [text]="'' + noise.rollers"
          [read]="readRollers"
          [big]="true"
          (taken)="set({ rollers: $event })"
        />
        <hs-entry
          name="noise-ratio"
          label="Roller Ø ÷ pitch Ø"
          quantity="coefficient"
          [range]="limits.diameterRatio"
          [entry]="noise.diameterRatio"
          [echo]="false"
          [big]="true"
          (taken)="set({ diameterRatio: $event.entry })"
        />
        <hs-entry
          name="noise-angle"
          label="Contact angle"
          quantity="angle"
          [range]="limits.contactAngleDeg"
          [entry]="noise.contactAngle"
          [echo]="false"
          [big]="true"
          (taken)="set({ contactAngle: $event.entry })"
        />
      </div>
      @if (problem(); as p) {
        <p class="caution" role="alert">{{ p }}</p>
      } @else {
        <div class="two">
          <div class="scroll">
            <table class="table numbers">
              <caption class="visually-hidden">
                What happens how often at the speed at which it is heard
              </caption>
              <thead>
                <tr>
                  <th scope="col">What</th>
                  <th scope="col">Hz</th>
                  <th scope="col">per turn</th>
                  <th scope="col">of</th>
                </tr>
              </thead>
              <tbody>
                @for (row of rows(); track row.what) {
                  <tr [class.present]="row.main">
                    <th scope="row">{{ row.what }}</th>
                    <td class="mono big">{{ row.hz }}</td>
                    <td class="mono">{{ row.order }}</td>
                    <td class="soft">{{ row.of }}</td>
                  </tr>
                }
              </tbody>
            </table>
          </div>
          <section aria-labelledby="look-title">
            <h2 class="section-title" id="look-title">Look at, in this order</h2>
            <ol>
              @for (line of look; track line) {
                <li>{{ line }}</li>
              }
            </ol>
          </section>
        </div>
        <p class="soft">
          A phone’s spectrum shows the Hz. Bearings by rolling-bearing kinematics, outer race standing still; count the
          rollers of the bearing in your hand, the values to start with are ours.
        </p>
      }
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
    th::first-letter {
      text-transform: uppercase;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
      gap: 24px;
    }
    .big {
      font-size: var(--text-m);
      font-weight: 600;
    }
    ol {
      padding-left: 20px;
      list-style: decimal;
      font-size: var(--text-s);
      line-height: 1.5;
    }
    p {
      margin: 10px 0;
      font-size: var(--text-s);
    }
    @media #{$narrow} {
      .entries {
        grid-template-columns: 1fr 1fr;
      }
      .two {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class NoiseTab {
  protected readonly bench = inject(Bench);
  protected readonly look = LOOK;
  protected readonly limits = BEARING_LIMITS;
  protected readonly speedRange = { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
  protected readonly readRollers = countReader('Rollers', BEARING_LIMITS.rollers.min, BEARING_LIMITS.rollers.max);
  private readonly attempt = attempt(() => {
    const build = this.bench.build();
    const own = this.bench.derived()?.gearing[this.bench.axleName()];
    if (!build || !own) return null;
    const { noise } = build.brief;
    const speed = entryBase(noise.speed);
    // The prop shaft turns as an engine in a gear of 1 to 1 would, without slip in a converter.
    const direct = { ...gearingAt(build, own, 0, 0), gearRatio: 1, rangeRatio: 1, converterSlip: 0 };
    const pinion = engineRpm(direct, speed) / own.hubRatio;
    const carrier = pinion / own.finalRatio;
    const orders = bearingOrders({
      rollers: noise.rollers,
      diameterRatio: entryBase(noise.diameterRatio),
      contactAngleDeg: entryBase(noise.contactAngle),
    });
    const line = (what: string, order: number, rpm: number, of: string, main = false) => ({
      what,
      order,
      rpm,
      of,
      main,
    });
    const bearing = (name: string, rpm: number) => [
      line(`${name} bearing, outer race`, orders.outerRace, rpm, name),
      line(`${name} bearing, inner race`, orders.innerRace, rpm, name),
      line(`${name} bearing, roller`, orders.roller, rpm, name),
      line(`${name} bearing, cage`, orders.cage, rpm, name),
    ];
    return [
      line('mesh of ring and pinion', own.finalDrive.pinion, pinion, 'pinion', true),
      line('mesh, twice', 2 * own.finalDrive.pinion, pinion, 'pinion'),
      line('prop shaft, out of balance', 1, pinion, 'pinion'),
      line('prop shaft, joint angles', 2, pinion, 'pinion'),
      ...bearing('pinion', pinion),
      ...bearing('carrier', carrier),
      line('tyre, out of round', 1, carrier / own.hubRatio, 'wheel'),
    ];
  });
  protected readonly problem = this.attempt.problem;
  protected readonly rows = computed(() =>
    (this.attempt.value() ?? []).map(({ what, order, rpm, of, main }) => ({
      what,
      of,
      main,
      order: order.toFixed(order % 1 === 0 ? 0 : 2),
      hz: orderFrequency(order, rpm).toFixed(order * rpm < 600 ? 1 : 0),
    })),
  );

  protected set(change: Partial<Noise>): void {
    this.bench.change((draft) => Object.assign(draft.brief.noise, change));
  }
}
