import { entryOf, meshAdvise, oneSidedMove, seededRandom } from '@hot-spline/core';
import { newAxleSpec } from '../library/new-spec';
import type { InForce, Readings } from '../frame/readings';
import type { ReadingValue } from '../frame/values';
import { FINAL_TRIAL, FIRST_TRIAL, newSetup } from './new-setup';
import { pastOf, pastOfSpec } from './past';
import { assembled, backlash, pattern } from './readings';
import { TRIAL, TRIAL_KEYS, setupSchema, trialSchema, type Trial } from './schema';
import { shiftTo } from './shifts';
import { headShimOf, isFinal, meshAxle } from './state';
import { TRIAL_WORDS } from './words';
import type { PastSetup } from './axle';

const mm = (value: number) => entryOf(Number(value.toFixed(4)), 'mm');
let seq = 0;
const inForce = (subject: InForce['subject'], value: ReadingValue, state: object = {}): InForce => {
  seq += 1;
  return {
    kind: 'reading',
    id: `50000000-0000-4000-8000-${String(seq).padStart(12, '0')}`,
    at: '2026-01-02T03:04:05.000Z',
    who: '',
    subject,
    value,
    state: state as InForce['state'],
    instrument: 'Micrometer',
    seq,
    earlier: [],
  };
};
const together = (n: number, pinion: number, left: number, right: number): [string, InForce] => {
  const of = { axle: 'rear' as const, assembly: String(n) };
  return [
    assembled.key(of),
    inForce(assembled.of(of), {
      of: 'assembly',
      pinion: [mm(pinion)],
      left: [mm(left)],
      right: [mm(right)],
      leftNotches: 0,
      rightNotches: 0,
    }),
  ];
};
const axleOf = (readings: Readings, change: Partial<ReturnType<typeof newSetup>> = {}) =>
  meshAxle(
    'rear',
    {
      setup: { ...newSetup(), ...change },
      sheet: {
        ...newAxleSpec('x').sheet,
        backlash: { value: { low: mm(0.15), high: mm(0.25) }, origin: 'maker', where: '' },
      },
      construction: 'integral-head-shim',
      finalDrive: { ring: 41, pinion: 11 },
    },
    readings,
  );

describe('the state of a trial', () => {
  it('every state has words, and a set-up begins in one that the schema takes', () => {
    for (const key of TRIAL_KEYS)
      for (const value of TRIAL[key])
        expect((TRIAL_WORDS[key] as Readonly<Record<string, string>>)[value])
          .withContext(`${key} ${value}`)
          .toBeTruthy();
    expect(trialSchema.parse(FIRST_TRIAL)).toEqual(FIRST_TRIAL);
    expect(setupSchema.parse(newSetup())).toEqual(newSetup());
  });

  it('is final only where everything is as it runs: one thing else and it is not', () => {
    expect(isFinal(FINAL_TRIAL, 'new')).toBeTrue();
    for (const key of TRIAL_KEYS) {
      if (key === 'drag') continue; // how the ring was held for a pattern is no state of the axle
      for (const value of TRIAL[key].slice(0, -1)) {
        const state = { ...FINAL_TRIAL, [key]: value } as Trial;
        expect(isFinal(state, 'new')).withContext(`${key} ${value}`).toBeFalse();
      }
    }
  });

  it('gears that go back used keep their bearings, spacer and nut', () => {
    const kept: Trial = { ...FINAL_TRIAL, pinionBearings: 'used', sideBearings: 'used', spacer: 'old', nut: 'old' };
    expect(isFinal(kept, 'used')).toBeTrue();
    expect(isFinal(kept, 'new')).toBeFalse();
    expect(isFinal({ ...kept, pinionBearings: 'set-up' }, 'used')).toBeFalse();
  });
});

