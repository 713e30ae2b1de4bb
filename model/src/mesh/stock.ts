import { InputError, entryBase, type Entry } from '@hot-spline/core';
import { AXLES, type AxleName } from '../base/names';
import type { Readings } from '../frame/readings';
import type { ReadingValue } from '../frame/values';
import type { ShimBox } from '../library/schema';
import { assembled, spacerIn } from './readings';

/** Pieces that one axle holds, and the drawers that they may have come out of. */
export interface Holding {
  readonly axle: AxleName;
  /** Ids in the library. */
  readonly drawers: readonly string[];
  readonly piecesMm: readonly number[];
}

/** A drawer by its id. */
export interface Drawer {
  readonly id: string;
  readonly spec: Pick<ShimBox, 'name' | 'pieces'>;
}

type Assembled = Extract<ReadingValue, { of: 'assembly' }>;

/** Two thicknesses that are one: less than a micrometer tells apart. */
const SAME_MM = 0.0006;
const alike = (a: number, b: number): boolean => Math.abs(a - b) < SAME_MM;

const NUMBERS = Array.from({ length: 100 }, (_, i) => i);

const piecesOf = (of: Assembled | null): number[] => (of ? [...of.pinion, ...of.left, ...of.right].map(entryBase) : []);

/** What is in an axle out of drawers: what was put together, less what came with it. */
export function heldBy(axle: AxleName, now: Assembled, came: Assembled | null): readonly Holding[] {
  const own = piecesOf(came);
  const taken = piecesOf(now).filter((mm) => {
    const i = own.findIndex((one) => alike(one, mm));
    if (i >= 0) own.splice(i, 1);
    return i < 0;
  });
  const drawers = now.drawers ?? [];
  return drawers.length > 0 && taken.length > 0 ? [{ axle, drawers, piecesMm: taken }] : [];
}

/**
 * What the axles of a build hold out of drawers: what was put together last, and every collapsible spacer that went in. A reading
 * that is voided holds nothing: what was in before is in again.
 */
export function holdingsOf(readings: Readings): readonly Holding[] {
  return AXLES.flatMap((axle): readonly Holding[] => {
    const at = (number: number): Assembled | null => {
      const value = readings.get(assembled.key({ axle, assembly: String(number) }))?.value;
      return value?.of === 'assembly' ? value : null;
    };
    const now = [...NUMBERS]
      .reverse()
      .map(at)
      .find((one) => one !== null);
    const spacers = [...readings.values()].flatMap((reading): Holding[] => {
      const about = spacerIn.read(reading.subject);
      const length = reading.value.of === 'number' ? reading.value.entries[0] : undefined;
      return about?.axle === axle && length ? [{ axle, drawers: [about.drawer], piecesMm: [entryBase(length)] }] : [];
    });
    return [...(now ? heldBy(axle, now, at(0)) : []), ...spacers];
  });
}

/** How many of each row of each drawer are fitted somewhere; a piece that none of its drawers holds came from elsewhere. */
export function takenFrom(
  drawers: readonly Drawer[],
  holdings: readonly Holding[],
): ReadonlyMap<string, readonly number[]> {
  const taken = new Map(drawers.map(({ id, spec }) => [id, spec.pieces.map(() => 0)]));
  for (const { drawers: from, piecesMm } of holdings)
    for (const mm of piecesMm) {
      const rows = from.flatMap((id) => {
        const [drawer, counts] = [drawers.find((one) => one.id === id), taken.get(id)];
        const row = drawer?.spec.pieces.findIndex(({ thickness }) => alike(entryBase(thickness), mm)) ?? -1;
        const piece = drawer?.spec.pieces[row];
        return piece && counts ? [{ counts, row, free: piece.count - (counts[row] as number) }] : [];
      });
      // Of two drawers that hold it, out of one where it is free.
      const out = rows.find(({ free }) => free > 0) ?? rows[0];
      if (out) out.counts[out.row] = (out.counts[out.row] as number) + 1;
    }
  return taken;
}

/** What is free of each row of a drawer, thinnest first; less than none where more is fitted than there is: count it again. */
export function freeIn(
  drawer: Drawer,
  taken: ReadonlyMap<string, readonly number[]>,
): readonly { readonly mm: number; readonly free: number }[] {
  const counts = taken.get(drawer.id) ?? [];
  return drawer.spec.pieces
    .map(({ thickness, count }, i) => ({ mm: entryBase(thickness), free: count - (counts[i] ?? 0) }))
    .sort((a, b) => a.mm - b.mm);
}

/**
 * Refuses what would take more out of a drawer than is free. What a build holds already is not asked for again, even where more is
 * fitted than there is.
 * @param next what the build is to hold
 * @param now what it holds
 * @param others what all other builds hold
 * @throws InputError on `value` naming drawer and piece
 */
export function requireInStock(
  drawers: readonly Drawer[],
  next: readonly Holding[],
  now: readonly Holding[],
  others: readonly Holding[],
): void {
  const before = takenFrom(drawers, [...others, ...now]);
  const after = takenFrom(drawers, [...others, ...next]);
  for (const drawer of drawers)
    drawer.spec.pieces.forEach(({ thickness, count }, i) => {
      const [was, is] = [before.get(drawer.id)?.[i] ?? 0, after.get(drawer.id)?.[i] ?? 0];
      if (is > was && is > count)
        throw new InputError(
          'value',
          `value takes ${is - was} × ${said(thickness)} more out of “${drawer.spec.name}”, where ${Math.max(0, count - was)} of ${count} are free.`,
          'pieces that are free, or a drawer that was counted again',
        );
    });
}

const said = ({ typed, unit }: Entry): string => (/[a-z"″”]/i.test(typed) || unit === '' ? typed : `${typed} ${unit}`);
