import {
  GonePlace,
  applyChanges,
  changesBetween,
  share,
  type Build,
  type Change,
  type LedgerEntry,
  type Overlap,
} from '@hot-spline/model/document';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { StoredBuild } from './api';

/** One step of the history: what it changed, not two copies of the build. */
export type Step = readonly Change[];

/** Another change reached the server first, and touches what ours touches. */
export interface Conflict {
  readonly current: StoredBuild;
  /** Theirs with our other changes on top. */
  readonly merged: Build;
  /** Our changes to the places that both have changed. */
  readonly held: readonly Change[];
  readonly overlaps: readonly Overlap[];
}

/** Everything of the open build: its specification with undo and redo, and its ledger. */
export interface EditorState {
  readonly id: string | null;
  readonly status: 'idle' | 'loading' | 'ready' | 'missing' | 'failed';
  readonly problem: string | null;
  /** Last version that the server acknowledged. */
  readonly version: number;
  readonly present: Build | null;
  /** What is being dragged: shown everywhere, saved nowhere. */
  readonly preview: Build | null;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  readonly ledger: readonly LedgerEntry[];
  readonly conflict: Conflict | null;
  readonly savedAt: string | null;
  /** Why the last undo or redo could not be done. */
  readonly notUndone: string | null;
}

const HISTORY = 200;

const initial: EditorState = {
  id: null,
  status: 'idle',
  problem: null,
  version: 0,
  present: null,
  preview: null,
  past: [],
  future: [],
  ledger: [],
  conflict: null,
  savedAt: null,
  notUndone: null,
};

export const editorActions = createActionGroup({
  source: 'Editor',
  events: {
    opened: props<{ id: string }>(),
    loaded: props<{ id: string; version: number; build: Build; ledger: LedgerEntry[] }>(),
    failed: props<{ id: string; missing: boolean; problem: string }>(),
    changed: props<{ build: Build }>(),
    previewed: props<{ build: Build }>(),
    previewDropped: emptyProps(),
    undone: emptyProps(),
    redone: emptyProps(),
    recorded: props<{ entry: LedgerEntry }>(),
    /** This device could not keep an entry: it was not recorded. */
    notKept: props<{ entry: LedgerEntry }>(),
    /** Entries that were written before anybody had said a name have one now. */
    signed: props<{ entries: ReadonlyMap<string, string> }>(),
    saved: props<{ id: string; version: number; at: string }>(),
    /** The server has an entry of the ledger. */
    appended: props<{ id: string; at: string }>(),
    /** Changes to different places were put together. */
    merged: props<{ id: string; version: number; build: Build; ledger: readonly LedgerEntry[] }>(),
    /** What the server has of the ledger. */
    ledgerHeard: props<{ id: string; ledger: readonly LedgerEntry[] }>(),
    stale: props<{ id: string; conflict: Conflict }>(),
    settled: props<{ keep: 'ours' | 'theirs' }>(),
    /** Another tab or machine saved while nothing of ours was waiting. */
    refreshed: props<{ id: string; version: number; build: Build; ledger: LedgerEntry[] }>(),
  },
});

const withPast = (past: readonly Step[], before: Build, after: Build): readonly Step[] => {
  const step = changesBetween(before, after);
  return step.length === 0 ? past : [...past, step].slice(-HISTORY);
};

/**
 * What the server has, with what was written here since it was asked. An entry never changes: what is known stays the same object, and
 * where nothing is new the list does too, so that nothing is derived anew and no hand is disturbed.
 */
function withOurs(heard: readonly LedgerEntry[], here: readonly LedgerEntry[]): readonly LedgerEntry[] {
  const ours = new Map(here.map((entry) => [entry.id, entry]));
  const known = new Set(heard.map(({ id }) => id));
  const all = [...heard.map((entry) => ours.get(entry.id) ?? entry), ...here.filter(({ id }) => !known.has(id))];
  return all.length === here.length && all.every((entry, i) => entry === here[i]) ? here : all;
}

