import { InputError } from '../base/errors';
import { FAMILIES, assemble, trueReadings, virtualAxle, type VirtualAxle } from '../practice/virtual-axle';
import { meshAdvise } from './advise';
import { PATTERN_BAND, type MeshJob, type MeshTry } from './job';
import { meshMap } from './map';
import { axlePrior, drawAxles, learnAxle, predictor, readingOf, type Value } from './axle-model';
import { normalFrom, seededRandom } from '../base/random';

const refuses = (run: () => unknown, field: string): void => {
  expect(run).toThrowMatching((error) => error instanceof InputError && error.field === field);
};
const round = (mm: number): number[] => Array.from({ length: 8 }, () => mm);
const centre = { u: 0, v: 0 };
const TRY = {
  pinionShimMm: 1,
  ringShiftMm: 0,
  backlashMm: round(0.2),
  drive: { u: 0.1, v: -0.5 },
  coast: { u: 0.2, v: -0.5 },
};
const JOB: MeshJob = {
  construction: 'integral-head-shim',
  ringTeeth: 41,
  pinionTeeth: 11,
  specBacklashMm: [0.15, 0.25],
  tries: [TRY],
};

describe('what is believed of an axle', () => {
  const prior = axlePrior({ ringTeeth: 41, pinionTeeth: 11, middleMm: 0.2 });

  it('with exact readings in three positions it knows every reading anywhere [exact: three points make a plane]', () => {
    const truth = [
      [0.3, -0.2, -0.7],
      [0.1, -1.2, -1.3],
      [-0.4, -2, -0.4],
      [0.2, 0.8, -1.5],
      [-0.3, -2.6, -0.5],
    ] as const;
    const at = (i: number, p: number, r: number): number => {
      const [here, deeper, closer] = truth[i] as (typeof truth)[number];
      return here + p * deeper + r * closer;
    };
    const values = [
      [0, 0],
      [0.3, 0],
      [0, 0.3],
    ].flatMap(([p = 0, r = 0]) =>
      truth.map((_, observed): Value => ({
        observed,
        value: at(observed, p, r),
        at: { deeperMm: p, closerMm: r },
        scatter: 1e-4,
      })),
    );
    const sure = { ...prior, wrong: { ...prior.wrong, share: 0 } };
    const { belief } = learnAxle(sure, values);
    truth.forEach((_, observed) => {
      const { mean, variance } = predictor(belief, observed)({ deeperMm: 0.2, closerMm: -0.1 });
      expect(mean).toBeCloseTo(at(observed, 0.2, -0.1), 2);
      expect(Math.sqrt(variance)).toBeLessThan(0.01);
    });
  });

  it('draws spread as it says', () => {
    const { belief } = learnAxle(
      prior,
      [0.25, 0.3, -0.5, 0.1, -0.4].map((value, observed): Value => {
        const scatter = prior.noise[observed] ?? 0;
        return { observed, value, at: { deeperMm: 0, closerMm: 0 }, scatter };
      }),
    );
    const place = { deeperMm: 0, closerMm: 0 };
    const draws = drawAxles(belief, 20_000, normalFrom(seededRandom(3))).map((axle) => readingOf(axle, 2, place));
    const mean = draws.reduce((a, b) => a + b, 0) / draws.length;
    const said = predictor(belief, 2)(place);
    const deviation = Math.sqrt(draws.reduce((sum, one) => sum + (one - mean) ** 2, 0) / draws.length);
    expect(deviation / Math.sqrt(said.variance)).toBeGreaterThan(0.9);
    expect(deviation / Math.sqrt(said.variance)).toBeLessThan(1.2); // products of unknowns widen it
    expect(mean).toBeCloseTo(said.mean, 1);
  });
});

