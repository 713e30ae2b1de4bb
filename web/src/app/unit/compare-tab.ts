import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import {
  SITUATIONS,
  compareUnit,
  formatIn,
  situationOf,
  type CompareResult,
  type SituationName,
} from '@hot-spline/core';
import {
  UNIT_TYPE_WORDS,
  comparedGround,
  comparedSettings,
  comparedUnits,
  rankUnits,
  unitAs,
  type Unit,
} from '@hot-spline/model';
import { MessageService } from 'primeng/api';
import { USE_WORDS } from '../identity/words';
import { attempt } from '../shared/attempt';
import { Bench } from '../state/bench';
import { Library } from '../library/library';

const NAMES: Readonly<Record<SituationName, string>> = {
  'split-grip': 'Split grip',
  'wheel-in-air': 'Wheel in the air',
  'wheel-in-air-braked': 'In the air, brake dabbed',
  'corner-exit': 'Corner exit',
  'overrun-into-corner': 'Overrun into a corner',
  'drift-transition': 'Drift transition',
  'crossed-axle': 'Crossed axle',
};
const SLIPS: Readonly<Record<CompareResult['slips'], string>> = {
  none: '',
  left: 'left spins',
  right: 'right spins',
  both: 'both spin',
};

/** Every type of unit in the situations that matter, computed side by side. */
@Component({
  selector: 'hs-compare-tab',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    }
    <div class="sliders">
      @for (slider of sliders(); track slider.key) {
        <div>
          <label [for]="'compare-' + slider.key"
            >{{ slider.label }} <span class="mono">{{ slider.said }}</span></label
          >
          <input
            #box
            type="range"
            [id]="'compare-' + slider.key"
            [min]="slider.min"
            [max]="slider.max"
            [step]="slider.step"
            [value]="slider.value"
            [attr.aria-valuetext]="slider.said"
            (input)="set(slider.key, box.valueAsNumber)"
          />
        </div>
      }
    </div>
    <div class="scroll">
      <table class="table">
        <caption>
          Thrust in
          {{
            unitName()
          }}; below it the yaw moment, + turns in, − pushes wide or steadies. Choose a unit for its wheels and shafts.
        </caption>
        <thead>
          <tr>
            <th scope="col">For {{ useName() }}, of 100</th>
            @for (name of situations; track name) {
              <th scope="col">{{ names[name] }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.label) {
            <tr [class.own]="row.own">
              <th scope="row">
                <span class="score mono" [attr.aria-label]="'Serves ' + useName() + ' to ' + row.score">{{
                  row.score
                }}</span>
                <button
                  type="button"
                  class="quiet bare who"
                  [attr.aria-expanded]="row.open"
                  (click)="look(row.label, row.open)"
                >
                  <span class="name">{{ row.label }}</span>
                </button>
                @if (!row.own) {
                  <button
                    type="button"
                    class="quiet bare take"
                    [attr.aria-label]="'Take ' + row.label + ' into the build'"
                    (click)="take(row.type)"
                  >
                    Take
                  </button>
                }
                <span class="more reasons">{{ row.weak }}</span>
                @if (row.open) {
                  <span class="more reasons">{{ row.strong }}</span>
                  <span class="more wheels">left · right wheel, {{ torqueUnit() }}</span>
                  <span class="more wheels">most in one shaft</span>
                }
              </th>
              @for (cell of row.cells; track $index) {
                <td [class.best]="cell.best">
                  <span class="mono thrust">{{ cell.thrust }}</span>
                  <span class="more">{{ cell.yaw }}{{ cell.slips ? (cell.yaw ? ', ' : '') + cell.slips : '' }}</span>
                  @if (row.open) {
                    <span class="more wheels mono">{{ cell.left }} · {{ cell.right }}</span>
                    <span class="more wheels mono">{{ cell.shaft }}</span>
                  }
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    </div>
    <p class="soft">
      FoundFinal for the use in the brief by what each gives of the best where it counts, less its push off the line:
      our weights. The left wheel is the slippery, the lifted and the inner one. The other units are ordinary ones of
      their type, ours: the maker’s sheet wins. {{ ownWords() }} Tyres as dry friction.
    </p>
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    .sliders {
      display: grid;
      grid-template-columns: repeat(4, minmax(0, 1fr));
      gap: 14px;
    }
    label .mono {
      white-space: nowrap;
    }
    label {
      font-size: var(--text-s);
      color: var(--soft);
    }
    label .mono {
      color: var(--ink);
    }
    input {
      width: 100%;
      height: 26px;
      margin: 0;
      accent-color: var(--ochre);
    }
    th,
    td {
      padding: 2px 6px;
      text-align: right;
      vertical-align: top;
    }
    th:first-child {
      padding-left: 4px;
      text-align: left;
    }
    thead th {
      white-space: normal;
    }
    .thrust {
      display: block;
      font-size: var(--text-m);
    }
    .best .thrust {
      font-weight: 600;
      text-decoration: underline;
      text-decoration-color: var(--ochre);
      text-decoration-thickness: 3px;
      text-underline-offset: 3px;
    }
    tbody th {
      min-width: 160px;
      max-width: 178px;
    }
    .who {
      padding: 0 4px;
      text-align: left;
    }
    @media (pointer: fine) {
      .who {
        min-height: 26px;
      }
      .take {
        min-height: 24px;
      }
    }
    .wheels {
      display: block;
      white-space: nowrap;
    }
    .take {
      padding: 0 6px;
      color: var(--blue);
    }
    .score {
      display: inline-block;
      min-width: 30px;
      font-size: var(--text-m);
    }
    .more {
      font-size: var(--text-xs);
      color: var(--soft);
    }
    .reasons {
      display: block;
      max-width: 180px;
      white-space: normal;
    }
    p {
      font-size: var(--text-s);
    }
    @media #{$narrow} {
      .sliders {
        grid-template-columns: 1fr 1fr;
      }
      input {
        height: 44px;
      }
    }
  `,
})
export class CompareTab {
  protected readonly bench = inject(Bench);
  private readonly library = inject(Library);
  private readonly messages = inject(MessageService);
  protected readonly situations = SITUATIONS;
  protected readonly names = NAMES;

  private readonly inputNm = computed(() => Math.max(this.bench.derived()?.inputNm ?? 0, 1));
  /** Starts from the operating point; moved here alone, and nothing of it is kept on the build. */
  private readonly settings = linkedSignal(() => comparedSettings(this.inputNm()));
  protected readonly useName = computed(() => (USE_WORDS[this.bench.build()?.use ?? ''] ?? '').toLowerCase());
  /** The unit whose wheels and shafts are shown; the build's own until another one is chosen. */
  private readonly opened = signal<string | null | undefined>(undefined);
  protected readonly torqueUnit = computed(() => formatIn(0, 'torque', this.bench.system()).unit);
  protected readonly unitName = computed(() => formatIn(0, 'force', this.bench.system()).unit);
  protected readonly ownWords = computed(() =>
    this.bench.plates() ? 'This one is computed from its packs.' : 'This one is computed from what its sheet says.',
  );
  protected readonly sliders = computed(() => {
    const settings = this.settings();
    const system = this.bench.system();
    const torque = (nm: number): string => {
      const { text, unit } = formatIn(nm, 'torque', system, 0);
      return `${text} ${unit}`;
    };
    const most = Math.max(2 * this.inputNm(), 500);
    return [
      {
        key: 'inputNm' as const,
        label: 'Torque into the unit',
        min: 50,
        max: most,
        step: 10,
        value: settings.inputNm,
        said: torque(settings.inputNm),
      },
      {
        key: 'splitShare' as const,
        label: 'Grip of the slippery side',
        min: 0,
        max: 1,
        step: 0.05,
        value: settings.splitShare,
        said: `${Math.round(100 * settings.splitShare)} %`,
      },
      {
        key: 'lateralG' as const,
        label: 'In the turn',
        min: 0,
        max: 1.5,
        step: 0.05,
        value: settings.lateralG,
        said: `${settings.lateralG.toFixed(2)} g`,
      },
      {
        key: 'brakeNm' as const,
        label: 'Brake dabbed with',
        min: 0,
        max: 600,
        step: 10,
        value: settings.brakeNm,
        said: torque(settings.brakeNm),
      },
    ];
  });
  private readonly attempt = attempt<{ type: Unit['type']; label: string; own: boolean; results: CompareResult[] }[]>(
    () => {
      const build = this.bench.build();
      const axle = this.bench.axleName();
      const derived = this.bench.derived();
      const own = derived?.gearing[axle];
      if (!build || !derived || !own) return null;
      const ground = comparedGround(build, axle, own);
      const situations = SITUATIONS.map((name) => situationOf(name, ground, this.settings()));
      return comparedUnits(build, axle, derived.axles[axle]?.pack ?? null).map(({ type, label, own: mine, unit }) => ({
        type,
        label,
        own: mine,
        results: situations.map((situation) => compareUnit(unit, situation)),
      }));
    },
  );
  protected readonly problem = this.attempt.problem;
  protected readonly rows = computed(() => {
    const results = this.attempt.value() ?? [];
    const system = this.bench.system();
    const most = SITUATIONS.map((_, i) => Math.max(...results.map((row) => Math.abs(row.results[i]?.thrustN ?? 0))));
    const least = SITUATIONS.map((_, i) => Math.min(...results.map((row) => Math.abs(row.results[i]?.thrustN ?? 0))));
    const use = this.bench.build()?.use ?? 'street';
    const ranks = rankUnits(
      use,
      results.map((row) => row.results),
    );
    const order = results.map((_, i) => i).sort((a, b) => (ranks[b]?.score ?? 0) - (ranks[a]?.score ?? 0));
    const words = (names: readonly SituationName[]): string =>
      names.map((name) => NAMES[name].toLowerCase()).join(', ');
    return order.map((at) => {
      const { type, label, own, results: list } = results[at] as (typeof results)[number];
      const rank = ranks[at];
      return {
        type,
        label,
        own,
        open: this.opened() === undefined ? own : this.opened() === label,
        score: String(Math.round(rank?.score ?? 0)),
        weak: rank?.weak.length ? `weak: ${words(rank.weak)}` : '',
        strong: rank?.strong.length ? `nearly the best in ${words(rank.strong)}` : '',
        cells: list.map((result, i) => {
          const torque = (nm: number): string => formatIn(nm, 'torque', system, 0).text;
          const turns = SITUATIONS[i] === 'corner-exit' || SITUATIONS[i] === 'overrun-into-corner';
          const { unit } = formatIn(0, 'torque', system);
          return {
            thrust: formatIn(result.thrustN, 'force', system, 0).text,
            yaw: turns ? `${result.yawNm > 0.5 ? '+' : ''}${torque(result.yawNm)} ${unit}` : '',
            slips: SLIPS[result.slips],
            // Marked only where units differ at all.
            best: (most[i] ?? 0) > 1.001 * (least[i] ?? 0) + 1 && Math.abs(result.thrustN) > 0.999 * (most[i] ?? 0),
            left: torque(result.leftNm),
            right: torque(result.rightNm),
            shaft: torque(result.shaftNm),
          };
        }),
      };
    });
  });

  /** Puts an ordinary unit of a type into the build; what the build knew of that type comes back. */
  protected take(type: Unit['type']): void {
    this.bench.changeAxle((axle) => (axle.unit = unitAs(axle.unit, type, this.library.schools())));
    this.messages.add({
      severity: 'success',
      summary: `Taken: ${UNIT_TYPE_WORDS[type].name.toLowerCase()}`,
      detail: 'With ordinary values where the build had none: put in the maker’s.',
      life: 6000,
    });
  }

  protected look(label: string, open: boolean): void {
    this.opened.set(open ? null : label);
  }

  protected set(key: 'inputNm' | 'splitShare' | 'lateralG' | 'brakeNm', value: number): void {
    this.settings.update((now) => ({ ...now, [key]: value, ...(key === 'inputNm' ? { overrunNm: 0.2 * value } : {}) }));
  }
}
