import { entryBase, entryOf, rampLockCoefficient } from '@hot-spline/core';
import type { Complaint } from '../identity/schema';
import type { PlateSpec } from '../pack/schema';
import { deriveBuild } from '../assembly/derive';
import { readingsInForce } from '../assembly/derive';
import { driftBuild, withPlate } from '../testing/builds';
import { plateUnit } from '../pack/ramps';
import { TUNE_STEPS, WISHES, tuneFor, type Advice } from './tune';

const { build, ledger } = driftBuild();
const readings = readingsInForce(ledger);
const softer = withPlate(build, { driveRamp: entryOf(65, '°'), overrunRamp: entryOf(75, '°') });
const plateOf = (one: typeof build): PlateSpec => one.axles.rear?.unit.plate as PlateSpec;
const plate = plateOf(softer);
const TUNING = { thrust: 'ramps' as const, pinionRatio: 4.1, readings, inputNm: 1500, overrunNm: 300 };
const advice = (complaint: Complaint, of: PlateSpec = plate): Advice[] => tuneFor(complaint, of, 'rear', TUNING);
const kinds = (list: Advice[]): string[] => list.map(({ change }) => change.kind);

/** Directions are common practice, no published source; sizes are checked against the laws of the unit. */
describe('tuning from what the driver says', () => {
  it('answers only what is the unit’s', () => {
    for (const complaint of ['runs-hot', 'whines'] as const) expect(advice(complaint)).toEqual([]);
    for (const complaint of Object.keys(WISHES) as Complaint[])
      expect(advice(complaint).length).withContext(complaint).toBeGreaterThan(0);
    expect(tuneFor('pushes-wide', plate, 'rear', { ...TUNING, inputNm: 0 })).toEqual([]);
  });

  it('moves what is wanted the way that is wanted, best first', () => {
    for (const [complaint, wish] of Object.entries(WISHES) as [Complaint, NonNullable<(typeof WISHES)[Complaint]>][]) {
      const list = advice(complaint);
      list.slice(1).forEach((one, i) => expect(one.score).toBeLessThanOrEqual(list[i]?.score ?? 0));
      for (const { before, after } of list) {
        const directions = (Object.entries(wish) as ['drive' | 'overrun' | 'breakaway', number][]).map(
          ([key, direction]) => Math.sign(after[key] - before[key]) * Math.sign(direction),
        );
        expect(Math.max(...directions))
          .withContext(complaint)
          .toBe(1);
      }
    }
  });

  it('pushes wide on power: a flatter ramp is worth what the law of the ramps says', () => {
    const step = advice('pushes-wide').find(({ change }) => change.kind === 'drive-ramp');
    if (step?.change.kind !== 'drive-ramp') throw new Error('no ramp step');
    expect(entryBase(step.change.to)).toBe(65 + TUNE_STEPS.rampDeg);
    const packs = deriveBuild(softer, ledger).axles.rear?.pack;
    if (!packs) throw new Error('no packs');
    const k = (of: PlateSpec): number => rampLockCoefficient(plateUnit(of, packs, 'drive'));
    const preload = packs.left.slidingNm + packs.right.slidingNm;
    // springs in series: S = max(T₀, k·T) ÷ T, k = μ·n·r_m/(r_p·tan(α + ρ)) [exact]
    expect(k(plate) * TUNING.inputNm).toBeGreaterThan(preload);
    expect(step.before.drive).toBeCloseTo(k(plate), 9);
    expect(step.after.drive).toBeCloseTo(k(step.plate), 9);
    expect(step.after.breakaway).toBe(step.before.breakaway);
  });

  it('a one-and-a-half-way unit changes its overrun ramp for the lift, and leaves power alone', () => {
    const half: PlateSpec = { ...plate, action: 'one-and-a-half-way' };
    // dragging so little, the springs alone hold: no ramp changes anything
    expect(kinds(advice('snaps-on-lift', half))).not.toContain('overrun-ramp');
    const hard = tuneFor('snaps-on-lift', half, 'rear', { ...TUNING, overrunNm: 900 });
    const step = hard.find(({ change }) => change.kind === 'overrun-ramp');
    if (step?.change.kind !== 'overrun-ramp') throw new Error('no overrun step');
    expect(entryBase(step.change.to)).toBe(75 - TUNE_STEPS.rampDeg);
    expect(step.after.drive).toBe(step.before.drive);
    expect(step.after.overrun).toBeGreaterThan(step.before.overrun);
    expect(kinds(advice('snaps-on-lift', { ...plate, action: 'one-way' }))).toContain('action');
  });

  it('chatters: additive first, then less preload', () => {
    const list = advice('chatters');
    expect(list[0]?.change.kind).toBe('additive');
    expect(entryBase(list[0]?.plate.frictionCoefficient as PlateSpec['frictionCoefficient'])).toBeCloseTo(
      TUNE_STEPS.additive * entryBase(plate.frictionCoefficient),
      4,
    );
    const shim = list.find(({ change }) => change.kind === 'shim');
    expect(shim?.change).toEqual({ kind: 'shim', moreMm: -TUNE_STEPS.shimMm });
    expect(entryBase(shim?.plate.targetHeight as PlateSpec['targetHeight'])).toBeCloseTo(
      entryBase(plate.targetHeight) - TUNE_STEPS.shimMm,
      3,
    );
  });

  it('fewer interfaces is an order of the same plates', () => {
    const step = advice('drags-in-turns').find(({ change }) => change.kind === 'order');
    if (step?.change.kind !== 'order') throw new Error('no order');
    expect(step.change.to).toBe(step.change.from - 1);
    for (const side of ['left', 'right'] as const)
      expect(step.plate.packs[side].members.map(({ id }) => id).sort()).toEqual(
        plate.packs[side].members.map(({ id }) => id).sort(),
      );
    // torque goes with the interfaces at one clamp force [standard: Shigley]
    expect(step.after.breakaway / step.before.breakaway).toBeCloseTo(step.change.to / step.change.from, 6);
  });

  it('never advises what would lock the unit solid', () => {
    const edge = plateOf(withPlate(build, { driveRamp: entryOf(48, '°') }));
    const before = advice('pushes-wide', edge)[0]?.before.drive ?? 0;
    for (const { after } of advice('one-wheel-spins', edge)) expect(after.drive < 1 || before >= 1).toBeTrue();
  });

  it('offers no shim where the clamp force is given as measured', () => {
    const force: PlateSpec = {
      ...plate,
      preload: { from: 'measured-force', force: entryOf(900, 'N'), acts: 'series' },
    };
    expect(kinds(advice('chatters', force))).not.toContain('shim');
  });

  it('where in the turn it pushes wide says which lock it is: in on overrun, through by the springs, out on the drive side', () => {
    const hard = { ...TUNING, overrunNm: 900 };
    const half: PlateSpec = { ...plate, action: 'one-and-a-half-way' };
    const first = (where: 'entry' | 'middle' | 'exit'): Advice | undefined =>
      tuneFor('pushes-wide', half, 'rear', hard, { wheel: null, where })[0];
    for (const [where, key] of [
      ['entry', 'overrun'],
      ['middle', 'breakaway'],
      ['exit', 'drive'],
    ] as const) {
      const step = first(where);
      expect(step?.after[key])
        .withContext(where)
        .toBeLessThan(step?.before[key] ?? 0);
    }
    expect(tuneFor('pushes-wide', half, 'rear', hard)).toEqual(
      tuneFor('pushes-wide', half, 'rear', hard, { wheel: null, where: 'exit' }),
    );
  });

  it('a two-way unit may have its overrun side cut by itself: power stays as it was, and it is a one-and-a-half-way then', () => {
    const two: PlateSpec = { ...plate, action: 'two-way' };
    const list = tuneFor('pushes-wide', two, 'rear', { ...TUNING, overrunNm: 900 }, { wheel: null, where: 'entry' });
    const step = list.find(({ change }) => change.kind === 'overrun-ramp-alone');
    if (step?.change.kind !== 'overrun-ramp-alone') throw new Error('no such step');
    expect(entryBase(step.change.to)).toBe(entryBase(two.driveRamp) + TUNE_STEPS.rampDeg);
    expect(step.plate.action).toBe('one-and-a-half-way');
    expect(step.after.drive).toBe(step.before.drive);
    expect(step.after.overrun).toBeLessThan(step.before.overrun);
    expect(step.besides).toContain('new-ring');
  });

  it('one and the same wheel always: the packs are evened by a shim on one side, and where they hold alike nothing is offered', () => {
    const met = { wheel: 'left', where: null } as const;
    const list = tuneFor('one-wheel-spins', plate, 'rear', TUNING, met);
    for (const { change, before, after } of list) {
      expect(after.apart).toBeLessThan(before.apart);
      if (change.kind === 'shim-side') expect(Math.abs(change.moreMm)).toBe(TUNE_STEPS.shimMm / 2);
    }
    const packs = deriveBuild(softer, ledger).axles.rear?.pack;
    const [left, right] = [packs?.left.breakawayNm ?? 0, packs?.right.breakawayNm ?? 0];
    // twice the difference over the sum, from the packs themselves [exact]
    expect(list[0]?.before.apart ?? (2 * Math.abs(left - right)) / (left + right)).toBeCloseTo(
      (2 * Math.abs(left - right)) / (left + right),
      9,
    );
    const side = list.find(({ change }) => change.kind === 'shim-side');
    if (side?.change.kind === 'shim-side')
      expect(side.change.moreMm > 0).toBe(side.change.side === (left < right ? 'left' : 'right'));
  });

  it('names what a step does besides: never what was asked for, and what nobody feels is left out', () => {
    for (const complaint of Object.keys(WISHES) as Complaint[])
      for (const { change, before, after, besides } of advice(complaint)) {
        const wish = WISHES[complaint] ?? {};
        for (const key of ['drive', 'overrun', 'breakaway'] as const) {
          const share = before[key] === 0 ? Number(after[key] !== 0) : after[key] / before[key] - 1;
          const direction = share > 0 ? 'more' : 'less';
          const wanted = Math.sign(wish[key] ?? 0) === Math.sign(share);
          expect(besides.includes(`${key}-${direction}`))
            .withContext(`${complaint}, ${change.kind}, ${key}`)
            .toBe(Math.abs(share) >= 0.03 && !wanted);
        }
        expect(besides.includes('additive-fades')).toBe(change.kind === 'additive');
      }
  });
});
