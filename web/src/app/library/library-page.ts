import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { DECIMAL_SIGNS, InputError } from '@hot-spline/core';
import { takenFrom, type LibrarySpec, type ShopSettings as Settings } from '@hot-spline/model';
import { compareLibrary, readLibraryFile, textOf } from '@hot-spline/model/csv';
import { Store } from '@ngrx/store';
import { TableModule } from 'primeng/table';
import { Finder } from '../frame/finder';
import { Header } from '../frame/header';
import { KeyReader } from '../frame/keys';
import { Choice } from '../shared/choice';
import { sayDay } from '../base/day';
import type { StoredSpec } from '../state/api';
import { ShopSettings } from '../state/shop-settings';
import { ShopSetUps } from '../state/set-ups';
import { ownAddress } from '../base/server-path';
import { LabelMaker } from '../papers/label-maker';
import { uiActions, uiFeature } from '../state/ui';
import { drawerLabels } from './drawer-labels';
import { BringSpecs, type BroughtSpecs } from './bring-specs';
import { AxleSpecEditor } from './axle-spec-editor';
import { FrictionTableEditor } from './friction-table-editor';
import { GearboxSpecEditor } from './gearbox-spec-editor';
import { InstrumentEditor } from './instrument-editor';
import { Library } from '../state/library';
import { newSpec } from './new-spec';
import { SchoolsEditor } from './schools-editor';
import { SetUpBearingEditor } from './set-up-bearing-editor';
import { ShimBoxEditor } from './shim-box-editor';
import { constructionWords } from './words';

/** What the list calls each kind, in the order that it stands in. */
const KINDS: Readonly<Record<LibrarySpec['kind'], string>> = {
  axle: 'Axle',
  gearbox: 'Gearbox',
  shims: 'Drawer',
  friction: 'Friction',
  instrument: 'Instrument',
  'set-up-bearing': 'Set-up bearing',
  schools: 'How we do it',
};
const ORDER = Object.keys(KINDS);
const some = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;

/** What is in use first, then what was put away; each by kind and name. */
function byKind(a: Listed, b: Listed): number {
  return (
    Number(a.archived) - Number(b.archived) ||
    ORDER.indexOf(a.spec.kind) - ORDER.indexOf(b.spec.kind) ||
    a.spec.name.localeCompare(b.spec.name)
  );
}
type Listed = Pick<StoredSpec, 'archived' | 'spec'>;

const LARGEST_FILE = 8 * 1024 * 1024;

/** The shop's own library: axles, gearboxes, drawers of shims and friction measured; made once, taken into any build. */
@Component({
  selector: 'hs-library-page',
  imports: [
    AxleSpecEditor,
    BringSpecs,
    Choice,
    Finder,
    FrictionTableEditor,
    GearboxSpecEditor,
    Header,
    InstrumentEditor,
    LabelMaker,
    RouterLink,
    SchoolsEditor,
    SetUpBearingEditor,
    ShimBoxEditor,
    TableModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'key($event)' },
  templateUrl: './library-page.html',
  styleUrl: './library-page.scss',
})
export class LibraryPage {
  private readonly store = inject(Store);
  private readonly keyReader = new KeyReader();
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');

  protected readonly library = inject(Library);
  protected readonly shop = inject(ShopSettings);
  protected readonly decimals = [
    { value: '', label: 'decimals by plausibility' },
    { value: 'point', label: 'decimal point: 1.25' },
    { value: 'comma', label: 'decimal comma: 1,25' },
  ] as const;
  protected readonly currencies = computed(() =>
    [...new Set([this.shop.settings().currency, ...Intl.supportedValuesOf('currency')])]
      .sort()
      .map((value) => ({ value, label: `prices in ${value}` })),
  );

  protected readonly state = this.library.state;
  protected readonly finding = signal(false);
  /** From the address: the one that is shown first. */
  readonly spec = input<string>();
  /** From a label that was scanned: the piece of the drawer. */
  readonly piece = input<string>();
  private readonly chosen = linkedSignal<string | null>(() => this.spec() ?? null);
  protected readonly notice = signal<string | null>(null);
  /** What a file would change: nothing of it is taken in before somebody says so. */
  protected readonly brought = signal<BroughtSpecs | null>(null);
  protected readonly active = this.library.active;
  protected readonly archived = computed(() => this.state().specs.filter(({ archived }) => archived));
  protected readonly selected = computed(
    () => this.active().find(({ id }) => id === this.chosen()) ?? this.active()[0] ?? null,
  );

