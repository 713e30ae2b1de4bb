/** One of the house's breakpoints, as the styles say it. */
const queryOf = (name: '--narrow' | '--tight'): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).replace(/["']/g, '').trim();

/** Whether the page is as narrow as a phone. */
export function isNarrow(): boolean {
  const query = queryOf('--narrow');
  return query !== '' && matchMedia(query).matches;
}

/** Calls with whether the page is as narrow as a phone whenever that changes. @returns what ends it */
export function watchNarrow(say: (narrow: boolean) => void): () => void {
  const query = queryOf('--narrow');
  if (query === '') return () => undefined;
  const list = matchMedia(query);
  const tell = (): void => say(list.matches);
  list.addEventListener('change', tell);
  return () => list.removeEventListener('change', tell);
}

/** Calls with whether the page is too tight for what stands beside the sheet, now and whenever that changes. @returns what ends it */
export function watchTight(say: (tight: boolean) => void): () => void {
  const query = queryOf('--tight');
  if (query === '') return () => undefined;
  const list = matchMedia(query);
  const tell = (): void => say(list.matches && !isNarrow());
  tell();
  list.addEventListener('change', tell);
  return () => list.removeEventListener('change', tell);
}
