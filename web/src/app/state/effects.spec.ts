import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import {
  FORMAT_VERSION,
  mergeChanges,
  newAxleSpec,
  type Build,
  type BuildFile,
  type Changed,
  type LedgerEntry,
  type Reading,
} from '@hot-spline/model';
import type { Action } from '@ngrx/store';
import { Actions } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { MessageService, type ToastMessageOptions } from 'primeng/api';
import { Subject, firstValueFrom, of, toArray } from 'rxjs';
import { plateBuild } from '../../testing/drift';
import { BUILD_ID, openBench, until } from '../../testing/harness';
import { libraryActions, loadLibrary, putAwaySpec, settleSpec, writeSpec } from './library-slice';
import { newGearboxSpec } from '../library/new-spec';
import { boardActions } from './board';
import { editorActions, editorFeature } from './editor';
import * as effects from './effects';
import type { Changes } from './changes';
import type { Outbox, OutboxEvent } from './outbox';

const B = '30000000-0000-4000-8000-00000000000b';
const S = '30000000-0000-4000-8000-00000000000c';
const storedOf = (id: string, version: number, build: Build) => ({
  id,
  version,
  who: 'Ben',
  at: '2026-02-03T04:05:00.000Z',
  build,
});
const named = (name: string): Build => ({ ...plateBuild(), name });
const readingOf = (n: number): Reading => ({
  kind: 'reading',
  id: `50000000-0000-4000-8000-00000000000${n}`,
  at: '2026-02-03T04:05:00.000Z',
  subject: { what: 'case-depth', axle: 'rear', side: 'left' },
  who: '',
  value: { of: 'number', counts: 'least', entries: [entryOf(12.8, 'mm')] },
  state: {},
  instrument: 'Depth gauge',
});

