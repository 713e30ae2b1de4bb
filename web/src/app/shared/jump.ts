import { DestroyRef, afterRenderEffect, inject, untracked, type Signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, Scroll, type Params } from '@angular/router';
import { filter } from 'rxjs';

/**
 * Moves the focus to the place that a finding or a key named in the address, once it is on the screen, and takes the
 * name out of the address again, so that the same place can be named twice. Where the page itself scrolls, the router goes back to its
 * top behind each navigation: the place is brought into sight again then.
 * @param keep what the address shall say afterwards, so that the place stays on the screen
 */
export function jumpTo(at: Signal<string | undefined>, keep: () => Params = () => ({})): void {
  const router = inject(Router);
  const route = inject(ActivatedRoute);
  let reached: HTMLElement | null = null;
  router.events
    .pipe(
      filter((event) => event instanceof Scroll),
      takeUntilDestroyed(inject(DestroyRef)),
    )
    .subscribe(() => {
      // Behind what the router does at this event itself.
      queueMicrotask(() => {
        if (reached && document.activeElement === reached) reached.scrollIntoView({ block: 'center' });
      });
    });
  afterRenderEffect(() => {
    const name = at();
    if (name === undefined) return;
    const element = document.getElementById(name);
    reached = element;
    if (element) {
      // What is folded away opens for whoever is led into it.
      element.closest('details')?.setAttribute('open', '');
      element.scrollIntoView({ block: 'center' });
      element.focus();
      if (element instanceof HTMLInputElement) element.select();
    }
    const stay = untracked(keep);
    void router.navigate([], {
      relativeTo: route,
      queryParams: { ...stay, at: null },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  });
}
