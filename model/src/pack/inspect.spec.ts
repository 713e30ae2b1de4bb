import { entryOf } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import type { Build } from '../document/schema';
import type { Condition, PlateSpec } from './schema';
import { readingsInForce } from '../assembly/derive';
import type { LedgerEntry } from '../frame/readings';
import { driftBuild, reading } from '../testing/builds';
import { packStateOf } from './pack-state';
import { conditionVerdict, overhaulAdvice, inspectPack } from './inspect';

const { build, ledger } = driftBuild();
const seen = (change: Partial<Condition>): Condition => ({ colour: null, damage: [], note: '', photos: [], ...change });

function plateOf(from: Build): PlateSpec {
  const plate = from.axles.rear?.unit.plate;
  if (!plate) throw new Error('no plates');
  return plate;
}

function changed(change: (plate: PlateSpec) => void): PlateSpec {
  const plate = structuredClone(plateOf(build));
  plate.offers = { overhaul: null, replace: null };
  plate.neededInDays = null;
  for (const side of ['left', 'right'] as const)
    for (const member of plate.packs[side].members) member.condition = null;
  change(plate);
  return plate;
}

function piecesOf(plate: PlateSpec, entries: readonly LedgerEntry[] = ledger) {
  const readings = readingsInForce(entries);
  return inspectPack(plate, packStateOf(plate, 'rear', readings, { thrust: 'ramps', pinionRatio: 4 }));
}
const advise = (plate: PlateSpec, entries?: readonly LedgerEntry[]) => overhaulAdvice(plate, piecesOf(plate, entries));

describe('wear', () => {
  it('is new less measured, against the limit, of lined plates', () => {
    const pieces = piecesOf(changed((plate) => (plate.wearLimit = entryOf(4, 'thou'))));
    const right2 = pieces.find(({ member }) => member.id === 'r2');
    // new 0.0980 in, measured 0.0962 in: 1.8 thou of 4 [exact]
    expect((right2?.wornMm ?? 0) / 0.0254).toBeCloseTo(1.8, 6);
    expect(right2?.usedShare).toBeCloseTo(0.45, 6);
    expect(right2?.verdict).toBe('fits');
    const steel = pieces.find(({ member }) => member.id === 'r1');
    expect(steel?.usedShare).toBeNull();
    const unmeasured = pieces.find(({ member }) => member.kind === 'spring');
    expect(unmeasured?.wornMm).toBeNull();
    expect(unmeasured?.verdict).toBe('not-yet');
  });

  it('past the limit a plate does not go back in', () => {
    const pieces = piecesOf(changed((plate) => (plate.wearLimit = entryOf(1.5, 'thou'))));
    expect(pieces.filter(({ verdict }) => verdict === 'stop').map(({ member }) => member.id)).toEqual(['r2', 'r5']);
  });

  it('heat and damage are judged: guards of ours', () => {
    const verdict = (change: Partial<Condition>) => conditionVerdict(seen(change)).verdict;
    expect(conditionVerdict(null).verdict).toBe('not-yet');
    expect(verdict({ note: 'looked fine' })).toBe('not-yet');
    expect(verdict({ colour: 'clean' })).toBe('fits');
    expect(verdict({ colour: 'straw' })).toBe('fits');
    expect(verdict({ colour: 'blue' })).toBe('watch');
    expect(verdict({ colour: 'black' })).toBe('stop');
    expect(verdict({ damage: ['scored'] })).toBe('watch');
    for (const damage of ['bent ears', 'cracked', 'warped', 'lining gone'] as const)
      expect(verdict({ colour: 'clean', damage: [damage] }))
        .withContext(damage)
        .toBe('stop');
  });
});