describe('what closing up takes', () => {
  it('1 ± 1 thou at most, half a thou where only the pinion’s bearings are still to come, nothing when closed [common practice]', () => {
    const nothing = { assemblies: [], past: [] };
    expect(shiftTo({ ...FIRST_TRIAL, caps: 'snug' }, nothing).mm).toBeCloseTo(0.0254, 9);
    expect(shiftTo(FIRST_TRIAL, nothing).mm).toBeCloseTo(0.0254, 9);
    expect(shiftTo({ ...FIRST_TRIAL, sideBearings: 'new' }, nothing).mm).toBeCloseTo(0.0127, 9);
    expect(shiftTo(FINAL_TRIAL, nothing)).toEqual({ mm: 0, sigmaMm: 0, learned: 0 });
    expect(shiftTo(FIRST_TRIAL, nothing).sigmaMm).toBeCloseTo(0.0254, 9);
  });

  it('many assemblies that were read in both states outweigh what is ours', () => {
    const readings = new Map<string, InForce>();
    for (let n = 1; n <= 12; n++) {
      readings.set(...together(n, 1, 6, 6));
      for (const [stage, value, state] of [
        ['trial', 0.26, FIRST_TRIAL],
        ['final', 0.2, FINAL_TRIAL],
      ] as const) {
        const of = { axle: 'rear' as const, assembly: String(n), stage };
        const entries = Array.from({ length: 8 }, () => mm(value));
        readings.set(backlash.key(of), inForce(backlash.of(of), { of: 'places', entries }, state));
      }
    }
    const { closing } = axleOf(readings);
    expect(closing.learned).toBe(12);
    expect(closing.mm).toBeCloseTo(0.06, 2);
    expect(closing.sigmaMm).toBeLessThan(0.005);
  });
});

describe('where the ring stands, on any shims', () => {
  it('as both sides say, each for half [exact: springs in series, alike], whichever side it looks at', () => {
    const random = seededRandom(3);
    for (let i = 0; i < 50; i++) {
      const [left, right, addLeft, addRight] = [5 + random(), 5 + random(), random() - 0.5, random() - 0.5];
      const readings: Readings = new Map([
        together(1, 1, left, right),
        together(2, 1, left + addLeft, right + addRight),
      ]);
      const wanted = oneSidedMove(addLeft, true) - oneSidedMove(addRight, true);
      expect(axleOf(readings).now?.ringMm ?? 9).toBeCloseTo(wanted, 3);
      expect(axleOf(readings, { ringSide: 'right' }).now?.ringMm ?? 9).toBeCloseTo(-wanted, 3);
      expect(axleOf(readings, { sideShims: 'under-flange' }).now?.ringMm ?? 9).toBeCloseTo(-wanted, 3);
    }
  });

  it('is counted from the first trial, not from how it came; without one, from how it came', () => {
    const three: Readings = new Map([together(0, 1, 6.2, 5.8), together(1, 1, 6, 6), together(2, 1, 6.1, 5.9)]);
    expect(axleOf(three).assemblies.map(({ ringMm }) => Number(ringMm.toFixed(6)))).toEqual([0.2, 0, 0.1]);
    expect(axleOf(new Map([together(0, 1, 6.2, 5.8)])).now?.ringMm).toBe(0);
    expect(axleOf(new Map()).now).toBeNull();
  });

  it('no job without a reading; as it came it teaches only where the gears go back', () => {
    const of = { axle: 'rear' as const, assembly: '0', stage: 'trial' as const };
    const entries = Array.from({ length: 8 }, () => mm(0.3));
    const came: Readings = new Map([
      together(0, 1, 6, 6),
      [backlash.key(of), inForce(backlash.of(of), { of: 'places', entries }, FIRST_TRIAL)],
    ]);
    expect(axleOf(came).job).toBeNull();
    expect(axleOf(came, { gears: 'used' }).job?.tries.length).toBe(1);
    expect(axleOf(new Map([together(1, 1, 6, 6)])).job).toBeNull();
  });

  it('one thou high is aimed at where that is the school, never where nothing is still to close', () => {
    const of = { axle: 'rear' as const, assembly: '1', stage: 'trial' as const };
    const entries = Array.from({ length: 8 }, () => mm(0.3));
    const readings: Readings = new Map([
      together(1, 1, 6, 6),
      [backlash.key(of), inForce(backlash.of(of), { of: 'places', entries }, { ...FIRST_TRIAL, sideBearings: 'new' })],
    ]);
    expect(axleOf(readings).job?.closingUpMm).toBeCloseTo(0.0127, 9);
    expect(axleOf(readings, { backlashAim: 'one-high' }).job?.closingUpMm).toBeCloseTo(0.0254, 9);
  });
});

