import { ACTS, ASKED, InputError, JOBS, caseOf, gateAsks, presetOf, type Act, type Facts } from '@hot-spline/core';
import { TOOLS } from '../frame/tools';
import { usualFacts, type Told } from '../testing/facts';
import { judged, permitted, triples, type Order } from '../testing/order-checker';
import { STEP_IDS, orderOfWork, partOf } from './steps';

const acts = (told: Told): Act[] => orderOfWork(usualFacts(told)).flatMap((step) => [...step.acts]);
const ids = (told: Told): string[] => orderOfWork(usualFacts(told)).map(({ id }) => id);
/** That these stand in this order. */
const expectOrder = (all: readonly string[], wanted: readonly string[]): void =>
  expect(all.filter((one) => wanted.includes(one))).toEqual([...wanted]);

describe('an order from facts', () => {
  it('keeps every rule of the trade in every triple of facts', () => {
    const wrong = new Map<string, Facts>();
    let plans = 0;
    for (const facts of triples()) {
      if (!permitted(facts)) continue;
      plans++;
      for (const what of judged(facts)) if (!wrong.has(what)) wrong.set(what, facts);
    }
    expect([...wrong].slice(0, 12).map(([what, facts]) => `${what}: ${JSON.stringify(facts)}`)).toEqual([]);
    expect(plans).toBeGreaterThan(10_000);
  });

  it('every step names only steps, tools and parts that exist, and says what it does and when it is right', () => {
    const wrong = new Set<string>();
    const known = new Set<string>(STEP_IDS);
    const done = new Set<string>();
    let n = 0;
    for (const facts of triples()) {
      if (!permitted(facts) || n++ % 40 !== 0) continue;
      for (const {
        id,
        after,
        closedBy,
        tools,
        parts,
        records,
        pass,
        does,
        title,
        acts: all,
        answers,
        hand,
      } of orderOfWork(facts)) {
        const check = (right: boolean, what: string): void => void (right || wrong.add(`${id}: ${what}`));
        for (const one of [...all, ...answers]) done.add(one);
        for (const one of [...after, ...(closedBy === null ? [] : [closedBy])]) check(known.has(one), one);
        for (const one of tools) check(one in TOOLS, one);
        for (const one of parts) check(partOf(one) !== null, one);
        check(pass !== '' && does.length > 0 && title !== '', 'says what and when');
        check(new Set(records.map((one) => one.id)).size === records.length, 'records one thing twice');
        // Ring bolts are touched in these steps alone: each says their thread large, or that it is not known.
        const touched = ['ring-off', 'bolt-length', 'ring-bolts'].includes(id);
        check(hand === (touched ? (facts.ringHand ?? 'unknown') : null), 'thread hand');
      }
    }
    expect([...wrong]).toEqual([]);
    expect([...ACTS, ...ASKED].filter((one) => !done.has(one))).toEqual([]);
  });

  it('refuses facts that do not go together, and names the one', () => {
    const refused = (told: Told): string => {
      try {
        caseOf(usualFacts(told));
        return 'taken';
      } catch (error) {
        return error instanceof InputError ? error.field : String(error);
      }
    };
    expect(refused({ depthShim: 'support' })).toBe('depthShim');
    expect(refused({ construction: 'drop-out', depthShim: 'head-bearing' })).toBe('depthShim');
    expect(refused({ construction: 'transaxle', ringPlacedBy: 'outboard-shims' })).toBe('ringPlacedBy');
    expect(refused({ gears: 'used', ringOff: false })).toBe('ringOff');
    expect(refused({ gears: 'new', pinionOut: false })).toBe('pinionOut');
    expect(refused({ gears: 'stay', pinionBearings: 'new', pinionOut: false })).toBe('pinionOut');
    expect(refused({ gears: 'stay', pinionBearings: 'stay', pinionOut: false })).toBe('taken');
  });

  it('a preset only sets switches', () => {
    for (const job of JOBS)
      for (const kind of ['plate', 'geared', 'locker', 'plain'] as const)
        expect(Object.keys(presetOf(job, kind)).sort()).toEqual([
          'arrives',
          'box',
          'gears',
          'pinionBearings',
          'sideBearings',
          'unit',
        ]);
  });
});

