import { InputError } from '../base/errors';
import { circleOf, countedBack, type CountedPlace } from './counted';

// Places of our own invention: common practice is that what is counted out is counted in, and what waits goes in behind.
const places: readonly CountedPlace[] = [
  { id: 'spring', count: 1, after: [] },
  { id: 'joint', count: 12, after: ['spring'] },
  { id: 'ring', count: 1, after: ['joint'] },
];
const counts = (of: Record<string, number>): Map<string, number> => new Map(Object.entries(of));
const all = counts({ spring: 1, joint: 12, ring: 1 });

describe('what was counted out of a unit', () => {
  it('is closed when everything is in again, and not before anything came out', () => {
    expect(countedBack(places, counts({}), counts({})).closed).toBeFalse();
    expect(countedBack(places, all, all)).toEqual({ out: [], over: [], early: [], closed: true });
    expect(countedBack(places, all, counts({ spring: 1, joint: 11, ring: 1 }))).toEqual(
      jasmine.objectContaining({
        out: [{ id: 'joint', missing: 1 }],
        early: [{ id: 'ring', waitsFor: ['joint'] }],
        closed: false,
      }),
    );
  });

  it('says what went in too early, and what is one too many', () => {
    expect(countedBack(places, all, counts({ joint: 12 })).early).toEqual([{ id: 'joint', waitsFor: ['spring'] }]);
    expect(countedBack(places, all, counts({ spring: 1, joint: 13, ring: 1 })).over).toEqual([{ id: 'joint', by: 1 }]);
    // More came out than there are: the map is wrong, or a bolt is somebody else’s.
    expect(countedBack(places, counts({ joint: 14 }), counts({})).over).toEqual([{ id: 'joint', by: 2 }]);
    // What was not opened is waited for by nobody.
    expect(countedBack(places, counts({ ring: 1 }), counts({ ring: 1 })).closed).toBeTrue();
  });

  it('refuses places that wait for each other, and counts that are none', () => {
    const circle = [
      { id: 'a', count: 1, after: ['b'] },
      { id: 'b', count: 1, after: ['c'] },
      { id: 'c', count: 1, after: ['b'] },
    ];
    expect(circleOf(circle)).toEqual(['b', 'c']);
    expect(circleOf(places)).toEqual([]);
    expect(() => countedBack(circle, counts({}), counts({}))).toThrowError(InputError, /wait for each other/);
    expect(() => countedBack(places, counts({ joint: 1.5 }), counts({}))).toThrowError(InputError, /out\.joint/);
    expect(() => countedBack(places, all, counts({ joint: -1 }))).toThrowError(InputError, /in\.joint/);
  });
});
