import {
  assemblyOrder,
  isReverse,
  say,
  takingApart,
  type BoxAct,
  type BoxShaft,
  type Restack,
  type UnitSystem,
} from '@hot-spline/core';
import type { BoxInside, BoxPieceSpec } from '../library/box';
import type { BoxWork } from './schema';
import { SHAFT_WORDS } from './readings';
import { cutPieces, gearPairs, stackedBox } from './state';

/** One step of a box that comes apart or goes together. */
export interface BoxRoundStep {
  /** Under which it is ticked off, within its way and round. */
  readonly id: string;
  readonly act: BoxAct['act'];
  readonly shaft: BoxShaft;
  readonly piece: BoxPieceSpec | null;
  /** Of a nut: it closes what stands before the collar. */
  readonly before: boolean;
}

export interface BoxRound {
  readonly round: number;
  /** Only these pieces are in hand; null: all of it. */
  readonly pieces: readonly string[] | null;
  readonly apart: readonly BoxRoundStep[];
  readonly together: readonly BoxRoundStep[];
}

export const WHOLE_BOX: BoxWork = { round: 1, pieces: null };

/** The pieces in hand of a stack that became another one. */
export const piecesOf = ({ off, on }: Restack): string[] => [...new Set([...off, ...on].map(({ piece }) => piece.id))];

/**
 * What comes apart and goes together in the round that is in hand, from the stack itself: taking apart is the order reversed, and nothing
 * is written twice. Of a part of the stack only the shafts that it lies on are opened; both come out of the case.
 */
export function boxRound(inside: BoxInside, work: BoxWork | null): BoxRound {
  const { round, pieces } = work ?? WHOLE_BOX;
  const stacked = stackedBox(inside, { driving: 0, driven: 0 });
  const all = new Map(
    (['driving', 'driven'] as const).flatMap((shaft) => inside.shafts[shaft].pieces.map((one) => [one.id, one])),
  );
  const touched = (shaft: BoxShaft): boolean =>
    pieces === null || inside.shafts[shaft].pieces.some(({ id }) => pieces.includes(id));
  const own = (act: BoxAct): boolean => {
    switch (act.act) {
      case 'piece':
        return pieces === null || pieces.includes(act.piece.id);
      case 'run-out-before':
        return pieces === null;
      case 'into-case':
        return true;
      default:
        return touched(act.shaft);
    }
  };
  const step = (act: BoxAct): BoxRoundStep => {
    const before = 'before' in act && act.before;
    return {
      id: act.act === 'piece' ? `${act.shaft}.${act.piece.id}` : `${act.shaft}.${act.act}${before ? '-before' : ''}`,
      act: act.act,
      shaft: act.shaft,
      piece: act.act === 'piece' ? (all.get(act.piece.id) ?? null) : null,
      before,
    };
  };
  const order = assemblyOrder(stacked, cutPieces(inside)).filter(own);
  return { round, pieces, apart: takingApart(order).map(step), together: order.map(step) };
}

const KINDS: Readonly<Record<BoxPieceSpec['kind'], string>> = {
  gear: 'Gear',
  hub: 'Hub',
  spacer: 'Spacer',
  washer: 'Washer',
  bearing: 'Bearing',
  clip: 'Clip',
  collar: 'Collar',
};

/** What a piece is called. */
export function pieceName(inside: BoxInside, piece: BoxPieceSpec): string {
  if (piece.name !== '') return piece.name;
  const pair = inside.pairs.find(({ id }) => id === piece.pair);
  if (!pair) return KINDS[piece.kind];
  const on = inside.shafts.driving.pieces.includes(piece);
  const teeth = on === !pair.constant ? pair.driver : pair.driven;
  const gear = pair.constant
    ? 'Constant gear'
    : isReverse(pair)
      ? 'Reverse gear'
      : `Gear ${gearPairs(inside).indexOf(pair) + 1}`;
  return `${gear}, ${teeth} teeth`;
}

