import { InputError } from '../base/errors';
import { idlerFit, judgeBox } from './judge';
import { assemblyOrder, restack, takingApart } from './restack';
import { boxRatio, layStack, type BoxPair, type BoxPiece, type BoxShaft, type StackedBox } from './stacked';
import { boxThrusts, loadedEnd } from './thrust';

// Every box here is made up. What is checked by hand is arithmetic of lengths; thrusts against vectors.

const piece = (id: string, kind: BoxPiece['kind'], widthMm: number, more: Partial<BoxPiece> = {}): BoxPiece => ({
  id,
  kind,
  widthMm,
  pair: null,
  loose: false,
  sleeveMm: null,
  dogMm: 0,
  ringMm: null,
  ...more,
});
const pair = (id: string, driver: number, driven: number, more: Partial<BoxPair> = {}): BoxPair => ({
  id,
  driver,
  driven,
  constant: false,
  idler: null,
  shiftSum: null,
  driverHand: null,
  drivenHand: null,
  fits: [],
  ...more,
});

/** Two gears and their hub: 10 + 16 + 20 + 16 + 10 = 72 on either shaft. */
const small = (): StackedBox => ({
  centreMm: 72,
  normalModuleMm: 3,
  helixDeg: 0,
  pressureAngleDeg: 20,
  overlapShare: 0.95,
  dogGapMm: 0.5,
  pairs: [pair('a', 17, 30, { shiftSum: 0.5 }), pair('b', 20, 28, { shiftSum: 0 })],
  shafts: {
    driving: {
      fromMm: 0,
      lengthMm: 71.9,
      closed: 'nut',
      before: null,
      floatMm: 0.1,
      pieces: [
        piece('b1', 'bearing', 10),
        piece('a-in', 'gear', 16, { pair: 'a' }),
        piece('s', 'spacer', 20),
        piece('b-in', 'gear', 16, { pair: 'b' }),
        piece('b2', 'bearing', 10),
      ],
    },
    driven: {
      fromMm: 0,
      lengthMm: 72.3,
      closed: 'clip',
      before: null,
      floatMm: 0.3,
      pieces: [
        piece('b3', 'bearing', 10),
        piece('a-out', 'gear', 15.8, { pair: 'a', loose: true, sleeveMm: 16, dogMm: 2 }),
        piece('h', 'hub', 20, { ringMm: 12 }),
        piece('b-out', 'gear', 15.8, { pair: 'b', loose: true, sleeveMm: 16, dogMm: 2 }),
        piece('b4', 'bearing', 10),
      ],
    },
  },
});
const changed = (change: (box: { -readonly [K in keyof StackedBox]: StackedBox[K] }) => void): StackedBox => {
  const box = { ...small() };
  change(box);
  return box;
};
const edit = (box: StackedBox, shaft: BoxShaft, id: string, more: Partial<BoxPiece>): StackedBox => ({
  ...box,
  shafts: {
    ...box.shafts,
    [shaft]: {
      ...box.shafts[shaft],
      pieces: box.shafts[shaft].pieces.map((one) => (one.id === id ? { ...one, ...more } : one)),
    },
  },
});

