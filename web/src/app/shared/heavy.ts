import { DestroyRef, Injectable, inject, signal } from '@angular/core';
import { InputError } from '@hot-spline/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { HeavyRemote, JobInput, JobName, JobNews, JobOutput } from './heavy-jobs';

/** Seconds a search may be given; after them it gives its best and says how far its bound is. */
export const SEARCH_LIMITS_S = [5, 30, 120] as const;

/** What came of a piece of heavy work. Stopped by hand there is no result, but the last that it told. */
export interface HeavyOutcome<N extends JobName> {
  readonly result: JobOutput<N> | null;
  readonly news: JobNews<N> | null;
  readonly seconds: number;
}

export interface HeavyOptions<N extends JobName> {
  readonly progress?: (share: number, news: JobNews<N> | null) => void;
  readonly signal?: AbortSignal;
  /** It ends after so long with what it has. */
  readonly limitS?: number;
}

/**
 * Runs heavy work in a web worker of its own: the one way in for all of it.
 * @throws InputError naming the field
 */
export async function runHeavy<N extends JobName>(
  name: N,
  input: JobInput<N>,
  { progress, signal: stop, limitS = Number.POSITIVE_INFINITY }: HeavyOptions<N> = {},
): Promise<HeavyOutcome<N>> {
  const started = performance.now();
  const worker = new Worker(new URL('./heavy.worker', import.meta.url), { type: 'module' });
  const remote: Remote<HeavyRemote> = wrap<HeavyRemote>(worker);
  let news: JobNews<N> | null = null;
  const tell = proxy((share: number, told: unknown) => {
    news = (told ?? null) as JobNews<N> | null;
    progress?.(share, news);
  });
  const stopped = new Promise<null>((resolve) => {
    if (stop?.aborted) resolve(null);
    stop?.addEventListener('abort', () => resolve(null), { once: true });
  });
  try {
    const answer = await Promise.race([remote.run(name, input, limitS, tell), stopped]);
    const seconds = (performance.now() - started) / 1000;
    if (answer === null) return { result: null, news, seconds };
    if (answer.kind === 'refused') throw new InputError(answer.field, answer.message, answer.allowed);
    return { result: answer.result as JobOutput<N>, news, seconds: answer.seconds };
  } finally {
    worker.terminate();
  }
}

/** The heavy work of one sheet: one piece at a time, each can be stopped; it ends with its sheet. */
@Injectable()
export class Heavy {
  readonly running = signal<JobName | null>(null);
  readonly share = signal(0);
  readonly news = signal<unknown>(null);
  private current: AbortController | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  /** Ends whatever runs. */
  stop(): void {
    this.current?.abort();
    this.current = null;
    this.running.set(null);
  }

  /** Runs one piece of work in place of what runs. @throws InputError naming the field */
  async run<N extends JobName>(name: N, input: JobInput<N>, limitS?: number): Promise<HeavyOutcome<N>> {
    this.stop();
    const controller = new AbortController();
    this.current = controller;
    this.running.set(name);
    this.share.set(0);
    this.news.set(null);
    try {
      const outcome = await runHeavy(name, input, {
        signal: controller.signal,
        progress: (share, news) => {
          if (this.current !== controller) return;
          this.share.set(share);
          this.news.set(news);
        },
        ...(limitS === undefined ? {} : { limitS }),
      });
      if (outcome.result !== null && this.current === controller) this.share.set(1);
      return outcome;
    } finally {
      if (this.current === controller) this.stop();
    }
  }
}
