import { download } from './download';

/** What is drawn by something other than SVG, with the way to have it as SVG. */
const made = new WeakMap<Element, () => string>();

/** Says how a drawing that is no SVG is had as SVG. */
export function drawnBy(element: Element, make: () => string): void {
  made.set(element, make);
}

const LOOKS = [
  ...['fill', 'fill-opacity', 'stroke', 'stroke-width', 'stroke-dasharray', 'stroke-linecap', 'stroke-linejoin'],
  ...['stroke-opacity', 'opacity', 'font-family', 'font-size', 'font-weight', 'text-anchor', 'dominant-baseline'],
  ...['display', 'visibility'],
];

/** An SVG of the page as a file of its own: what its style sheet says is written into it, and it stands on paper of the theme. */
function standing(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const [from, to] = [svg, copy].map((one) => [one, ...one.querySelectorAll<SVGElement>('*')]);
  to?.forEach((element, i) => {
    const shown = getComputedStyle(from?.[i] ?? svg);
    for (const { name } of [...element.attributes])
      if (/^(class|style|tabindex|role|_ng.*|ng-.*|on.*)$/.test(name)) element.removeAttribute(name);
    for (const look of LOOKS) element.style.setProperty(look, shown.getPropertyValue(look));
  });
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  copy.style.background = getComputedStyle(document.documentElement).getPropertyValue('--sheet').trim();
  return new XMLSerializer().serializeToString(copy);
}

export interface Saved {
  readonly name: string;
  readonly of: 'drawing' | 'table';
  readonly element: Element;
}

const cut = (text: string): string => {
  const said = text.replace(/\s+/g, ' ').trim();
  return said.length <= 60 ? said : `${said.slice(0, 60).replace(/\s+\S*$/, '')} …`;
};

/** What a table or drawing is called: by its own label, else by what stands around it. */
function nameOf(element: Element, fallback: string): string {
  const around = element.closest('section[aria-label], [role="region"][aria-label]');
  const caption = element.querySelector(':scope > caption, :scope > title');
  return cut(
    element.getAttribute('aria-label') ??
      element.querySelector('[role="img"][aria-label]')?.getAttribute('aria-label') ??
      caption?.textContent ??
      around?.getAttribute('aria-label') ??
      fallback,
  );
}

const SMALLEST = 60;

const SAVED = 'svg:not([aria-hidden="true"]), hs-chart, table';

/** Whether it can be saved: seen, and more than a mark beside words. */
function isSaved(element: Element): boolean {
  if (element.tagName === 'HS-CHART' && !made.has(element)) return false;
  const table = element.tagName === 'TABLE';
  if (!table && element.closest('[hidden], [aria-hidden="true"]')) return false;
  const { width, height } = element.getBoundingClientRect();
  return table ? width > 0 : Math.min(width, height) >= SMALLEST;
}

/** Whether there is any. */
export const anySaved = (root: Element): boolean => [...root.querySelectorAll(SAVED)].some(isSaved);

/** Every drawing and table that is seen in a part of the page, in its order; marks beside words are no drawings. */
export const savedIn = (root: Element): Saved[] =>
  [...root.querySelectorAll(SAVED)]
    .filter(isSaved)
    .map((element) =>
      element.tagName === 'TABLE'
        ? { name: nameOf(element, 'Table'), of: 'table', element }
        : { name: nameOf(element, 'Drawing'), of: 'drawing', element },
    );

export function svgOf(element: Element): string {
  const make = made.get(element);
  return make ? make() : standing(element as SVGSVGElement);
}

function cellText(cell: Element): string {
  const copy = cell.cloneNode(true) as Element;
  const [from, to] = [cell, copy].map((one) => [...one.querySelectorAll('input, select, textarea')]);
  to?.forEach((field, i) => {
    const shown = from?.[i];
    const text =
      shown instanceof HTMLSelectElement
        ? (shown.selectedOptions[0]?.textContent ?? '')
        : shown instanceof HTMLInputElement && (shown.type === 'radio' || shown.type === 'checkbox')
          ? ''
          : ((shown as HTMLInputElement | undefined)?.value ?? '');
    // Of a choice what is chosen, not all that could be.
    if (shown instanceof HTMLInputElement && shown.type === 'radio' && !shown.checked) field.closest('label')?.remove();
    else field.replaceWith(` ${text} `);
  });
  for (const gone of copy.querySelectorAll('svg, .visually-hidden, [hidden]')) gone.remove();
  // A figure may be a button, which shows its working; what only does something is no part of the table.
  for (const button of copy.querySelectorAll('button')) if (!/\d/.test(button.textContent ?? '')) button.remove();
  for (const inner of copy.querySelectorAll('*')) inner.before(' ');
  return (copy.textContent ?? '').replace(/[\s\u00a0\u202f]+/g, ' ').trim();
}

/** A table as it is seen, row by row, its head first: of fields what is in them, of choices what is chosen; columns of buttons alone are left out. */
export function rowsOf(table: Element): string[][] {
  const rows = [...table.querySelectorAll('tr')].map((row) =>
    [...row.querySelectorAll('th, td')].flatMap((cell) => {
      const span = Math.max(1, (cell as HTMLTableCellElement).colSpan);
      return [cellText(cell), ...Array.from({ length: span - 1 }, () => '')];
    }),
  );
  const width = Math.max(0, ...rows.map(({ length }) => length));
  const used = Array.from({ length: width }, (_, i) => rows.some((row) => (row[i] ?? '') !== ''));
  return rows.map((row) => used.flatMap((any, i) => (any ? [row[i] ?? ''] : [])));
}

const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60) || 'saved';

/** Hands out a drawing as SVG, a table as CSV. */
export async function save({ of, name, element }: Saved): Promise<void> {
  if (of === 'drawing') {
    download(new Blob([svgOf(element)], { type: 'image/svg+xml' }), `${fileName(name)}.svg`);
    return;
  }
  const [head = [], ...rows] = rowsOf(element);
  const { csvText } = await import('@hot-spline/model/csv');
  download(new Blob([csvText(head, rows)], { type: 'text/csv' }), `${fileName(name)}.csv`);
}

/** Hands out every one of a kind that is seen on the sheet that is open, each as a file. */
export async function saveAll(
  of: Saved['of'],
  sheet: Element = document.querySelector('main') ?? document.body,
): Promise<void> {
  for (const one of savedIn(sheet)) if (one.of === of) await save(one);
}