describe('a stacked box', () => {
  it('lies piece by piece from its shoulder; a gear in the middle of its sleeve', () => {
    const laid = layStack(small().shafts.driven);
    expect(laid.map(({ fromMm, toMm }) => [fromMm, toMm])).toEqual([
      [0, 10],
      [10, 26],
      [26, 46],
      [46, 62],
      [62, 72],
    ]);
    expect(laid[1]?.faceFromMm).toBeCloseTo(10.1, 12);
    expect(laid[1]?.faceToMm).toBeCloseTo(25.9, 12);
  });

  it('is judged at each place: centres, faces, hub, dogs, stack', () => {
    const { pairs, gaps, shafts } = judgeBox(small());
    // 17 + 30 on 72 needs 0.5375 [exact, handbook]; 0.5 given leaves play: 2·tan20°·(144/47)·0.0375 = 0.0837 mm
    expect(pairs[0]?.centres?.shiftSum).toBeCloseTo(0.5375, 4);
    expect(pairs[0]?.centres?.verdict).toBe('fits');
    // 20 + 28 are plain on 72.
    expect(pairs[1]?.centres?.playMm).toBeCloseTo(0, 9);
    for (const one of pairs) {
      expect(one.hub).toBe('h');
      expect(one.looseOn).toBe('driven');
      expect(one.planesApartMm).toBeCloseTo(0, 12);
      // Faces 16 and 15.8, both middles together: at the worst half of 0.4 aside; the wider one has 0.1 to spare.
      expect(one.overlap?.worstShare).toBeCloseTo((15.8 - 0.1) / 15.8, 12);
    }
    // From the hub’s middle 36: gear’s face at 25.9, dogs 2, half the ring 6: 2.1 each side.
    expect(gaps.map(({ pair: of, side, gapMm }) => [of, side, Number(gapMm.toFixed(9))])).toEqual([
      ['a', '-', 2.1],
      ['b', '+', 2.1],
    ]);
    expect(shafts.driving.spareMm).toBeCloseTo(-0.1, 12);
    expect(shafts.driven.spareMm).toBeCloseTo(0.3, 12);
    expect([shafts.driving.holds, shafts.driven.holds]).toEqual([true, true]);
  });

  it('says where it does not go together', () => {
    const stack = (length: number, shaft: BoxShaft) =>
      judgeBox(changed((box) => (box.shafts = { ...box.shafts, [shaft]: { ...box.shafts[shaft], lengthMm: length } })))
        .shafts[shaft].holds;
    expect(stack(72.1, 'driving')).toBeFalse(); // a nut that clamps nothing
    expect(stack(71.9, 'driven')).toBeFalse(); // a clip that does not go in
    const wide = judgeBox(edit(small(), 'driven', 'h', { ringMm: 16.5 }));
    expect(wide.gaps[0]?.gapMm).toBeCloseTo(-0.15, 12);
    expect(judgeBox(edit(small(), 'driven', 'a-out', { sleeveMm: 15.8 })).shafts.driven.tight).toEqual(['a-out']);
    // A spacer between keeps hub and gear apart; a washer does not.
    const between = (kind: 'spacer' | 'washer') => {
      const box = small();
      const pieces = [...box.shafts.driven.pieces];
      pieces.splice(2, 0, piece('x', kind, 1));
      return judgeBox({ ...box, shafts: { ...box.shafts, driven: { ...box.shafts.driven, lengthMm: 74, pieces } } });
    };
    expect(between('spacer').pairs[0]?.hub).toBeNull();
    expect(between('washer').pairs[0]?.hub).toBe('h');
    expect(between('washer').pairs[1]?.planesApartMm).toBeCloseTo(1, 12);
    expect(
      judgeBox(changed((box) => (box.pairs = [pair('a', 40, 45), box.pairs[1] as BoxPair]))).pairs[0]?.centres,
    ).toBeNull();
    expect(
      judgeBox(changed((box) => (box.pairs = [pair('a', 17, 30, { fits: [2] }), box.pairs[1] as BoxPair]))).pairs[0]
        ?.place,
    ).toBeFalse();
    const stays = edit(small(), 'driven', 'a-out', { loose: false });
    const [fixed] = judgeBox(stays).pairs;
    expect([fixed?.looseOn, fixed?.hub]).toEqual([null, null]);
    expect(judgeBox(edit(stays, 'driven', 'b-out', { loose: false })).shafts.driven.idle).toEqual(['h']);
    expect(judgeBox(changed((box) => (box.helixDeg = 20))).pairs[0]?.hands).toBe('not said');
    const hands = (drivenHand: 'left' | 'right') =>
      judgeBox(
        changed((box) => {
          box.helixDeg = 20;
          box.pairs = box.pairs.map((one) => ({ ...one, driverHand: 'right' as const, drivenHand }));
        }),
      ).pairs[0]?.hands;
    expect([hands('left'), hands('right')]).toEqual(['opposite', 'alike']);
  });

  it('refuses a box that is none, by its field', () => {
    const field = (box: StackedBox): string => {
      try {
        judgeBox(box);
      } catch (error) {
        if (error instanceof InputError) return error.field;
        throw error;
      }
      return 'taken';
    };
    expect(field(changed((box) => (box.centreMm = 0)))).toBe('centreMm');
    expect(field(changed((box) => (box.helixDeg = 90)))).toBe('helixDeg');
    expect(field(changed((box) => (box.pairs = [pair('a', 0, 30)])))).toBe('pairs[0].driver');
    expect(field(changed((box) => (box.pairs = Array.from({ length: 14 }, (_, i) => pair(`${i}`, 20, 20)))))).toBe(
      'pairs',
    );
    expect(field(changed((box) => (box.pairs = [pair('a', 17, 30), pair('a', 17, 30)])))).toBe('pairs[1].id');
    expect(field(edit(small(), 'driving', 's', { widthMm: -1 }))).toBe('shafts.driving.pieces[2].widthMm');
    expect(field(edit(small(), 'driving', 's', { id: 'h' }))).toBe('shafts.driven.pieces[2].id');
    expect(field(edit(small(), 'driving', 's', { pair: 'a' }))).toBe('shafts.driving.pieces[2].pair');
    expect(field(edit(small(), 'driving', 'a-in', { pair: 'z' }))).toBe('shafts.driving.pieces[1].pair');
    expect(
      field(changed((box) => (box.shafts = { ...box.shafts, driven: { ...box.shafts.driven, floatMm: -0.1 } }))),
    ).toBe('shafts.driven.floatMm');
    expect(
      field(
        changed((box) => (box.pairs = [pair('a', 17, 30, { constant: true }), pair('b', 20, 28, { constant: true })])),
      ),
    ).toBe('pairs[1].constant');
  });

  it('any box whose middles are put together meshes plane by plane: random ones, by an arithmetic of their own', () => {
    let seed = 7;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    for (let run = 0; run < 60; run++) {
      const count = 1 + Math.floor(random() * 5);
      const widths = Array.from({ length: count }, () => 10 + 10 * random());
      const gapsBetween = Array.from({ length: count }, () => 5 + 20 * random());
      const aside = (random() - 0.5) * 4;
      const stack = (shaft: BoxShaft): BoxPiece[] =>
        widths.flatMap((width, i) => [
          piece(`${shaft}s${i}`, 'spacer', (gapsBetween[i] as number) + (shaft === 'driven' && i === 0 ? aside : 0)),
          piece(`${shaft}g${i}`, 'gear', width, { pair: `p${i}`, loose: shaft === 'driven' }),
        ]);
      const box: StackedBox = {
        ...small(),
        pairs: widths.map((_, i) => pair(`p${i}`, 24, 24)),
        shafts: {
          driving: { ...small().shafts.driving, pieces: stack('driving') },
          driven: { ...small().shafts.driven, pieces: stack('driven') },
        },
      };
      const float = 0.4; // 0.1 and 0.3, whole
      for (const [i, one] of judgeBox(box).pairs.entries()) {
        const width = widths[i] as number;
        expect(one.planesApartMm).toBeCloseTo(aside, 9);
        expect(one.overlap?.overlapMm).toBeCloseTo(width - Math.abs(aside), 9);
        expect(one.overlap?.worstShare).toBeCloseTo((width - Math.abs(aside) - float / 2) / width, 9);
      }
    }
  });

  it('counts the constant pair into every gear', () => {
    // 25/20 on the input, 30/17 behind it: 2.2059 [exact]; direct is not a pair.
    const box = changed((one) => (one.pairs = [pair('c', 20, 25, { constant: true }), pair('a', 17, 30)]));
    expect(boxRatio(box, box.pairs[1] as BoxPair)).toBeCloseTo((25 / 20) * (30 / 17), 12);
    expect(boxRatio(box, box.pairs[0] as BoxPair)).toBeCloseTo(1.25, 12);
  });
});

