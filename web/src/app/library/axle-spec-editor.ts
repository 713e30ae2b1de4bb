import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { LIMITS, toothPair, type ToothPair } from '@hot-spline/core';
import type { AxleSpec, CarrierSpec, Construction, GearSetSpec, Origin } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field } from '../shared/field';
import { countReader, numberReader, pairReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { AXLE_SAID, type AxleSaidKey } from './axle-said';
import { CONSTRUCTION_OPTIONS, HAND_OPTIONS, ORIGIN_OPTIONS } from './words';

type Offer = NonNullable<AxleSpec['extras']['ringBolts']>;

/** What a change of ratio buys beside the set. */
const EXTRAS = [
  { key: 'ringBolts', label: 'New ring bolts' },
  { key: 'recalibration', label: 'Speed reading recalibrated' },
] as const;
const NEW_BOLTS = { thread: '', count: 10, hand: 'right' as 'right' | 'left' };

/** Everything known of an axle, each value with where it comes from. Emits edits; keeps nothing itself. */
@Component({
  selector: 'hs-axle-spec',
  imports: [Choice, EntryField, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './axle-spec-editor.html',
  styleUrl: './spec-editor.scss',
})
export class AxleSpecEditor {
  readonly spec = input.required<AxleSpec>();
  /** Makes the ids of its fields its own. */
  readonly prefix = input.required<string>();
  readonly changed = output<Edit<AxleSpec>>();

  protected readonly origins = ORIGIN_OPTIONS;
  protected readonly constructions = CONSTRUCTION_OPTIONS;
  protected readonly hands = HAND_OPTIONS;
  /** What is one of several words. */
  protected readonly said = computed(() =>
    AXLE_SAID.map((one) => {
      const known = this.spec()[one.key];
      return { ...one, value: known?.value ?? '', origin: known?.origin ?? ('guess' as const) };
    }),
  );
  protected readonly extras = EXTRAS;
  protected readonly diameter = LIMITS.diameterMm;
  protected readonly usualRing = [100, 350] as const;
  protected readonly torqueRange = { above: 0, max: 1e6, unit: 'N·m' };
  protected readonly readName = textReader('Name', 80, 1);
  protected readonly readThread = textReader('Thread', 20, 1);
  protected readonly readBolts = countReader('Bolts', 4, 40);
  protected readonly readSplines = countReader('Splines', 4, 80);
  protected readonly readCarrier = textReader('Carrier', 40, 1);
  protected readonly readRatio = numberReader('Ratio', { min: 0.1, max: 200 });
  protected readonly readPrice = numberReader('Price', { min: 0, max: 1e9 });
  protected readonly readDays = numberReader('Days', { min: 0, max: 3650 });
  protected readonly readPair = pairReader('Set');
  protected readonly bolts = computed(() => this.spec().ringBolts ?? { value: NEW_BOLTS, origin: 'not-said' as const });

  protected readonly round = Math.round;

  protected offerText(key: keyof AxleSpec['extras'], part: keyof Offer): string {
    const value = this.spec().extras[key]?.[part] ?? null;
    return value === null ? '' : String(value);
  }

  protected edit(recipe: (newest: AxleSpec) => Partial<AxleSpec>): void {
    this.changed.emit((newest) => ({ ...newest, ...recipe(newest) }));
  }

  protected setName(name: string): void {
    this.edit(() => ({ name }));
  }

  protected setConstruction(value: Construction): void {
    this.edit(({ construction }) => ({ construction: { ...construction, value } }));
  }

  protected setRing({ entry: value }: TakenEntry): void {
    this.edit(({ ringDiameter }) => ({ ringDiameter: { value, origin: ringDiameter?.origin ?? 'not-said' } }));
  }

  protected setBolts(change: Partial<{ thread: string; count: number; hand: 'right' | 'left' }>): void {
    this.edit(({ ringBolts }) => {
      const value = { ...(ringBolts?.value ?? NEW_BOLTS), ...change };
      if (value.thread === '') value.thread = '?';
      return { ringBolts: { value, origin: ringBolts?.origin ?? 'not-said' } };
    });
  }

  protected setSplines(key: 'pinionSplines' | 'shaftSplines', value: number): void {
    this.edit((newest) => ({ [key]: { value, origin: newest[key]?.origin ?? 'not-said' } }));
  }

  protected setSaid(key: AxleSaidKey, value: string): void {
    this.edit(({ [key]: known }) => ({
      [key]: value === '' ? null : { value, origin: known?.origin ?? 'not-said' },
    }));
  }

  protected setOrigin(
    key: 'construction' | 'ringDiameter' | 'ringBolts' | 'pinionSplines' | 'shaftSplines' | AxleSaidKey,
    origin: Origin,
  ): void {
    this.edit(({ [key]: known }) => (known ? { [key]: { ...known, origin } } : {}));
  }

  protected setCarrier(index: number, change: Partial<CarrierSpec>): void {
    this.edit(({ carriers }) => ({ carriers: carriers.map((one, i) => (i === index ? { ...one, ...change } : one)) }));
  }

  protected addCarrier(): void {
    this.edit(({ carriers }) => {
      const fromRatio = carriers.at(-1)?.toRatio ?? 2.5;
      const toRatio = Number((fromRatio + 1.5).toFixed(2));
      return {
        carriers: [
          ...carriers,
          { name: `${carriers.length + 1} series`, fromRatio, toRatio, price: null, leadDays: null, origin: 'guess' },
        ],
      };
    });
  }

  protected removeCarrier(index: number): void {
    this.edit(({ carriers }) => ({ carriers: carriers.filter((_, i) => i !== index) }));
  }

  protected ratio(set: GearSetSpec): string {
    return toothPair(set).ratio.toFixed(3);
  }

  protected setSet(index: number, change: Partial<GearSetSpec>): void {
    this.edit(({ sets }) => ({ sets: sets.map((one, i) => (i === index ? { ...one, ...change } : one)) }));
  }

  protected setDays(index: number, days: number | null): void {
    this.setSet(index, { leadDays: days === null ? null : Math.round(days) });
  }

  protected addSet(pair: ToothPair): void {
    this.edit(({ sets }) => ({
      sets: [...sets, { ...pair, torqueLimit: null, price: null, leadDays: null, welded: false, origin: 'not-said' }],
    }));
  }

  protected setExtra(key: keyof AxleSpec['extras'], change: Partial<Offer>): void {
    this.edit(({ extras }) => {
      const offer = { price: null, leadDays: null, ...extras[key], ...change };
      if (offer.leadDays !== null) offer.leadDays = Math.round(offer.leadDays);
      return { extras: { ...extras, [key]: offer.price === null && offer.leadDays === null ? null : offer } };
    });
  }

  protected removeSet(index: number): void {
    this.edit(({ sets }) => ({ sets: sets.filter((_, i) => i !== index) }));
  }
}