describe('readings that are taken again, bearings that stand in, axles that taught', () => {
  const at = { axle: 'rear' as const, assembly: '1', stage: 'trial' as const };
  const flank = { u: 0.1, v: -0.2, length: 0.4, height: 0.4, turnedDeg: 0, edges: [], shape: 'one' as const };
  const places = (value: number): ReadingValue => ({
    of: 'places',
    entries: Array.from({ length: 8 }, () => mm(value)),
  });
  const seen = (v: number): ReadingValue => ({ of: 'pattern', drive: { ...flank, v }, coast: { ...flank, v } });
  /** One assembly of which backlash was read three times, the oldest in another state, and the pattern twice. */
  const repeated = (): Readings => {
    const [oldest, older, last] = [
      inForce(backlash.of(at), places(0.3), { ...FIRST_TRIAL, caps: 'snug' }),
      inForce(backlash.of(at), places(0.22), FIRST_TRIAL),
      inForce(backlash.of(at), places(0.2), FIRST_TRIAL),
    ];
    const [before, now] = [
      inForce(pattern.of(at), seen(-0.4), FIRST_TRIAL),
      inForce(pattern.of(at), seen(-0.2), FIRST_TRIAL),
    ];
    return new Map([
      together(1, 1, 6, 6),
      [backlash.key(at), { ...last, earlier: [older, oldest] }],
      [pattern.key(at), { ...now, earlier: [before] }],
    ]);
  };

  it('a reading taken again in the same state counts beside the first; the newest is the one that is judged', () => {
    const { job, tries } = axleOf(repeated());
    expect(tries).toEqual([1, 1]);
    expect(job?.tries.map(({ backlashMm }) => backlashMm[0])).toEqual([0.22, 0.2]);
    expect(job?.tries.map(({ drive }) => drive?.v)).toEqual([-0.4, -0.2]);
    expect(job && meshAdvise(job).out).toEqual([]);
  });

  it('a set-up bearing that is lower asks for a shim that is as much less once the final one is on [exact]', () => {
    const depth = { ...newSetup().depth, setUpTaller: mm(-0.05) };
    const trial = axleOf(repeated(), { depth });
    expect(headShimOf(FIRST_TRIAL, trial)).toBeCloseTo(-0.05, 9);
    expect(trial.headShimMm).toBe(0);
    const closed = axleOf(repeated(), { depth, state: FINAL_TRIAL });
    expect(closed.headShimMm).toBeCloseTo(-0.05, 9);
    // In a drop-out both signs turn; where shim and bearing move it opposite ways the difference changes its sign.
    const turned = axleOf(repeated(), { depth, shimMoves: 'shallower', bearingMoves: 'deeper' });
    expect(headShimOf(FIRST_TRIAL, turned)).toBeCloseTo(0.05, 9);
    expect(headShimOf(FIRST_TRIAL, axleOf(repeated()))).toBe(0);
  });

  it('axles of the same spec teach what closing up takes, half as loudly as the axle itself, others nothing', () => {
    const taught = (spec: string, construction: PastSetup['construction'] = 'integral-head-shim'): PastSetup => ({
      axle: 'rear',
      spec,
      construction,
      job: null,
      closingsMm: [0.06, 0.06, 0.06],
      stayed: null,
    });
    const all = [taught('x'), taught('y'), taught('x', 'drop-out')];
    expect(pastOfSpec(all, 'x', 'integral-head-shim')).toEqual([taught('x')]);
    // Ours 1 ± 1 thou, three of theirs ± 1 thou: (0.0254 + 3 × 0.06) / 4 [exact].
    const { mm: learned, sigmaMm } = shiftTo(FIRST_TRIAL, { assemblies: [], past: [taught('x')] });
    expect(learned).toBeCloseTo((0.0254 + 0.18) / 4, 9);
    expect(sigmaMm).toBeCloseTo(0.0127, 9);
  });

  it('an axle teaches once more than one try of it was read, or it was closed', () => {
    const one = axleOf(repeated());
    expect(pastOf(one, 'x')?.job?.tries.length).toBe(2);
    expect(pastOf(axleOf(new Map([together(1, 1, 6, 6)])), 'x')).toBeNull();
  });
});
