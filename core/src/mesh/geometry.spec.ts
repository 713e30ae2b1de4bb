import { InputError } from '../base/errors';
import { seededRandom } from '../base/random';
import { backlashRound, onceATurn } from './backlash';
import { adjusterNotches, carrierSides, carryOver, oneSidedMove } from './carrier';
import { CONSTRUCTIONS, CONSTRUCTION_SIGNS, DEPTH_SHIMS, DEPTH_SHIM_MOVES, depthSign } from './construction';
import { depthChain, depthFromBore, depthShim } from './depth';
import { meshSensitivity } from './sensitivity';

const refuses = (run: () => unknown, field: string): void => {
  expect(run).toThrowMatching((error) => error instanceof InputError && error.field === field);
};

describe('backlash per move', () => {
  it('reproduces the worked values [standard: Dudley, from memory; bevel approximation]', () => {
    const at = (pressureAngleDeg: number, ringTeeth: number, pinionTeeth: number) =>
      meshSensitivity({ ringTeeth, pinionTeeth, pressureAngleDeg });
    expect(at(20, 41, 11).backlashPerRingMm).toBeCloseTo(0.703, 3);
    expect(at(20, 41, 11).backlashPerPinionMm).toBeCloseTo(0.189, 3);
    expect(at(22.5, 43, 10).backlashPerRingMm).toBeCloseTo(0.807, 3);
    expect(at(22.5, 43, 10).backlashPerPinionMm).toBeCloseTo(0.188, 3);
  });

  it('the two cones share a right angle: squares add up to (2·tan φ)² [exact] (property)', () => {
    for (const [ring, pinion, angle] of [
      [37, 9, 17.5],
      [41, 11, 20],
      [30, 30, 22.5],
      [71, 10, 14.5],
    ] as const) {
      const { backlashPerRingMm: r, backlashPerPinionMm: p } = meshSensitivity({
        ringTeeth: ring,
        pinionTeeth: pinion,
        pressureAngleDeg: angle,
      });
      expect(Math.hypot(r, p)).toBeCloseTo(2 * Math.tan((angle * Math.PI) / 180), 12);
      expect(r / p).toBeCloseTo(ring / pinion, 12);
    }
  });

  it('refuses what is no gear set, by name', () => {
    const set = { ringTeeth: 41, pinionTeeth: 11, pressureAngleDeg: 20 };
    refuses(() => meshSensitivity({ ...set, ringTeeth: 11, pinionTeeth: 41 }), 'ringTeeth');
    refuses(() => meshSensitivity({ ...set, pinionTeeth: 0 }), 'pinionTeeth');
    refuses(() => meshSensitivity({ ...set, pressureAngleDeg: 0 }), 'pressureAngleDeg');
    refuses(() => meshSensitivity({ ...set, pressureAngleDeg: Number.NaN }), 'pressureAngleDeg');
  });
});

