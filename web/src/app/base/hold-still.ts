/** What scrolls a thing: the nearest that can, or the page. */
function scrollerOf(of: Element): Element {
  for (let at = of.parentElement; at; at = at.parentElement)
    if (at.scrollHeight > at.clientHeight && /auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return document.scrollingElement ?? document.documentElement;
}

/** What somebody has a hand on stays where it is on the screen, whatever the change that comes now puts above it. */
export function holdStill(): void {
  const held = document.activeElement;
  if (!held || held === document.body || held.id === 'sheet') return;
  const before = held.getBoundingClientRect().top;
  // Drawn after one frame, laid out by the next.
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      if (held.isConnected) scrollerOf(held).scrollTop += held.getBoundingClientRect().top - before;
    }),
  );
}
