import { entryBase, say } from '@hot-spline/core';
import {
  GATES,
  SIDES,
  TRIAL_WORDS,
  backlashOf,
  capital,
  floatOf,
  meshFigures,
  packFigures,
  patchWords,
  patternOf,
  preloadFigures,
  usedTorque,
  voidedBy,
} from '@hot-spline/model';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { drivelineSvg, inSystems, plain, type PaperInput } from './paper';
import {
  CAUTIONS,
  table,
  h2,
  p,
  list,
  page,
  readingRows,
  figureText,
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
    ...(choice ? [h2(`Final drive ${choice.pair}, and why`), list(choice.reasons)] : []),
    h2('Open when this was printed'),
    open.length > 0 ? list(open) : p('Nothing says stop or watch.'),
    h2('Signed'),
    ...signatures(input),
    h2(`Readings in force: ${rows.length}${voided > 0 ? `, ${voided} voided are in the ledger` : ''}`),
    rows.length > 0 ? table(['What', 'Read', 'With', 'By'], rows, ['*', 150, 74, 100]) : p('None yet.'),
    ...worked(input),
    ...(shown.length > 0 ? [h2('How it was worked out'), ...shown] : []),
    ...(photos.length > 0 ? [h2('Photos'), ...photoRows(photos)] : []),
    // Cautions are read together: they are not torn over two pages.
    { stack: [h2('Mind'), list(CAUTIONS)], unbreakable: true },
  ]);
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

const RUN_IN: Readonly<Record<string, string>> = {
  'heat-cycles': 'Heat cycles: drive it warm, let it cool fully, and again, as often as the table says.',
  'short-trips': 'Short trips at first, each cooled down fully before the next.',
  distance: 'The distance of the table without full throttle or towing, then change the oil.',
};

/** What the driver has to do, and when. */
export function handOver(input: PaperInput): TDocumentDefinitions {
  const { build, derived, systems, customer, shop } = input;
  const of = axlesOf(input).flatMap((name): Content[] => {
    const axle = build.axles[name];
    const work = axle?.work;
    if (!axle || !work) return [];
    const state = derived.work[name];
    const said = (step: string, record: string): string | null =>
      state?.steps.find((one) => one.step.id === step)?.records.find((one) => one.record.id === record)?.said ?? null;
    const { runIn } = work;
    const due = derived.runin[name]?.due ?? [];
    const oil = [said('fill', 'grade'), said('fill', 'volume')].filter(Boolean).join(', ');
    const dry = said('fill', 'filled')?.startsWith('dry') ?? false;
    const used = usedTorque(axle);
    return [
      h2(capital(`${axleTitle(input, name)}what was done`)),
      list([
        `Final drive ${axle.finalDrive.ring}/${axle.finalDrive.pinion}, ${(axle.finalDrive.ring / axle.finalDrive.pinion).toFixed(3)}.`,
        ...(oil
          ? [`Oil: ${oil}${said('fill', 'additive') ? `, additive ${said('fill', 'additive') ?? ''}` : ''}.`]
          : []),
        ...(used ? [`Ring bolts: ${inSystems(used.nm, 'torque', systems, 0, 'bolt')}, marked.`] : []),
      ]),
      ...(dry
        ? [{ text: 'THERE IS NO OIL IN IT. Fill it before it turns under load.', style: 'note', fontSize: 12 }]
        : []),
      h2(capital(`${axleTitle(input, name)}what you must do`)),
      list([
        RUN_IN[runIn.school] ?? '',
        `Oil temperature: at ${inSystems(entryBase(runIn.alarm), 'temperature', systems, 0)} let it cool fully and call us.`,
        ...(entryBase(runIn.distance) > 0
          ? [`Bring it back after ${inSystems(entryBase(runIn.distance), 'distance', systems, 0, 'trip')}.`]
          : []),
        ...(runIn.races > 0 ? [`Have the witness marks on the bolts looked at after ${runIn.races} races.`] : []),
        ...(due.length > 0 ? [`It is due now, by ${due.join(', ')}.`] : []),
        'Torque the wheels once more after the first drive.',
        'A whine that rises: stop driving it and call us. Warranty is on noise that is said at once.',
        ...(axle.unit.type === 'plate' ? ['Slow figures of eight first: they wet the plates.'] : []),
        ...(axle.unit.type === 'selectable-locker' ||
        axle.unit.type === 'automatic-locker' ||
        axle.unit.type === 'spool'
          ? ['Never raise one wheel with the engine in gear: it drives off its stands.']
          : []),
      ]),
    ];
  });
  return page(input, 'hand-over', [
    { text: `${build.name}: hand-over`, style: 'h1' },
    p([customer ? `For ${customer}.` : '', build.vehicle].filter(Boolean).join(' ')),
    ...(of.length > 0 ? of : [p('No job is planned.')]),
    h2('Open'),
    ...(findings(input, ['stop', 'watch']).length > 0 ? [list(findings(input, ['stop', 'watch']))] : [p('Nothing.')]),
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

/** A label for the unit, 100 × 62 mm: what is in it, and the code that opens the build. */
export function label(input: PaperInput): TDocumentDefinitions {
  const { build, qr, shop, day } = input;
  const lines = labelFacts(input);
  const dry = axlesOf(input).some(
    (name) =>
      input.derived.work[name]?.steps
        .find((one) => one.step.id === 'fill')
        ?.records.find((one) => one.record.id === 'filled')
        ?.said?.startsWith('dry') ?? false,
  );
  return {
    ...page(input, 'label', []),
    header: undefined as never,
    footer: undefined as never,
    pageSize: { width: 283.5, height: 175.7 },
    pageMargins: [10, 10, 10, 8],
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: plain(build.name), fontSize: 15, bold: true },
              ...(dry ? [{ text: 'NO OIL IN IT', fontSize: 16, bold: true, color: '#b3261e' }] : []),
              ...lines.slice(1).map((text) => ({ text: plain(text), fontSize: 8 })),
              {
                text: plain([shop.name, day].filter(Boolean).join(' · ')),
                fontSize: 7,
                color: '#555555',
                margin: [0, 3, 0, 0],
              },
            ],
          },
          { svg: qr.svg, width: 118 },
        ],
      },
    ],
  };
}