describe('a stack that becomes another', () => {
  it('comes off down to the deepest piece that is another one, and goes on again in reverse', () => {
    const before = small();
    const after = changed((box) => (box.pairs = [box.pairs[0] as BoxPair, pair('b', 21, 27)]));
    const { off, on, shafts } = restack(before, after, []);
    expect(off.map(({ piece: { id } }) => id)).toEqual(['b2', 'b-in', 'b4', 'b-out']);
    expect(on.map(({ piece: { id } }) => id)).toEqual(['b-in', 'b2', 'b-out', 'b4']);
    expect(on.filter(({ other }) => other).map(({ piece: { id } }) => id)).toEqual(['b-in', 'b-out']);
    expect(shafts).toEqual([]);
    expect(restack(before, before, []).off).toEqual([]);
  });

  it('a gear that is cut on its shaft takes the shaft with it', () => {
    const after = changed((box) => (box.pairs = [pair('a', 18, 29), box.pairs[1] as BoxPair]));
    const { off, shafts } = restack(small(), after, ['a-in']);
    expect(shafts).toEqual(['driving']);
    expect(off.filter(({ shaft }) => shaft === 'driving').length).toBe(5);
    expect(off.filter(({ shaft }) => shaft === 'driven').map(({ piece: { id } }) => id)).toEqual([
      'b4',
      'b-out',
      'h',
      'a-out',
    ]);
  });

  it('taking apart is putting together reversed, and every part comes back', () => {
    const order = assemblyOrder(small(), ['a-in']);
    const apart = takingApart(order);
    const parts = (of: typeof order) => of.flatMap((one) => (one.act === 'piece' ? [one.piece.id] : []));
    expect(parts(apart)).toEqual(parts(order).toReversed());
    expect(new Set(parts(order)).size).toBe(9);
    expect(order.map(({ act }) => act).filter((act) => act !== 'piece')).toEqual([
      'run-out-before',
      'nut',
      'run-out-after',
      'lock',
      'run-out-before',
      'run-out-after',
      'into-case',
      'into-case',
    ]);
    // What locks the nut is the last thing that is done to its shaft.
    expect(apart[0]).toEqual({ act: 'into-case', shaft: 'driven' });
  });
});

