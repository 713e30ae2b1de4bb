import { BOX_SHAFTS, heaps, teethOn, type BoxPiece, type BoxShaft, type BoxStack, type StackedBox } from './stacked';

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
  return JSON.stringify([
    piece,
    pair ? [teethOn(pair, shaft), pair.idler, pair.shiftSum, pair.driverHand, pair.drivenHand] : null,
  ]);
}

/**
 * What comes off and goes on where one stack becomes another: from what closes it down to the deepest piece that is another one, and up
 * again. A gear that is cut on its shaft takes the shaft with it: all of it comes off.
 * Pieces on either side of a collar come off on their own side.
 * Not counted: what has to come out of the case before.
 * @param cut ids of pieces that are one with their shaft
 */
export function restack(before: StackedBox, after: StackedBox, cut: readonly string[]): Restack {
  const perShaft = BOX_SHAFTS.map((shaft) => {
    const [old, now] = [before.shafts[shaft].pieces, after.shafts[shaft].pieces];
    const was = new Map(old.map((piece) => [piece.id, what(before, shaft, piece)]));
    const is = new Map(now.map((piece) => [piece.id, what(after, shaft, piece)]));
    const known = { was: new Set(was.values()), is: new Set(is.values()) };
    const one = [...cut, ...old.filter(({ kind }) => kind === 'collar').map(({ id }) => id)];
    const itself = one.some((id) => was.has(id) && was.get(id) !== is.get(id));
    const [from, to] = [heaps(old, ({ kind }) => kind), heaps(now, ({ kind }) => kind)];
    const sides = (['before', 'after'] as const).map((side) => {
      const [a, b] = [from[side], to[side]];
      let deepest = 0;
      while (
        deepest < Math.max(a.length, b.length) &&
        same(was.get(a[deepest]?.id ?? ''), is.get(b[deepest]?.id ?? ''))
      )
        deepest++;
      const start = itself ? 0 : deepest;
      return {
        off: a
          .slice(start)
          .map((piece): RestackMove => ({ shaft, piece, other: !known.is.has(was.get(piece.id) as string) }))
          .reverse(),
        on: b
          .slice(start)
          .map((piece): RestackMove => ({ shaft, piece, other: !known.was.has(is.get(piece.id) as string) })),
      };
    });
    return { shaft, itself, off: sides.flatMap(({ off }) => off), on: sides.flatMap(({ on }) => on) };
  });
  return {
    off: perShaft.flatMap(({ off }) => off),
    on: perShaft.flatMap(({ on }) => on),
    shafts: perShaft.filter(({ itself }) => itself).map(({ shaft }) => shaft),
  };
}

const same = (was: string | undefined, is: string | undefined): boolean => was !== undefined && was === is;

/** One thing that is done to a shaft while it is put together. A nut that closes what stands before a collar is another one. */
export type BoxAct =
  | { readonly act: 'run-out-before' | 'run-out-after' | 'into-case'; readonly shaft: BoxShaft }
  | { readonly act: 'nut' | 'lock'; readonly shaft: BoxShaft; readonly before: boolean }
  | { readonly act: 'piece'; readonly shaft: BoxShaft; readonly piece: BoxPiece };

/** One shaft: each side of a collar from its shoulder on, closed before the other one is begun; locked after every check. */
function shaftOrder({ pieces, closed, before }: BoxStack, shaft: BoxShaft, cut: readonly string[]): readonly BoxAct[] {
  const sides = heaps(pieces, ({ kind }) => kind);
  const put = (heap: readonly BoxPiece[]): BoxAct[] =>
    heap.filter(({ id }) => !cut.includes(id)).map((piece) => ({ act: 'piece', shaft, piece }));
  const nuts = (act: 'nut' | 'lock', isBefore: boolean): BoxAct[] =>
    (isBefore ? before?.closed : closed) === 'nut' ? [{ act, shaft, before: isBefore }] : [];
  return [
    { act: 'run-out-before', shaft },
    ...put(sides.before),
    ...nuts('nut', true),
    ...put(sides.after),
    ...nuts('nut', false),
    { act: 'run-out-after', shaft },
    ...nuts('lock', true),
    ...nuts('lock', false),
  ];
}

/**
 * The order in which a box is put together: each shaft bare on its bearing seats, every piece from the shoulder on, what closes it, run-out
 * once more, what locks the nut after all checks (common practice); then into the case. Pieces that are one with their shaft go with it.
 */
export function assemblyOrder(box: StackedBox, cut: readonly string[]): readonly BoxAct[] {
  const shafts = BOX_SHAFTS.flatMap((shaft) => shaftOrder(box.shafts[shaft], shaft, cut));
  return [...shafts, ...BOX_SHAFTS.map((shaft): BoxAct => ({ act: 'into-case', shaft }))];
}

/** The order in which it comes apart: the order of putting together, reversed; what is only read on the way is left out. */
export const takingApart = (order: readonly BoxAct[]): readonly BoxAct[] =>
  order.filter(({ act }) => act !== 'run-out-before' && act !== 'run-out-after').toReversed();
