import {
  WORTH_AN_ASSEMBLY,
  saySmall,
  type MeshAdvice,
  type Observed,
  type Suspect,
  type UnitSystem,
} from '@hot-spline/core';
import { moveWords, patchWords, type MeshAxle } from '@hot-spline/model';
import { CENTRED } from './patch';

const READING_WORDS: Readonly<Record<Observed, string>> = {
  backlash: 'Backlash',
  'drive.u': 'Drive side, lengthwise,',
  'drive.v': 'Drive side, height,',
  'coast.u': 'Coast side, lengthwise,',
  'coast.v': 'Coast side, height,',
};

/** What may be the other way round than it was told: how it is said, and what is written when it is turned. */
export const SUSPECT_WORDS: Readonly<Record<Suspect, { says: string; about: string; turned: string; turn: string }>> = {
  'pinion-sign': {
    says: 'The shim moves the pinion the other way here',
    about: 'what the pinion shim does',
    turned: 'turned round',
    turn: 'It does: turn it round',
  },
  'ring-side': {
    says: 'The back of the ring looks at the other side',
    about: 'side of the ring',
    turned: 'turned round',
    turn: 'It does: turn it round',
  },
  'flanks-swapped': {
    says: 'Drive and coast are swapped: convex is drive',
    about: 'flanks',
    turned: 'drive and coast were swapped',
    turn: '',
  },
};

/** What there is to do now. `put`: whether an assembly is proposed, or only possible all the same. */
export interface NextSays {
  readonly title: string;
  readonly lines: readonly string[];
  readonly doubts: readonly string[];
  /** What may be the other way round; `turn` is the word on the button, empty where nothing is turned by one. */
  readonly suspect: { readonly what: Suspect; readonly text: string; readonly turn: string } | null;
  /** Percent that all is in band then, or, where it is done, that it truly is. */
  readonly chance: number | null;
  readonly put: 'main' | 'all-the-same' | 'none';
  readonly done: boolean;
  /** What else could be done; not proposed. */
  readonly others: readonly string[];
}

type Now = Omit<MeshAxle, 'now'> & { readonly now: NonNullable<MeshAxle['now']> };

const percent = (chance: number): number => Math.round(100 * chance);

/** What contradicts itself, and where to look. */
const LOOK_AT = [
  'Fewer than one axle in a thousand of this construction reads like this (ours). Before anything is taken apart, look at:',
  'the side that the back of the ring looks at; which way the shim moves the pinion; drive and coast;',
  'the gear pair by its match numbers; a cocked seat: backlash place by place, dirt or a burr under the ring.',
] as const;

const needsWords = {
  pattern: {
    title: 'Paint it first',
    lines: ['Backlash alone says little of depth. Paste on five teeth, turned under drag both ways, both flanks laid.'],
  },
  backlash: {
    title: 'Read the backlash all round',
    lines: ['In band on a place or two is not in band: four places at least (ours), better eight.'],
  },
} as const;

