import { capital, voidedBy, type AxleName } from '@hot-spline/model';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { plain, type PaperInput } from '../shared/paper';
import { axleTitle, axlesOf, h2, list, p, page, table } from './blocks';

/** What was done to an axle, in words for who drives it. */
function done(input: PaperInput, name: AxleName): Content[] {
  return [
    h2(capital(`${axleTitle(input, name)}what was done`)),
    list(input.lines.flatMap((one) => one.done?.(input, name) ?? [])),
    ...input.lines
      .flatMap((one) => one.warns?.(input, name) ?? [])
      .map(({ whole }): Content => ({ text: whole, style: 'note', fontSize: 12 })),
  ];
}

/** What it reads now, each with the band that it was held against. */
function reads(input: PaperInput, name: AxleName): Content[] {
  const rows = input.lines
    .flatMap((one) => one.reads?.(input, name) ?? [])
    .map(({ what, read, band }) => [what, read, band ?? 'not said']);
  return rows.length === 0
    ? []
    : [h2(capital(`${axleTitle(input, name)}what it reads`)), table(['', 'Read', 'Band'], rows, [170, 150, '*'])];
}

/** What who drives it has to do, and when. */
const todo = (input: PaperInput, name: AxleName): Content[] => [
  h2(capital(`${axleTitle(input, name)}what you must do`)),
  list(input.lines.flatMap((one) => one.todo?.(input, name) ?? [])),
];

/** What was gone past with a name under it: it stays on every paper. */
function notes({ ledger, moment }: PaperInput): Content[] {
  const voids = voidedBy(ledger);
  const noted = ledger.flatMap((entry) =>
    entry.kind === 'signature' && entry.note !== undefined && entry.note !== '' && !voids.has(entry.id) ? [entry] : [],
  );
  return noted.length === 0
    ? []
    : [
        h2('Done all the same, by decision'),
        list(
          noted.map((entry) =>
            plain(`${capital(entry.gate)}: “${entry.note ?? ''}” (${entry.name}, ${moment(entry.at)})`),
          ),
        ),
      ];
}

/** The letter to the customer, and to nobody else: what was done, what it reads, what to do and when; no shop’s matters. */
export function handOver(input: PaperInput): TDocumentDefinitions {
  const { build, customer, shop } = input;
  const axles = axlesOf(input).filter((name) => build.axles[name]?.work);
  const of = axles.flatMap((name) => [...done(input, name), ...reads(input, name), ...todo(input, name)]);
  return page(input, 'hand-over', [
    { text: `${build.name}: hand-over`, style: 'h1' },
    p([customer ? `For ${customer}.` : '', build.vehicle].filter(Boolean).join(' ')),
    ...(of.length > 0 ? of : [p('No job is planned.')]),
    ...notes(input),
    p('Roadworthiness and road legality by local rules and licensed shops. The maker’s sheets win.'),
    {
      margin: [0, 40, 0, 0],
      columns: [
        { text: `____________________________\n${shop.name || 'the shop'}` },
        { text: `____________________________\n${customer || 'the driver'}` },
      ],
    },
  ]);
}
