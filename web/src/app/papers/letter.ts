import { entryBase } from '@hot-spline/core';
import {
  UNIT_TYPE_WORDS,
  capital,
  meshFigures,
  preloadFigures,
  usedTorque,
  voidedBy,
  type AxleName,
} from '@hot-spline/model';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { sheetText } from './against';
import { axleTitle, axlesOf, figureText, h2, list, p, page, table } from './blocks';
import { inSystems, plain, type PaperInput } from './paper';

const RUN_IN: Readonly<Record<string, string>> = {
  'heat-cycles': 'Heat cycles: drive it warm, let it cool fully, and again, as often as the table says.',
  'short-trips': 'Short trips at first, each cooled down fully before the next.',
  distance: 'The distance of the table without full throttle or towing, then change the oil.',
};

/** What was written down at a step; null where it was not. */
export const saidAt =
  ({ derived }: Pick<PaperInput, 'derived'>, axle: AxleName) =>
  (step: string, record: string): string | null =>
    derived.work[axle]?.steps.find((one) => one.step.id === step)?.records.find((one) => one.record.id === record)
      ?.said ?? null;

/** What was done to an axle, in words for who drives it. */
function done(input: PaperInput, name: AxleName): Content[] {
  const axle = input.build.axles[name];
  const facts = input.derived.work[name]?.facts;
  if (!axle) return [];
  const said = saidAt(input, name);
  const { ring, pinion } = axle.finalDrive;
  const ratio = `${ring}/${pinion}, ${(ring / pinion).toFixed(3)}`;
  const old = said('ring-off', 'old-pair');
  const oil = [said('fill', 'grade'), said('fill', 'volume')].filter(Boolean).join(', ');
  const additive = said('fill', 'additive');
  const gears =
    facts?.gears === 'stay'
      ? `Final drive ${ratio}: the gears that were in it.`
      : `Final drive ${ratio}${facts?.gears === 'used' ? ', another used pair' : ', new gears'}.${old ? ` Before: ${old}.` : ''}`;
  return [
    h2(capital(`${axleTitle(input, name)}what was done`)),
    list([
      gears,
      `In it: ${UNIT_TYPE_WORDS[axle.unit.type].name}${facts && facts.unit.startsWith('new') ? ', new' : facts?.unit === 'own-overhauled' ? ', overhauled' : ''}.`,
      ...(oil ? [`Oil: ${oil}${additive ? `, additive ${additive}` : ''}.`] : []),
    ]),
    ...(said('fill', 'filled')?.startsWith('dry')
      ? [{ text: 'THERE IS NO OIL IN IT. Fill it before it turns under load.', style: 'note', fontSize: 12 }]
      : []),
  ];
}

/** What it reads now, each with the band that it was held against. */
function reads(input: PaperInput, name: AxleName): Content[] {
  const axle = input.build.axles[name];
  if (!axle) return [];
  const of = (label: string, id: Parameters<typeof figureText>[1], band: string | null): string[][] => {
    const text = figureText(input, id);
    return text === null ? [] : [[label, text, band ?? 'not said']];
  };
  const bearings = input.derived.preload[name]?.last?.state.pinionBearings;
  const used = usedTorque(axle);
  const marked = input.derived.joint[name]?.rounds.find(({ stage }) => stage === 'marks')?.whole ?? false;
  const rows = [
    ...of('Backlash, least', meshFigures.least(name), sheetText(input, name, 'backlash')),
    ...of('Backlash, most', meshFigures.most(name), sheetText(input, name, 'backlash')),
    ...of(
      'Pinion turning torque',
      preloadFigures.pinion(name),
      sheetText(input, name, bearings === 'new' ? 'pinionTorqueNew' : 'pinionTorqueUsed'),
    ),
    ...(used
      ? [
          [
            'Ring bolts',
            inSystems(used.nm, 'torque', input.systems, 0, 'bolt'),
            marked ? 'marked bolt by bolt' : 'not ticked as marked',
          ],
        ]
      : []),
  ];
  return rows.length === 0
    ? []
    : [h2(capital(`${axleTitle(input, name)}what it reads`)), table(['', 'Read', 'Band'], rows, [170, 150, '*'])];
}

/** What who drives it has to do, and when. */
function todo(input: PaperInput, name: AxleName): Content[] {
  const axle = input.build.axles[name];
  if (!axle?.work) return [];
  const { derived, systems } = input;
  const { runIn } = axle.work;
  const due = derived.runin[name]?.due ?? [];
  const locks = ['selectable-locker', 'automatic-locker', 'spool'].includes(axle.unit.type);
  const loose = derived.work[name]?.facts.arrives === 'loose-unit';
  return [
    h2(capital(`${axleTitle(input, name)}what you must do`)),
    list([
      ...(loose ? ['Fill it with the oil of its sheet before it turns under load.'] : []),
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
      ...(locks ? ['Never raise one wheel with the engine in gear: it drives off its stands.'] : []),
    ]),
  ];
}

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
