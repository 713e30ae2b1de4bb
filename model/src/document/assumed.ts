import { changesBetween } from './changes';
import type { Build } from './schema';

const within = (path: string, place: string): boolean =>
  place === path || place.startsWith(`${path}.`) || path.startsWith(`${place}.`);

/** A build with what was changed taken off the list of what nobody has said yet; what the change itself calls assumed stays on it. */
export function settleAssumed(before: Build, after: Build): Build {
  if (after.assumed.length === 0) return after;
  const changed = changesBetween({ ...before, assumed: [] }, { ...after, assumed: [] }).map(({ path }) =>
    path.filter((step) => !step.startsWith('#')).join('.'),
  );
  const known = new Set(before.assumed);
  const assumed = after.assumed.filter((path) => !known.has(path) || !changed.some((place) => within(path, place)));
  return assumed.length === after.assumed.length ? after : { ...after, assumed };
}
