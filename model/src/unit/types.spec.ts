import { compareUnit, entryOf, sideGearThrust, type CompareSituation } from '@hot-spline/core';
import fc from 'fast-check';
import { openUnit, unitAs } from './new-unit';
import { bevelGear } from '../pack/bevel-gear';
import { UNIT_TYPES, type Unit } from './schema';
import { buildSchema, type Build } from '../document/schema';
import { deriveBuild } from '../assembly/derive';
import { driftBuild, reading } from '../testing/builds';
import type { LedgerEntry } from '../frame/readings';
import { plateRadius } from '../pack/state';
import { unitHolds, unitState } from './derive';

const { build, ledger } = driftBuild();

function withUnit(change: (unit: Unit) => Unit): Build {
  const copy = structuredClone(build);
  if (copy.axles.rear) copy.axles.rear.unit = change(copy.axles.rear.unit);
  return copy;
}
const as = (type: Unit['type']): Build => withUnit((unit) => unitAs(unit, type));

describe('every type of unit in a build', () => {
  it('is valid, derives without a refusal, and its working gives its figure', () => {
    for (const type of UNIT_TYPES) {
      const one = as(type);
      expect(buildSchema.safeParse(one).success).withContext(type).toBeTrue();
      const derived = deriveBuild(one, ledger);
      expect(derived.findings.filter(({ id }) => id.startsWith('refused')).length)
        .withContext(type)
        .toBe(0);
      const lock = derived.figures.get('unit.rear.drive.lock');
      expect(lock?.explain?.().result.value)
        .withContext(type)
        .toBeCloseTo(lock?.value ?? Number.NaN, 6);
    }
  });

  it('keeps what it knew of another type', () => {
    const there = unitAs(unitAs(build.axles.rear?.unit ?? openUnit(), 'helical'), 'plate');
    expect(there.plate).toEqual(build.axles.rear?.unit.plate ?? null);
    expect(there.helical).not.toBeNull();
  });

  it('side-gear thrust: preload of the packs and 2·μ·n·r_m·thrust', () => {
    const derived = deriveBuild(as('side-gear-thrust'), ledger);
    const pack = derived.axles.rear?.pack;
    const { unit } = as('side-gear-thrust').axles.rear ?? {};
    if (!pack || !unit?.plate || !unit.sideGear) throw new Error('no packs');
    // [exact] from the thrust of Shigley's bevel gears, from memory
    const n = (pack.left.interfaces + pack.right.interfaces) / 2;
    const perNewton = (unit.plate.frictionCoefficient.value * n * plateRadius(unit.plate)) / 1000;
    const thrust = (inputNm: number): number =>
      2 * perNewton * sideGearThrust(bevelGear(unit.sideGear as never)) * inputNm;
    const springs = pack.left.slidingNm + pack.right.slidingNm;
    const lock = (inputNm: number): number => derived.axles.rear?.unit.lock('drive', inputNm).lockNm ?? 0;
    // dished plates at the case end: the clamp passes through them, so the larger counts
    for (const inputNm of [50, 500, 2000]) expect(lock(inputNm)).toBeCloseTo(Math.max(springs, thrust(inputNm)), 9);
  });

  it('late plates of a hybrid come in above their torque', () => {
    const unit = unitAs(openUnit(), 'hybrid');
    if (unit.helical) {
      unit.helical.biasRatio = entryOf(3, '');
      unit.helical.platesFrom = entryOf(600, 'N·m');
      unit.helical.platesHold = entryOf(20, '%');
    }
    const state = unitState(unit, null);
    // S of bias 3 is one half [exact, docs/unit.md]
    expect(state.lock('drive', 600).lockNm).toBeCloseTo(300, 9);
    expect(state.lock('drive', 1000).lockNm).toBeCloseTo(500 + 80, 9);
  });

  it('a locker is locked or open by its switch', () => {
    const unit = unitAs(openUnit(), 'selectable-locker');
    expect(unitState(unit, null).lock('drive', 300).solid).toBeTrue();
    expect(unitState({ ...unit, engaged: false }, null).lock('drive', 300).biasRatio).toBe(1);
  });

  it('wheel torques add up to what goes through, in every type (property)', () => {
    const packs = deriveBuild(build, ledger).axles.rear?.pack ?? null;
    const situation = fc.record({
      inputNm: fc.double({ min: 1, max: 4000, noNaN: true }),
      left: fc.record({
        loadN: fc.double({ min: 0, max: 8000, noNaN: true }),
        grip: fc.double({ min: 0, max: 1.5, noNaN: true }),
      }),
      right: fc.record({
        loadN: fc.double({ min: 0, max: 8000, noNaN: true }),
        grip: fc.double({ min: 0, max: 1.5, noNaN: true }),
      }),
      tyreRadiusMm: fc.constant(310),
      trackMm: fc.constant(1500),
    });
    fc.assert(
      fc.property(fc.constantFrom(...UNIT_TYPES), situation, (type, ground: CompareSituation) => {
        const holds = unitHolds(unitAs(build.axles.rear?.unit ?? openUnit(), type), packs);
        const { leftNm, rightNm, deliveredNm } = compareUnit(holds, ground);
        expect(Math.abs(leftNm + rightNm - deliveredNm)).toBeLessThan(1e-6);
        expect(deliveredNm).toBeLessThanOrEqual(ground.inputNm + 1e-6);
      }),
    );
  });

  it('a part that its type needs is asked for by name', () => {
    const answer = buildSchema.safeParse(withUnit((unit) => ({ ...unit, type: 'cone' })));
    expect(answer.error?.issues.map(({ path }) => path.join('.'))).toEqual([
      'axles.rear.unit.cone',
      'axles.rear.unit.sideGear',
    ]);
  });
});

describe('side gears and insert', () => {
  const find = (of: Build, entries: readonly LedgerEntry[], id: string) => {
    const finding = deriveBuild(of, entries).findings.find((one) => one.id === id);
    return finding && { verdict: finding.verdict, ...finding.say('metric') };
  };

  it('backlash against the sheet, with the shim that brings it to the middle', () => {
    const loose = reading({ what: 'side-gear-backlash', axle: 'rear', side: 'left' }, entryOf(0.3, 'mm'));
    const copy = withUnit((unit) => {
      if (unit.plate) unit.plate.sideGearBacklash = { low: entryOf(0.1, 'mm'), high: entryOf(0.2, 'mm') };
      return unit;
    });
    const found = find(copy, [loose], 'unit.backlash.rear.left');
    expect(found?.verdict).toBe('watch');
    // 0.15 mm too much over 2·tan 22.5°·sin 55° = 0.6786 [exact]: 0.22 mm of shim
    expect(found?.detail).toContain('Add 0.22');
  });

  it('an insert wants a close fit', () => {
    const fit = (mm: number) =>
      find(
        as('friction-insert'),
        [reading({ what: 'insert-fit', axle: 'rear' }, entryOf(mm, 'mm'))],
        'unit.insert.rear',
      );
    expect(find(as('friction-insert'), [], 'unit.insert.rear')?.verdict).toBe('not-yet');
    expect(fit(0.1)?.verdict).toBe('fits');
    expect(fit(0.05)?.detail).toContain('Too tight');
    expect(fit(0.2)?.detail).toContain('Too loose');
  });
});
