import fc from 'fast-check';
import { InputError } from '../base/errors';
import { bearingOrders, orderFrequency } from './noise';

describe('gearing: what is heard', () => {
  it('the mesh whines at pinion teeth × rpm ÷ 60', () => {
    expect(orderFrequency(11, 3000)).toBe(550); // [exact]
  });

  it('bearing orders of a hand-worked case', () => {
    // z 17, d/D 0.2, α 0: q 0.2 → cage 0.4, outer 6.8, inner 10.2; a roller spins 0.96/0.4 = 2.4, its defect strikes both races: 4.8 [std: rolling-bearing kinematics]
    const orders = bearingOrders({ rollers: 17, diameterRatio: 0.2, contactAngleDeg: 0 });
    expect(orders.cage).toBeCloseTo(0.4, 12);
    expect(orders.outerRace).toBeCloseTo(6.8, 12);
    expect(orders.innerRace).toBeCloseTo(10.2, 12);
    expect(orders.roller).toBeCloseTo(4.8, 12);
  });

  it('both races together meet every roller once a turn (property)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 60 }),
        fc.double({ min: 0.05, max: 0.6, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        (rollers, diameterRatio, contactAngleDeg) => {
          const { outerRace, innerRace, cage } = bearingOrders({ rollers, diameterRatio, contactAngleDeg });
          expect(outerRace + innerRace).toBeCloseTo(rollers, 9); // [exact]
          expect(outerRace).toBeCloseTo(rollers * cage, 9);
        },
      ),
    );
  });

  it('refuses by name', () => {
    expect(() => bearingOrders({ rollers: 2.5, diameterRatio: 0.2, contactAngleDeg: 0 })).toThrowError(InputError);
    expect(() => orderFrequency(-1, 100)).toThrowMatching((e) => e.field === 'order');
  });
});
