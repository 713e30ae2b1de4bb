import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entryBase, say, saySmall } from '@hot-spline/core';
import {
  AXLES,
  GATES,
  SIDES,
  UNIT_TYPE_WORDS,
  VERDICTS,
  floatOf,
  meshFigures,
  packFigures,
  preloadFigures,
  readingEntry,
  type AxleName,
  type FigureId,
} from '@hot-spline/model';
import { stations } from '../frame/stations';
import { USE_WORDS } from '../identity/words';
import { choiceOf } from '../gearing/choice';
import { attempt } from '../shared/attempt';
import { sayDay, sayDays } from '../base/day';
import { SheetHead } from '../shared/sheet-head';
import { VerdictMark } from '../shared/verdict';
import { STATION_LIST } from '../shared/sheet-list';
import { Bench } from '../state/bench';

interface Line {
  readonly label: string;
  readonly value: string;
}

/** One page to hand over: what is in the driveline, why this final drive, packs and set-up as measured, what is open. */
@Component({
  selector: 'hs-summary-sheet',
  imports: [SheetHead, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-sheet-head title="Summary" about="One page to hand over." />
    <button type="button" class="quiet main" (click)="print()">
      <i class="pi pi-print" aria-hidden="true"></i>Print or save as PDF
    </button>
    @if (bench.build(); as b) {
      <article>
        <header>
          <h2>{{ b.name }}</h2>
          <p>{{ about() }}</p>
        </header>
        <section aria-label="Driveline">
          <h3 class="section-title">Driveline, at {{ point() }}</h3>
          <table class="table">
            <tbody>
              @for (station of line(); track station.kind) {
                <tr>
                  <th scope="row">{{ station.name }}</th>
                  <td class="mono">{{ station.main }}</td>
                  <td class="soft">{{ station.sub }}</td>
                </tr>
              }
              <tr>
                <th scope="row">Gears</th>
                <td class="mono" colspan="2">{{ gears() }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        @if (choice(); as c) {
          <section aria-label="Final drive, and why">
            <h3 class="section-title">Final drive {{ c.pair }}, and why</h3>
            @if (c.standIns) {
              <p class="soft">Not judged yet: nobody has said {{ c.standIns }}.</p>
            } @else {
              <ul>
                @for (reason of c.reasons; track reason) {
                  <li>{{ reason }}</li>
                }
              </ul>
            }
          </section>
        }
        @for (axle of axles(); track axle.name) {
          @if (axle.pack.length) {
            <section [attr.aria-label]="axle.title + ' clutch packs'">
              <h3 class="section-title">{{ axle.title }}: clutch packs</h3>
              <dl>
                @for (row of axle.pack; track row.label) {
                  <div>
                    <dt>{{ row.label }}</dt>
                    <dd class="mono">{{ row.value }}</dd>
                  </div>
                }
              </dl>
              @if (axle.pieces.length) {
                <p class="soft">Measured, outwards from the gear:</p>
                @for (pieces of axle.pieces; track pieces.label) {
                  <p class="pieces">
                    {{ pieces.label }}: <span class="mono">{{ pieces.value }}</span>
                  </p>
                }
              }
            </section>
          }
          @if (axle.setUp.length) {
            <section [attr.aria-label]="axle.title + ' set-up'">
              <h3 class="section-title">{{ axle.title }}: set-up</h3>
              <dl>
                @for (row of axle.setUp; track row.label) {
                  <div>
                    <dt>{{ row.label }}</dt>
                    <dd class="mono">{{ row.value }}</dd>
                  </div>
                }
              </dl>
            </section>
          }
        }
        <section class="whole" aria-label="Findings">
          <h3 class="section-title">Findings</h3>
          <ul class="findings">
            @for (finding of findings(); track finding.id) {
              <li>
                <hs-verdict [verdict]="finding.verdict" />
                <span
                  ><strong>{{ days(finding.title) }}.</strong> {{ days(finding.detail) }}</span
                >
              </li>
            } @empty {
              <li>Nothing is open.</li>
            }
          </ul>
        </section>
        <p class="soft small whole">
          Worked out by Hot Spline from what the shop entered and measured. Bands that no sheet gave are guards of ours:
          the maker’s sheet, local rules and licensed practice win.
        </p>
      </article>
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    @use 'breakpoints' as *;
    .main {
      align-self: flex-start;
      min-height: 44px;
      margin-bottom: 10px;
    }
    article {
      display: grid;
      gap: 10px;
      max-width: 760px;
    }
    h2 {
      font-size: var(--text-xl, 22px);
    }
    .table {
      max-width: 620px;
    }
    th {
      width: 130px;
      color: var(--soft);
    }
    dl {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
      gap: 4px 18px;
    }
    dt {
      font-size: var(--text-s);
      color: var(--soft);
    }
    ul {
      padding-left: 18px;
      list-style: disc;
    }
    .findings {
      display: grid;
      gap: 4px;
      padding-left: 0;
      list-style: none;
    }
    .findings li {
      display: grid;
      grid-template-columns: 22px minmax(0, 1fr);
      gap: 6px;
      break-inside: avoid;
    }
    .pieces,
    .small {
      font-size: var(--text-s);
    }
    @media print {
      :host {
        padding: 0;
      }
      article {
        grid-template-columns: 1fr 1fr;
        gap: 6px 18px;
        max-width: none;
        font-size: 10px;
      }
      header,
      .whole {
        grid-column: 1 / -1;
      }
      .table,
      .pieces,
      .small,
      dt {
        font-size: 10px;
      }
      dl {
        grid-template-columns: repeat(3, minmax(0, 1fr));
        gap: 2px 10px;
      }
      .findings {
        grid-template-columns: 1fr 1fr;
        gap: 2px 18px;
      }
      section {
        break-inside: avoid;
      }
    }
  `,
})
export class SummarySheet {
  protected readonly days = sayDays;
  protected readonly bench = inject(Bench);
  private readonly stations = inject(STATION_LIST);

  protected readonly about = computed(() => {
    const build = this.bench.build();
    return build
      ? [build.vehicle, USE_WORDS[build.use] ?? build.use, sayDay(new Date())].filter(Boolean).join(' · ')
      : '';
  });
  protected readonly line = computed(() => {
    const [build, derived] = [this.bench.build(), this.bench.derived()];
    return build && derived ? stations(build, derived, this.bench.system(), this.stations) : [];
  });
  protected readonly point = computed(() => {
    const [build, { rpm, gear }] = [this.bench.build(), this.bench.point()];
    return build ? `${Math.round(rpm)} rpm in ${build.gearbox.gears[gear]?.name ?? ''}` : '';
  });
  protected readonly gears = computed(
    () =>
      this.bench
        .build()
        ?.gearbox.gears.map(({ name, ratio }) => `${name} ${ratio.typed}`)
        .join(' · ') ?? '',
  );

  private readonly found = attempt(() => {
    const [build, derived] = [this.bench.build(), this.bench.derived()];
    return build && derived ? choiceOf(build, derived, this.bench.system()) : null;
  });
  protected readonly choice = this.found.value;

  private figure(id: FigureId, label?: string): Line[] {
    const figure = this.bench.figure(id);
    if (!figure) return [];
    const { value, quantity, decimals, scale } = figure;
    const text = value === null ? (figure.instead ?? '–') : say(value, quantity, this.bench.system(), decimals, scale);
    return [{ label: label ?? figure.label, value: text }];
  }

  protected readonly axles = computed(() => {
    const [build, derived] = [this.bench.build(), this.bench.derived()];
    if (!build || !derived) return [];
    return AXLES.flatMap((name) => {
      const axle = build.axles[name];
      if (!axle) return [];
      const title = `${name === 'rear' ? 'Rear' : 'Front'}, ${UNIT_TYPE_WORDS[axle.unit.type].name.toLowerCase()}`;
      return [{ name, title, pack: this.packOf(name), pieces: this.piecesOf(name), setUp: this.setUpOf(name) }];
    });
  });

  private packOf(axle: AxleName): Line[] {
    const plate = this.bench.build()?.axles[axle]?.unit.plate;
    if (!plate || !this.bench.derived()?.axles[axle]?.pack) return [];
    const system = this.bench.system();
    return [
      {
        label: 'Target stack height',
        value: `${say(entryBase(plate.targetHeight), 'length', system)} ± ${saySmall(entryBase(plate.tolerance), system)}`,
      },
      ...SIDES.flatMap((side) => this.figure(packFigures.height(axle, side), `Stack height, ${side}`)),
      ...this.figure(packFigures.wrench(axle, 'other-wheel-held'), 'Wrench on a wheel, other held'),
      ...this.figure(packFigures.wrench(axle, 'carrier-held'), 'Same, other in the air, in gear'),
    ];
  }

  private piecesOf(axle: AxleName): Line[] {
    const packs = this.bench.derived()?.axles[axle]?.pack;
    if (!packs) return [];
    return SIDES.flatMap((side) => {
      const read = packs[side].members.flatMap(({ member, reading }) =>
        reading ? [`${member.label} ${readingEntry(reading).typed}`] : [],
      );
      return read.length > 0 ? [{ label: side, value: read.join(' · ') }] : [];
    });
  }

  private setUpOf(axle: AxleName): Line[] {
    const derived = this.bench.derived();
    const now = derived?.mesh[axle]?.now;
    if (!derived || !now) return [];
    const gates = derived.gates[axle];
    const signed = GATES.flatMap((name) => {
      const gate = gates?.[name];
      return gate?.open && gate.signature
        ? [{ label: `Gate ${name}`, value: `${gate.signature.name}, ${sayDay(new Date(gate.signature.at))}` }]
        : [{ label: `Gate ${name}`, value: 'not signed' }];
    });
    return [
      { label: 'Assembly', value: now.number === 0 ? 'as it came' : String(now.number) },
      ...this.figure(meshFigures.shim(axle)),
      ...(floatOf(now) === null ? [] : this.figure(meshFigures.float(axle))),
      ...this.figure(meshFigures.mean(axle)),
      ...this.figure(meshFigures.least(axle)),
      ...this.figure(meshFigures.most(axle)),
      ...this.figure(preloadFigures.pinion(axle)),
      ...signed,
    ];
  }

  /** What is open, most serious first. */
  protected readonly findings = computed(() => {
    const system = this.bench.system();
    return (this.bench.derived()?.findings ?? [])
      .filter(({ verdict }) => verdict !== 'fits')
      .sort((a, b) => VERDICTS.indexOf(a.verdict) - VERDICTS.indexOf(b.verdict))
      .map(({ id, verdict, say: words }) => ({ id, verdict, ...words(system) }));
  });

  protected print(): void {
    window.print();
  }
}