describe('pinion depth', () => {
  const marks = { oldShimMm: 1.1, oldMarkMm: 0.05, newMarkMm: -0.03 } as const;

  it('marks: wants to sit 0.08 nearer, so 0.08 more shim, or less in a drop-out [exact]', () => {
    expect(depthShim({ ...marks, addingShimMovesPinion: 'deeper' })).toBeCloseTo(1.18, 12);
    expect(depthShim({ ...marks, addingShimMovesPinion: 'shallower' })).toBeCloseTo(1.02, 12);
  });

  it('the pinion ends at its own mark in every construction, bearing height included [exact] (property)', () => {
    const random = seededRandom(12);
    for (const name of CONSTRUCTIONS) {
      const { addingShimMovesPinion, tallerBearingMovesPinion } = CONSTRUCTION_SIGNS[name];
      if (!addingShimMovesPinion) continue;
      for (const taller of tallerBearingMovesPinion ? [tallerBearingMovesPinion] : (['deeper', 'shallower'] as const))
        for (let i = 0; i < 50; i++) {
          const old = { mark: random() - 0.5, height: 20 + random(), shim: 2 + random() };
          const fresh = { mark: random() - 0.5, height: 20 + random() };
          /** Distance from the axis: shim and bearing push the head, each its own way. */
          const distance = (shim: number, height: number) =>
            100 - depthSign(addingShimMovesPinion) * shim - depthSign(taller) * height;
          const nominal = distance(old.shim, old.height) - old.mark;
          const shim = depthShim({
            oldShimMm: old.shim,
            oldMarkMm: old.mark,
            newMarkMm: fresh.mark,
            oldBearingHeightMm: old.height,
            newBearingHeightMm: fresh.height,
            addingShimMovesPinion,
            tallerBearingMovesPinion: taller,
          });
          expect(distance(shim, fresh.height))
            .withContext(name)
            .toBeCloseTo(nominal + fresh.mark, 9);
        }
    }
  });

  it('signs of all seven constructions (common practice)', () => {
    const of = CONSTRUCTIONS.map((name) => CONSTRUCTION_SIGNS[name].addingShimMovesPinion);
    // a box shaft has no direction of its own: it is asked (handbook 9.1)
    expect(of).toEqual(['deeper', 'deeper', 'deeper', 'shallower', 'deeper', null, null]);
    expect(DEPTH_SHIMS.map((place) => DEPTH_SHIM_MOVES[place])).toEqual(['deeper', 'deeper', 'shallower', null, null]);
    // a taller head bearing pushes the head deeper with a head shim and in a drop-out alike
    expect(CONSTRUCTION_SIGNS['drop-out'].tallerBearingMovesPinion).toBe('deeper');
    expect(CONSTRUCTION_SIGNS.transaxle.tallerBearingMovesPinion).toBeNull();
  });

  it('bore and cap: 3.0 in bore, cap 1.5 → 0, cap 1.0 → 0.5 in (common practice)', () => {
    const inch = 25.4;
    const reading = 80;
    const at = (capDepthMm: number) => depthFromBore({ boreDiameterMm: 3 * inch, capDepthMm, readingMm: reading });
    expect(at(1.5 * inch)).toBeCloseTo(reading, 12);
    expect(at(1 * inch)).toBeCloseTo(reading - 0.5 * inch, 12);
  });

  it('a chain of a transaxle: 1.40, with a gasket 1.60 (common practice)', () => {
    const links = [
      { name: 'housing', mm: 64.7, sign: 1 },
      { name: 'nominal', mm: 63.5, sign: -1 },
      { name: 'mark', mm: -0.2, sign: -1 },
    ] as const;
    expect(depthChain(links)).toBeCloseTo(1.4, 12);
    expect(depthChain([...links, { name: 'gasket', mm: 0.2, sign: 1 }])).toBeCloseTo(1.6, 12);
  });

  it('refuses by name', () => {
    const by = { ...marks, addingShimMovesPinion: 'deeper' } as const;
    refuses(() => depthShim({ ...by, oldShimMm: -1 }), 'oldShimMm');
    refuses(() => depthShim({ ...by, newMarkMm: 11 }), 'newMarkMm');
    refuses(() => depthShim({ ...by, oldBearingHeightMm: 20 }), 'newBearingHeightMm');
    refuses(() => depthShim({ ...by, newBearingHeightMm: 20 }), 'oldBearingHeightMm');
    refuses(() => depthShim({ ...by, oldShimMm: 0.05, newMarkMm: 0.2 }), 'oldShimMm'); // thinner than nothing
    refuses(() => depthFromBore({ boreDiameterMm: 76, capDepthMm: 90, readingMm: 80 }), 'capDepthMm');
    refuses(() => depthFromBore({ boreDiameterMm: 76, capDepthMm: 0, readingMm: 30 }), 'readingMm');
    refuses(() => depthChain([]), 'links');
    refuses(() => depthChain([{ name: 'a', mm: 1, sign: 2 as 1 }]), 'links[0].sign');
    refuses(() => depthChain([{ name: 'a', mm: Number.POSITIVE_INFINITY, sign: 1 }]), 'links[0].mm');
  });
});

