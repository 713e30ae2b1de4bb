import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { plain } from '../shared/paper';

/** What one label carries. */
export interface LabelOf {
  readonly title: string;
  /** What somebody is warned of before they put a wrench on it. */
  readonly warns?: readonly string[];
  /** What has to be known before anybody opens the box, the most important first. */
  readonly facts: readonly string[];
  /** What its code says: an address that opens it, or a number that finds it. */
  readonly code: string;
}

/**
 * How labels lie on a sheet, mm: ISO 216 A4 (210 × 297) and ANSI A (215.9 × 279.4), and one by one for a roll. Sizes are those that
 * blank sheets are cut to everywhere, from memory; `gapX` lies between columns, what is left over is margin, alike on both sides.
 */
export const LABEL_SHEETS = {
  '105 × 74, 8 on A4': { page: [210, 297], size: [105, 74], across: 2, down: 4, gapX: 0 },
  '70 × 37, 24 on A4': { page: [210, 297], size: [70, 37], across: 3, down: 8, gapX: 0 },
  '63.5 × 38.1, 21 on A4': { page: [210, 297], size: [63.5, 38.1], across: 3, down: 7, gapX: 2.5 },
  '48.5 × 25.4, 40 on A4': { page: [210, 297], size: [48.5, 25.4], across: 4, down: 10, gapX: 0 },
  '66.7 × 25.4, 30 on Letter': { page: [215.9, 279.4], size: [66.7, 25.4], across: 3, down: 10, gapX: 3.2 },
  '62 × 29, one by one': { page: [62, 29], size: [62, 29], across: 1, down: 1, gapX: 0 },
} as const satisfies Record<string, Sheet>;
export type LabelSheetName = keyof typeof LABEL_SHEETS;

interface Sheet {
  readonly page: readonly [number, number];
  readonly size: readonly [number, number];
  readonly across: number;
  readonly down: number;
  readonly gapX: number;
}

const POINTS = 72 / 25.4;
/** Kept free round what is printed: a printer takes its paper in to a millimetre or two. Ours. */
const EDGE_MM = 2.5;
/** Widths of letters of the packed face in parts of its size, rounded up: what is not listed is a small letter or a digit. */
const WIDE: readonly (readonly [RegExp, number])[] = [
  [/[MW@%—…]/, 0.95],
  [/[mw]/, 0.9],
  [/\p{Lu}/u, 0.7],
  [/[ilj.,:;'|!·]/, 0.3],
];
const letterWidth = (letter: string): number => WIDE.find(([of]) => of.test(letter))?.[1] ?? 0.58;
const LINE = 1.2;

/** Where the label at a place lies, mm from the top left of its sheet. @param at counted from 0, row by row */
export function labelPlace(
  sheet: Sheet,
  at: number,
): { readonly page: number; readonly x: number; readonly y: number } {
  const a = sheet.across * sheet.down;
  const [column, row] = [at % sheet.across, Math.floor((at % a) / sheet.across)];
  const left = (sheet.page[0] - sheet.across * sheet.size[0] - (sheet.across - 1) * sheet.gapX) / 2;
  const top = (sheet.page[1] - sheet.down * sheet.size[1]) / 2;
  return {
    page: Math.floor(at / a),
    x: left + column * (sheet.size[0] + sheet.gapX),
    y: top + row * sheet.size[1],
  };
}

/** As many lines as there may be, none wider than there is room; what does not fit is cut. @param room in parts of the size */
function linesOf(text: string, room: number, most: number): string[] {
  const lines: string[] = [];
  let [line, width] = ['', 0];
  for (const letter of text) {
    if (width + letterWidth(letter) > room) {
      if (lines.length + 1 === most) return [...lines, `${line.slice(0, -1).trimEnd()}…`];
      // Broken between words, where there are any.
      const at = line.lastIndexOf(' ');
      lines.push((at > 0 ? line.slice(0, at) : line).trimEnd());
      line = at > 0 ? line.slice(at + 1) : '';
      width = [...line].reduce((sum, one) => sum + letterWidth(one), 0);
    }
    line += letter;
    width += letterWidth(letter);
  }
  return [...lines, line];
}

/** Letters are made smaller rather than facts cut, down to this, pt; ours: what the smallest label of one’s own is printed in. */
const SMALLEST = 4.5;

/** Facts in as many lines as there is room for, in letters as large as let all of them in; in the smallest what is left over is left out. */
function factsIn(facts: readonly string[], room: number, high: number, largest: number) {
  for (let small = largest; ; small = Math.max(SMALLEST, small - 0.5)) {
    const lines = facts.flatMap((text) => linesOf(plain(text), room / small, Number.POSITIVE_INFINITY));
    const most = Math.max(0, Math.floor(high / (small * LINE)));
    if (lines.length <= most || small <= SMALLEST) return { small, facts: lines.slice(0, most) };
  }
}

/** A label at its place: nothing of it reaches over its edge, what does not fit is left out from behind. */
function labelAt(of: LabelOf, svg: string, sheet: Sheet, at: number): Content {
  const { x, y } = labelPlace(sheet, at);
  const [wide, high] = [sheet.size[0] - 2 * EDGE_MM, sheet.size[1] - 2 * EDGE_MM].map((mm) => mm * POINTS) as [
    number,
    number,
  ];
  const code = Math.min(high, wide * 0.42);
  const room = wide - code - 4;
  const big = Math.min(16, Math.max(7, high / 7));
  const titles = linesOf(plain(of.title), room / big, 2);
  const warns = (of.warns ?? []).flatMap((text) => linesOf(plain(text), room / big, 2));
  const left = high - (titles.length + warns.length) * big * LINE;
  const { small, facts } = factsIn(of.facts, room, left, big * 0.68);
  return {
    absolutePosition: { x: (x + EDGE_MM) * POINTS, y: (y + EDGE_MM) * POINTS },
    columns: [
      {
        width: room,
        stack: [
          ...titles.map((text) => ({ text, fontSize: big, bold: true, noWrap: true })),
          ...warns.map((text) => ({ text, fontSize: big, bold: true, color: '#b3261e', noWrap: true })),
          ...facts.map((text) => ({ text, fontSize: small, noWrap: true })),
        ],
      },
      { width: code, svg, fit: [code, code], margin: [4, 0, 0, 0] },
    ],
  };
}

/**
 * Labels, as many on a sheet as lie on it.
 * @param svgs the picture of each code
 * @param first the place that is free on the first sheet, from 0: a sheet is begun more than once
 */
export function labelSheet(
  labels: readonly LabelOf[],
  svgs: readonly string[],
  name: LabelSheetName,
  first = 0,
): TDocumentDefinitions {
  const sheet: Sheet = LABEL_SHEETS[name];
  const each = sheet.across * sheet.down;
  const pages = Math.ceil((first + labels.length) / each);
  return {
    pageSize: { width: sheet.page[0] * POINTS, height: sheet.page[1] * POINTS },
    pageMargins: [0, 0, 0, 0],
    info: { title: `Labels ${name}` },
    content: Array.from({ length: pages }, (_, page): Content[] => [
      // What stands at a place of its own takes none: without a line of its own a page would not begin.
      { text: ' ', fontSize: 1, ...(page > 0 ? { pageBreak: 'before' as const } : {}) },
      ...labels.flatMap((of, i) =>
        Math.floor((first + i) / each) === page ? [labelAt(of, svgs[i] ?? '', sheet, first + i)] : [],
      ),
    ]).flat(),
  };
}
