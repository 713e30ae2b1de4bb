import { entryOf } from '@hot-spline/core';
import { deriveBuild, newWork, readingsInForce, type Build, type LedgerEntry, type Reading } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { plateBuild } from '../../testing/drift';
import { unitsSaid } from '../shared/units-said';
import { readingRows, table } from './blocks';
import { papersOf } from './documents';
import { LABEL_SIZES, type LabelSize } from '../shared/label-sizes';
import { labelFacts } from './label';
import { MOST_WORKINGS, drivelineSvg, labelText, workingsThatMatter } from './paper';
import { inSystems, plain, type PaperInput, type PaperLines } from '../shared/paper';
import { CAPABILITIES } from '../sheets';
import { PAPER_LINES } from '../shared/sheet-list';
import { PapersSheet } from './papers-sheet';
import { pdfOf, unitsWhole } from './pdf';
import type { Content } from 'pdfmake/interfaces';
import { shownPhotos } from './photos';
import { csvOf, tablesOf } from './tables';

let lines: readonly PaperLines[] = [];
beforeAll(async () => {
  lines = await Promise.all(CAPABILITIES.flatMap(({ papers = () => Promise.resolve({}) }) => papers()));
});
const paperOf = (name: string) => {
  const found = papersOf(lines)[name];
  if (!found) throw new Error(`no paper ${name}`);
  return found;
};
const PIXEL = '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><rect width="10" height="10"/></svg>';

function inputOf(build: Build, ledger: readonly LedgerEntry[] = [], change: Partial<PaperInput> = {}): PaperInput {
  return {
    build,
    derived: deriveBuild(build, ledger),
    ledger,
    systems: ['metric'],
    shop: { name: 'Slipway Drivelines', logo: null },
    customer: 'A. Reed',
    stations: [
      { name: 'Engine', main: '300 N·m', sub: '4800 rpm' },
      { name: 'Tyres', main: '87 km/h', sub: '255/40R17' },
    ],
    lines,
    photos: [],
    qr: { text: 'x', svg: PIXEL },
    labelSize: '100 × 62',
    day: '26 Nov 2026',
    who: 'Ines',
    moment: (at) => at.slice(0, 10),
    ...change,
  };
}
let made = 0;
const id = (): string => `90000000-0000-4000-8000-${String(++made).padStart(12, '0')}`;
const signed = (gate: string, note?: string): LedgerEntry => ({
  kind: 'signature',
  id: id(),
  at: '2026-11-20T08:00:00.000Z',
  who: 'Ines',
  gate,
  name: 'Ines',
  figures: {},
  ...(note === undefined ? {} : { note }),
});
const torque = (i: number): Reading => ({
  kind: 'reading',
  id: id(),
  at: '2026-11-20T08:00:00.000Z',
  who: 'Ines',
  subject: { what: 'step-torque', axle: 'rear', step: 'cover', record: `r${i}` },
  value: { of: 'number', counts: 'one', entries: [entryOf(22, 'lbf·ft')] },
  state: {},
  instrument: 'Torque wrench',
});
const said = (origin: 'memory', low: number, high: number) => ({
  value: { low: entryOf(low, 'mm'), high: entryOf(high, 'mm') },
  origin,
  where: '',
});
/** All text of a document, in order. */
function textOf(node: unknown): string {
  if (typeof node === 'string') return node;
  if (Array.isArray(node)) return node.map(textOf).join(' ');
  if (typeof node !== 'object' || node === null) return '';
  return Object.entries(node)
    .filter(([key]) => ['text', 'stack', 'columns', 'ul', 'table', 'body', 'content'].includes(key))
    .map(([, value]) => textOf(value))
    .join(' ');
}
const paper = (name: string, input: PaperInput): string =>
  textOf(paperOf(name).make(input).content).replace(/[\u00a0\s]+/g, ' ');

