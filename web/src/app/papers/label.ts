import { say } from '@hot-spline/core';
import {
  GATES,
  UNIT_TYPE_WORDS,
  meshFigures,
  patchWords,
  patternOf,
  preloadFigures,
  usedTorque,
  type AxleName,
} from '@hot-spline/model';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { LABEL_SIZES } from './label-sizes';
import { axleTitle, axlesOf, figureText, page } from './blocks';
import { saidAt } from './letter';
import { plain, type PaperInput } from './paper';

const POINTS = 72 / 25.4;

/** A label for the unit: what is in it, and the code that opens the build. */
export function label(input: PaperInput): TDocumentDefinitions {
  const { build, qr, shop, day } = input;
  const { wide, high, code, name: big, fact } = LABEL_SIZES[input.labelSize];
  const dry = axlesOf(input).some((name) => saidAt(input, name)('fill', 'filled')?.startsWith('dry') ?? false);
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
              ...(dry ? [{ text: 'NO OIL IN IT', fontSize: big + 1, bold: true, color: '#b3261e' }] : []),
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

/** What a label says of one axle: what somebody has to know before they put a wrench on it. */
function factsOf(input: PaperInput, name: AxleName): string[] {
  const { build, derived, systems } = input;
  const axle = build.axles[name];
  if (!axle) return [];
  const said = saidAt(input, name);
  const one = { ...input, systems: systems.slice(0, 1) };
  const figure = (id: Parameters<typeof figureText>[1]): string | null => figureText(one, id);
  const { ring, pinion } = axle.finalDrive;
  const hand = axle.identity?.ringBolts?.value.hand ?? said('ring-off', 'hand');
  const now = derived.mesh[name]?.now ?? null;
  const seen = now && patternOf(now);
  const [least, most, preload, shim] = [
    meshFigures.least(name),
    meshFigures.most(name),
    preloadFigures.pinion(name),
    meshFigures.shim(name),
  ].map(figure);
  const small = (mm: number): string => say(mm, 'length', systems[0] ?? 'metric', undefined, 'small');
  const sides = now && now.leftMm + now.rightMm > 0 ? `, sides ${small(now.leftMm)} / ${small(now.rightMm)}` : '';
  const used = usedTorque(axle);
  const numbers = (axle.work?.parts ?? []).filter(({ number }) => number !== '').slice(0, 3);
  const oil = [said('fill', 'grade'), said('fill', 'volume')].filter(Boolean).join(' ');
  const gates = derived.gates[name];
  return [
    `${ring}/${pinion} ${(ring / pinion).toFixed(3)}, ${UNIT_TYPE_WORDS[axle.unit.type].name}`,
    ...(hand ? [`ring bolts ${hand.toUpperCase()}-hand thread`] : []),
    ...(used ? [`ring bolts ${say(used.nm, 'torque', systems[0] ?? 'metric', 0, 'bolt')}`] : []),
    ...(shim ? [`pinion shim ${shim}${sides}`] : []),
    ...(least && most ? [`backlash ${least}–${most}`] : []),
    ...(seen ? [`drive ${patchWords(seen.value.drive)}; coast ${patchWords(seen.value.coast)}`] : []),
    ...(preload ? [`preload ${preload}`] : []),
    ...(oil ? [`oil ${oil}`] : []),
    ...numbers.map(({ name: part, number }) => `${part} no. ${number}`),
    ...(gates
      ? [
          GATES.map((gate) => `gate ${gate} ${gates[gate].open ? (gates[gate].signature?.name ?? '') : 'open'}`).join(
            ', ',
          ),
        ]
      : []),
  ];
}

/** The few facts that a label carries, the name of the build first. */
export function labelFacts(input: Omit<PaperInput, 'qr'>): readonly string[] {
  const whole = input as PaperInput;
  return [
    input.build.name,
    ...axlesOf(whole).flatMap((name) => factsOf(whole, name).map((line) => `${axleTitle(whole, name)}${line}`)),
  ].map(plain);
}
