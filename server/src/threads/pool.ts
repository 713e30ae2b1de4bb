import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { InputError } from '@hot-spline/core';
import { Problem } from '../base/problem';
import type { TaskInput, TaskName } from './tasks';
import type { FromThread, ToThread } from './thread';

/** The thread's file: TypeScript where the program runs from its sources, the bundle beside us where it was built. */
const thread = (): URL => new URL(import.meta.url.endsWith('.ts') ? './start.mjs' : './thread.mjs', import.meta.url);

export interface PoolLimits {
  /** Threads at most. */
  readonly threads: number;
  /** What one may take before it is told to end with what it has, ms. */
  readonly budgetMs: number;
  /** What it may take after that, before it is stopped, ms. */
  readonly graceMs: number;
  /** How many may wait. */
  readonly waiting: number;
}

/** Ours. One core is left to the server itself and to the next short one. */
const USUAL: PoolLimits = {
  threads: Math.max(3, availableParallelism()),
  budgetMs: 30_000,
  graceMs: 2000,
  waiting: 400,
};

interface Job {
  readonly message: ToThread;
  readonly client: string;
  readonly resolve: (json: string) => void;
  readonly reject: (error: unknown) => void;
}

interface Busy {
  readonly job: Job;
  readonly timer: NodeJS.Timeout | undefined;
}

const stopping = (): Problem => new Problem(503, 'stopping', 'Stopping', 'The server stops.');
const gone = (): Problem => new Problem(499, 'gone', 'Nobody waits', 'The caller has gone.');

/**
 * Threads that calculate, so that the one that answers never does. Each job has a budget, ends when nobody waits for it any more, and
 * nobody has more than all threads but one: the last is for somebody else. Where several wait, those who have least running come first.
 */
export class Pool {
  private readonly limits: PoolLimits;
  private readonly idle: Worker[] = [];
  private readonly busy = new Map<Worker, Busy>();
  private readonly started = new WeakSet<Worker>();
  private waiting: Job[] = [];
  private ended = false;

  /** @param make a thread that takes and says what thread.ts does */
  constructor(
    limits: Partial<PoolLimits> = {},
    private readonly make: () => Worker = () => new Worker(thread()),
  ) {
    this.limits = { ...USUAL, ...limits };
  }

  /** How many run now. */
  get running(): number {
    return this.busy.size;
  }

  /**
   * Runs a task.
   * @param client whoever asks, by whatever tells them apart: they share the threads
   * @param signal aborted where nobody waits any more
   * @returns its result as JSON
   * @throws InputError naming the field; Problem 503 where too many wait, 504 where it takes too long, 499 where nobody waits
   */
  run<N extends TaskName>(
    name: N,
    input: TaskInput<N>,
    { client, signal }: { readonly client: string; readonly signal?: AbortSignal },
  ): Promise<string> {
    // Asked behind the end it would wait for ever.
    if (this.ended) return Promise.reject(stopping());
    if (this.waiting.length >= this.limits.waiting)
      throw new Problem(503, 'busy', 'Busy', `${this.limits.waiting} calculations wait already; try again in a while.`);
    return new Promise((resolve, reject) => {
      if (signal?.aborted) return reject(gone());
      const message: ToThread = { name, input, end: new Int32Array(new SharedArrayBuffer(4)) };
      const leave = (): void => this.abandon(job);
      const settle = (): void => signal?.removeEventListener('abort', leave);
      const job: Job = {
        message,
        client,
        resolve: (json) => {
          settle();
          resolve(json);
        },
        reject: (error) => {
          settle();
          reject(error);
        },
      };
      signal?.addEventListener('abort', leave);
      this.waiting.push(job);
      this.next();
    });
  }

  private of(client: string): number {
    return [...this.busy.values()].filter(({ job }) => job.client === client).length;
  }

  /** Gives waiting jobs to threads. */
  private next(): void {
    while (!this.ended && this.waiting.length > 0 && this.busy.size < this.limits.threads) {
      const share = Math.max(1, this.limits.threads - 1);
      const [job] = this.waiting
        .filter(({ client }) => this.of(client) < share)
        .sort((a, b) => this.of(a.client) - this.of(b.client));
      if (!job) return;
      this.waiting = this.waiting.filter((one) => one !== job);
      this.start(job);
    }
  }

  private start(job: Job): void {
    const worker = this.idle.pop() ?? this.open();
    const { budgetMs, graceMs } = this.limits;
    const stop = (): void => {
      const late = `${job.message.name} was stopped after ${Math.round((budgetMs + graceMs) / 1000)} s.`;
      this.drop(worker, new Problem(504, 'too-long', 'Took too long', late));
    };
    const tellToEnd = (): void => {
      Atomics.store(job.message.end, 0, 1);
      this.time(worker, job, stop, graceMs);
    };
    this.busy.set(worker, { job, timer: undefined });
    // What its thread takes to start is not its own.
    if (this.started.has(worker)) this.time(worker, job, tellToEnd, budgetMs);
    else worker.once('online', () => this.time(worker, job, tellToEnd, budgetMs));
    worker.ref();
    worker.postMessage(job.message);
  }

  private time(worker: Worker, job: Job, then: () => void, ms: number): void {
    if (this.busy.get(worker)?.job === job) this.busy.set(worker, { job, timer: setTimeout(then, ms) });
  }

  private open(): Worker {
    const worker = this.make();
    worker.once('online', () => this.started.add(worker));
    worker.on('message', (message: FromThread) => {
      const busy = this.busy.get(worker);
      if (!busy) return;
      clearTimeout(busy.timer);
      this.busy.delete(worker);
      worker.unref();
      this.idle.push(worker);
      if (message.kind === 'done') busy.job.resolve(message.json);
      else
        busy.job.reject(
          message.kind === 'refused' ? new InputError(message.field, message.message, message.allowed) : message.error,
        );
      this.next();
    });
    const failed = (error: Error): void => this.drop(worker, error);
    worker.on('error', failed);
    worker.on('exit', (code) => failed(new Error(`a thread ended with code ${code}`)));
    return worker;
  }

  /** Ends a thread, whatever it does, and says so to whoever waits for it. */
  private drop(worker: Worker, error: Error): void {
    const busy = this.busy.get(worker);
    const at = this.idle.indexOf(worker);
    if (at >= 0) this.idle.splice(at, 1);
    this.busy.delete(worker);
    void worker.terminate();
    if (!busy) return;
    clearTimeout(busy.timer);
    busy.job.reject(error);
    this.next();
  }

  /** Nobody waits for it: it takes no thread any more. */
  private abandon(job: Job): void {
    this.waiting = this.waiting.filter((one) => one !== job);
    const [worker] = [...this.busy].find(([, busy]) => busy.job === job) ?? [];
    if (worker) this.drop(worker, gone());
    else job.reject(gone());
  }

  /** Ends all threads; what waits is refused. */
  async end(): Promise<void> {
    this.ended = true;
    for (const job of this.waiting.splice(0)) job.reject(stopping());
    const all = [...this.idle, ...this.busy.keys()];
    for (const worker of [...this.busy.keys()]) this.drop(worker, stopping());
    this.idle.length = 0;
    await Promise.all(all.map((worker) => worker.terminate()));
  }
}
