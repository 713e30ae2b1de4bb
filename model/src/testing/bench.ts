import { entryOf, type Job } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { newBuild } from '../start/new-build';
import type { Axle, Build } from '../document/schema';
import type { LedgerEntry, Reading, Signature } from '../frame/readings';
import { newAxleSpec } from '../library/new-spec';
import { newWork } from '../plan/new-work';
import { STEP_READINGS, stepDone, stepSaid } from '../plan/readings';
import { UNIT_KIND } from '../plan/facts';
import { testId } from './builds';

/** A build whose rear axle is described and has this job. */
export function jobOf(job: Job, change: (axle: Axle) => unknown = () => undefined): Build {
  const build = newBuild('Test');
  const axle = build.axles.rear;
  if (!axle) throw new Error('no rear axle');
  axle.identity = {
    ...newAxleSpec('Test axle', 'integral-head-shim', 'measured'),
    retention: { value: 'c-clips', origin: 'measured' },
    ringBolts: { value: { thread: 'M10x1.25', count: 10, hand: 'right' }, origin: 'measured' },
  };
  change(axle);
  axle.work = { ...newWork(job, UNIT_KIND[axle.unit.type]), ...axle.work };
  return build;
}
/** Read, chosen or written by the shop's own Ines on the day of these tests. */
export const entry = (subject: Reading['subject'], value: Reading['value']): Reading => ({
  kind: 'reading',
  id: testId(),
  at: '2026-11-26T08:00:00.000Z',
  who: 'Ines',
  subject,
  value,
  state: {},
  instrument: 'By hand',
});
export const keys = (step: string) => ({ axle: 'rear' as const, step });
export const done = (step: string) => entry(stepDone.of(keys(step)), { of: 'choice', choice: 'done' });
export const said = (step: string, record: string, text: string) =>
  entry(stepSaid.of({ ...keys(step), record }), { of: 'text', text });
export const read = (
  kind: keyof typeof STEP_READINGS,
  step: string,
  record: string,
  typed: number,
  unit: Parameters<typeof entryOf>[1],
) =>
  entry(STEP_READINGS[kind].of({ ...keys(step), record }), {
    of: 'number',
    counts: 'one',
    entries: [entryOf(typed, unit)],
  });
export const sign = (gate: string, note?: string): Signature => ({
  kind: 'signature',
  id: testId(),
  at: '2026-11-26T08:00:00.000Z',
  who: 'Ines',
  gate,
  name: 'Ines',
  figures: {},
  ...(note === undefined ? {} : { note }),
});
/** What is known of the build on the day of these tests. */
export const look = (build: Build, ledger: readonly LedgerEntry[] = []) => {
  const derived = deriveBuild(build, ledger, { today: '2026-11-26' });
  const work = derived.work.rear;
  if (!work) throw new Error('no work');
  return {
    derived,
    work,
    step: (id: string) => work.steps.find(({ step }) => step.id === id),
    finding: (id: string) => derived.findings.find((one) => one.id === id),
  };
};
