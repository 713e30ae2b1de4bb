import type { Build, LedgerEntry } from '@hot-spline/model';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { StoredBuild } from './api';

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
  readonly past: readonly Build[];
  readonly future: readonly Build[];
  readonly ledger: readonly LedgerEntry[];
  /** Another change reached the server first. */
  readonly conflict: StoredBuild | null;
  readonly savedAt: string | null;
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
};

export const editorActions = createActionGroup({
  source: 'Editor',
  events: {
    opened: props<{ id: string }>(),
    loaded: props<{ id: string; version: number; build: Build; ledger: LedgerEntry[] }>(),
    failed: props<{ id: string; missing: boolean; problem: string }>(),
    /** `undoable: false` for what is not a decision, such as the operating point. */
    changed: props<{ build: Build; undoable: boolean }>(),
    previewed: props<{ build: Build }>(),
    previewDropped: emptyProps(),
    undone: emptyProps(),
    redone: emptyProps(),
    recorded: props<{ entry: LedgerEntry }>(),
    saved: props<{ id: string; version: number; at: string }>(),
    stale: props<{ id: string; current: StoredBuild }>(),
    settled: props<{ keep: 'ours' | 'theirs' }>(),
    /** Another tab or machine saved while nothing of ours was waiting. */
    refreshed: props<{ id: string; version: number; build: Build; ledger: LedgerEntry[] }>(),
  },
});

/** The operating point is no decision: undo leaves it where it is, as far as the gears allow. */
function keepPoint(build: Build, from: Build): Build {
  const { gear, range, rpm } = from.operatingPoint;
  return {
    ...build,
    operatingPoint: {
      gear: Math.min(gear, build.gearbox.gears.length - 1),
      range: Math.min(range, (build.transfer?.ranges.length ?? 1) - 1),
      rpm,
    },
  };
}

const withPast = (past: readonly Build[], build: Build): Build[] => [...past, build].slice(-HISTORY);

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
    on(editorActions.changed, (state, { build, undoable }) => {
      if (!state.present) return state;
      const history = undoable ? { past: withPast(state.past, state.present), future: [] } : {};
      return { ...state, ...history, present: build, preview: null };
    }),
    on(editorActions.previewed, (state, { build }) => ({ ...state, preview: build })),
    on(editorActions.previewDropped, (state) => ({ ...state, preview: null })),
    on(editorActions.undone, (state) => {
      const last = state.past.at(-1);
      if (!last || !state.present) return state;
      return {
        ...state,
        present: keepPoint(last, state.present),
        preview: null,
        past: state.past.slice(0, -1),
        future: [state.present, ...state.future],
      };
    }),
    on(editorActions.redone, (state) => {
      const [next, ...future] = state.future;
      if (!next || !state.present) return state;
      return {
        ...state,
        present: keepPoint(next, state.present),
        preview: null,
        past: withPast(state.past, state.present),
        future,
      };
    }),
    on(editorActions.recorded, (state, { entry }) => ({ ...state, ledger: [...state.ledger, entry] })),
    on(editorActions.saved, (state, { id, version, at }) =>
      state.id === id ? { ...state, version, savedAt: at } : state,
    ),
    on(editorActions.stale, (state, { id, current }) => (state.id === id ? { ...state, conflict: current } : state)),
    on(editorActions.settled, (state, { keep }) => {
      const { conflict, present } = state;
      if (!conflict) return state;
      if (keep === 'ours') return { ...state, version: conflict.version, conflict: null };
      // Ours stays in the history: undo brings it back.
      const past = present ? withPast(state.past, present) : state.past;
      return {
        ...state,
        version: conflict.version,
        present: conflict.build,
        preview: null,
        past,
        future: [],
        conflict: null,
      };
    }),
    on(editorActions.refreshed, (state, { id, version, build, ledger }) => {
      if (state.id !== id || !state.present || version < state.version) return state;
      const changed = version !== state.version;
      const past = changed ? withPast(state.past, state.present) : state.past;
      return { ...state, version, ledger, ...(changed ? { present: build, preview: null, past, future: [] } : {}) };
    }),
  ),
});
