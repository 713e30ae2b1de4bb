import { CONSTRUCTIONS, entryOf, meshAdvise, type MeshConstruction } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { newBuild } from '../start/new-build';
import type { Build } from '../document/schema';
import type { LedgerEntry, Reading } from '../frame/readings';
import type { ReadingValue } from '../frame/values';
import { newAxleSpec } from '../library/new-spec';
import type { SpecSheet } from '../library/sheet';
import { testId } from '../testing/builds';
import { depthSchools, stackError } from './depth';
import { FINAL_TRIAL, FIRST_TRIAL, newSetup } from './new-setup';
import { assembled, backlash, packHeight, pattern, type Stage } from './readings';
import type { Setup, Trial } from './schema';
import { loadedFlankOf } from './state';
import { moveWords, patchWords } from './words';
import type { MeshAxle } from './axle';

const mm = (value: number) => entryOf(value, 'mm');
const said = <T>(value: T) => ({ value, origin: 'maker' as const, where: 'sheet 1' });
const BAND = said({ low: mm(0.15), high: mm(0.25) });

interface Job {
  readonly construction?: MeshConstruction;
  readonly setup?: Partial<Setup>;
  readonly sheet?: Partial<SpecSheet>;
}

function buildOf({ construction = 'integral-head-shim', setup = {}, sheet = {} }: Job = {}): Build {
  const build = newBuild('Set-up');
  const axle = build.axles.rear;
  if (!axle) throw new Error('no rear axle');
  axle.finalDrive = { ring: 41, pinion: 11 };
  axle.identity = newAxleSpec('Heron', construction, 'measured');
  Object.assign(axle.identity.sheet, { backlash: BAND }, sheet);
  axle.setup = { ...newSetup(), ...setup };
  return build;
}

const readingOf = (subject: Reading['subject'], value: ReadingValue, state: object = {}): Reading => ({
  kind: 'reading',
  id: testId(),
  at: '2026-01-02T03:04:05.000Z',
  who: '',
  subject,
  value,
  state: state as Reading['state'],
  instrument: 'Dial indicator',
});
const together = (
  n: number,
  pinion: number,
  left = 6,
  right = 6,
  notches: readonly [number, number] = [0, 0],
): Reading =>
  readingOf(assembled.of({ axle: 'rear', assembly: String(n) }), {
    of: 'assembly',
    pinion: [mm(pinion)],
    left: [mm(left)],
    right: [mm(right)],
    leftNotches: notches[0],
    rightNotches: notches[1],
  });
const round = (n: number, value: number | number[], state: Trial = FIRST_TRIAL, stage: Stage = 'trial'): Reading =>
  readingOf(
    backlash.of({ axle: 'rear', assembly: String(n), stage }),
    { of: 'places', entries: (typeof value === 'number' ? Array<number>(8).fill(value) : value).map(mm) },
    state,
  );
const flank = (u: number, v: number, shape: 'one' | 'faint' = 'one') => ({
  u,
  v,
  length: 0.4,
  height: 0.4,
  turnedDeg: 0,
  edges: [],
  shape,
});
const painted = (
  n: number,
  [du, dv, cu, cv]: readonly [number, number, number, number],
  state: Trial = FIRST_TRIAL,
): Reading =>
  readingOf(
    pattern.of({ axle: 'rear', assembly: String(n), stage: 'trial' }),
    { of: 'pattern', drive: flank(du, dv), coast: flank(cu, cv) },
    state,
  );
const derive = (job: Job, ledger: readonly LedgerEntry[]) => {
  const derived = deriveBuild(buildOf(job), ledger);
  const mesh = derived.mesh.rear as MeshAxle;
  const finding = (id: string) => derived.findings.find((one) => one.id === `mesh.rear.${id}`);
  const value = (id: string) => derived.figures.get(`mesh.rear.${id}`)?.value ?? null;
  return { derived, mesh, finding, value };
};