  private readonly system = this.store.selectSignal(uiFeature.selectSystem);
  /** Labels for the chosen drawer, its shims, and all drawers. */
  protected readonly labels = computed(() => {
    const chosen = this.selected();
    if (chosen?.spec.kind !== 'shims') return [];
    const origin = this.shop.settings().address || ownAddress();
    return drawerLabels({ id: chosen.id, spec: chosen.spec }, this.active(), origin, this.system());
  });
  private readonly setUps = inject(ShopSetUps);
  /** How many of each row of the chosen drawer are fitted, and where. */
  protected readonly fitted = computed(() => {
    const chosen = this.selected();
    if (chosen?.spec.kind !== 'shims') return { rows: [], where: '' };
    const drawer = { id: chosen.id, spec: chosen.spec };
    const holdings = this.setUps.holdings().filter(({ drawers }) => drawers.includes(drawer.id));
    const rows = takenFrom([drawer], holdings).get(drawer.id) ?? [];
    const names = [
      ...new Set(
        holdings
          .filter((one) => (takenFrom([drawer], [one]).get(drawer.id) ?? []).some((n) => n > 0))
          .map(({ name, axle }) => `${name} ${axle}`),
      ),
    ];
    return { rows, where: names.length > 0 ? `Fitted in ${names.join(', ')}.` : '' };
  });

  constructor() {
    this.library.open();
    void this.setUps.read();
  }

  protected key(event: KeyboardEvent): void {
    const command = this.keyReader.read(event);
    if (command?.kind === 'find') {
      event.preventDefault();
      this.finding.set(true);
    } else if (command?.kind === 'units') this.store.dispatch(uiActions.unitsFlipped());
  }

  /** The list: what is in use first, then what was put away. */
  protected readonly listed = computed(() =>
    [...this.active(), ...this.archived()].sort(byKind).map(({ id, archived, spec }) => ({
      id,
      archived,
      name: spec.name,
      about: this.about(spec),
    })),
  );

  protected about(spec: LibrarySpec): string {
    const more = this.more(spec);
    return more === '' ? KINDS[spec.kind] : `${KINDS[spec.kind]}: ${more}`;
  }

  private more(spec: LibrarySpec): string {
    switch (spec.kind) {
      case 'gearbox':
        return `${spec.box.value}, ${some(spec.gears.length, 'gear')}`;
      case 'schools':
        return 'where practitioners differ';
      case 'friction':
        return `${spec.oil || 'oil not said'}, ${some(spec.readings.length, 'reading')}`;
      case 'instrument':
        return `checked ${spec.checked ? sayDay(spec.checked) : 'not said'}`;
      case 'set-up-bearing':
        return '';
      case 'shims':
        return some(
          spec.pieces.reduce((sum, { count }) => sum + count, 0),
          'shim',
        );
      case 'axle':
        return `${constructionWords(spec.construction.value).toLowerCase()}, ${some(spec.sets.length, 'set')}`;
    }
  }

  protected choose(id: string): void {
    this.chosen.set(id);
  }

  protected priceIn(currency: string): Promise<void> {
    return this.setShop({ currency });
  }

  protected decimalBy(sign: string): Promise<void> {
    return this.setShop({ decimal: DECIMAL_SIGNS.find((one) => one === sign) ?? null });
  }

  private async setShop(settings: Settings): Promise<void> {
    try {
      await this.shop.choose(settings);
    } catch (error) {
      this.notice.set(`The shop’s settings stay: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  protected start(kind: LibrarySpec['kind']): void {
    this.chosen.set(this.library.add(newSpec(kind)));
  }

  protected take({ name, specs }: BroughtSpecs): void {
    this.library.bring(specs);
    const taken = specs.filter(({ fate }) => fate === 'new' || fate === 'changed').length;
    this.notice.set(`${taken} taken from “${name}”.`);
    this.brought.set(null);
  }

  protected async import(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.brought.set(null);
    try {
      if (file.size > LARGEST_FILE)
        throw new InputError('file', `file “${file.name}” is larger than 8 MB.`, 'at most 8 MB');
      const here = this.state().specs;
      const { specs, bad } = readLibraryFile(textOf(new Uint8Array(await file.arrayBuffer())), here);
      this.notice.set(null);
      this.brought.set({ name: file.name, specs: compareLibrary(specs, here), bad });
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.notice.set(`Nothing taken. ${error.message} Allowed: ${error.allowed}.`);
    }
  }
}
