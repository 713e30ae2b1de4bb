import { createEntityAdapter, type EntityState } from '@ngrx/entity';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { BuildSummary } from './api';

export interface BoardState extends EntityState<BuildSummary> {
  readonly status: 'idle' | 'loading' | 'ready' | 'failed';
  readonly problem: string | null;
}

const adapter = createEntityAdapter<BuildSummary>({ sortComparer: (a, b) => a.name.localeCompare(b.name) });

export const boardActions = createActionGroup({
  source: 'Board',
  events: {
    opened: emptyProps(),
    loaded: props<{ builds: BuildSummary[] }>(),
    failed: props<{ problem: string }>(),
  },
});

const { selectAll } = adapter.getSelectors();

export const boardFeature = createFeature({
  name: 'board',
  reducer: createReducer<BoardState>(
    adapter.getInitialState({ status: 'idle' as const, problem: null }),
    on(boardActions.opened, (state) => ({ ...state, status: state.ids.length ? state.status : ('loading' as const) })),
    on(boardActions.loaded, (state, { builds }) =>
      adapter.setAll(builds, { ...state, status: 'ready' as const, problem: null }),
    ),
    on(boardActions.failed, (state, { problem }) => ({ ...state, status: 'failed' as const, problem })),
  ),
  extraSelectors: ({ selectBoardState }) => ({
    selectBuilds: (state: Record<string, unknown>) => selectAll(selectBoardState(state)),
  }),
});
