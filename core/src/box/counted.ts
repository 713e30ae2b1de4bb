import { InputError, requireNumber } from '../base/errors';

/** A place of a unit: so many bolts, seals, rings or sensors, and what has to be in before it. */
export interface CountedPlace {
  readonly id: string;
  readonly count: number;
  readonly after: readonly string[];
}

export interface Counted {
  /** Places of which something is still out, with how many. */
  readonly out: readonly { readonly id: string; readonly missing: number }[];
  /** Places where more went in than came out, or than there are: one is from elsewhere, or was counted twice. */
  readonly over: readonly { readonly id: string; readonly by: number }[];
  /** Places that went in while something that they wait for was out. */
  readonly early: readonly { readonly id: string; readonly waitsFor: readonly string[] }[];
  /** Anything came out, and all of it is in again, in its order. */
  readonly closed: boolean;
}

/** Places that wait for each other in a circle; empty where none do. */
export function circleOf(places: readonly CountedPlace[]): readonly string[] {
  const state = new Map<string, 'open' | 'done'>();
  const walk = (id: string, path: readonly string[]): readonly string[] => {
    if (state.get(id) === 'done') return [];
    if (state.get(id) === 'open') return path.slice(path.indexOf(id));
    state.set(id, 'open');
    for (const next of places.find((place) => place.id === id)?.after ?? []) {
      const found = walk(next, [...path, id]);
      if (found.length > 0) return found;
    }
    state.set(id, 'done');
    return [];
  };
  for (const { id } of places) {
    const found = walk(id, []);
    if (found.length > 0) return found;
  }
  return [];
}

/**
 * What is out of a unit, place by place: everything counted out is counted in, and what waits for something goes in behind it
 * (common practice; arithmetic).
 * @param out how many came out of each place; a place that is not named was not opened
 * @param back how many went in again
 * @throws InputError naming the field; on `places` where they wait for each other in a circle
 */
export function countedBack(
  places: readonly CountedPlace[],
  out: ReadonlyMap<string, number>,
  back: ReadonlyMap<string, number>,
): Counted {
  const circle = circleOf(places);
  if (circle.length > 0)
    throw new InputError('places', `places wait for each other: ${circle.join(', ')}.`, 'an order that ends');
  const many = (of: ReadonlyMap<string, number>, name: string, id: string): number =>
    requireNumber(`${name}.${id}`, of.get(id) ?? 0, { min: 0, max: 999, integer: true });
  const rows = places.map(({ id, count, after }) => ({
    id,
    after,
    count,
    out: many(out, 'out', id),
    in: many(back, 'in', id),
  }));
  const missing = (id: string): number => {
    const row = rows.find((one) => one.id === id);
    return row ? Math.max(0, row.out - row.in) : 0;
  };
  const left = rows.flatMap(({ id }) => (missing(id) > 0 ? [{ id, missing: missing(id) }] : []));
  const over = rows.flatMap(({ id, out: o, in: i, count }) => {
    const by = Math.max(i - o, o - count);
    return by > 0 ? [{ id, by }] : [];
  });
  const early = rows.flatMap(({ id, in: i, after }) => {
    const waitsFor = after.filter((one) => missing(one) > 0);
    return i > 0 && waitsFor.length > 0 ? [{ id, waitsFor }] : [];
  });
  const opened = rows.some((row) => row.out > 0);
  return { out: left, over, early, closed: opened && left.length === 0 && over.length === 0 && early.length === 0 };
}
