import { afterRenderEffect, inject, untracked, type Signal } from '@angular/core';
import { ActivatedRoute, Router, type Params } from '@angular/router';

/**
 * Moves the focus to the place that a finding or a key named in the address, once it is on the screen, and takes the
 * name out of the address again, so that the same place can be named twice.
 * @param keep what the address shall say afterwards, so that the place stays on the screen
 */
export function jumpTo(at: Signal<string | undefined>, keep: () => Params = () => ({})): void {
  const router = inject(Router);
  const route = inject(ActivatedRoute);
  afterRenderEffect(() => {
    const name = at();
    if (name === undefined) return;
    const element = document.getElementById(name);
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
