import type { LedgerEntry } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { editorActions, editorFeature, type EditorState } from './editor';
import { storedUi, uiActions, uiFeature } from './ui';

const reduce = editorFeature.reducer;
const named = (name: string) => ({ ...plateBuild(), name });

function opened(): EditorState {
  const start = reduce(undefined, editorActions.opened({ id: 'a' }));
  return reduce(start, editorActions.loaded({ id: 'a', version: 3, build: named('one'), ledger: [] }));
}
const change = (state: EditorState, name: string, undoable = true) =>
  reduce(state, editorActions.changed({ build: named(name), undoable }));

describe('the editor', () => {
  it('undoes and redoes in order, and a new change ends the redo', () => {
    let state = change(change(opened(), 'two'), 'three');
    state = reduce(state, editorActions.undone());
    expect(state.present?.name).toBe('two');
    state = reduce(state, editorActions.undone());
    expect(state.present?.name).toBe('one');
    expect(reduce(state, editorActions.undone())).toBe(state);
    state = reduce(state, editorActions.redone());
    expect(state.present?.name).toBe('two');
    state = change(state, 'four');
    expect(reduce(state, editorActions.redone())).toBe(state);
  });

  it('undo leaves the operating point where it is, as far as the gears allow', () => {
    const point = (rpm: number, gear: number, undoable: boolean) =>
      editorActions.changed({ build: { ...named('moved'), operatingPoint: { gear, range: 0, rpm } }, undoable });
    let state = change(opened(), 'two');
    state = reduce(state, point(5000, 4, false));
    state = reduce(state, editorActions.undone());
    expect(state.present?.name).toBe('one');
    expect(state.present?.operatingPoint).toEqual({ gear: 4, range: 0, rpm: 5000 });
  });

  it('a preview is shown, but neither kept nor undoable', () => {
    const state = reduce(opened(), editorActions.previewed({ build: named('dragged') }));
    expect(state.preview?.name).toBe('dragged');
    expect(state.past.length).toBe(0);
    expect(reduce(state, editorActions.previewDropped()).preview).toBeNull();
  });

  it('taking the other version keeps ours in the history', () => {
    let state = change(opened(), 'ours');
    state = reduce(state, editorActions.stale({ id: 'a', current: { id: 'a', version: 9, build: named('theirs') } }));
    const taken = reduce(state, editorActions.settled({ keep: 'theirs' }));
    expect([taken.present?.name, taken.version, taken.conflict]).toEqual(['theirs', 9, null]);
    expect(reduce(taken, editorActions.undone()).present?.name).toBe('ours');
    const kept = reduce(state, editorActions.settled({ keep: 'ours' }));
    expect([kept.present?.name, kept.version]).toEqual(['ours', 9]);
  });

  it('answers for another build change nothing', () => {
    const state = opened();
    expect(reduce(state, editorActions.loaded({ id: 'b', version: 1, build: named('b'), ledger: [] }))).toBe(state);
    expect(reduce(state, editorActions.saved({ id: 'b', version: 8, at: '' }))).toBe(state);
    expect(reduce(state, editorActions.failed({ id: 'b', missing: true, problem: '' }))).toBe(state);
  });

  it('another tab’s newer version is taken over; an older one is not', () => {
    const state = opened();
    const ledger: LedgerEntry[] = [];
    expect(
      reduce(state, editorActions.refreshed({ id: 'a', version: 4, build: named('tab'), ledger })).present?.name,
    ).toBe('tab');
    expect(
      reduce(state, editorActions.refreshed({ id: 'a', version: 2, build: named('old'), ledger })).present?.name,
    ).toBe('one');
  });
});

describe('the interface state', () => {
  it('reads what was chosen before, and nothing else', () => {
    expect(storedUi('{"system":"metric","night":true,"working":"x"}', false)).toEqual(
      jasmine.objectContaining({ system: 'metric', night: true, working: null }),
    );
    expect(storedUi('not json', true)).toEqual(jasmine.objectContaining({ system: 'inch', night: true }));
    expect(storedUi('{"system":"furlong"}', false).system).toBe('inch');
  });

  it('flips units', () => {
    const start = uiFeature.reducer(undefined, uiActions.systemChosen({ system: 'inch' }));
    expect(uiFeature.reducer(start, uiActions.unitsFlipped()).system).toBe('metric');
  });
});
