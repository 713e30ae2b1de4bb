import fc from 'fast-check';
import { entryOf } from '@hot-spline/core';
import { driftBuild } from '../testing/builds';
import { GonePlace, applyChanges, changesBetween, mergeChanges, share } from './changes';
import { newBuild } from '../start/new-build';
import { fieldWords, valueWords } from './field-words';
import type { Build } from './schema';

const edited = (build: Build, recipe: (draft: Build) => void): Build => {
  const draft = structuredClone(build);
  recipe(draft);
  return share(build, draft);
};
const drift = driftBuild().build;
const packOf = (build: Build) => build.axles.rear?.unit.plate?.packs;

describe('changes of a document', () => {
  it('what did not change stays the same object', () => {
    const next = edited(drift, (draft) => (draft.engine.limitRpm = 7500));
    expect(next.engine).not.toBe(drift.engine);
    expect(next.engine.torqueCurve).toBe(drift.engine.torqueCurve);
    expect(next.axles).toBe(drift.axles);
    expect(edited(drift, () => undefined)).toBe(drift);
  });

  it('are as small as they can be, and go back', () => {
    const next = edited(drift, (draft) => {
      draft.engine.limitRpm = 7500;
      const member = packOf(draft)?.left.members[1];
      if (member) member.thickness = entryOf(2.5, 'mm');
    });
    const changes = changesBetween(drift, next);
    const id = packOf(drift)?.left.members[1]?.id ?? '';
    expect(new Set(changes.map(({ path }) => path.join('.')))).toEqual(
      new Set(['engine.limitRpm', `axles.rear.unit.plate.packs.left.members.#${id}.thickness`]),
    );
    expect(applyChanges(drift, changes)).toEqual(next);
    expect(applyChanges(next, changes, 'back')).toEqual(drift);
  });

  it('go forth and back whatever was changed', () => {
    const value = fc.oneof(fc.integer(), fc.string({ maxLength: 4 }), fc.constant(null));
    const tree = fc.dictionary(
      fc.constantFrom('a', 'b', 'c'),
      fc.oneof(value, fc.dictionary(fc.constantFrom('x', 'y'), value), fc.array(value, { maxLength: 3 })),
    );
    fc.assert(
      fc.property(tree, tree, (before, after) => {
        const changes = changesBetween(before, after);
        expect(applyChanges(before, changes)).toEqual(after);
        expect(applyChanges(after, changes, 'back')).toEqual(before);
        expect(share(before, after)).toEqual(after);
      }),
    );
  });

  it('plates laid in another order are one place; a plate that is gone is said', () => {
    const laid = edited(drift, (draft) => packOf(draft)?.left.members.reverse());
    expect(changesBetween(drift, laid).map(({ path }) => path.at(-1))).toEqual(['members']);
    const thicker = edited(drift, (draft) => {
      const member = packOf(draft)?.left.members[0];
      if (member) member.label = 'other';
    });
    const without = edited(drift, (draft) => packOf(draft)?.left.members.shift());
    expect(() => applyChanges(without, changesBetween(drift, thicker))).toThrowError(GonePlace);
  });
});

describe('two changes of one document', () => {
  const ours = edited(drift, (draft) => {
    draft.engine.limitRpm = 7500;
    draft.notes = 'mine';
  });

  it('to different places are put together', () => {
    const theirs = edited(drift, (draft) => (draft.road.mass = entryOf(1400, 'kg')));
    const { merged, overlaps } = mergeChanges(drift, ours, theirs);
    expect(overlaps).toEqual([]);
    expect([merged.engine.limitRpm, merged.notes, merged.road.mass.typed]).toEqual([7500, 'mine', '1400 kg']);
  });

  it('to one place are named with both values; the rest is put together', () => {
    const theirs = edited(drift, (draft) => {
      draft.engine.limitRpm = 8000;
      draft.vehicle = 'theirs';
    });
    const { merged, overlaps, held } = mergeChanges(drift, ours, theirs);
    expect(overlaps.map(({ path, ours: a, theirs: b }) => [path.join('.'), a, b])).toEqual([
      ['engine.limitRpm', 7500, 8000],
    ]);
    expect([merged.engine.limitRpm, merged.notes, merged.vehicle]).toEqual([8000, 'mine', 'theirs']);
    expect(applyChanges(merged, held).engine.limitRpm).toBe(7500);
  });

  it('that say the same are no conflict', () => {
    const theirs = edited(drift, (draft) => (draft.engine.limitRpm = 7500));
    expect(mergeChanges(drift, ours, theirs).overlaps).toEqual([]);
  });

  it('one inside the other meet at the wider place', () => {
    const whole = edited(drift, (draft) => (draft.transfer = null));
    const mine = edited(whole, (draft) => (draft.transfer = { ranges: [{ name: 'H', ratio: entryOf(1, '') }] }));
    const theirs = edited(whole, (draft) => (draft.transfer = { ranges: [{ name: 'L', ratio: entryOf(2, '') }] }));
    expect(mergeChanges(whole, mine, theirs).overlaps.map(({ path }) => path)).toEqual([['transfer']]);
  });
});

describe('the words of a field', () => {
  it('are those of the screen', () => {
    const id = packOf(drift)?.left.members[1]?.id ?? '';
    expect(fieldWords(['engine', 'limitRpm'])).toBe('Limiter');
    expect(fieldWords(['axles', 'rear', 'tyre', 'designation'])).toBe('Rear axle: tyre');
    expect(fieldWords(['axles', 'rear', 'unit', 'plate', 'packs', 'left', 'members', `#${id}`, 'thickness'])).toContain(
      'left pack',
    );
    expect(valueWords(entryOf(2, 'mm'))).toBe('2 mm');
    expect(valueWords(null)).toBe('nothing');
    expect(valueWords([1, 2, 3])).toBe('3 entries');
  });

  it('every top-level part of a build has words of its own', () => {
    for (const key of Object.keys(newBuild('x')))
      if (!['format', 'formatVersion'].includes(key))
        expect(fieldWords([key]))
          .withContext(key)
          .not.toMatch(/[A-Z].*[A-Z]|\./);
  });
});
