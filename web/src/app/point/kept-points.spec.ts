import { Screen, openBench } from '../../testing/harness';
import { KeptPoints } from './kept-points';

describe('kept operating points', () => {
  it('are kept under a name, gone to with one press, and removed', async () => {
    const bench = openBench();
    const screen = await Screen.of(KeptPoints);
    await screen.click('Keep this operating point, or edit the kept ones');
    await screen.click('Corner exit');
    expect(bench.build()?.points).toEqual([{ id: 'p1', name: 'Corner exit', gear: 2, range: 0, rpm: 4000 }]);
    bench.lookAt({ gear: 0, range: 0, rpm: 2500 });
    await screen.fixture.whenStable();
    await screen.click('Corner exit');
    expect(bench.point()).toEqual({ gear: 2, range: 0, rpm: 4000 });
    await screen.click('Keep this operating point, or edit the kept ones');
    await screen.click('Remove point Corner exit');
    expect(bench.build()?.points).toEqual([]);
  });

  it('a point whose gear is gone goes to the last gear there is', async () => {
    const bench = openBench();
    bench.change((draft) => {
      draft.points = [{ id: 'p1', name: 'Trap', gear: 4, range: 0, rpm: 9000 }];
      draft.gearbox.gears = draft.gearbox.gears.slice(0, 3);
    });
    const screen = await Screen.of(KeptPoints);
    await screen.click('Trap');
    expect(bench.point()).toEqual({ gear: 2, range: 0, rpm: 6800 });
  });
});
