import { enginePower, engineTorque } from './engine-torque';

describe('road: engine torque', () => {
  const curve = [
    { rpm: 2000, torqueNm: 300 },
    { rpm: 4000, torqueNm: 400 },
  ];

  it('takes straight lines between points and stays level outside', () => {
    expect(engineTorque(curve, 3000)).toBe(350);
    expect(engineTorque(curve, 500)).toBe(300);
    expect(engineTorque(curve, 9000)).toBe(400);
  });

  it('refuses empty and descending curves by name', () => {
    expect(() => engineTorque([], 3000)).toThrowError(/torqueCurve/);
    expect(() => engineTorque([...curve].reverse(), 3000)).toThrowError(/ascending|follows/);
  });

  it('gives 5252 lbf·ft·rpm per horsepower', () => {
    // 1 hp = 745.69987 W, T[lbf·ft]·n/5252.113 [exact]
    expect(enginePower(100 * 1.3558179483, 5252.113) / 745.69987).toBeCloseTo(100, 4);
  });
});
