import { caseOf, entryOf, type Facts } from '@hot-spline/core';
import { orderOfWork } from '../assembly/steps';
import { AS_IT_CAME, FIRST_TRIAL } from '../mesh/new-setup';
import { impossible, isFinal } from '../mesh/state';
import { backlash } from '../mesh/readings';
import { done, entry, jobOf, look } from '../testing/bench';
import { newSetup } from '../mesh/new-setup';
import { stateAfter } from './chips';

const worked = (facts: Facts, until: string) => {
  let state = FIRST_TRIAL;
  for (const step of orderOfWork(facts)) {
    state = stateAfter(step, facts, state);
    if (step.id === until) return state;
  }
  throw new Error(`${until} is not in this order`);
};

describe('the state that readings are taken in', () => {
  const gears = look(jobOf('ratio-swap')).work.facts;

  it('follows the steps that were done [operations §2: order of the final pinion]', () => {
    const facts: Facts = { ...gears, sideBearings: 'new' };
    expect(caseOf(facts).gateA).toBeTrue();
    expect(worked(facts, 'carrier-out')).toEqual({ ...FIRST_TRIAL, caps: 'off', sidePreload: 'none' });
    expect(worked(facts, 'pinion-out')).toEqual(
      jasmine.objectContaining({ spacer: 'none', seal: 'out', nut: 'old', caps: 'off' }),
    );
    expect(worked(facts, 'trial-carrier')).toEqual(jasmine.objectContaining({ caps: 'torqued', sidePreload: 'full' }));
    expect(worked(facts, 'seal-flange')).toEqual(
      jasmine.objectContaining({ pinionBearings: 'new', spacer: 'new', seal: 'in', nut: 'new', caps: 'off' }),
    );
    // All of it done, it is the state that runs: nothing is left to tap.
    expect(isFinal(worked(facts, 'carrier-final'), 'new')).toBeTrue();
  });

  it('refuses what cannot be, and a box shaft runs without a spacer [operations: construction table]', () => {
    expect(impossible({ ...FIRST_TRIAL, caps: 'off' })).toContain('no side preload');
    expect(impossible({ ...FIRST_TRIAL, caps: 'off', sidePreload: 'none' })).toBeNull();
    const bare = { ...AS_IT_CAME, pinionBearings: 'new', sideBearings: 'new', nut: 'new', spacer: 'none' } as const;
    expect(isFinal(bare, 'new', 'transaxle')).toBeTrue();
    expect(isFinal(bare, 'new', 'integral-head-shim')).toBeFalse();
  });

  it('is as it came until somebody opens it, and what was read then is the target without its shims being known', () => {
    const build = jobOf('plates', (axle) => {
      axle.unit.type = 'plate';
      axle.setup = { ...newSetup(), gears: 'used' };
    });
    const round = {
      ...entry(backlash.of({ axle: 'rear', assembly: '0', stage: 'trial' }), {
        of: 'places',
        entries: [0.14, 0.15, 0.16, 0.15].map((mm) => entryOf(mm, 'mm')),
      }),
      state: AS_IT_CAME,
    };
    const before = look(build, [round]);
    expect(before.work.metal.asItCame).toBeTrue();
    expect(before.derived.mesh.rear?.now).toBeNull();
    expect(before.derived.mesh.rear?.came.backlash?.round.meanMm).toBeCloseTo(0.15, 9);
    expect(before.step('readings-before')?.missing).toEqual([]);
    expect(look(build, [round, done('carrier-out')]).work.metal.asItCame).toBeFalse();
  });
});