/** The driven shaft stacked from both ends: 10 + 16 before a collar of 6, 20 + 16 + 10 behind it. */
const parted = (): StackedBox => {
  const box = small();
  const [b3, a, h, b, b4] = box.shafts.driven.pieces as [BoxPiece, BoxPiece, BoxPiece, BoxPiece, BoxPiece];
  return {
    ...box,
    shafts: {
      ...box.shafts,
      driven: {
        ...box.shafts.driven,
        fromMm: 26,
        lengthMm: 45.9,
        closed: 'nut',
        before: { lengthMm: 26.2, closed: 'clip' },
        pieces: [b3, a, piece('collar', 'collar', 6), h, b, b4],
      },
    },
  };
};

describe('a shaft with a collar', () => {
  it('is stacked from both ends: every piece from its own shoulder on, each side closed by itself', () => {
    const { driven } = judgeBox(parted()).shafts;
    expect(driven.laid.map(({ fromMm, toMm }) => [fromMm, toMm])).toEqual([
      [0, 10],
      [10, 26],
      [26, 32],
      [32, 52],
      [52, 68],
      [68, 78],
    ]);
    expect([driven.sumMm, driven.holds]).toEqual([46, true]);
    expect(driven.spareMm).toBeCloseTo(-0.1, 12);
    expect(driven.before?.sumMm).toBe(26);
    expect(driven.before?.spareMm).toBeCloseTo(0.2, 12);
    expect(driven.before?.holds).toBeTrue();
    const short = parted();
    const before = { lengthMm: 25.9, closed: 'clip' as const };
    const tight = { ...short, shafts: { ...short.shafts, driven: { ...short.shafts.driven, before } } };
    expect(judgeBox(tight).shafts.driven.before?.holds).toBeFalse();
  });

  it('comes apart on the side that is another one only; its collar changes with the shaft', () => {
    const after = edit(parted(), 'driven', 'a-out', { widthMm: 15.5 });
    const ids = (moves: ReturnType<typeof restack>['off']) =>
      moves.filter(({ shaft }) => shaft === 'driven').map(({ piece: { id } }) => id);
    const { off, on } = restack(parted(), after, []);
    expect([ids(off), ids(on)]).toEqual([
      ['b3', 'a-out'],
      ['a-out', 'b3'],
    ]);
    const other = restack(parted(), edit(parted(), 'driven', 'collar', { widthMm: 6.5 }), []);
    expect(other.shafts).toEqual(['driven']);
    expect(ids(other.off)).toEqual(['b3', 'a-out', 'b4', 'b-out', 'h']);
  });

  it('goes together side by side; its collar is no piece that is put on; apart it is the same reversed', () => {
    const order = assemblyOrder(parted(), ['a-in', 'collar']);
    const own = order
      .filter(({ shaft }) => shaft === 'driven')
      .map((one) => (one.act === 'piece' ? one.piece.id : 'before' in one ? `${one.act} ${one.before}` : one.act));
    expect(own).toEqual([
      'run-out-before',
      'a-out',
      'b3',
      'h',
      'b-out',
      'b4',
      'nut false',
      'run-out-after',
      'lock false',
      'into-case',
    ]);
    const parts = (of: typeof order) => of.flatMap((one) => (one.act === 'piece' ? [one.piece.id] : []));
    expect(parts(takingApart(order))).toEqual(parts(order).toReversed());
  });

  it('is refused without what closes it, and a closing without a collar is too', () => {
    const without = parted();
    const driven = { ...without.shafts.driven, before: null };
    expect(() => judgeBox({ ...without, shafts: { ...without.shafts, driven } })).toThrowError(InputError, /collar/);
    const box = small();
    const before = { lengthMm: 10, closed: 'nut' as const };
    expect(() =>
      judgeBox({ ...box, shafts: { ...box.shafts, driven: { ...box.shafts.driven, before } } }),
    ).toThrowError(InputError, /no collar/);
    const two = edit(parted(), 'driven', 'h', { kind: 'collar' });
    expect(() => judgeBox(two)).toThrowError(InputError, /2 collars/);
  });
});

