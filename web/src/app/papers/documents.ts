import { entryBase } from '@hot-spline/core';
import {
  GATES,
  SIDES,
  TRIAL_WORDS,
  backlashOf,
  capital,
  fieldWords,
  floatOf,
  meshFigures,
  packFigures,
  patchWords,
  patternOf,
  preloadFigures,
  voidedBy,
} from '@hot-spline/model';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { drivelineSvg, inSystems, plain, type PaperInput } from './paper';
import { flankSvg } from './pattern-drawing';
import { handOver } from './letter';
import { label } from './label';
import {
  CAUTIONS,
  table,
  h2,
  p,
  list,
  page,
  readingRows,
  figureRows,
  axlesOf,
  axleTitle,
  signatures,
  findings,
  workings,
  worked,
} from './blocks';

/** The sheet that goes with the car: what is in it, why, every reading, who signed, what is open. */
export function buildSheet(input: PaperInput): TDocumentDefinitions {
  const { build, stations, choice, photos, qr, customer, day, ledger } = input;
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
    ...(choice ? [h2(`Final drive ${choice.pair}, and why`), list(choice.reasons)] : []),
    h2('Open when this was printed'),
    open.length > 0 ? list(open) : p('Nothing says stop or watch.'),
    h2('Signed'),
    ...signatures(input),
    h2(`Readings in force: ${rows.length}${voided > 0 ? `, ${voided} voided are in the ledger` : ''}`),
    rows.length > 0 ? table(['What', 'Read', 'Against', 'With', 'By'], rows, ['*', 118, 84, 66, 82]) : p('None yet.'),
    ...patterns(input),
    ...worked(input),
    ...(shown.length > 0 ? [h2('How it was worked out'), ...shown] : []),
    ...(photos.length > 0 ? [h2('Photos'), ...photoRows(photos)] : []),
    // Cautions are read together: they are not torn over two pages.
    { stack: [h2('Mind'), list(CAUTIONS)], unbreakable: true },
  ]);
}

