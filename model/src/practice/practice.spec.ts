import { BOX_SHAFTS, entryOf, type BoxShaft } from '@hot-spline/core';
import { BOX_LESSON, LESSONS, inTruth, trueBoxFloat } from '@hot-spline/core/practice';
import { deriveBuild } from '../assembly/derive';
import { buildSchema } from '../document/schema';
import { boxFloat, boxShim } from '../box/readings';
import { reading, testId } from '../testing/builds';
import type { LedgerEntry } from '../frame/readings';
import { assembled } from '../mesh/readings';
import { boxFloatScore, practiceBacklash, practicePlace, practiceScore } from './score';
import { boxFloatsOf, practiceAxleOf, practiceBuild } from './start';

const together = (n: number, pinion: number, left: number, right: number, minute: number): LedgerEntry => {
  const mm = (value: number) => ({ typed: `${value} mm`, value, unit: 'mm' as const });
  return {
    kind: 'reading',
    id: testId(),
    at: new Date(Date.UTC(2026, 0, 2, 3, minute)).toISOString(),
    who: '',
    subject: assembled.of({ axle: 'rear', assembly: String(n) }),
    value: {
      of: 'assembly',
      pinion: [mm(pinion)],
      left: [mm(left)],
      right: [mm(right)],
      leftNotches: 0,
      rightNotches: 0,
    },
    state: {},
    instrument: 'Micrometer',
  };
};

describe('practice', () => {
  it('every lesson and a random axle make a build that is valid and does not say its truth', () => {
    for (const lesson of [...LESSONS.map(({ id }) => id), null]) {
      const build = practiceBuild({ lesson, seed: 5 });
      expect(buildSchema.parse(build)).toEqual(build);
      expect(JSON.stringify(build)).not.toContain('deeperMm');
      expect(practiceAxleOf(build)?.construction).toBe(build.axles.rear?.identity?.construction.value as never);
    }
  });

  it('scores assemblies, minutes and the truth, beside the rule of thumb and the advisor', () => {
    const build = practiceBuild({ lesson: 'first-axle', seed: 0 });
    const axle = practiceAxleOf(build);
    if (!axle) throw new Error('no axle');
    const { deeperMm, closerMm } = axle.truth;
    const shim = Number((axle.startShimMm + deeperMm).toFixed(3));
    const ledger = [
      together(0, axle.startShimMm, 6, 6, 0),
      together(1, shim, Number((6 + closerMm).toFixed(3)), Number((6 - closerMm).toFixed(3)), 30),
    ];
    const { mesh, preload } = deriveBuild(build, ledger);
    const state = mesh.rear;
    if (!state) throw new Error('no set-up');
    const place = practicePlace(state);
    expect(place?.ringShiftMm).toBeCloseTo(closerMm, 3);
    const score = practiceScore(axle, state, preload.rear ?? null, 30);
    expect([score.assemblies, score.spacers, score.minutes]).toEqual([1, 0, 30]);
    expect(score.right.pinionShimMm).toBeCloseTo(shim, 3);
    expect(score.inSpec).toBe(inTruth(axle, score.right));
    for (const other of [score.ruleOfThumb, score.advisor]) expect(other === null || other >= 0).toBeTrue();
    // in a trial it reads more by what closing up will take
    if (!place) throw new Error('no place');
    const [trial = 0] = practiceBacklash(axle, place, 8, false);
    const [final = 0] = practiceBacklash(axle, place, 8, true);
    expect(trial - final).toBeCloseTo(axle.closingMm, 9);
  });

  it('a box whose floats are hidden: by the rule one shim a shaft is right', () => {
    const build = practiceBuild({ lesson: BOX_LESSON.id, seed: 0 });
    expect(buildSchema.parse(build)).toEqual(build);
    expect(JSON.stringify(build)).not.toContain('roomMm');
    const box = boxFloatsOf(build);
    if (!box) throw new Error('no box');
    const tried = (attempt: number, shaft: BoxShaft, shimMm: number): LedgerEntry[] => [
      reading(boxShim.of({ shaft, attempt: String(attempt) }), entryOf(shimMm, 'mm')),
      {
        ...reading(boxFloat.of({ shaft, attempt: String(attempt) }), entryOf(1, 'mm')),
        value: {
          of: 'number',
          counts: 'mean',
          entries: [0, 0.002].map((more) => entryOf(trueBoxFloat(box, shaft, shimMm) + more, 'mm')),
        },
      },
    ];
    const first = BOX_SHAFTS.flatMap((shaft) => tried(1, shaft, box.shafts[shaft].startShimMm));
    const jobs = deriveBuild(build, first).box?.floats;
    if (!jobs) throw new Error('no jobs');
    expect(boxFloatScore(box, jobs)).toEqual(jasmine.objectContaining({ shims: 0, inSpec: false }));
    const second = BOX_SHAFTS.flatMap((shaft) => tried(2, shaft, jobs[shaft].nextShimMm ?? 0));
    const done = deriveBuild(build, [...first, ...second]).box?.floats;
    if (!done) throw new Error('no jobs');
    const score = boxFloatScore(box, done);
    expect([score.shims, score.inSpec]).toEqual([2, true]);
    for (const { shaft, shimMm } of score.right) expect(done[shaft].tries.at(-1)?.shimMm).toBeCloseTo(shimMm, 2);
    expect(boxFloatsOf(practiceBuild({ lesson: null, seed: 4 }))).toBeNull();
    expect(practiceAxleOf(build)).toBeNull();
  });
});
