import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entryBase, entryOf } from '@hot-spline/core';
import { measuredFriction, type FrictionTable, packFigures } from '@hot-spline/model';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';
import { Library } from '../library/library';

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** What the newest breakaway reading teaches: the friction coefficient behind it, used here and kept for the next build. */
@Component({
  selector: 'hs-learn-bar',
  imports: [FigureButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (measured(); as m) {
      <div class="bar">
        <hs-figure [id]="ids.friction(bench.axleName())" label="Friction as measured" />
        <p>
          Predicted with <span class="mono">{{ m.predicted }}</span>: measured lies {{ m.off }}.
        </p>
        <button type="button" class="quiet" [disabled]="m.used" (click)="use()">
          {{ m.used ? 'Predicted with it' : 'Predict with it' }}
        </button>
        <button type="button" class="quiet" [disabled]="m.kept || m.plates === ''" (click)="keep()">
          {{ m.kept ? 'Kept in the shop’s table' : 'Keep in the shop’s table' }}
        </button>
        <span class="soft">
          @if (m.plates === '') {
            Say what the friction plates are, under Plates and springs, to keep it.
          } @else {
            {{ m.plates }}{{ m.oil === '' ? '' : ' in ' + m.oil
            }}{{ m.count ? ', ' + m.count + ' kept so far' : ', the first of its kind' }}
          }
        </span>
      </div>
    }
  `,
  styles: `
    .bar {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 16px;
      align-items: center;
      margin-top: 14px;
      padding: 10px 12px;
      border: 1px solid var(--rule);
      border-radius: 8px;
      font-size: var(--text-s);
    }
  `,
})
export class LearnBar {
  protected readonly bench = inject(Bench);
  protected readonly ids = packFigures;
  private readonly library = inject(Library);
  private readonly tables = this.library.ofKind('friction');

  private readonly newest = computed(() => {
    const plate = this.bench.plate();
    const axle = this.bench.axleName();
    const packs = this.bench.derived()?.axles[axle]?.pack;
    return plate && packs ? measuredFriction(plate, axle, packs, this.bench.readings()) : null;
  });
  private readonly table = computed(() => {
    const plate = this.bench.plate();
    return this.tables().find(
      ({ spec }) => plate && same(spec.name, plate.frictionPlates) && same(spec.oil, plate.oil),
    );
  });
  private readonly entry = computed(() => {
    const newest = this.newest();
    const build = this.bench.build();
    if (!newest || !build) return null;
    const coefficient = entryOf(Number(newest.coefficient.toFixed(4)), '');
    return { coefficient, from: build.name, on: newest.reading.at.slice(0, 10), origin: 'measured' as const };
  });
  protected readonly measured = computed(() => {
    const entry = this.entry();
    const plate = this.bench.plate();
    if (!entry || !plate) return null;
    const value = entryBase(entry.coefficient);
    const now = entryBase(plate.frictionCoefficient);
    const off = Math.round(100 * (value / now - 1));
    const readings = this.table()?.spec.readings ?? [];
    return {
      predicted: now.toFixed(3),
      off: off === 0 ? 'on it' : `${Math.abs(off)} % ${off < 0 ? 'below' : 'above'}`,
      used: Math.abs(value - now) < 5e-5,
      kept: readings.some(
        (one) => one.from === entry.from && one.on === entry.on && entryBase(one.coefficient) === value,
      ),
      count: readings.length,
      plates: plate.frictionPlates,
      oil: plate.oil,
    };
  });

  protected use(): void {
    const entry = this.entry();
    if (entry) this.bench.changePlate((plate) => (plate.frictionCoefficient = entry.coefficient));
  }

  protected keep(): void {
    const entry = this.entry();
    const plate = this.bench.plate();
    if (!entry || !plate) return;
    const table = this.table();
    if (table) {
      this.library.change(table.id, 'friction', (newest) => ({ ...newest, readings: [...newest.readings, entry] }));
    } else {
      const spec: FrictionTable = {
        kind: 'friction',
        name: plate.frictionPlates,
        oil: plate.oil,
        readings: [entry],
      };
      this.library.add(spec);
    }
  }
}
