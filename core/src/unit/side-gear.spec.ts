import fc from 'fast-check';
import { InputError } from '../base/errors';
import { INSERT_FIT_MM, shimForBacklash, sideGearBacklashSlope } from './side-gear';

const gear = { meanRadiusMm: 30, pressureAngleDeg: 22.5, coneAngleDeg: 55 };

describe('side gears', () => {
  it('backlash per shim: 2·tan φ·sin Γ', () => {
    // [exact, geometry]: tan 22.5° = √2 − 1, sin 55° = 0.8191520443
    expect(sideGearBacklashSlope(gear)).toBeCloseTo(2 * (Math.SQRT2 - 1) * 0.8191520443, 9);
  });

  it('the shim for a wanted backlash brings it there (property)', () => {
    const mm = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(mm, mm, (now, wanted) => {
        const shim = shimForBacklash(gear, now, wanted);
        expect(now - shim * sideGearBacklashSlope(gear)).toBeCloseTo(wanted, 9);
      }),
    );
  });

  it('an insert fits within our guard, which holds what builders call a fit', () => {
    // 3 to 5 thou [trade: common practice, no published source]
    expect(INSERT_FIT_MM[0]).toBeLessThan(3 * 0.0254);
    expect(INSERT_FIT_MM[1]).toBeGreaterThan(5 * 0.0254);
  });

  it('bad input is refused by name', () => {
    expect(() => sideGearBacklashSlope({ ...gear, coneAngleDeg: 0 })).toThrowError(InputError, /coneAngleDeg/);
    expect(() => shimForBacklash(gear, -1, 0)).toThrowError(InputError, /backlashMm/);
    expect(() => shimForBacklash(gear, 0, Number.NaN)).toThrowError(InputError, /wantedMm/);
  });
});
