import { accelerationOf, gauss, noSums, sumBetween, type Formula } from './quadrature';

const law = (still: number, perMps = 0, perV2 = 0, power = 0): Formula => ({ power, still, perMps, perV2 });
const sums = (of: Formula, from: number, to: number) => {
  const into = noSums();
  const apart = sumBetween(of, from, to, into);
  return { ...into, apart };
};
const near = (value: number, target: number, share: number, what = ''): void =>
  expect(Math.abs(value / target - 1))
    .withContext(`${what} ${value} against ${target}`)
    .toBeLessThan(share);

describe('road: sums over the speed', () => {
  it('the 15 points are exact for what they have to be: ∫vⁿ dv up to n = 22, the 7 points up to 13 [exact, degrees of QK15]', () => {
    for (let n = 0; n <= 22; n++) {
      // 1/a = vⁿ, asked point by point
      const into = noSums();
      sumBetween(
        (v, flow) => {
          flow.mps2 = v ** -n;
          flow.rollingN = 0;
        },
        0.5,
        2,
        into,
      );
      near(into.timeS, (2 ** (n + 1) - 0.5 ** (n + 1)) / (n + 1), 1e-13, `n ${n}`);
    }
    for (let n = 0; n <= 13; n++) {
      let sum = 0;
      gauss((node, weight) => (sum += weight * (node + 2) ** n));
      near(sum, (3 ** (n + 1) - 1) / (n + 1), 1e-13, `7 points, n ${n}`);
    }
  });

  it('constant force: t = Δv/a, x = Δv²/2a [exact]', () => {
    const { timeS, distanceM, cubed } = sums(law(4), 3, 21);
    near(timeS, 18 / 4, 1e-14);
    near(distanceM, (21 ** 2 - 3 ** 2) / 8, 1e-14);
    near(cubed, (21 ** 4 - 3 ** 4) / 16, 1e-14);
  });

  it('constant power: t = Δv²/2p, x = Δv³/3p, from standstill too [exact]', () => {
    for (const from of [0, 5]) {
      const { timeS, distanceM } = sums(law(0, 0, 0, 200), from, 60);
      near(timeS, (60 ** 2 - from ** 2) / 400, 1e-13);
      near(distanceM, (60 ** 3 - from ** 3) / 600, 1e-13);
    }
  });

  it('a quadratic: log or arctan by the discriminant, the double root apart [exact, closed forms]', () => {
    const cases: [Formula, (v: number) => number][] = [
      // 1/(4 − v²/900): two roots, ½·√(900/4)·ln((60 + v)/(60 − v))·…
      [law(4, 0, -1 / 900), (v) => 7.5 * Math.log((60 + v) / (60 - v))],
      // no root
      [law(4, 0, 1 / 900), (v) => 15 * Math.atan(v / 60)],
      // a double root beyond: 1/(c·(r − v)²)
      [law(6400 / 1600, -160 / 1600, 1 / 1600), (v) => 1600 / (80 - v)],
      // a straight line
      [law(5, -0.05), (v) => -20 * Math.log(5 - 0.05 * v)],
    ];
    for (const [of, closed] of cases) near(sums(of, 2, 30).timeS, closed(30) - closed(2), 1e-11, JSON.stringify(of));
  });

  it('says when it is not to be trusted: close to a speed where nothing accelerates the two rules are apart', () => {
    expect(sums(law(4, 0, -4 / 3600), 0, 20).apart).toBeLessThan(1e-6);
    expect(sums(law(4, 0, -4 / 3600), 0, 59.9999).apart).toBeGreaterThan(1e-2);
  });

  it('either way, and asked as by formula', () => {
    const of = law(-3, 0.02, -1e-3);
    const [down, up] = [sums(of, 30, 10), sums(of, 10, 30)];
    near(down.timeS, -up.timeS, 1e-14);
    const into = noSums();
    sumBetween(
      (v, flow) => {
        flow.mps2 = accelerationOf(of, v);
        flow.rollingN = 7;
      },
      30,
      10,
      into,
    );
    near(into.timeS, down.timeS, 1e-14);
    near(into.rollingJ, 7 * down.distanceM, 1e-13);
  });
});
