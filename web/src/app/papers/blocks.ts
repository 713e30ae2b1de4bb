import { entryBase, say, type Quantity } from '@hot-spline/core';
import {
  AXLES,
  VERDICTS,
  capital,
  readingEntry,
  readingsInForce,
  subjects,
  voidedBy,
  type AxleName,
  type FigureId,
  type InForce,
} from '@hot-spline/model';
import type { Content, ContentTable, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { typedText } from '../shared/reading-words';
import { inSystems, plain, type PaperInput } from '../shared/paper';
import { workingsThatMatter } from './paper';

export const CAUTIONS = [
  'Raise on stands, not on a jack. A carrier falls out when the second cap goes.',
  'Springs and packs under compression fly. Hot ring gears and presses: gloves and face shield.',
  'Spreading a case can crack it: stay below its limit.',
  'A locker or spool on one raised wheel can drive the car off its stands.',
  'Brake and fluid work, road legality and roadworthiness by local rules and licensed shops.',
  'Bands that no sheet gave are guards of ours: the maker’s sheet wins.',
];

const head = (cells: readonly string[]): TableCell[] => cells.map((text) => ({ text, style: 'th' }));
const cell = (text: string): TableCell => ({ text: plain(text) });

/** A table whose head stands on every page that it reaches; a row is never cut. */
export function table(
  heads: readonly string[],
  rows: readonly (readonly string[])[],
  widths: readonly (string | number)[],
): ContentTable {
  return {
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: [...widths],
      body: [head(heads), ...rows.map((row) => row.map(cell))],
    },
    layout: 'lightHorizontalLines',
    margin: [0, 2, 0, 8],
  };
}

export const h2 = (text: string): Content => ({ text: plain(text), style: 'h2' });
export const p = (text: string): Content => ({ text: plain(text), margin: [0, 0, 0, 4] });
export const list = (items: readonly string[]): Content => ({ ul: items.map(plain), margin: [0, 0, 0, 6] });

export function page(input: PaperInput, title: string, content: Content[]): TDocumentDefinitions {
  const { shop, build, day, who } = input;
  return {
    info: { title: `${build.name}: ${title}`, author: shop.name || 'Hot Spline', subject: build.vehicle },
    pageSize: 'A4',
    pageMargins: [40, 62, 40, 46],
    version: '1.7',
    subset: 'PDF/A-3a',
    tagged: true,
    displayTitle: true,
    language: 'en',
    defaultStyle: { font: 'Roboto', fontSize: 9, lineHeight: 1.15 },
    styles: {
      h1: { fontSize: 17, bold: true },
      h2: { fontSize: 11.5, bold: true, margin: [0, 8, 0, 3] },
      th: { bold: true, color: '#444444', fontSize: 8 },
      soft: { color: '#555555' },
      note: { bold: true, color: '#8a1c14' },
    },
    header: {
      margin: [40, 18, 40, 0],
      columns: [
        shop.logo ? { image: shop.logo, fit: [110, 34] } : { text: shop.name || ' ', bold: true, fontSize: 11 },
        {
          text: `${shop.logo && shop.name ? `${shop.name}   ` : ''}${build.name} · ${title}`,
          alignment: 'right',
          style: 'soft',
        },
      ],
    },
    footer: (current: number, pages: number): Content => ({
      margin: [40, 12, 40, 0],
      columns: [
        {
          text: `Worked out by Hot Spline from what the shop entered and measured. ${[who, day].filter(Boolean).join(', ')}`,
          style: 'soft',
          fontSize: 7.5,
        },
        { text: `${current} of ${pages}`, alignment: 'right', style: 'soft', fontSize: 7.5, width: 60 },
      ],
    }),
    content,
  };
}

/** Whether two texts end in one unit: the same number, rounded otherwise. */
const sameUnit = (a: string, b: string): boolean => {
  const unit = (text: string): string => plain(text).replace(/[\d.,\s\u00a0−-]/g, '');
  return unit(a) === unit(b);
};

/** A value as typed, and in the system that it was not typed in, where that is asked for. */
function valueText(reading: InForce, { systems }: PaperInput): string {
  const typed = typedText(reading);
  const kind = subjects.find(({ what }) => what === reading.subject.what)?.value;
  if (kind?.of !== 'number' || reading.value.of !== 'number' || systems.length < 2) return plain(typed);
  const base = entryBase(readingEntry(reading));
  const bare = (text: string): string => plain(text).replace(/[\s\u00a0]/g, '');
  const others = systems
    .map((system) => plain(say(base, kind.quantity, system, undefined, kind.scale)))
    .filter((text, i, all) => bare(text) !== bare(typed) && all.indexOf(text) === i && !sameUnit(text, typed));
  return others.length > 0 ? `${plain(typed)} (${others.join(', ')})` : plain(typed);
}

