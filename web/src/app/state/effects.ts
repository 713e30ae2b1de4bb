import { inject } from '@angular/core';
import { buildSchema, mergeChanges, type Build } from '@hot-spline/model/document';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import {
  EMPTY,
  catchError,
  concatMap,
  distinctUntilChanged,
  filter,
  from,
  fromEvent,
  map,
  mergeMap,
  of,
  switchMap,
  tap,
  withLatestFrom,
} from 'rxjs';
import { libraryActions, libraryFeature } from './library-slice';
import { ApiError, api } from './api';
import { boardActions } from './board';
import { editorActions, editorFeature, type Conflict } from './editor';
import { LOOKING_KEY, lookingFeature } from './looking';
import { Outbox, type OutboxEvent } from './outbox';
import { UI_KEY, uiFeature } from './ui';
import { deviceStore } from '../base/device-store';

/** Tells the other tabs of this browser what was saved. */
const channel = new BroadcastChannel('hot-spline');

interface Saved {
  readonly of: 'build' | 'library';
  readonly record: string;
}

/** Says that this device could not keep something. */
const notKept = (messages: MessageService, detail: string): void =>
  messages.add({ severity: 'error', summary: 'This device could not keep it', detail, sticky: true });

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

async function loadBuild(id: string, outbox: Outbox) {
  // What waits is read first: what the server acknowledges meanwhile is then in its answer.
  const pending = await outbox.pending(id);
  const [stored, ledger] = await Promise.all([api.build(id), api.ledger(id)]).catch((error: unknown) => {
    // It begins here, and the server has not heard of it yet.
    if (!pending.created || !(error instanceof ApiError) || (error.status !== 0 && error.status !== 404)) throw error;
    return [{ version: 1, build: pending.created.build }, pending.created.ledger] as const;
  });
  const known = new Set(ledger.map((entry) => entry.id));
  const overtaken = (pending.refusedOn ?? stored.version) < stored.version;
  return {
    id,
    version: stored.version,
    build: (overtaken ? null : pending.build) ?? stored.build,
    ledger: [...ledger, ...pending.entries.filter((entry) => !known.has(entry.id))],
    waiting: pending.created !== null || pending.build !== null || pending.entries.length > 0,
  };
}

export const loadBoard = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(boardActions.opened),
      switchMap(() =>
        from(
          api.builds().then(
            (builds) => boardActions.loaded({ builds }),
            (error: unknown) => boardActions.failed({ problem: messageOf(error) }),
          ),
        ),
      ),
    ),
  { functional: true },
);

export const loadEditor = createEffect(
  (actions = inject(Actions), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(editorActions.opened),
      switchMap(({ id }) =>
        from(
          loadBuild(id, outbox).then(
            ({ waiting, ...loaded }) => {
              if (waiting) outbox.release(loaded.id);
              return editorActions.loaded(loaded);
            },
            (error: unknown) =>
              editorActions.failed({
                id,
                missing: error instanceof ApiError && (error.status === 404 || error.status === 422),
                problem: messageOf(error),
              }),
          ),
        ),
      ),
    ),
  { functional: true },
);

/** Whatever changes the specification goes into the outbox, in order. */
export const saveBuild = createEffect(
  (actions = inject(Actions), store = inject(Store), outbox = inject(Outbox), messages = inject(MessageService)) =>
    actions.pipe(
      ofType(editorActions.changed, editorActions.undone, editorActions.redone),
      withLatestFrom(store.select(editorFeature.selectEditorState)),
      mergeMap(([, { id, version, present }]) =>
        id !== null && present
          ? from(outbox.putBuild(id, version, present)).pipe(
              catchError((error: unknown) => {
                // It stays as it is on the screen; the next change puts all of it again.
                notKept(messages, `The change is on this screen only: ${messageOf(error)}`);
                return EMPTY;
              }),
            )
          : EMPTY,
      ),
    ),
  { functional: true, dispatch: false },
);

export const saveReading = createEffect(
  (actions = inject(Actions), store = inject(Store), outbox = inject(Outbox), messages = inject(MessageService)) =>
    actions.pipe(
      ofType(editorActions.recorded),
      withLatestFrom(store.select(editorFeature.selectId)),
      mergeMap(([{ entry }, id]) =>
        id === null
          ? EMPTY
          : from(outbox.putLedger(id, entry)).pipe(
              mergeMap(() => EMPTY),
              catchError((error: unknown) => {
                // What no place keeps was not recorded: it is not shown as if it were.
                notKept(messages, `It was not recorded: ${messageOf(error)}`);
                return of(editorActions.notKept({ entry }));
              }),
            ),
      ),
    ),
  { functional: true },
);

export const settle = createEffect(
  (actions = inject(Actions), store = inject(Store), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(editorActions.settled),
      withLatestFrom(store.select(editorFeature.selectEditorState)),
      concatMap(([{ keep }, { id, version, present }]) =>
        id === null || !present ? EMPTY : outbox.settle(id, keep, version, keep === 'ours' ? present : undefined),
      ),
    ),
  { functional: true, dispatch: false },
);

type StaleBuild = Extract<OutboxEvent, { kind: 'stale'; of: 'build' }>;

