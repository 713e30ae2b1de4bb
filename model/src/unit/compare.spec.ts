import { SITUATIONS, compareUnit, factsOf, type CompareUnit } from '@hot-spline/core';
import { USES, type Use } from '../base/names';
import { deriveBuild } from '../assembly/derive';
import { keptFiles, driftBuild } from '../testing/builds';
import { CRITERIA } from '../identity/schema';
import { comparedGround, comparedSettings, comparedUnits } from './compare';
import { CRITERION_WORDS, USE_WEIGHTS, rankUnits, speaks, type CriterionWeights, type UnitRank } from './rank';

/** About what the tyres of this axle hold. */
const SETTINGS = comparedSettings(2000, 1);
const GROUND = { axleLoadN: 7000, grip: 1, tyreRadiusMm: 310, trackMm: 1500, cgHeightMm: 500 };

const WHEEL = (GROUND.axleLoadN / 2) * GROUND.grip * 0.31;

/** Ranks of the ordinary units, by their labels. */
function ranks(use: Use, weighs?: CriterionWeights) {
  const units = comparedUnits(driftBuild().build, 'rear', null);
  const rows = units.map(({ unit }) => SITUATIONS.map((name) => compareUnit(unit, factsOf(name, GROUND, SETTINGS))));
  const all = rankUnits(use, units, rows, { inputNm: SETTINGS.inputNm, wheelNm: WHEEL }, weighs);
  return new Map(units.map(({ label }, i) => [label, all[i] as UnitRank]));
}
const score = (use: Use, label: string): number => ranks(use).get(label)?.score ?? Number.NaN;

