import { InputError } from '../errors';
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
    expect(jointAngle({ rpm: 4000, angleDeg: 3 }).verdict).toBe('fits');
    expect(jointAngle({ rpm: 6000, angleDeg: 3 }).verdict).toBe('watch');
    expect(jointAngle({ rpm: 8000, angleDeg: 5 }).verdict).toBe('stop');
    refuses(() => jointAngle({ rpm: 4000, angleDeg: 60 }), 'angleDeg');
  });
});
