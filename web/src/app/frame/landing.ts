import { ChangeDetectionStrategy, Component, effect, inject } from '@angular/core';
import { ActivatedRoute, Router } from '@angular/router';
import { SHEETS } from '../shared/sheet-list';
import { Bench } from '../state/bench';

/** Where a build is opened without a sheet: on the one that says so. */
@Component({
  selector: 'hs-landing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
})
export class Landing {
  constructor() {
    const bench = inject(Bench);
    const router = inject(Router);
    const route = inject(ActivatedRoute);
    const sheets = inject(SHEETS);
    const id = String(route.parent?.snapshot.paramMap.get('id'));
    effect(() => {
      const { id: open, status } = bench.editor();
      const derived = bench.derived();
      // The build that was open before is still there for a moment.
      if (open !== id || status !== 'ready' || !derived) return;
      const sheet = sheets.findLast(({ lands }) => lands?.(derived))?.sheet ?? sheets[0]?.sheet ?? '';
      void router.navigate(['/builds', id, sheet], { replaceUrl: true, queryParamsHandling: 'preserve' });
    });
  }
}
