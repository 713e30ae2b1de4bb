import { ChangeDetectionStrategy, Component, effect, inject } from '@angular/core';
import { ActivatedRoute, Router } from '@angular/router';
import { AXLES } from '@hot-spline/model';
import { Bench } from '../state/bench';

/** Where a build is opened without a sheet: one that is at work on its work, so that whoever takes over sees the step in hand. */
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
    const id = String(route.parent?.snapshot.paramMap.get('id'));
    effect(() => {
      const { id: open, status } = bench.editor();
      const derived = bench.derived();
      // The build that was open before is still there for a moment.
      if (open !== id || status !== 'ready' || !derived) return;
      const atWork = AXLES.some((axle) => derived.work[axle]?.next);
      const path = ['/builds', id, atWork ? 'work' : 'gearing'];
      void router.navigate(path, { replaceUrl: true, queryParamsHandling: 'preserve' });
    });
  }
}
