import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import type { Build, LedgerEntry, Reading } from '@hot-spline/model';
import type { Action } from '@ngrx/store';
import { Actions } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import type { MessageService, ToastMessageOptions } from 'primeng/api';
import { Subject, firstValueFrom, of, toArray } from 'rxjs';
import { plateBuild } from '../../testing/drift';
import { BUILD_ID, openBench } from '../../testing/harness';
import { libraryActions, loadLibrary, putAwaySpec, settleSpec, writeSpec } from '../library/library-state';
import { newAxleSpec, newGearboxSpec } from '../library/new-spec';
import { boardActions } from './board';
import { editorActions } from './editor';
import * as effects from './effects';
import type { Outbox, OutboxEvent } from './outbox';

const named = (name: string): Build => ({ ...plateBuild(), name });
const readingOf = (n: number): Reading => ({
  kind: 'reading',
  id: `50000000-0000-4000-8000-00000000000${n}`,
  at: '2026-02-03T04:05:00.000Z',
  subject: { what: 'case-depth', axle: 'rear', side: 'left' },
  value: entryOf(12.8, 'mm'),
  instrument: 'Depth gauge',
});

/** What the effects ask of the outbox, noted down. */
class FakeOutbox {
  readonly calls: unknown[][] = [];
  readonly events = new Subject<OutboxEvent>();
  readonly waiting = signal(0);
  waits: { build: Build | null; entries: LedgerEntry[] } = { build: null, entries: [] };
  library = new Map<string, ReturnType<typeof newAxleSpec> | ReturnType<typeof newGearboxSpec>>();
  private note(...call: unknown[]): Promise<void> {
    this.calls.push(call);
    return Promise.resolve();
  }
  putBuild = (...args: unknown[]) => this.note('build', ...args);
  putLedger = (...args: unknown[]) => this.note('ledger', ...args);
  putLibrary = (...args: unknown[]) => this.note('library', ...args);
  settle = (...args: unknown[]) => this.note('settle', ...args);
  flush = () => void this.note('flush');
  pending = () => Promise.resolve(this.waits);
  pendingLibrary = () => Promise.resolve(new Map(this.library));
}

