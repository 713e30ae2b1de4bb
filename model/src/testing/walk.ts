import { entryOf, type Entry, type StepRecord, type UnitName } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import type { StepId } from '../assembly/steps';
import type { Build } from '../document/schema';
import type { LedgerEntry } from '../frame/readings';
import { partDecided } from '../inspect/readings';
import { TURNED, ratioTurns } from '../identity/readings';
import { inspectedParts } from '../inspect/parts';
import { ringBolts } from '../joint/readings';
import { jointState } from '../joint/state';
import { assembled, endFloat, ringRunout, sealDrag, sideSaid } from '../mesh/readings';
import { type SheetKey } from '../library/sheet';
import { recordSubject, type RecordState } from '../plan/stand';
import type { StepState } from '../plan/stand';
import { done, entry, said, sign } from './bench';

/** The same axle on the gears that it came with: what was read before is what it reads in the end. */
export function asBefore(ledger: readonly LedgerEntry[]): LedgerEntry[] {
  const of = (what: string, stage: string) => (one: LedgerEntry) =>
    one.kind === 'reading' && one.subject.what === what && (one.subject as { stage?: string }).stage === stage;
  const last = ledger.findLast(of('backlash', 'final'));
  return ledger.map((one) =>
    one.kind === 'reading' &&
    last?.kind === 'reading' &&
    one.subject.what === 'backlash' &&
    Reflect.get(one.subject, 'assembly') === '0'
      ? { ...one, value: last.value }
      : one,
  );
}

/** A number that its step lets pass: what the sheet says, else the middle of what it may be; ours where nothing says. */
function goodNumber(record: Extract<StepRecord, { of: 'number' }>, told: unknown): Entry {
  if (typeof told === 'object' && told !== null && 'typed' in told) return told as Entry;
  if (typeof told === 'object' && told !== null && 'low' in told) return told.low as Entry;
  const { min = 0, max = 45 } = record.range;
  const { atLeast = min, atMost } = record.pass ?? {};
  const value = atMost === undefined ? Math.max(atLeast, Math.min(45, max)) : (atLeast + atMost) / 2;
  return entryOf(value, (record.range.unit ?? '') as UnitName);
}

/** What does all that a step asks for, as in a job that goes well: its records, then what it misses of other sheets. */
function doStep(build: Build, ledger: readonly LedgerEntry[], { step, records }: StepState): LedgerEntry[] {
  const axle = build.axles.rear;
  if (!axle) throw new Error('no rear axle');
  const write = ({ record, said: already }: RecordState): LedgerEntry[] => {
    if (already !== null) return [];
    if (record.of === 'choice') return [said(step.id, record.id, record.choices[0] as string)];
    if (record.of === 'text') return [said(step.id, record.id, 'as it should be')];
    const told = record.sheet === undefined ? null : axle.identity?.sheet[record.sheet as SheetKey]?.value;
    const { ring, pinion } = axle.finalDrive;
    const teeth = { 'ring-teeth': ring, 'pinion-teeth': pinion, 'thread-hand': null }[record.agrees ?? 'thread-hand'];
    const counted = teeth === null ? null : entryOf(teeth, '');
    const value = { of: 'number' as const, counts: 'one' as const, entries: [counted ?? goodNumber(record, told)] };
    return [entry(recordSubject('rear', step.id, record), value)];
  };
  const elsewhere = (): LedgerEntry[] => {
    if (step.id === 'inspect')
      return inspectedParts(axle).map(({ id }) =>
        entry(partDecided.of({ axle: 'rear', part: id }), { of: 'choice', choice: 'run-on' }),
      );
    if (step.id === 'ratio-closed') {
      const { ring, pinion } = axle.finalDrive;
      return TURNED.map((of) =>
        entry(ratioTurns.of({ axle: 'rear', of }), {
          of: 'number',
          counts: 'one',
          // A wheel as often as the pinion has teeth: whole turns, so that what is typed says it.
          entries: [entryOf(of === 'prop' ? ring : pinion, '')],
        }),
      );
    }
    const drag = (nm: number) => ({ of: 'number' as const, counts: 'mean' as const, entries: [entryOf(nm, 'N·m')] });
    if (step.id === 'seal-drag') return [entry(sealDrag.of({ axle: 'rear' }), drag(0.1))];
    if (step.id === 'side-preload')
      return [entry(sideSaid.of({ axle: 'rear', method: 'feel' }), { of: 'choice', choice: 'right' })];
    if (step.id === 'float-trial' || step.id === 'float-final') {
      const read = axle.identity?.sheet.endFloat?.value.low ?? entryOf(0.1, 'mm');
      const float = (assembly: string, stage: 'trial' | 'final'): LedgerEntry =>
        entry(endFloat.of({ axle: 'rear', assembly, stage }), { of: 'number', counts: 'mean', entries: [read] });
      const { mesh } = deriveBuild(build, ledger);
      if (step.id === 'float-final') return [float(String(mesh.rear?.now?.number ?? 1), 'final')];
      // The one shim, measured as it goes in; its thickness is ours.
      const shim = { pinion: [], left: [entryOf(1.15, 'mm')], right: [], leftNotches: 0, rightNotches: 0, drawers: [] };
      return [entry(assembled.of({ axle: 'rear', assembly: '1' }), { of: 'assembly', ...shim }), float('1', 'trial')];
    }
    const limit = axle.identity?.sheet.runout?.value ?? entryOf(0.05, 'mm');
    if (step.id === 'run-out')
      return [entry(ringRunout.of({ axle: 'rear' }), { of: 'number', counts: 'mean', entries: [limit] })];
    const joint = step.id === 'ring-bolts' ? jointState('rear', axle, new Map()) : null;
    const ticks = Array.from({ length: joint?.bolts?.count ?? 0 }, (_, i) => String(i + 1));
    return (joint?.rounds ?? []).map(({ stage, torqueNm }) => ({
      ...entry(ringBolts.of({ axle: 'rear', stage }), { of: 'ticks', ticks }),
      state: { torque: `${(torqueNm ?? 0).toFixed(0)} N·m`, bolts: String(ticks.length) },
    }));
  };
  return [...records.flatMap(write), ...elsewhere(), done(step.id)];
}

