import { Worker } from 'node:worker_threads';
import { InputError } from '@hot-spline/core';
import { Problem } from '../base/problem';
import { Pool, type PoolLimits } from './pool';
import { until } from '../testing/until';

/** A thread that does what it is told: it goes on until it may not, or for ever, or ends in one way or another. */
const CODE = `
  const { parentPort } = require('node:worker_threads');
  parentPort.on('message', ({ input: { name: what }, end }) => {
    if (what === 'until told') { while (Atomics.load(end, 0) === 0); }
    if (what === 'for ever') for (;;);
    if (what === 'breaks') throw new Error('broken');
    if (what === 'refused') return parentPort.postMessage({ kind: 'refused', field: 'bandNm', message: 'bandNm is missing.', allowed: 'a band' });
    if (what === 'fails') return parentPort.postMessage({ kind: 'failed', error: new TypeError('a mistake') });
    parentPort.postMessage({ kind: 'done', json: JSON.stringify(what) });
  });`;

describe('the pool of threads', () => {
  let made: Worker[];
  let pool: Pool;
  const open = (limits: Partial<PoolLimits> = {}): Pool => {
    made = [];
    pool = new Pool({ threads: 3, budgetMs: 60_000, graceMs: 60_000, waiting: 5, ...limits }, () => {
      const worker = new Worker(CODE, { eval: true });
      made.push(worker);
      return worker;
    });
    return pool;
  };
  const ask = (what: string, client = 'a', signal?: AbortSignal): Promise<string> => {
    const answer = pool.run(
      'calculation',
      { name: what, input: null, withWorking: false },
      { client, ...(signal ? { signal } : {}) },
    );
    // Whoever asks hears it when they look.
    answer.catch(() => undefined);
    return answer;
  };
  afterEach(() => pool.end());

  it('answers with JSON, on one thread that is kept', async () => {
    open();
    for (let i = 0; i < 5; i++) expect(JSON.parse(await ask(`${i}`))).toBe(`${i}`);
    expect(made.length).toBe(1);
  });

  it('gives what was refused with its field, and a mistake as one; a thread that breaks is replaced', async () => {
    open();
    await expectAsync(ask('refused')).toBeRejectedWithError(InputError, 'bandNm is missing.');
    await expectAsync(ask('fails')).toBeRejectedWithError(TypeError, 'a mistake');
    await expectAsync(ask('breaks')).toBeRejectedWithError('broken');
    expect(JSON.parse(await ask('well'))).toBe('well');
    expect(made.length).toBe(2);
  });

  it('over its budget it is told to end, and what it has is the answer; one that does not end is stopped', async () => {
    open({ budgetMs: 400, graceMs: 60_000 });
    expect(JSON.parse(await ask('until told'))).toBe('until told');
    await pool.end();
    open({ budgetMs: 400, graceMs: 400 });
    const late = await ask('for ever').catch((error: unknown) => error);
    expect([late instanceof Problem, (late as Problem).status]).toEqual([true, 504]);
    expect(JSON.parse(await ask('well'))).toBe('well');
    expect(pool.running).toBe(0);
  });

  it('ends where nobody waits any more, while it runs and before it does', async () => {
    open({ threads: 2 });
    const [first, second] = [new AbortController(), new AbortController()];
    const running = ask('for ever', 'a', first.signal);
    const waiting = ask('for ever', 'a', second.signal);
    expect(pool.running).toBe(1);
    second.abort();
    await expectAsync(waiting).toBeRejectedWithError(/gone/);
    first.abort();
    await expectAsync(running).toBeRejectedWithError(/gone/);
    expect(pool.running).toBe(0);
    await expectAsync(ask('late', 'a', first.signal)).toBeRejectedWithError(/gone/);
    expect(JSON.parse(await ask('well'))).toBe('well');
  });

  it('keeps a thread for others, and those who have least running come first', async () => {
    open();
    const [first, ends] = [new AbortController(), new AbortController()];
    const long = [ask('for ever', 'greedy', first.signal)];
    for (let i = 0; i < 3; i++) long.push(ask('for ever', 'greedy', ends.signal));
    expect(pool.running).toBe(2);
    // Behind all of them, and at once all the same.
    expect(JSON.parse(await ask('short', 'b'))).toBe('short');
    const other = ask('for ever', 'b', ends.signal);
    const order: string[] = [];
    const [mine, theirs] = [ask('c', 'b'), ask('d', 'c')];
    void mine.then(() => order.push('b'));
    void theirs.then(() => order.push('c'));
    // One thread is free: whoever has none running gets it, though they came last.
    first.abort();
    await until(() => order.length > 0);
    expect(order[0]).toBe('c');
    ends.abort();
    await Promise.allSettled([...long, other, mine, theirs]);
  });

  it('refuses more than may wait, and whatever waits when it ends', async () => {
    open({ threads: 2, waiting: 2 });
    const all = [ask('for ever'), ask('for ever'), ask('for ever')];
    expect(() => pool.run('calculation', { name: 'x', input: null, withWorking: false }, { client: 'b' })).toThrowError(
      /wait already/,
    );
    await pool.end();
    for (const one of all) await expectAsync(one).toBeRejectedWithError(/stops/);
    await expectAsync(ask('short')).toBeRejectedWithError(/stops/);
  });
});
