import { Injectable, computed, signal } from '@angular/core';
import type { MeshJob } from '@hot-spline/core';
import type { PastSetup, SetUps } from '@hot-spline/model';
import { ApiError, api } from './api';

const NONE: SetUps = { holdings: [], past: [], times: [], unreadable: [] };

/** What all set-ups of the shop hold out of drawers and teach, as the server knew it last. */
@Injectable({ providedIn: 'root' })
export class ShopSetUps {
  private readonly known = signal(NONE);
  /** Why it could not be read again; what was known stays. */
  readonly problem = signal<string | null>(null);
  readonly holdings = computed(() => this.known().holdings);
  readonly unreadable = computed(() => this.known().unreadable);
  /** What jobs took, with the build that each is of. */
  readonly times = computed(() => this.known().times);
  /** Newest first, with the build that each is of. */
  readonly past = computed<readonly (PastSetup & { readonly build: string })[]>(() =>
    this.known().past.map((one) => ({ ...one, job: one.job as MeshJob | null })),
  );

  async read(): Promise<void> {
    try {
      this.known.set(await api.setUps());
      this.problem.set(null);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    }
  }
}
