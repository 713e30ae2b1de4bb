import { dayNumber } from '../base/days';
import { AXLES } from '../base/names';
import type { Build } from '../frame/document';
import { readingBase, type Readings } from '../frame/readings';
import { assembled } from '../mesh/readings';
import type { JobTimes } from '../plan/promise';
import { stepDone, stepTime } from '../plan/readings';

/** What a build teaches of hours and days. */
export function timesOf(build: Build, readings: Readings): readonly JobTimes[] {
  return AXLES.flatMap((axle): JobTimes[] => {
    const work = build.axles[axle]?.work;
    if (!work) return [];
    const steps: Record<string, number> = {};
    const ends: string[] = [];
    let [rounds, over] = [0, ''];
    for (const reading of readings.values()) {
      const time = stepTime.read(reading.subject);
      if (time?.axle === axle) steps[time.step] = readingBase(reading) / 60;
      const end = stepDone.read(reading.subject);
      if (end?.axle === axle && reading.value.of === 'choice' && reading.value.choice === 'done') {
        ends.push(reading.at);
        if (end.step === 'hand-over') over = reading.at;
      }
      const put = assembled.read(reading.subject);
      if (put?.axle === axle && put.assembly !== '0') rounds += 1;
    }
    if (Object.keys(steps).length === 0 && over === '') return [];
    const first = ends.sort()[0];
    if (over === '' || !first) return [{ axle, job: work.job, steps, rounds: 0, days: null }];
    return [{ axle, job: work.job, steps, rounds, days: dayNumber(over) - dayNumber(first) + 1 }];
  });
}
