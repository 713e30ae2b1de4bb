import type { LedgerEntry, Reading, Signature } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { GatesSheet } from '../plan/gates-sheet';
import { PreloadSheet } from './preload-sheet';

const right = () => assemblyOf(1, { backlash: 0.225, pattern: [0, 0, 0, 0] });
const last = <T extends LedgerEntry>(ledger: readonly LedgerEntry[]): T => ledger.at(-1) as T;

describe('the preload sheet', () => {
  it('goes from reading to reading: how far the nut may be turned is the biggest thing', async () => {
    const bench = openBench(setUpBuild(), right(), 'inch');
    const screen = await Screen.of(PreloadSheet);
    expect(screen.find('.now').textContent).toContain('Read the first one');
    await screen.type('Pinion turning torque', '7');
    expect(screen.find('.now strong').textContent).toMatch(/^Turn \d+° at most$/);
    const { subject, state } = last<Reading>(bench.ledger());
    expect(subject['step']).toBe('1');
    expect(state['oil']).toBe('oiled');
    await screen.type('Nut angle', '-5');
    expect(screen.text).toContain('the nut is never backed off');
    await screen.type('Nut angle', '60');
    await screen.type('Pinion turning torque', '10');
    expect(screen.find('.now strong').textContent).toBe('In band: stop');
    await screen.type('Nut angle', '90');
    await screen.type('Pinion turning torque', '14');
    expect(screen.find('.now strong').textContent).toBe('Over: new spacer');
    await screen.click('New spacer in');
    await screen.type('Pinion turning torque', '6');
    expect(last<Reading>(bench.ledger()).subject['spacer']).toBe('2');
    expect(screen.all('tbody tr').length).toBe(1);
  });

  it('a new spacer on final bearings waits behind Gate A', async () => {
    const bench = openBench(setUpBuild(), right(), 'inch');
    const setup = bench.axle()?.setup;
    if (!setup) throw new Error('no set-up');
    bench.changeAxle((axle) => {
      if (axle.setup) axle.setup.state = { ...setup.state, pinionBearings: 'new', spacer: 'new' };
    });
    const screen = await Screen.of(PreloadSheet);
    expect(screen.find('.now strong').textContent).toBe('Behind Gate A');
    expect(screen.all('#pinion-torque-rear').length).toBe(0);
    bench.sign('rear A', 'Ada', bench.derived()?.gates.rear?.A.figures ?? {}, '');
    await screen.fixture.whenStable();
    expect(screen.all('#pinion-torque-rear').length).toBe(1);
  });

  it('solid: the next shims come from two readings', async () => {
    openBench(setUpBuild('integral-head-shim', { spacer: 'solid' }), right(), 'inch');
    const screen = await Screen.of(PreloadSheet);
    await screen.type('Shims beside the spacer', '35 thou');
    await screen.type('Pinion turning torque', '20');
    await screen.type('Shims beside the spacer', '36 thou');
    await screen.type('Pinion turning torque', '18');
    // 2 lbf·in a thou: 4 thou more for the middle of 8 to 12 [exact: straight line]
    expect(screen.text).toContain('Next 40.0 thou');
    await screen.type('Shims beside the spacer', '37 thou');
    await screen.type('Pinion turning torque', '30');
    expect(screen.text).toMatch(/contradict themselves/);
  });

  it('seal drag and the total are read too', async () => {
    const bench = openBench(setUpBuild(), right(), 'inch');
    const screen = await Screen.of(PreloadSheet);
    await screen.type('Pinion turning torque', '10');
    await screen.type('Drag of the seal alone', '2');
    await screen.type('Total, carrier in', '14');
    expect(bench.derived()?.preload.rear?.carrier?.nm ?? 0).toBeGreaterThan(0);
    expect(screen.text).toContain('Carrier bearings');
  });
});

describe('the gates sheet', () => {
  it('a gate that is met is signed by a name, and says what for', async () => {
    const bench = openBench(setUpBuild(), right());
    const screen = await Screen.of(GatesSheet);
    await screen.type('Sign with your name', 'Ada');
    const { gate, name, figures, note } = last<Signature>(bench.ledger());
    expect([gate, name, note]).toEqual(['rear A', 'Ada', undefined]);
    expect(figures['mesh.rear.shim']).toBeCloseTo(1, 9);
    expect(screen.text).toContain('Signed by Ada');
  });

  it('one that is not is refused with reasons, and opened with a note only', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1, { backlash: 0.4, pattern: [0, 0.6, 0, 0.6] }));
    const screen = await Screen.of(GatesSheet);
    expect(screen.text).toContain('Refused: backlash in band all round');
    expect(screen.find<HTMLButtonElement>('#sign-A-rear').disabled).toBeTrue();
    await screen.type('Why it is opened all the same', 'Race tomorrow');
    await screen.type('Open with the note: your name', 'Ada');
    expect(last<Signature>(bench.ledger()).note).toBe('Race tomorrow');
    expect(screen.text).toContain('Opened with a note: “Race tomorrow”');
  });

  it('says what to do first', async () => {
    openBench(setUpBuild());
    expect((await Screen.of(GatesSheet)).text).toContain('Nothing to sign yet');
  });
});
