/** Plain data of a document. */
type Plain = Readonly<Record<string, unknown>>;

/**
 * One place of a document at which two states differ. A step is a key; `#id` is the element of a list that carries that
 * id. Lists whose elements carry no ids, or other ids than before, are one place.
 */
export interface Change {
  readonly path: readonly string[];
  /** Undefined where nothing stood. */
  readonly before: unknown;
  readonly after: unknown;
}

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const idsOf = (list: readonly unknown[]): string[] | null => {
  const ids = list.map((one) => (isPlain(one) && typeof one['id'] === 'string' ? one['id'] : null));
  return ids.length > 0 && ids.every((id) => id !== null) ? ids : null;
};

/** A number with its text and unit, and the teeth of a pair: one value each, not several. */
const isEntry = (value: Plain): boolean =>
  ('typed' in value && 'value' in value && 'unit' in value) ||
  (typeof value['ring'] === 'number' && typeof value['pinion'] === 'number');

/** What is the same in both stays the same object: `after` with every unchanged part taken from `before`. */
export function share<T>(before: unknown, after: T): T {
  if (Object.is(before, after)) return after;
  if (Array.isArray(before) && Array.isArray(after)) {
    const ids = idsOf(before);
    const byId = new Map(ids?.map((id, i) => [id, before[i] as unknown]));
    const shared = after.map((one: unknown, i) => {
      const twin = isPlain(one) && typeof one['id'] === 'string' && ids ? byId.get(one['id']) : (before[i] as unknown);
      return share(twin, one);
    });
    const same = before.length === shared.length && shared.every((one, i) => Object.is(one, before[i]));
    return (same ? before : shared) as T;
  }
  if (isPlain(before) && isPlain(after)) {
    const keys = Object.keys(after);
    const shared = Object.fromEntries(keys.map((key) => [key, share(before[key], after[key])]));
    const same = Object.keys(before).length === keys.length && keys.every((key) => Object.is(shared[key], before[key]));
    return (same ? before : shared) as T;
  }
  return after;
}

/** Every place at which two states differ, as small as it can be. */
export function changesBetween(before: unknown, after: unknown, path: readonly string[] = []): Change[] {
  if (Object.is(before, after)) return [];
  if (isPlain(before) && isPlain(after) && !isEntry(before) && !isEntry(after) && before['kind'] === after['kind']) {
    const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
    return [...keys].flatMap((key) => changesBetween(before[key], after[key], [...path, key]));
  }
  if (Array.isArray(before) && Array.isArray(after)) {
    const [was, is] = [idsOf(before), idsOf(after)];
    if (was && is && was.length === is.length && was.every((id, i) => id === is[i]))
      return was.flatMap((id, i) => changesBetween(before[i], after[i], [...path, `#${id}`]));
  }
  const same = JSON.stringify(before) === JSON.stringify(after);
  return same ? [] : [{ path, before, after }];
}

function setAt(document: unknown, path: readonly string[], value: unknown): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return value;
  if (step.startsWith('#')) {
    if (!Array.isArray(document)) throw new GonePlace(path);
    const at = document.findIndex((one) => isPlain(one) && one['id'] === step.slice(1));
    if (at < 0) throw new GonePlace(path);
    return document.map((one: unknown, i) => (i === at ? setAt(one, rest, value) : one));
  }
  if (!isPlain(document)) throw new GonePlace(path);
  const next: Record<string, unknown> = { ...document, [step]: setAt(document[step], rest, value) };
  if (rest.length === 0 && value === undefined) delete next[step];
  return next;
}

/** A place of a change that the document does not have any more. */
export class GonePlace extends Error {
  constructor(path: readonly string[]) {
    super(`There is no ${path.join('.')} any more.`);
  }
}

/**
 * The document with the changes made, or taken back; what they don't touch stays the same object.
 * @throws GonePlace where the document has lost the place of one
 */
export function applyChanges<T>(document: T, changes: readonly Change[], direction: 'forth' | 'back' = 'forth'): T {
  const ordered = direction === 'forth' ? changes : [...changes].reverse();
  return ordered.reduce<unknown>(
    (now, { path, before, after }) => setAt(now, path, direction === 'forth' ? after : before),
    document,
  ) as T;
}

const covers = (a: readonly string[], b: readonly string[]): boolean =>
  a.length <= b.length && a.every((step, i) => step === b[i]);
const overlap = (a: Change, b: Change): boolean => covers(a.path, b.path) || covers(b.path, a.path);
const agree = (a: Change, b: Change): boolean =>
  a.path.length === b.path.length && JSON.stringify(a.after) === JSON.stringify(b.after);

/** A place that both have changed, each otherwise. */
export interface Overlap {
  readonly path: readonly string[];
  readonly base: unknown;
  readonly ours: unknown;
  readonly theirs: unknown;
}

export interface Merge<T> {
  /** Theirs, with our changes on top wherever the two don't touch one place. */
  readonly merged: T;
  /** Our changes to places that they changed too. */
  readonly held: readonly Change[];
  readonly overlaps: readonly Overlap[];
}

const valueAt = (document: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((now, step) => {
    if (step.startsWith('#') && Array.isArray(now))
      return now.find((one) => isPlain(one) && one['id'] === step.slice(1)) as unknown;
    return isPlain(now) ? now[step] : undefined;
  }, document);

/** Two changes of one document put together: what each changed alone is taken, what both changed is named. */
export function mergeChanges<T>(base: T, ours: T, theirs: T): Merge<T> {
  const [mine, others] = [changesBetween(base, ours), changesBetween(base, theirs)];
  const held: Change[] = [];
  const free: Change[] = [];
  const overlaps: Overlap[] = [];
  for (const change of mine) {
    const rivals = others.filter((other) => overlap(change, other));
    if (rivals.some((rival) => agree(change, rival))) continue;
    if (rivals.length === 0) {
      free.push(change);
      continue;
    }
    held.push(change);
    // The wider of the two places is where they meet.
    const widest = rivals.reduce((most, { path }) => (path.length < most.length ? path : most), change.path);
    overlaps.push({
      path: widest,
      base: valueAt(base, widest),
      ours: valueAt(ours, widest),
      theirs: valueAt(theirs, widest),
    });
  }
  const seen = new Set<string>();
  return {
    merged: applyChanges(theirs, free),
    held,
    overlaps: overlaps.filter(({ path }) => !seen.has(path.join('.')) && seen.add(path.join('.'))),
  };
}
