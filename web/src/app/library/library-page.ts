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
import { readLibraryFile, textOf, type BadLine } from '@hot-spline/model/csv';
import { Store } from '@ngrx/store';
import { TableModule } from 'primeng/table';
import { Finder } from '../frame/finder';
import { Header } from '../frame/header';
import { KeyReader } from '../frame/keys';
import { Choice } from '../shared/choice';
import { ShopSettings } from '../state/shop-settings';
import { ShopSetUps } from '../state/set-ups';
import { uiActions } from '../state/ui';
import { AxleSpecEditor } from './axle-spec-editor';
import { FrictionTableEditor } from './friction-table-editor';
import { GearboxSpecEditor } from './gearbox-spec-editor';
import { InstrumentEditor } from './instrument-editor';
import { Library } from './library';
import { newSpec } from './new-spec';
import { SchoolsEditor } from './schools-editor';
import { SetUpBearingEditor } from './set-up-bearing-editor';
import { ShimBoxEditor } from './shim-box-editor';
import { constructionWords } from './words';

const LARGEST_FILE = 8 * 1024 * 1024;

/** The shop's own library: axles, gearboxes, drawers of shims and friction measured; made once, taken into any build. */
@Component({
  selector: 'hs-library-page',
  imports: [
    AxleSpecEditor,
    Choice,
    Finder,
    FrictionTableEditor,
    GearboxSpecEditor,
    Header,
    InstrumentEditor,
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
  private readonly chosen = linkedSignal<string | null>(() => this.spec() ?? null);
  protected readonly notice = signal<string | null>(null);
  protected readonly bad = signal<readonly BadLine[]>([]);
  protected readonly active = this.library.active;
  protected readonly archived = computed(() => this.state().specs.filter(({ archived }) => archived));
  protected readonly selected = computed(
    () => this.active().find(({ id }) => id === this.chosen()) ?? this.active()[0] ?? null,
  );

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
    [...this.active(), ...this.archived()].map(({ id, archived, spec }) => ({
      id,
      archived,
      name: spec.name,
      about: this.about(spec),
    })),
  );

  protected about(spec: LibrarySpec): string {
    if (spec.kind === 'gearbox') return `${spec.box.value}, ${spec.gears.length} gears`;
    if (spec.kind === 'schools') return 'where practitioners differ';
    if (spec.kind === 'friction') return `${spec.oil || 'oil not said'}, ${spec.readings.length} readings`;
    if (spec.kind === 'instrument') return `instrument, checked ${spec.checked ?? 'not said'}`;
    if (spec.kind === 'set-up-bearing') return 'set-up bearing';
    if (spec.kind === 'shims') return `${spec.pieces.reduce((sum, { count }) => sum + count, 0)} shims`;
    return `${constructionWords(spec.construction.value)}, ${spec.sets.length} sets`;
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

  protected async import(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.bad.set([]);
    try {
      if (file.size > LARGEST_FILE)
        throw new InputError('file', `file “${file.name}” is larger than 8 MB.`, 'at most 8 MB');
      const { specs, bad } = readLibraryFile(textOf(new Uint8Array(await file.arrayBuffer())));
      const [first] = specs.map((spec) => this.library.add(spec));
      if (first !== undefined) this.chosen.set(first);
      this.bad.set(bad);
      this.notice.set(
        `${specs.length} taken from “${file.name}”${bad.length ? `, ${bad.length} lines left out:` : '.'}`,
      );
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.notice.set(`Nothing taken. ${error.message} Allowed: ${error.allowed}.`);
    }
  }
}