/** What the effects ask of the outbox, noted down. */
class FakeOutbox {
  readonly calls: unknown[][] = [];
  readonly events = new Subject<OutboxEvent>();
  readonly waiting = signal(0);
  waits: { created: BuildFile | null; build: Build | null; entries: LedgerEntry[] } = {
    created: null,
    build: null,
    entries: [],
  };
  library = new Map<string, ReturnType<typeof newAxleSpec> | ReturnType<typeof newGearboxSpec>>();
  private note(...call: unknown[]): Promise<void> {
    this.calls.push(call);
    return Promise.resolve();
  }
  notTaken = () => this.refused.map((entry) => ({ write: { kind: 'ledger', entry } }));
  refused: LedgerEntry[] = [];
  putBuild = (...args: unknown[]) => this.note('build', ...args);
  putLedger = (...args: unknown[]) => this.note('ledger', ...args);
  putLibrary = (...args: unknown[]) => this.note('library', ...args);
  settle = (...args: unknown[]) => this.note('settle', ...args);
  flush = () => void this.note('flush');
  release = (...args: unknown[]) => void this.note('release', ...args);
  signedBy = () => undefined;
  pending = () => Promise.resolve(this.waits);
  pendingArchived = () => Promise.resolve(new Map<string, boolean>());
  putArchived = (...args: unknown[]) => this.note('archive', ...args);
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
      [`/api/builds/${B}`]: { body: storedOf(B, 4, named('server')) },
      [`/api/builds/${B}/ledger`]: { body: [readingOf(1)] },
    };
    outbox.waits = { created: null, build: named('waiting'), entries: [readingOf(1), readingOf(2)] };
    const action = await firstValueFrom(effects.loadEditor(sent(editorActions.opened({ id: B })), box()));
    expect(action).toEqual(
      editorActions.loaded({ id: B, version: 4, build: named('waiting'), ledger: [readingOf(1), readingOf(2)] }),
    );
    expect(outbox.calls).toEqual([['release', B]]);
  });

  it('open a build that begins here before the server has heard of it', async () => {
    const file: BuildFile = {
      format: 'hot-spline/build-file',
      formatVersion: FORMAT_VERSION,
      build: named('begun'),
      ledger: [readingOf(1)],
    };
    outbox.waits = { created: file, build: null, entries: [readingOf(2)] };
    const action = await firstValueFrom(effects.loadEditor(sent(editorActions.opened({ id: B })), box()));
    expect(action).toEqual(
      editorActions.loaded({ id: B, version: 1, build: named('begun'), ledger: [readingOf(1), readingOf(2)] }),
    );
  });

  it('say whether a build is not there or the server is away', async () => {
    const open = () => firstValueFrom(effects.loadEditor(sent(editorActions.opened({ id: B })), box()));
    expect(await open()).toEqual(editorActions.failed({ id: B, missing: true, problem: 'There is no such build.' }));
    answers = { [`/api/builds/${B}`]: 'away', [`/api/builds/${B}/ledger`]: 'away' };
    expect(await open()).toEqual(
      editorActions.failed({ id: B, missing: false, problem: 'The server can’t be reached.' }),
    );
    answers = {
      [`/api/builds/${B}`]: { status: 500, body: {} },
      [`/api/builds/${B}/ledger`]: { status: 500, body: {} },
    };
    expect(await open()).toEqual(editorActions.failed({ id: B, missing: false, problem: 'The server answered 500.' }));
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
    const messages = new MessageService();
    effects.saveBuild(new Actions(actions), store, box(), messages).subscribe();
    effects.saveReading(new Actions(actions), store, box(), messages).subscribe();
    const happen = (action: Action): void => {
      store.dispatch(action);
      actions.next(action);
    };
    happen(editorActions.changed({ build: named('one') }));
    happen(editorActions.recorded({ entry: readingOf(1) }));
    happen(editorActions.changed({ build: named('two') }));
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

  it('what this device can’t keep is said and is not shown as recorded; a change stays on the screen', async () => {
    const said: ToastMessageOptions[] = [];
    const messages = { add: (message: ToastMessageOptions) => said.push(message) } as unknown as MessageService;
    const full = {
      notTaken: () => [],
      putBuild: () => Promise.reject(new Error('no room')),
      putLedger: () => Promise.reject(new Error('no room')),
    };
    const actions = new Subject<Action>();
    const outcomes: Action[] = [];
    effects.saveBuild(new Actions(actions), store, full as unknown as Outbox, messages).subscribe();
    effects
      .saveReading(new Actions(actions), store, full as unknown as Outbox, messages)
      .subscribe((action) => outcomes.push(action));
    const entry = readingOf(1);
    for (const action of [editorActions.recorded({ entry }), editorActions.changed({ build: named('kept here') })]) {
      store.dispatch(action);
      actions.next(action);
    }
    await until(() => said.length === 2 && outcomes.length === 1);
    expect(outcomes).toEqual([editorActions.notKept({ entry })]);
    store.dispatch(editorActions.notKept({ entry }));
    expect(
      store
        .selectSignal(editorFeature.selectLedger)()
        .some(({ id }) => id === entry.id),
    ).toBeFalse();
    expect(store.selectSignal(editorFeature.selectPresent)()?.name).toBe('kept here');
    for (const { severity, detail } of said)
      expect([severity, detail]).toEqual(['error', jasmine.stringContaining('no room')]);
  });

  it('settle a stale build on the version that the server has', async () => {
    const ours = store.selectSignal(editorFeature.selectPresent)() as Build;
    const theirs = named('theirs');
    const { merged, held, overlaps } = mergeChanges(named('base'), ours, theirs);
    expect(overlaps.length).toBe(1);
    const conflict = { current: storedOf(BUILD_ID, 9, theirs), merged, held, overlaps };
    store.dispatch(editorActions.stale({ id: BUILD_ID, conflict }));
    store.dispatch(editorActions.settled({ keep: 'ours' }));
    await firstValueFrom(effects.settle(sent(editorActions.settled({ keep: 'ours' })), store, box()));
    expect(outbox.calls).toEqual([['settle', BUILD_ID, 'ours', 9, ours]]);
  });

  const hear = async (...events: OutboxEvent[]) => {
    const said: ToastMessageOptions[] = [];
    const messages = { add: (message: ToastMessageOptions) => said.push(message) } as unknown as MessageService;
    const heard = firstValueFrom(effects.hearOutbox(box(), messages, store).pipe(toArray()));
    for (const event of events) outbox.events.next(event);
    outbox.events.complete();
    return { actions: await heard, said };
  };

  it('hear what the outbox has done, for builds and for the library', async () => {
    const spec = { id: S, version: 3, archived: false, spec: newAxleSpec('Heron') };
    const { actions, said } = await hear(
      { kind: 'saved', of: 'build', record: B, version: 2 },
      { kind: 'saved', of: 'library', record: S, version: 2 },
      { kind: 'appended', record: B, entryId: 'e' },
      { kind: 'stale', of: 'library', record: S, current: spec },
      { kind: 'refused', record: B, message: 'value.unit must be a length.', write: {} as never },
    );
    expect(actions).toEqual([
      editorActions.saved({ id: B, version: 2, at: jasmine.any(String) as unknown as string }),
      libraryActions.saved({ id: S, version: 2 }),
      editorActions.appended({ id: B, at: jasmine.any(String) as unknown as string }),
      libraryActions.stale({ current: spec }),
    ]);
    expect(said.map(({ severity, detail }) => [severity, detail])).toEqual([
      ['warn', jasmine.stringContaining('“Heron” was changed elsewhere too')],
      ['error', jasmine.stringContaining('value.unit must be a length.')],
    ]);
  });

  it('put a stale change together with another one where they touch different places', async () => {
    const base = store.selectSignal(editorFeature.selectPresent)() as Build;
    answers = {
      [`/api/builds/${BUILD_ID}/versions/1`]: { body: storedOf(BUILD_ID, 1, base) },
      [`/api/builds/${BUILD_ID}/ledger`]: { body: [readingOf(7)] },
    };
    const ours = { ...base, notes: 'mine' };
    store.dispatch(editorActions.changed({ build: ours }));
    const theirs = { ...base, vehicle: 'theirs' };
    const current = storedOf(BUILD_ID, 5, theirs);
    const stale = { kind: 'stale', of: 'build', record: BUILD_ID, current, baseVersion: 1, build: ours } as const;
    const { actions } = await hear(stale);
    const build = { ...base, notes: 'mine', vehicle: 'theirs' };
    // Who changed the specification has read something too.
    expect(store.selectSignal(editorFeature.selectLedger)()).toEqual([readingOf(7)]);
    expect(actions).toEqual([editorActions.merged({ id: BUILD_ID, version: 5, build, ledger: [readingOf(7)] })]);
    expect(outbox.calls).toEqual([['settle', BUILD_ID, 'ours', 5, build]]);
  });

  it('ask where both have changed one place, with what each says and who', async () => {
    const base = store.selectSignal(editorFeature.selectPresent)() as Build;
    answers = { [`/api/builds/${BUILD_ID}/versions/1`]: { body: storedOf(BUILD_ID, 1, base) } };
    const ours = { ...base, notes: 'mine', vehicle: 'x' };
    store.dispatch(editorActions.changed({ build: ours }));
    const current = storedOf(BUILD_ID, 5, { ...base, notes: 'theirs' });
    const { actions } = await hear({
      kind: 'stale',
      of: 'build',
      record: BUILD_ID,
      current,
      baseVersion: 1,
      build: ours,
    });
    const [action] = actions as ReturnType<typeof editorActions.stale>[];
    expect(action?.conflict.overlaps.map(({ path, ours: a, theirs: b }) => [path, a, b])).toEqual([
      [['notes'], 'mine', 'theirs'],
    ]);
    expect([action?.conflict.current.who, action?.conflict.merged.vehicle]).toEqual(['Ben', 'x']);
    expect(outbox.calls).toEqual([]);
  });

  describe('what others change', () => {
    const heard = (...changes: Changed[]) => {
      const others = { heard: new Subject<Changed>() } as unknown as Changes;
      const actions = firstValueFrom(effects.hearChanges(store, box(), others).pipe(toArray()));
      for (const change of changes) others.heard.next(change);
      others.heard.complete();
      return actions;
    };
    const ledger = [readingOf(1), readingOf(2)];
    const serve = (build: Build, version: number): void => {
      answers = {
        [`/api/builds/${BUILD_ID}`]: { body: storedOf(BUILD_ID, version, build) },
        [`/api/builds/${BUILD_ID}/ledger`]: { body: ledger },
      };
    };
    const entry = readingOf(2).id;

    it('is taken over by the build that is open: specification and ledger, the first at once, of several together the last', async () => {
      serve(named('theirs'), 4);
      const change = { of: 'build', id: BUILD_ID, version: 3 } as const;
      const more = { of: 'ledger', id: BUILD_ID, entry, count: 2 } as const;
      const theirs = editorActions.refreshed({ id: BUILD_ID, version: 4, build: named('theirs'), ledger });
      expect(await heard(change)).toEqual([theirs]);
      // Read for the first and once more for all the others together.
      expect(await heard(change, { ...change, version: 4 }, more, more, more)).toEqual([theirs, theirs]);
    });

    it('while a change of ours is on its way, the ledger alone', async () => {
      serve(named('theirs'), 4);
      outbox.waits = { created: null, build: named('ours'), entries: [readingOf(3)] };
      expect(await heard({ of: 'all' })).toEqual([
        editorActions.ledgerHeard({ id: BUILD_ID, ledger: [...ledger, readingOf(3)] }),
      ]);
    });

    it('what is written here while it is read is not overwritten', async () => {
      serve(named('theirs'), 4);
      outbox.pending = () => {
        store.dispatch(editorActions.changed({ build: named('typed meanwhile') }));
        return Promise.resolve(outbox.waits);
      };
      expect(await heard({ of: 'build', id: BUILD_ID, version: 4 })).toEqual([
        editorActions.ledgerHeard({ id: BUILD_ID, ledger }),
      ]);
    });

    it('is no news where it is another build’s, our own, or older than what is here', async () => {
      store.dispatch(editorActions.recorded({ entry: readingOf(2) }));
      expect(
        await heard(
          { of: 'build', id: BUILD_ID, version: 1 },
          { of: 'build', id: B, version: 9 },
          { of: 'ledger', id: BUILD_ID, entry, count: 2 },
          { of: 'ledger', id: B, entry: readingOf(9).id, count: 2 },
          { of: 'library', id: B },
          { of: 'shop' },
        ),
      ).toEqual([]);
    });

    it('an entry of ours that is not there yet stays behind what is', () => {
      store.dispatch(editorActions.recorded({ entry: readingOf(3) }));
      store.dispatch(editorActions.ledgerHeard({ id: BUILD_ID, ledger }));
      const ids = () =>
        store
          .selectSignal(editorFeature.selectLedger)()
          .map(({ id }) => id);
      expect(ids()).toEqual([1, 2, 3].map((n) => readingOf(n).id));
      // Heard once more, nothing is another object: nothing is derived anew.
      const before = store.selectSignal(editorFeature.selectLedger)();
      store.dispatch(editorActions.ledgerHeard({ id: BUILD_ID, ledger: structuredClone(ledger) }));
      expect(store.selectSignal(editorFeature.selectLedger)()).toBe(before);
      // The same document anew takes no redo away.
      const editor = store.selectSignal(editorFeature.selectEditorState)();
      store.dispatch(editorActions.changed({ build: named('two') }));
      store.dispatch(editorActions.undone());
      const build = structuredClone(editor.present as Build);
      store.dispatch(editorActions.refreshed({ id: BUILD_ID, version: 7, build, ledger }));
      expect(store.selectSignal(editorFeature.selectFuture)().length).toBe(1);
    });

    it('a signature says what it stands over, without what the server did not take; one that was overtaken is none', async () => {
      const signature = {
        kind: 'signature',
        id: crypto.randomUUID(),
        at: '2026-02-03T04:05:00.000Z',
        who: 'Ada',
        gate: 'B',
        name: 'Ada',
        figures: {},
      } as const;
      outbox.refused = [readingOf(2)];
      for (const one of [readingOf(1), readingOf(2), signature]) store.dispatch(editorActions.recorded({ entry: one }));
      const messages = TestBed.inject(MessageService);
      const record = (one: LedgerEntry) => sent(editorActions.recorded({ entry: one }));
      await firstValueFrom(effects.saveReading(record(signature), store, box(), messages), { defaultValue: null });
      await firstValueFrom(effects.saveReading(record(readingOf(1)), store, box(), messages), { defaultValue: null });
      expect(outbox.calls.map((call) => call[3])).toEqual([1, undefined]);
      const { actions, said } = await hear({ kind: 'moved-on', record: BUILD_ID, entry: signature, came: 2 });
      expect(actions).toEqual([editorActions.notKept({ entry: signature })]);
      expect(said[0]?.detail).toContain('2 entries have come');
    });
  });

  it('read the library with what still waits here; what the server has not seen yet comes last', async () => {
    const server = [
      { id: B, version: 2, archived: false, spec: newAxleSpec('Heron'), unreadable: null },
      { id: S, version: 5, archived: false, spec: newGearboxSpec('Curlew'), unreadable: null },
      { id: crypto.randomUUID(), version: 1, archived: false, spec: null, unreadable: 'name holds a NUL character' },
    ];
    answers = { '/api/library': { body: server } };
    outbox.library.set('new', newAxleSpec('Fresh'));
    outbox.library.set(B, newAxleSpec('Heron two'));
    const action = await firstValueFrom(loadLibrary(sent(libraryActions.opened()), box()));
    if (action.type !== libraryActions.loaded.type) throw new Error('not loaded');
    expect(action.specs.map(({ id, version, spec }) => [id, version, spec.name])).toEqual([
      [B, 2, 'Heron two'],
      [S, 5, 'Curlew'],
      ['new', 0, 'Fresh'],
    ]);
    // Changed here while it is read: what comes from the server is older.
    let asked = 0;
    outbox.pendingLibrary = () =>
      Promise.resolve(new Map(asked++ === 0 ? [] : [[B, newAxleSpec('Heron three')] as const]));
    const again = await firstValueFrom(loadLibrary(sent(libraryActions.opened()), box()));
    if (again.type !== libraryActions.loaded.type) throw new Error('not loaded');
    expect(again.specs[0]?.spec.name).toBe('Heron three');
    answers = { '/api/library': 'away' };
    expect(await firstValueFrom(loadLibrary(sent(libraryActions.opened()), box()))).toEqual(
      libraryActions.failed({ problem: 'The server can’t be reached.' }),
    );
  });

  it('write, settle and put away specs of the library', async () => {
    const spec = newAxleSpec('Heron');
    const current = { id: B, version: 6, archived: false, spec };
    await firstValueFrom(writeSpec(sent(libraryActions.written({ id: B, version: 2, spec })), box()));
    await firstValueFrom(settleSpec(sent(libraryActions.settled({ current, keep: 'theirs' })), box()));
    expect(outbox.calls).toEqual([
      ['library', B, 2, spec],
      ['settle', B, 'theirs', 6],
    ]);
    const away = () => firstValueFrom(putAwaySpec(sent(libraryActions.putAway({ id: B, archived: true })), box()));
    expect(await away()).toEqual(libraryActions.wasPutAway({ id: B, archived: true }));
    expect(outbox.calls.at(-1)).toEqual(['archive', 'library', B, true]);
    outbox.putArchived = () => Promise.reject(new Error('no room, and no server'));
    expect(await away()).toEqual(libraryActions.failed({ problem: 'no room, and no server' }));
  });
});
