import { TestBed } from '@angular/core/testing';
import { NO_WORK, type BoardRow, type BoardWeek, type PartsToOrder } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { plateBuild } from '../../testing/drift';
import { newId } from '../base/new-id';
import { MayWrite } from '../state/may-write';
import { Outbox } from '../state/outbox';
import { Session } from '../state/session';
import { ShopSettings } from '../state/shop-settings';
import { BoardFilter } from './board-filter';
import { BoardRows } from './board-rows';
import { KeptViews } from './kept-views';
import { OrdersPanel } from './orders-panel';
import { restWords, stateWords } from './row-words';
import { WeekView } from './week-view';

const row = (change: Partial<BoardRow> = {}): BoardRow => ({
  ...{ id: newId(), name: 'Siskin', vehicle: '', use: 'street', version: 1, updatedAt: '2026-12-01T08:00:00.000Z' },
  ...{ archived: false, rechecks: [], unreadable: null, promised: '2026-12-03', worker: '', customer: null },
  work: { ...NO_WORK, state: 'work', next: 'Ring on', of: 10, leftH: 5 },
  ...change,
});

const answers = (by: (path: string) => unknown): jasmine.Spy =>
  spyOn(globalThis, 'fetch').and.callFake((url) =>
    Promise.resolve(Response.json(by(new URL(String(url), 'http://shop').pathname))),
  );

describe('what a row of the board says', () => {
  it('is what goes with its state', () => {
    const { work } = row();
    const rest = { for: 'machine-shop' as const, what: 'tubes', since: '2026-11-20', until: null };
    expect(restWords(rest)).toMatch(/^for the machine shop, since .*20.*: tubes$/);
    expect(restWords({ ...rest, since: null, until: '2026-12-24', what: '' })).toMatch(
      /^for the machine shop, until .*24/,
    );
    expect(stateWords(row({ work: { ...work, state: 'waiting', rest } }))).toContain('tubes');
    expect(stateWords(row({ work: { ...work, state: 'due', due: 'races' } }))).toBe('by races');
    expect(stateWords(row({ work: { ...work, state: 'gate', gate: 'B' } }))).toBe('Gate B');
    expect(stateWords(row({ work: { ...work, state: 'loop', round: 3 } }))).toBe('round 3 · Ring on');
    expect(stateWords(row({ worker: 'Ada' }))).toBe('Ada: Ring on');
  });
});

describe('what of the board is looked for', () => {
  beforeEach(() => localStorage.removeItem('hot-spline.board-views'));
  const pick = (screen: Screen<unknown>, name: string, value: string): void => {
    const box = screen.find<HTMLSelectElement>(`#${name}`);
    box.value = value;
    box.dispatchEvent(new Event('change'));
  };

  it('is whose, what for, which kind and which day; kept under a name, shown and dropped again', async () => {
    openBench(undefined, [], 'metric', [BoardRows]);
    answers(() => ['Ada', 'Bo']);
    const screen = await Screen.of(BoardFilter);
    const [board, views] = [TestBed.inject(BoardRows), TestBed.inject(KeptViews)];
    await screen.until(() => screen.all('#board-worker option').length === 3);
    pick(screen, 'board-worker', 'Bo');
    pick(screen, 'board-rest', 'machine-shop');
    pick(screen, 'board-job', 'overhaul');
    await screen.fixture.whenStable();
    expect([board.worker(), board.rest(), board.job(), board.filtered()]).toEqual([
      'Bo',
      'machine-shop',
      'overhaul',
      true,
    ]);
    const asked = new URL(board.csvUrl(), 'http://shop').searchParams;
    expect([asked.get('worker'), asked.get('rest'), asked.get('job'), asked.has('promised')]).toEqual([
      ...['Bo', 'machine-shop', 'overhaul', false],
    ] as never);
    views.keep('Bo waits', board);
    await screen.fixture.whenStable();
    expect(screen.find<HTMLSelectElement>('#board-kept').value).toBe('Bo waits');
    board.clear();
    await screen.fixture.whenStable();
    expect([board.filtered(), views.shown(board)]).toEqual([false, '']);
    pick(screen, 'board-kept', 'Bo waits');
    expect([board.worker(), board.rest(), views.shown(board)]).toEqual(['Bo', 'machine-shop', 'Bo waits']);
    views.drop('Bo waits');
    expect(JSON.parse(localStorage.getItem('hot-spline.board-views') ?? '')).toEqual([]);
  });

  it('of views that were kept by another program stays what this one knows', () => {
    localStorage.setItem(
      'hot-spline.board-views',
      JSON.stringify([
        { name: 'old', state: 'gate-b', sort: 'colour', rest: 'rain', worker: 7, job: 'overhaul' },
        3,
        { state: 'due' },
      ]),
    );
    openBench();
    expect(TestBed.inject(KeptViews).views()).toEqual([
      { name: 'old', search: '', state: null, sort: 'name', promised: '', worker: '', rest: '', job: 'overhaul' },
    ]);
    localStorage.setItem('hot-spline.board-views', '{');
    TestBed.resetTestingModule();
    openBench();
    spyOn(console, 'warn');
    expect(TestBed.inject(KeptViews).views()).toEqual([]);
  });
});