describe('a reverse gear', () => {
  const box = { centreMm: 72, normalModuleMm: 3 };
  it('keeps its gears clear of each other, and its idler beside the line of both [plane geometry]', () => {
    // 14 and 24 teeth of module 3: pitch radii 21 and 36, tips 3 beyond each: 72 − 57 − 6 = 9 between them.
    const fit = idlerFit(box, { driver: 14, driven: 24 }, 18);
    expect(fit.verdict).toBe('fits');
    expect(fit.clearMm).toBeCloseTo(9, 12);
    // Triangle 72, 48 (21 + 27), 63 (36 + 27) by Heron’s formula: its height over 72.
    const s = (72 + 48 + 63) / 2;
    expect(fit.asideMm).toBeCloseTo((2 * Math.sqrt(s * (s - 72) * (s - 48) * (s - 63))) / 72, 9);
    expect(idlerFit(box, { driver: 20, driven: 26 }, 18).verdict).toBe('gears meet');
    // 12 and 12: 18 each; an idler of 12 reaches 36 from either, the two circles only touch on the line: 72.
    expect(idlerFit(box, { driver: 12, driven: 12 }, 12).verdict).toBe('does not reach');
    expect(idlerFit(box, { driver: 12, driven: 12 }, 13).verdict).toBe('fits');
  });

  it('is no gear of any speed: its centres, hands and place are not asked, a sliding idler needs no hub', () => {
    const reversed = changed((one) => {
      one.helixDeg = 20;
      one.pairs = [...one.pairs, pair('r', 14, 24, { idler: 18, fits: [3] })];
      one.shafts = {
        driving: {
          ...one.shafts.driving,
          pieces: [...one.shafts.driving.pieces, piece('r-in', 'gear', 12, { pair: 'r' })],
        },
        driven: {
          ...one.shafts.driven,
          pieces: [...one.shafts.driven.pieces, piece('r-out', 'gear', 12, { pair: 'r' })],
        },
      };
    });
    const r = judgeBox(reversed).pairs[2];
    expect([r?.centres, r?.hands, r?.place, r?.slides]).toEqual([null, 'straight', true, true]);
    expect(boxRatio(reversed, reversed.pairs[2] as BoxPair)).toBeCloseTo(24 / 14, 12);
    expect(boxThrusts({ ...reversed, helixDeg: 0 }, 300, 0.2).map(({ pair: id }) => id)).toEqual(['a', 'b']);
    const constant = changed((one) => (one.pairs = [pair('c', 20, 25, { constant: true, idler: 18 }), ...one.pairs]));
    expect(() => judgeBox(constant)).toThrowError(InputError, /no idler/);
  });
});