describe('carrier', () => {
  const at = { leftMm: 6.4, rightMm: 6.1, ringSide: 'left', ringTowardsPinionMm: 0.25 } as const;

  it('the worked example: 6.65 and 5.85, and the other way round [exact]', () => {
    expect(carrierSides(at)).toEqual({ leftMm: 6.65, rightMm: 5.85 });
    const other = carrierSides({ ...at, ringSide: 'right' });
    expect(other.leftMm).toBeCloseTo(6.15, 12);
    expect(other.rightMm).toBeCloseTo(6.35, 12);
  });

  it('left + right stays unless preload was to change; a cover’s flange turns the signs (property)', () => {
    const random = seededRandom(3);
    for (let i = 0; i < 200; i++) {
      const move = {
        leftMm: 5 + random(),
        rightMm: 5 + random(),
        ringSide: random() < 0.5 ? 'left' : 'right',
        ringTowardsPinionMm: random() - 0.5,
        preloadChangeMm: i % 2 ? random() - 0.5 : 0,
      } as const;
      const { leftMm, rightMm } = carrierSides(move);
      expect(leftMm + rightMm - move.leftMm - move.rightMm).toBeCloseTo(move.preloadChangeMm, 12);
      const flange = carrierSides({ ...move, shimActs: 'under-flange' });
      expect(flange.leftMm - move.leftMm).toBeCloseTo(move.leftMm - leftMm, 12);
      expect(flange.rightMm - move.rightMm).toBeCloseTo(move.rightMm - rightMm, 12);
    }
  });

  it('one side only moves the ring half as far while both bearings are preloaded [exact, springs in series]', () => {
    expect(oneSidedMove(0.2, true)).toBeCloseTo(0.1, 12);
    expect(oneSidedMove(0.2, true, 0.6)).toBeCloseTo(0.12, 12);
    expect(oneSidedMove(0.2, false)).toBe(0.2);
  });

  it('another carrier: the flange stands where it stood, whatever the master shims [exact] (property)', () => {
    const random = seededRandom(91);
    const between = (from: number, to: number): number => from + (to - from) * random();
    for (let i = 0; i < 200; i++) {
      const shims = { leftMm: between(4, 8), rightMm: between(4, 8) };
      const old = { leftMm: between(40, 70), rightMm: between(40, 70), masterShimMm: between(0, 3) };
      const next = {
        leftMm: old.leftMm + between(-2, 2),
        rightMm: old.rightMm + between(-2, 2),
        masterShimMm: between(0, 3),
      };
      const got = carryOver(shims, old, next);
      for (const side of ['leftMm', 'rightMm'] as const)
        // Wall to flange: the shim and what the carrier is long, before and after.
        expect(got[side] + next[side] - next.masterShimMm).toBeCloseTo(shims[side] + old[side] - old.masterShimMm, 9);
    }
    const same = { leftMm: 60, rightMm: 70 };
    expect(carryOver({ leftMm: 6, rightMm: 5 }, same, same)).toEqual({ leftMm: 6, rightMm: 5 });
    refuses(() => carryOver({ leftMm: 1, rightMm: 5 }, same, { leftMm: 62, rightMm: 70 }), 'next.leftMm');
    refuses(() => carryOver({ leftMm: -1, rightMm: 5 }, same, same), 'shims.leftMm');
    refuses(() => carryOver({ leftMm: 1, rightMm: 5 }, { ...same, masterShimMm: -2 }, same), 'old.masterShimMm');
  });

  it('notches of an adjuster [exact]', () => {
    const of = { threadPitchMm: 1.5, notchesPerTurn: 24 };
    expect(adjusterNotches({ ...of, moveMm: 0.1875 })).toEqual({ notches: 3, moveMm: 0.1875, errorMm: 0 });
    expect(adjusterNotches({ ...of, moveMm: -0.08 }).notches).toBe(-1);
    expect(Object.is(adjusterNotches({ ...of, moveMm: -0.01 }).notches, 0)).toBeTrue();
    // Half a notch goes to the smaller move, either way alike, and what is left is said.
    for (const way of [1, -1]) {
      const half = adjusterNotches({ ...of, moveMm: way * 2.5 * 0.0625 });
      expect([half.notches + 0, half.errorMm]).toEqual([way * 2, -way * 0.03125]);
      expect(adjusterNotches({ ...of, moveMm: way * 0.5 * 0.0625 }).notches).toBe(0);
      expect(adjusterNotches({ ...of, moveMm: way * 0.51 * 0.0625 }).notches).toBe(way);
    }
  });

  it('refuses by name', () => {
    refuses(() => carrierSides({ ...at, leftMm: -1 }), 'leftMm');
    refuses(() => carrierSides({ ...at, ringTowardsPinionMm: 6.2 }), 'ringTowardsPinionMm');
    refuses(() => carrierSides({ ...at, preloadChangeMm: 50 }), 'preloadChangeMm');
    refuses(() => adjusterNotches({ threadPitchMm: 1.5, notchesPerTurn: 0, moveMm: 1 }), 'notchesPerTurn');
    refuses(() => adjusterNotches({ threadPitchMm: 0, notchesPerTurn: 24, moveMm: 1 }), 'threadPitchMm');
  });
});