export interface StepWords {
  readonly title: string;
  readonly does: readonly string[];
  readonly caution: string | null;
}

const HEAT = 'Hot parts and a loaded press: gloves and face shield.';

function pieceWords(inside: BoxInside, piece: BoxPieceSpec, apart: boolean): StepWords {
  const name = pieceName(inside, piece);
  const how = {
    slide: apart ? 'Slides off.' : 'Slides on.',
    press: apart ? 'Pressed off: carry the ring that the fit is on.' : 'Pressed on, straight, home by feel.',
    warm: apart ? 'Warmed, then off without force.' : 'Warmed, then on without force; held home until it is cold.',
  }[piece.fit];
  const does = apart
    ? [how, 'Laid down in its order, the same face up.']
    : [
        how,
        piece.oiled ? 'Oiled.' : 'Dry.',
        ...(piece.face === '' ? [] : [`${piece.face[0]?.toUpperCase()}${piece.face.slice(1)}.`]),
      ];
  const turns = !apart && piece.loose ? ['It turns freely, with play on its sleeve.'] : [];
  return {
    title: apart ? `${name} off` : `${name} on`,
    does: [...does, ...turns],
    caution: piece.fit === 'slide' ? null : HEAT,
  };
}

/** A step in words: common practice, no published source. */
export function stepWords(
  inside: BoxInside,
  step: BoxRoundStep,
  way: 'apart' | 'together',
  system: UnitSystem,
): StepWords {
  const { runOut, ...closing } = inside.shafts[step.shaft];
  const { nutTorque } = (step.before ? closing.before : null) ?? closing;
  const nut = `Nut${step.before ? ' before the collar' : ''}`;
  const shaft = SHAFT_WORDS[step.shaft];
  const apart = way === 'apart';
  const limit = runOut
    ? `At most ${say(runOut.value, 'length', system, undefined, 'small')} by its sheet.`
    : 'Its limit is its builder’s word: it is not said here.';
  switch (step.act) {
    case 'piece':
      return step.piece
        ? pieceWords(inside, step.piece, apart)
        : { title: 'A piece that is no longer in the stack', does: [], caution: null };
    case 'run-out-before':
      return {
        title: `Run-out of the bare ${shaft}`,
        does: [
          'On V-blocks at its bearing seats, nowhere else.',
          limit,
          'Pressed straight only where its builder allows it.',
        ],
        caution: null,
      };
    case 'run-out-after':
      return {
        title: `Run-out of the ${shaft} again`,
        does: [
          'On V-blocks at its bearing seats, after the torque.',
          limit,
          'Over it: loosen, turn the pieces against each other, again.',
        ],
        caution: null,
      };
    case 'nut':
      return {
        title: apart ? `${nut} of the ${shaft} off` : `${nut} of the ${shaft} to torque`,
        does: apart
          ? ['Unlocked before; held at its splines, not at a gear.']
          : [
              nutTorque
                ? `${nutTorque.typed}, by its sheet.`
                : 'Its torque is its builder’s word: it is not said here.',
              'Held at its splines, not at a gear.',
            ],
        caution: null,
      };
    case 'lock':
      return {
        title: apart ? `${nut} of the ${shaft} unlocked` : `${nut} of the ${shaft} locked`,
        does: [
          apart
            ? 'Tab or stake opened; a tab is used once.'
            : 'Last of all on this shaft, after every check; a tab is used once.',
        ],
        caution: null,
      };
    case 'into-case':
      return {
        title: apart
          ? `${shaft[0]?.toUpperCase()}${shaft.slice(1)} out of the case`
          : `${shaft[0]?.toUpperCase()}${shaft.slice(1)} into the case`,
        does: apart
          ? ['Drum, selector shaft and forks out before it; count what comes out.']
          : [
              'Both shafts together where they mesh, forks in their rings, then selector shaft, then drum.',
              'All gears by hand, and back.',
            ],
        caution: null,
      };
  }
}
