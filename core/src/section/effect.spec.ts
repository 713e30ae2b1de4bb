import { CONSTRUCTION_SIGNS } from '../mesh/construction';
import { shimEffect, type ShimAxle, type ShimTouch } from './effect';

const axle: ShimAxle = {
  ringTeeth: 41,
  pinionTeeth: 11,
  ringSide: 'left',
  shimMoves: 'deeper',
  bearingMoves: 'deeper',
  sideShims: 'behind-cup',
};
const of = (touch: ShimTouch, change: Partial<ShimAxle> = {}) => shimEffect(touch, { ...axle, ...change });

// Ring 0.703 and pinion 0.189 a unit at φ 20°, i 41/11 [std: Dudley, from memory].
const RING = 0.703;
const PINION = 0.189;

describe('what a shim does', () => {
  it('under a pinion support +5 thou is shallower 5, backlash +1 (0.94); under the head bearing the other way', () => {
    const thou = 0.0254;
    const support = of(
      { of: 'pinion-shim', mm: 5 * thou },
      { shimMoves: CONSTRUCTION_SIGNS['drop-out'].addingShimMovesPinion },
    );
    expect((support?.deeperMm ?? 0) / thou).toBeCloseTo(-5, 9);
    expect((support?.backlashMm ?? 0) / thou).toBeCloseTo(5 * PINION, 2);
    const head = of({ of: 'pinion-shim', mm: 5 * thou });
    expect((head?.deeperMm ?? 0) / thou).toBeCloseTo(5, 9);
    expect((head?.backlashMm ?? 0) / thou).toBeCloseTo(-5 * PINION, 2);
    expect(head?.closerMm).toBe(0);
  });

  it('a taller head bearing goes deeper in a drop-out too [common practice]', () => {
    const moves = CONSTRUCTION_SIGNS['drop-out'];
    const taller = of(
      { of: 'head-bearing', mm: 0.1 },
      { shimMoves: moves.addingShimMovesPinion, bearingMoves: moves.tallerBearingMovesPinion },
    );
    expect(taller?.deeperMm).toBeCloseTo(0.1, 12);
  });

  it('a box shaft has no direction of its own: nothing is said until somebody says it', () => {
    expect(of({ of: 'pinion-shim', mm: 0.1 }, { shimMoves: null })).toBeNull();
    expect(of({ of: 'link', sign: 'plus', mm: 0.1 }, { shimMoves: null })).toBeNull();
  });

  it('one side alone moves the ring by half while both are tight, by all once preload is gone, and squeezes [exact, springs in series]', () => {
    const back = of({ of: 'side', side: 'left', what: 'shim', mm: 0.1 });
    expect([back?.closerMm, back?.closerLooseMm, back?.sidePreloadMm]).toEqual([0.05, 0.1, 0.1]);
    expect(back?.backlashMm).toBeCloseTo(-0.05 * RING, 4);
    const tooth = of({ of: 'side', side: 'right', what: 'shim', mm: 0.1 });
    expect([tooth?.closerMm, tooth?.closerLooseMm, tooth?.sidePreloadMm]).toEqual([-0.05, -0.1, 0.1]);
  });

  it('under the flange of a side cover a shim lets its side out: every sign turned, a taller bearing as ever', () => {
    const flange = { sideShims: 'under-flange' } as const;
    const shim = of({ of: 'side', side: 'left', what: 'shim', mm: 0.1 }, flange);
    expect([shim?.closerMm, shim?.sidePreloadMm]).toEqual([-0.05, -0.1]);
    const bearing = of({ of: 'side', side: 'left', what: 'bearing', mm: 0.1 }, flange);
    expect([bearing?.closerMm, bearing?.sidePreloadMm]).toEqual([0.05, 0.1]);
    expect(of({ of: 'across', to: 'left', mm: 0.1 }, flange)?.closerMm).toBe(-0.1);
  });

  it('from one side to the other the ring goes all of it, and the bearings are held as they were', () => {
    const across = of({ of: 'across', to: 'left', mm: 0.1 });
    expect([across?.closerMm, across?.closerLooseMm, across?.sidePreloadMm]).toEqual([0.1, 0.1, 0]);
    expect(of({ of: 'across', to: 'left', mm: 0.1 }, { ringSide: 'right' })?.closerMm).toBe(-0.1);
  });

  it('a notch in behind the ring and one out before it brings it closer by the travel of a notch', () => {
    const notch = of({ of: 'notches', inAt: 'left', notches: 1, notchMm: 0.08 });
    expect(notch?.closerMm).toBeCloseTo(0.08, 12);
    expect(of({ of: 'notches', inAt: 'right', notches: 2, notchMm: 0.08 })?.closerMm).toBeCloseTo(-0.16, 12);
  });

  it('a thicker link of the chain that adds to the shim leaves the pinion short of it', () => {
    // The shim would have to grow with it; it has not, so the pinion stands as with that much less shim.
    const less = of({ of: 'pinion-shim', mm: -0.1 });
    expect(of({ of: 'link', sign: 'plus', mm: 0.1 })).toEqual(less);
    expect(of({ of: 'link', sign: 'minus', mm: -0.1 })).toEqual(less);
  });

  it('refuses by field', () => {
    expect(() => of({ of: 'pinion-shim', mm: Number.NaN })).toThrowError(/mm/);
    expect(() => of({ of: 'notches', inAt: 'left', notches: 0.5, notchMm: 0.1 })).toThrowError(/notches/);
    expect(() => of({ of: 'pinion-shim', mm: 0.1 }, { ringTeeth: 5 })).toThrowError(/ringTeeth/);
  });
});
