import { entryOf } from '@hot-spline/core';
import { upgrade } from '../document/upgrade';
import {
  BUILT_IN_SEQUENCE,
  adjusterMoveWords,
  adjusterSequenceSchema,
  sequenceFault,
  type AdjusterMove,
} from './adjuster-sequence';
import { libraryCsv, readLibraryCsv } from './library-csv';
import { newAxleSpec } from './new-spec';

// A sequence of our own invention: no sheet’s.
const MOVES: readonly AdjusterMove[] = [
  { side: 'far', way: 'in', until: { of: 'torque', value: entryOf(31, 'N·m') } },
  { side: 'ring', way: 'in', until: { of: 'zero-lash' } },
  { side: 'ring', way: 'out', until: { of: 'notches', value: 2 } },
  { side: 'far', way: 'in', until: { of: 'backlash', value: entryOf(0.17, 'mm') } },
  { side: 'both', way: 'in', until: { of: 'growth', value: entryOf(0.09, 'mm') } },
];

describe('the sequence of adjusters', () => {
  it('is said move by move; the built-in one has no figures [operations §3]', () => {
    const words = MOVES.map((move) => adjusterMoveWords(move, ({ typed }) => typed));
    expect(words).toEqual([
      'Far side in, to 31 N·m.',
      'Ring side in, until there is no backlash.',
      'Ring side out, by 2 notches.',
      'Far side in, until backlash reads 0.17 mm.',
      'Both sides in, until the case has grown by 0.09 mm.',
    ]);
    const built = BUILT_IN_SEQUENCE.map((move) => adjusterMoveWords(move, ({ typed }) => typed));
    expect(built.join(' ')).not.toMatch(/\d/);
    expect(BUILT_IN_SEQUENCE.at(-1)).toEqual(jasmine.objectContaining({ side: 'far', way: 'in' }));
    expect(sequenceFault(BUILT_IN_SEQUENCE)).toBeNull();
  });

  it('ends inwards, and goes to something', () => {
    expect(sequenceFault(MOVES)).toBeNull();
    expect(sequenceFault(MOVES.slice(0, 3))).toContain('goes out');
    const nothing: AdjusterMove = { side: 'far', way: 'in', until: { of: 'torque', value: entryOf(0, 'N·m') } };
    expect(sequenceFault([nothing])).toContain('Move 1');
  });

  it('is refused by the name of its field where a move is none', () => {
    const of = (moves: unknown) => adjusterSequenceSchema.safeParse({ moves, origin: 'maker', where: 'p. 4' });
    expect(of(MOVES).success).toBeTrue();
    for (const bad of [
      [],
      [{ side: 'left', way: 'in', until: { of: 'hand' } }],
      [{ side: 'far', way: 'round', until: { of: 'hand' } }],
      [{ side: 'far', way: 'in', until: { of: 'torque', value: entryOf(2, 'mm') } }],
      [{ side: 'far', way: 'in', until: { of: 'notches', value: 1.5 } }],
      Array.from({ length: 21 }, () => MOVES[0]),
    ])
      expect(of(bad).success).withContext(JSON.stringify(bad).slice(0, 80)).toBeFalse();
  });

  it('goes to CSV and back; a spec of before it has none', () => {
    const spec = {
      ...newAxleSpec('Heron', 'integral-adjusters', 'measured'),
      adjusterSequence: { moves: [...MOVES], origin: 'maker' as const, where: 'sheet 12' },
    };
    const again = readLibraryCsv(libraryCsv([{ id: null, spec }]));
    expect(again.bad).toEqual([]);
    expect(again.specs).toEqual([{ id: null, spec }]);
    const { adjusterSequence: _, ...before } = spec;
    expect(upgrade('library-spec', 9, before)).toEqual({ ...spec, adjusterSequence: null });
  });
});
