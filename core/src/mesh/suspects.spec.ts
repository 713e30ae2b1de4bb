import { playAxle } from '../practice/rule-of-thumb';
import { assemble, trueReadings, virtualAxle, type VirtualAxle, type WholeTry } from '../practice/virtual-axle';
import { meshAdvise } from './advise';
import type { MeshJob, MeshTry } from './job';

const round = (mm: number, places = 8): number[] => Array.from({ length: places }, () => mm);
const CENTRE = { u: 0, v: 0 };
const JOB: MeshJob = {
  construction: 'integral-head-shim',
  ringTeeth: 41,
  pinionTeeth: 11,
  specBacklashMm: [0.15, 0.25],
  tries: [],
};
const at = (change: Partial<MeshTry> = {}): MeshTry => ({
  pinionShimMm: 1,
  ringShiftMm: 0,
  backlashMm: round(0.2),
  drive: CENTRE,
  coast: CENTRE,
  ...change,
});
const advise = (tries: readonly MeshTry[], change: Partial<MeshJob> = {}) => meshAdvise({ ...JOB, ...change, tries });

describe('the advisor is asked when there is something to judge', () => {
  it('no pattern yet: paint it first; no backlash in the last try, or in band on fewer than four places: read it first', () => {
    const bare = advise([at({ drive: null, coast: null })]);
    expect([bare.needs, bare.next, bare.done, bare.chanceInSpec]).toEqual(['pattern', null, false, null]);
    const unread = advise([at(), at({ pinionShimMm: 1.1, backlashMm: [] })]);
    expect([unread.needs, unread.next]).toEqual(['backlash', null]);
    for (const places of [1, 2, 3]) {
      const few = advise([at({ backlashMm: round(0.2, places) })]);
      expect([few.done, few.needs]).withContext(`${places}`).toEqual([false, 'backlash']);
    }
    expect(advise([at({ backlashMm: round(0.2, 4) })]).done).toBeTrue();
    // Out of band it is judged all the same: what is wrong on one place is wrong.
    expect(advise([at({ backlashMm: [0.5] })]).next).not.toBeNull();
    // One flank is a pattern.
    expect(advise([at({ coast: null })]).needs).toBeNull();
  });

  it('done carries its chance; what is in band by a hair is less sure', () => {
    const sure = advise([at(), at(), at()]);
    const hair = advise([at({ drive: { u: 0.3, v: 0.21 }, coast: { u: 0.34, v: 0.26 }, backlashMm: round(0.245) })]);
    expect(sure.done && (sure.chanceInSpec ?? 0) > 0.9).toBeTrue();
    if (hair.done) expect(hair.chanceInSpec).toBeLessThan(0.6);
    else expect(hair.next).not.toBeNull();
  });

  it('a shim below none is said, and what is proposed is one that exists', () => {
    const deep = advise([at({ pinionShimMm: 0.05, drive: { u: 0, v: -0.8 }, coast: { u: 0, v: -0.8 } })]);
    expect(deep.belowZeroMm).toBeLessThan(0);
    expect(deep.next?.pinionShimMm).toBeGreaterThanOrEqual(0);
    expect(advise([at({ drive: { u: 0, v: -0.5 }, coast: { u: 0, v: -0.5 } })]).belowZeroMm).toBeNull();
  });
});

describe('a gauge is believed, an eye is not', () => {
  const first = at({ drive: { u: 0.1, v: 0.3 }, coast: { u: -0.1, v: 0.3 } });
  const second = at({ pinionShimMm: 1.1, ringShiftMm: -0.03 });

  it('0.80 mm against 0.20 expected is read again; confirmed, it is believed and the ring moves', () => {
    const wild = { ...second, backlashMm: round(0.8) };
    const once = advise([first, wild]);
    expect(once.readAgain).toEqual(jasmine.objectContaining({ reading: 'backlash', why: 'unlikely' }));
    expect(once.doubtful.filter(({ reading }) => reading === 'backlash')).toEqual([]); // never “simply wrong”
    const twice = advise([first, wild, { ...wild, backlashMm: round(0.81) }]);
    expect(twice.readAgain?.why).not.toBe('unlikely');
    // It takes about (0.80 − 0.20)/0.70 mm of ring to bring it in (handbook 10.1).
    expect((twice.next?.ringShiftMm ?? 0) - wild.ringShiftMm).toBeGreaterThan(0.5);
    // Read again as it was expected, the slip is forgotten at once.
    const slip = advise([first, { ...wild, drive: null, coast: null }, second]);
    expect(Math.abs((slip.next?.ringShiftMm ?? second.ringShiftMm) - second.ringShiftMm)).toBeLessThan(0.6);
  });

  it('both flanks hard at the heel with the backlash right is no axle of this construction', () => {
    const heel = advise([at({ drive: { u: 0.95, v: 0 }, coast: { u: 0.95, v: 0 } })]);
    expect(heel.contradiction).toBeLessThan(0.001);
    expect(advise([at({ drive: { u: 0.1, v: -0.4 }, coast: { u: 0, v: -0.5 } })]).contradiction).toBeNull();
  });
});

