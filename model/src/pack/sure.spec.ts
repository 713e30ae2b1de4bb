import { InputError, entryOf, packSure } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { driftBuild, reading, withPlate } from '../testing/builds';
import { INSTRUMENTS, surePackOf } from './sure';

const asked = (build = driftBuild().build, ledger = driftBuild().ledger, side: 'left' | 'right' = 'left') => {
  const packs = deriveBuild(build, ledger).axles.rear?.pack;
  const plate = build.axles.rear?.unit.plate;
  if (!packs || !plate) throw new Error('no packs');
  return { pack: surePackOf(plate, packs, side), packs, plate };
};

describe('what is asked of the uncertainty of a pack', () => {
  it('each piece lies as far off as its instrument, catalogue values further', () => {
    const { pack } = asked(undefined, undefined, 'right');
    const shim = pack.pieces.find(({ label }) => label.startsWith('8 shim'));
    expect(shim?.plusMinus).toBe(INSTRUMENTS.catalogue); // not measured in the demo
    expect(pack.pieces[0]?.plusMinus).toBe(INSTRUMENTS.micrometer);
  });

  it('a whole stack measured as one is one value', () => {
    const file = driftBuild();
    const build = file.build;
    const members = build.axles.rear?.unit.plate?.packs.left.members ?? [];
    const memberIds = members.filter(({ kind }) => kind !== 'spring').map(({ id }) => id);
    const subject = { what: 'stack-height', axle: 'rear', side: 'left', memberIds };
    const stood = { ...reading(subject, entryOf(16.2, 'mm')), instrument: 'Caliper' };
    const { pack } = asked(build, [...file.ledger, stood]);
    expect(pack.pieces).toEqual([
      { label: 'whole stack', value: 16.2, plusMinus: INSTRUMENTS.caliper, spread: 'uniform' },
    ]);
  });

  it('its nominal breakaway is the figure of the pack', () => {
    const { pack, packs } = asked();
    expect((packSure(pack, 100, 1)?.breakaway.nominal ?? 0) / packs.left.breakawayNm).toBeCloseTo(1, 4);
  });

  it('coils and dished springs in one pack are followed too', () => {
    const file = driftBuild();
    const plate = file.build.axles.rear?.unit.plate;
    plate?.packs.left.members.push({
      id: 'coils',
      kind: 'coils',
      label: 'coils',
      thickness: entryOf(20, 'mm'),
      count: 4,
      rate: entryOf(300, 'N/mm'),
      solidHeight: entryOf(12, 'mm'),
      shared: false,
      condition: null,
    });
    if (plate) plate.packs.left.caseDepth = entryOf(plate.packs.left.caseDepth.value * 25.4 + 19.5, 'mm');
    const { pack, packs } = asked(file.build, file.ledger);
    expect(packs.left.clampProblem).toBeNull();
    expect(pack.springs.length).toBe(2);
    expect((packSure(pack, 100, 1)?.breakaway.nominal ?? 0) / packs.left.breakawayNm).toBeCloseTo(1, 3);
  });

  it('refuses packs without springs to reckon with', () => {
    const build = withPlate(driftBuild().build, {
      preload: { from: 'measured-force', force: entryOf(900, 'N'), acts: 'series' },
    });
    expect(() => asked(build)).toThrowMatching((error) => error instanceof InputError && error.field === 'members');
  });
});
