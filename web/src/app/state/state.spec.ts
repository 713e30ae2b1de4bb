import { mergeChanges, type LedgerEntry } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { editorActions, editorFeature, type EditorState } from './editor';
import { lookingActions, lookingFeature, storedLooking } from './looking';
import { storedUi, uiActions, uiFeature } from './ui';

const reduce = editorFeature.reducer;
const named = (name: string) => ({ ...plateBuild(), name });

function opened(): EditorState {
  const start = reduce(undefined, editorActions.opened({ id: 'a' }));
  return reduce(start, editorActions.loaded({ id: 'a', version: 3, build: named('one'), ledger: [] }));
}
const change = (state: EditorState, name: string) => reduce(state, editorActions.changed({ build: named(name) }));

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

  it('undo takes back what was changed and leaves what came from elsewhere', () => {
    let state = change(opened(), 'two');
    const build = { ...named('two'), vehicle: 'theirs' };
    state = reduce(state, editorActions.merged({ id: 'a', version: 4, build, ledger: [] }));
    state = reduce(state, editorActions.undone());
    expect([state.present?.name, state.present?.vehicle, state.version]).toEqual(['one', 'theirs', 4]);
  });

  it('a step whose place is gone is left out, and said', () => {
    const plate = (label: string, count: number) => {
      const build = plateBuild();
      const members = build.axles.rear?.unit.plate?.packs.left.members ?? [];
      if (members[0]) members[0].label = label;
      members.splice(0, members.length - count);
      return build;
    };
    let state = reduce(undefined, editorActions.opened({ id: 'a' }));
    state = reduce(state, editorActions.loaded({ id: 'a', version: 1, build: plate('steel', 7), ledger: [] }));
    state = reduce(state, editorActions.changed({ build: plate('other', 7) }));
    state = reduce(state, editorActions.merged({ id: 'a', version: 2, build: plate('', 3), ledger: [] }));
    state = reduce(state, editorActions.undone());
    expect(state.notUndone).toContain('any more');
    expect(state.past.length).toBe(0);
  });

  it('200 steps are kept as what they changed, not as copies', () => {
    let state = opened();
    for (let i = 0; i < 230; i++) {
      const present = state.present as NonNullable<typeof state.present>;
      state = reduce(state, editorActions.changed({ build: { ...present, notes: `step ${i}` } }));
    }
    expect(state.past.length).toBe(200);
    expect(JSON.stringify(state.past).length).toBeLessThan(20_000);
  });

  it('a preview is shown, but neither kept nor undoable', () => {
    const state = reduce(opened(), editorActions.previewed({ build: named('dragged') }));
    expect(state.preview?.name).toBe('dragged');
    expect(state.past.length).toBe(0);
    expect(reduce(state, editorActions.previewDropped()).preview).toBeNull();
  });

  it('taking the other version keeps ours in the history', () => {
    let state = change(opened(), 'ours');
    const theirs = { ...named('theirs'), vehicle: 'v' };
    const { merged, held, overlaps } = mergeChanges(named('one'), named('ours'), theirs);
    const current = { id: 'a', version: 9, who: 'Ben', at: '', build: theirs };
    state = reduce(state, editorActions.stale({ id: 'a', conflict: { current, merged, held, overlaps } }));
    const taken = reduce(state, editorActions.settled({ keep: 'theirs' }));
    expect([taken.present?.name, taken.version, taken.conflict]).toEqual(['theirs', 9, null]);
    expect(reduce(taken, editorActions.undone()).present?.name).toBe('ours');
    const kept = reduce(state, editorActions.settled({ keep: 'ours' }));
    expect([kept.present?.name, kept.present?.vehicle, kept.version]).toEqual(['ours', 'v', 9]);
  });

  it('an older write that is answered once more takes no version back', () => {
    const state = reduce(opened(), editorActions.saved({ id: 'a', version: 9, at: '' }));
    expect(reduce(state, editorActions.saved({ id: 'a', version: 8, at: '' })).version).toBe(9);
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
    // Of whoever has chosen none: by the language of the browser; what was chosen stays.
    expect(
      ['de-DE', 'en-GB', 'en-US', 'en', 'es-US', 'fr'].map((language) => storedUi(null, false, language).system),
    ).toEqual(['metric', 'metric', 'inch', 'inch', 'inch', 'metric']);
    expect(storedUi('{"system":"inch"}', false, 'de-DE').system).toBe('inch');
  });

  it('flips units', () => {
    const start = uiFeature.reducer(undefined, uiActions.systemChosen({ system: 'inch' }));
    expect(uiFeature.reducer(start, uiActions.unitsFlipped()).system).toBe('metric');
  });
});

describe('where this device looks', () => {
  const point = { gear: 2, range: 0, rpm: 4000 };

  it('is kept by build, the last ones, and what is not readable is left out', () => {
    let state = storedLooking(null);
    for (let i = 0; i < 210; i++)
      state = lookingFeature.reducer(state, lookingActions.pointKept({ id: `b${i}`, point }));
    expect(Object.keys(state.points).length).toBe(200);
    expect(state.points['b209']).toEqual(point);
    expect(storedLooking(JSON.stringify({ a: point, b: { gear: 'first' }, c: null })).points).toEqual({ a: point });
    expect(storedLooking('not json').points).toEqual({});
  });

  it('what is dragged is shown until it is kept', () => {
    const dragged = lookingFeature.reducer(storedLooking(null), lookingActions.pointDragged({ point }));
    expect(dragged).toEqual({ points: {}, dragged: point });
    expect(lookingFeature.reducer(dragged, lookingActions.pointKept({ id: 'a', point })).dragged).toBeNull();
  });
});
