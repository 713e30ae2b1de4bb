import { Assumed } from '../shared/assumed';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import {
  InputError,
  LIMITS,
  VEHICLE_LIMITS,
  entryOf,
  parseEntry,
  type Entry,
  type NumberRange,
} from '@hot-spline/core';
import {
  ORIGIN_WORDS,
  leastOf,
  newAxle,
  newConverter,
  openUnit,
  torqueCurve,
  type Build,
  type GearboxSpec,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Chart, chartColours } from '../shared/chart';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { RemoveButton } from '../shared/remove-button';
import { SheetHead } from '../shared/sheet-head';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { Library } from '../state/library';
import { newGearboxSpec } from '../library/new-spec';
import { QuickCurve } from './quick-curve';
import { torqueOption } from './torque-chart';
import { TorqueImportPanel } from './torque-import';

/** As many as a gearbox may have. */
const MOST_GEARS = 12;

type Driven = Build['driven'];
type Coupling = Build['coupling']['kind'];

/** Job, engine, coupling, gearbox and transfer case. */
@Component({
  selector: 'hs-engine-sheet',
  imports: [Assumed, Chart, Choice, EntryField, FigureButton, QuickCurve, RemoveButton, SheetHead, TorqueImportPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './engine-sheet.html',
  styleUrls: ['../shared/sheet.scss', './engine-sheet.scss'],
})
export class EngineSheet {
  readonly at = input<string>();
  protected readonly bench = inject(Bench);
  private readonly store = inject(Store);
  private readonly night = this.store.selectSignal(uiFeature.selectNight);

  protected readonly ratioRange = LIMITS.ratio;
  protected readonly rpmRange: NumberRange = { min: 1, max: LIMITS.rpm.max, unit: 'rpm' };
  protected readonly curveRpm: NumberRange = { min: 0, max: LIMITS.rpm.max, unit: 'rpm' };
  protected readonly curveTorque: NumberRange = { min: 0, max: 20000, unit: 'N·m' };
  /** Asked about beyond: an engine speed in thousands. */
  protected readonly usualRpm = [400, 25_000] as const;
  protected readonly launchRange: NumberRange = { min: 0, max: LIMITS.rpm.max, unit: 'rpm' };
  protected readonly timeRange = VEHICLE_LIMITS.shiftTimeS;
  protected readonly multiplyRange = VEHICLE_LIMITS.torqueRatio;
  protected readonly couplingRange = VEHICLE_LIMITS.couplingRatio;
  protected readonly fullRange = VEHICLE_LIMITS.fullUpTo;
  protected readonly shareRange: NumberRange = { min: 1, max: 100, unit: '%' };
  protected readonly originWords = ORIGIN_WORDS;
  protected readonly slipRange: NumberRange = { min: 0, max: 50, unit: '%' };
  protected readonly capacityRange: NumberRange = { above: 0, max: 1e5, unit: 'N·m' };
  protected readonly couplings: { value: Coupling; label: string }[] = [
    { value: 'clutch', label: 'Clutch' },
    { value: 'converter', label: 'Converter' },
    { value: 'direct', label: 'Direct' },
  ];
  protected readonly gearboxes: { value: Build['gearbox']['kind']; label: string }[] = [
    { value: 'synchro', label: 'Synchro' },
    { value: 'dog', label: 'Dog' },
    { value: 'sequential', label: 'Sequential' },
    { value: 'automatic', label: 'Automatic' },
    { value: 'fixed', label: 'Fixed reduction' },
  ];
  protected readonly drivens: { value: Driven; label: string }[] = [
    { value: 'rear', label: 'Drives the rear' },
    { value: 'front', label: 'Drives the front' },
    { value: 'both', label: 'Drives both' },
  ];
  protected readonly engines: { value: Build['engine']['kind']; label: string }[] = [
    { value: 'combustion', label: 'Engine' },
    { value: 'electric', label: 'Electric motor' },
  ];

  /** Another way to a curve that is open in place of the points. */
  protected readonly making = signal<'import' | 'quick' | null>(null);

  protected readonly option = computed(() => {
    const build = this.bench.build();
    this.night();
    if (!build) return {};
    return torqueOption(torqueCurve(build), build.engine.limitRpm, this.bench.system(), chartColours());
  });
  protected readonly converter = computed(() => {
    const coupling = this.bench.build()?.coupling;
    return coupling?.kind === 'converter' ? coupling : null;
  });
  protected readonly capacity = computed(() => {
    const coupling = this.bench.build()?.coupling;
    return coupling?.kind === 'clutch' ? coupling.capacity : null;
  });

  private readonly library = inject(Library);
  private readonly boxes = this.library.ofKind('gearbox');
  protected readonly boxOptions = computed(() => [
    { value: '', label: 'From the library…' },
    ...this.boxes().map(({ id, spec }) => ({ value: id, label: spec.name })),
  ]);
  /** Whether a gearbox of the library is the one in the build, gear by gear. */
  private readonly known = computed(() => {
    const gears = this.bench.build()?.gearbox.gears ?? [];
    const same = (spec: GearboxSpec): boolean =>
      spec.gears.length === gears.length &&
      spec.gears.every((gear, i) => Math.abs(gear.ratio.value - (gears[i]?.ratio.value ?? 0)) < 1e-9);
    return this.boxes().find(({ spec }) => same(spec)) ?? null;
  });
  protected readonly knownBox = computed(() => this.known()?.id ?? '');

  constructor() {
    this.library.open();
    jumpTo(this.at);
  }

  protected rpmEntry(value: number): Entry {
    return entryOf(value, 'rpm');
  }

  /** What a ratio typed as teeth comes to. */
  protected ratioHint({ typed, value }: Entry): string {
    return /[/:]/.test(typed) ? value.toFixed(3) : '';
  }

  protected edit(recipe: (draft: Build) => void): void {
    this.bench.change(recipe);
  }

  protected setEngine(kind: Build['engine']['kind']): void {
    this.edit((draft) => (draft.engine.kind = kind));
  }

  protected setLimit({ base }: TakenEntry): void {
    this.edit((draft) => {
      draft.engine.limitRpm = base;
      draft.startPoint.rpm = Math.min(draft.startPoint.rpm, base);
    });
  }

  protected setGearbox(kind: Build['gearbox']['kind']): void {
    this.edit((draft) => (draft.gearbox.kind = kind));
  }

  protected takeBox(id: string): void {
    const spec = this.boxes().find((one) => one.id === id)?.spec;
    if (!spec) return;
    this.edit((draft) => {
      draft.gearbox.kind = spec.box.value;
      draft.gearbox.from = {
        name: spec.name,
        origin: leastOf([spec.box.origin, ...spec.gears.map(({ origin }) => origin)]),
      };
      draft.gearbox.gears = spec.gears.map(({ name, ratio }) => ({ name, ratio: { ...ratio } }));
      draft.startPoint.gear = Math.min(draft.startPoint.gear, draft.gearbox.gears.length - 1);
    });
  }

  protected keepBox(): void {
    const build = this.bench.build();
    if (!build) return;
    const origin = build.gearbox.from?.origin ?? 'not-said';
    const gears = build.gearbox.gears.map(({ name, ratio }) => ({ name, ratio, origin }));
    const spec: GearboxSpec = {
      ...newGearboxSpec(`${build.name} gearbox`),
      box: { value: build.gearbox.kind, origin },
      gears,
    };
    this.library.add(spec);
  }

  /** Several ratios pasted into one field fill it and those after it. */
  protected pasteGears(event: ClipboardEvent): void {
    const from = Number(/^gear-(\d+)$/.exec((event.target as HTMLElement).id)?.[1]);
    const parts = (event.clipboardData?.getData('text') ?? '').split(/[\s;|]+|,\s+/).filter((part) => part !== '');
    if (!Number.isInteger(from) || parts.length < 2) return;
    event.preventDefault();
    try {
      const rules = {
        field: 'Pasted ratios',
        quantity: 'ratio',
        system: this.bench.system(),
        range: LIMITS.ratio,
      } as const;
      const ratios = parts.map((part) => parseEntry(part, { ...rules, decimal: this.bench.decimal() }).entry);
      if (from + ratios.length > MOST_GEARS)
        throw new InputError(
          'Pasted ratios',
          `${ratios.length} ratios from gear ${from + 1} on are too many.`,
          `up to ${MOST_GEARS} gears`,
        );
      this.fillGears(from, ratios);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.bench.refuse(error);
    }
  }

  /** One ratio, or a row of them: this gear and those after it, and more gears where there are more. */
  protected setGear(index: number, { entry, row }: TakenEntry): void {
    this.fillGears(index, row ?? [entry]);
  }

  private fillGears(from: number, ratios: readonly Entry[]): void {
    this.editGears((gears) => {
      ratios.forEach((ratio, i) => {
        const gear = gears[from + i];
        if (gear) gear.ratio = ratio;
        else gears.push({ name: String(gears.length + 1), ratio });
      });
    });
  }

  /** What is typed over is no longer what was taken from the library. */
  private editGears(recipe: (gears: Build['gearbox']['gears'], draft: Build) => void): void {
    this.edit((draft) => {
      recipe(draft.gearbox.gears, draft);
      draft.gearbox.from = null;
    });
  }

  protected setRange(index: number, { entry }: TakenEntry): void {
    this.edit((draft) => {
      const range = draft.transfer?.ranges[index];
      if (range) range.ratio = entry;
    });
  }

  protected setPoint(index: number, key: 'rpm' | 'torque', { entry, base }: TakenEntry): void {
    this.edit((draft) => {
      const point = draft.engine.torqueCurve[index];
      if (!point) return;
      if (key === 'rpm') point.rpm = base;
      else point.torque = entry;
      draft.engine.torqueCurve.sort((a, b) => a.rpm - b.rpm);
    });
  }

  protected addPoint(): void {
    this.edit((draft) => {
      const last = draft.engine.torqueCurve.at(-1);
      draft.engine.torqueCurve.push({ rpm: (last?.rpm ?? 0) + 500, torque: last?.torque ?? entryOf(100, 'N·m') });
    });
  }

  protected removePoint(index: number): void {
    this.edit((draft) => draft.engine.torqueCurve.splice(index, 1));
  }

  protected setCoupling(kind: Coupling): void {
    this.edit((draft) => {
      const most = Math.max(...torqueCurve(draft).map((point) => point.torqueNm));
      draft.coupling =
        kind === 'clutch'
          ? { kind, capacity: entryOf(Math.round(1.5 * most) || 100, 'N·m') }
          : kind === 'converter'
            ? newConverter()
            : { kind };
    });
  }

  protected setCapacity({ entry }: TakenEntry): void {
    this.edit((draft) => {
      if (draft.coupling.kind === 'clutch') draft.coupling.capacity = entry;
    });
  }

  protected setLaunch({ base }: TakenEntry): void {
    this.edit((draft) => (draft.engine.launchRpm = base));
  }

  protected setShiftTime({ entry }: TakenEntry): void {
    this.edit((draft) => (draft.gearbox.shiftTime = entry));
  }

  protected setStall({ base }: TakenEntry): void {
    this.edit((draft) => {
      if (draft.coupling.kind === 'converter') draft.coupling.stallRpm = base;
    });
  }

  protected setConverter(
    key: 'torqueRatio' | 'couplingRatio' | 'slip' | 'fullUpTo' | 'shareAtCoupling',
    { entry }: TakenEntry,
  ): void {
    this.edit((draft) => {
      if (draft.coupling.kind === 'converter') draft.coupling[key] = entry;
    });
  }

  /** Takes an imported or quick curve in place of the one there is. */
  protected setCurve(curve: Build['engine']['torqueCurve'], limitRpm: number | null): void {
    this.edit((draft) => {
      draft.engine.torqueCurve = curve;
      if (limitRpm === null) return;
      draft.engine.limitRpm = limitRpm;
      draft.startPoint.rpm = Math.min(draft.startPoint.rpm, limitRpm);
    });
    this.making.set(null);
  }

  protected addGear(): void {
    this.editGears((gears) => {
      const last = gears.at(-1)?.ratio.value ?? 1;
      gears.push({ name: String(gears.length + 1), ratio: entryOf(Number((last * 0.82).toFixed(3)), '') });
    });
  }

  protected removeGear(index: number): void {
    this.editGears((gears, draft) => {
      gears.splice(index, 1);
      draft.startPoint.gear = Math.min(draft.startPoint.gear, gears.length - 1);
    });
  }

  protected setTransfer(kept: boolean): void {
    this.edit((draft) => {
      draft.startPoint.range = 0;
      draft.transfer = kept
        ? {
            ranges: [
              { name: 'High', ratio: entryOf(1, '') },
              { name: 'Low', ratio: entryOf(2.5, '') },
            ],
          }
        : null;
    });
  }

  /** An axle that starts to be driven is made like the other one; one that stops is kept for later. */
  protected setDriven(driven: Driven): void {
    this.edit((draft) => {
      draft.driven = driven;
      const model = draft.axles.rear ?? draft.axles.front ?? newAxle();
      if (driven !== 'front') draft.axles.rear ??= structuredClone(model);
      if (driven !== 'rear') draft.axles.front ??= { ...structuredClone(model), unit: openUnit() };
    });
  }
}
