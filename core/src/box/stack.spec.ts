import { faceOverlap, growthMm, heatedFloat, type HeatedFloat } from './stack';
import { dogsMeet } from './dogs';
import { wearAgainst } from './life';

const HEATED: HeatedFloat = {
  shimMm: 1.85,
  measuredMm: 0.27,
  wantedMm: 0.16,
  lengthMm: 300,
  caseRiseK: 80,
  shaftRiseK: 80,
  caseExpansion: 21.5e-6,
  shaftExpansion: 11.7e-6,
  arrangement: 'X',
};

describe('box: faces and floats', () => {
  it('overlap of the narrower face, centred and at the worst of both floats [exact]', () => {
    const found = faceOverlap({
      first: { fromMm: 10, toMm: 28, floatMm: 0.1 },
      second: { fromMm: 11, toMm: 31, floatMm: 0.2 },
    });
    expect(found.overlapMm).toBeCloseTo(17, 12);
    expect(found.share).toBeCloseTo(17 / 18, 12);
    // 0.05 and 0.1 apart: 17 − 0.15
    expect(found.worstShare).toBeCloseTo(16.85 / 18, 12);
  });

  it('a narrow face well inside stays whole at the worst; faces beside each other have none', () => {
    const inside = faceOverlap({
      first: { fromMm: 12, toMm: 20, floatMm: 0.5 },
      second: { fromMm: 10, toMm: 24, floatMm: 0.5 },
    });
    expect([inside.share, inside.worstShare]).toEqual([1, 1]);
    const beside = faceOverlap({
      first: { fromMm: 0, toMm: 5, floatMm: 0 },
      second: { fromMm: 6, toMm: 9, floatMm: 1 },
    });
    expect([beside.overlapMm, beside.worstShare]).toEqual([0, 0]);
  });

  it('what heat makes of a float: held from outside more, back to back less, at one end the same [exact, handbook 14.2]', () => {
    expect(growthMm({ ...HEATED, caseExpansion: 23.1e-6 })).toBeCloseTo(0.274, 3);
    expect(growthMm(HEATED)).toBeCloseTo(0.235, 3);
    const hot = (arrangement: HeatedFloat['arrangement']) => heatedFloat({ ...HEATED, arrangement });
    expect(hot('X').shimMm).toBeCloseTo(1.96, 12);
    expect(hot('X').coldMm).toBe(0.16);
    expect(hot('X').hotMm).toBeCloseTo(0.16 + 0.2352, 9);
    expect(hot('O').hotMm).toBeCloseTo(0.16 - 0.2352, 9);
    expect(hot('one-end').hotMm).toBe(0.16);
  });

  it('refuses by the field', () => {
    for (const [field, change] of [
      ['caseExpansion', { caseExpansion: 0 }],
      ['lengthMm', { lengthMm: 0 }],
      ['wantedMm', { wantedMm: -0.1 }],
      ['measuredMm', { measuredMm: -0.1 }],
      ['shaftRiseK', { shaftRiseK: Number.NaN }],
      ['arrangement', { arrangement: 'Z' }],
    ] as [string, Partial<HeatedFloat>][])
      expect(() => heatedFloat({ ...HEATED, ...change })).toThrowMatching((error) => error.field === field);
    const face = { fromMm: 1, toMm: 2, floatMm: 0 };
    expect(() => faceOverlap({ first: { ...face, toMm: 1 }, second: face })).toThrowMatching(
      (error) => error.field === 'first.toMm',
    );
    expect(() => faceOverlap({ first: face, second: { ...face, floatMm: -1 } })).toThrowMatching(
      (error) => error.field === 'second.floatMm',
    );
  });
});

