import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { formatIn, say } from '@hot-spline/core';
import { framePartsOf, STATION_LIST } from '../shared/sheet-list';
import { Bench } from '../state/bench';
import { Radios } from '../shared/radios';
import { VerdictMark } from '../shared/verdict';
import { StationIcon } from './station-icon';
import { stations } from './stations';

const optionsOf = (list: readonly { readonly name: string }[]) =>
  list.map(({ name }, i) => ({ value: String(i), label: name }));

/** The driveline from engine to ground: overview, navigation, and the operating point that is dragged along it. */
@Component({
  selector: 'hs-line',
  imports: [NgComponentOutlet, Radios, RouterLink, RouterLinkActive, StationIcon, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bench.build(); as build) {
      <button type="button" class="fold" [attr.aria-expanded]="open()" aria-controls="line" (click)="open.set(!open())">
        <span class="mono">{{ pointText() }}</span>
        <span class="mono key">{{ keyFigure() }}</span>
        <i class="pi" [class.pi-angle-down]="!open()" [class.pi-angle-up]="open()" aria-hidden="true"></i>
        <span class="visually-hidden">{{ open() ? 'Fold the Line' : 'Show the Line' }}</span>
      </button>
      @if (folded() && !unfolded()) {
        <nav class="row no-print" aria-label="The Line, folded: figures of the driveline">
          @for (station of row(); track station.kind) {
            <a [routerLink]="station.sheet">
              @if (station.verdict && station.verdict !== 'fits') {
                <hs-verdict [verdict]="station.verdict" />
              }
              <span class="mono">{{ station.main }}</span> <span class="what">{{ station.name }}</span>
            </a>
          }
          <button type="button" class="quiet bare" aria-expanded="false" (click)="unfolded.set(true)">
            Show the Line
          </button>
        </nav>
      }
      <nav
        id="line"
        class="line"
        [class.open]="open()"
        [class.away]="folded() && !unfolded()"
        aria-label="The Line: driveline from engine to ground"
      >
        <ol>
          @for (station of stations(); track station.kind) {
            <li>
              <a [routerLink]="station.sheet" routerLinkActive="here">
                <hs-station-icon [kind]="station.kind" />
                <span class="main mono">{{ station.main }}</span>
                <span class="sub">
                  @if (station.verdict && station.verdict !== 'fits') {
                    <hs-verdict [verdict]="station.verdict" />
                  }
                  <span class="what"
                    >{{ station.name }}<span class="more"> · {{ station.sub }}</span></span
                  ></span
                >
              </a>
            </li>
          }
        </ol>
        <div class="point no-print" role="group" aria-label="Operating point">
          <hs-radios
            name="point-gear"
            label="Gear"
            [labelHidden]="true"
            [options]="gears()"
            [value]="'' + bench.point().gear"
            (chosen)="setGear(+$event)"
          />
          @if (build.transfer) {
            <hs-radios
              name="point-range"
              label="Range"
              [labelHidden]="true"
              [options]="ranges()"
              [value]="'' + bench.point().range"
              (chosen)="setRange(+$event)"
            />
          }
          @for (part of parts(); track part) {
            <ng-container *ngComponentOutlet="part" />
          }
          <label class="visually-hidden" for="point-rpm">Operating point, engine speed</label>
          <input
            #slider
            id="point-rpm"
            type="range"
            min="500"
            step="10"
            [max]="build.engine.limitRpm"
            [value]="bench.point().rpm"
            [attr.aria-valuetext]="pointText()"
            (input)="drag(slider.valueAsNumber)"
            (change)="keep(slider.valueAsNumber)"
          />
          <output class="mono" for="point-rpm">{{ pointText() }}</output>
          @if (folded()) {
            <button type="button" class="quiet bare refold" aria-expanded="true" (click)="unfolded.set(false)">
              Fold the Line
            </button>
          }
        </div>
      </nav>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    .fold {
      display: none;
    }
    /* On bench and set-up sheets: one row of figures. */
    .row {
      display: flex;
      align-items: center;
      padding: 0 16px;
      background: var(--sheet);
      border-bottom: 1px solid var(--rule);
      font-size: var(--text-s);
      white-space: nowrap;
      overflow: hidden;
    }
    .row a {
      display: flex;
      align-items: center;
      gap: 5px;
      padding: 0 12px 0 0;
      margin-right: 12px;
      border-right: 1px solid var(--rule);
      text-align: left;
    }
    .row .what {
      color: var(--soft);
    }
    .row hs-verdict {
      width: 12px;
      height: 12px;
    }
    .row button {
      margin-left: auto;
      min-height: 34px;
      color: var(--blue);
    }
    .away {
      display: none;
    }
    .line {
      background: var(--sheet);
      border-bottom: 1px solid var(--rule);
    }
    ol {
      display: flex;
      position: relative;
      padding: 6px 12px 0;
      overflow-x: auto;
      scrollbar-width: thin;
    }
    li {
      position: relative;
      flex: 1 1 0;
      min-width: 92px;
    }
    /* The shaft that all of it turns on. */
    li::before {
      content: '';
      position: absolute;
      top: 25px;
      left: 0;
      right: 0;
      border-top: 2px solid var(--ink);
    }
    li:first-child::before {
      left: 50%;
    }
    li:last-child::before {
      right: 50%;
    }
    a {
      position: relative;
      display: block;
      padding: 0 2px 4px;
      text-align: center;
      color: var(--ink);
      text-decoration: none;
      border-top: 3px solid transparent;
      border-radius: 4px;
    }
    a:hover {
      color: var(--blue);
    }
    a.here {
      color: var(--blue);
    }
    .main {
      display: block;
      font-size: var(--text-m);
      white-space: nowrap;
    }
    .sub {
      display: flex;
      justify-content: center;
      align-items: center;
      gap: 4px;
      font-size: var(--text-xs);
      color: var(--soft);
      white-space: nowrap;
    }
    @media #{$tight} {
      .what {
        overflow: hidden;
        text-overflow: ellipsis;
      }
      .more {
        display: none;
      }
    }
    .sub hs-verdict {
      width: 11px;
      height: 11px;
    }
    .point {
      display: flex;
      align-items: center;
      gap: 14px;
      padding: 2px 16px 5px;
    }
    input[type='range'] {
      flex: 1;
      min-width: 80px;
      accent-color: var(--ochre);
      height: 26px;
      margin: 0;
    }
    output {
      flex: none;
      min-width: 178px;
      text-align: right;
      font-size: var(--text-m);
    }
    @media #{$narrow} {
      .fold {
        display: flex;
        align-items: center;
        gap: 12px;
        width: 100%;
        min-height: 44px;
        padding: 0 12px;
        background: var(--sheet);
        border: 0;
        border-block: 1px solid var(--rule);
        font-size: var(--text-m);
      }
      .key {
        margin-left: auto;
        color: var(--soft);
        white-space: nowrap;
        overflow: hidden;
        text-overflow: ellipsis;
      }
      .row,
      .refold {
        display: none;
      }
      .away.open {
        display: block;
      }
      .line:not(.open) {
        display: none;
      }
      li {
        flex: none;
        min-width: 112px;
      }
      li::before,
      hs-station-icon {
        display: none;
      }
      .point {
        flex-wrap: wrap;
        gap: 6px 10px;
        padding: 4px 8px 8px;
      }
      output {
        min-width: 0;
        flex: 1;
      }
      input[type='range'] {
        flex-basis: 100%;
        order: 3;
        height: 44px;
      }
    }
  `,
})
export class Line {
  /** One row of figures until it is asked for: dragging it is for specifying. */
  readonly folded = input(false);
  protected readonly unfolded = signal(false);
  protected readonly bench = inject(Bench);
  private readonly list = inject(STATION_LIST);
  protected readonly parts = framePartsOf('line');
  protected readonly stations = computed(() => {
    const build = this.bench.build();
    const derived = this.bench.derived();
    return build && derived ? stations(build, derived, this.bench.system(), this.list) : [];
  });
  /** What of it matters at the bench; the rest is in the whole Line. */
  protected readonly row = computed(() => {
    const shown = ['final', 'unit', 'packs', 'shafts', 'tyres'];
    return this.stations().filter(({ kind }) => shown.includes(kind));
  });
  /** On a phone the Line is one row until it is opened. */
  protected readonly open = signal(false);
  /** What matters most of the sheet in hand, beside the operating point. */
  protected readonly keyFigure = computed(() => {
    const packs = this.stations().find(({ kind }) => kind === 'packs');
    const station = packs ?? this.stations().find(({ kind }) => kind === 'final');
    return station ? `${station.name} ${station.main}` : '';
  });
  protected readonly pointText = computed(() => {
    const build = this.bench.build();
    const speed = this.bench.figure('point.speed')?.value;
    if (!build) return '';
    const rpm = say(this.bench.point().rpm, 'rotation', 'inch');
    if (speed === undefined || speed === null) return rpm;
    const { text, unit } = formatIn(speed, 'speed', this.bench.system());
    return `${rpm} · ${text} ${unit}`;
  });

  protected readonly gears = computed(() => optionsOf(this.bench.build()?.gearbox.gears ?? []));
  protected readonly ranges = computed(() => optionsOf(this.bench.build()?.transfer?.ranges ?? []));

  protected setGear(gear: number): void {
    this.bench.lookAt({ gear });
  }

  protected setRange(range: number): void {
    this.bench.lookAt({ range });
  }

  protected drag(rpm: number): void {
    this.bench.dragPoint({ rpm });
  }

  protected keep(rpm: number): void {
    this.bench.lookAt({ rpm });
  }
}