/** The few facts that a label carries, the name of the build first. */
export function labelFacts(input: Omit<PaperInput, 'qr'>): readonly string[] {
  const { build, derived, systems } = input;
  const whole = input as PaperInput;
  const lines = [build.name];
  for (const name of axlesOf(whole)) {
    const axle = build.axles[name];
    if (!axle) continue;
    const said = (step: string, record: string): string | null =>
      derived.work[name]?.steps.find((one) => one.step.id === step)?.records.find((one) => one.record.id === record)
        ?.said ?? null;
    const { ring, pinion } = axle.finalDrive;
    const at = axleTitle(whole, name);
    lines.push(`${at}${ring}/${pinion} ${(ring / pinion).toFixed(3)}, ${axle.unit.type.replace(/-/g, ' ')}`);
    const [least, most, preload] = [meshFigures.least(name), meshFigures.most(name), preloadFigures.pinion(name)].map(
      (id) => figureText({ ...whole, systems: systems.slice(0, 1) }, id),
    );
    if (least && most) lines.push(`${at}backlash ${least}–${most}`);
    if (preload) lines.push(`${at}preload ${preload}`);
    const used = usedTorque(axle);
    if (used) lines.push(`${at}ring bolts ${say(used.nm, 'torque', systems[0] ?? 'metric', 0, 'bolt')}`);
    const oil = [said('fill', 'grade'), said('fill', 'volume')].filter(Boolean).join(' ');
    if (oil) lines.push(`${at}oil ${oil}`);
    const gates = derived.gates[name];
    if (gates)
      lines.push(
        `${at}${GATES.map((gate) => `gate ${gate} ${gates[gate].open ? (gates[gate].signature?.name ?? '') : 'open'}`).join(', ')}`,
      );
  }
  return lines.map(plain);
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
  'hand-over': { name: 'Hand-over letter', about: 'What was done, what the driver must do, and when.', make: handOver },
  label: { name: 'Label for the unit', about: 'A code that opens the build and carries what was read.', make: label },
} as const;
export type PaperName = keyof typeof PAPERS;