describe('papers', () => {
  it('say a number in the systems that are asked for', () => {
    expect(inSystems(0.2, 'length', ['metric'], undefined, 'small')).toBe('0.20\u00a0mm');
    expect(inSystems(0.2032, 'length', ['metric', 'inch'], undefined, 'small')).toBe('0.20\u00a0mm (8.0\u00a0thou)');
    expect(inSystems(4.1, 'ratio', ['metric', 'inch'], 2)).toBe('4.10');
    expect(plain('1\u202f689')).toBe('1\u00a0689');
  });

  it('the build sheet has readings, signatures, overrides in plain sight, what is open and cautions', () => {
    const ledger = [...assemblyOf(1), torque(1), signed('rear A', 'shims were right already'), signed('rear B')];
    const text = paper('build-sheet', inputOf(setUpBuild(), ledger, { systems: ['metric', 'inch'] }));
    expect(text).toContain('For A. Reed');
    expect(text).toContain('Rear A: Ines, 2026-11-20.');
    expect(text).toContain('Done all the same: “shims were right already”');
    // As typed, and in the system that it was not typed in.
    expect(text).toContain('22 lbf·ft (29.8 N·m)');
    expect(text).toContain('Open when this was printed');
    expect(text).toContain('Spreading a case can crack it');
    expect(text).toContain('How it was worked out');
  });

  it('a voided reading is not on it, but that there is one is said', () => {
    const reading = torque(1);
    const ledger: LedgerEntry[] = [
      reading,
      { kind: 'void', id: id(), at: reading.at, who: '', voids: reading.id, reason: 'wrong bolt' },
    ];
    const input = inputOf(setUpBuild(), ledger);
    expect(readingRows(input)).toEqual([]);
    expect(paper('build-sheet', input)).toContain('1 voided are in the ledger');
  });

  it('no more workings than ten, each with its source', () => {
    const shown = workingsThatMatter(inputOf(plateBuild()));
    expect(shown.length).toBeLessThanOrEqual(MOST_WORKINGS);
    expect(shown.length).toBeGreaterThan(4);
    for (const { working } of shown) expect(working.sources.length).toBeGreaterThan(0);
  });

  it('set-up card, pack card, parts list and hand-over say so where there is nothing', () => {
    const bare = inputOf(setUpBuild());
    expect(paper('parts-list', bare)).toContain('No job is planned.');
    expect(paper('hand-over', bare)).toContain('No job is planned.');
    expect(paper('pack-card', inputOf(plateBuild()))).toContain('Outwards from the gear');
    const card = paper('set-up-card', inputOf(setUpBuild(), assemblyOf(1)));
    expect(card).toContain('Backlash Pattern 1 ');
    // Its own words first, whoever stands before it in the order of work.
    expect(card.indexOf('Gate A')).toBeGreaterThan(card.indexOf('State:'));
  });

  it('the letter is the customer’s alone: bands beside readings, no finding, tray or part of the shop', () => {
    const build = setUpBuild();
    const { rear } = build.axles;
    if (!rear) throw new Error('no rear axle');
    rear.work = { ...newWork('ratio-swap', 'plain'), trays: [] };
    rear.work.parts = [
      {
        id: 'oil',
        name: 'Oil',
        count: 1,
        state: 'needed',
        supplier: 'Nobody',
        price: 1,
        promised: null,
        number: 'B-7',
      },
    ];
    if (rear.identity) rear.identity.sheet.backlash = said('memory', 0.15, 0.25);
    const old: Reading = {
      ...torque(1),
      subject: { what: 'step-said', axle: 'rear', step: 'ring-off', record: 'old-pair' },
      value: { of: 'text', text: '37/9' },
    };
    const override = signed('rear override cover', 'the customer was told');
    const input = inputOf(build, [...assemblyOf(1, { backlash: 0.2 }), old, override]);
    const letter = paper('hand-over', input);
    expect(letter).toContain('Final drive 41/11, 3.727, new gears. Before: 37/9.');
    // Out of memory is marked wherever it stands.
    expect(letter).toContain('0.15 mm to 0.25 mm (memory)');
    expect(letter).toContain('“the customer was told” (Ines, 2026-11-20)');
    for (const { title } of input.derived.findings
      .filter(({ verdict }) => verdict !== 'fits')
      .map((one) => one.say('metric')))
      expect(letter).withContext(title).not.toContain(title);
    for (const shops of ['Nobody', 'B-7', 'needed', 'tray']) expect(letter).withContext(shops).not.toContain(shops);
  });

  it('the build sheet holds each reading against its band, says patterns in words and drawn, and marks what is assumed', () => {
    const build = setUpBuild();
    build.assumed = ['engine.torqueCurve'];
    const input = inputOf(build, assemblyOf(1, { backlash: 0.2, pattern: [-0.4, 0, 0, 0] }));
    const rows = readingRows(input);
    expect(rows.find(([what]) => what?.includes('backlash'))?.[2]).toBe('0.15 mm to 0.25 mm');
    const text = paper('build-sheet', input);
    expect(text).toContain('drive: toward the toe');
    expect(text).toContain('Nobody has said these yet');
    expect(JSON.stringify(paperOf('build-sheet').make(input).content)).toContain('<ellipse');
    // A bare number has the unit that it was read in.
    expect(unitsSaid({ typed: '45', value: 45, unit: 'lbf·in' })).toBe('45 lbf·in');
    expect(unitsSaid({ typed: '0.2 mm', value: 0.2, unit: 'mm' })).toBe('0.2 mm');
  });

  it('the label says hand, shims and pattern, in every size, and never runs onto a second one', async () => {
    const build = setUpBuild();
    const { rear } = build.axles;
    if (rear?.identity)
      rear.identity.ringBolts = { value: { thread: 'M10x1.25', count: 10, hand: 'left' }, origin: 'measured' };
    const ledger = assemblyOf(1, { backlash: 0.2, pattern: [0, 0, 0, 0] });
    const facts = labelFacts(inputOf(build, ledger)).join('; ');
    expect(facts).toContain('LEFT-hand');
    expect(facts).toContain('sides 6.00');
    expect(facts).toContain('drive centred; coast centred');
    for (const labelSize of Object.keys(LABEL_SIZES) as LabelSize[]) {
      const blob = await pdfOf(paperOf('label').make(inputOf(build, ledger, { labelSize })));
      const text = new TextDecoder('latin1').decode(await blob.arrayBuffer());
      expect(text.match(/\/Type\s*\/Page[^s]/g)?.length)
        .withContext(labelSize)
        .toBe(1);
    }
  });

  it('what another capability brings stands on the papers, at its place', () => {
    const toy: PaperLines = {
      done: () => ['The toy was wound up.'],
      reads: () => [{ what: 'Toy', read: '3 turns', band: null }],
      label: () => ({ oil: 'toy oil', what: 'a toy' }),
      warns: () => [{ short: 'MIND IT', whole: 'MIND THE TOY' }],
      brings: { 'toy-card': { name: 'Toy card', about: '', nothing: 'No toy.' } },
      tables: { toys: { name: 'Toys', rows: () => [['toy'], ['bear']] } },
      found: () => [{ text: 'Toys were found' }],
    };
    const build = setUpBuild();
    if (build.axles.rear) build.axles.rear.work = newWork('ratio-swap', 'plain');
    const input = inputOf(build, assemblyOf(1, { backlash: 0.2 }), { lines: [...lines, toy] });
    const made = (name: string): string => textOf(papersOf(input.lines)[name]?.make(input).content);
    for (const words of ['The toy was wound up.', '3 turns not said', 'MIND THE TOY'])
      expect(made('hand-over').replace(/\s+/g, ' ')).toContain(words);
    expect(made('label')).toContain('MIND IT');
    expect(made('toy-card')).toContain('No toy.');
    expect(made('build-sheet')).toContain('Toys were found');
    const facts = labelFacts(input);
    expect(facts[1]).toMatch(/, a toy$/);
    expect(facts.indexOf('toy oil')).toBeGreaterThan(facts.findIndex((line) => line.startsWith('backlash')));
    expect(tablesOf(input.lines)['toys']?.rows(input)).toEqual([['toy'], ['bear']]);
  });

  it('a table keeps its head on every page and cuts no row', () => {
    const made = table(['A', 'B'], [['1', '2']], ['*', 'auto']);
    expect([made.table.headerRows, made.table.dontBreakRows]).toEqual([1, true]);
    expect(made.table.body.length).toBe(2);
  });

  it('a unit with a stroke is one piece, whatever it stands in; other text is as it was', () => {
    const made = (content: Content): unknown => unitsWhole(content);
    const whole = { text: ['at ', { text: 'km/h', noWrap: true }, '.'] };
    expect(made({ text: 'at km/h.', bold: true })).toEqual({ text: whole, bold: true });
    expect(made([{ ul: ['at km/h.', 'left/right of it'] }])).toEqual([{ ul: [whole, 'left/right of it'] }]);
    expect(JSON.stringify(made(table(['A'], [['12 N·m/rad']], ['*'])))).toContain('{"text":"N·m/rad","noWrap":true}');
    expect(made({ svg: '<path d="M a/b"/>' })).toEqual({ svg: '<path d="M a/b"/>' });
  });

  it('what a customer is shown before the job is one page each, with what was computed on it', async () => {
    const build = plateBuild();
    build.candidates = [
      { ring: 37, pinion: 10 },
      { ring: 31, pinion: 10 },
      { ring: 43, pinion: 9 },
      { ring: 47, pinion: 10 },
    ];
    build.assumed = [];
    for (const systems of [['metric'], ['metric', 'inch']] as const)
      for (const [name, ...told] of [
        ['units-side-by-side', 'Split grip', '(in the axle)', 'not driven'],
        ['final-drives', '37/10', '(in it)', 'Top speed', 'level'],
        ['run', '37/10', '(in it)', 'with the driver', 'not driven'],
      ] as const) {
        const document = paperOf(name).make(inputOf(build, [], { systems }));
        const text = JSON.stringify(document.content);
        for (const one of told) expect(text).withContext(name).toContain(one);
        expect(text).not.toContain('NaN');
        const pdf = new TextDecoder('latin1').decode(await (await pdfOf(document)).arrayBuffer());
        expect(pdf.match(/\/Type\s*\/Page[^s]/g)?.length)
          .withContext(name)
          .toBe(1);
      }
    // A car that can't be worked out has a sentence on the paper, and no table.
    build.road.grade = entryOf(100, '%');
    for (const name of ['final-drives', 'run'])
      expect(JSON.stringify(paperOf(name).make(inputOf(build)).content)).toMatch(/No (final drive|run) can be/);
  });

  // Laid out by the package itself: what comes out is a PDF, with as many pages as the readings need.
  it('become a PDF with 1, 40 and 400 readings', async () => {
    for (const [count, least, most] of [
      [1, 1, 3],
      [40, 2, 5],
      [400, 8, 20],
    ] as const) {
      const ledger = Array.from({ length: count }, (_, i) => torque(i));
      const blob = await pdfOf(paperOf('build-sheet').make(inputOf(setUpBuild(), ledger)));
      const text = new TextDecoder('latin1').decode(await blob.arrayBuffer());
      expect(text.startsWith('%PDF-')).toBeTrue();
      const pages = text.match(/\/Type\s*\/Page[^s]/g)?.length ?? 0;
      expect(pages).withContext(String(count)).toBeGreaterThanOrEqual(least);
      expect(pages).withContext(String(count)).toBeLessThanOrEqual(most);
    }
  });

  it('the label carries its readings in letters that an address may have', () => {
    const text = labelText('http://shop:8010', 'abc', [
      'Kittiwake',
      '43/10 4.300',
      'backlash 5.0–7.0 thou',
      '<script>',
    ]);
    expect(text).toBe('http://shop:8010/builds/abc#Kittiwake__43/10_4.300__backlash_5.0-7.0_thou__script');
    expect(new URL(text).pathname).toBe('/builds/abc');
    expect(labelText('http://x', 'a', ['y'.repeat(5000)]).length).toBeLessThanOrEqual(900);
    expect(labelFacts(inputOf(setUpBuild()))[0]).toBe(setUpBuild().name);
  });

  it('the driveline is a drawing of its own; names can’t break out of it', () => {
    const svg = drivelineSvg([{ name: '</text><script>', main: '"1"', sub: '' }]);
    const parsed = new DOMParser().parseFromString(svg, 'image/svg+xml');
    expect(parsed.querySelector('parsererror')).toBeNull();
    expect(parsed.querySelector('script')).toBeNull();
  });

  it('tables are CSV with a head, and no cell is a formula', () => {
    const build = setUpBuild();
    const input = inputOf(build);
    const rowsOf = (id: string): readonly (readonly string[])[] => tablesOf(lines)[id]?.rows(input) ?? [];
    expect(csvOf(rowsOf('steps')).split('\n')[0]).toContain('axle,step,state');
    expect(csvOf(rowsOf('parts')).split('\n')[0]).toContain('supplier,promised');
    expect(csvOf([['a'], ['=1+1']])).toContain("'=1+1");
    const rows = rowsOf('findings');
    expect(rows.length).toBe(input.derived.findings.length + 1);
  });

  it('photos are those of readings in force, with what they show', () => {
    const photo = 'a'.repeat(64);
    const reading: Reading = {
      kind: 'reading',
      id: id(),
      at: '2026-11-20T08:00:00.000Z',
      who: '',
      subject: { what: 'part-photo', axle: 'rear', part: 'races' },
      value: { of: 'photos', photos: [photo] },
      state: {},
      instrument: 'Camera',
    };
    const build = setUpBuild();
    expect(shownPhotos(build, readingsInForce([reading]))).toEqual([{ id: photo, what: 'Rear, races: photo' }]);
    const gone: LedgerEntry = { kind: 'void', id: id(), at: reading.at, who: '', voids: reading.id, reason: 'blurred' };
    expect(shownPhotos(build, readingsInForce([reading, gone]))).toEqual([]);
  });
});