/** The advice in shop words: one thing to do, and no assembly where a reading comes first or none is worth it. */
export function nextSays(
  advice: MeshAdvice,
  mesh: Now,
  { system, taught }: { readonly system: UnitSystem; readonly taught: number },
): NextSays {
  const small = (mm: number): string => saySmall(mm, system);
  const doubts = advice.doubtful.map(
    ({ try: i, reading, chance }) =>
      `${READING_WORDS[reading]} of assembly ${mesh.tries[i] ?? i + 1} doesn’t fit the others: ${percent(chance)} % that it ${
        reading === 'backlash' ? 'was read in another state, or slipped' : 'is simply wrong'
      }.`,
  );
  const [first] = advice.suspects;
  const suspect = first
    ? {
        what: first.what,
        text: `${SUSPECT_WORDS[first.what].says}: ${percent(first.chance)} % by all that was read.${advice.as ? ' What stands here goes by that.' : ''}`,
        turn: advice.as ? SUSPECT_WORDS[first.what].turn : '',
      }
    : null;
  const nothing = { lines: [], doubts, suspect, chance: null, put: 'none', done: false, others: [] } as const;
  if (advice.needs) return { ...nothing, ...needsWords[advice.needs], doubts: [] };
  const { next, expected, chanceInSpec, secondBest, readAgain, belowZeroMm } = advice;
  const chance = chanceInSpec === null ? null : percent(chanceInSpec);
  if (readAgain?.why === 'unlikely')
    return {
      ...nothing,
      title: 'Read the backlash again',
      lines: [
        'All that was read before speaks against it. A gauge is believed: read the same again and the ring moves; else it was a slip.',
      ],
    };
  if (advice.done)
    return {
      ...nothing,
      title: 'All of it is in band.',
      lines: readAgain ? [againWords(readAgain)] : [],
      chance,
      done: true,
    };
  if (advice.contradiction !== null && !advice.as)
    return { ...nothing, title: 'These readings contradict each other', lines: LOOK_AT };
  if (!next || !expected) return { ...nothing, title: 'Nothing to propose' };
  const shim = next.pinionShimMm - mesh.now.pinionMm;
  const ring = next.ringShiftMm - mesh.now.ringMm;
  const still = Math.abs(shim) < 0.004 && Math.abs(ring) < 0.004;
  const pieces = next.piecesMm && next.piecesMm.length > 1 ? ` (${next.piecesMm.map(small).join(' + ')})` : '';
  const depth =
    Math.abs(shim) < 0.004
      ? 'Pinion shim stays.'
      : `Pinion shim ${small(mesh.now.pinionMm)} to ${small(next.pinionShimMm)}${pieces}: ${small(shim)} ${shim > 0 ? 'more' : 'less'}.`;
  // Where the ring looks the other way, what brings it closer is said for the side that it truly looks at.
  const turned = advice.as === 'ring-side';
  const side = turned === (mesh.setup.ringSide === 'left') ? 'right' : 'left';
  const move =
    Math.abs(ring) < 0.004
      ? 'Ring stays.'
      : moveWords(turned ? -ring : ring, mesh.ringBy, side, mesh.notchMm, mesh.setup.sideShims, system);
  const patch = (flank: 'drive' | 'coast'): string => patchWords({ ...CENTRED, ...expected[flank] });
  const none =
    belowZeroMm === null
      ? []
      : [
          `The readings ask for a pinion shim of ${small(belowZeroMm)}: less than none. Look at the sign, the bearing at the head and the marks; what stands here is as near as shims go.`,
        ];
  const lines = [
    ...none,
    ...(still ? [] : [depth, move]),
    ...(taught > 0 ? [`Knows ${taught} ${taught === 1 ? 'axle' : 'axles'} of this spec from before.`] : []),
    `Expect backlash ${small(expected.backlashMm)}, drive ${patch('drive')}, coast ${patch('coast')}.`,
  ];
  const others = secondBest
    ? [
        `Second best: shim ${small(secondBest.pinionShimMm)}, ring ${small(secondBest.ringShiftMm - mesh.now.ringMm)} ${secondBest.ringShiftMm > mesh.now.ringMm ? 'toward the pinion' : 'away'}, ${percent(secondBest.chanceInSpec)} %.`,
      ]
    : [];
  const common = { ...nothing, lines, chance, others };
  if (advice.out.length === 0)
    return {
      ...common,
      title: 'In band as it reads, not yet sure',
      lines: [
        'By what was read before, another place is clearly likelier. Read pattern and backlash again before anything is taken apart.',
      ],
      others: [...lines, ...others],
      put: 'all-the-same',
    };
  if ((chanceInSpec ?? 0) < WORTH_AN_ASSEMBLY)
    return {
      ...common,
      title: 'No move is worth an assembly yet',
      lines: [
        `The likeliest one has ${chance ?? 0} %; below ${percent(WORTH_AN_ASSEMBLY)} % (ours) it is not proposed. Read again what doesn’t fit, or look at run-out and band.`,
      ],
      others: [...lines, ...others],
      put: 'all-the-same',
    };
  if (readAgain)
    return {
      ...common,
      title: readAgain.reading === 'pattern' ? 'Read the pattern again first' : 'Read the backlash again first',
      lines: [againWords(readAgain)],
      others: [...lines, ...others],
      put: 'all-the-same',
    };
  return { ...common, title: still ? 'Stay, and read again' : `Assembly ${mesh.now.number + 1}`, put: 'main' };
}

const againWords = ({ reading, chanceInSpec }: NonNullable<MeshAdvice['readAgain']>): string =>
  `${reading === 'pattern' ? 'Fresh paste, ring braked' : 'All round, on the same places'}: a minute’s work, and it brings the chance to ${percent(chanceInSpec)} %.`;
