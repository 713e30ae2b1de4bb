import { Injectable, computed, inject, signal } from '@angular/core';
import { Drafts } from '../shared/drafts';
import { Bench } from '../state/bench';

/** The tyre that was on before the last change, for each axle: kept beside the new one until it is put away. */
@Injectable({ providedIn: 'root' })
export class OldTyre {
  private readonly bench = inject(Bench);
  private readonly drafts = inject(Drafts);
  private readonly changed = signal(0);
  private readonly key = computed(() => `${this.bench.editor().id ?? ''}.old-tyre.${this.bench.axleName()}`);
  /** Its designation; null where none was changed. */
  readonly designation = computed(() => {
    this.changed();
    return this.drafts.read(this.key());
  });

  /** Keeps what was on, where another goes on; the first of several changes in a row counts. */
  keep(was: string, is: string): void {
    const kept = this.drafts.read(this.key());
    if (was === is) return;
    if (kept === is) this.putAway();
    else if (kept === null) this.write(was);
  }

  putAway(): void {
    this.write(null);
  }

  private write(designation: string | null): void {
    this.drafts.write(this.key(), designation);
    this.changed.update((n) => n + 1);
  }
}