describe('the week of the board', () => {
  const day = (of: string, change: Partial<BoardWeek['days'][number]> = {}): BoardWeek['days'][number] => ({
    ...{ day: of, hours: 8, promisedH: 0, overH: 0, builds: 0, rows: [] },
    ...change,
  });
  const one = row();
  const week = (): BoardWeek => ({
    days: [
      day('2026-12-02'),
      day('2026-12-03', { rows: [one], builds: 1, promisedH: 5, overH: 2.5 }),
      day('2026-12-04', { overH: 4 }),
    ],
    overdue: { builds: 0, rows: [] },
    unplanned: [{ id: one.id, name: 'Twite' }],
  });

  async function shown(looks = false) {
    openBench();
    TestBed.inject(MayWrite).looks.set(looks);
    const asked = answers((path) =>
      path === '/api/board/week'
        ? week()
        : {
            id: one.id,
            version: 4,
            who: 'Ada',
            at: '2026-12-01T08:00:00.000Z',
            build: { ...plateBuild(), promised: '2026-12-03' },
          },
    );
    const put = spyOn(TestBed.inject(Outbox), 'putBuild').and.resolveTo();
    const problems: unknown[] = [];
    const screen = await Screen.of(WeekView, {
      work: (run: () => Promise<void>) => run().catch((error: unknown) => void problems.push(error)),
    });
    await screen.until(() => screen.all('.days section').length === 3);
    return { screen, put, asked, problems };
  }

  it('says until when how much does not fit, and what nobody has planned', async () => {
    const { screen } = await shown();
    expect(screen.text).toContain('Nobody has said how many hours');
    expect(screen.text).toContain('Twite');
    expect(screen.find('[aria-label^="Thu"]').textContent).toContain('2.5 h too few');
  });

  it('the hours of the shop are kept once all seven are said: what nobody has said is no day off', async () => {
    const { screen } = await shown();
    const choose = jasmine.createSpy('choose').and.resolveTo();
    Object.assign(TestBed.inject(ShopSettings), { choose });
    TestBed.inject(Session).take({ door: 'alone', owned: false, person: null, pin: false, others: [] });
    await screen.fixture.whenStable();
    await screen.click(screen.all('button').find((one) => one.textContent?.includes('Say the hours')) as HTMLElement);
    const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
    for (const [i, day] of days.entries()) {
      expect(choose).not.toHaveBeenCalled();
      await screen.type(day, i < 5 ? '7.5' : '0');
      if (i === 4) expect(screen.text).toContain('Still to be said: Sat, Sun.');
    }
    expect(choose.calls.allArgs()).toEqual([[{ weekHours: [7.5, 7.5, 7.5, 7.5, 7.5, 0, 0] }]]);
  });

  it('a looker draws nothing', async () => {
    const { screen } = await shown(true);
    expect(screen.find('.card').getAttribute('draggable')).toBe('false');
    expect(screen.all('.card hs-field').length).toBe(0);
  });

  it('a card that is drawn to another day is promised for it', async () => {
    const { screen, put, problems } = await shown();
    const sections = screen.all('.days section');
    const drag = (type: string, on: Element): boolean =>
      on.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true }));
    // Nothing is taken over what nobody drew.
    expect(drag('dragover', sections[2] as Element)).toBeTrue();
    drag('dragstart', screen.find('.card'));
    expect(drag('dragover', sections[2] as Element)).toBeFalse();
    drag('drop', sections[2] as Element);
    drag('dragend', screen.find('.card'));
    await screen.until(() => put.calls.count() === 1 || problems.length > 0);
    expect(problems).toEqual([]);
    const [id, version, build] = put.calls.mostRecent().args as [string, number, { promised: string }];
    expect([id, version, build.promised]).toEqual([one.id, 4, '2026-12-04']);
    await screen.until(() => screen.text.includes('Put it back'));
  });
});

describe('what is to be ordered', () => {
  it('stands by supplier with its sum, and what has no price is said', async () => {
    openBench();
    const part = (change: Partial<PartsToOrder[number]>): PartsToOrder[number] => ({
      ...{ axle: 'rear', part: 'seals', name: 'Seals', count: 2, supplier: 'Wicks', number: 'W-7', price: 18 },
      ...{ build: one, buildName: 'Siskin', promised: null },
      ...change,
    });
    const one = newId();
    answers(() => [
      part({}),
      part({ part: 'oil', name: 'Oil', price: null }),
      part({ supplier: '', number: '', part: 'x' }),
    ]);
    const screen = await Screen.of(OrdersPanel);
    await screen.until(() => screen.all('h3').length === 2);
    expect(screen.all('h3').map((head) => head.textContent?.replace(/\s+/g, ' ').trim())).toEqual([
      jasmine.stringMatching(/^Wicks 2 lines · .*18.*, 1 without a price$/),
      jasmine.stringMatching(/^Nobody has said from whom 1 line/),
    ] as never);
    expect(screen.find<HTMLAnchorElement>('li a').getAttribute('href')).toContain('at=part-seals-rear');
  });
});