/** What a reading is judged by: the band or limit of the sheet, or what its step asks for; empty where it is judged by nothing. */
function against(input: PaperInput, reading: InForce): string {
  const on = (reading.subject as InForce['subject'] & Readonly<Record<string, string>>)['axle'];
  const axle = AXLES.find((name) => name === on);
  if (!axle) return '';
  for (const one of input.lines) {
    const said = one.against?.(input, reading, axle);
    if (said !== null && said !== undefined) return said;
  }
  return '';
}

/** Rows of every reading in force: what, value, what it is held against, with what, by whom and when. */
export function readingRows(input: PaperInput): readonly (readonly string[])[] {
  const { build, ledger, moment } = input;
  // That a step is done, and how long it took, stands under the work.
  const readings = [...readingsInForce(ledger).values()]
    .filter(({ subject }) => subject.what !== 'step' && subject.what !== 'step-time')
    .sort((a, b) => a.seq - b.seq);
  return readings.map((reading) => {
    const kind = subjects.find(({ what }) => what === reading.subject.what);
    return [
      kind?.words(reading.subject, build) ?? reading.subject.what,
      valueText(reading, input),
      plain(against(input, reading)),
      reading.instrument,
      [reading.who, moment(reading.at)].filter(Boolean).join(', '),
    ];
  });
}

export const figureText = ({ derived, systems }: PaperInput, id: FigureId): string | null => {
  const figure = derived.figures.get(id);
  if (!figure) return null;
  return figure.value === null
    ? (figure.instead ?? null)
    : inSystems(figure.value, figure.quantity, systems, figure.decimals, figure.scale);
};
export const figureRows = (input: PaperInput, ids: readonly FigureId[]): string[][] =>
  ids.flatMap((id) => {
    const text = figureText(input, id);
    return text === null ? [] : [[input.derived.figures.get(id)?.label ?? id, text]];
  });

export const axlesOf = ({ build }: PaperInput): AxleName[] => AXLES.filter((name) => build.axles[name] !== null);
export const axleTitle = (input: PaperInput, name: AxleName): string =>
  axlesOf(input).length > 1 ? `${capital(name)}: ` : '';

export function signatures({ ledger, moment }: PaperInput): Content[] {
  const voids = voidedBy(ledger);
  const signed = ledger.flatMap((entry) => (entry.kind === 'signature' && !voids.has(entry.id) ? [entry] : []));
  if (signed.length === 0) return [p('Nothing is signed.')];
  return signed.map((entry) => ({
    text: [
      { text: `${capital(entry.gate)}: `, bold: true },
      `${entry.name}, ${moment(entry.at)}. `,
      ...(entry.note ? [{ text: plain(`Done all the same: “${entry.note}”`), style: 'note' }] : []),
    ],
    margin: [0, 0, 0, 3],
  }));
}

export function findings({ derived, systems }: PaperInput, verdicts: readonly string[]): string[] {
  return derived.findings
    .filter(({ verdict }) => verdicts.includes(verdict))
    .sort((a, b) => VERDICTS.indexOf(a.verdict) - VERDICTS.indexOf(b.verdict))
    .map((one) => {
      const { title, detail } = one.say(systems[0] ?? 'metric');
      return plain(`${one.verdict === 'stop' ? 'STOP. ' : ''}${title}. ${detail}`);
    });
}

const numberOf = (value: number | string, quantity: Quantity, { systems }: PaperInput): string =>
  typeof value === 'string' ? value : inSystems(value, quantity, systems);

export function workings(input: PaperInput): Content[] {
  return workingsThatMatter(input).map(({ label, working }) => ({
    unbreakable: true,
    margin: [0, 0, 0, 7],
    stack: [
      { text: plain(label), bold: true },
      { text: plain(working.formula), italics: true },
      {
        text: plain(
          [...working.inputs, ...working.steps]
            .map(({ label: name, value, quantity }) => `${name} ${numberOf(value, quantity, input)}`)
            .join('; '),
        ),
      },
      {
        text: plain(
          `= ${numberOf(working.result.value, working.result.quantity, input)}   (${working.sources
            .map(({ kind, text, fromMemory }) => `${kind}: ${text}${fromMemory ? ', from memory' : ''}`)
            .join('; ')})`,
        ),
        style: 'soft',
      },
    ],
  }));
}

/** What was written down at a step; null where it was not. */
export const saidAt =
  ({ derived }: Pick<PaperInput, 'derived'>, axle: AxleName) =>
  (step: string, record: string): string | null =>
    derived.work[axle]?.steps.find((one) => one.step.id === step)?.records.find((one) => one.record.id === record)
      ?.said ?? null;
