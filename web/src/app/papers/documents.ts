import { fieldWords, voidedBy } from '@hot-spline/model';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { plain, type Card, type PaperInput, type PaperLines } from '../shared/paper';
import { drivelineSvg } from './paper';
import { handOver } from './letter';
import { label } from './label';
import { CAUTIONS, axlesOf, findings, h2, list, p, page, readingRows, signatures, table, workings } from './blocks';

/** The sheet that goes with the car: what is in it, why, every reading, who signed, what is open. */
export function buildSheet(input: PaperInput): TDocumentDefinitions {
  const { build, stations, lines, photos, qr, customer, day, ledger } = input;
  const rows = readingRows(input);
  const voided = voidedBy(ledger).size;
  const open = findings(input, ['stop', 'watch']);
  const shown = workings(input);
  return page(input, 'build sheet', [
    {
      columns: [
        {
          stack: [
            { text: build.name, style: 'h1' },
            p([build.vehicle, build.use, day].filter(Boolean).join(' · ')),
            ...(customer ? [p(`For ${customer}`)] : []),
            ...(build.worker ? [p(`Built by ${build.worker}`)] : []),
          ],
        },
        { svg: qr.svg, width: 78 },
      ],
    },
    h2('Driveline'),
    { svg: drivelineSvg(stations, false), width: 515 },
    {
      columns: stations.map(({ name, main, sub }) => ({
        width: '*',
        stack: [
          { text: plain(main), bold: true, fontSize: 8.5 },
          { text: plain(name), fontSize: 7, style: 'soft' },
          { text: plain(sub), fontSize: 7, style: 'soft' },
        ],
        alignment: 'center',
      })),
      margin: [0, -4, 0, 6],
    },
    ...assumptions(input),
    ...lines.flatMap(({ why }) => why?.(input) ?? []),
    h2('Open when this was printed'),
    open.length > 0 ? list(open) : p('Nothing says stop or watch.'),
    h2('Signed'),
    ...signatures(input),
    h2(`Readings in force: ${rows.length}${voided > 0 ? `, ${voided} voided are in the ledger` : ''}`),
    rows.length > 0 ? table(['What', 'Read', 'Against', 'With', 'By'], rows, ['*', 118, 84, 66, 82]) : p('None yet.'),
    ...axlesOf(input).flatMap((name) => lines.flatMap(({ found }) => found?.(input, name) ?? [])),
    ...(shown.length > 0 ? [h2('How it was worked out'), ...shown] : []),
    ...(photos.length > 0 ? [h2('Photos'), ...photoRows(photos)] : []),
    // Cautions are read together: they are not torn over two pages.
    { stack: [h2('Mind'), list(CAUTIONS)], unbreakable: true },
  ]);
}

/** What nobody has said and stands in: marked, never passed off as the shop’s. */
function assumptions({ build }: PaperInput): Content[] {
  return build.assumed.length === 0
    ? []
    : [
        {
          text: plain(
            `Nobody has said these yet; what stands here is a stand-in of ours, and judges nothing: ${build.assumed
              .map((path) => fieldWords(path.split('.')))
              .join(', ')}.`,
          ),
          style: 'note',
          margin: [0, 0, 0, 6],
        },
      ];
}

function photoRows(photos: PaperInput['photos']): Content[] {
  const rows: Content[] = [];
  for (let i = 0; i < photos.length; i += 2)
    rows.push({
      unbreakable: true,
      margin: [0, 0, 0, 8],
      columnGap: 12,
      columns: photos.slice(i, i + 2).map(({ what, data }) => ({
        width: '50%',
        stack: [
          { image: data, fit: [250, 190] },
          { text: plain(what), style: 'soft' },
        ],
      })),
    });
  return rows;
}

/** A card: what capabilities have to say of each axle, the one that brings it first. */
const card =
  (id: string, { name, nothing }: Card) =>
  (input: PaperInput): TDocumentDefinitions => {
    const own = (one: PaperLines): number => (one.brings?.[id] ? 0 : 1);
    const lines = [...input.lines].sort((a, b) => own(a) - own(b));
    const of = axlesOf(input).flatMap((axle) => lines.flatMap((one) => one.cards?.[id]?.(input, axle) ?? []));
    return page(input, name.toLowerCase(), [
      { text: name, style: 'h1' },
      p([input.build.name, input.build.vehicle].filter(Boolean).join(', ')),
      ...(of.length > 0 ? of : [p(nothing)]),
    ]);
  };

/** A paper to give away. */
export interface Paper {
  readonly name: string;
  readonly about: string;
  readonly make: (input: PaperInput) => TDocumentDefinitions;
}

/** Every paper: ours, and between them the cards that capabilities bring. */
export const papersOf = (lines: readonly PaperLines[]): Readonly<Record<string, Paper>> => ({
  'build-sheet': {
    name: 'Build sheet',
    about: 'What is in it, why, every reading, who signed, what is open.',
    make: buildSheet,
  },
  ...Object.fromEntries(
    lines.flatMap(({ brings = {} }) =>
      Object.entries(brings).map(
        ([id, one]) => [id, { name: one.name, about: one.about, make: card(id, one) }] as const,
      ),
    ),
  ),
  'hand-over': {
    name: 'Hand-over letter',
    about: 'For the customer alone: what was done, what it reads, what to do and when.',
    make: handOver,
  },
  label: { name: 'Label for the unit', about: 'A code that opens the build and carries what was read.', make: label },
});
