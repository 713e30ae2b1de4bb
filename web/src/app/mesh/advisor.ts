import { DestroyRef, Injectable, computed, effect, inject, signal } from '@angular/core';
import { entryBase, type MeshJob, type ShimStock } from '@hot-spline/core';
import { Library } from '../library/library';
import { wrap, type Remote } from 'comlink';
import type { Advised, AdvisorRemote } from './advisor.worker';
import { SetUp } from './set-up';

/** Puts the same thicknesses together. */
function stockOf(pieces: readonly { readonly mm: number; readonly count: number }[]): ShimStock[] {
  const counts = new Map<number, number>();
  for (const { mm, count } of pieces) {
    const key = Number(mm.toFixed(4));
    counts.set(key, (counts.get(key) ?? 0) + count);
  }
  return [...counts].map(([thicknessMm, count]) => ({ thicknessMm, count }));
}

/** The next move of the set-up, worked out in a worker of its own each time that a reading is written. */
@Injectable()
export class Advisor {
  private readonly setUp = inject(SetUp);
  private readonly drawers = inject(Library).ofKind('shims');
  private readonly worker = new Worker(new URL('./advisor.worker', import.meta.url), { type: 'module' });
  private readonly remote: Remote<AdvisorRemote> = wrap<AdvisorRemote>(this.worker);
  readonly answer = signal<Advised | null>(null);
  readonly advice = computed(() => {
    const answer = this.answer();
    return answer?.kind === 'advice' ? answer.advice : null;
  });

  /** Pieces that the pinion pack can be built from: the drawer of its seat, and what is in it now. */
  readonly pinionStock = computed<ShimStock[]>(() => {
    const mesh = this.setUp.mesh();
    if (!mesh) return [];
    const seat = mesh.construction === 'drop-out' ? 'support' : 'pinion-head';
    const drawer = this.drawers()
      .filter(({ spec }) => spec.seat === seat)
      .flatMap(({ spec }) => spec.pieces.map(({ thickness, count }) => ({ mm: entryBase(thickness), count })));
    if (drawer.length === 0) return [];
    const inIt = (mesh.now?.value.pinion ?? []).map((piece) => ({ mm: entryBase(piece), count: 1 }));
    return stockOf([...drawer, ...inIt]);
  });
  /** What is asked: the readings, and what of shims there is. */
  readonly job = computed<MeshJob | null>(() => {
    const job = this.setUp.mesh()?.job;
    if (!job) return null;
    const stock = this.pinionStock();
    return stock.length > 0 ? { ...job, stock } : job;
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.worker.terminate());
    effect(() => {
      const job = this.job();
      // What was said of other readings is not said of these.
      this.answer.set(null);
      if (!job) return;
      void this.remote.advise(job).then((answer) => {
        // What was asked in between has its own answer.
        if (this.job() === job) this.answer.set(answer);
      });
    });
  }
}
