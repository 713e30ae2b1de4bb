import type { AxleName } from '@hot-spline/model';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { LABEL_PLACES, plain, type PaperInput } from '../shared/paper';
import { axleTitle, axlesOf, page } from './blocks';
import { LABEL_SIZES } from '../shared/label-sizes';

const POINTS = 72 / 25.4;

/** A label for the unit: what is in it, and the code that opens the build. */
export function label(input: PaperInput): TDocumentDefinitions {
  const { build, qr, shop, day } = input;
  const { wide, high, code, name: big, fact } = LABEL_SIZES[input.labelSize];
  return {
    ...page(input, 'label', []),
    header: undefined as never,
    footer: undefined as never,
    pageSize: { width: wide * POINTS, height: high * POINTS },
    pageMargins: high > 40 ? [10, 10, 10, 8] : [6, 5, 6, 4],
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: plain(build.name), fontSize: big, bold: true },
              ...labelWarnings(input).map((text) => ({
                text,
                fontSize: big + 1,
                bold: true,
                color: '#b3261e',
              })),
              ...labelFacts(input)
                .slice(1)
                .map((text) => ({ text: plain(text), fontSize: fact })),
              {
                text: plain([shop.name, day].filter(Boolean).join(' · ')),
                fontSize: fact - 1,
                color: '#555555',
                margin: [0, 3, 0, 0],
              },
            ],
          },
          { svg: qr.svg, width: code },
        ],
      },
    ],
  };
}

/** What somebody is warned of before they put a wrench on it, each once. */
export function labelWarnings(input: PaperInput): readonly string[] {
  const all = axlesOf(input).flatMap((name) => input.lines.flatMap((one) => one.warns?.(input, name) ?? []));
  return [...new Set(all.map(({ short }) => short))];
}

/** What a label says of one axle: what somebody has to know before they put a wrench on it. */
function factsOf(input: PaperInput, name: AxleName): string[] {
  const said = input.lines.map((one) => one.label?.(input, name) ?? {});
  return LABEL_PLACES.flatMap((place) => {
    const row = said.flatMap((one) => one[place] ?? []);
    return row.length > 0 ? [row.join(', ')] : [];
  });
}

/** The few facts that a label carries, the name of the build first. */
export function labelFacts(input: Omit<PaperInput, 'qr'>): readonly string[] {
  const whole = input as PaperInput;
  return [
    input.build.name,
    ...axlesOf(whole).flatMap((name) => factsOf(whole, name).map((line) => `${axleTitle(whole, name)}${line}`)),
  ].map(plain);
}
