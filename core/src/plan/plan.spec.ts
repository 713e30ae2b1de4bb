import { CONSTRUCTIONS } from '../mesh/construction';
import { InputError } from '../errors';
import { orderAsWorked, orderOfWork } from './order';
import { planFaults } from './faults';
import { PARTS, neededParts } from './parts';
import { BOXES, JOBS, RETENTIONS, UNIT_KINDS, caseOf, type Situation } from './situation';
import { TOOLS } from './tools';

const usual: Situation = {
  job: 'ratio-swap',
  construction: 'integral-head-shim',
  unit: 'plate',
  retention: 'c-clips',
  box: 'stays',
  spacer: 'collapsible',
  depth: 'gauge-first',
  bearings: 'set-up',
  ringGear: 'heated',
  ringHand: 'right',
};
const possible = ({ job, unit }: Situation): boolean => (job !== 'insert' && job !== 'locker') || job === unit;

/** Every combination of construction, unit, retention and job, with each box, thread hand and school in turn. */
function* everySituation(): Generator<Situation> {
  let turn = 0;
  for (const construction of CONSTRUCTIONS)
    for (const unit of UNIT_KINDS)
      for (const retention of RETENTIONS)
        for (const job of JOBS)
          for (const box of BOXES)
            for (const ringHand of ['right', 'left', null] as const) {
              turn++;
              const pick = <T>(bit: number, one: T, other: T): T => ((turn >> bit) % 2 === 0 ? one : other);
              const situation: Situation = {
                job,
                construction,
                unit,
                retention,
                box,
                ringHand,
                spacer: pick(0, 'collapsible', 'solid'),
                depth: pick(1, 'gauge-first', 'pattern-first'),
                bearings: pick(2, 'set-up', 'press-on'),
                ringGear: pick(3, 'heated', 'pulled-on'),
              };
              if (possible(situation)) yield situation;
            }
}
const ids = (situation: Situation): string[] => orderOfWork(situation).map(({ id }) => id);

// The rules are those of the job: gates, nothing irreversible before one, what is reachable once before what closes it,
// parts out = parts in. Common practice, no published source.
describe('order of work', () => {
  it('keeps every rule in every combination of construction, unit, retention, job, box and thread hand', () => {
    let plans = 0;
    const wrong = new Set<string>();
    for (const situation of everySituation()) {
      plans++;
      const steps = orderOfWork(situation);
      const check = (right: boolean, what: string): void => {
        if (!right) wrong.add(`${what}: ${JSON.stringify(situation)}`);
      };
      for (const fault of planFaults(steps)) check(false, JSON.stringify(fault));
      const all = steps.map(({ id }) => id);
      check(new Set(all).size === all.length, 'a step stands twice');
      check(all.indexOf('gate-a') < all.indexOf('gate-b'), 'gates');
      check(all.indexOf('gate-b') < all.indexOf('cover'), 'gate B before the cover');
      for (const { id, hand, tools, parts, pass, does, records } of steps) {
        // Ring bolts are touched in these steps alone: each says their thread large, or that it is not known.
        const touched = ['ring-off', 'bolt-length', 'ring-bolts'].includes(id);
        check(hand === (touched ? (situation.ringHand ?? 'unknown') : null), `${id} says the thread hand`);
        check(
          tools.every((tool) => tool in TOOLS),
          `${id} asks for tools that exist`,
        );
        check(
          parts.every((part) => part in PARTS),
          `${id} asks for parts that exist`,
        );
        check(pass !== '' && does.length > 0, `${id} says what it does and when it is right`);
        check(new Set(records.map((one) => one.id)).size === records.length, `${id} records one thing twice`);
      }
    }
    expect([...wrong].slice(0, 10)).toEqual([]);
    expect(plans).toBeGreaterThan(5000);
  });

  it('needs a unit of the kind that the job puts in', () => {
    for (const job of ['insert', 'locker'] as const)
      expect(() => orderOfWork({ ...usual, job, unit: 'plate' })).toThrowError(InputError, /needs a unit of that kind/);
  });

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
    const locker = ids({ ...usual, job: 'locker', unit: 'locker' });
    expect(locker).toContain('locker-line');
    expect(locker.indexOf('locker-line')).toBeLessThan(locker.indexOf('cover'));
    expect(ids({ ...usual, depth: 'pattern-first' })).not.toContain('depth');
  });

  it('presses inboard side bearings behind Gate A, outboard ones at once', () => {
    const at = (construction: Situation['construction']): number => {
      const all = ids({ ...usual, construction });
      return all.indexOf('carrier-bearings') - all.indexOf('gate-a');
    };
    expect(at('integral-inboard')).toBeGreaterThan(0);
    expect(at('integral-head-shim')).toBeLessThan(0);
  });

  it('asks for a wrench that tightens left-hand where the bolts are', () => {
    const tools = (ringHand: Situation['ringHand']) =>
      orderOfWork({ ...usual, ringHand }).find(({ id }) => id === 'ring-bolts')?.tools;
    expect(tools('left')).toContain('left-torque-wrench');
    expect(tools('right')).not.toContain('left-torque-wrench');
  });

  it('knows reused gears: no pinion, no crush, and short final readings', () => {
    const known = caseOf({ ...usual, job: 'locker', unit: 'locker' });
    expect(known.pinionOut).toBeFalse();
    expect(known.ringOff).toBeTrue();
    const final = orderOfWork({ ...usual, job: 'unit-change' }).find(({ id }) => id === 'final-readings');
    expect(final?.does.join(' ')).toContain('Short form');
  });

  it('asks for two collapsible spacers, and for what is done while it is open', () => {
    const needed = neededParts(orderOfWork(usual)).map(({ id }) => id);
    expect(needed).toContain('collapsible-spacers');
    expect(PARTS['collapsible-spacers'].count).toBe(2);
    expect(needed).toContain('shaft-seals');
    expect(neededParts(orderOfWork({ ...usual, spacer: 'solid' })).map(({ id }) => id)).not.toContain(
      'collapsible-spacers',
    );
  });
});

describe('an order that the shop changed', () => {
  const steps = orderOfWork(usual);
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
    const reused = orderOfWork({ ...usual, job: 'overhaul' });
    expect(orderAsWorked(reused, [own], []).at(-1)?.id).toBe('own-1');
    expect(orderAsWorked(steps, [own], [{ step: 'not-there', follows: 'brief' }]).length).toBe(steps.length + 1);
    expect(orderAsWorked(steps, [{ ...own, follows: null }], [])[0]?.id).toBe('own-1');
  });
});