describe('the set-up of an axle', () => {
  it('which flank carries: rear and front, low and high pinion [exact; handbook values]', () => {
    // With the usual rotation of the prop shaft.
    expect(loadedFlankOf({ pinionSpiral: 'left', pinionTurns: 'clockwise' })).toBe('convex'); // rear, low
    expect(loadedFlankOf({ pinionSpiral: 'left', pinionTurns: 'anticlockwise' })).toBe('concave'); // front, low
    expect(loadedFlankOf({ pinionSpiral: 'right', pinionTurns: 'anticlockwise' })).toBe('convex'); // front, high
    expect(loadedFlankOf({ pinionSpiral: 'right', pinionTurns: 'clockwise' })).toBe('concave'); // rear, high
  });

  for (const construction of CONSTRUCTIONS.filter((one) => one !== 'electric-reduction'))
    it(`${construction}: the move that is proposed lands nearer, by its signs [geometry of the construction]`, () => {
      // Pinion too deep, by a pattern low on both flanks.
      const sheet: Partial<SpecSheet> = { adjusterPitch: said(mm(1.5)), adjusterNotches: said(24) };
      const ledger = [together(1, 1), round(1, 0.3), painted(1, [0, -0.6, 0, -0.6])];
      // A box shaft has no direction of its own: without one there is nothing to ask, and it says so.
      const setup = construction === 'transaxle' ? { shimMoves: 'deeper' as const } : {};
      if (construction === 'transaxle') {
        const asked = derive({ construction, sheet }, ledger);
        expect([asked.mesh.job, asked.finding('direction')?.verdict]).toEqual([null, 'not-yet']);
      }
      const { mesh } = derive({ construction, sheet, setup }, ledger);
      if (!mesh.job) throw new Error('no job');
      const { next } = meshAdvise(mesh.job);
      const more = (next?.pinionShimMm ?? 1) - 1;
      expect(Math.sign(more)).toBe(construction === 'drop-out' ? 1 : -1);
      // A ring that is moved by whole notches where there are notches.
      if (mesh.notchMm !== null) {
        const notches = (next?.ringShiftMm ?? 0) / mesh.notchMm;
        expect(notches).toBeCloseTo(Math.round(notches), 5);
      }
    });

  it('ring position: half of what one side got less what the other lost; the total is preload [exact]', () => {
    const both = derive({}, [together(1, 1), together(2, 1, 6.2, 5.8)]);
    expect(both.value('ring')).toBeCloseTo(0.2, 9);
    expect(both.value('sides')).toBeCloseTo(12, 9);
    expect(both.finding('preload')).toBeUndefined();
    const one = derive({}, [together(1, 1), together(2, 1, 6.2, 6)]);
    expect(one.value('ring')).toBeCloseTo(0.1, 9);
    expect(one.finding('preload')?.verdict).toBe('watch');
    const other = derive({ setup: { ringSide: 'right' } }, [together(1, 1), together(2, 1, 6.2, 5.8)]);
    expect(other.value('ring')).toBeCloseTo(-0.2, 9);
    const flange = { construction: 'independent' as const, setup: { sideShims: 'under-flange' as const } };
    expect(derive(flange, [together(1, 1), together(2, 1, 6.2, 5.8)]).value('ring')).toBeCloseTo(-0.2, 9);
  });

  it('adjusters: travel a notch is pitch over notches; far apart is a stop [exact; common practice]', () => {
    const sheet: Partial<SpecSheet> = { adjusterPitch: said(mm(1.5)), adjusterNotches: said(24) };
    const job: Job = { construction: 'drop-out', sheet };
    const near = derive(job, [together(1, 0.5), together(2, 0.5, 0, 0, [3, -3])]);
    expect(near.value('ring')).toBeCloseTo((3 * 1.5) / 24, 9);
    expect(near.finding('adjusters')).toBeUndefined();
    const far = derive(job, [together(1, 0.5), together(2, 0.5, 0, 0, [10, -10])]);
    expect(far.finding('adjusters')?.verdict).toBe('stop');
  });

  it('backlash: every place counts, higher by what closing up takes; without side preload it teaches nothing', () => {
    const ledger = [together(1, 1), round(1, [0.2, 0.21, 0.2, 0.19, 0.2, 0.21, 0.2, 0.16])];
    const { finding, value, mesh } = derive({}, ledger);
    expect(value('backlash')).toBeCloseTo(0.19625, 9);
    expect(value('least')).toBeCloseTo(0.16, 9);
    // 1 ± 1 thou until learned: 0.16 is under 0.15 + 0.0254
    expect(mesh.closing.mm).toBeCloseTo(0.0254, 9);
    expect(finding('backlash')?.verdict).toBe('watch');
    const bare = derive({}, [together(1, 1), round(1, 0.2, { ...FIRST_TRIAL, sidePreload: 'none' })]);
    expect(bare.finding('bare')?.verdict).toBe('watch');
    expect(bare.mesh.job).toBeNull();
  });

  it('what closing up takes is learned from the same shims in both states, and used in the aim', () => {
    const ledger = [
      together(1, 1),
      round(1, 0.25),
      round(1, 0.2, FINAL_TRIAL, 'final'),
      together(2, 1, 6.02, 5.98),
      round(2, 0.23),
    ];
    const { mesh } = derive({}, ledger);
    expect(mesh.closing.learned).toBe(1);
    // weighed: ours 0.0254 ± 0.0254, read 0.05 ± 0.0127 [exact: product of normal distributions]
    const [own, read] = [1 / 0.0254 ** 2, 1 / 0.0127 ** 2];
    expect(mesh.closing.mm).toBeCloseTo((own * 0.0254 + read * 0.05) / (own + read), 9);
    expect(mesh.job?.closingUpMm).toBeCloseTo(mesh.closing.mm, 9);
    // the final reading of the first is told to the advisor as it would read in the trial state
    expect(mesh.job?.tries[0]?.backlashMm[0]).toBeCloseTo(0.2 + mesh.closing.mm, 9);
  });

  it('a try that is voided loses its influence', () => {
    const [one, wrong] = [together(1, 1), together(2, 1.4)];
    const ledger: LedgerEntry[] = [
      one,
      round(1, 0.3),
      painted(1, [0, -0.5, 0, -0.5]),
      wrong,
      round(2, 0.9),
      painted(2, [0.9, 0.9, -0.9, 0.9]),
    ];
    const before = derive({}, ledger.slice(0, 3)).mesh.job;
    const voided: LedgerEntry = {
      kind: 'void',
      id: testId(),
      at: '2026-01-02T04:00:00.000Z',
      who: '',
      voids: wrong.id,
      reason: 'other shim',
    };
    expect(derive({}, ledger).mesh.job?.tries.length).toBe(2);
    expect(derive({}, [...ledger, voided]).mesh.job).toEqual(before);
  });

  it('a faint pattern, or one under light drag, moves nothing', () => {
    const light = derive({}, [
      together(1, 1),
      round(1, 0.3),
      painted(1, [0, -0.5, 0, -0.5], { ...FIRST_TRIAL, drag: 'light' }),
    ]);
    expect(light.mesh.job?.tries[0]?.drive).toBeNull();
    expect(light.finding('pattern')?.say('inch').title).toContain('faint');
  });

  it('variation is said with what to look for, before shimming', () => {
    const wave = Array.from({ length: 8 }, (_, i) => Number((0.2 + 0.05 * Math.cos((Math.PI * i) / 4)).toFixed(3)));
    const once = derive({}, [together(1, 1), round(1, wave)]).finding('variation');
    expect(once?.say('metric').detail).toContain('goes round once');
    const twice = derive({}, [together(1, 1), round(1, [0.25, 0.15, 0.25, 0.15, 0.25, 0.15, 0.25, 0.15])]).finding(
      'variation',
    );
    expect(twice?.say('metric').detail).toContain('doesn’t go round once');
  });

  it('a pack that is not the sum of its pieces is measured again', () => {
    const whole = (value: number) =>
      readingOf(packHeight.of({ axle: 'rear', assembly: '1', seat: 'pinion' }), {
        of: 'number',
        counts: 'mean',
        entries: [mm(value)],
      });
    // 1.58 to 1.78 read where the pieces add up to about 1.55 (common practice)
    expect(derive({}, [together(1, 1.55), whole(1.58)]).finding('pack-pinion')?.verdict).toBe('watch');
    expect(derive({}, [together(1, 1.55), whole(1.56)]).finding('pack-pinion')).toBeUndefined();
  });

  it('no band, or one that is borrowed, is said', () => {
    expect(derive({ sheet: { backlash: null } }, [together(1, 1)]).finding('band')?.verdict).toBe('not-yet');
    const borrowed = { ...BAND, origin: 'borrowed' as const };
    expect(derive({ sheet: { backlash: borrowed } }, [together(1, 1)]).finding('band')?.verdict).toBe('watch');
  });
});