describe('units ranked for a use', () => {
  it('every use weighs what is there, a hundred in all, and says how each is measured', () => {
    for (const use of USES) {
      const all = CRITERIA.reduce((sum, key) => sum + USE_WEIGHTS[use][key], 0);
      expect(all).withContext(use).toBe(100);
    }
    expect(Object.keys(CRITERION_WORDS).sort()).toEqual([...CRITERIA].sort());
  });

  it('a score is the weighted mean of the parts that are shown, each 0 to 100', () => {
    for (const use of USES)
      for (const [label, { score: of, parts }] of ranks(use)) {
        const mean = CRITERIA.reduce((sum, key) => sum + USE_WEIGHTS[use][key] * parts[key], 0) / 100;
        expect(of).withContext(`${use} ${label}`).toBeCloseTo(mean, 9);
        for (const key of CRITERIA) {
          expect(parts[key]).withContext(`${label} ${key}`).toBeGreaterThanOrEqual(0);
          expect(parts[key]).toBeLessThanOrEqual(100 + 1e-9);
        }
      }
  });

  it('what speaks for a unit lifts it above the mean of all, what is not weighed says nothing', () => {
    const none = Object.fromEntries(CRITERIA.map((key) => [key, 0])) as Record<(typeof CRITERIA)[number], number>;
    const of = (parts: Partial<CriterionWeights>): UnitRank => ({ score: 0, parts: { ...none, ...parts } });
    const two = [of({ price: 100, quiet: 0, tunable: 100 }), of({ price: 0, quiet: 100, tunable: 0 })];
    const weighs = { ...none, price: 10, quiet: 30 };
    // by hand: mean 50 each; price ±50·10/40 = 12.5 points, quiet ∓50·30/40 = 37.5; tunable is not weighed
    expect(speaks(two, weighs)).toEqual([
      { for: ['price'], against: ['quiet'] },
      { for: ['quiet'], against: ['price'] },
    ]);
    expect(speaks(two, none)).toEqual([
      { for: [], against: [] },
      { for: [], against: [] },
    ]);
    // a point is too little to be said: 50·1/101 < 1.5
    expect(speaks(two, { ...none, price: 1, quiet: 100 })[0]).toEqual({ for: [], against: ['quiet'] });
  });

  it('a moment that turns in is no push: only what pushes wide is held against a unit', () => {
    const units = comparedUnits(driftBuild().build, 'rear', null).slice(0, 2);
    const rows = units.map(({ unit }) => SITUATIONS.map((name) => compareUnit(unit, factsOf(name, GROUND, SETTINGS))));
    const exit = SITUATIONS.indexOf('corner-exit');
    const turned = (yawNm: number): number => {
      const moved = rows.map((row, i) => row.map((one, k) => (i === 0 && k === exit ? { ...one, yawNm } : one)));
      return (
        rankUnits('street', units, moved, { inputNm: SETTINGS.inputNm, wheelNm: WHEEL })[0]?.parts['power-steer'] ?? -1
      );
    };
    expect(turned(400)).toBe(100);
    expect(turned(0)).toBe(100);
    expect(turned(-400)).toBeLessThan(100);
  });

  it('agrees with what each type is for (common practice, docs/unit.md)', () => {
    // rock: lockers before anything that needs load on both wheels
    for (const label of ['Selectable locker, on', 'Automatic locker', 'Spool'])
      for (const other of ['Open', 'Helical', 'Cone', 'Friction insert'])
        expect(score('rock', label)).withContext(`${label} against ${other}`).toBeGreaterThan(score('rock', other));
    const first = (use: Use): string => [...ranks(use)].sort((a, b) => b[1].score - a[1].score)[0]?.[0] ?? '';
    expect(first('drag')).toBe('Spool');
    expect(score('drag', 'Spool')).toBeGreaterThan(score('drag', 'Open'));
    expect(score('raid', 'Helical with preload')).toBeGreaterThan(score('raid', 'Helical'));
    // street: fit and forget before cheap and mild; no difference of wheel speed at all comes last
    expect(score('street', 'Helical')).toBeGreaterThan(score('street', 'Open'));
    expect(first('street')).not.toBe('Open');
    expect(score('street', 'Helical')).toBeGreaterThan(score('street', 'Spool'));
  });

  it('ties only what really ties', () => {
    for (const use of USES) {
      const scores = [...ranks(use).values()].map(({ score: of }) => of.toFixed(4));
      expect(new Set(scores).size).withContext(use).toBe(scores.length);
    }
  });

  it('weights of the shop change the order, and none at all rank nothing', () => {
    const only = (key: (typeof CRITERIA)[number]): CriterionWeights =>
      Object.fromEntries(CRITERIA.map((one) => [one, one === key ? 7 : 0])) as Record<typeof key, number>;
    const cheap = [...ranks('rock', only('price'))].sort((a, b) => b[1].score - a[1].score);
    expect(cheap[0]?.[0]).toBe('Open');
    const none = Object.fromEntries(CRITERIA.map((one) => [one, 0])) as CriterionWeights;
    for (const { score: of } of ranks('rock', none).values()) expect(of).toBe(0);
  });

  it('in a drift transition no unit gives more than both tyres hold, and a locked one gives just that', () => {
    const at = factsOf('drift-transition', GROUND, { ...SETTINGS, inputNm: 5000 });
    const hold = (at.left.loadN * at.left.grip + at.right.loadN * at.right.grip) as number;
    const of = (unit: CompareUnit) => compareUnit(unit, at);
    expect(of({ type: 'spool' }).thrustN).toBeCloseTo(hold, 6); // friction of both tyres [exact]
    expect(of({ type: 'spool' }).slips).toBe('both');
    const open = of({ type: 'open' });
    expect(open.thrustN).toBeCloseTo(2 * at.left.loadN * at.left.grip, 6); // twice the light wheel [exact]
    expect(open.slips).toBe('left');
  });

  it('plates with ramps are offered to whoever has another unit, and once to whoever has them', () => {
    const { build } = driftBuild();
    const plates = () => comparedUnits(build, 'rear', null).filter(({ type }) => type === 'plate');
    expect(plates().map(({ own }) => own)).toEqual([true]);
    if (build.axles.rear) build.axles.rear.unit.type = 'helical';
    const [offered] = plates();
    expect(offered?.label).toBe('Plates with ramps');
    // as a build begins with them: they hold something with and without torque
    if (offered?.unit.type !== 'plate') throw new Error('no plates');
    expect(offered.unit.driveSlope).toBeGreaterThan(0.1);
    expect(offered.unit.preload.seriesNm).toBeGreaterThan(0);
  });

  it('works for every demo build, its own unit included', () => {
    for (const [file, { build, ledger }] of Object.entries(keptFiles())) {
      const derived = deriveBuild(build, ledger);
      for (const axle of ['rear', 'front'] as const) {
        const own = derived.gearing[axle];
        if (!own) continue;
        const units = comparedUnits(build, axle, derived.axles[axle]?.pack ?? null);
        const ground = comparedGround(build, axle, own);
        const settings = comparedSettings(Math.max(derived.inputNm, 1), 1);
        const rows = units.map(({ unit }) =>
          SITUATIONS.map((name) => compareUnit(unit, factsOf(name, ground, settings))),
        );
        const all = rankUnits(build.use, units, rows, { inputNm: settings.inputNm, wheelNm: 1000 });
        expect(all.length).withContext(file).toBe(units.length);
        expect(all.every(({ score: of }) => Number.isFinite(of))).toBeTrue();
        expect(units.filter(({ own: mine }) => mine).length).toBe(1);
      }
    }
  });
});
