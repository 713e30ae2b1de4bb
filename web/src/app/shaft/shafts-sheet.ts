import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { LIMITS, SHAFT_LIMITS, SPLINE_ANGLES, entryOf, type Entry, type SplineAngle } from '@hot-spline/core';
import {
  MATERIALS,
  MATERIAL_KEYS,
  SIDES,
  newEnd,
  newShafts,
  shaftFigures,
  weakestLinks,
  type Shaft,
  type Shafts,
  type Side,
  type Twisted,
} from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { Radios } from '../shared/radios';
import { countReader, numberReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { SheetHead } from '../shared/sheet-head';
import { VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';

type LengthKey = 'neck' | 'bore' | 'engagement' | 'pinGap' | 'float';
const LENGTHS: readonly { readonly key: LengthKey; readonly name: string; readonly label: string }[] = [
  { key: 'neck', name: 'neck', label: 'Thinnest beside the spline' },
  { key: 'bore', name: 'bore', label: 'Bore, where it is hollow' },
  { key: 'engagement', name: 'engagement', label: 'Spline in its gear, full travel' },
  { key: 'pinGap', name: 'pin-gap', label: 'End to pin or block' },
  { key: 'float', name: 'float', label: 'End float' },
];
type Prop = NonNullable<Shafts['prop']>;
type PropKey = 'outer' | 'wall' | 'between' | 'frontAngle' | 'rearAngle';
const END_LENGTHS = [
  { key: 'neck', name: 'neck', label: 'Thinnest beside the spline' },
  { key: 'bore', name: 'bore', label: 'Bore, where it is hollow' },
] as const;
const PROP: readonly { readonly key: PropKey; readonly name: string; readonly label: string }[] = [
  { key: 'outer', name: 'prop-outer', label: 'Tube, across' },
  { key: 'wall', name: 'prop-wall', label: 'Wall' },
  { key: 'between', name: 'prop-between', label: 'Between the joints' },
  { key: 'frontAngle', name: 'prop-front-angle', label: 'Front joint' },
  { key: 'rearAngle', name: 'prop-rear-angle', label: 'Rear joint' },
];

/** What reaches each shaft and what it holds; how fast the prop shaft may turn; the weakest link of the driveline. */
@Component({
  selector: 'hs-shafts-sheet',
  imports: [Choice, EntryField, Field, FigureButton, Radios, RemoveButton, RouterLink, SheetHead, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shafts-sheet.html',
  styleUrls: ['../shared/sheet.scss', './shafts-sheet.scss'],
})
export class ShaftsSheet {
  readonly at = input<string>();
  protected readonly bench = inject(Bench);
  protected readonly axle = this.bench.axleName;
  protected readonly sides = SIDES;
  protected readonly figures = shaftFigures;
  protected readonly lengths = LENGTHS;
  protected readonly propFields = PROP;
  protected readonly endLengths = END_LENGTHS;
  protected readonly torqueRange = { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' };
  protected readonly shockRange = { min: 1, max: 5 };
  protected readonly angles = SPLINE_ANGLES.map((value) => ({ value: String(value), label: `${value}°` }));
  protected readonly phases = [
    { value: 'yes', label: 'stand alike' },
    { value: 'no', label: 'turned' },
  ] as const;
  protected readonly shafts = computed(() => this.bench.axle()?.shafts ?? null);
  protected readonly reaches = computed(() => this.bench.derived()?.shafts[this.axle()] ?? null);
  protected readonly lengthRange = { min: 0, max: SHAFT_LIMITS.lengthMm.max, unit: 'mm' };
  protected readonly diameterRange = SHAFT_LIMITS.diameterMm;
  protected readonly angleRange = SHAFT_LIMITS.jointDeg;
  protected readonly readSplines = countReader('Splines', SHAFT_LIMITS.splineTeeth.min, SHAFT_LIMITS.splineTeeth.max);
  protected readonly readPitch = countReader('Pitch', SHAFT_LIMITS.diametralPitch.min, SHAFT_LIMITS.diametralPitch.max);
  protected readonly readShear = numberReader('Shear yield', { min: 1, max: SHAFT_LIMITS.stressMPa.max });
  protected readonly materials = MATERIAL_KEYS.map((value) => ({
    value,
    label: `${MATERIALS[value].shearMPa} MPa, ${MATERIALS[value].label.toLowerCase()}`,
  }));
  protected readonly links = computed(() => {
    const [build, derived] = [this.bench.build(), this.bench.derived()];
    if (!build || !derived) return [];
    return weakestLinks(build, derived, this.axle()).map((link) => ({
      ...link,
      verdict: link.margin < 1 ? ('stop' as const) : link.margin < 1.5 ? ('watch' as const) : ('fits' as const),
      share: Math.min(100, (100 * link.margin) / 3),
    }));
  });

  constructor() {
    jumpTo(this.at);
  }

  protected begin(): void {
    this.bench.changeAxle((axle) => (axle.shafts = newShafts(axle.identity?.shaftSplines?.value)));
  }

  protected set(side: Side, change: Partial<Shaft>): void {
    this.bench.changeAxle(({ shafts }) => {
      if (shafts) Object.assign(shafts[side], change);
    });
  }

  protected angleOf(text: string): SplineAngle {
    return Number(text) as SplineAngle;
  }

  protected setLength(side: Side, key: LengthKey, entry: Entry): void {
    this.set(side, { [key]: entry });
  }

  /** The right one as the left one. */
  protected same(): void {
    this.bench.changeAxle(({ shafts }) => {
      if (shafts) shafts.right = structuredClone(shafts.left);
    });
  }

  /** The end of the pinion that the flange sits on. */
  protected beginPinion(): void {
    this.bench.changeAxle(({ shafts, identity }) => {
      if (shafts) shafts.pinion = newEnd(identity?.pinionSplines?.value);
    });
  }

  protected setPinion(change: Partial<Twisted>): void {
    this.bench.changeAxle(({ shafts }) => {
      if (shafts?.pinion) Object.assign(shafts.pinion, change);
    });
  }

  protected setPinionLength(key: 'neck' | 'bore', entry: Entry): void {
    this.setPinion({ [key]: entry });
  }

  protected dropPinion(): void {
    this.bench.changeAxle(({ shafts }) => {
      if (shafts) shafts.pinion = null;
    });
  }

  protected setShock(entry: Entry): void {
    this.bench.change((draft) => (draft.road.shock = entry));
  }

  protected beginProp(): void {
    const inch = this.bench.system() === 'inch';
    this.bench.changeAxle(({ shafts }) => {
      if (!shafts) return;
      // Round figures of ours, to be measured over.
      shafts.prop = {
        ...(inch
          ? { outer: entryOf(2.75, 'in'), wall: entryOf(0.08, 'in'), between: entryOf(50, 'in') }
          : { outer: entryOf(70, 'mm'), wall: entryOf(2, 'mm'), between: entryOf(1250, 'mm') }),
        frontAngle: entryOf(2, '°'),
        rearAngle: entryOf(2, '°'),
        inPhase: true,
        material: 'unknown',
        shear: null,
        jointTorque: null,
      };
    });
  }

  protected setProp(change: Partial<Prop>): void {
    this.bench.changeAxle(({ shafts }) => {
      if (shafts?.prop) Object.assign(shafts.prop, change);
    });
  }

  protected setPropLength(key: PropKey, entry: Entry): void {
    this.setProp({ [key]: entry });
  }

  protected dropProp(): void {
    this.bench.changeAxle(({ shafts }) => {
      if (shafts) shafts.prop = null;
    });
  }
}
