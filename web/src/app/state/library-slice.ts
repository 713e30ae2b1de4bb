import { inject } from '@angular/core';
import type { LibrarySpec } from '@hot-spline/model';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { concatMap, from, mergeMap, switchMap } from 'rxjs';
import { api, type StoredSpec } from './api';
import { Outbox } from './outbox';

/** The shop's own specs of axles and gearboxes, and its drawers of shims. */
export interface LibraryState {
  readonly status: 'idle' | 'loading' | 'ready' | 'failed';
  readonly specs: readonly StoredSpec[];
  /** What the server has instead, of the specs that were changed elsewhere first. */
  readonly conflicts: readonly StoredSpec[];
  readonly problem: string | null;
}

export const libraryActions = createActionGroup({
  source: 'Library',
  events: {
    opened: emptyProps(),
    loaded: props<{ specs: StoredSpec[] }>(),
    failed: props<{ problem: string }>(),
    /** Writes a spec; `version` 0 for a new one. */
    written: props<{ id: string; version: number; spec: LibrarySpec }>(),
    saved: props<{ id: string; version: number }>(),
    stale: props<{ current: StoredSpec }>(),
    settled: props<{ current: StoredSpec; keep: 'ours' | 'theirs' }>(),
    putAway: props<{ id: string; archived: boolean }>(),
    wasPutAway: props<{ id: string; archived: boolean }>(),
  },
});

const change = (specs: readonly StoredSpec[], id: string, to: Partial<StoredSpec>): StoredSpec[] =>
  specs.map((one) => (one.id === id ? { ...one, ...to } : one));

/** What was read, but for what has been saved since it was asked for. */
function merged(known: readonly StoredSpec[], read: readonly StoredSpec[]): StoredSpec[] {
  const byId = new Map(known.map((one) => [one.id, one]));
  const newest = read.map((one) => {
    const here = byId.get(one.id);
    byId.delete(one.id);
    return here && here.version > one.version ? here : one;
  });
  return [...newest, ...byId.values()];
}

export const libraryFeature = createFeature({
  name: 'library',
  reducer: createReducer<LibraryState>(
    { status: 'idle', specs: [], conflicts: [], problem: null },
    on(libraryActions.opened, (state) => ({
      ...state,
      status: state.status === 'ready' ? state.status : ('loading' as const),
    })),
    on(libraryActions.loaded, (state, { specs }) => ({
      ...state,
      status: 'ready' as const,
      specs: merged(state.specs, specs),
      problem: null,
    })),
    on(libraryActions.failed, (state, { problem }) => ({ ...state, status: 'failed' as const, problem })),
    // Shown at once; the outbox keeps it until the server has it.
    on(libraryActions.written, (state, { id, version, spec }) => ({
      ...state,
      specs: state.specs.some((one) => one.id === id)
        ? change(state.specs, id, { spec })
        : [...state.specs, { id, version, archived: false, spec }],
    })),
    on(libraryActions.saved, (state, { id, version }) => {
      const known = state.specs.find((one) => one.id === id)?.version ?? 0;
      return { ...state, specs: change(state.specs, id, { version: Math.max(version, known) }) };
    }),
    on(libraryActions.stale, (state, { current }) => ({
      ...state,
      conflicts: [...state.conflicts.filter(({ id }) => id !== current.id), current],
    })),
    on(libraryActions.settled, (state, { current, keep }) => ({
      ...state,
      conflicts: state.conflicts.filter(({ id }) => id !== current.id),
      specs: change(state.specs, current.id, keep === 'ours' ? { version: current.version } : current),
    })),
    on(libraryActions.wasPutAway, (state, { id, archived }) => ({
      ...state,
      problem: null,
      specs: change(state.specs, id, { archived }),
    })),
  ),
});

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** The server's specs, with what waits here in place of what it has. */
async function loadSpecs(outbox: Outbox): Promise<StoredSpec[]> {
  const before = await outbox.pendingLibrary();
  const read = await api.library();
  // What was changed here while it was read is newer than what was read.
  const waiting = new Map([...before, ...(await outbox.pendingLibrary())]);
  const away = await outbox.pendingArchived('library');
  const specs = read.flatMap(({ id, version, archived, spec: kept }): StoredSpec[] => {
    const spec = waiting.get(id) ?? kept;
    waiting.delete(id);
    return spec ? [{ id, version, archived: away.get(id) ?? archived, spec }] : [];
  });
  return [...specs, ...[...waiting].map(([id, spec]) => ({ id, version: 0, archived: away.get(id) ?? false, spec }))];
}

export const loadLibrary = createEffect(
  (actions = inject(Actions), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(libraryActions.opened),
      switchMap(() =>
        from(
          loadSpecs(outbox).then(
            (specs) => libraryActions.loaded({ specs }),
            (error: unknown) => libraryActions.failed({ problem: messageOf(error) }),
          ),
        ),
      ),
    ),
  { functional: true },
);

export const writeSpec = createEffect(
  (actions = inject(Actions), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(libraryActions.written),
      mergeMap(({ id, version, spec }) => outbox.putLibrary(id, version, spec)),
    ),
  { functional: true, dispatch: false },
);

export const settleSpec = createEffect(
  (actions = inject(Actions), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(libraryActions.settled),
      concatMap(({ current, keep }) => outbox.settle(current.id, keep, current.version)),
    ),
  { functional: true, dispatch: false },
);

export const putAwaySpec = createEffect(
  (actions = inject(Actions), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(libraryActions.putAway),
      concatMap(({ id, archived }) =>
        from(
          outbox.putArchived('library', id, archived).then(
            () => libraryActions.wasPutAway({ id, archived }),
            (error: unknown) => libraryActions.failed({ problem: messageOf(error) }),
          ),
        ),
      ),
    ),
  { functional: true },
);