// Orders that were wrong once, each by the rule that it broke (common practice, no published source).
describe('what a practitioner would stop at', () => {
  it('a drop-out: shafts before the housing, mesh on the bench before anything is loosened, housing in before shafts', () => {
    expectOrder(acts({ construction: 'drop-out', retention: 'flange' }), [
      'shafts-out',
      'housing-out',
      'mesh-read-before',
      'carrier-out',
      'carrier-final',
      'housing-in',
      'shafts-in',
    ]);
  });

  it('a drop-out’s pinion unit is finished on the bench before its support is tried; its o-ring waits', () => {
    const told = { construction: 'drop-out', retention: 'flange' } as const;
    expectOrder(acts(told), [
      'pinion-bearing-final',
      'seal-in',
      'crush',
      'pinion-preload-read',
      'pinion-trial',
      'gate-a',
      'support-oring',
      'gate-b',
    ]);
    expect(ids(told)).not.toContain('carrier-again');
  });

  it('an integral axle: bearing, seal, then the crush, all behind Gate A', () => {
    expectOrder(acts({ retention: 'flange' }), [
      'pinion-trial',
      'gate-a',
      'pinion-bearing-final',
      'seal-in',
      'crush',
      'carrier-final',
      'gate-b',
    ]);
  });

  it('a shim behind the cup: the bearing on the pinion may be final, the cup and the crush wait', () => {
    const told = { depthShim: 'cup', retention: 'flange' } as const;
    expectOrder(acts(told), ['pinion-bearing-final', 'pinion-trial', 'gate-a', 'seal-in', 'crush']);
    expect(ids(told)).toContain('cup-home');
  });

  it('a transaxle: depth by the pinion shaft alone; gears and box only then; nothing is crushed', () => {
    const told = { construction: 'transaxle', retention: 'stub', box: 'sequential' } as const;
    expectOrder(acts(told), ['pinion-trial', 'depth-proven', 'gate-a', 'gears-on-shaft', 'pinion-preload-read']);
    expect(acts(told)).not.toContain('crush');
    expectOrder(ids(told), ['gate-a', 'gears-on', 'drum']);
  });

  it('an overhaul leaves the pinion where it is, and repeats what it read before', () => {
    const told = { job: 'overhaul', retention: 'flange' } as const;
    expect(acts(told)).not.toContain('pinion-out');
    expect(acts(told)).not.toContain('ring-off');
    expect(gateAsks(usualFacts(told))).toEqual({ A: [], B: ['backlash', 'repeats-before', 'side-preload'] });
  });

  it('plates only: nothing of the mesh is disturbed, so nothing waits and nothing is tried', () => {
    const told = { job: 'plates', retention: 'flange' } as const;
    expect(gateAsks(usualFacts(told))).toEqual({ A: [], B: ['backlash', 'repeats-before'] });
    for (const id of ['trial-carrier', 'gate-a', 'next-move', 'carrier-bearings', 'pinion-drag'])
      expect(ids(told)).not.toContain(id);
  });

  it('a new closed unit is never stripped: its breakaway is measured from outside', () => {
    const told = { job: 'unit-change', unit: 'new-closed', retention: 'flange' } as const;
    expect(acts(told)).not.toContain('unit-open');
    expectOrder(acts(told), ['breakaway-outside', 'ring-on']);
  });

  it('an insert: carrier opened and closed again, the ring only where somebody says so', () => {
    const told = { job: 'insert', unitKind: 'insert', retention: 'stub' } as const;
    expectOrder(ids(told), ['open-carrier', 'stub-washers', 'fit-insert', 'close-carrier', 'carrier-final']);
    expect(acts(told)).not.toContain('ring-off');
    expectOrder(acts({ ...told, ringOff: true }), ['ring-off', 'ring-on', 'ring-bolts']);
  });

  it('a locker: dry first, its rings when nothing comes out any more, or from the first as a school', () => {
    const told = { job: 'locker', unitKind: 'locker', retention: 'flange' } as const;
    expectOrder(acts(told), ['locker-trial', 'gate-a', 'locker-rings', 'carrier-final', 'leak-test', 'gate-b']);
    const early = acts({ ...told, lockerRings: 'first-fitting' });
    expect(early).not.toContain('locker-trial');
    expect(early).not.toContain('gate-a');
    expectOrder(early, ['locker-rings', 'carrier-final', 'leak-test']);
  });

  it('an electric unit: dead before anything, its ring moves over, float alone is asked', () => {
    const told = { construction: 'electric-reduction', job: 'unit-change', retention: 'stub', spacer: 'none' } as const;
    expect(acts(told)[0]).toBe('hv-off');
    expectOrder(acts(told), [
      'hv-off',
      'unplug',
      'carrier-out',
      'ring-off',
      'ring-on',
      'ring-bolts',
      'gate-a',
      'gate-b',
    ]);
    expect(gateAsks(usualFacts(told))).toEqual({ A: ['float'], B: ['float', 'ring-bolts'] });
  });

  it('a loose unit: no car around it, a dry label and no run-in', () => {
    const all = acts({ job: 'loose-unit', construction: 'drop-out' });
    for (const act of ['raise', 'shafts-out', 'housing-out', 'fill', 'run-in'] as const) expect(all).not.toContain(act);
    expect(all).toContain('dry-label');
  });

  it('in pieces: nothing is stripped or read before, all of it is put together', () => {
    const told = { arrives: 'parts', job: 'overhaul' } as const;
    const all = acts({ ...told, arrives: 'parts' });
    for (const act of ['carrier-out', 'pinion-out', 'ring-off', 'mesh-read-before'] as const)
      expect(all).not.toContain(act);
    expectOrder(all, ['ring-on', 'pinion-trial', 'gate-a', 'crush', 'carrier-final']);
    expect(gateAsks(usualFacts({ ...told, arrives: 'parts' })).B).not.toContain('repeats-before');
  });

  it('the input’s float alone opens no axle', () => {
    const told = { job: 'input-float', retention: 'flange' } as const;
    expect(gateAsks(usualFacts(told))).toEqual({ A: [], B: ['float'] });
    for (const act of ['carrier-out', 'shafts-out', 'cover', 'carrier-final'] as const)
      expect(acts(told)).not.toContain(act);
    expectOrder(ids(told), ['input-float', 'gate-b']);
  });

  it('inboard shims: the side bearings’ last press waits for the ring’s place; outboard ones don’t', () => {
    expectOrder(acts({ job: 'unit-change', construction: 'integral-inboard', retention: 'flange' }), [
      'gate-a',
      'side-bearing-press',
    ]);
    expect(gateAsks(usualFacts({ job: 'unit-change', retention: 'flange' })).A).toEqual([]);
  });
});

