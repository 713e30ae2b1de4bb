import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { InputError, type UnitSystem } from '@hot-spline/core';
import { listedParts, type Customer } from '@hot-spline/model';
import { shownPhotos } from './photos';
import { stations } from '../frame/stations';
import { sayDay, sayMoment } from '../base/day';
import { download } from '../shared/download';
import { Field, type Understood } from '../shared/field';
import { PhotoTaker } from '../shared/photo-taker';
import { Radios } from '../shared/radios';
import { textReader } from '../shared/readers';
import { SheetHead } from '../shared/sheet-head';
import type { PaperInput, PaperLines, PaperTable } from '../shared/paper';
import { PAPER_LINES, STATION_LIST } from '../shared/sheet-list';
import { ApiError, api } from '../state/api';
import { readCustomers } from '../state/customers';
import { Outbox } from '../state/outbox';
import { Bench } from '../state/bench';
import { ShopSettings } from '../state/shop-settings';
import { LABEL_SIZES, type LabelSize } from '../shared/label-sizes';
import { labelFacts, labelWarnings } from './label';
import { codeSvg } from './code-svg';
import { papersOf, type Paper } from './documents';
import { LabelMaker, type LabelKind } from './label-maker';
import { ownAddress } from '../base/server-path';
import { drivelineSvg, labelText } from './paper';
import { pdfOf } from './pdf';
import { csvOf, tablesOf } from './tables';

const UNITS = [
  { value: 'metric', label: 'metric' },
  { value: 'inch', label: 'inch' },
  { value: 'both', label: 'both' },
] as const;

/** @throws InputError where it is no address of a server */
function addressReader(typed: string): Understood<string> {
  const text = typed.trim().replace(/\/+$/, '');
  if (text === '') return { value: '', said: 'that of the device that prints' };
  const whole = /^https?:\/\//.test(text) ? text : `http://${text}`;
  const url = URL.canParse(whole) ? new URL(whole) : null;
  if (!url || url.hostname === '')
    throw new InputError('Address', 'Address is none of a server.', 'such as http://shop.local:8080');
  return { value: url.origin, said: url.origin };
}

/** Papers to give away: PDFs of the build, tables as CSV, drawings as SVG. */
@Component({
  selector: 'hs-papers-sheet',
  imports: [Field, LabelMaker, PhotoTaker, Radios, SheetHead],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './papers-sheet.html',
  styleUrls: ['../shared/sheet.scss', './papers-sheet.scss'],
})
export class PapersSheet {
  protected readonly bench = inject(Bench);
  private readonly list = inject(STATION_LIST);
  private readonly shop = inject(ShopSettings);
  private readonly outbox = inject(Outbox);
  protected readonly units = UNITS;
  protected readonly unit = signal<(typeof UNITS)[number]['value']>(this.bench.system());
  private readonly lines = signal<readonly PaperLines[] | null>(null);
  protected readonly ready = computed(() => this.lines() !== null);
  protected readonly papers = computed(() =>
    Object.entries(papersOf(this.lines() ?? [])).map(([id, paper]) => ({ id, ...paper })),
  );
  protected readonly tables = computed(() =>
    Object.entries(tablesOf(this.lines() ?? [])).map(([id, table]) => ({ id, ...table })),
  );
  protected readonly sizes = (Object.keys(LABEL_SIZES) as LabelSize[]).map((value) => ({
    value,
    label: `${value} mm`,
  }));
  protected readonly labelSize = signal<LabelSize>('100 × 62');
  protected readonly readAddress = addressReader;
  /** The code leads to a device that nobody else reaches. */
  protected readonly ownAddress = computed(
    () => this.settings().address === '' && /^(localhost|127\.|\[::1\])/.test(location.host),
  );
  protected readonly busy = signal<string | null>(null);
  protected readonly problem = signal('');
  protected readonly settings = this.shop.settings;
  protected readonly readName = textReader('Name of the shop', 80);
  private readonly customers = signal<readonly Customer[]>([]);
  protected readonly photoCount = computed(() => this.photos().length);

