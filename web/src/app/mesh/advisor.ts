import { DestroyRef, Injectable, computed, effect, inject, signal } from '@angular/core';
import type { BoldMove, Changes, MeshJob } from '@hot-spline/core';
import { wrap, type Remote } from 'comlink';
import type { Advised, AdvisorRemote } from './advisor.worker';
import { SetUp } from './set-up';

/** After so many tries there is little left to learn by a bold move. */
const LEARNING_TRIES = 2;

/** The next move of the set-up, worked out in a worker of its own each time that a reading is written. */
@Injectable()
export class Advisor {
  private readonly setUp = inject(SetUp);
  private readonly worker = new Worker(new URL('./advisor.worker', import.meta.url), { type: 'module' });
  private readonly remote: Remote<AdvisorRemote> = wrap<AdvisorRemote>(this.worker);
  readonly answer = signal<Advised | null>(null);
  readonly advice = computed(() => {
    const answer = this.answer();
    return answer?.kind === 'advice' ? answer.advice : null;
  });

  /** Pieces that the pinion pack can be built from. */
  readonly pinionStock = computed(() => this.setUp.stock().pinion);
  /** Past set-ups of the spec that teach what shims do here. */
  private readonly past = computed<readonly MeshJob[]>(
    () => (this.setUp.mesh()?.past ?? []).flatMap(({ job }) => (job ? [job] : [])),
    { equal: (a, b) => a.length === b.length && a.every((job, i) => job === b[i]) },
  );
  /** What they taught; null while there are none, or it is being worked out. */
  private readonly changes = signal<Changes | null>(null);
  /** How many of them are in the advice. */
  readonly taught = computed(() => (this.changes() ? this.past().length : 0));
  private readonly teeth = computed(
    () => {
      const mesh = this.setUp.mesh();
      return mesh && { ringTeeth: mesh.ring, pinionTeeth: mesh.pinion };
    },
    { equal: (a, b) => a?.ringTeeth === b?.ringTeeth && a?.pinionTeeth === b?.pinionTeeth },
  );
  /** What is asked: the readings, what of shims there is, and what the shop knows of the spec. */
  readonly job = computed<MeshJob | null>(() => {
    const job = this.setUp.mesh()?.job;
    if (!job) return null;
    const stock = this.pinionStock();
    const changesPerMm = this.changes();
    return { ...job, ...(stock.length > 0 ? { stock } : {}), ...(changesPerMm ? { changesPerMm } : {}) };
  });

  /** A bolder move for what it teaches, while the axle is new: worked out after the advice, which does not wait for it. */
  readonly bold = signal<BoldMove | null>(null);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.worker.terminate());
    effect(() => {
      const [past, teeth] = [this.past(), this.teeth()];
      this.changes.set(null);
      if (past.length === 0 || !teeth) return;
      void this.remote.learn(teeth, past).then((changes) => {
        if (this.past() === past && this.teeth() === teeth) this.changes.set(changes);
      });
    });
    effect(() => {
      const job = this.job();
      // What was said of other readings is not said of these.
      this.answer.set(null);
      this.bold.set(null);
      if (!job) return;
      void this.remote.advise(job).then((answer) => {
        // What was asked in between has its own answer.
        if (this.job() !== job) return;
        this.answer.set(answer);
        this.lookAhead(job, answer);
      });
    });
  }

  private lookAhead(job: MeshJob, answer: Advised): void {
    if (answer.kind !== 'advice' || !answer.advice.next || job.tries.length > LEARNING_TRIES) return;
    const { next, as } = answer.advice;
    void this.remote.bold(job, next, as).then((bold) => {
      if (this.job() === job) this.bold.set(bold);
    });
  }
}