/** Where readings of a set-up are taken: at the steps that ask for them. */
const TAKEN_AT: Partial<Record<StepId, (of: { what: string; assembly?: string; stage?: string }) => boolean>> = {
  'measure-shims': ({ what, assembly }) => what === 'assembly' && assembly === '0',
  'readings-before': ({ what, assembly }) => (what === 'backlash' || what === 'pattern') && assembly === '0',
  'trial-carrier': ({ what, assembly }) => what === 'assembly' && assembly !== '0',
  // A job without a trial puts it together once.
  'carrier-final': ({ what, assembly }) => what === 'assembly' && assembly !== '0',
  backlash: ({ what, stage }) => what === 'backlash' && stage === 'trial',
  pattern: ({ what, stage }) => what === 'pattern' && stage === 'trial',
  'pinion-preload': ({ what }) => what === 'pinion-torque',
  'total-torque': ({ what }) => what === 'total-torque',
  'final-readings': ({ what, stage }) => what !== 'total-torque' && stage === 'final',
};

/**
 * Works the rear axle step by step, each done only when it waits for nothing and misses nothing.
 * @param ledger what has been written before
 * @param setUp the readings of its set-up: each taken at its step
 * @param until the step that stays open; absent: to the end
 * @returns the whole ledger
 * @throws Error naming the step that can't be done, and why
 */
export function walk(
  build: Build,
  ledger: readonly LedgerEntry[],
  { setUp = [], until }: { readonly setUp?: readonly LedgerEntry[]; readonly until?: string } = {},
): LedgerEntry[] {
  let now = [...ledger];
  const left = new Set(setUp);
  let last = '';
  for (let i = 0; i < 120; i++) {
    const { work, gates } = deriveBuild(build, now, { today: '2026-11-26' });
    const next = work.rear?.next ?? null;
    if (next === null || next.step.id === until) return now;
    const stuck = ({ step }: StepState, why: readonly string[]): void => {
      if (why.length > 0) throw new Error(`“${step.title}” can’t be done: ${why.join('; ')}`);
    };
    // Done is the last of what was written for a step: what it misses all the same is what nobody can give.
    const before = work.rear?.steps.find(({ step }) => step.id === last);
    if (before) stuck(before, before.missing);
    const stops = before?.records.filter(({ verdict }) => verdict === 'stop') ?? [];
    if (before)
      stuck(
        before,
        stops.map(({ record, said: read, against }) => `${record.label} ${read ?? ''} against ${against}`),
      );
    // A part that is not here is said at its step, and holds nobody who has it in hand.
    const holds = next.waits.filter((one) => one.for !== 'part' || one.holds);
    stuck(
      next,
      holds.map(({ what }) => what),
    );
    const { gate } = next.step;
    const state = gate && gates.rear?.[gate];
    if (state) {
      const open = state.needs.filter(({ met }) => !met);
      stuck(
        next,
        open.map(({ need, says }) => `${need}: ${says}`),
      );
      now = [...now, { ...sign(state.key), figures: { ...state.figures } }];
    } else {
      const at = TAKEN_AT[next.step.id as StepId];
      const taken = [...left].filter((one) => one.kind === 'reading' && at?.(one.subject));
      for (const one of taken) left.delete(one);
      const read = [...now, ...taken];
      now = [...read, ...doStep(build, read, next)];
    }
    last = next.step.id;
  }
  throw new Error(`the order of work has no end, at ${last}`);
}
