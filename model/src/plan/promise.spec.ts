import { jobOf, done, entry, keys, look } from '../testing/bench';
import { entryOf } from '@hot-spline/core';
import { inForce } from '../frame/readings';
import { assembled } from '../mesh/readings';
import { subjects } from '../assembly/subjects';
import { promiseOf, quantile, roundsLeft, ROUNDS_AFTER_A_MISS, USUAL_ROUNDS } from './promise';
import { stepTime } from './readings';
import { timesOf } from '../assembly/times';
import type { JobTimes } from './promise';

const took = (steps: Record<string, number>, more: Partial<JobTimes> = {}): JobTimes => ({
  axle: 'rear',
  job: 'ratio-swap',
  steps,
  rounds: 0,
  days: null,
  ...more,
});

describe('hours and rounds that are promised', () => {
  const { work } = look(jobOf('ratio-swap'));
  const planned = work.minutes.left;
  const loop = work.steps
    .filter(({ step }) => ['trial-carrier', 'backlash', 'pattern', 'next-move'].includes(step.id))
    .reduce((sum, { step }) => sum + step.minutes, 0);

  it('goes by the plan until the shop has three times of a step, the loop as often as it is expected', () => {
    const first = promiseOf(work, [], null);
    expect(first.rounds).toBe(USUAL_ROUNDS);
    expect(first.handsOnMinutes).toBeCloseTo(planned + (USUAL_ROUNDS - 1) * loop, 6);
    expect([first.ownSteps, first.fromMinutes, first.toMinutes]).toEqual([
      0,
      first.handsOnMinutes,
      first.handsOnMinutes,
    ]);
    const raise = work.steps.find(({ step }) => step.id === 'raise')?.step.minutes ?? 0;
    const two = promiseOf(work, [took({ raise: 90 }), took({ raise: 90 })], null);
    expect(two.handsOnMinutes).toBeCloseTo(first.handsOnMinutes, 6);
    // Median 30, quarters 25 and 60 of 20, 30, 90 [exact: linear between neighbours]
    const three = promiseOf(work, [took({ raise: 20 }), took({ raise: 30 }), took({ raise: 90 })], null);
    expect(three.ownSteps).toBe(1);
    expect(three.handsOnMinutes - first.handsOnMinutes).toBeCloseTo(30 - raise, 6);
    expect(three.fromMinutes - first.handsOnMinutes).toBeCloseTo(25 - raise, 6);
    expect(three.toMinutes - first.handsOnMinutes).toBeCloseTo(60 - raise, 6);
  });

  it('rounds follow from the chance of the next one; without it from the shop’s own set-ups', () => {
    expect(roundsLeft(1, [])).toBe(1);
    expect(roundsLeft(0, [])).toBeCloseTo(1 + ROUNDS_AFTER_A_MISS, 9);
    expect(roundsLeft(0.5, [])).toBeCloseTo(1 + 0.5 * ROUNDS_AFTER_A_MISS, 9);
    expect(
      roundsLeft(
        null,
        [4, 5, 3].map((rounds) => took({}, { rounds })),
      ),
    ).toBe(4);
    expect(
      roundsLeft(
        null,
        [4, 5].map((rounds) => took({}, { rounds })),
      ),
    ).toBe(USUAL_ROUNDS);
  });

  it('the calendar is apart from the hands, and of jobs of the same kind alone', () => {
    const jobs = [3, 9, 4].map((days) => took({}, { days }));
    expect(promiseOf(work, jobs, null).days).toEqual({ median: 4, jobs: 3 });
    expect(promiseOf(work, [...jobs.slice(1), took({}, { days: 4, job: 'overhaul' })], null).days).toBeNull();
    expect(promiseOf(work, [], null).waitsHours).toBe(work.minutes.waits);
    expect(quantile([], 0.5)).toBeNaN();
  });

  it('learns from what was written: minutes by step, rounds, days from the first step to the hand-over', () => {
    const build = jobOf('ratio-swap');
    const time = entry(stepTime.of(keys('raise')), { of: 'number', counts: 'one', entries: [entryOf(25, 'min')] });
    const round = (n: number) =>
      entry(assembled.of({ axle: 'rear', assembly: String(n) }), {
        of: 'assembly',
        pinion: [],
        left: [],
        right: [],
        leftNotches: 0,
        rightNotches: 0,
      });
    const over = { ...done('hand-over'), at: '2026-11-29T16:00:00.000Z' };
    const ledger = [done('brief'), time, round(0), round(1), round(2), over];
    expect(timesOf(build, inForce(ledger, subjects))).toEqual([
      { axle: 'rear', job: 'ratio-swap', steps: { raise: 25 }, rounds: 2, days: 4 },
    ]);
    expect(timesOf(build, inForce([], subjects))).toEqual([]);
    // Over the end of a leap year's February and of a year: 28 Feb to 1 Mar 2028 are three days, 31 Dec to 1 Jan two [exact].
    const days = (from: string, to: string) =>
      timesOf(
        build,
        inForce(
          [
            { ...done('brief'), at: from },
            { ...over, at: to },
          ],
          subjects,
        ),
      )[0]?.days;
    expect(days('2028-02-28T08:00:00.000Z', '2028-03-01T08:00:00.000Z')).toBe(3);
    expect(days('2027-12-31T08:00:00.000Z', '2028-01-01T08:00:00.000Z')).toBe(2);
    expect(days('2026-01-01T08:00:00.000Z', '2027-01-01T08:00:00.000Z')).toBe(366);
  });
});
