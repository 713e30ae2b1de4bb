import { TestBed } from '@angular/core/testing';
import { signal, type Provider } from '@angular/core';
import { NO_WORK } from '@hot-spline/model';
import type { Arrival, ArrivalPlan, Board, BoardRow, HealthAnswer, Recall } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { localDay } from '../base/day';
import { Away } from '../state/away';
import { Outbox } from '../state/outbox';
import { BoardPage } from './board-page';
import { BoardRows } from './board-rows';
import { KeepState } from './keep-notice';
import { RecallPanel } from './recall-panel';
import { ArchivePanel } from './archive-panel';
import { LOAD_ANEW, Restore } from './restore';

const ID = (n: number): string => `a0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const rowOf = (n: number, change: Partial<BoardRow> = {}): BoardRow => ({
  id: ID(n),
  name: `Build ${n}`,
  vehicle: 'Saloon',
  use: 'street',
  version: 1,
  updatedAt: '2026-11-20T08:00:00.000Z',
  archived: false,
  rechecks: [],
  unreadable: null,
  promised: null,
  worker: '',
  customer: null,
  work: NO_WORK,
  ...change,
});

/** A server that answers from here, and says what it was asked. */
class Answers {
  readonly asked: string[] = [];
  rows: BoardRow[] = [];
  recall: Recall = { facets: [], builds: [] };
  health: (asked: string) => HealthAnswer | [] = () => [];
  customers: { id: string; name: string; reach: string; builds: number }[] = [];

  constructor() {
    spyOn(globalThis, 'fetch').and.callFake((url, init) => Promise.resolve(this.answer(String(url), init)));
  }

  private answer(url: string, init?: RequestInit): Response {
    this.asked.push(`${init?.method ?? 'GET'} ${url}`);
    const json = (body: unknown): Response =>
      new Response(JSON.stringify(body), { headers: { 'content-type': 'application/json' } });
    const { pathname, searchParams } = new URL(url, 'http://shop');
    if (pathname === '/api/board') return json(this.board(searchParams));
    if (['/api/health', '/api/check', '/api/backup'].includes(pathname)) return json(this.health(pathname));
    if (pathname === '/api/recall') return json(this.recall);
    if (pathname === '/api/customers') return json(this.customers);
    if (pathname.startsWith('/api/customers/')) {
      const id = pathname.split('/').at(-1) ?? '';
      if (init?.method === 'DELETE') {
        this.customers = this.customers.filter((one) => one.id !== id);
        return json({ id, erased: true });
      }
      const body = JSON.parse(String(init?.body)) as { name: string; reach: string };
      const kept = { id, ...body, builds: 0 };
      this.customers = [...this.customers.filter((one) => one.id !== id), kept];
      return json(kept);
    }
    return json([]);
  }

  private board(query: URLSearchParams): Board {
    const archived = query.get('archived') === '1';
    const words = (query.get('search') ?? '').toLowerCase();
    const found = this.rows.filter((row) => row.archived === archived && row.name.toLowerCase().includes(words));
    const state = query.get('state');
    const shown = state === null ? found : found.filter(({ work }) => work.state === state);
    const [offset, limit] = [Number(query.get('offset') ?? 0), Number(query.get('limit') ?? 100)];
    const states: Record<string, number> = {};
    for (const { work } of found) states[work.state] = (states[work.state] ?? 0) + 1;
    return { rows: shown.slice(offset, offset + limit), total: shown.length, whose: null, states };
  }
}

const send = async (method: string, path: string, body?: unknown): Promise<void> => {
  const response = await fetch(`/api/${path}`, { method, body: JSON.stringify(body) });
  if (!response.ok) throw new Error(((await response.json()) as { detail: string }).detail);
};
/** The outbox, as if the server had everything at once. */
const sending = {
  sent: () => Promise.resolve(),
  pendingNew: () => Promise.resolve(new Map()),
  pendingCustomers: () => Promise.resolve(new Map()),
  putNew: (id: string, file: unknown) => send('POST', 'builds', { id, file }),
  putArchived: (_: string, id: string, archived: boolean) => send('POST', `builds/${id}/archive`, { archived }),
  putLibrary: (id: string, baseVersion: number, spec: unknown) => send('PUT', `library/${id}`, { baseVersion, spec }),
  putCustomer: (id: string, customer: unknown) => send(customer ? 'PUT' : 'DELETE', `customers/${id}`, customer),
};

function open(...more: Provider[]): Answers {
  const answers = new Answers();
  openBench(undefined, [], 'metric', [
    {
      provide: Outbox,
      useValue: {
        ...sending,
        keeps: signal('all'),
        unsigned: signal(0),
        waiting: signal(0),
        trouble: signal(null),
        holding: signal(false),
        paused: signal(null),
        notTaken: signal([]),
      },
    },
    { provide: Away, useValue: { away: signal(false), newer: signal(false) } },
    BoardRows,
    ...more,
  ]);
  return answers;
}

describe('how the data is kept, on the board', () => {
  const well: HealthAnswer = {
    ok: true,
    version: '1',
    checked: '2026-11-30T08:00:00.000Z',
    damage: [],
    backup: { last: '2026-11-30T08:00:00.000Z', file: 'a.zip', old: false, problem: '' },
  };
  const board = async (health: HealthAnswer, after: HealthAnswer = well) => {
    const answers = open();
    answers.health = (asked) => (asked === '/api/health' ? health : after);
    const screen = await Screen.of(BoardPage);
    await screen.until(() => TestBed.inject(KeepState).health() !== null);
    await screen.fixture.whenStable();
    return { answers, screen };
  };

  it('says until when all of it is in a backup, and makes one', async () => {
    const { answers, screen } = await board(well);
    expect(screen.text).toContain('All of it is in a backup until');
    expect(screen.all('[role="alert"]').length).toBe(0);
    await screen.click('Make one now');
    expect(answers.asked).toContain('POST /api/backup');
  });

  it('names what is missing, and looks through everything again when it is asked', async () => {
    const damage = Array.from({ length: 9 }, (_, i) => ({
      build: ID(i),
      name: `Car ${i}`,
      says: '31 of 60 entries missing',
    }));
    const { answers, screen } = await board({ ...well, ok: false, damage });
    expect(screen.text).toContain('Not all that was kept is here.');
    expect(screen.text).toContain('Car 0: 31 of 60 entries missing');
    expect(screen.text).toContain('and 1 more');
    await screen.click('Look through everything again');
    expect(answers.asked).toContain('POST /api/check');
    await screen.until(() => !screen.text.includes('Not all that was kept is here.'));
    expect(screen.all('[role="alert"]').length).toBe(0);
  });

  it('warns of a backup that is old, or that came to nothing', async () => {
    const backup = { last: '2026-11-20T08:00:00.000Z', file: 'a.zip', old: true, problem: '' };
    const { screen } = await board({ ...well, backup });
    expect(screen.text).toContain('too old to lean on');
    await screen.click('Make a backup now');
    await screen.until(() => !screen.text.includes('too old to lean on'));
    expect(screen.all('[role="alert"]').length).toBe(0);
  });

  it('warns of one that came to nothing, with why', async () => {
    const { screen } = await board({
      ...well,
      backup: { last: null, file: null, old: true, problem: 'The disk is full.' },
    });
    expect(screen.text).toContain('came to nothing: The disk is full.');
  });
});

describe('a new shop', () => {
  const restoring = async (answer: () => Response) => {
    const anew = jasmine.createSpy('anew');
    open({ provide: LOAD_ANEW, useValue: anew });
    const screen = await Screen.of(Restore);
    (globalThis.fetch as jasmine.Spy).and.callFake(() => Promise.resolve(answer()));
    await screen.upload('Backup to bring back', 'shop.zip', 'zip');
    return { screen, anew };
  };

  it('brings a backup back, says what is in it, and opens it', async () => {
    const { screen, anew } = await restoring(() =>
      Response.json({ shop: ID(1), made: '2026-11-30T08:00:00.000Z', builds: 6, entries: 40, photos: 1 }),
    );
    await screen.until(() => screen.text.includes('6 builds, 40 ledger entries and 1 photos'));
    await screen.click('Open it');
    expect(anew).toHaveBeenCalled();
  });

  it('says why one can’t be used', async () => {
    const { screen } = await restoring(() => Response.json({ detail: 'It has no manifest.' }, { status: 422 }));
    await screen.until(() => screen.text.includes('It has no manifest.'));
    expect(screen.text).toContain('Bring a backup back');
  });
});

describe('an archive', () => {
  const none = { new: 0, longer: 0, same: 0, older: 0, other: 0, broken: 0 };
  const plan: ArrivalPlan = {
    builds: { ...none, new: 1, longer: 1, same: 3, other: 1, broken: 1 },
    specs: { ...none, same: 18 },
    named: [
      { id: ID(1), name: 'Sandpiper', fate: 'longer' },
      { id: ID(2), name: 'Whimbrel', fate: 'other' },
      { id: ID(3), name: 'Siskin: 1 of 3 entries missing', fate: 'broken' },
    ],
    entries: 7,
    photos: 0,
    customers: 2,
  };
  const said = (more: Partial<Arrival>): Arrival => ({
    id: ID(9),
    state: 'ready',
    done: 0,
    of: 4,
    problem: '',
    made: '2026-11-30T08:00:00.000Z',
    plan,
    ...more,
  });
  /** What the server has on its way; each call of the panel is written down. */
  const panel = async (first: Arrival | null) => {
    open();
    const server = { now: first, calls: [] as string[] };
    (globalThis.fetch as jasmine.Spy).and.callFake((url: string, init: RequestInit = {}) => {
      const { method = 'GET', body } = init;
      if (url === '/api/shop')
        return Promise.resolve(
          Response.json({
            id: ID(5),
            version: '0',
            currency: 'EUR',
            decimal: null,
            name: '',
            logo: null,
            address: '',
            hourRate: null,
            weekHours: null,
            open: false,
          }),
        );
      if (method !== 'GET') server.calls.push(`${method} ${url} ${typeof body === 'string' ? body : ''}`.trim());
      if (method === 'DELETE') server.now = said({ state: 'stopped' });
      if (method === 'POST' && server.now) server.now = { ...server.now, state: 'arriving', done: 1 };
      const list = server.now ? [server.now] : [];
      return Promise.resolve(
        Response.json(url === '/api/arrivals' && method === 'GET' ? list : server.now, {
          status: method === 'POST' ? 202 : 200,
        }),
      );
    });
    const screen = await Screen.of(ArchivePanel);
    await screen.until(() => server.now === null || !screen.text.includes('Choose an archive'));
    return { screen, server };
  };

  it('says before what it does, asks for it, and how far it is; another page’s is seen too', async () => {
    const { screen, server } = await panel(said({}));
    for (const words of [
      '1 build comes in',
      '1 build goes on behind what is here',
      '7 ledger entries come with them',
      '2 customers come in',
      '3 builds are here already: nothing changes',
      '1 build stays as it is here',
      '1 build stays out: it does not add up',
      'Siskin: 1 of 3 entries missing',
    ])
      expect(screen.text.replace(/\s+/g, '')).toContain(words.replace(/\s+/g, ''));
    await screen.click('Bring it in');
    await screen.until(() => screen.text.includes('Bringing it in: 25 %'));
    // Of arrivals: what another page still had to send is none of this panel's.
    expect(server.calls.filter((call) => call.includes('/api/arrivals'))).toEqual([
      `POST /api/arrivals/${ID(9)} {"customers":true}`,
    ]);
    server.now = said({ state: 'arrived' });
    await screen.until(() => screen.text.includes('All of it is here.'));
  });

  it('that brings nothing is only left; one that is on its way can be stopped', async () => {
    const nothing = { ...plan, builds: { ...none, same: 4 }, entries: 0, customers: 0, named: [] };
    const { screen } = await panel(said({ plan: nothing }));
    expect(screen.text).toContain('All of it is here already.');
    expect(screen.text).not.toContain('Bring it in');
  });

  it('says what is wrong with one', async () => {
    const { screen } = await panel(said({ state: 'failed', plan: null, problem: 'It has no manifest.' }));
    expect(screen.text).toContain('It has no manifest.');
    expect(screen.text).toContain('nothing of it was kept');
  });

  it('that is on its way is stopped, and that is said', async () => {
    const { screen, server } = await panel(said({ state: 'arriving', done: 2 }));
    expect(screen.text).toContain('50 %');
    await screen.click('Stop and take it back');
    await screen.until(() => screen.text.includes('Stopped; nothing of it was kept.'));
    expect(server.calls).toEqual([`DELETE /api/arrivals/${ID(9)}`]);
  });
});

describe('rows of the board', () => {
  it('come in pieces, where somebody scrolls to; what is here is not asked for again', async () => {
    const answers = open();
    answers.rows = Array.from({ length: 450 }, (_, i) => rowOf(i));
    const board = TestBed.inject(BoardRows);
    await board.load();
    expect(board.rows().length).toBe(450);
    expect(board.rows().filter((row) => row !== null).length).toBe(100);
    expect(board.all()).toBe(450);
    await board.reach(250, 60);
    expect(board.rows()[299]?.name).toBe('Build 299');
    expect(board.rows()[310]?.name).toBe('Build 310');
    expect(board.rows()[150]).toBeNull();
    const before = answers.asked.length;
    await board.reach(250, 60);
    await board.reach(0, 60);
    expect(answers.asked.length).toBe(before);
  });

  it('as CSV are what is looked for, in its order', () => {
    open();
    const board = TestBed.inject(BoardRows);
    board.search.set('a & b');
    board.state.set('gate');
    board.sort.set('promised');
    const { pathname, searchParams } = new URL(board.csvUrl(), 'http://shop');
    expect([pathname, Object.fromEntries(searchParams)]).toEqual([
      '/api/board',
      { search: 'a & b', sort: 'promised', state: 'gate', today: localDay(new Date()), as: 'csv' },
    ]);
  });

  it('an answer to an earlier question is dropped', async () => {
    const answers = open();
    answers.rows = [rowOf(1, { name: 'Kittiwake' }), rowOf(2, { name: 'Wren' })];
    const board = TestBed.inject(BoardRows);
    board.search.set('kitti');
    const first = board.load();
    board.search.set('wren');
    const second = board.load();
    await Promise.all([first, second]);
    expect(board.rows().map((row) => row?.name)).toEqual(['Wren']);
  });

  it('say why they can’t be read', async () => {
    open();
    (globalThis.fetch as jasmine.Spy).and.rejectWith(new TypeError('away'));
    const board = TestBed.inject(BoardRows);
    await board.load();
    expect(board.status()).toBe('failed');
    expect(board.problem()).toContain('can’t be reached');
  });
});

describe('the board', () => {
  const work = (state: BoardRow['work']['state'], change: Partial<BoardRow['work']> = {}): BoardRow['work'] => ({
    ...rowOf(0).work,
    state,
    done: 3,
    of: 50,
    next: 'Ring on',
    leftH: 8,
    ...change,
  });
  const page = async (rows: BoardRow[]): Promise<{ screen: Screen<BoardPage>; answers: Answers }> => {
    const answers = open();
    answers.rows = rows;
    const screen = await Screen.of(BoardPage);
    await screen.until(() => screen.all(rows.length > 0 ? 'tbody tr' : '.none').length > 0);
    return { screen, answers };
  };

  it('shows where each job stands, by when, and who works on it', async () => {
    const { screen } = await page([
      rowOf(1, { name: 'Kittiwake', work: work('loop'), promised: '2020-01-02', worker: 'Ines' }),
      rowOf(2, {
        name: 'Bracken',
        work: work('waiting', {
          rest: { for: 'part', what: 'seals are late', since: '2026-11-20', until: null },
        }),
      }),
      rowOf(3, { name: 'Twite' }),
    ]);
    const row = (name: string): HTMLElement =>
      screen.all('tbody tr').find((one) => one.textContent?.includes(name)) as HTMLElement;
    expect(row('Kittiwake').textContent).toContain('In the loop');
    expect(row('Kittiwake').textContent).toContain('Ines · 8 h left');
    expect(row('Kittiwake').querySelector('.late')).not.toBeNull();
    expect(row('Bracken').textContent).toContain('seals are late');
    expect(screen.all('.states button').map((one) => one.textContent?.replace(/\s+/g, ' ').trim())).toEqual([
      'Waiting 1',
      'In the loop 1',
      'No job 1',
    ]);
  });

  it('a state is chosen and let go again; by state there is a lane each', async () => {
    const { screen, answers } = await page([
      rowOf(1, { name: 'Kittiwake', work: work('loop') }),
      rowOf(2, { name: 'Wren', work: work('gate', { gate: 'B' }) }),
    ]);
    await screen.click(screen.all('.states button')[0] as HTMLElement);
    await screen.until(() => answers.asked.some((one) => one.includes('state=loop')));
    screen.find<HTMLInputElement>('input[value="states"]').click();
    await screen.until(() => screen.all('.lanes section').length > 0);
    expect(screen.all('.lanes section').map((one) => one.getAttribute('aria-label'))).toEqual([
      'In the loop',
      'At a gate',
    ]);
  });

  it('looks a moment after the last letter', async () => {
    const { screen, answers } = await page([rowOf(1, { name: 'Kittiwake' }), rowOf(2, { name: 'Wren' })]);
    const box = screen.find<HTMLInputElement>('#board-filter');
    for (const text of ['w', 'wr', 'wren']) {
      box.value = text;
      box.dispatchEvent(new Event('input', { bubbles: true }));
    }
    const rows = () => screen.all('tbody tr').map((one) => one.textContent?.includes('Wren'));
    await screen.until(() => rows().length === 1);
    expect(answers.asked.filter((one) => one.includes('search=w') && !one.includes('archived')).length).toBe(1);
    expect(rows()).toEqual([true]);
  });

  it('asks a newcomer to begin', async () => {
    const { screen } = await page([]);
    expect(screen.text).toContain('No builds here yet');
  });
});

describe('recall', () => {
  it('finds what failed by its words, and whom to call', async () => {
    const answers = open();
    answers.recall = {
      facets: [
        { facet: 'carrier: Heron, Tall', builds: 2 },
        { facet: 'ring bolts: M10x1.25 10.9, 28.0 mm', builds: 3 },
      ],
      builds: [{ id: ID(1), name: 'Kittiwake', vehicle: 'Coupé', customer: 'A. Reed', reach: '01632 960 001' }],
    };
    const screen = await Screen.of(RecallPanel);
    await screen.until(() => screen.text.includes('carrier: Heron'));
    const box = screen.find<HTMLInputElement>('#recall-of');
    box.value = '28.0 m10';
    box.dispatchEvent(new Event('input', { bubbles: true }));
    await screen.fixture.whenStable();
    expect(screen.all('section li button').filter((one) => one.textContent?.includes(':')).length).toBe(1);
    await screen.click('ring bolts: M10x1.25 10.9, 28.0 mm');
    await screen.until(() => screen.text.includes('A. Reed'));
    expect(answers.asked.some((asked) => asked.includes('of=ring+bolts'))).toBeTrue();
    expect(screen.text).toContain('01632 960 001');
  });

  it('keeps customers and erases them after it has asked', async () => {
    const answers = open();
    answers.customers = [{ id: ID(9), name: 'A. Reed', reach: '', builds: 1 }];
    const screen = await Screen.of(RecallPanel);
    const names = () => answers.customers.map(({ name }) => name);
    await screen.until(() => screen.text.includes('Telephone or mail'));
    await screen.type('Telephone or mail', 'reed@post.invalid');
    await screen.until(() => answers.customers[0]?.reach === 'reed@post.invalid');
    await screen.type('Another customer', 'B. Sedge');
    await screen.until(() => names().includes('B. Sedge'));
    await screen.click('Remove A. Reed');
    expect(answers.customers.length).toBe(2);
    await screen.click('Really remove A. Reed');
    await screen.until(() => answers.customers.length === 1);
    expect(names()).toEqual(['B. Sedge']);
  });
});
