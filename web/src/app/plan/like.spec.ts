import { TestBed } from '@angular/core/testing';
import { newBuild, newWork, type Build, type Work } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { Outbox } from '../state/outbox';
import { WhosePanel } from './whose-panel';
import { WorkLike } from './work-like';

const OTHER = 'b0000000-0000-4000-8000-000000000001';
const CUSTOMER = 'b0000000-0000-4000-8000-000000000002';

function working(job: Work['job'] | null): Build {
  const build = setUpBuild();
  if (build.axles.rear) build.axles.rear.work = job && newWork(job, 'plate');
  return build;
}
/** Another build whose order of work the shop made its own. */
function other(change: (work: Work) => void = () => undefined): Build {
  const build = newBuild('Last one');
  const work = newWork('overhaul', 'plain');
  work.own = [{ id: 'own-1', follows: 'inspect', title: 'Crack test', does: '', minutes: 40 }];
  work.skipped = [{ id: 'raise', why: 'comes as an axle' }];
  work.moves = [{ id: 'm1', step: 'count-teeth', follows: 'inspect', why: 'easier on the bench' }];
  change(work);
  if (build.axles.rear) build.axles.rear.work = work;
  return build;
}
const json = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
const summary = (id: string, name: string) => ({
  id,
  name,
  vehicle: '',
  use: 'street',
  version: 1,
  updatedAt: '2026-11-20T08:00:00.000Z',
  archived: false,
  rechecks: [],
  unreadable: null,
});
/** Opens the list of other jobs and takes the one that the server has. */
async function takeOther(screen: Screen<unknown>): Promise<void> {
  await screen.click('Choose one');
  await screen.until(() => screen.all('option').some((one) => one.textContent?.includes('Last one')));
  await screen.choose('Build', OTHER);
  await screen.click('Work as it was done there');
}
const work = (bench: Bench): Work | null => bench.build()?.axles.rear?.work ?? null;

describe('like another job', () => {
  const server = (build: Build): void => {
    spyOn(globalThis, 'fetch').and.callFake((url) => {
      const path = String(url);
      if (path === '/api/builds') return Promise.resolve(json([summary(OTHER, 'Last one')]));
      return Promise.resolve(json({ id: OTHER, version: 1, who: '', at: '2026-11-20T08:00:00.000Z', build }));
    });
  };

  it('takes what the shop made of the order: own steps, what was left out and moved', async () => {
    server(other());
    const bench = openBench(working('ratio-swap'));
    const screen = await Screen.of(WorkLike);
    await takeOther(screen);
    await screen.until(() => work(bench)?.job === 'overhaul');
    const taken = work(bench);
    expect(taken?.own.map(({ title }) => title)).toEqual(['Crack test']);
    expect(taken?.skipped).toEqual([{ id: 'raise', why: 'comes as an axle' }]);
    expect(taken?.moves.map(({ step }) => step)).toEqual(['count-teeth']);
    // What is this car’s own stays: nothing of hold, trays or parts is taken.
    expect([taken?.hold, taken?.trays]).toEqual([null, []]);
  });

  it('begins the work where none was begun; a job that this unit can’t be is not taken', async () => {
    server(
      other((one) => {
        one.job = 'locker';
      }),
    );
    const bench = openBench(working(null));
    const screen = await Screen.of(WorkLike);
    await takeOther(screen);
    await screen.until(() => work(bench)?.own.length === 1);
    expect(work(bench)?.job).toBe('ratio-swap');
  });

  it('says so where the other build has none, and where the server is away', async () => {
    server(newBuild('Last one'));
    const bench = openBench(working('overhaul'));
    const screen = await Screen.of(WorkLike);
    await takeOther(screen);
    await screen.until(() => screen.text.includes('has no order of work'));
    expect(work(bench)?.own).toEqual([]);
    (globalThis.fetch as jasmine.Spy).and.rejectWith(new TypeError('away'));
    const again = await Screen.of(WorkLike);
    await again.click('Choose one');
    await again.until(() => again.text.includes('can’t be reached'));
  });
});

describe('whose it is', () => {
  it('is chosen among the customers, or added; an erased one is said', async () => {
    let customers = [{ id: CUSTOMER, name: 'A. Reed', reach: '', builds: 0 }];
    spyOn(globalThis, 'fetch').and.callFake(() => Promise.resolve(json(customers)));
    const bench = openBench(working('overhaul'));
    const outbox = TestBed.inject(Outbox);
    spyOn(outbox, 'sent').and.resolveTo();
    spyOn(outbox, 'putCustomer').and.callFake((id, customer) => {
      customers = [...customers, { id, name: customer?.name ?? '', reach: '', builds: 0 }];
      return Promise.resolve();
    });
    const screen = await Screen.of(WhosePanel);
    await screen.until(() => screen.text.includes('A. Reed'));
    await screen.choose('Customer', CUSTOMER);
    expect(bench.build()?.customer).toBe(CUSTOMER);
    await screen.type('Another customer', 'B. Sedge');
    await screen.until(() => bench.build()?.customer === customers[1]?.id);
    customers = [];
    const later = await Screen.of(WhosePanel);
    await later.until(() => later.text.includes('erased, or not known here'));
    await later.choose('Customer', '');
    expect(bench.build()?.customer).toBeNull();
  });
});
