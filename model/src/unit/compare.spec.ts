import { SITUATIONS, compareUnit, situationOf, type CompareUnit } from '@hot-spline/core';
import { USES, type Use } from '../document/names';
import { deriveBuild } from '../derive';
import { demoFiles, driftBuild } from '../testing/builds';
import { USE_WEIGHTS, comparedGround, comparedSettings, comparedUnits, rankUnits } from './compare';

/** Gentle enough that not every unit spins both wheels. */
const SETTINGS = { ...comparedSettings(600), splitShare: 0.25 };
const GROUND = { axleLoadN: 7000, grip: 1, tyreRadiusMm: 310, trackMm: 1500, cgHeightMm: 500 };

/** Ranks of the ordinary units, by their labels. */
function ranks(use: Use) {
  const units = comparedUnits(driftBuild().build, 'rear', null);
  const rows = units.map(({ unit }) =>
    SITUATIONS.map((name) => compareUnit(unit, situationOf(name, GROUND, SETTINGS))),
  );
  const all = rankUnits(use, rows);
  return new Map(units.map(({ label }, i) => [label, all[i] as (typeof all)[number]]));
}
const score = (use: Use, label: string): number => ranks(use).get(label)?.score ?? Number.NaN;

describe('units ranked for a use', () => {
  it('every use weighs situations that are there, to one in all', () => {
    for (const use of USES) {
      const { thrust, push } = USE_WEIGHTS[use];
      expect(Object.values(thrust).reduce((a, b) => a + b, 0))
        .withContext(use)
        .toBeCloseTo(1, 12);
      expect(Object.keys(thrust).every((name) => SITUATIONS.some((one) => one === name))).toBeTrue();
      expect(push).toBeGreaterThanOrEqual(0);
    }
  });

  it('scores lie between 0 and 100, and the best of a use without push has 100 where it gives the most everywhere', () => {
    for (const use of USES)
      for (const [label, { score: of }] of ranks(use)) {
        expect(of).withContext(`${use} ${label}`).toBeGreaterThanOrEqual(0);
        expect(of).toBeLessThanOrEqual(100 + 1e-9);
      }
    expect(score('drag', 'Spool')).toBeCloseTo(100, 9);
  });

  it('agrees with what each type is for (common practice, docs/unit.md)', () => {
    // rock: lockers before anything that needs load on both wheels
    for (const label of ['Selectable locker, on', 'Automatic locker', 'Spool'])
      for (const other of ['Open', 'Helical', 'Cone', 'Friction insert'])
        expect(score('rock', label)).withContext(`${label} against ${other}`).toBeGreaterThan(score('rock', other));
    expect(score('drag', 'Spool')).toBeGreaterThan(score('drag', 'Open'));
    expect(score('raid', 'Helical with preload')).toBeGreaterThan(score('raid', 'Helical'));
    // street: no difference of wheel speed at all pushes wide, and that counts there
    expect(score('street', 'Helical')).toBeGreaterThan(score('street', 'Spool'));
  });

  it('names what it is strong and weak in, of what counts', () => {
    const helical = ranks('rock').get('Helical');
    expect(helical?.weak).toContain('wheel-in-air'); // gets nothing there without preload
    expect(ranks('rock').get('Spool')?.strong).toEqual(jasmine.arrayContaining(['wheel-in-air', 'crossed-axle']));
    expect(ranks('drag').get('Spool')?.strong).toEqual(['split-grip']);
  });

  it('in a drift transition no unit gives more than both tyres hold, and a locked one gives just that', () => {
    const at = situationOf('drift-transition', GROUND, { ...SETTINGS, inputNm: 5000 });
    const hold = (at.left.loadN * at.left.grip + at.right.loadN * at.right.grip) as number;
    const of = (unit: CompareUnit) => compareUnit(unit, at);
    expect(of({ type: 'spool' }).thrustN).toBeCloseTo(hold, 6); // friction of both tyres [exact]
    expect(of({ type: 'spool' }).slips).toBe('both');
    const open = of({ type: 'open' });
    expect(open.thrustN).toBeCloseTo(2 * at.left.loadN * at.left.grip, 6); // twice the light wheel [exact]
    expect(open.slips).toBe('left');
  });

  it('works for every demo build, its own unit included', () => {
    for (const [file, { build, ledger }] of Object.entries(demoFiles())) {
      const derived = deriveBuild(build, ledger);
      for (const axle of ['rear', 'front'] as const) {
        const own = derived.gearing[axle];
        if (!own) continue;
        const units = comparedUnits(build, axle, derived.axles[axle]?.pack ?? null);
        const ground = comparedGround(build, axle, own);
        const settings = comparedSettings(Math.max(derived.inputNm, 1));
        const rows = units.map(({ unit }) =>
          SITUATIONS.map((name) => compareUnit(unit, situationOf(name, ground, settings))),
        );
        const all = rankUnits(build.use, rows);
        expect(all.length).withContext(file).toBe(units.length);
        expect(all.every(({ score: of }) => Number.isFinite(of))).toBeTrue();
        expect(units.filter(({ own: mine }) => mine).length).toBe(1);
      }
    }
  });
});
