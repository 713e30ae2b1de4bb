import { InputError } from '../base/errors';
import { criticalSpeed } from './critical';
import { jointAngle } from './joint-angle';
import { spline } from './spline';
import { torsion } from './torsion';

const refuses = (run: () => unknown, field: string): void => {
  expect(run)
    .withContext(field)
    .toThrowMatching((e) => e instanceof InputError && e.field === field);
};

describe('splines', () => {
  it('of 24 pitch: 28, 31 and 35 teeth are 1.208, 1.333 and 1.500 in over the teeth [handbook 11.2]', () => {
    for (const [teeth, inches] of [
      [28, 1.208],
      [31, 1.333],
      [35, 1.5],
    ] as const)
      expect(spline({ teeth, diametralPitch: 24, shearLimitMPa: 690 }).majorMm / 25.4).toBeCloseTo(inches, 3);
  });

  it('carry torsion at the minor diameter: the stress there is the limit [exact]', () => {
    const { minorMm, torqueNm } = spline({ teeth: 31, diametralPitch: 24, shearLimitMPa: 690 });
    expect(minorMm).toBeCloseTo((29.65 / 24) * 25.4, 9);
    const { shearMPa, margin } = torsion({ diameterMm: minorMm, torqueNm, shearYieldMPa: 690 });
    expect(shearMPa).toBeCloseTo(690, 6);
    expect(margin).toBeCloseTo(1, 9);
    // with the cube of the diameter
    const larger = spline({ teeth: 35, diametralPitch: 24, shearLimitMPa: 690 });
    expect(larger.torqueNm / torqueNm).toBeCloseTo((33.65 / 29.65) ** 3, 9);
    refuses(() => spline({ teeth: 31.5, diametralPitch: 24, shearLimitMPa: 690 }), 'teeth');
    refuses(() => spline({ teeth: 31, diametralPitch: 0, shearLimitMPa: 690 }), 'diametralPitch');
  });
});

describe('torsion', () => {
  it('16·T/(π·d³) by hand: 3000 N·m on 33.9 mm is 392 MPa', () => {
    const { shearMPa, margin } = torsion({ diameterMm: 33.9, torqueNm: 3000, shearYieldMPa: 690 });
    expect(Math.abs(shearMPa - 392.2)).toBeLessThan(0.2);
    expect(margin).toBeCloseTo(690 / shearMPa, 9);
  });

  it('is the shear integrated over the section [exact]', () => {
    // T = ∫ τ·(r/R)·r·2πr dr over thin rings
    const [radius, most] = [15, 400];
    const rings = 20_000;
    let torque = 0;
    for (let i = 0; i < rings; i++) {
      const r = ((i + 0.5) / rings) * radius;
      torque += most * (r / radius) * r * 2 * Math.PI * r * (radius / rings);
    }
    expect(torsion({ diameterMm: 30, torqueNm: torque / 1000, shearYieldMPa: 500 }).shearMPa).toBeCloseTo(most, 3);
    expect(torsion({ diameterMm: 30, torqueNm: 0, shearYieldMPa: 500 })).toEqual({ shearMPa: 0, margin: null });
    refuses(() => torsion({ diameterMm: 0, torqueNm: 1, shearYieldMPa: 500 }), 'diameterMm');
  });
});

describe('hollow shafts and other splines', () => {
  // π·(d⁴ − b⁴)·τ/(16·d) [exact, torsion of a hollow round]
  it('a bore takes away what its fourth power holds', () => {
    const solid = torsion({ diameterMm: 40, torqueNm: 3000, shearYieldMPa: 600 });
    const hollow = torsion({ diameterMm: 40, torqueNm: 3000, shearYieldMPa: 600, boreMm: 20 });
    expect((hollow.margin ?? 0) / (solid.margin ?? 1)).toBeCloseTo(1 - 1 / 16, 12);
    expect(hollow.shearMPa).toBeCloseTo((16 * 3e6 * 40) / (Math.PI * (40 ** 4 - 20 ** 4)), 9);
    refuses(() => torsion({ diameterMm: 40, torqueNm: 1, shearYieldMPa: 600, boreMm: 40 }), 'boreMm');
  });

  // ANSI B92.1, from memory: 30° flat root (N + 1)/P and (N − 1.35)/P; 45° (N + 0.8)/P and (N − 1)/P.
  it('splines of 45° stand less high', () => {
    const of = { teeth: 30, diametralPitch: 24, shearLimitMPa: 600 };
    const [thirty, steep] = [spline(of), spline({ ...of, pressureAngleDeg: 45 })];
    expect(thirty.majorMm / 25.4).toBeCloseTo(31 / 24, 12);
    expect(steep.majorMm / 25.4).toBeCloseTo(30.8 / 24, 12);
    expect(steep.minorMm / 25.4).toBeCloseTo(29 / 24, 12);
    expect(steep.torqueNm).toBeGreaterThan(thirty.torqueNm);
    const hollow = spline({ ...of, pressureAngleDeg: 45, boreMm: steep.minorMm / 2 });
    expect(hollow.torqueNm / steep.torqueNm).toBeCloseTo(15 / 16, 12);
    refuses(() => spline({ ...of, pressureAngleDeg: 20 as 30 }), 'pressureAngleDeg');
    refuses(() => spline({ ...of, boreMm: 60 }), 'boreMm');
  });
});

