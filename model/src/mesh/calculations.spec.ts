import { InputError } from '@hot-spline/core';
import { calculations } from '../assembly/calculations';

const run = (name: string, input: unknown) => calculations.run(name, input);
const refuses = (name: string, input: unknown, field: string): void => {
  expect(() => run(name, input)).toThrowMatching((error) => error instanceof InputError && error.field === field);
};

describe('calculations of the set-up', () => {
  it('give what the public list of calculations names [exact; common practice for the chain and the bore]', () => {
    const listed: [string, object, object][] = [
      ['mesh.depthFromBore', { boreDiameterMm: 76.2, capDepthMm: 25.4, readingMm: 80 }, { axisToHeadMm: 67.3 }],
      [
        'mesh.sides',
        { leftMm: 6.4, rightMm: 6.1, ringSide: 'left', ringTowardsPinionMm: 0.25, preloadChangeMm: 0 },
        { leftMm: 6.65, rightMm: 5.85 },
      ],
      ['mesh.notches', { threadPitchMm: 1.5, notchesPerTurn: 24, moveMm: 0.1875 }, { notches: 3 }],
      [
        'mesh.sensitivity',
        { ringTeeth: 41, pinionTeeth: 11, pressureAngleDeg: 20 },
        { backlashPerRingMm: 0.703, backlashPerPinionMm: 0.189 },
      ],
      ['shim.float', { shimMm: 1.346, measuredMm: 0.305, wantedMm: 0.203 }, { shimMm: 1.448 }],
      ['preload.total', { totalNm: 3.2, pinionNm: 2.2, ratio: 4.1 }, { carrierNm: 4.1 }],
      [
        'mesh.chain',
        {
          links: [
            { name: 'housing', mm: 64.7, sign: 1 },
            { name: 'nominal', mm: 63.5, sign: -1 },
            { name: 'mark', mm: -0.2, sign: -1 },
            { name: 'gasket', mm: 0.2, sign: 1 },
          ],
        },
        { totalMm: 1.6 },
      ],
      [
        'mesh.depthShim',
        {
          oldShimMm: 1.1,
          oldMarkMm: 0.05,
          newMarkMm: -0.03,
          oldBearingHeightMm: 30.1,
          newBearingHeightMm: 30.06,
          addingShimMovesPinion: 'deeper',
          tallerBearingMovesPinion: 'deeper',
        },
        { shimMm: 1.22 },
      ],
    ];
    for (const [name, input, wanted] of listed) {
      const found = run(name, input);
      for (const [key, value] of Object.entries(wanted))
        expect(found[key])
          .withContext(`${name} ${key}`)
          .toBeCloseTo(value as number, 3);
    }
  });

  it('the advisor never sees more than a builder does, and gets there', () => {
    const hidden = run('practice.assemble', { seed: 12, pinionShimMm: 1, ringShiftMm: 0 });
    expect(Object.keys(hidden)).not.toContain('truth');
    const { construction, ringTeeth, pinionTeeth, specBacklashMm } = hidden;
    let move: unknown = { pinionShimMm: hidden['startShimMm'], ringShiftMm: 0 };
    const tries: object[] = [];
    for (let assembly = 0; assembly < 8; assembly++) {
      const { backlashMm, drive, coast } = run('practice.assemble', { seed: 12, ...(move as object), assembly });
      tries.push({ ...(move as object), backlashMm, drive, coast });
      const { done, next } = run('mesh.advise', { construction, ringTeeth, pinionTeeth, specBacklashMm, tries });
      if (done) break;
      move = next;
    }
    expect(tries.length).toBeLessThan(8);
  });

  it('bad input is refused by the name of its field', () => {
    const backlash = { readingsMm: [0.2, 0.2, 0.2, 0.2], specMm: [0.15, 0.25] };
    refuses('mesh.backlash', { ...backlash, readingsMm: [] }, 'readingsMm');
    refuses('mesh.backlash', { ...backlash, readingsMm: Array.from({ length: 200 }, () => 0.2) }, 'readingsMm');
    refuses('mesh.backlash', { ...backlash, readingsMm: [0.2, -0.2] }, 'readingsMm[1]');
    refuses('mesh.backlash', { ...backlash, specMm: [0.25, 0.15] }, 'specMm');
    refuses('mesh.notches', { threadPitchMm: 1.5, notchesPerTurn: 0, moveMm: 0.1 }, 'notchesPerTurn');
    refuses(
      'mesh.advise',
      { construction: 'electric-reduction', ringTeeth: 41, pinionTeeth: 11, specBacklashMm: [0.1, 0.2], tries: [] },
      'construction',
    );
    refuses('shim.pack', { targetMm: 1, stock: [{ thicknessMm: -1, count: 1 }] }, 'stock[0].thicknessMm');
    refuses('preload.collapsible', { readings: [], bandNm: [1, 2], instrumentUncertaintyNm: 0.1 }, 'readings');
    refuses(
      'preload.solid',
      {
        readings: [
          { shimMm: 1, torqueNm: 1 },
          { shimMm: 2, torqueNm: 2 },
        ],
        bandNm: [1, 2],
        stock: [],
      },
      'readings',
    );
    refuses('practice.assemble', { seed: -1, pinionShimMm: 1, ringShiftMm: 0 }, 'seed');
  });
});