describe('what was told the wrong way round', () => {
  /** An axle that lies off by so much, read without any scatter. */
  const quiet = (axle: VirtualAxle, shim: number, ring: number): MeshTry => {
    const [backlash = 0, du = 0, dv = 0, cu = 0, cv = 0] = trueReadings(axle, shim, ring);
    return {
      pinionShimMm: shim,
      ringShiftMm: ring,
      backlashMm: round(Math.max(0, backlash)),
      drive: { u: du, v: dv },
      coast: { u: cu, v: cv },
    };
  };
  const axle = virtualAxle(3);
  const { startShimMm: start } = axle;
  const moved = [quiet(axle, start, 0), quiet(axle, start + 0.2, 0.1), quiet(axle, start + 0.2, -0.2)];
  const told = { ...axle, tries: moved };

  it('a sign: after two places the reversed one is likelier, said, and followed', () => {
    const reversed = axle.addingShimMovesPinion === 'deeper' ? ('shallower' as const) : ('deeper' as const);
    const wrong = meshAdvise({ ...told, addingShimMovesPinion: reversed });
    expect(wrong.suspects[0]).toEqual(jasmine.objectContaining({ what: 'pinion-sign' }));
    expect(wrong.suspects[0]?.chance).toBeGreaterThan(0.9);
    const right = meshAdvise(told);
    expect(right.suspects).toEqual([]);
    expect([right.as, wrong.as]).toEqual([null, 'pinion-sign']);
    // It goes where the right sign goes.
    expect(wrong.next).toEqual(right.next);
    // One place alone tells nothing.
    expect(meshAdvise({ ...told, addingShimMovesPinion: reversed, tries: moved.slice(0, 1) }).suspects).toEqual([]);
  });

  it('the side of the ring: moved closer, backlash grew', () => {
    const other = moved.map((one) => ({ ...one, ringShiftMm: -one.ringShiftMm }));
    const { suspects, next } = meshAdvise({ ...told, tries: other });
    expect(suspects[0]?.what).toBe('ring-side');
    const right = meshAdvise(told).next;
    expect(next?.ringShiftMm).toBeCloseTo(-(right?.ringShiftMm ?? 9), 9);
    expect(next?.pinionShimMm).toBeCloseTo(right?.pinionShimMm ?? 9, 9);
  });

  it('swapped flanks', () => {
    const swapped = moved.map((one) => ({ ...one, drive: one.coast, coast: one.drive }));
    expect(meshAdvise({ ...told, tries: swapped }).suspects[0]?.what).toBe('flanks-swapped');
  });

  // Asked so: at least 80 % of made-up axles with the sign told wrong in spec within four assemblies; a thousand of them in `npm run bench`.
  it('of 60 made-up axles with the pinion sign told wrong at least 48 are in spec within four assemblies', () => {
    let within = 0;
    for (let seed = 0; seed < 60; seed++) {
      const one = virtualAxle(80_000 + seed);
      const reversed = one.addingShimMovesPinion === 'deeper' ? ('shallower' as const) : ('deeper' as const);
      const misled = (_: VirtualAxle, tries: readonly WholeTry[]) =>
        meshAdvise({ ...one, tries, addingShimMovesPinion: reversed }).next;
      if (playAxle(one, misled, 4).inSpec) within++;
    }
    expect(within).toBeGreaterThanOrEqual(48);
  });

  it('of 60 axles that were told right hardly any is accused', () => {
    let accused = 0;
    for (let seed = 0; seed < 60; seed++) {
      const one = virtualAxle(81_000 + seed);
      const tries = [assemble(one, one.startShimMm, 0)];
      const { next } = meshAdvise({ ...one, tries });
      if (next) tries.push(assemble(one, next.pinionShimMm, next.ringShiftMm, 1));
      if (meshAdvise({ ...one, tries }).as) accused++;
    }
    expect(accused).toBeLessThanOrEqual(3);
  });
});