describe('the chance that is said', () => {
  it('agrees with weighing axles drawn from the same first guesses by how well they fit [exact: importance sampling]', () => {
    const middleMm = 0.2;
    const prior = {
      ...axlePrior({ ringTeeth: 41, pinionTeeth: 11, middleMm }),
      wrong: { share: 0, scatter: [1, 1, 1, 1, 1] },
    };
    const advice = meshAdvise({ ...JOB, prior });
    const { next } = advice;
    if (!next) throw new Error('nothing to do');
    const read = [0.2, TRY.drive.u, TRY.drive.v, TRY.coast.u, TRY.coast.v];
    const half = [0.05, PATTERN_BAND.drive.u, PATTERN_BAND.drive.v, PATTERN_BAND.coast.u, PATTERN_BAND.coast.v];
    const to = [next.pinionShimMm - TRY.pinionShimMm, next.ringShiftMm] as const;
    const normal = normalFrom(seededRandom(2026));
    const of = ({ mean, deviation }: { mean: number; deviation: number }): number => mean + deviation * normal();
    let [weights, squares, inside] = [0, 0, 0];
    for (let draw = 0; draw < 400_000; draw++) {
      const deeper = prior.firstMm[0] * normal();
      const closer = prior.firstMm[1] * normal();
      let [misfit, all] = [0, true];
      for (let i = 0; i < 5; i++) {
        const [p, r] = prior.perMm[i] as (typeof prior.perMm)[number];
        const [own, perDepth, perRing] = [of(prior.right[i] ?? { mean: 0, deviation: 1 }), of(p), of(r)];
        const first = own - perDepth * deeper - perRing * closer;
        const then = own + perDepth * (to[0] - deeper) + perRing * (to[1] - closer);
        misfit += (((read[i] ?? 0) - first) / (prior.noise[i] ?? 1)) ** 2;
        all &&= Math.abs(then - (i === 0 ? middleMm : 0)) <= (half[i] ?? 0);
      }
      const weight = Math.exp(-misfit / 2);
      weights += weight;
      squares += weight * weight;
      if (all) inside += weight;
    }
    expect(weights ** 2 / squares).toBeGreaterThan(300); // as good as so many axles
    expect(Math.abs((advice.chanceInSpec ?? 0) - inside / weights)).toBeLessThan(0.07);
  });
});