describe('effects', () => {
  let outbox: FakeOutbox;
  let store: Store;
  const box = (): Outbox => outbox as unknown as Outbox;
  const sent = (...list: Action[]) => new Actions(of(...list));
  /** Answers of the server by address; an address that is not here answers 404. */
  let answers: Record<string, { status?: number; body: unknown } | 'away'>;

  beforeEach(() => {
    openBench(named('open'));
    store = TestBed.inject(Store);
    outbox = new FakeOutbox();
    answers = {};
    spyOn(window, 'fetch').and.callFake((url) => {
      const answer = answers[String(url)] ?? { status: 404, body: { detail: 'There is no such build.' } };
      if (answer === 'away') return Promise.reject(new TypeError('Failed to fetch'));
      return Promise.resolve(
        new Response(JSON.stringify(answer.body), {
          status: answer.status ?? 200,
          headers: { 'content-type': 'application/json' },
        }),
      );
    });
  });

  it('open a build with what still waits here in place of what the server has', async () => {
    answers = {
      '/api/builds/b': { body: { id: 'b', version: 4, build: named('server') } },
      '/api/builds/b/ledger': { body: [readingOf(1)] },
    };
    outbox.waits = { build: named('waiting'), entries: [readingOf(1), readingOf(2)] };
    const action = await firstValueFrom(effects.loadEditor(sent(editorActions.opened({ id: 'b' })), box()));
    expect(action).toEqual(
      editorActions.loaded({ id: 'b', version: 4, build: named('waiting'), ledger: [readingOf(1), readingOf(2)] }),
    );
    expect(outbox.calls).toEqual([['flush']]);
  });

  it('say whether a build is not there or the server is away', async () => {
    const open = () => firstValueFrom(effects.loadEditor(sent(editorActions.opened({ id: 'b' })), box()));
    expect(await open()).toEqual(editorActions.failed({ id: 'b', missing: true, problem: 'There is no such build.' }));
    answers = { '/api/builds/b': 'away', '/api/builds/b/ledger': 'away' };
    expect(await open()).toEqual(
      editorActions.failed({ id: 'b', missing: false, problem: 'The server can’t be reached.' }),
    );
    answers = { '/api/builds/b': { status: 503, body: {} }, '/api/builds/b/ledger': { status: 503, body: {} } };
    expect(await open()).toEqual(
      editorActions.failed({ id: 'b', missing: false, problem: 'The server answered 503.' }),
    );
  });

  it('read the board, or say why not', async () => {
    const read = () => firstValueFrom(effects.loadBoard(sent(boardActions.opened())));
    answers = { '/api/builds': { body: [] } };
    expect(await read()).toEqual(boardActions.loaded({ builds: [] }));
    answers = { '/api/builds': 'away' };
    expect(await read()).toEqual(boardActions.failed({ problem: 'The server can’t be reached.' }));
  });

  it('put every change, undo and reading into the outbox, in order, on the version acknowledged', async () => {
    const actions = new Subject<Action>();
    effects.saveBuild(new Actions(actions), store, box()).subscribe();
    effects.saveReading(new Actions(actions), store, box()).subscribe();
    const happen = (action: Action): void => {
      store.dispatch(action);
      actions.next(action);
    };
    happen(editorActions.changed({ build: named('one'), undoable: true }));
    happen(editorActions.recorded({ entry: readingOf(1) }));
    happen(editorActions.changed({ build: named('two'), undoable: true }));
    happen(editorActions.undone());
    const names = outbox.calls.map(([kind, id, version, build]) =>
      kind === 'build' ? [kind, id, version, (build as Build).name] : [kind, id],
    );
    expect(names).toEqual([
      ['build', BUILD_ID, 1, 'one'],
      ['ledger', BUILD_ID],
      ['build', BUILD_ID, 1, 'two'],
      ['build', BUILD_ID, 1, 'one'],
    ]);
  });

  it('settle a stale build on the version that the server has', async () => {
    store.dispatch(
      editorActions.stale({ id: BUILD_ID, current: { id: BUILD_ID, version: 9, build: named('theirs') } }),
    );
    store.dispatch(editorActions.settled({ keep: 'ours' }));
    await firstValueFrom(effects.settle(sent(editorActions.settled({ keep: 'ours' })), store, box()));
    expect(outbox.calls).toEqual([['settle', BUILD_ID, 'ours', 9]]);
  });

  it('hear what the outbox has done, for builds and for the library', async () => {
    const said: ToastMessageOptions[] = [];
    const messages = { add: (message: ToastMessageOptions) => said.push(message) } as unknown as MessageService;
    const heard = firstValueFrom(effects.hearOutbox(box(), messages).pipe(toArray()));
    const spec = { id: 's', version: 3, archived: false, spec: newAxleSpec('Heron') };
    const build = { id: 'b', version: 7, build: named('theirs') };
    outbox.events.next({ kind: 'saved', of: 'build', record: 'b', version: 2 });
    outbox.events.next({ kind: 'saved', of: 'library', record: 's', version: 2 });
    outbox.events.next({ kind: 'appended', record: 'b', entryId: 'e' });
    outbox.events.next({ kind: 'stale', of: 'build', record: 'b', current: build });
    outbox.events.next({ kind: 'stale', of: 'library', record: 's', current: spec });
    outbox.events.next({
      kind: 'refused',
      record: 'b',
      message: 'value.unit must be a length.',
      write: { kind: 'ledger', record: 'b', entry: readingOf(1) },
    });
    outbox.events.complete();
    expect(await heard).toEqual([
      editorActions.saved({ id: 'b', version: 2, at: jasmine.any(String) as unknown as string }),
      libraryActions.saved({ id: 's', version: 2 }),
      editorActions.stale({ id: 'b', current: build }),
      libraryActions.stale({ current: spec }),
    ]);
    expect(said.map(({ severity, detail }) => [severity, detail])).toEqual([
      ['warn', jasmine.stringContaining('“Heron” was changed elsewhere too')],
      ['error', jasmine.stringContaining('value.unit must be a length.')],
    ]);
  });

  it('read the library with what still waits here; what the server has not seen yet comes last', async () => {
    const server = [
      { id: 'a', version: 2, archived: false, spec: newAxleSpec('Heron') },
      { id: 'c', version: 5, archived: false, spec: newGearboxSpec('Curlew') },
    ];
    answers = { '/api/library': { body: server } };
    outbox.library.set('new', newAxleSpec('Fresh'));
    outbox.library.set('a', newAxleSpec('Heron two'));
    const action = await firstValueFrom(loadLibrary(sent(libraryActions.opened()), box()));
    if (action.type !== libraryActions.loaded.type) throw new Error('not loaded');
    expect(action.specs.map(({ id, version, spec }) => [id, version, spec.name])).toEqual([
      ['a', 2, 'Heron two'],
      ['c', 5, 'Curlew'],
      ['new', 0, 'Fresh'],
    ]);
    answers = { '/api/library': 'away' };
    expect(await firstValueFrom(loadLibrary(sent(libraryActions.opened()), box()))).toEqual(
      libraryActions.failed({ problem: 'The server can’t be reached.' }),
    );
  });

  it('write, settle and put away specs of the library', async () => {
    const spec = newAxleSpec('Heron');
    const current = { id: 'a', version: 6, archived: false, spec };
    await firstValueFrom(writeSpec(sent(libraryActions.written({ id: 'a', version: 2, spec })), box()));
    await firstValueFrom(settleSpec(sent(libraryActions.settled({ current, keep: 'theirs' })), box()));
    expect(outbox.calls).toEqual([
      ['library', 'a', 2, spec],
      ['settle', 'a', 'theirs', 6],
    ]);
    const away = () => firstValueFrom(putAwaySpec(sent(libraryActions.putAway({ id: 'a', archived: true }))));
    expect(await away()).toEqual(libraryActions.failed({ problem: 'There is no such build.' }));
    answers = { '/api/library/a/archive': { body: { id: 'a', archived: true } } };
    expect(await away()).toEqual(libraryActions.wasPutAway({ id: 'a', archived: true }));
  });
});
