import { DestroyRef, Injectable, inject, signal } from '@angular/core';
import type { FoundSet, SearchProblem, SurePack } from '@hot-spline/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { HeavyWork, SearchAnswer, SearchNews, SureAnswer, TraceAnswer, TraceChoice } from './heavy-protocol';

/** Seconds a search may be given; after them it gives its best and says how far its bound is. */
export const SEARCH_LIMITS_S = [5, 30, 120] as const;

export interface SearchOutcome {
  readonly best: readonly FoundSet[];
  readonly provenBest: boolean;
  readonly boundS: number;
  readonly combinations: number | null;
  readonly evaluated: number | null;
  readonly seconds: number;
  /** Stopped by hand: what had been found by then. */
  readonly stopped: boolean;
}

type Kind = 'search' | 'trace' | 'uncertainty';

/** The worker of one sheet: one piece of heavy work at a time, each can be stopped; it ends with its sheet. */
@Injectable()
export class Heavy {
  readonly running = signal<Kind | null>(null);
  readonly news = signal<SearchNews | null>(null);
  readonly share = signal(0);
  private worker: Worker | null = null;
  private stopNow: (() => void) | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  /** Ends whatever runs; a search answers with what it has. */
  stop(): void {
    this.stopNow?.();
    this.worker?.terminate();
    this.worker = null;
    this.stopNow = null;
    this.running.set(null);
  }

  /** Runs one piece of work in a worker of its own, in place of what runs. */
  private async run<T>(kind: Kind, work: (remote: Remote<HeavyWork>) => Promise<T>): Promise<T | 'stopped'> {
    this.stop();
    const worker = new Worker(new URL('./heavy.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    this.running.set(kind);
    this.news.set(null);
    this.share.set(0);
    const stopped = new Promise<'stopped'>((resolve) => (this.stopNow = () => resolve('stopped')));
    try {
      return await Promise.race([work(wrap<HeavyWork>(worker)), stopped]);
    } finally {
      if (this.worker === worker) this.stop();
    }
  }

  private readonly tellShare = (share: number): void => this.share.set(share);

  async search(
    problem: SearchProblem,
    limitS: number,
  ): Promise<SearchOutcome | { readonly problem: string; readonly field: string }> {
    const started = performance.now();
    let last: { news: SearchNews; best: FoundSet | null } | null = null;
    const tell = proxy((news: SearchNews, best: FoundSet | null) => {
      last = { news, best };
      this.news.set(news);
      this.share.set(news.share);
    });
    const answer = await this.run<SearchAnswer>('search', async (remote) => remote.search(problem, limitS, tell));
    if (answer === 'stopped') {
      const seen = last as { news: SearchNews; best: FoundSet | null } | null;
      return {
        best: seen?.best ? [seen.best] : [],
        provenBest: false,
        boundS: seen?.news.boundS ?? 0,
        combinations: null,
        evaluated: null,
        seconds: (performance.now() - started) / 1000,
        stopped: true,
      };
    }
    if (answer.kind === 'refused') return { problem: answer.message, field: answer.field };
    const { best, provenBest, boundS, combinations, evaluated } = answer.result;
    return { best, provenBest, boundS, combinations, evaluated, seconds: answer.seconds, stopped: false };
  }

  /** @returns null when stopped */
  async trace(file: Blob, choice: TraceChoice): Promise<TraceAnswer | null> {
    const answer = await this.run<TraceAnswer>('trace', async (remote) =>
      remote.trace(file, choice, proxy(this.tellShare)),
    );
    return answer === 'stopped' ? null : answer;
  }

  /** @returns null when stopped */
  async uncertainty(packs: readonly SurePack[], samples: number, seed: number): Promise<SureAnswer | null> {
    const answer = await this.run<SureAnswer>('uncertainty', async (remote) =>
      remote.uncertainty(packs, samples, seed, proxy(this.tellShare)),
    );
    return answer === 'stopped' ? null : answer;
  }
}