describe('critical speed of a prop shaft', () => {
  const tube = { outerDiameterMm: 76.2, innerDiameterMm: 72.9, lengthMm: 1400, youngGPa: 206, densityKgM3: 7850 };

  it('is 4.752e6·√(D²+d²)/L² in inches for this steel [beam theory, handbook 11.2]', () => {
    const inches = (mm: number): number => mm / 25.4;
    const closed = (4.752e6 * Math.hypot(inches(76.2), inches(72.9))) / inches(1400) ** 2;
    const { criticalRpm, usableRpm } = criticalSpeed(tube);
    expect(Math.abs(criticalRpm / closed - 1)).toBeLessThan(2e-4);
    expect(usableRpm).toBeCloseTo(0.75 * criticalRpm, 9);
    // 30 Mpsi and 0.283 lb/in³ have 4.77e6
    const other = criticalSpeed({ ...tube, youngGPa: 206.843, densityKgM3: 7833.4 }).criticalRpm;
    expect(Math.abs(other / ((closed * 4.77) / 4.752) - 1)).toBeLessThan(1e-3);
  });

  it('goes with the inverse square of the length; a bar is a tube without a bore', () => {
    const whole = criticalSpeed(tube).criticalRpm;
    expect(criticalSpeed({ ...tube, lengthMm: 700 }).criticalRpm).toBeCloseTo(4 * whole, 6);
    expect(criticalSpeed({ ...tube, innerDiameterMm: 0 }).criticalRpm).toBeLessThan(whole);
    refuses(() => criticalSpeed({ ...tube, innerDiameterMm: 76.2 }), 'innerDiameterMm');
    refuses(() => criticalSpeed({ ...tube, lengthMm: 0 }), 'lengthMm');
  });

  it('its joints are watched by what they swing and by rpm × degrees [trade table, from memory]', () => {
    // 4000 rpm at 3°: (418.9 · 0.05236)² = 481; 12 000
    expect(jointAngle({ rpm: 4000, angleDeg: 3 }).swingRadS2).toBeCloseTo(481, 0);
    // About 400 rad/s² comfortable, 1000 the end (handbook 11.2).
    expect(jointAngle({ rpm: 4000, angleDeg: 3 }).verdict).toBe('watch');
    expect(jointAngle({ rpm: 3500, angleDeg: 3 }).verdict).toBe('fits');
    expect(jointAngle({ rpm: 6000, angleDeg: 3 }).verdict).toBe('stop');
    refuses(() => jointAngle({ rpm: 4000, angleDeg: 60 }), 'angleDeg');
  });

  it('two joints leave ω²·|θ₁² − θ₂²| in phase; out of it they add [std: kinematics of the universal joint]', () => {
    const square = (degrees: number): number => (((4000 * Math.PI) / 30) * ((degrees * Math.PI) / 180)) ** 2;
    const both = jointAngle({ rpm: 4000, angleDeg: 3, otherAngleDeg: 2 });
    expect(both.swingRadS2).toBeCloseTo(square(3) - square(2), 9);
    expect(jointAngle({ rpm: 4000, angleDeg: 2, otherAngleDeg: 3 }).swingRadS2).toBeCloseTo(both.swingRadS2, 9);
    expect(jointAngle({ rpm: 4000, angleDeg: 3, otherAngleDeg: 3 })).toEqual({
      swingRadS2: 0,
      rpmDegrees: 12_000,
      verdict: 'fits',
    });
    const added = jointAngle({ rpm: 4000, angleDeg: 3, otherAngleDeg: 2, inPhase: false });
    expect(added.swingRadS2).toBeCloseTo(square(3) + square(2), 9);
    // A large angle is watched for its joint, however equal the other one is.
    expect(jointAngle({ rpm: 4000, angleDeg: 5, otherAngleDeg: 5 }).verdict).toBe('watch');
    refuses(() => jointAngle({ rpm: 4000, angleDeg: 3, otherAngleDeg: -1 }), 'otherAngleDeg');
  });
});