describe('backlash round the ring', () => {
  const band = [0.15, 0.25] as const;
  const wave = (n: number, mean: number, amplitude: number, deg: number) =>
    Array.from({ length: n }, (_, i) => mean + amplitude * Math.cos((2 * Math.PI * i) / n - (deg * Math.PI) / 180));

  it('finds amplitude and direction of a wave, whatever the number of places [exact]', () => {
    for (const n of [3, 4, 5, 8, 12])
      for (const deg of [0, 37, 180, 301]) {
        const round = backlashRound(wave(n, 0.2, 0.02, deg), band);
        expect(round.runoutAmplitudeMm).toBeCloseTo(0.02, 12);
        expect(round.runoutAngleDeg).toBeCloseTo(deg, 8);
        expect(round.residualMm).toBeCloseTo(0, 12);
        expect(round.meanMm).toBeCloseTo(0.2, 12);
      }
  });

  it('no other wave fits better: the normal equations hold for any readings [exact: least squares] (property)', () => {
    const random = seededRandom(5);
    for (const n of [4, 7, 8, 12]) {
      const readings = Array.from({ length: n }, () => 0.1 + 0.2 * random());
      const { mean, amplitude, angleDeg } = onceATurn(readings);
      const left = readings.map(
        (value, i) => value - mean - amplitude * Math.cos((2 * Math.PI * i) / n - (angleDeg * Math.PI) / 180),
      );
      const along = (of: (at: number) => number) =>
        left.reduce((sum, one, i) => sum + one * of((2 * Math.PI * i) / n), 0);
      expect(along(Math.cos)).toBeCloseTo(0, 10);
      expect(along(Math.sin)).toBeCloseTo(0, 10);
      expect(along(() => 1)).toBeCloseTo(0, 10);
    }
  });

  it('every place counts for the band, not the mean', () => {
    expect(backlashRound(wave(8, 0.2, 0.03, 0), band).verdict).toBe('fits');
    expect(backlashRound(wave(8, 0.17, 0.03, 0), band).verdict).toBe('stop');
    expect(backlashRound(wave(8, 0.2, 0.045, 0), band).verdict).toBe('watch'); // in band, varies by 3.5 thou
    expect(backlashRound([0.2, 0.21, 0.2], band).verdict).toBe('watch'); // too few places
    expect(backlashRound([0.2], band)).toEqual(jasmine.objectContaining({ runoutAmplitudeMm: null, verdict: 'watch' }));
  });

  it('refuses by name', () => {
    refuses(() => backlashRound([], band), 'readingsMm');
    refuses(() => backlashRound(wave(200, 0.2, 0, 0), band), 'readingsMm');
    refuses(() => backlashRound([0.2, -0.1], band), 'readingsMm[1]');
    refuses(() => backlashRound([0.2], [0.25, 0.15]), 'specMm');
    refuses(() => backlashRound([0.2], [0.2, Number.NaN]), 'specMm[1]');
  });
});
