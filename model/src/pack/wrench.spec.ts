import { newShimBox } from '../library/new-spec';
import { HOLDS, InputError, entryBase, entryOf, wantedPack, perPackFromReading } from '@hot-spline/core';
import { SIDES } from '../base/names';
import type { Build } from '../document/schema';
import type { PlateSpec } from './schema';
import { deriveBuild } from '../assembly/derive';
import { driftBuild, reading, withPlate } from '../testing/builds';
import { packPrint } from './print';
import { layPack, wantedProblemOf } from './wanted';
import { surePackOf } from './sure';
import { wantedBandNm } from './wrench';

const { build, ledger } = driftBuild();
const plateOf = (one: Build): PlateSpec => {
  const plate = one.axles.rear?.unit.plate;
  if (!plate) throw new Error('no plates');
  return plate;
};
const packsOf = (one: Build) => {
  const packs = deriveBuild(one, ledger).axles.rear?.pack;
  if (!packs) throw new Error('no packs');
  return packs;
};
const torque = (nm: number) => entryOf(nm, 'N·m');
const finding = (one: Build, id: string) => deriveBuild(one, ledger).findings.find((found) => found.id === id);
const figure = (one: Build, id: string, readings = ledger) => deriveBuild(one, readings).figures.get(id)?.value ?? null;

describe('a wanted breakaway', () => {
  const predicted = figure(build, 'pack.rear.wrench.other-wheel-held') as number;

  it('fits inside its band and is watched outside, by how much, for its own hold', () => {
    const at = (low: number, high: number, hold: (typeof HOLDS)[number] = 'other-wheel-held') =>
      finding(withPlate(build, { wanted: { hold, low: torque(low), high: torque(high) } }), 'pack.wanted.rear');
    expect(at(predicted - 2, predicted + 2)?.verdict).toBe('fits');
    const below = at(predicted + 2, predicted + 9);
    expect(below?.verdict).toBe('watch');
    expect(below?.say('metric').title.replace(/\u00a0|\u202f/g, ' ')).toBe('Breakaway 2.0 N·m below what is wanted');
    expect(at(predicted - 9, predicted - 3)?.say('metric').title).toContain('above what is wanted');
    // in gear the wrench reads the sum of both packs [exact, equilibrium]
    expect(at(2 * predicted - 2, 2 * predicted + 2, 'carrier-held')?.verdict).toBe('fits');
    expect(finding(withPlate(build, { wanted: null }), 'pack.wanted.rear')).toBeUndefined();
  });

  it('stands for a band of one pack, by its hold', () => {
    for (const hold of HOLDS) {
      const band = wantedBandNm(plateOf(withPlate(build, { wanted: { hold, low: torque(50), high: torque(60) } })), {});
      expect(band).toEqual([perPackFromReading({ hold, torqueNm: 50 }), perPackFromReading({ hold, torqueNm: 60 })]);
    }
    expect(wantedBandNm(plateOf(withPlate(build, { wanted: null })), {})).toBeNull();
  });

  it('is what the draws are judged by, and the spread is the shop’s where it is known', () => {
    const wanted = { hold: 'carrier-held' as const, low: torque(50), high: torque(60) };
    const known = withPlate(build, { wanted, frictionSpread: entryOf(5, '%') });
    const asked = surePackOf(plateOf(known), packsOf(known), 'left');
    expect(asked.breakawayBandNm).toEqual([25, 30]);
    const mu = entryBase(plateOf(known).frictionCoefficient);
    expect(asked.frictionCoefficient.plusMinus).toBeCloseTo(0.05 * mu, 12);
    const guessed = withPlate(build, { wanted: null, frictionSpread: null });
    const free = surePackOf(plateOf(guessed), packsOf(guessed), 'left');
    expect(free.frictionCoefficient.plusMinus).toBeCloseTo(0.15 * mu, 12); // guard band of ours
    expect(free.breakawayBandNm).toBeUndefined();
  });

  it('a plan laid into the build gives what it promised', () => {
    const wanted = { hold: 'other-wheel-held' as const, low: torque(predicted - 6), high: torque(predicted - 2) };
    const before = withPlate(build, { wanted });
    const drawer = newShimBox(
      'Drawer',
      'pack',
      Array.from({ length: 40 }, (_, i) => ({
        thickness: entryOf(Number((0.5 + 0.02 * i).toFixed(2)), 'mm'),
        count: 2,
        origin: 'measured' as const,
      })),
    );
    const [plan] = wantedPack(wantedProblemOf(plateOf(before), packsOf(before), drawer, 2)).plans;
    expect(plan?.inBand).toBeTrue();
    const after = structuredClone(before);
    const plate = plateOf(after);
    SIDES.forEach((side, i) => {
      const planned = plan?.sides[i];
      if (!planned) throw new Error('no plan');
      layPack(plate, side, planned.order);
      const { members } = plate.packs[side];
      const at = members.findIndex(({ kind }) => kind === 'shim');
      const shims = planned.shimsMm.map((mm, k) => ({
        id: `new-${side}-${k}`,
        kind: 'shim' as const,
        label: 'shim',
        thickness: entryOf(Number(mm.toFixed(4)), 'mm'),
        condition: null,
      }));
      members.splice(at, members.filter(({ kind }) => kind === 'shim').length, ...shims);
    });
    const packs = packsOf(after);
    SIDES.forEach((side, i) => {
      expect(packs[side].breakawayNm)
        .withContext(side)
        .toBeCloseTo(plan?.sides[i]?.breakawayNm ?? 0, 6);
      expect(packs[side].interfaces).toBe(plan?.interfaces ?? -1);
      expect(packs[side].springInstalledMm).toBeCloseTo(plan?.sides[i]?.installedMm ?? 0, 9);
    });
  });

  it('refuses packs that no height can change, in words', () => {
    const wanted = { hold: 'bench' as const, low: torque(50), high: torque(60) };
    const field = (one: Build): string => {
      try {
        wantedProblemOf(plateOf(one), packsOf(one), null, 2);
      } catch (error) {
        if (error instanceof InputError) return error.field;
        throw error;
      }
      return '';
    };
    expect(field(withPlate(build, { wanted: null }))).toBe('wanted');
    const force = { from: 'measured-force' as const, force: entryOf(900, 'N'), acts: 'series' as const };
    expect(field(withPlate(build, { wanted, preload: force }))).toBe('members');
    const bare = withPlate(build, { wanted });
    const { left } = plateOf(bare).packs;
    left.members = left.members.filter(({ kind }) => kind !== 'spring');
    expect(field(bare)).toBe('members');
  });
});

