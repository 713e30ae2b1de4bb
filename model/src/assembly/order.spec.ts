import { caseOf, orderAsWorked, planFaults, type Facts } from '@hot-spline/core';
import { usualFacts, type Told } from '../testing/facts';
import { neededParts, orderOfWork, partOf } from './steps';

const ids = (told: Told): string[] => orderOfWork(usualFacts(told)).map(({ id }) => id);
const usual: Told = { job: 'ratio-swap' };

// The rules are those of the job: gates, nothing irreversible before one, what is reachable once before what closes it,
// parts out = parts in. Common practice, no published source.
describe('order of work', () => {
  it('has only the steps that apply', () => {
    const swap = ids(usual);
    expect(swap).toContain('pin-pass');
    expect(swap).toContain('pinion-preload');
    expect(swap).not.toContain('open-plate');
    const reused = ids({ ...usual, job: 'unit-change', retention: 'flange' });
    expect(reused).not.toContain('pinion-out');
    expect(reused).not.toContain('prop-off');
    expect(reused).not.toContain('pin-pass');
    expect(reused).toContain('compare-carriers');
    expect(reused).toContain('open-plate');
    const electric = ids({ ...usual, construction: 'electric-reduction', job: 'overhaul', retention: 'stub' });
    expect(electric).toContain('close-case');
    expect(electric).not.toContain('backlash');
    const locker = ids({ ...usual, job: 'locker', unitKind: 'locker' });
    expect(locker).toContain('locker-line');
    expect(locker.indexOf('locker-line')).toBeLessThan(locker.indexOf('cover'));
    expect(ids({ ...usual, depth: 'pattern-first' })).not.toContain('depth');
  });

  it('presses inboard side bearings behind Gate A, outboard ones at once', () => {
    const at = (construction: Facts['construction']): number => {
      const all = ids({ ...usual, construction });
      return all.indexOf('carrier-bearings') - all.indexOf('gate-a');
    };
    expect(at('integral-inboard')).toBeGreaterThan(0);
    expect(at('integral-head-shim')).toBeLessThan(0);
  });

  it('asks for a wrench that tightens left-hand where the bolts are', () => {
    const tools = (ringHand: Facts['ringHand']) =>
      orderOfWork(usualFacts({ ...usual, ringHand })).find(({ id }) => id === 'ring-bolts')?.tools;
    expect(tools('left')).toContain('left-torque-wrench');
    expect(tools('right')).not.toContain('left-torque-wrench');
  });

  it('knows reused gears: no pinion, no crush, and short final readings', () => {
    const known = caseOf(usualFacts({ ...usual, job: 'locker', unitKind: 'locker' }));
    expect(known.pinionComesOut).toBeFalse();
    expect(known.ringComesOff).toBeTrue();
    const final = orderOfWork(usualFacts({ ...usual, job: 'unit-change' })).find(({ id }) => id === 'final-readings');
    expect(final?.does.join(' ')).toContain('Short form');
  });

  it('asks for two collapsible spacers, and for what is done while it is open', () => {
    const needed = neededParts(orderOfWork(usualFacts(usual))).map(({ id }) => id);
    expect(needed).toContain('collapsible-spacers');
    expect(partOf('collapsible-spacers')?.count).toBe(2);
    expect(needed).toContain('shaft-seals');
    expect(neededParts(orderOfWork(usualFacts({ ...usual, spacer: 'solid' }))).map(({ id }) => id)).not.toContain(
      'collapsible-spacers',
    );
  });
});

describe('an order that the shop changed', () => {
  const steps = orderOfWork(usualFacts(usual));
  const faultsAfter = (...moves: { step: string; follows: string | null }[]) =>
    planFaults(orderAsWorked(steps, [], moves));

  it('is judged by the same rules', () => {
    expect(faultsAfter({ step: 'pinion-preload', follows: 'pinion-out' })).toContain(
      jasmine.objectContaining({ kind: 'before-gate', step: 'pinion-preload', gate: 'A' }),
    );
    expect(faultsAfter({ step: 'inner-seals', follows: 'trial-carrier' })).toContain({
      kind: 'shut',
      step: 'inner-seals',
      by: 'trial-carrier',
    });
    expect(faultsAfter({ step: 'pin-pass', follows: 'cover' })).toContain({
      kind: 'shut',
      step: 'pin-pass',
      by: 'ring-on',
    });
    // Nothing wrong with measuring shims a little later.
    expect(faultsAfter({ step: 'measure-shims', follows: 'bearings-off' })).toEqual([]);
  });

  it('says what stays out, and which gate is missing, when a step is left out', () => {
    const without = (id: string) => planFaults(steps, new Set([id]));
    expect(without('shafts-in')).toContain({ kind: 'stays-out', part: 'Cross pin', step: 'shafts-out' });
    expect(without('gate-b')).toContain({ kind: 'no-gate', gate: 'B' });
    // What was never taken off need not go back: an axle that comes to the bench alone has no wheels on it.
    expect(without('raise')).toEqual([]);
    expect(planFaults(steps.filter(({ id }) => id !== 'ring-off'))).toContain({
      kind: 'not-out',
      part: 'Ring',
      step: 'ring-on',
    });
  });

  it('takes steps of the shop’s own, and keeps one whose neighbour the job no longer has', () => {
    const own = { id: 'own-1', follows: 'ring-on', title: 'Own', does: 'Do it', minutes: 5 };
    const with1 = orderAsWorked(steps, [own], []).map(({ id }) => id);
    expect(with1.indexOf('own-1')).toBe(with1.indexOf('ring-on') + 1);
    const reused = orderOfWork(usualFacts({ ...usual, job: 'overhaul' }));
    expect(orderAsWorked(reused, [own], []).at(-1)?.id).toBe('own-1');
    expect(orderAsWorked(steps, [own], [{ step: 'not-there', follows: 'brief' }]).length).toBe(steps.length + 1);
    expect(orderAsWorked(steps, [{ ...own, follows: null }], [])[0]?.id).toBe('own-1');
  });
});
