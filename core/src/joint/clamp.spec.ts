import { InputError } from '../base/errors';
import { boltLoad } from './bolt';
import { boltClamp } from './clamp';
import { boltTorque } from './torque';

const refuses = (run: () => unknown, field: string): void => {
  expect(run)
    .withContext(field)
    .toThrowMatching((e) => e instanceof InputError && e.field === field && e.allowed !== '');
};
const BOLT = { thread: 'M10x1.25', grade: '10.9' } as const;
const LONG = { threadFriction: 0.08, headFriction: 0.08, headMeanDiameterMm: 13 } as const;

describe('clamp of a bolt by its torque', () => {
  // Handbook 8: 72 N·m on a bolt whose long-form torque for 75 % is 43.6 stands at 124 % of proof, not at 79 [VDI 2230; worked].
  it('where thread and head friction are known the long form decides: a stop that the short form calls a fit', () => {
    const long = boltClamp({ ...BOLT, torqueNm: 72, nutFactor: 0.18, ...LONG });
    expect(long.ofProof).toBeCloseTo(1.24, 2);
    expect(long.wantedNm).toBeCloseTo(43.6, 1);
    expect([long.by, long.verdict]).toEqual(['thread-and-head', 'stop']);
    const short = boltClamp({ ...BOLT, torqueNm: 72, nutFactor: 0.18 });
    expect(short.ofProof).toBeCloseTo(0.79, 2);
    expect(short.by).toBe('nut-factor');
    // The long form needs no nut factor.
    expect(boltClamp({ ...BOLT, torqueNm: 72, ...LONG })).toEqual(long);
  });

  it('turns joint.torque round: the torque for a clamp gives that clamp [exact]', () => {
    const preloadN = 41_000;
    const { torqueNm } = boltTorque({
      preloadN,
      pitchMm: 1.25,
      pitchDiameterMm: 10 - 0.6495 * 1.25,
      halfAngleDeg: 30,
      ...LONG,
    });
    expect(boltClamp({ ...BOLT, torqueNm, ...LONG }).clampN).toBeCloseTo(preloadN, 6);
    const { torqueNm: plain, preloadN: three } = boltLoad({ ...BOLT, nutFactor: 0.2 });
    expect(boltClamp({ ...BOLT, torqueNm: plain, nutFactor: 0.2 }).clampN).toBeCloseTo(three, 6);
  });

  it('scatter of friction is carried to both ends: on K, or on both μ together', () => {
    const three = boltLoad({ ...BOLT, nutFactor: 0.2 }).torqueNm;
    const at = boltClamp({ ...BOLT, torqueNm: three, nutFactor: 0.2 });
    expect([at.low.ofProof, at.ofProof, at.high.ofProof].map((one) => Number(one.toFixed(6)))).toEqual([0.6, 0.75, 1]);
    // 0.75/0.75 is just 1: no finding (handbook 8).
    expect(at.verdict).toBe('fits');
    expect(boltClamp({ ...BOLT, torqueNm: three * 1.01, nutFactor: 0.2 }).verdict).toBe('watch');
    expect(boltClamp({ ...BOLT, torqueNm: three / 0.74, nutFactor: 0.2 }).verdict).toBe('stop');
    const long = boltClamp({ ...BOLT, torqueNm: 50, ...LONG });
    const more = boltClamp({ ...BOLT, torqueNm: 50, ...LONG, threadFriction: 0.1, headFriction: 0.1 });
    expect(long.low.clampN).toBeCloseTo(more.clampN, 6);
    // Only friction scatters, not the stretch of the bolt: the ends lie nearer than by the nut factor.
    expect(long.high.clampN / long.clampN).toBeLessThan(1 / 0.75);
    expect(boltClamp({ ...BOLT, torqueNm: 50, ...LONG, scatter: 0 }).high).toEqual({
      clampN: long.clampN,
      ofProof: long.ofProof,
    });
  });

  it('refuses by name what is missing or wrong', () => {
    refuses(() => boltClamp({ ...BOLT, torqueNm: 72 }), 'nutFactor');
    refuses(() => boltClamp({ ...BOLT, torqueNm: 72, threadFriction: 0.1, headFriction: 0.1 }), 'headMeanDiameterMm');
    refuses(() => boltClamp({ ...BOLT, torqueNm: 0, nutFactor: 0.2 }), 'torqueNm');
    refuses(() => boltClamp({ ...BOLT, torqueNm: 10, nutFactor: Number.NaN }), 'nutFactor');
    refuses(() => boltClamp({ ...BOLT, torqueNm: 10, nutFactor: 0.2, threadFriction: -1 }), 'threadFriction');
    refuses(() => boltClamp({ ...BOLT, torqueNm: 10, nutFactor: 0.2, scatter: 1 }), 'scatter');
    refuses(() => boltClamp({ thread: 'M10x1.25', grade: '5', torqueNm: 10, nutFactor: 0.2 }), 'grade');
  });
});
