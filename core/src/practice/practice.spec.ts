import { InputError } from '../base/errors';
import { CONSTRUCTIONS } from '../mesh/construction';
import { LESSONS, practiceAxle, practiceTorque } from './lessons';
import { byAdvice, inTruth, playAxle, ruleOfThumb } from './rule-of-thumb';
import { assemble } from './virtual-axle';

describe('the practice bench', () => {
  it('ten lessons, each its own, every construction that has a mesh among them', () => {
    expect(LESSONS.length).toBe(10);
    expect(new Set(LESSONS.map(({ id }) => id)).size).toBe(10);
    const taught = new Set(LESSONS.map(({ construction }) => construction));
    expect(CONSTRUCTIONS.filter((one) => one !== 'electric-reduction' && !taught.has(one))).toEqual([]);
    expect(() => practiceAxle('no-such', 1)).toThrowMatching((e) => e instanceof InputError && e.field === 'lesson');
  });

  it('every lesson can be set up: by the advisor in six assemblies at most', () => {
    for (const { id } of LESSONS) {
      const { inSpec, moves } = playAxle(practiceAxle(id, 0), byAdvice);
      expect(inSpec).withContext(id).toBeTrue();
      expect(moves.length).withContext(id).toBeLessThanOrEqual(6);
    }
  });

  it('teaches what it says: the far one begins far off, the misread one is misread, run-out is there', () => {
    expect(
      inTruth(practiceAxle('far-off', 0), { pinionShimMm: practiceAxle('far-off', 0).startShimMm, ringShiftMm: 0 }),
    ).toBeFalse();
    const off = practiceAxle('run-out-hides', 0);
    const round = assemble(off, off.startShimMm, 0).backlashMm;
    expect(Math.max(...round) - Math.min(...round)).toBeGreaterThan(0.05);
    expect(practiceAxle('caps-close-up', 0).closingMm).toBe(0.05);
    const drop = practiceAxle('wrong-sign', 0);
    expect(drop.construction).toBe('drop-out');
  });

  it('the rule of thumb moves the shim the way of the construction [common practice]', () => {
    const low = { u: 0, v: -0.5 };
    const tried = { pinionShimMm: 1, ringShiftMm: 0, backlashMm: [0.2], drive: low, coast: low };
    expect(ruleOfThumb(practiceAxle('first-axle', 0), [tried])?.pinionShimMm).toBeCloseTo(0.75, 9);
    expect(ruleOfThumb(practiceAxle('wrong-sign', 0), [tried])?.pinionShimMm).toBeCloseTo(1.25, 9);
    expect(ruleOfThumb(practiceAxle('first-axle', 0), [])).toBeNull();
  });

  it('a random axle by its seed is the same anywhere; a spacer stands, then rises; dry reads higher', () => {
    expect(practiceAxle(null, 77)).toEqual(practiceAxle(null, 77));
    const axle = practiceAxle('steep-spacer', 0);
    expect(practiceTorque(axle, 100, true)).toBe(axle.spacer.baseNm);
    expect(practiceTorque(axle, axle.spacer.kneeDeg + 10, true)).toBeCloseTo(
      axle.spacer.baseNm + 10 * axle.spacer.riseNmPerDeg,
      9,
    );
    // By the law that is expected: 5 to 95 % of spacers rise by 0.03 to 0.15 N·m a degree (handbook 11.1, estimates from memory).
    const rises = Array.from({ length: 400 }, (_, seed) => practiceAxle(null, seed).spacer.riseNmPerDeg).sort(
      (a, b) => a - b,
    );
    expect(Math.abs((rises[20] ?? 0) - 0.03)).toBeLessThan(0.015);
    expect(Math.abs((rises[200] ?? 0) - 0.08)).toBeLessThan(0.01);
    expect(Math.abs((rises[380] ?? 0) - 0.15)).toBeLessThan(0.02);
    // A box shaft has no collapsible spacer to crush.
    expect(LESSONS.filter(({ spacer, construction }) => spacer && construction === 'transaxle')).toEqual([]);
    expect(practiceTorque(axle, 0, false)).toBeGreaterThan(practiceTorque(axle, 0, true));
  });
});