describe('the next move', () => {
  it('low on both flanks: less depth, whatever the sign of the shim, and the backlash given back (common practice)', () => {
    const next = meshAdvise(JOB).next;
    expect(next?.pinionShimMm).toBeLessThan(1);
    expect(next?.ringShiftMm).toBeGreaterThan(0); // shallower gives backlash: ring towards the pinion
    const dropOut = meshAdvise({ ...JOB, construction: 'drop-out' }).next;
    expect(dropOut?.pinionShimMm).toBeGreaterThan(1);
    expect(dropOut?.ringShiftMm).toBe(next?.ringShiftMm as number);
    const told = meshAdvise({ ...JOB, addingShimMovesPinion: 'shallower' }).next;
    expect(told).toEqual(dropOut);
  });

  it('too much backlash with good patterns: the ring goes to the pinion, depth hardly moves', () => {
    const { next, expected, chanceInSpec } = meshAdvise({
      ...JOB,
      tries: [{ ...TRY, backlashMm: round(0.4), drive: centre, coast: centre }],
    });
    expect(next?.ringShiftMm).toBeGreaterThan(0.1);
    expect(Math.abs((next?.pinionShimMm ?? 9) - 1)).toBeLessThan(0.15);
    expect(expected?.backlashMm).toBeCloseTo(0.2, 1);
    expect(chanceInSpec).toBeGreaterThan(0.3);
    expect(chanceInSpec).toBeLessThan(1);
  });

  it('is done when every reading is in band, and only then', () => {
    const good = { ...TRY, drive: centre, coast: centre };
    expect(meshAdvise({ ...JOB, tries: [good] })).toEqual(
      jasmine.objectContaining({ done: true, next: null, out: [] }),
    );
    const place = [...round(0.2).slice(1), 0.26];
    expect(meshAdvise({ ...JOB, tries: [{ ...good, backlashMm: place }] }).out).toEqual(['backlash']);
    expect(meshAdvise({ ...JOB, tries: [{ ...good, coast: { u: 0, v: 0.28 } }] }).out).toEqual(['coast.v']);
    const before = {
      ...good,
      pinionShimMm: good.pinionShimMm - 0.1,
      drive: { u: 0.1, v: 0.3 },
      coast: { u: -0.1, v: 0.3 },
    };
    expect(meshAdvise({ ...JOB, tries: [before, good] }).done).toBeTrue();
  });

  it('is not done where the same place read otherwise before; read once more, it is', () => {
    const good = { ...TRY, drive: centre, coast: centre };
    const low = { ...TRY, drive: { u: 0.1, v: -0.5 }, coast: { u: 0.1, v: -0.5 } };
    const { done, out, next } = meshAdvise({ ...JOB, tries: [low, good] });
    expect({ done, out }).toEqual({ done: false, out: [] });
    expect(next).not.toBeNull();
    expect(meshAdvise({ ...JOB, tries: [low, good, good] }).done).toBeTrue();
  });

  it('a concave flank that carries is held to less', () => {
    const coast = { ...TRY, drive: centre, coast: { u: 0, v: 0.24 } };
    expect(meshAdvise({ ...JOB, tries: [coast] }).done).toBeTrue();
    expect(meshAdvise({ ...JOB, tries: [coast], loadedFlank: 'concave' }).out).toEqual(['coast.v']);
  });

  it('what closing up will take is aimed above, and its uncertainty costs chance', () => {
    const loose = { ...TRY, backlashMm: round(0.4), drive: centre, coast: centre };
    const plain = meshAdvise({ ...JOB, tries: [loose] });
    const closing = meshAdvise({ ...JOB, tries: [loose], closingUpMm: 0.05 });
    expect((closing.expected?.backlashMm ?? 0) - (plain.expected?.backlashMm ?? 0)).toBeGreaterThan(0.02);
    const unsure = meshAdvise({ ...JOB, tries: [loose], closingUpMm: 0.05, closingUpSigmaMm: 0.05 });
    expect(unsure.chanceInSpec ?? 1).toBeLessThan(closing.chanceInSpec ?? 0);
    // 0.28 as it stands ends at 0.23 when it has closed up
    expect(meshAdvise({ ...JOB, tries: [{ ...loose, backlashMm: round(0.28) }], closingUpMm: 0.05 }).done).toBeTrue();
  });

  it('names a reading that doesn’t fit the others', () => {
    const at = (p: number, r: number, drive = -2.4 * p - 0.5 * r - 0.5): MeshTry => ({
      pinionShimMm: 1 + p,
      ringShiftMm: r,
      backlashMm: round(0.3 - 0.22 * p - 0.7 * r),
      drive: { u: 0.1 - p - 1.4 * r, v: drive },
      coast: { u: 0.1 + p - 1.4 * r, v: -2.4 * p - 0.5 * r - 0.5 },
    });
    const { doubtful } = meshAdvise({ ...JOB, tries: [at(0, 0), at(-0.1, 0.1), at(-0.3, 0, 0.9 * -1), at(-0.1, 0)] });
    expect(doubtful[0]).toEqual(jasmine.objectContaining({ try: 2, reading: 'drive.v' }));
  });

  it('a try without a pattern teaches what was read, and is never done', () => {
    const half = meshAdvise({ ...JOB, tries: [{ ...TRY, coast: null }] });
    expect([half.done, half.needs]).toEqual([false, null]);
    expect(half.chanceInSpec ?? 1).toBeLessThan(meshAdvise(JOB).chanceInSpec ?? 0);
    // the number of the try is told right where values are missing before it
    const bad = { ...TRY, pinionShimMm: 1.2, backlashMm: round(0.9) };
    const { doubtful } = meshAdvise({
      ...JOB,
      tries: [{ ...TRY, coast: null }, TRY, bad, { ...TRY, pinionShimMm: 1.2 }],
    });
    expect(doubtful[0]).toEqual(jasmine.objectContaining({ try: 2, reading: 'backlash' }));
  });

  it('says when a reading is worth more than an assembly: never less chance than before, and only where it is much', () => {
    for (let seed = 0; seed < 30; seed++) {
      const axle = virtualAxle(7_000 + seed, FAMILIES.rough);
      const { readAgain, chanceInSpec, done } = meshAdvise({ ...axle, tries: [assemble(axle, axle.startShimMm, 0)] });
      if (!readAgain || done) continue;
      expect(readAgain.chanceInSpec).toBeGreaterThanOrEqual((chanceInSpec ?? 1) + 0.08 - 1e-9);
    }
  });

  it('moves only by what exists: the pieces of the stock, or whole steps', () => {
    const stock = [0.1, 0.2, 0.35, 0.4].map((thicknessMm) => ({ thicknessMm, count: 1 }));
    const { next } = meshAdvise({ ...JOB, stock });
    expect((next?.piecesMm ?? []).reduce((a, b) => a + b, 0)).toBeCloseTo(next?.pinionShimMm ?? 0, 9);
    for (const piece of next?.piecesMm ?? []) expect(stock.some(({ thicknessMm }) => thicknessMm === piece)).toBeTrue();
    const coarse = meshAdvise({ ...JOB, steps: { pinionMm: 0.1, ringMm: 0.0625 } }).next;
    const steps = [((coarse?.pinionShimMm ?? 0) - 1) / 0.1, (coarse?.ringShiftMm ?? 0) / 0.0625];
    for (const count of steps) expect(count).toBeCloseTo(Math.round(count), 6);
  });

  it('refuses by name', () => {
    const one = (change: Partial<MeshTry>): MeshJob => ({ ...JOB, tries: [{ ...TRY, ...change }] });
    refuses(() => meshAdvise({ ...JOB, tries: [] }), 'tries');
    refuses(() => meshAdvise(one({ backlashMm: round(-0.1) })), 'tries[0].backlashMm[0]');
    refuses(() => meshAdvise(one({ pinionShimMm: -1 })), 'tries[0].pinionShimMm');
    refuses(() => meshAdvise(one({ drive: { u: 3, v: 0 } })), 'tries[0].drive.u');
    refuses(() => meshAdvise({ ...JOB, specBacklashMm: [0.25, 0.15] }), 'specBacklashMm');
    refuses(() => meshAdvise({ ...JOB, steps: { pinionMm: 0, ringMm: 0.1 } }), 'steps.pinionMm');
    refuses(() => meshAdvise({ ...JOB, ringTeeth: 11, pinionTeeth: 41 }), 'ringTeeth');
    refuses(() => meshAdvise({ ...JOB, construction: 'transaxle' }), 'addingShimMovesPinion');
    refuses(() => meshAdvise({ ...JOB, depthShim: 'box-shaft' }), 'addingShimMovesPinion');
    refuses(() => meshAdvise({ ...JOB, stock: [] }), 'stock');
    refuses(() => meshAdvise({ ...JOB, closingUpSigmaMm: -1 }), 'closingUpSigmaMm');
    refuses(
      () => meshAdvise({ ...JOB, patternBand: { ...PATTERN_BAND, drive: { u: 0, v: 1 } } }),
      'patternBand.drive.u',
    );
  });
});