describe('friction from the wrench', () => {
  it('comes from the newest reading, whatever its hold', () => {
    const older = reading({ what: 'breakaway', axle: 'rear', hold: 'bench' }, torque(20), '2026-01-02T00:00:00.000Z');
    const newer = reading(
      { what: 'breakaway', axle: 'rear', hold: 'carrier-held' },
      torque(66),
      '2026-02-02T00:00:00.000Z',
    );
    const fresh = ledger.filter((entry) => entry.kind !== 'reading' || entry.subject.what !== 'breakaway');
    expect(figure(build, 'pack.rear.friction', fresh)).toBeNull();
    const mu = entryBase(plateOf(build).frictionCoefficient);
    const sum = figure(build, 'pack.rear.wrench.carrier-held', fresh) as number;
    // T goes with μ: measured over predicted is the ratio of the two [exact]
    expect(figure(build, 'pack.rear.friction', [...fresh, older, newer])).toBeCloseTo((mu * 66) / sum, 9);
    const mean = figure(build, 'pack.rear.wrench.bench', fresh) as number;
    expect(figure(build, 'pack.rear.friction', [...fresh, older])).toBeCloseTo((mu * 20) / mean, 9);
  });

  it('a reading belongs to the packs that it was taken on: laid otherwise it neither accuses nor teaches', () => {
    const fresh = ledger.filter((entry) => entry.kind !== 'reading' || entry.subject.what !== 'breakaway');
    const on = (of: typeof build) =>
      reading(
        { what: 'breakaway', axle: 'rear', hold: 'carrier-held', packs: packPrint(plateOf(of)) },
        torque(10),
        '2026-02-02T00:00:00.000Z',
      );
    const id = 'pack.measuredBreakaway.rear.carrier-held';
    const found = (of: typeof build, entry: ReturnType<typeof on>) =>
      deriveBuild(of, [...fresh, entry]).findings.find((one) => one.id === id);
    expect(found(build, on(build))?.verdict).toBe('watch');
    const changed = withPlate(build, {});
    const first = plateOf(changed).packs.left.members[0];
    if (first) first.thickness = entryOf(2.5, 'mm');
    expect(packPrint(plateOf(changed))).not.toBe(packPrint(plateOf(build)));
    const stale = found(changed, on(build));
    expect(stale?.verdict).toBe('not-yet');
    expect(stale?.say('metric').title).toBe('Breakaway was read on other packs');
    expect(figure(changed, 'pack.rear.friction', [...fresh, on(build)])).toBeNull();
    expect(figure(changed, 'pack.rear.friction', [...fresh, on(changed)])).not.toBeNull();
  });

  it('bedded in is the share that is left, for the hold that is wanted', () => {
    const wanted = { hold: 'carrier-held' as const, low: torque(50), high: torque(60) };
    const at = withPlate(build, { wanted, bedding: entryOf(80, '%') });
    expect(figure(at, 'pack.rear.bedded')).toBeCloseTo(
      0.8 * (figure(at, 'pack.rear.wrench.carrier-held') as number),
      9,
    );
  });
});
