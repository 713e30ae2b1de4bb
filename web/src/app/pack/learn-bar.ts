import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entryBase, entryOf } from '@hot-spline/core';
import { measuredFriction, packFigures, type FrictionKind, type FrictionTable } from '@hot-spline/model';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';
import { Library } from '../state/library';

const origin = 'measured' as const;
const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** What the newest breakaway reading teaches: the friction coefficient behind it, used here and kept for the next build. */
@Component({
  selector: 'hs-learn-bar',
  imports: [FigureButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (m of measured(); track m.kind) {
      <div class="bar">
        <hs-figure
          [id]="ids.friction(bench.axleName(), m.kind)"
          [label]="m.kind === 'static' ? 'Friction breaking away' : 'Friction slipping'"
        />
        @if (m.dragged) {
          <p class="wait">
            The drag of the axle is in this reading, so the coefficient is too high. Read the turning torque with both
            wheels free above, or take the bench hold, before it is used or kept.
          </p>
        } @else {
          <p>
            {{ m.kind === 'static' ? 'Predicted' : 'Locking in running worked out' }} with
            <span class="mono">{{ m.predicted }}</span>: measured lies {{ m.off }}.
          </p>
        }
        <label class="bedded">
          <input #bedded type="checkbox" [checked]="m.bedded" (change)="setBedded(bedded.checked)" />
          plates are bedded in
        </label>
        <button type="button" class="quiet" [disabled]="m.used || m.dragged" (click)="use(m.kind)">
          {{ m.used ? 'In use' : 'Use it' }}
        </button>
        <button type="button" class="quiet" [disabled]="m.kept || m.dragged || m.plates === ''" (click)="keep(m.kind)">
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
    .bedded {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 44px;
    }
    .bedded input {
      width: 18px;
      height: 18px;
      accent-color: var(--blue);
    }
    .wait {
      flex: 1 1 320px;
      color: var(--ochre-text);
    }
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

  private readonly table = computed(() => {
    const plate = this.bench.plate();
    return this.tables().find(
      ({ spec }) => plate && same(spec.name, plate.frictionPlates) && same(spec.oil, plate.oil),
    );
  });
  /** What the newest readings teach, breaking away and slipping. */
  private readonly learned = computed(() => {
    const build = this.bench.build();
    const plate = this.bench.plate();
    const axle = this.bench.axleName();
    const packs = this.bench.derived()?.axles[axle]?.pack;
    if (!build || !plate || !packs) return [];
    return (['static', 'sliding'] as const).flatMap((kind) => {
      const newest = measuredFriction(plate, axle, packs, this.bench.readings(), kind);
      if (!newest) return [];
      const coefficient = entryOf(Number(newest.coefficient.toFixed(4)), '');
      const on = newest.reading.at.slice(0, 10);
      const { frictionBedded: bedded } = plate;
      return [{ dragged: newest.dragged, entry: { coefficient, from: build.name, on, kind, bedded, origin } }];
    });
  });
  protected readonly measured = computed(() => {
    const plate = this.bench.plate();
    if (!plate) return [];
    return this.learned().map(({ dragged, entry }) => {
      const { kind } = entry;
      const value = entryBase(entry.coefficient);
      const now = entryBase(
        kind === 'static' ? plate.frictionCoefficient : (plate.slidingCoefficient ?? plate.frictionCoefficient),
      );
      const off = Math.round(100 * (value / now - 1));
      const readings = this.table()?.spec.readings.filter((one) => one.kind === kind) ?? [];
      return {
        kind,
        dragged,
        bedded: plate.frictionBedded,
        predicted: now.toFixed(3),
        off: off === 0 ? 'on it' : `${Math.abs(off)} % ${off < 0 ? 'below' : 'above'}`,
        used: Math.abs(value - now) < 5e-5 && (kind === 'static' || plate.slidingCoefficient !== null),
        kept: readings.some(
          (one) => one.from === entry.from && one.on === entry.on && entryBase(one.coefficient) === value,
        ),
        count: readings.length,
        plates: plate.frictionPlates,
        oil: plate.oil,
      };
    });
  });

  private entry(kind: FrictionKind) {
    return this.learned().find(({ entry }) => entry.kind === kind)?.entry;
  }

  protected setBedded(bedded: boolean): void {
    this.bench.changePlate((plate) => (plate.frictionBedded = bedded));
  }

  protected use(kind: FrictionKind): void {
    const entry = this.entry(kind);
    if (!entry) return;
    const key = kind === 'static' ? 'frictionCoefficient' : 'slidingCoefficient';
    this.bench.changePlate((plate) => {
      plate[key] = entry.coefficient;
      if (key === 'frictionCoefficient') plate.frictionFrom = null;
    });
  }

  protected keep(kind: FrictionKind): void {
    const entry = this.entry(kind);
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
