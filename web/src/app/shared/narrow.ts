/** Whether the page is as narrow as a phone: the house's one breakpoint, as the styles say it. */
export function isNarrow(): boolean {
  const query = getComputedStyle(document.documentElement).getPropertyValue('--narrow').replace(/["']/g, '').trim();
  return query !== '' && matchMedia(query).matches;
}