describe('pinion depth by every school', () => {
  const depth = (change: Partial<Setup['depth']>): Job['setup'] => ({ depth: { ...newSetup().depth, ...change } });
  const shims = (job: Job, ledger: readonly LedgerEntry[] = [together(0, 1.1)]) =>
    Object.fromEntries(depthSchools(derive(job, ledger).mesh).map(({ school, shimMm }) => [school, shimMm]));

  it('marks, heights, chain, bore and cap, chart [exact; handbook values]', () => {
    const found = shims({
      sheet: { mountingDistance: said(mm(63.3)), bearingBore: said(mm(76.2)) },
      setup: depth({
        oldMark: mm(0.05),
        newMark: mm(-0.03),
        oldHeight: mm(29),
        newHeight: mm(29.02),
        chain: [
          { name: 'housing', length: mm(64.7), sign: 'plus' },
          { name: 'nominal', length: mm(63.5), sign: 'minus' },
          { name: 'mark', length: mm(-0.2), sign: 'minus' },
          { name: 'gasket', length: mm(0.2), sign: 'plus' },
        ],
        // 3 in bore, cap 1 in deep: the parting face lies 0.5 in from the axis
        capDepth: mm(25.4),
        headReading: mm(76.1),
        headShim: mm(1.1),
        chart: mm(1),
      }),
    });
    expect(found['came-out']).toBeCloseTo(1.1, 9);
    expect(found['marks']).toBeCloseTo(1.1 + 0.08 - 0.02, 9);
    expect(found['chain']).toBeCloseTo(1.6, 9);
    // 76.1 − 12.7 = 63.4, wanted 63.3 − 0.03: 0.13 deeper
    expect(found['measured']).toBeCloseTo(1.1 + 0.13, 9);
    expect(found['chart']).toBeCloseTo(1, 9);
    expect(found['experience']).toBeNull();
  });

  it('a drop-out turns the shim’s sign and not the bearing’s [exact]', () => {
    const setup = depth({ oldMark: mm(0.05), newMark: mm(-0.03), oldHeight: mm(29), newHeight: mm(29.02) });
    expect(shims({ construction: 'drop-out', setup })['marks']).toBeCloseTo(1.1 - (0.08 - 0.02), 9);
  });

  it('schools far apart are said, with both', () => {
    const { finding } = derive({ setup: depth({ chart: mm(1.4) }) }, [together(0, 1.1)]);
    expect(finding('depth')?.verdict).toBe('watch');
    expect(finding('depth')?.say('metric').detail).toContain('The shim that came out');
  });

  it('a baffle left out is the depth error that it is; a taller bearing too', () => {
    const part = (id: string, of: 'baffle' | 'head-bearing', was: number | null, is: number | null) => ({
      id,
      part: of,
      was: was === null ? null : mm(was),
      is: is === null ? null : mm(is),
      setsDepth: true,
      faces: '',
    });
    const stack = [part('s1', 'baffle', 0.8, null), part('s2', 'head-bearing', 29, 29.1)];
    const { mesh, finding } = derive({ setup: { stack } }, [together(0, 1.1)]);
    expect(stackError(mesh)?.deeperMm).toBeCloseTo(-0.8 + 0.1, 9);
    expect(finding('stack')?.say('metric').detail).toContain('baffle left out');
    const drop = derive({ construction: 'drop-out', setup: { stack } }, [together(0, 1.1)]);
    // What lies at the head acts like the height of its bearing: left out it is shallower in a drop-out too [exact, handbook 9.1].
    expect(stackError(drop.mesh)?.deeperMm).toBeCloseTo(-0.8 + 0.1, 9);
    const half = derive({ construction: 'drop-out', setup: { stack: [part('s1', 'baffle', 0.5, null)] } }, [
      together(0, 1.1),
    ]);
    expect(stackError(half.mesh)?.deeperMm).toBeCloseTo(-0.5, 9);
  });
});

describe('shop words', () => {
  it('say where a patch lies', () => {
    expect(patchWords(flank(-0.4, -0.5))).toBe('low and toward the toe');
    expect(patchWords(flank(0, 0.05))).toBe('centred');
    expect(patchWords({ ...flank(0.7, 0), edges: ['heel'] })).toBe('far toward the heel, runs off the heel');
    expect(patchWords(flank(0, 0, 'faint'))).toBe('faint');
  });

  it('say what is moved, from where to where, by construction', () => {
    const words = (towards: number, by: string, side = 'left', acts: 'behind-cup' | 'under-flange' = 'behind-cup') =>
      moveWords(towards, by, side, 0.0625, acts, 'metric');
    expect(words(0.15, 'outboard-shims')).toContain('from right to left');
    expect(words(-0.15, 'outboard-shims')).toContain('from left to right');
    expect(words(0.15, 'cover-shims', 'left', 'under-flange')).toContain('from left to right');
    expect(words(0.125, 'adjusters')).toContain('right adjuster 2 notches out, left adjuster 2 notches in');
  });
});
