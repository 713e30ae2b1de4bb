import type { PacePoint } from '../road/pace';
import { courseLoads, flankStressRatio, wearOfSet, type SetOnCourse } from './wear';

const point = (timeS: number, speedMps: number, gear: number, rpm: number): PacePoint => ({
  distanceM: timeS,
  timeS,
  speedMps,
  gear,
  rpm,
});
const CURVE = [
  { rpm: 2000, torqueNm: 200 },
  { rpm: 6000, torqueNm: 300 },
];

describe('box: wear of a set against the one that is in', () => {
  it('turns at their torque where the car pulls: nothing of a shift, of braking, of a corner', () => {
    const loads = courseLoads(
      [
        point(0, 10, 0, 3000),
        point(2, 20, 0, 5000),
        point(2.1, 20, 1, 3000),
        point(3, 19, 1, 2900),
        point(5, 19, 1, 2900),
        point(6, 22, 1, 3300),
      ],
      CURVE,
      3,
    );
    // 2 s at 4000 rpm on average: 133.3 turns at 250 N·m; 1 s at 3100: 51.7 turns at 227.5 [exact]
    expect(loads[0]).toEqual([{ turns: 8000 / 60, torqueNm: 250 }]);
    expect(loads[1]?.length).toBe(1);
    expect(loads[1]?.[0]?.turns).toBeCloseTo(3100 / 60, 9);
    expect(loads[1]?.[0]?.torqueNm).toBeCloseTo(227.5, 9);
    expect(loads[2]).toEqual([]);
  });

  it('flanks on the same centres: from the force and the radii alone, the other way round it is the inverse', () => {
    const [a, b] = [
      { driver: 17, driven: 36 },
      { driver: 20, driven: 33 },
    ];
    // Hertz: σ² ∝ F ÷ ρ; F = T ÷ r₁, 1/ρ = (1/r₁ + 1/r₂) ÷ sin α, radii on centres of 1 [standard: Hertz]
    const hertz = ({ driver, driven }: typeof a): number => {
      const [r1, r2] = [driver / (driver + driven), driven / (driver + driven)];
      return Math.sqrt((1 / r1) * (1 / r1 + 1 / r2));
    };
    expect(flankStressRatio(a, b)).toBeCloseTo(hertz(a) / hertz(b), 12);
    expect(flankStressRatio(a, b) * flankStressRatio(b, a)).toBeCloseTo(1, 12);
    expect(flankStressRatio(a, a)).toBe(1);
  });

  it('the same set wears as fast as itself; twice the turns twice as fast; what is not known is null', () => {
    const set: SetOnCourse = {
      loads: [[{ turns: 100, torqueNm: 200 }], [{ turns: 50, torqueNm: 210 }], []],
      pairs: [{ driver: 17, driven: 36 }, null, { driver: 25, driven: 28 }],
    };
    expect(wearOfSet(set, set)).toEqual([1, null, null]);
    const twice = { ...set, loads: [[{ turns: 200, torqueNm: 200 }], [], []] };
    expect(wearOfSet(twice, set)[0]).toBeCloseTo(2, 12);
    const other = { ...set, pairs: [{ driver: 20, driven: 33 }, null, null] };
    const stress = flankStressRatio({ driver: 20, driven: 33 }, { driver: 17, driven: 36 });
    expect(wearOfSet(other, set)[0]).toBeCloseTo(stress ** 13.2, 9);
    expect(() => wearOfSet({ ...set, loads: [[]] }, set)).toThrowMatching((error) => error.field === 'loads');
  });
});