/** Our change and the one that reached the server first, put together over the version that ours was made on. */
async function mergeStale({ record, current, baseVersion, build }: StaleBuild, newest: Build): Promise<Conflict> {
  const base = await api.buildVersion(record, baseVersion).then(
    (stored) => stored.build,
    (error: unknown) => {
      // Without the common ground every difference is one that somebody has to look at.
      console.warn('the version that a change was made on could not be read', error);
      return null;
    },
  );
  const { merged, held, overlaps } = mergeChanges(base ?? build, newest, current.build);
  if (base !== null) return { current, merged, held, overlaps };
  const all = mergeChanges(current.build, newest, current.build);
  return {
    current,
    merged: current.build,
    held: all.held,
    overlaps: [{ path: [], base: null, ours: newest, theirs: current.build }],
  };
}

/** What the outbox did, as what the store has to know. */
async function heard(event: OutboxEvent, store: Store, outbox: Outbox) {
  switch (event.kind) {
    case 'saved': {
      const { record: id, version } = event;
      return event.of === 'build'
        ? editorActions.saved({ id, version, at: new Date().toISOString() })
        : libraryActions.saved({ id, version });
    }
    case 'signed':
      return editorActions.signed({ entries: event.entries });
    case 'appended':
      return editorActions.appended({ id: event.record, at: new Date().toISOString() });
    case 'stale': {
      if (event.of === 'library') return libraryActions.stale({ current: event.current });
      const { record: id, current } = event;
      const editor = store.selectSignal(editorFeature.selectEditorState)();
      const newest = editor.id === id && editor.present ? editor.present : event.build;
      const conflict = await mergeStale(event, newest);
      if (conflict.overlaps.length > 0 || !buildSchema.safeParse(conflict.merged).success)
        return editorActions.stale({ id, conflict });
      await outbox.settle(id, 'ours', current.version, conflict.merged);
      return editorActions.merged({ id, version: current.version, build: conflict.merged });
    }
    default:
      return null;
  }
}

export const hearOutbox = createEffect(
  (outbox = inject(Outbox), messages = inject(MessageService), store = inject(Store)) =>
    outbox.events.pipe(
      tap((event) => {
        if (event.kind === 'saved' || event.kind === 'appended')
          channel.postMessage({
            of: event.kind === 'saved' ? event.of : 'build',
            record: event.record,
          } satisfies Saved);
        // The page of the library shows it itself.
        if (event.kind === 'stale' && event.of === 'library' && location.pathname !== '/library') {
          messages.add({
            severity: 'warn',
            summary: 'Changed elsewhere',
            detail: `“${event.current.spec.name}” was changed elsewhere too. Both are kept; choose on the page of the library.`,
            sticky: true,
          });
        }
        if (event.kind === 'refused') {
          messages.add({
            severity: 'error',
            summary: 'The server did not take a change',
            detail: `${event.message} It is kept under “Not taken”: send it again, export it or throw it away there.`,
            sticky: true,
          });
        }
      }),
      concatMap((event) => from(heard(event, store, outbox))),
      filter((action) => action !== null),
    ),
  { functional: true },
);

/** Another tab saved this build: take it over, unless something of ours is still on its way. */
export const hearOtherTabs = createEffect(
  (store = inject(Store), outbox = inject(Outbox)) =>
    fromEvent<MessageEvent<Saved>>(channel, 'message').pipe(
      withLatestFrom(store.select(editorFeature.selectId)),
      filter(([{ data }, id]) => data.of === 'build' && data.record === id),
      map(([{ data }]) => data.record),
      switchMap((buildId) =>
        from(
          loadBuild(buildId, outbox).then(
            (loaded) => (loaded.waiting ? null : loaded),
            (error: unknown) => {
              // The next change or reload meets the server anyway and says what is wrong.
              console.warn('another tab saved, but the build could not be read again', error);
              return null;
            },
          ),
        ),
      ),
      filter((loaded) => loaded !== null),
      map(({ id, version, build, ledger }) => editorActions.refreshed({ id, version, build, ledger })),
    ),
  { functional: true },
);

/** The same for the library, where it is open. */
export const hearOtherLibraries = createEffect(
  (store = inject(Store)) =>
    fromEvent<MessageEvent<Saved>>(channel, 'message').pipe(
      withLatestFrom(store.select(libraryFeature.selectStatus)),
      filter(([{ data }, status]) => data.of === 'library' && status === 'ready'),
      map(() => libraryActions.opened()),
    ),
  { functional: true },
);

export const keepLooking = createEffect(
  (store = inject(Store)) =>
    store.select(lookingFeature.selectPoints).pipe(
      distinctUntilChanged(),
      tap((points) => deviceStore.set(LOOKING_KEY, JSON.stringify(points))),
    ),
  { functional: true, dispatch: false },
);

/** Whatever leaves this device carries the name of who works on it. */
export const signOutbox = createEffect(
  (store = inject(Store), outbox = inject(Outbox)) =>
    store.select(uiFeature.selectUiState).pipe(
      map(({ who }) => (who === '' ? null : who)),
      distinctUntilChanged(),
      tap((who) => outbox.signedBy(who)),
    ),
  { functional: true, dispatch: false },
);

export const keepUi = createEffect(
  (store = inject(Store)) =>
    store.select(uiFeature.selectUiState).pipe(
      map(({ system, night, findingsOpen, who }) => JSON.stringify({ system, night, findingsOpen, who })),
      distinctUntilChanged(),
      tap((text) => {
        deviceStore.set(UI_KEY, text);
        document.documentElement.classList.toggle('night', (JSON.parse(text) as { night: boolean }).night);
      }),
    ),
  { functional: true, dispatch: false },
);
