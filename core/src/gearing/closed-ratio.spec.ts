import { InputError } from '../base/errors';
import { closedRatio, type ClosedTurns } from './closed-ratio';

const TEETH = { pinionTeeth: [8, 15], ringTeeth: [35, 45] } as const;
const said = (change: Partial<ClosedTurns> = {}) =>
  closedRatio({ propTurns: 37.3, leftTurns: 10, rightTurns: 10, propErrorTurns: 0.25, ...TEETH, ...change });
const names = ({ pairs }: ReturnType<typeof said>) => pairs.map(({ ring, pinion }) => `${ring}/${pinion}`);

// Check values: handbook 2 (kinematics, derived twice).
describe('ratio while it is closed', () => {
  it('both wheels turned alike: 37.3 turns for 10 and 10, to a quarter turn', () => {
    const closed = said();
    expect(closed.ratio).toBeCloseTo(3.73, 12);
    expect(closed.errorRatio).toBeCloseTo(0.025, 12);
    expect(names(closed)).toEqual(['41/11', '45/12']);
  });

  it('one wheel held: half the turns, twice the error, and one pair more', () => {
    const closed = said({ propTurns: 18.65, rightTurns: 0 });
    expect(closed.ratio).toBeCloseTo(3.73, 12);
    expect(closed.errorRatio).toBeCloseTo(0.05, 12);
    expect([...names(closed)].sort()).toEqual(['37/10', '41/11', '45/12']);
  });

  it('what the wheels were misread by counts with the ratio', () => {
    // By hand: (0.25 + 3.73·0.1)·2/20.
    expect(said({ wheelErrorTurns: 0.1 }).errorRatio).toBeCloseTo(0.0623, 10);
  });

  it('backward is the same ratio; a wheel that turned back counts against the other', () => {
    expect(said({ propTurns: -37.3, leftTurns: -10, rightTurns: -10 }).ratio).toBeCloseTo(3.73, 12);
    // 12 forward, 2 back: the carrier made 5.
    expect(said({ leftTurns: 12, rightTurns: -2 }).ratio).toBeCloseTo(7.46, 12);
  });

  it('a transaxle divides by the gear that it stood in', () => {
    const closed = said({ propTurns: 3.73 * 10 * 1.6, boxRatio: 1.6 });
    expect(closed.ratio).toBeCloseTo(3.73, 12);
    expect(closed.errorRatio).toBeCloseTo(0.025 / 1.6, 12);
  });

  it('read exactly it names only the pair itself and its multiples', () => {
    const closed = closedRatio({
      propTurns: 4,
      leftTurns: 1,
      rightTurns: 1,
      pinionTeeth: [9, 11],
      ringTeeth: [30, 50],
    });
    expect(closed.pairs).toEqual([
      { ring: 36, pinion: 9 },
      { ring: 40, pinion: 10 },
      { ring: 44, pinion: 11 },
    ]);
  });

  it('refuses by name what says nothing', () => {
    const field = (change: Partial<ClosedTurns>): string => {
      try {
        said(change);
      } catch (error) {
        if (error instanceof InputError) return error.field;
        throw error;
      }
      return '';
    };
    expect(field({ leftTurns: 10, rightTurns: -10 })).toBe('leftTurns');
    expect(field({ propTurns: 0 })).toBe('propTurns');
    expect(field({ pinionTeeth: [15, 8] })).toBe('pinionTeeth');
    expect(field({ ringTeeth: [2, 8] })).toBe('ringTeeth');
    expect(field({ boxRatio: 0 })).toBe('boxRatio');
    expect(field({ propErrorTurns: -1 })).toBe('propErrorTurns');
    expect(field({ rightTurns: Number.NaN })).toBe('rightTurns');
  });
});