describe('box: dogs', () => {
  it('six of 22° and 22°: 0.733, 16° of play, 44° to turn [exact, handbook 14.3]', () => {
    const six = dogsMeet({ count: 6, widthsDeg: [22, 22] });
    expect(six.chanceFaceToFace).toBeCloseTo(0.7333, 4);
    expect([six.playDeg, six.turnAtMostDeg]).toEqual([16, 44]);
  });

  it('the chance is the share of angles at which faces lie on faces: counted', () => {
    for (const [count, a, b] of [
      [6, 22, 22],
      [5, 26, 14],
      [3, 40, 70],
      [8, 10, 12],
    ] as const) {
      const pitch = 360 / count;
      const steps = 36_000;
      let faces = 0;
      for (let i = 0; i < steps; i++) {
        // centre of the one against that of the nearest of the other
        const at = ((i + 0.5) / steps) * pitch;
        const apart = Math.min(at, pitch - at);
        if (apart < (a + b) / 2) faces++;
      }
      expect(dogsMeet({ count, widthsDeg: [a, b] }).chanceFaceToFace).toBeCloseTo(faces / steps, 3);
    }
  });

  it('dogs that fill the circle never go in; refuses what are none', () => {
    expect(dogsMeet({ count: 6, widthsDeg: [30, 31] })).toEqual({
      chanceFaceToFace: 1,
      playDeg: -1,
      turnAtMostDeg: 61,
    });
    for (const [field, of] of [
      ['count', { count: 0, widthsDeg: [1, 1] }],
      ['widthsDeg[1]', { count: 3, widthsDeg: [1, 0] }],
    ] as const)
      expect(() => dogsMeet(of)).toThrowMatching((error) => error.field === field);
  });
});

describe('box: wear by use', () => {
  it('twice the turns wear twice as fast; a tenth more torque by its power [exact, Palmgren and Miner]', () => {
    const spectrum = [{ turns: 12_000, torqueNm: 300 }];
    expect(
      wearAgainst({ spectrum, against: [{ turns: 24_000, torqueNm: 300 }], exponent: 6.6 }).damageRatio,
    ).toBeCloseTo(2, 12);
    const harder = wearAgainst({ spectrum, against: [{ turns: 12_000, torqueNm: 330 }], exponent: 6.6 });
    expect(harder.damageRatio).toBeCloseTo(1.1 ** 6.6, 9);
    expect(harder.equivalentTorqueNm).toBeCloseTo(330, 9);
  });

  it('the one torque that does the same does the same', () => {
    const against = [
      { turns: 5000, torqueNm: 410 },
      { turns: 40_000, torqueNm: 180 },
      { turns: 9000, torqueNm: 0 },
    ];
    const spectrum = [{ turns: 20_000, torqueNm: 250 }];
    const all = wearAgainst({ spectrum, against, exponent: 8.7 });
    const one = wearAgainst({
      spectrum,
      against: [{ turns: 54_000, torqueNm: all.equivalentTorqueNm }],
      exponent: 8.7,
    });
    expect(one.damageRatio).toBeCloseTo(all.damageRatio, 9);
  });

  it('refuses loads that do nothing, or next to nothing, and what is none', () => {
    const load = [{ turns: 10, torqueNm: 10 }];
    for (const [field, of] of [
      ['spectrum', { spectrum: [], against: load, exponent: 6 }],
      ['spectrum', { spectrum: [{ turns: 5, torqueNm: 0 }], against: load, exponent: 6 }],
      ['against', { spectrum: load, against: [{ turns: 0, torqueNm: 5 }], exponent: 6 }],
      ['spectrum', { spectrum: [{ turns: 1, torqueNm: 1e-9 }], against: [{ turns: 1, torqueNm: 1e6 }], exponent: 30 }],
      ['exponent', { spectrum: load, against: load, exponent: 0 }],
      ['against[0].torqueNm', { spectrum: load, against: [{ turns: 1, torqueNm: -1 }], exponent: 6 }],
    ] as const)
      expect(() => wearAgainst(of))
        .withContext(field)
        .toThrowMatching((error) => error.field === field);
  });
});
