import fc from 'fast-check';
import { checkDrum, travelAt, type Drum, type DrumTrack, type Interval } from './drum';

const WELL: Drum = {
  tracks: [
    {
      name: '1-2',
      points: [
        [0, 8],
        [10, 8],
        [50, -8],
        [60, -8],
        [80, 0],
        [160, 0],
      ],
    },
    {
      name: '3-4',
      points: [
        [0, 0],
        [80, 0],
        [100, 8],
        [110, 8],
        [150, -8],
        [160, -8],
      ],
    },
  ],
  touchMm: 3,
  radiusMm: 30,
};
const length = (list: readonly Interval[]): number => list.reduce((sum, [from, to]) => sum + to - from, 0);

describe('box: a drum', () => {
  it('one gear at a time, a neutral between any two: where the tracks cross, by straight lines [exact]', () => {
    const { ok, both, neutral, steepestDeg, faults } = checkDrum(WELL);
    expect(faults).toEqual([]);
    expect([ok, both.length]).toEqual([true, 0]);
    // 8 → −8 over 40°: |x| < 3 from 10 + 12.5 to 10 + 27.5; −8 → 0 over 20°: from 60 + 12.5 on; 0 → 8 over 20°: up to 80 + 7.5
    expect(neutral.map((one) => one.map((deg) => Number(deg.toFixed(9))))).toEqual([
      [22.5, 37.5],
      [72.5, 87.5],
      [122.5, 137.5],
    ]);
    expect(steepestDeg).toBeCloseTo((Math.atan(8 / (30 * ((20 * Math.PI) / 180))) * 180) / Math.PI, 9);
  });

  it('two forks that pass on one segment show one gear at each corner, and both between', () => {
    const passing: Drum = {
      ...WELL,
      tracks: [
        {
          name: '1-2',
          points: [
            [0, 8],
            [40, 0],
          ],
        },
        {
          name: '3-4',
          points: [
            [0, 0],
            [40, 8],
          ],
        },
      ],
    };
    const { ok, both, faults } = checkDrum(passing);
    // 8 − θ/5 ≥ 3 up to 25°, θ/5 ≥ 3 from 15° on [exact]
    expect(both).toEqual([[15, 25]]);
    expect(ok).toBeFalse();
    expect(faults.join()).toContain('two gears');
  });

  it('gear to gear without a neutral, a steep ramp, another span, ends that do not meet: each is said', () => {
    const faults = (change: Partial<Drum>): string => checkDrum({ ...WELL, ...change }).faults.join('; ');
    const close: DrumTrack[] = [
      {
        name: '1-2',
        points: [
          [0, 8],
          [10, 8],
          [20, 3],
          [20.001, 0],
          [60, 0],
        ],
      },
      {
        name: '3-4',
        points: [
          [0, 0],
          [20, 0],
          [20.001, 3],
          [30, 8],
          [60, 8],
        ],
      },
    ];
    expect(faults({ tracks: close })).toContain('stands at');
    expect(
      faults({
        tracks: [
          {
            name: 'a',
            points: [
              [0, 0],
              [5, 8],
              [60, 8],
            ],
          },
        ],
      }),
    ).toMatch(/stands at 7\d/);
    const longer: DrumTrack = {
      name: '3-4',
      points: [
        [0, 0],
        [170, 0],
      ],
    };
    expect(faults({ tracks: [WELL.tracks[0] as DrumTrack, longer] })).toContain('one span');
    expect(faults({ period: 160 })).toContain('do not agree');
    expect(faults({ period: 360 })).toContain('do not agree');
    // A track that leaves one gear at the very angle at which another one takes the next.
    const meeting: DrumTrack[] = [
      {
        name: '1-2',
        points: [
          [0, 8],
          [40, -2],
        ],
      },
      {
        name: '3-4',
        points: [
          [0, -2],
          [20, 3],
          [40, 8],
        ],
      },
    ];
    expect(faults({ tracks: meeting, touchMm: 3 })).toContain('no neutral');
  });

  it('a drum that goes round: its ends agree, in neutral or in a gear', () => {
    const round = (end: number): Drum => ({
      ...WELL,
      tracks: [
        {
          name: '1-2',
          points: [
            [0, end],
            [90, 0],
            [180, -8],
            [270, 0],
            [360, end],
          ],
        },
      ],
      period: 360,
    });
    expect(checkDrum(round(0)).faults).toEqual([]);
    expect(checkDrum(round(8)).faults).toEqual([]);
    const [track] = round(8).tracks;
    const open: DrumTrack = { name: '1-2', points: [...(track?.points.slice(0, -1) ?? []), [360, 7]] };
    expect(checkDrum({ ...round(8), tracks: [open] }).faults.join()).toContain('do not agree');
  });

  it('which gear is in at a detent: by travel, one at a time', () => {
    const { gears } = checkDrum({ ...WELL, inMm: 7, detentsDeg: [5, 30, 55, 105, 158] });
    expect(gears?.map(({ track, side }) => (track === null ? 'neutral' : `${track}${side}`))).toEqual([
      '1-2+',
      'neutral',
      '1-2-',
      '3-4+',
      '3-4-',
    ]);
    expect(checkDrum(WELL).gears).toBeNull();
  });

  it('any drum, looked at every hundredth of a degree: the same stretches', () => {
    const track = (name: string) =>
      fc
        .array(fc.tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: -9, max: 9 })), {
          minLength: 2,
          maxLength: 8,
        })
        .map((steps): DrumTrack => {
          let at = 0;
          const points = steps.map(([step, x], i) => [i === 0 ? 0 : (at += step), x] as const);
          return { name, points: [...points, [120 + at, 0] as const] };
        });
    fc.assert(
      fc.property(track('a'), track('b'), track('c'), (...tracks) => {
        const end = Math.min(...tracks.map(({ points }) => points.at(-1)?.[0] ?? 0));
        const drum: Drum = { tracks, touchMm: 3.3, radiusMm: 40 };
        const { both, neutral } = checkDrum(drum);
        let [twice, none] = [0, 0];
        const step = 0.01;
        for (let at = step / 2; at < end; at += step) {
          const touched = tracks.filter((one) => Math.abs(travelAt(one, at)) >= 3.3).length;
          if (touched > 1) twice += step;
          if (touched === 0) none += step;
        }
        // each stretch has two ends, each off by half a step at the most
        expect(Math.abs(length(both) - twice)).toBeLessThanOrEqual(step * (2 * both.length + 2));
        expect(Math.abs(length(neutral) - none)).toBeLessThanOrEqual(step * (2 * neutral.length + 2));
        for (const list of [both, neutral])
          list.forEach(([from, to], i) => {
            expect(to).toBeGreaterThan(from);
            if (i > 0) expect(from).toBeGreaterThan(list[i - 1]?.[1] ?? Number.POSITIVE_INFINITY);
          });
      }),
      { numRuns: 25 },
    );
  });

  it('refuses what is no drum, by its field', () => {
    for (const [field, change] of [
      ['tracks', { tracks: [] }],
      ['tracks[0].points', { tracks: [{ name: 'a', points: [[0, 0]] }] }],
      [
        'tracks[0].points[1][0]',
        {
          tracks: [
            {
              name: 'a',
              points: [
                [5, 0],
                [5, 1],
              ],
            },
          ],
        },
      ],
      ['tracks[1].name', { tracks: [WELL.tracks[0], WELL.tracks[0]] }],
      [
        'tracks',
        {
          tracks: [
            {
              name: 'a',
              points: [
                [0, 0],
                [5, 1],
              ],
            },
            {
              name: 'b',
              points: [
                [6, 0],
                [9, 1],
              ],
            },
          ],
        },
      ],
      ['touchMm', { touchMm: 0 }],
      ['radiusMm', { radiusMm: 0 }],
      ['inMm', { inMm: 1 }],
      [
        'tracks[0].points[0][1]',
        {
          tracks: [
            {
              name: 'a',
              points: [
                [0, Number.NaN],
                [5, 1],
              ],
            },
          ],
        },
      ],
    ] as [string, Partial<Drum>][])
      expect(() => checkDrum({ ...WELL, ...change }))
        .withContext(field)
        .toThrowMatching((error) => error.field === field);
  });
});