describe('the papers sheet', () => {
  it('offers every paper, tables, drawings and the code', async () => {
    openBench(setUpBuild(), assemblyOf(1));
    const screen = await Screen.of(PapersSheet);
    await screen.until(() => screen.text.includes('/builds/'));
    for (const { name } of Object.values(papersOf(lines))) expect(screen.text).toContain(name);
    expect(screen.text).toContain('/builds/');
    expect(screen.text).toContain('Readings');
  });

  it('a paper that is asked for before the code is drawn has its code all the same', async () => {
    let code = '';
    const seen: PaperLines = {
      warns: ({ qr }) => {
        code = qr.svg;
        return [];
      },
    };
    const only = { provide: PAPER_LINES, useValue: [() => Promise.resolve(seen)] };
    openBench(setUpBuild(), assemblyOf(1), 'metric', [only]);
    const saved: string[] = [];
    spyOn(HTMLAnchorElement.prototype, 'click').and.callFake(function (this: HTMLAnchorElement) {
      saved.push(this.download);
    });
    const screen = await Screen.of(PapersSheet);
    screen
      .all('button')
      .find((one) => one.textContent?.includes('Label for the unit'))
      ?.click();
    await screen.until(() => saved.length > 0);
    expect(saved[0]).toMatch(/-label\.pdf$/);
    expect(code).toContain('<svg');
    expect(screen.all('[role="alert"]').length).toBe(0);
  });

  it('takes the shop’s units or both', async () => {
    openBench(setUpBuild(), assemblyOf(1), 'inch');
    const screen = await Screen.of(PapersSheet);
    expect(screen.find<HTMLInputElement>('input[value="inch"]').checked).toBeTrue();
    screen.find<HTMLInputElement>('input[value="both"]').click();
    await screen.fixture.whenStable();
    expect(screen.find<HTMLInputElement>('input[value="both"]').checked).toBeTrue();
  });
});