/** The pattern of what is in now, in words and drawn. */
function patterns(input: PaperInput): Content[] {
  return axlesOf(input).flatMap((name): Content[] => {
    const now = input.derived.mesh[name]?.now;
    const seen = now && patternOf(now);
    if (!seen) return [];
    const flank = (of: 'drive' | 'coast') => ({
      width: 150,
      stack: [{ svg: flankSvg(seen.value[of]), width: 140 }, p(`${of}: ${patchWords(seen.value[of])}`)],
    });
    return [
      h2(capital(`${axleTitle(input, name)}pattern`)),
      { columns: [flank('drive'), flank('coast')], columnGap: 12, unbreakable: true },
    ];
  });
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

/** What a set-up was put together with and read, by assembly. */
export function setUpCard(input: PaperInput): TDocumentDefinitions {
  const { derived, systems } = input;
  const small = (mm: number): string => inSystems(mm, 'length', systems, undefined, 'small');
  const of = axlesOf(input).flatMap((name): Content[] => {
    const mesh = derived.mesh[name];
    if (!mesh) return [];
    const gates = derived.gates[name];
    const rows = mesh.assemblies.map((one) => {
      const lash = backlashOf(one);
      const seen = patternOf(one);
      const float = floatOf(one);
      return [
        one.number === 0 ? 'as it came' : String(one.number),
        small(one.pinionMm),
        one.value.leftNotches || one.value.rightNotches
          ? `${one.value.leftNotches} / ${one.value.rightNotches} notches`
          : `${small(one.leftMm)} / ${small(one.rightMm)}`,
        float !== null
          ? `float ${small(float)}`
          : lash
            ? `${small(lash.round.minMm)} to ${small(lash.round.maxMm)}`
            : '–',
        seen ? `drive ${patchWords(seen.value.drive)}; coast ${patchWords(seen.value.coast)}` : '–',
      ];
    });
    return [
      h2(`${axleTitle(input, name)}${input.build.axles[name]?.identity?.name ?? 'axle'}`),
      table(['Assembly', 'Pinion shim', 'Left / right', 'Backlash', 'Pattern'], rows, [52, 78, 100, 100, '*']),
      table(
        ['Now', ''],
        figureRows(input, [
          meshFigures.shim(name),
          meshFigures.mean(name),
          meshFigures.least(name),
          meshFigures.most(name),
          preloadFigures.pinion(name),
          preloadFigures.carrier(name),
        ]),
        [200, '*'],
      ),
      p(
        `State: ${Object.entries(mesh.setup.state)
          .map(([key, value]) => {
            const words = TRIAL_WORDS[key as keyof typeof TRIAL_WORDS] as Readonly<Record<string, string>>;
            return `${words['label'] ?? key} ${words[value] ?? value}`;
          })
          .join(', ')}.`,
      ),
      ...(gates
        ? GATES.map((gate) =>
            p(
              `Gate ${gate}: ${gates[gate].open && gates[gate].signature ? `${gates[gate].signature.name}, ${input.moment(gates[gate].signature.at)}${gates[gate].signature.note ? `. Opened with a note: “${gates[gate].signature.note}”` : ''}` : 'not signed'}`,
            ),
          )
        : []),
    ];
  });
  return page(input, 'set-up card', [
    { text: 'Set-up card', style: 'h1' },
    p(`${input.build.name}, ${input.build.vehicle}`),
    ...(of.length > 0 ? of : [p('No set-up has begun.')]),
  ]);
}

/** The packs, piece by piece outwards from the gear. */
export function packCard(input: PaperInput): TDocumentDefinitions {
  const { derived, build, systems } = input;
  const of = axlesOf(input).flatMap((name): Content[] => {
    const packs = derived.axles[name]?.pack;
    const plate = build.axles[name]?.unit.plate;
    if (!packs || !plate) return [];
    return [
      h2(capital(`${axleTitle(input, name)}clutch packs`)),
      p(
        `Target ${inSystems(entryBase(plate.targetHeight), 'length', systems, undefined, 'plate')} ± ${inSystems(entryBase(plate.tolerance), 'length', systems, undefined, 'small')}. Outwards from the gear:`,
      ),
      {
        columnGap: 16,
        columns: SIDES.map((side) => ({
          width: '50%',
          stack: [
            { text: side, bold: true },
            table(
              ['', 'Piece', 'Thickness'],
              packs[side].members.map(({ member, thicknessMm, reading }, i) => [
                String(i + 1),
                member.label,
                `${inSystems(thicknessMm, 'length', systems, undefined, 'plate')}${reading ? '' : ' nominal'}`,
              ]),
              [14, 80, '*'],
            ),
            table(['', ''], figureRows(input, [packFigures.height(name, side)]), [90, '*']),
          ],
        })),
      },
      table(
        ['Wrench', ''],
        figureRows(input, [packFigures.wrench(name, 'other-wheel-held'), packFigures.wrench(name, 'carrier-held')]),
        [220, '*'],
      ),
    ];
  });
  return page(input, 'pack card', [
    { text: 'Pack card', style: 'h1' },
    p(`${build.name}, ${build.vehicle}`),
    ...(of.length > 0 ? of : [p('No clutch packs in it.')]),
  ]);
}

/** Parts and tools of the job, and what came off. */
export function partsList(input: PaperInput): TDocumentDefinitions {
  const of = axlesOf(input).flatMap((name): Content[] => {
    const work = input.build.axles[name]?.work;
    if (!work) return [];
    return [
      h2(capital(`${axleTitle(input, name)}parts`)),
      table(
        ['', 'Part', 'State', 'Number', 'Supplier, promised'],
        work.parts.map((one) => [
          `${one.count} ×`,
          one.name,
          one.state,
          one.number,
          [one.supplier, one.promised ?? ''].filter(Boolean).join(', '),
        ]),
        [28, '*', 50, 120, 120],
      ),
      ...(work.trays.length > 0
        ? [
            h2(capital(`${axleTitle(input, name)}trays`)),
            table(
              ['Part', 'Side', 'Length, facing', 'Out', 'Back'],
              work.trays.map((one) => [one.part, one.side, one.facing, String(one.out), String(one.back)]),
              ['*', 50, 140, 40, 40],
            ),
          ]
        : []),
    ];
  });
  return page(input, 'parts list', [
    { text: 'Parts list', style: 'h1' },
    p(`${input.build.name}, ${input.build.vehicle}`),
    ...(of.length > 0 ? of : [p('No job is planned.')]),
  ]);
}

export const PAPERS = {
  'build-sheet': {
    name: 'Build sheet',
    about: 'What is in it, why, every reading, who signed, what is open.',
    make: buildSheet,
  },
  'set-up-card': { name: 'Set-up card', about: 'Shims, backlash, pattern and preload, try by try.', make: setUpCard },
  'pack-card': { name: 'Pack card', about: 'Both packs, piece by piece, and what the wrench reads.', make: packCard },
  'parts-list': { name: 'Parts list', about: 'What the job needs, and what is out in trays.', make: partsList },
  'hand-over': {
    name: 'Hand-over letter',
    about: 'For the customer alone: what was done, what it reads, what to do and when.',
    make: handOver,
  },
  label: { name: 'Label for the unit', about: 'A code that opens the build and carries what was read.', make: label },
} as const;
export type PaperName = keyof typeof PAPERS;