describe('overhaul or replace', () => {
  const worn = (change: (plate: PlateSpec) => void): PlateSpec =>
    changed((plate) => {
      plate.wearLimit = entryOf(1.5, 'thou');
      change(plate);
    });

  it('runs on while nothing has to come out', () => {
    const advice = advise(changed((plate) => (plate.wearLimit = entryOf(4, 'thou'))));
    expect(advice.choice).toBe('run-on');
    expect(advice.reasons[0]).toContain('55 % of its wear left');
  });

  it('says nothing for a pack that nobody has measured or looked at; one look is enough to begin', () => {
    const bare = changed((plate) => {
      for (const side of ['left', 'right'] as const) {
        const pack = plate.packs[side];
        pack.gearFace.condition = pack.caseWall.condition = null;
        for (const member of pack.members) member.condition = null;
      }
    });
    expect(advise(bare, []).choice).toBe('not-inspected');
    const [first] = bare.packs.left.members;
    if (first) first.condition = { colour: 'clean', damage: [], note: '', photos: [] };
    expect(advise(bare, []).choice).toBe('run-on');
  });

  it('asks while no offer is known', () => {
    expect(advise(worn(() => undefined)).choice).toBe('ask');
  });

  it('a kit weeks away loses to a complete unit on the shelf', () => {
    const advice = advise(
      worn((plate) => {
        plate.offers = { overhaul: { price: 340, leadDays: 21 }, replace: { price: 1150, leadDays: 0 } };
        plate.neededInDays = 10;
      }),
    );
    expect(advice.choice).toBe('replace');
    expect(advice.reasons.join(' ')).toContain('21 days: too late');
  });

  it('in time, the cheaper one', () => {
    const advice = advise(
      worn((plate) => {
        plate.offers = { overhaul: { price: 340, leadDays: 9 }, replace: { price: 1150, leadDays: 0 } };
        plate.neededInDays = 10;
      }),
    );
    expect(advice.choice).toBe('overhaul');
    expect(advice.reasons.join(' ')).toContain('costs 810 more');
  });

  it('with neither in time, the sooner one', () => {
    const advice = advise(
      worn((plate) => {
        plate.offers = { overhaul: { price: 340, leadDays: 21 }, replace: { price: 1150, leadDays: 14 } };
        plate.neededInDays = 3;
      }),
    );
    expect(advice.choice).toBe('replace');
    expect(advice.reasons.join(' ')).toContain('neither is here');
  });

  it('a damaged face is not cured by a kit', () => {
    const advice = advise(
      changed((plate) => {
        plate.packs.left.gearFace.condition = seen({ damage: ['cracked'] });
        plate.offers = { overhaul: { price: 1, leadDays: 0 }, replace: { price: 1150, leadDays: 30 } };
      }),
    );
    expect(advice.choice).toBe('replace');
    expect(advice.reasons.join(' ')).toContain('a kit alone');
  });
});

describe('what was seen on a face', () => {
  it('is a finding at its place, as on a piece', () => {
    const copy = structuredClone(build);
    plateOf(copy).packs.right.caseWall.condition = seen({ damage: ['cracked'] });
    const found = deriveBuild(copy, ledger).findings.find(({ id }) => id === 'pack.inspect.rear.stop');
    expect(found?.place.field).toBe('inspect-right-caseWall');
    expect(found?.say('metric').detail).toContain('Right case wall: cracked');
  });
});

describe('what falls due, and what was entered crosswise', () => {
  const find = (of: Build, entries: readonly LedgerEntry[], id: string, today: string | null = null) =>
    deriveBuild(of, entries, { follow: 'rear', today }).findings.find((finding) => finding.id === id);

  it('a recheck is due on its day, and never without a day', () => {
    const copy = structuredClone(build);
    plateOf(copy).recheck = { on: '2026-12-01', why: 'Oil' };
    expect(find(copy, ledger, 'pack.recheck.rear', '2026-11-30')?.verdict).toBe('fits');
    expect(find(copy, ledger, 'pack.recheck.rear', '2026-12-01')?.verdict).toBe('watch');
    expect(find(copy, ledger, 'pack.recheck.rear')).toBeUndefined();
  });

  it('left and right swapped is said of depths and of stacks, not of small differences', () => {
    const copy = structuredClone(build);
    const { left, right } = plateOf(copy).packs;
    left.caseDepth = entryOf(20, 'mm');
    right.caseDepth = entryOf(21, 'mm');
    const depth = (side: 'left' | 'right', mm: number) =>
      reading({ what: 'case-depth', axle: 'rear', side }, entryOf(mm, 'mm'));
    expect(find(copy, [depth('left', 21.02), depth('right', 19.98)], 'pack.swapped.rear')?.verdict).toBe('watch');
    expect(find(copy, [depth('left', 20.02), depth('right', 20.98)], 'pack.swapped.rear')).toBeUndefined();
    expect(find(copy, [depth('left', 21.02)], 'pack.swapped.rear')).toBeUndefined();
  });
});
