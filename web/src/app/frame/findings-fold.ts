import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { watchTight } from '../shared/narrow';
import { uiActions, uiFeature } from '../state/ui';

/** Whether the findings are open: as this device keeps it, but on a tight page folded until they are asked for. */
@Injectable({ providedIn: 'root' })
export class FindingsFold {
  private readonly store = inject(Store);
  private readonly kept = this.store.selectSignal(uiFeature.selectFindingsOpen);
  private readonly tight = signal(false);
  private readonly asked = signal(false);
  readonly open = computed(() => (this.tight() ? this.asked() : this.kept()));

  constructor() {
    inject(DestroyRef).onDestroy(watchTight((tight) => this.tight.set(tight)));
  }

  flip(): void {
    if (this.tight()) this.asked.update((asked) => !asked);
    else this.store.dispatch(uiActions.findingsFlipped());
  }
}
