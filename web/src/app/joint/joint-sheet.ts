import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import {
  BOLT_GRADES,
  EXPANSION,
  JOINT_LIMITS,
  LIMITS,
  entryOf,
  type Entry,
  type JointMaterial,
} from '@hot-spline/core';
import { FINISHES, FINISH_KEYS, jointFigures, newAxleSpec, newJoint, type Joint, type Origin } from '@hot-spline/model';
import { ORIGIN_OPTIONS, HAND_OPTIONS } from '../library/words';
import { activeTab } from '../shared/active-tab';
import { Choice, type Option } from '../shared/choice';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { Radios } from '../shared/radios';
import { countReader, numberReader, textReader } from '../shared/readers';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { Bench } from '../state/bench';
import { Library } from '../state/library';
import { BoltDrawing } from './bolt-drawing';
import { HeatTab } from './heat-tab';
import { StarTab } from './star-tab';
import { JOINT_TABS } from './tabs';

type LengthKey = 'headOuter' | 'underHead' | 'shank' | 'flange' | 'holeDepth' | 'threadDepth';
const LENGTHS: readonly { readonly key: LengthKey; readonly name: string; readonly label: string }[] = [
  { key: 'underHead', name: 'joint-under-head', label: 'Bolt, under its head' },
  { key: 'shank', name: 'joint-shank', label: 'Of it without thread' },
  { key: 'flange', name: 'joint-flange', label: 'Flange' },
  { key: 'holeDepth', name: 'joint-hole', label: 'Hole, deep' },
  { key: 'threadDepth', name: 'joint-thread-depth', label: 'Full thread, deep' },
  { key: 'headOuter', name: 'joint-head', label: 'Bearing face, across' },
];

/** The bolted joint of the ring: whether its bolts clamp, to what torque, what the joint holds; drawn up bolt by bolt. */
@Component({
  selector: 'hs-joint-sheet',
  imports: [BoltDrawing, Choice, EntryField, Field, FigureButton, HeatTab, Radios, SheetHead, StarTab, Tabs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './joint-sheet.html',
  styleUrls: ['../shared/sheet.scss', './joint-sheet.scss'],
})
export class JointSheet {
  readonly tab = input<string>();
  readonly at = input<string>();
  protected readonly bench = inject(Bench);
  private readonly library = inject(Library);
  protected readonly tabs = JOINT_TABS;
  protected readonly active = activeTab(JOINT_TABS, this.tab);
  protected readonly axle = this.bench.axleName;
  protected readonly figures = jointFigures;
  protected readonly joint = computed(() => this.bench.axle()?.joint ?? null);
  protected readonly state = computed(() => this.bench.derived()?.joint[this.axle()] ?? null);
  protected readonly bolts = computed(() => this.bench.axle()?.identity?.ringBolts?.value ?? null);
  protected readonly sheetTorque = computed(() => this.bench.axle()?.identity?.sheet.ringBoltTorque ?? null);
  protected readonly lengths = LENGTHS;
  protected readonly lengthRange = JOINT_LIMITS.lengthMm;
  protected readonly circleRange = LIMITS.diameterMm;
  protected readonly frictionRange = JOINT_LIMITS.friction;
  protected readonly torqueRange = { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' };
  protected readonly shockRange = { min: 1, max: 5 };
  protected readonly readWhere = textReader('Where', 120);
  protected readonly readThread = textReader('Thread', 20, 1);
  protected readonly readCount = countReader('Bolts', 4, 40);
  protected readonly readStages = (text: string) => {
    const parts = text.split(/[,;\s→]+/).filter(Boolean);
    const value = parts.map((part) => countReader('Round', 1, 100)(part.replace('%', '')).value);
    countReader('Rounds', 1, 5)(String(value.length));
    if (value.at(-1) !== 100) value.push(100);
    return { value, said: `${value.join(' → ')} %` };
  };
  protected readonly hands = HAND_OPTIONS;
  protected readonly origins: readonly Option<Origin>[] = ORIGIN_OPTIONS;
  protected readonly grades: readonly Option<string>[] = [
    { value: '', label: 'not known' },
    ...BOLT_GRADES.map((value) => ({ value, label: value.includes('.') ? value : `grade ${value}` })),
  ];
  protected readonly finishes = FINISH_KEYS.map((value) => ({
    value,
    label: `${FINISHES[value].label}: K ${FINISHES[value].nutFactor}`,
  }));
  protected readonly lockers = [
    { value: 'none', label: 'none' },
    { value: 'medium', label: 'medium' },
    { value: 'high', label: 'high' },
  ] as const;
  protected readonly readHardness = numberReader('Case hardness', { min: 0, max: 70 });
  protected readonly tabLocks = [
    { value: 'no', label: 'no' },
    { value: 'yes', label: 'yes' },
  ] as const;
  protected readonly lubricants = [
    { value: 'none', label: 'none' },
    { value: 'oil', label: 'oil' },
    { value: 'paste', label: 'paste' },
  ] as const;
  protected readonly materials = Object.keys(EXPANSION) as JointMaterial[];

  constructor() {
    jumpTo(this.at);
  }

  protected begin(): void {
    this.bench.changeAxle((axle) => (axle.joint = newJoint(this.library.schools())));
  }

  protected setShock(entry: Entry): void {
    this.bench.change((draft) => (draft.road.shock = entry));
  }

  protected set<K extends keyof Joint>(key: K, value: Joint[K]): void {
    this.bench.changeAxle(({ joint }) => {
      if (joint) joint[key] = value;
    });
  }

  protected setLength(key: LengthKey, entry: Entry): void {
    this.set(key, entry);
  }

  protected setBolts(change: Partial<{ thread: string; count: number; hand: 'right' | 'left' }>): void {
    const name = `${this.bench.build()?.name ?? 'Axle'} ${this.axle()}`;
    this.bench.changeAxle((axle) => {
      axle.identity ??= newAxleSpec(name);
      const was = axle.identity.ringBolts;
      axle.identity.ringBolts = {
        value: { thread: '?', count: 10, hand: 'right', ...was?.value, ...change },
        origin: was?.origin ?? 'not-said',
      };
    });
  }

  protected setTorque(value: Entry): void {
    const told = this.joint()?.torque;
    this.set('torque', { value, origin: told?.origin ?? 'not-said', where: told?.where ?? '' });
  }

  protected setOrigin(origin: Origin): void {
    const told = this.joint()?.torque ?? this.sheetTorque();
    if (told) this.set('torque', { ...told, origin });
  }

  protected setWhere(where: string): void {
    const told = this.joint()?.torque ?? this.sheetTorque();
    if (told) this.set('torque', { ...told, where });
  }

  protected readonly none = entryOf(0, 'mm');
}
