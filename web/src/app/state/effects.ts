import { inject } from '@angular/core';
import { buildSchema, mergeChanges, type Build, type Changed, type LedgerEntry } from '@hot-spline/model/document';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import {
  EMPTY,
  asyncScheduler,
  auditTime,
  catchError,
  concatMap,
  distinctUntilChanged,
  filter,
  from,
  map,
  mergeMap,
  of,
  switchMap,
  tap,
  throttleTime,
  withLatestFrom,
} from 'rxjs';
import { libraryActions, libraryFeature } from './library-slice';
import { ApiError, api } from './api';
import { boardActions } from './board';
import { Changes } from './changes';
import { editorActions, editorFeature, type Conflict, type EditorState } from './editor';
import { LOOKING_KEY, lookingFeature } from './looking';
import { Outbox, type OutboxEvent } from './outbox';
import { UI_KEY, uiFeature } from './ui';
import { deviceStore } from '../base/device-store';
import { holdStill } from '../base/hold-still';

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
    /** A change of the specification is on its way: the server says what becomes of the two. */
    changing: pending.created !== null || pending.build !== null,
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
            ({ waiting, changing: _, ...loaded }) => {
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

/** A signature stands over what was there when it was made, and what the server will have by then: not over what it did not take. */
function overOf(entry: LedgerEntry, ledger: readonly LedgerEntry[], outbox: Outbox): number | undefined {
  if (entry.kind !== 'signature') return undefined;
  const not = new Set(outbox.notTaken().flatMap(({ write }) => (write.kind === 'ledger' ? [write.entry.id] : [])));
  return ledger.filter(({ id }) => id !== entry.id && !not.has(id)).length;
}

export const saveReading = createEffect(
  (actions = inject(Actions), store = inject(Store), outbox = inject(Outbox), messages = inject(MessageService)) =>
    actions.pipe(
      ofType(editorActions.recorded),
      withLatestFrom(store.select(editorFeature.selectEditorState)),
      mergeMap(([{ entry }, { id, ledger }]) =>
        id === null
          ? EMPTY
          : from(outbox.putLedger(id, entry, overOf(entry, ledger, outbox))).pipe(
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
    case 'moved-on':
      return editorActions.notKept({ entry: event.entry });
    case 'appended':
      return editorActions.appended({ id: event.record, at: new Date().toISOString() });
    case 'stale': {
      if (event.of === 'library') return libraryActions.stale({ current: event.current });
      const { record: id, current } = event;
      const editor = store.selectSignal(editorFeature.selectEditorState)();
      const newest = editor.id === id && editor.present ? editor.present : event.build;
      const conflict = await mergeStale(event, newest);
      // Whoever changed the specification may have read something too.
      const ledger = await api.ledger(id).catch((error: unknown) => {
        console.warn('the ledger of a build that was changed elsewhere could not be read again', error);
        return [];
      });
      store.dispatch(editorActions.ledgerHeard({ id, ledger }));
      if (conflict.overlaps.length > 0 || !buildSchema.safeParse(conflict.merged).success)
        return editorActions.stale({ id, conflict });
      await outbox.settle(id, 'ours', current.version, conflict.merged);
      return editorActions.merged({ id, version: current.version, build: conflict.merged, ledger });
    }
    default:
      return null;
  }
}

export const hearOutbox = createEffect(
  (outbox = inject(Outbox), messages = inject(MessageService), store = inject(Store)) =>
    outbox.events.pipe(
      tap((event) => {
        // The page of the library shows it itself.
        if (
          event.kind === 'stale' &&
          event.of === 'library' &&
          location.pathname !== new URL('library', document.baseURI).pathname
        ) {
          messages.add({
            severity: 'warn',
            summary: 'Changed elsewhere',
            detail: `“${event.current.spec.name}” was changed elsewhere too. Both are kept; choose on the page of the library.`,
            sticky: true,
          });
        }
        if (event.kind === 'moved-on') {
          messages.add({
            severity: 'error',
            summary: 'Not signed',
            detail: `${event.came === 1 ? 'An entry has' : `${event.came} entries have`} come to this ledger since you looked, and you had not seen ${event.came === 1 ? 'it' : 'them'}. Look again, and sign again.`,
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

/** Whether something that changed is news to the build that is open. */
function isNews(change: Changed, { id, version, ledger }: EditorState): boolean {
  switch (change.of) {
    case 'all':
      return id !== null;
    case 'build':
      return change.id === id && change.version > version;
    case 'ledger':
      return change.id === id && ledger.every((entry) => entry.id !== change.entry);
    default:
      return false;
  }
}

/** Of several at once, the last state is read once. */
const TOGETHER_MS = 100;

/**
 * The build as it is when somebody else has changed it. What another tab has just sent may still stand in the queue that both share,
 * and is no change of ours that is on its way: it is looked at once more.
 */
async function loadSettled(id: string, outbox: Outbox) {
  const loaded = await loadBuild(id, outbox);
  if (!loaded.changing) return loaded;
  await new Promise((resolve) => setTimeout(resolve, TOGETHER_MS));
  return loadBuild(id, outbox);
}

/**
 * Somebody else changed the build that is open, in another tab or on another device: its ledger is taken over, and its specification
 * too, unless something of ours is on its way or was written meanwhile: that meets the server, and is put together there.
 */
export const hearChanges = createEffect(
  (store = inject(Store), outbox = inject(Outbox), changes = inject(Changes)) =>
    changes.heard.pipe(
      withLatestFrom(store.select(editorFeature.selectEditorState)),
      filter(([change, editor]) => isNews(change, editor)),
      // One alone at once: somebody waits for it.
      throttleTime(TOGETHER_MS, asyncScheduler, { leading: true, trailing: true }),
      withLatestFrom(store.select(editorFeature.selectEditorState)),
      switchMap(([, { id, present }]) =>
        id === null
          ? EMPTY
          : from(
              loadSettled(id, outbox).then(
                (loaded) => {
                  const now = store.selectSignal(editorFeature.selectEditorState)();
                  const { version, build, ledger } = loaded;
                  return loaded.changing || now.present !== present || now.conflict
                    ? editorActions.ledgerHeard({ id, ledger })
                    : editorActions.refreshed({ id, version, build, ledger });
                },
                (error: unknown) => {
                  // The next change or reload meets the server anyway and says what is wrong.
                  console.warn('the build changed elsewhere, and could not be read again', error);
                  return null;
                },
              ),
            ),
      ),
      filter((action) => action !== null),
      tap(() => holdStill()),
    ),
  { functional: true },
);

/** The same for the library, where it is open. */
export const hearLibrary = createEffect(
  (store = inject(Store), changes = inject(Changes)) =>
    changes.heard.pipe(
      filter(({ of }) => of === 'library' || of === 'all'),
      auditTime(TOGETHER_MS),
      withLatestFrom(store.select(libraryFeature.selectStatus)),
      // While it is read it is read again: what is under way may have asked before the change.
      filter(([, status]) => status !== 'idle'),
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
      map(({ system, night, findingsOpen, elsewhereOpen, sound, decimal, asked, who }) =>
        JSON.stringify({ system, night, findingsOpen, elsewhereOpen, sound, decimal, asked, who }),
      ),
      distinctUntilChanged(),
      tap((text) => {
        deviceStore.set(UI_KEY, text);
        document.documentElement.classList.toggle('night', (JSON.parse(text) as { night: boolean }).night);
      }),
    ),
  { functional: true, dispatch: false },
);