/** The order with one thing changed in every plan. */
const broken = {
  dropped:
    (id: string): Order =>
    (facts) =>
      orderOfWork(facts).filter((step) => step.id !== id),
  swapped:
    (one: string, other: string): Order =>
    (facts) => {
      const steps = [...orderOfWork(facts)];
      const [a, b] = [one, other].map((id) => steps.findIndex((step) => step.id === id)) as [number, number];
      if (a >= 0 && b >= 0) [steps[a], steps[b]] = [steps[b] as never, steps[a] as never];
      return steps;
    },
  notWaiting:
    (id: string): Order =>
    (facts) =>
      orderOfWork(facts).map((step) => (step.id === id ? { ...step, behind: null } : step)),
  waiting:
    (id: string): Order =>
    (facts) =>
      orderOfWork(facts).map((step) => (step.id === id ? { ...step, behind: 'A' } : step)),
};

/** Jobs on which each fault shows somewhere. */
const SAMPLE: readonly Facts[] = JOBS.flatMap((job) =>
  (
    [
      { retention: 'c-clips' },
      { construction: 'integral-inboard', retention: 'flange' },
      { depthShim: 'cup', retention: 'unit-bearing' },
      { construction: 'drop-out', retention: 'flange' },
      { construction: 'independent', retention: 'stub' },
      { construction: 'transaxle', retention: 'stub' },
      { construction: 'electric-reduction', retention: 'stub' },
      { retention: 'flange', arrives: 'parts' },
      { retention: 'flange', unitKind: 'geared' },
    ] as const
  ).map((told) => usualFacts({ job, ...told, ...(job === 'locker' ? { unitKind: 'locker' as const } : {}) })),
);

describe('the checker', () => {
  it('finds nothing in the sample, and finds each of these when it is done to it', () => {
    const finds = (order: Order): boolean => SAMPLE.some((facts) => judged(facts, order).length > 0);
    expect(finds(orderOfWork)).toBeFalse();
    // Left out: what brings a part back, what a gate asks, what takes a hazard away.
    const must = STEP_IDS.filter((id) =>
      SAMPLE.some((facts) =>
        orderOfWork(facts).some((step) => step.id === id && (step.acts.length > 0 || step.answers.length > 0)),
      ),
    );
    expect(must.length).toBeGreaterThan(35);
    for (const id of must)
      expect(finds(broken.dropped(id)))
        .withContext(`${id} left out`)
        .toBeTrue();
    for (const [one, other] of [
      ['hv-off', 'undo-outside'],
      ['shafts-out', 'housing-out'],
      ['housing-out', 'readings-before'],
      ['readings-before', 'carrier-out'],
      ['carrier-out', 'pinion-out'],
      ['ring-off', 'ring-on'],
      ['ring-on', 'ring-bolts'],
      ['pinion-trial', 'gate-a'],
      ['gate-a', 'pinion-bearing'],
      ['gate-a', 'support-back'],
      ['gate-a', 'gears-on'],
      ['seal-flange', 'pinion-preload'],
      ['pinion-preload', 'carrier-final'],
      ['locker-rings', 'locker-line'],
      ['carrier-final', 'gate-b'],
      ['gate-b', 'cover'],
      ['housing-in', 'shafts-in'],
      ['breakaway-closed', 'ring-on'],
    ] as const)
      expect(finds(broken.swapped(one, other)))
        .withContext(`${one} and ${other} swapped`)
        .toBeTrue();
    for (const id of [
      'pinion-bearing',
      'seal-flange',
      'pinion-preload',
      'support-back',
      'gears-on',
      'carrier-bearings',
    ])
      expect(finds(broken.notWaiting(id)))
        .withContext(`${id} not waiting`)
        .toBeTrue();
    for (const id of ['ring-bolts', 'ring-on', 'pinion-trial', 'trial-carrier', 'carrier-bearings', 'seal-flange'])
      expect(finds(broken.waiting(id)))
        .withContext(`${id} waiting`)
        .toBeTrue();
  });
});