describe('thrust of the gears', () => {
  const helical = (more: Partial<StackedBox> = {}): StackedBox => ({
    ...small(),
    helixDeg: 20,
    pairs: [
      pair('a', 17, 30, { driverHand: 'right', drivenHand: 'left' }),
      pair('b', 20, 28, { driverHand: 'left', drivenHand: 'right' }),
    ],
    ...more,
  });

  it('under power and overrun, for every gear; the same by vectors', () => {
    const thrusts = boxThrusts(helical(), 300, 0.2);
    for (const { pair: id, drive, overrun } of thrusts) {
      const of = helical().pairs.find((one) => one.id === id) as BoxPair;
      // The force on the driver’s flank stands square to the helix of its tooth: tangential against the turning, axial by the hand.
      const helix = (20 * Math.PI) / 180;
      const radius = (3 * of.driver) / Math.cos(helix) / 2000;
      const normal = 300 / radius / Math.cos(helix); // in the plane of contact
      const axial = normal * Math.sin(helix) * (of.driverHand === 'right' ? 1 : -1);
      expect(drive.driving).toBeCloseTo(axial, 6);
      expect(drive.driven).toBeCloseTo(-axial, 6);
      expect(overrun.driving).toBeCloseTo(-0.2 * axial, 6);
    }
    expect(boxThrusts({ ...small() }, 300, 0.2).every(({ drive }) => drive.driving === 0)).toBeTrue();
  });

  it('a layshaft bears both of its gears: of one hand they oppose, and cancel at the balancing helix', () => {
    const box = helical({
      // The input’s gear left-hand: the layshaft’s own right-hand, like the gear that it drives.
      pairs: [
        pair('c', 20, 28, { constant: true, driverHand: 'left', drivenHand: 'right' }),
        pair('a', 17, 30, { driverHand: 'right', drivenHand: 'left' }),
      ],
    });
    const [one] = boxThrusts(box, 300, 0);
    const beta = (20 * Math.PI) / 180;
    const force = (torque: number, teeth: number): number =>
      ((2000 * torque) / ((3 * teeth) / Math.cos(beta))) * Math.tan(beta);
    // A left-hand driver is pulled towards who sees it turn clockwise: the input −, the layshaft +; it turns the other way, its
    // right-hand driver is pulled back: −.
    expect(one?.inputN).toBeCloseTo(-force(300, 20), 6);
    expect(one?.drive.driving).toBeCloseTo(force(300, 20) - force(300 * 1.4, 17), 6);
    const deg = one?.balancingDeg ?? Number.NaN;
    // Equal leads: tan β₁/d₁ = tan β₂/d₂ [exact].
    const lead = (teeth: number, angle: number): number => Math.tan(angle) / ((3 * teeth) / Math.cos(angle));
    expect(lead(17, (deg * Math.PI) / 180)).toBeCloseTo(lead(28, beta), 12);
  });

  it('which bearing takes it follows from how the shaft is held', () => {
    expect(loadedEnd(100, 'X', 'engine')).toBe('far');
    expect(loadedEnd(-100, 'X', 'engine')).toBe('engine');
    expect(loadedEnd(100, 'O', 'engine')).toBe('engine');
    expect(loadedEnd(100, 'one-end', 'engine')).toBe('engine');
    expect(loadedEnd(0, 'X', 'engine')).toBeNull();
  });
});
