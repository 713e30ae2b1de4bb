import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { SITUATIONS, entryBase, formatIn, type CompareResult } from '@hot-spline/core';
import {
  CRITERIA,
  CRITERION_WORDS,
  UNIT_TYPE_WORDS,
  USE_WEIGHTS,
  axleShares,
  comparedSettings,
  mostArriving,
  rankUnits,
  speaks,
  assumedOfType,
  unitAs,
  type Criterion,
  type CriterionWeights,
  type Unit,
} from '@hot-spline/model';
import { MessageService } from 'primeng/api';
import { USE_WORDS } from '../identity/words';
import { attempt } from '../shared/attempt';
import { Choice } from '../shared/choice';
import { TermButton } from '../shared/term-button';
import { Bench } from '../state/bench';
import { Library } from '../state/library';
import { SITUATION_NAMES, arrivesNm, compareAll, mostTurnG, type ComparedRow } from './compared';
import { CompareHead } from './compare-head';
import { CompareWheels } from './compare-wheels';

const SLIPS: Readonly<Record<CompareResult['slips'], string>> = {
  none: '',
  left: 'left slides',
  right: 'right slides',
  both: 'both slide',
};

/** Every type of unit in the situations that matter, computed side by side. */
@Component({
  selector: 'hs-compare-tab',
  imports: [Choice, CompareHead, CompareWheels, TermButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compare-tab.html',
  styleUrl: './compare-tab.scss',
})
export class CompareTab {
  protected readonly bench = inject(Bench);
  private readonly library = inject(Library);
  private readonly messages = inject(MessageService);
  protected readonly situations = SITUATIONS;
  protected readonly names = SITUATION_NAMES;
  protected readonly situationNames = SITUATIONS.map((name) => SITUATION_NAMES[name]);

  protected readonly views = [
    { value: 'rank' as const, label: 'what the use wants' },
    { value: 'situations' as const, label: 'every situation' },
  ];
  protected readonly view = signal<'rank' | 'situations'>('rank');
  protected readonly weightProblem = signal('');
  /** The most that arrives at this axle: where nothing slips, every unit is as good as another. */
  private readonly inputNm = computed(() => {
    const [build, derived] = [this.bench.build(), this.bench.derived()];
    return build && derived ? arrivesNm(build, this.bench.axleName(), derived) : 1;
  });
  /** What limits that: the engine in first gear, or what its tyres hold. */
  protected readonly arrives = computed(() => {
    const build = this.bench.build();
    const gearing = this.bench.derived()?.gearing;
    const axle = this.bench.axleName();
    const own = gearing?.[axle];
    if (!build || !own) return '';
    const held = mostArriving(build, axle, own, Number.POSITIVE_INFINITY);
    return mostArriving(build, axle, own, axleShares(build, gearing)[axle] ?? 1) < held
      ? 'the most that arrives in first gear'
      : 'what its tyres hold standing, which is less than arrives in first gear';
  });
  private readonly mostG = computed(() => {
    const build = this.bench.build();
    return build ? mostTurnG(build) : 1;
  });
  private readonly overrunShare = computed(() => {
    const build = this.bench.build();
    return build ? entryBase(build.road.overrun) / 100 : 0.2;
  });
  /** Starts from what arrives; moved here alone, and nothing of it is kept on the build. */
  private readonly settings = linkedSignal(() => comparedSettings(this.inputNm(), this.mostG(), this.overrunShare()));
  private readonly use = computed(() => this.bench.build()?.use ?? 'street');
  protected readonly ownWeights = computed(() => this.bench.build()?.brief.unitWeights ?? null);
  private readonly weights = computed((): CriterionWeights => this.ownWeights() ?? USE_WEIGHTS[this.use()]);
  /** What weighs comes first, as the use has it; what it does not ask for is there to be weighed. */
  protected readonly columns = computed(() => {
    const usual = USE_WEIGHTS[this.use()];
    return [...CRITERIA]
      .sort((a, b) => usual[b] - usual[a])
      .map((key) => ({ key, ...CRITERION_WORDS[key], weight: this.weights()[key] }));
  });
  protected readonly useName = computed(() => (USE_WORDS[this.bench.build()?.use ?? ''] ?? '').toLowerCase());
  /** The unit whose wheels and shafts are shown; the build's own until another one is chosen. */
  protected readonly opened = signal<string | null>(null);
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
        max: this.mostG(),
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
  private readonly attempt = attempt<ComparedRow[]>(() => {
    const [build, derived] = [this.bench.build(), this.bench.derived()];
    return build && derived ? compareAll(build, this.bench.axleName(), derived, this.settings()) : null;
  });
  protected readonly problem = this.attempt.problem;
  /** Order of the rows while a slider moves: they stand still under the eye, and are sorted when it is let go. */
  protected readonly held = signal<readonly string[] | null>(null);
  /** Three can be looked at side by side at the top. */
  protected readonly pins = signal<readonly string[]>([]);

  protected hold(): void {
    if (this.held() === null) this.held.set(this.rows().map(({ label }) => label));
  }

  protected pin(label: string): void {
    this.pins.update((pins) => (pins.includes(label) ? pins.filter((one) => one !== label) : [...pins, label]));
  }

  /** Indexes in the order that they are shown: pinned first, then the best – or as they stood while a slider moves. */
  private ordered(labels: readonly string[], scores: readonly number[]): number[] {
    const held = this.held();
    const pins = this.pins();
    const pinned = (i: number): number => (pins.includes(labels[i] ?? '') ? 0 : 1);
    const before = (a: number, b: number): number =>
      held ? held.indexOf(labels[a] ?? '') - held.indexOf(labels[b] ?? '') : (scores[b] ?? 0) - (scores[a] ?? 0);
    return labels.map((_, i) => i).sort((a, b) => pinned(a) - pinned(b) || before(a, b));
  }

  protected readonly rows = computed(() => {
    const results = this.attempt.value() ?? [];
    const system = this.bench.system();
    const most = SITUATIONS.map((_, i) => Math.max(...results.map((row) => Math.abs(row.results[i]?.thrustN ?? 0))));
    const least = SITUATIONS.map((_, i) => Math.min(...results.map((row) => Math.abs(row.results[i]?.thrustN ?? 0))));
    const ranks = rankUnits(
      this.use(),
      results.map(({ compared }) => compared),
      results.map((row) => row.results),
      { inputNm: this.settings().inputNm, wheelNm: results[0]?.wheelNm ?? 1 },
      this.weights(),
    );
    const said = speaks(ranks, this.weights());
    const words = (keys: readonly Criterion[] = []): string => keys.map((key) => CRITERION_WORDS[key].name).join(', ');
    const labels = results.map(({ compared: { label } }) => label);
    const order = this.ordered(
      labels,
      ranks.map(({ score }) => score),
    );
    const columns = this.columns();
    const top = new Map(columns.map(({ key }) => [key, Math.max(...ranks.map(({ parts }) => parts[key]))]));
    return order.map((at) => {
      const { compared, results: list } = results[at] as (typeof results)[number];
      const { type, label, own } = compared;
      const rank = ranks[at];
      return {
        type,
        label,
        own,
        pinned: this.pins().includes(label),
        open: this.opened() === null ? own : this.opened() === label,
        results: list,
        pro: words(said[at]?.for),
        contra: words(said[at]?.against),
        // Two that are not the same are not shown as if they were.
        score: (rank?.score ?? 0).toFixed(1),
        parts: columns.map(({ key, weight }) => {
          const part = rank?.parts[key] ?? 0;
          const [pro, contra] = [said[at]?.for.includes(key), said[at]?.against.includes(key)];
          return {
            text: String(Math.round(part)),
            weight,
            best: weight > 0 && part > (top.get(key) ?? 0) - 0.01,
            sign: pro ? '+' : contra ? '−' : '',
            said: pro ? ', speaks for it' : contra ? ', speaks against it' : '',
          };
        }),
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
          };
        }),
      };
    });
  });

  /** The one whose wheels and shafts are shown. */
  protected readonly chosen = computed(() => this.rows().find(({ open }) => open) ?? this.rows()[0] ?? null);

  /** Puts an ordinary unit of a type into the build; what the build knew of that type comes back. */
  protected take(type: Unit['type']): void {
    this.library.whenRead(() => {
      const name = this.bench.axleName();
      this.bench.change((draft) => {
        const axle = draft.axles[name];
        if (!axle) return;
        const before = axle.unit;
        axle.unit = unitAs(before, type, this.library.schools());
        draft.assumed = assumedOfType(draft.assumed, name, before, axle.unit);
      });
    });
    this.messages.add({
      severity: 'success',
      summary: `Taken: ${UNIT_TYPE_WORDS[type].name.toLowerCase()}`,
      detail: 'With ordinary values where the build had none: put in the maker’s.',
      life: 6000,
    });
  }

  protected weigh(key: Criterion, box: HTMLInputElement): void {
    const value = box.valueAsNumber;
    if (!(value >= 0 && value <= 100)) {
      this.weightProblem.set('A weight is a number from 0 to 100.');
      box.value = String(this.weights()[key]);
      return;
    }
    this.weightProblem.set('');
    this.bench.change((draft) => (draft.brief.unitWeights = { ...this.weights(), [key]: value }));
  }

  protected usualWeights(): void {
    this.bench.change((draft) => (draft.brief.unitWeights = null));
  }

  protected set(key: 'inputNm' | 'splitShare' | 'lateralG' | 'brakeNm', value: number): void {
    this.settings.update((now) => ({
      ...now,
      [key]: value,
      ...(key === 'inputNm' ? { overrunNm: this.overrunShare() * value } : {}),
    }));
  }
}
