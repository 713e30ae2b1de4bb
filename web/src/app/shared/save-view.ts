import { csvText } from '@hot-spline/model/csv';
import { download } from './download';

const words = (cell: Element): string => (cell.textContent ?? '').replace(/\s+/g, ' ').trim();

/** A table as it stands on the sheet: what can be seen, fields with what is in them. */
export function tableCsv(table: HTMLTableElement): string {
  const rows = [...table.rows].map((row) =>
    [...row.cells].map((cell) => {
      const field = cell.querySelector<HTMLInputElement | HTMLSelectElement>('input:not([type="radio"]), select');
      const text = words(cell);
      return field && field.value !== '' ? [text, field.value].filter(Boolean).join(' ') : text;
    }),
  );
  const [head = [], ...body] = rows;
  return csvText(head, body);
}

const DRAWN = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'opacity',
  'font-size',
  'font-weight',
  'font-family',
  'text-anchor',
];

/** A drawing by itself: what style sheets give it is written into it. */
export function drawingSvg(drawing: SVGSVGElement): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  const originals = [drawing, ...drawing.querySelectorAll('*')];
  [copy, ...copy.querySelectorAll('*')].forEach((one, i) => {
    const original = originals[i];
    if (!original) return;
    const style = getComputedStyle(original);
    one.setAttribute('style', DRAWN.map((name) => `${name}:${style.getPropertyValue(name)}`).join(';'));
  });
  const { width, height } = drawing.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  if (!copy.hasAttribute('viewBox')) copy.setAttribute('viewBox', `0 0 ${width} ${height}`);
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  return new XMLSerializer().serializeToString(copy);
}

/** Smaller than this is an icon, px. */
const ICON = 60;

/** Hands out every table or drawing of the sheet that is open, each as a file. @returns how many there are */
export function saveView(
  what: 'tables' | 'drawings',
  sheet: ParentNode = document.querySelector('main') ?? document,
): number {
  const name =
    document.title
      .split(' · ')
      .slice(0, 2)
      .reverse()
      .join('-')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-') || 'sheet';
  const files =
    what === 'tables'
      ? [...sheet.querySelectorAll('table')].map((table) => new Blob([tableCsv(table)], { type: 'text/csv' }))
      : [...sheet.querySelectorAll('svg')]
          .filter((drawing) => drawing.getBoundingClientRect().width >= ICON)
          .map((drawing) => new Blob([drawingSvg(drawing)], { type: 'image/svg+xml' }));
  const end = what === 'tables' ? 'csv' : 'svg';
  files.forEach((file, i) => download(file, `${name}${files.length > 1 ? `-${i + 1}` : ''}.${end}`));
  return files.length;
}
