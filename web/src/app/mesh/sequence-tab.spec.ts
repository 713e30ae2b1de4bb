import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { CarrierSheet } from './carrier-sheet';
import { SequenceTab } from './sequence-tab';

const sequence = (bench: Bench) => bench.axle()?.identity?.adjusterSequence ?? null;
const choose = async <T>(screen: Screen<T>, id: string, value: string): Promise<void> => {
  const box = screen.find(`#${id}`) as HTMLSelectElement;
  box.value = value;
  box.dispatchEvent(new Event('change'));
  await screen.fixture.whenStable();
};

describe('the adjuster sequence', () => {
  it('is the built-in one until the sheet’s own is written; moves are changed, ordered and removed', async () => {
    const bench = openBench(setUpBuild('integral-adjusters'), assemblyOf(1));
    const screen = await Screen.of(SequenceTab);
    expect(screen.text).toContain('without figures');
    await screen.click('Write the sheet’s own');
    expect(sequence(bench)?.moves).toHaveSize(4);
    expect(sequence(bench)?.origin).toBe('not-said');
    // How far is asked where there is something to say, and nothing is nobody’s word.
    await choose(screen, 'move-until-0', 'torque');
    expect(screen.text).toContain('Move 1 goes to nothing');
    await screen.type('How far, move 1', '30 N·m');
    expect(sequence(bench)?.moves[0]).toEqual({
      side: 'far',
      way: 'in',
      until: { of: 'torque', value: { typed: '30 N·m', value: 30, unit: 'N·m' } },
    });
    expect(screen.text).not.toContain('goes to nothing');
    await choose(screen, 'move-way-3', 'out');
    expect(screen.text).toContain('Its last move goes out');
    await choose(screen, 'move-side-3', 'both');
    await screen.click('Move 4 one up');
    expect(sequence(bench)?.moves.map(({ side }) => side)).toEqual(['far', 'ring', 'both', 'ring']);
  });

  it('leads through Carrier, each move drawn', async () => {
    const build = setUpBuild('integral-adjusters');
    const { identity } = build.axles.rear ?? {};
    if (identity)
      identity.adjusterSequence = {
        moves: [{ side: 'both', way: 'in', until: { of: 'notches', value: 3 } }],
        origin: 'maker',
        where: 'sheet 3',
      };
    openBench(build, assemblyOf(1));
    const screen = await Screen.of(CarrierSheet);
    const steps = screen.all('.guided li').map(({ textContent }) => textContent?.replace(/\s+/g, ' ').trim());
    expect(steps).toHaveSize(4);
    expect(steps[1]).toContain('Both sides in, by 3 notches.');
    expect(screen.all('.guided hs-adjuster-drawing')).toHaveSize(1);
    // Both are moved: two arrows.
    expect(screen.all('.guided .arrow')).toHaveSize(2);
  });
});