/** Takes one step of the history back or forth; one whose place is gone is left out, and said. */
function travel(state: EditorState, direction: 'back' | 'forth'): EditorState {
  const { present, past, future } = state;
  const step = direction === 'back' ? past.at(-1) : future[0];
  if (!step || !present) return state;
  const rest =
    direction === 'back'
      ? { past: past.slice(0, -1), future: [step, ...future] }
      : { past: [...past, step], future: future.slice(1) };
  try {
    return { ...state, ...rest, present: applyChanges(present, step, direction), preview: null, notUndone: null };
  } catch (error) {
    if (!(error instanceof GonePlace)) throw error;
    const without = direction === 'back' ? { past: past.slice(0, -1) } : { future: future.slice(1) };
    return { ...state, ...without, notUndone: error.message };
  }
}

export const editorFeature = createFeature({
  name: 'editor',
  reducer: createReducer<EditorState>(
    initial,
    on(editorActions.opened, (state, { id }) =>
      state.id === id && state.present ? state : { ...initial, id, status: 'loading' },
    ),
    on(editorActions.loaded, (state, { id, version, build, ledger }) =>
      state.id === id ? { ...initial, id, status: 'ready' as const, version, present: build, ledger } : state,
    ),
    on(editorActions.failed, (state, { id, missing, problem }) =>
      state.id === id
        ? { ...initial, id, status: missing ? ('missing' as const) : ('failed' as const), problem }
        : state,
    ),
    on(editorActions.changed, (state, { build }) => {
      if (!state.present) return state;
      const present = share(state.present, build);
      const past = withPast(state.past, state.present, present);
      return { ...state, past, future: [], present, preview: null, notUndone: null };
    }),
    on(editorActions.previewed, (state, { build }) => ({ ...state, preview: build })),
    on(editorActions.previewDropped, (state) => ({ ...state, preview: null })),
    on(editorActions.undone, (state) => travel(state, 'back')),
    on(editorActions.redone, (state) => travel(state, 'forth')),
    on(editorActions.recorded, (state, { entry }) => ({ ...state, ledger: [...state.ledger, entry] })),
    on(editorActions.notKept, (state, { entry }) => ({
      ...state,
      ledger: state.ledger.filter(({ id }) => id !== entry.id),
    })),
    on(editorActions.signed, (state, { entries }) => ({
      ...state,
      ledger: state.ledger.map((entry) => {
        const who = entries.get(entry.id);
        return who === undefined ? entry : { ...entry, who };
      }),
    })),
    on(editorActions.saved, (state, { id, version, at }) =>
      // A write that is answered once more, after a reload, may be an older one than what was loaded.
      state.id === id ? { ...state, version: Math.max(version, state.version), savedAt: at } : state,
    ),
    on(editorActions.appended, (state, { id, at }) => (state.id === id ? { ...state, savedAt: at } : state)),
    on(editorActions.merged, (state, { id, version, build, ledger }) =>
      state.id === id && state.present
        ? {
            ...state,
            version,
            present: share(state.present, build),
            preview: null,
            ledger: withOurs(ledger, state.ledger),
          }
        : state,
    ),
    on(editorActions.ledgerHeard, (state, { id, ledger }) =>
      state.id === id && state.present ? { ...state, ledger: withOurs(ledger, state.ledger) } : state,
    ),
    on(editorActions.stale, (state, { id, conflict }) => (state.id === id ? { ...state, conflict } : state)),
    on(editorActions.settled, (state, { keep }) => {
      const { conflict, present } = state;
      if (!conflict || !present) return state;
      const { current, merged, held } = conflict;
      const version = current.version;
      if (keep === 'ours')
        return {
          ...state,
          version,
          present: share(present, applyChanges(merged, held)),
          preview: null,
          conflict: null,
        };
      // Ours stays in the history: undo brings it back.
      const past = withPast(state.past, present, merged);
      return { ...state, version, present: share(present, merged), preview: null, past, future: [], conflict: null };
    }),
    on(editorActions.refreshed, (state, { id, version, build, ledger }) => {
      if (state.id !== id || !state.present || version < state.version) return state;
      const present = share(state.present, build);
      const all = withOurs(ledger, state.ledger);
      if (version === state.version || present === state.present) return { ...state, version, ledger: all };
      const past = withPast(state.past, state.present, build);
      return { ...state, version, ledger: all, present, preview: null, past, future: [] };
    }),
  ),
});