describe('the set-up map', () => {
  const middleOf = (of: readonly { pinionShimMm: number; ringShiftMm: number }[]) => ({
    pinionShimMm: of.reduce((sum, one) => sum + one.pinionShimMm, 0) / of.length,
    ringShiftMm: of.reduce((sum, one) => sum + one.ringShiftMm, 0) / of.length,
  });

  it('the window is where everything is expected in band: its middle is, just outside of each edge is not', () => {
    const tries = [
      TRY,
      { ...TRY, pinionShimMm: 0.8, backlashMm: round(0.24), drive: { u: 0.3, v: -0.05 }, coast: { u: 0, v: -0.02 } },
    ];
    const map = meshMap({ ...JOB, tries });
    expect(map.window.length).toBeGreaterThanOrEqual(3);
    const { belief } = learnAxle(
      axlePrior({ ringTeeth: 41, pinionTeeth: 11, middleMm: 0.2 }),
      tries.flatMap((one) =>
        [one.backlashMm[0], one.drive?.u, one.drive?.v, one.coast?.u, one.coast?.v].map(
          (value = 0, observed): Value => ({
            observed,
            value,
            at: { deeperMm: one.pinionShimMm - 1, closerMm: 0 },
            scatter: observed === 0 ? 0.011 : 0.115,
          }),
        ),
      ),
    );
    const inside = ({ pinionShimMm, ringShiftMm }: { pinionShimMm: number; ringShiftMm: number }): boolean =>
      [
        [0.15, 0.25],
        [-0.32, 0.32],
        [-0.22, 0.22],
        [-0.36, 0.36],
        [-0.27, 0.27],
      ].every(([low = 0, high = 0], i) => {
        const { mean } = predictor(belief, i)({ deeperMm: pinionShimMm - 1, closerMm: ringShiftMm });
        return mean >= low && mean <= high;
      });
    const middle = middleOf(map.window);
    expect(inside(middle)).toBeTrue();
    map.window.forEach((corner, i) => {
      const edge = middleOf([corner, map.window.at(i - 1) ?? corner]);
      const along = (share: number) => ({
        pinionShimMm: middle.pinionShimMm + share * (edge.pinionShimMm - middle.pinionShimMm),
        ringShiftMm: middle.ringShiftMm + share * (edge.ringShiftMm - middle.ringShiftMm),
      });
      expect(inside(along(0.98))).toBeTrue();
      expect(inside(along(1.02))).toBeFalse();
    });
  });

  it('every try is a point; in a drop-out the same readings ask for a shim the other way', () => {
    const map = meshMap(JOB);
    expect(map.tries).toEqual([{ pinionShimMm: 1, ringShiftMm: 0 }]);
    expect(map.target.pinionShimMm).toBeLessThan(1); // low on both flanks: shallower
    const other = meshMap({ ...JOB, construction: 'drop-out' });
    expect(other.target.pinionShimMm - 1).toBeCloseTo(1 - map.target.pinionShimMm, 9);
    expect(other.spread.majorMm).toBeCloseTo(map.spread.majorMm, 2);
  });

  it('is surer with every try; no window where run-out eats the band', () => {
    const sure = meshMap({ ...JOB, tries: [TRY, TRY, TRY, TRY] }).spread;
    expect(sure.minorMm * sure.majorMm).toBeLessThan(meshMap(JOB).spread.minorMm * meshMap(JOB).spread.majorMm);
    const wobbly = Array.from({ length: 8 }, (_, i) => 0.2 + 0.1 * Math.cos((Math.PI * i) / 4));
    expect(meshMap({ ...JOB, tries: [{ ...TRY, backlashMm: wobbly }] }).window).toEqual([]);
    refuses(() => meshMap({ ...JOB, tries: [] }), 'tries');
  });
});

