import { Assumed } from '../shared/assumed';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { LIMITS, RAMP_FRICTION } from '@hot-spline/core';
import {
  UNIT_TYPES,
  UNIT_TYPE_WORDS,
  lockCurve,
  rampOn,
  assumedOfType,
  unitAs,
  type PlateSpec,
  type Unit,
  unitFigures,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Chart, chartColours } from '../shared/chart';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { Radios } from '../shared/radios';
import { SheetHead } from '../shared/sheet-head';
import { activeTab } from '../shared/active-tab';
import { Tabs } from '../shared/tabs';
import { UNIT_TABS } from './tabs';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { Library } from '../state/library';
import { CompareTab } from './compare-tab';
import { lockOption } from './lock-chart';
import { RampDrawing } from './ramp-drawing';
import { TuneTab } from './tune-tab';
import { UnitParts } from './unit-parts';

/** The unit: type, ramps with their convention drawn, locking torque on drive and overrun. */
@Component({
  selector: 'hs-unit-sheet',
  imports: [
    NgTemplateOutlet,
    Assumed,
    Chart,
    Choice,
    CompareTab,
    EntryField,
    FigureButton,
    RampDrawing,
    Radios,
    SheetHead,
    Tabs,
    TuneTab,
    UnitParts,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './unit-sheet.html',
  styleUrls: ['../shared/sheet.scss', './unit-sheet.scss'],
})
export class UnitSheet {
  readonly at = input<string>();
  readonly tab = input<string>();
  protected readonly bench = inject(Bench);
  protected readonly ids = unitFigures;
  private readonly library = inject(Library);
  private readonly night = inject(Store).selectSignal(uiFeature.selectNight);

  protected readonly tabs = UNIT_TABS;
  protected readonly active = activeTab(UNIT_TABS, this.tab);

  protected readonly angleRange = { min: 0, max: 90, unit: '°' };
  protected readonly rampFrictionRange = RAMP_FRICTION;
  protected readonly overrunRange = { min: 0, max: 100, unit: '%' };
  protected readonly radiusRange = LIMITS.radiusMm;
  protected readonly usualRadius = [8, 120] as const;
  protected readonly types = UNIT_TYPES.map((value) => ({ value, label: UNIT_TYPE_WORDS[value].name }));
  protected readonly actions: { value: PlateSpec['action']; label: string }[] = [
    { value: 'two-way', label: 'Two-way' },
    { value: 'one-and-a-half-way', label: '1½-way' },
    { value: 'one-way', label: 'One-way' },
  ];
  protected readonly conventions: { value: PlateSpec['rampFrom']; label: string }[] = [
    { value: 'rotation-plane', label: 'Angle from the plane of rotation' },
    { value: 'axis', label: 'Angle from the axle’s axis' },
  ];

  protected readonly unit = computed(() => this.bench.axle()?.unit ?? null);
  protected readonly plate = computed(() => (this.unit()?.type === 'plate' ? (this.unit()?.plate ?? null) : null));
  protected readonly words = computed(() => UNIT_TYPE_WORDS[this.unit()?.type ?? 'open']);
  protected readonly overrunAngle = computed(() => {
    const plate = this.plate();
    return plate ? rampOn(plate, 'overrun').angleDeg : 90;
  });
  protected readonly option = computed(() => {
    const derived = this.bench.derived();
    const state = derived?.axles[this.bench.axleName()]?.unit;
    this.night();
    if (!derived || !state) return {};
    const mostNm = Math.max(derived.inputNm * 1.3, 100);
    return lockOption({
      // Further than the picture, which ends at a round figure and cuts the rest.
      curve: lockCurve(state, 2 * mostNm),
      mostNm,
      point: { inputNm: derived.inputNm, lockNm: state.lock('drive', derived.inputNm).lockNm },
      system: this.bench.system(),
      colours: chartColours(),
    });
  });

  constructor() {
    this.library.open();
    jumpTo(this.at, () => ({ tab: this.active() }));
  }

  protected readonly unitPath = computed(() => `axles.${this.bench.axleName()}.unit`);

  /** What another type does not use is kept, and comes back with its type. */
  protected setType(type: Unit['type']): void {
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
  }

  protected setAction(action: PlateSpec['action']): void {
    this.bench.changePlate((plate) => (plate.action = action));
  }

  /** The same ramps quoted the other way: the steel stays as it is. */
  protected setConvention(rampFrom: PlateSpec['rampFrom']): void {
    this.bench.changePlate((plate) => {
      if (plate.rampFrom === rampFrom) return;
      plate.rampFrom = rampFrom;
      for (const key of ['driveRamp', 'overrunRamp'] as const) {
        const value = Number((90 - plate[key].value).toFixed(6));
        plate[key] = { typed: `${value}°`, value, unit: '°' };
      }
    });
  }

  protected setOverrun({ entry }: TakenEntry): void {
    this.bench.change((draft) => (draft.road.overrun = entry));
  }

  protected setEntry(key: 'driveRamp' | 'overrunRamp' | 'pinRadius' | 'rampFriction', { entry }: TakenEntry): void {
    this.bench.changePlate((plate) => (plate[key] = entry));
  }
}
