import { BOX_SHAFTS, teethOn, type BoxPiece, type BoxShaft, type StackedBox } from './stacked';

/** A piece that comes off a shaft, or goes on it. */
export interface RestackMove {
  readonly shaft: BoxShaft;
  readonly piece: BoxPiece;
  /** It is another one than the one that was there. */
  readonly other: boolean;
}

export interface Restack {
  /** In the order in which it comes off, from what closes the stack on. */
  readonly off: readonly RestackMove[];
  readonly on: readonly RestackMove[];
  /** Shafts that are other ones themselves: a gear that is cut on them has other teeth. */
  readonly shafts: readonly BoxShaft[];
}

/** What a piece is: another width, other teeth, another place are another piece. */
function what(box: StackedBox, shaft: BoxShaft, piece: BoxPiece): string {
  const pair = box.pairs.find(({ id }) => id === piece.pair);
  return JSON.stringify([piece, pair ? [teethOn(pair, shaft), pair.shiftSum, pair.driverHand, pair.drivenHand] : null]);
}

/**
 * What comes off and goes on where one stack becomes another: from what closes it down to the deepest piece that is another one, and up
 * again. A gear that is cut on its shaft takes the shaft with it: all of it comes off.
 * Not counted: what has to come out of the case before; a shaft that is stacked from both ends.
 * @param cut ids of pieces that are one with their shaft
 */
export function restack(before: StackedBox, after: StackedBox, cut: readonly string[]): Restack {
  const perShaft = BOX_SHAFTS.map((shaft) => {
    const [old, now] = [before.shafts[shaft].pieces, after.shafts[shaft].pieces];
    const was = old.map((piece) => what(before, shaft, piece));
    const is = now.map((piece) => what(after, shaft, piece));
    let deepest = 0;
    while (deepest < Math.max(was.length, is.length) && was[deepest] === is[deepest]) deepest++;
    const itself = cut.some((id) => {
      const at = old.findIndex((piece) => piece.id === id);
      return at >= 0 && was[at] !== is[at];
    });
    const from = itself ? 0 : deepest;
    const move = (piece: BoxPiece, known: readonly string[], key: string): RestackMove => ({
      shaft,
      piece,
      other: !known.includes(key),
    });
    return {
      shaft,
      itself,
      off: old
        .map((piece, i) => move(piece, is, was[i] as string))
        .slice(from)
        .reverse(),
      on: now.map((piece, i) => move(piece, was, is[i] as string)).slice(from),
    };
  });
  return {
    off: perShaft.flatMap(({ off }) => off),
    on: perShaft.flatMap(({ on }) => on),
    shafts: perShaft.filter(({ itself }) => itself).map(({ shaft }) => shaft),
  };
}

/** One thing that is done to a shaft while it is put together. */
export type BoxAct =
  | { readonly act: 'run-out-before' | 'nut' | 'run-out-after' | 'lock' | 'into-case'; readonly shaft: BoxShaft }
  | { readonly act: 'piece'; readonly shaft: BoxShaft; readonly piece: BoxPiece };

/**
 * The order in which a box is put together: each shaft bare on its bearing seats, every piece from the shoulder on, what closes it, run-out
 * once more, what locks the nut after all checks (common practice); then into the case. Pieces that are one with their shaft go with it.
 */
export function assemblyOrder(box: StackedBox, cut: readonly string[]): readonly BoxAct[] {
  const shafts = BOX_SHAFTS.flatMap((shaft): BoxAct[] => [
    { act: 'run-out-before', shaft },
    ...box.shafts[shaft].pieces
      .filter(({ id }) => !cut.includes(id))
      .map((piece): BoxAct => ({ act: 'piece', shaft, piece })),
    ...(box.shafts[shaft].closed === 'nut'
      ? ([
          { act: 'nut', shaft },
          { act: 'run-out-after', shaft },
          { act: 'lock', shaft },
        ] as const)
      : ([{ act: 'run-out-after', shaft }] as const)),
  ]);
  return [...shafts, ...BOX_SHAFTS.map((shaft): BoxAct => ({ act: 'into-case', shaft }))];
}

/** The order in which it comes apart: the order of putting together, reversed; what is only read on the way is left out. */
export const takingApart = (order: readonly BoxAct[]): readonly BoxAct[] =>
  order.filter(({ act }) => act !== 'run-out-before' && act !== 'run-out-after').toReversed();