  private readonly systems = computed((): readonly UnitSystem[] => {
    const unit = this.unit();
    return unit === 'both' ? ['metric', 'inch'] : [unit];
  });
  /** Photos that readings of the build name, with what they show. */
  private readonly photos = computed(() => {
    const build = this.bench.build();
    return build ? shownPhotos(build, this.bench.readings()) : [];
  });
  private readonly input = computed((): Omit<PaperInput, 'qr' | 'photos'> | null => {
    const [build, derived, lines] = [this.bench.build(), this.bench.derived(), this.lines()];
    if (!build || !derived || !lines) return null;
    const customer = this.customers().find(({ id }) => id === build.customer);
    return {
      build,
      derived,
      lines,
      ledger: this.bench.ledger(),
      systems: this.systems(),
      shop: { name: this.settings().name, logo: null },
      customer: customer?.name ?? '',
      stations: stations(build, derived, this.systems()[0] ?? 'metric', this.list),
      labelSize: this.labelSize(),
      day: sayDay(new Date()),
      who: this.bench.who(),
      moment: sayMoment,
    };
  });
  protected readonly code = computed(() => {
    const [input, id] = [this.input(), this.bench.editor().id];
    return input && id
      ? labelText(this.settings().address || ownAddress(), id, labelFacts({ ...input, photos: [] }))
      : '';
  });
  /** Labels of this build that lie several on a sheet. */
  protected readonly labelKinds = computed((): readonly LabelKind[] => {
    const [input, build, id] = [this.input(), this.bench.build(), this.bench.editor().id];
    if (!input || !build || !id) return [];
    const opens = `${this.settings().address || ownAddress()}/builds/${id}`;
    const whole = { ...input, photos: [], qr: { text: '', svg: '' } };
    const [title = build.name, ...facts] = labelFacts(whole);
    const unit = { title, warns: labelWarnings(whole), facts, code: opens };
    const boxes = listedParts(build).map(({ name, number, count }) => ({
      title: name,
      facts: [build.name, number === '' ? '' : `No. ${number}`, `${count} ×`].filter(Boolean),
      code: number || opens,
    }));
    return [
      { id: 'unit', name: 'For the unit', labels: [unit] },
      { id: 'parts', name: 'For boxes of parts', labels: boxes },
    ];
  });
  private readonly drawn = signal('');
  protected readonly qr = computed(() =>
    this.drawn() === '' ? '' : `data:image/svg+xml,${encodeURIComponent(this.drawn())}`,
  );

  constructor() {
    effect(() => {
      const text = this.code();
      if (text !== '')
        void codeSvg(text).then((svg) => {
          // What was read meanwhile is in a later one.
          if (text === this.code()) this.drawn.set(svg);
        });
    });
    void this.readCustomers();
    void this.readLines(inject(PAPER_LINES));
  }

  private async readLines(loads: readonly (() => Promise<PaperLines>)[]): Promise<void> {
    try {
      this.lines.set(await Promise.all(loads.map((load) => load())));
    } catch (error) {
      // Without them no paper is whole, so none is offered.
      console.warn('what papers say was not read', error);
      this.problem.set('A part of the program could not be read: load the page again to make papers.');
    }
  }

  private async readCustomers(): Promise<void> {
    try {
      this.customers.set(await readCustomers(this.outbox));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      // Papers are made without the name; the header says that the server is away.
    }
  }

  private async pictures(): Promise<PaperInput['photos']> {
    const shown: PaperInput['photos'][number][] = [];
    for (const { id, what } of this.photos()) {
      const data = await this.picture(id);
      if (data !== null) shown.push({ what, data });
    }
    return shown;
  }

  /** A photo as a data address; null where this device can’t get it. */
  private async picture(id: string): Promise<string | null> {
    const blob = this.outbox.photo(id) ?? (await api.photo(id).catch(() => null));
    if (!blob) return null;
    return new Promise((resolve, reject) => {
      const reader = new FileReader();
      reader.onload = () => resolve(String(reader.result));
      reader.onerror = () => reject(new InputError('photo', 'The photo can’t be read.', 'a picture'));
      reader.readAsDataURL(blob);
    });
  }

  protected async make({ id: name, make }: Paper & { readonly id: string }): Promise<void> {
    const input = this.input();
    if (!input) return;
    this.busy.set(name);
    this.problem.set('');
    try {
      const { logo, name: shopName } = this.settings();
      const whole: PaperInput = {
        ...input,
        shop: { name: shopName, logo: logo === null ? null : await this.picture(logo) },
        // Not what is shown: that may not be drawn yet.
        qr: { text: this.code(), svg: await codeSvg(this.code()) },
        photos: name === 'build-sheet' ? await this.pictures() : [],
      };
      download(await pdfOf(make(whole)), `${this.file()}-${name}.pdf`);
    } catch (error) {
      // A paper that can’t be made is said, and the next one can be tried.
      console.warn('the paper was not made', error);
      this.problem.set(`The paper was not made: ${error instanceof Error ? error.message : String(error)}`);
    } finally {
      this.busy.set(null);
    }
  }

  private file(): string {
    return (
      (this.bench.build()?.name ?? 'build')
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'build'
    );
  }

  protected table({ id, rows }: PaperTable & { readonly id: string }): void {
    const input = this.input();
    if (!input) return;
    const whole = { ...input, photos: [], qr: { text: '', svg: '' } };
    download(new Blob([csvOf(rows(whole))], { type: 'text/csv' }), `${this.file()}-${id}.csv`);
  }

  protected async drawing(of: 'driveline' | 'code'): Promise<void> {
    const input = this.input();
    if (!input) return;
    const svg = of === 'code' ? await codeSvg(this.code()) : drivelineSvg(input.stations);
    download(new Blob([svg], { type: 'image/svg+xml' }), `${this.file()}-${of}.svg`);
  }

  protected readonly keepLogo = (logo: string): void => {
    void this.save({ logo });
  };

  protected async save(settings: { name?: string; logo?: string | null; address?: string }): Promise<void> {
    try {
      await this.shop.choose(settings);
      this.problem.set('');
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    }
  }
}