describe('on virtual axles', () => {
  const jobOf = (axle: VirtualAxle, tries: readonly MeshTry[]): MeshJob => ({ ...axle, tries });
  const half = [PATTERN_BAND.drive.u, PATTERN_BAND.drive.v, PATTERN_BAND.coast.u, PATTERN_BAND.coast.v];
  const inSpec = (axle: VirtualAxle, move: { pinionShimMm: number; ringShiftMm: number }): boolean => {
    const [backlash = 0, ...patches] = trueReadings(axle, move.pinionShimMm, move.ringShiftMm);
    const [low, high] = axle.specBacklashMm;
    const { runoutMm } = axle.truth;
    return (
      backlash - runoutMm >= low &&
      backlash + runoutMm <= high &&
      patches.every((value, i) => Math.abs(value) <= (half[i] as number))
    );
  };
  /** How far off an axle is, in deviations that its bands allow. */
  const off = (axle: VirtualAxle, move: { pinionShimMm: number; ringShiftMm: number }): number => {
    const [low, high] = axle.specBacklashMm;
    const middle = (low + high) / 2;
    return trueReadings(axle, move.pinionShimMm, move.ringShiftMm).reduce(
      (sum, value, i) => sum + (i === 0 ? (2 * (value - middle)) / (high - low) : value / (half[i - 1] as number)) ** 2,
      0,
    );
  };

  for (const [name, family] of Object.entries(FAMILIES))
    it(`${name}: most are in spec in two assemblies, nearly all in four, and the first move lands nearer`, () => {
      const count = 60;
      const within = [0, 0, 0, 0, 0];
      let nearer = 0;
      let [said, had, moves] = [0, 0, 0];
      for (let seed = 0; seed < count; seed++) {
        const axle = virtualAxle(50_000 + seed, family);
        const tries: MeshTry[] = [];
        let at = { pinionShimMm: axle.startShimMm, ringShiftMm: 0 };
        for (let assembly = 0; assembly < 4; assembly++) {
          tries.push(assemble(axle, at.pinionShimMm, at.ringShiftMm, assembly));
          if (inSpec(axle, at)) {
            for (let k = assembly; k < 4; k++) within[k] = (within[k] ?? 0) + 1;
            break;
          }
          const { next, chanceInSpec } = meshAdvise(jobOf(axle, tries));
          if (!next) break;
          said += chanceInSpec ?? 0;
          had += inSpec(axle, next) ? 1 : 0;
          moves++;
          if (assembly === 0 && off(axle, next) < off(axle, at)) nearer++;
          at = next;
        }
      }
      // ours: well above what shims by hand reach; `npm run bench` has a thousand axles beside the rule of thumb
      expect(within[1]).toBeGreaterThan(0.45 * count);
      expect(within[3]).toBeGreaterThan(0.85 * count);
      expect(nearer).toBeGreaterThan(0.85 * (count - (within[0] ?? 0)));
      expect(Math.abs(said - had) / moves).toBeLessThan(0.2); // 60 axles: the bench looks at a thousand
    });

  it('the same seed is the same axle, the same assembly the same reading; another assembly scatters', () => {
    const axle = virtualAxle(9);
    expect(virtualAxle(9)).toEqual(axle);
    expect(assemble(axle, 1, 0.1)).toEqual(assemble(axle, 1, 0.1));
    expect(assemble(axle, 1, 0.1, 1)).not.toEqual(assemble(axle, 1, 0.1, 2));
    refuses(() => virtualAxle(-1), 'seed');
    refuses(() => assemble(axle, -1, 0), 'pinionShimMm');
    refuses(() => assemble(axle, 1, Number.NaN), 'ringShiftMm');
  });
});
