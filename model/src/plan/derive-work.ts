import type { PlanFault } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { toolOf } from '../frame/tools';
import { planFigures } from './ids';
import type { PlanStep } from './steps';
import { samePattern } from './tool-pattern';
import type { RecordState } from './stand';
import type { StepState } from './stand';
import type { WorkState } from './work';
import * as words from './words';

/** A fault of the order, in words. */
export function faultText(fault: PlanFault, titles: ReadonlyMap<string, string>): string {
  const name = (id: string): string => `“${titles.get(id) ?? id}”`;
  switch (fault.kind) {
    case 'too-early':
      return `${name(fault.step)} stands before ${name(fault.needs)}, which it needs.`;
    case 'shut':
      return `${name(fault.step)} can’t be reached after ${name(fault.by)}.`;
    case 'before-gate':
      return `${name(fault.step)} can’t be taken back, and stands before Gate ${fault.gate}.`;
    case 'no-gate':
      return `Gate ${fault.gate} is left out.`;
    case 'stays-out':
      return `${fault.part}, taken off in ${name(fault.step)}, does not come back.`;
    case 'not-out':
      return `${fault.part} goes on in ${name(fault.step)} and never came off.`;
  }
}

const saidOf = (state: WorkState, step: PlanStep, record: string): RecordState | undefined =>
  state.steps.find((one) => one.step.id === step)?.records.find((one) => one.record.id === record);

const recordField = (axle: AxleName, step: string, record: string): string => `record-${step}-${record}-${axle}`;

/** Findings and figures of the work on one axle. */
export function deriveWork(name: AxleName, axle: Axle, state: WorkState, d: Derivation): void {
  const { work, steps, next, faults, minutes, facts } = state;
  const titles = new Map(steps.map(({ step }) => [step.id, step.title]));
  const common = { station: 'final', figures: [] } as const;
  const at = (field: string, tab?: string) => ({ sheet: 'work', ...(tab ? { tab } : {}), axle: name, field });
  const trade = 'order of work of common practice';
  d.figure({
    id: planFigures.left(name),
    label: 'Still to do, hands on',
    value: minutes.left * 60,
    quantity: 'time',
    scale: 'work',
    decimals: 0,
    rests: 'trade',
  });
  d.figure({
    id: planFigures.taken(name),
    label: 'Taken so far',
    value: minutes.taken * 60,
    quantity: 'time',
    scale: 'work',
    decimals: 0,
    rests: 'measured',
  });
  const ended = steps.filter(({ status }) => status === 'done' || status === 'skipped').length;
  d.finding({
    ...common,
    id: `plan.${name}.next`,
    verdict: next === null ? 'fits' : 'not-yet',
    place: at(`step-${next?.step.id ?? 'brief'}-${name}`),
    rule: trade,
    facts: {
      axle: name,
      next: next?.step.title ?? '',
      done: fact(ended, 'count'),
      of: fact(steps.length, 'count'),
      left: fact(minutes.left * 60, 'time', 'work'),
    },
    say: words.begun,
  });
  if (next) waiting(name, next, d);
  if (faults.length > 0)
    d.finding({
      ...common,
      id: `plan.${name}.order`,
      verdict: 'stop',
      place: at(`order-${name}`),
      rule: 'what a step needs comes before it, what closes it after; nothing that can’t be taken back before its gate; parts out are parts in [exact]',
      facts: {
        axle: name,
        // What can’t be taken back is said before what is only awkward.
        faults: [...faults]
          .sort((a, b) => Number(b.kind === 'before-gate') - Number(a.kind === 'before-gate'))
          .slice(0, 3)
          .map((fault) => faultText(fault, titles))
          .join(' '),
        count: fact(faults.length, 'count'),
      },
      say: words.order,
    });
  if (work.hold)
    d.finding({
      ...common,
      id: `plan.${name}.hold`,
      verdict: 'watch',
      place: at(`hold-${name}`),
      rule: 'hands-on and calendar time are kept apart (common practice)',
      facts: {
        axle: name,
        for: work.hold.for,
        why: work.hold.why,
        since: work.hold.since,
        until: work.hold.until ?? '',
      },
      say: words.hold,
    });
  if (!axle.identity?.retention)
    d.finding({
      ...common,
      id: `plan.${name}.retention`,
      verdict: 'not-yet',
      place: { sheet: 'brief', tab: 'axle', axle: name, field: `axle-spec-${name}` },
      rule: trade,
      facts: { axle: name },
      say: words.retention,
    });
  const drawnOn = steps.find(({ step }) => step.acts.includes('ring-on'));
  if (facts.ringGear === 'pulled-on' && drawnOn && drawnOn.status !== 'done')
    d.finding({
      ...common,
      id: `plan.${name}.drawn-on`,
      verdict: 'watch',
      place: at(`step-${drawnOn.step.id}-${name}`),
      rule: 'heated is the default; with full torque on the bolts it is refused (common practice)',
      facts: { axle: name },
      say: words.drawnOn,
    });
  for (const { step, records } of steps)
    for (const { record, verdict, said, against } of records)
      if (verdict === 'stop')
        d.finding({
          ...common,
          id: `plan.${name}.record.${step.id}.${record.id}`,
          verdict,
          place: at(recordField(name, step.id, record.id), 'step'),
          rule: against === '' ? trade : against,
          facts: {
            axle: name,
            step: step.title,
            label: record.label,
            said: said ?? '',
            against,
            fails: (record.of === 'text' ? undefined : record.fails) ?? step.fails,
          },
          say: words.record,
        });
  stores(name, state, axle.identity?.sheet.adjusterWrench?.value ?? '', d);
  ends(name, state, d);
}

function waiting(axle: AxleName, { step, waits }: StepState, d: Derivation): void {
  // Steps before it are open by themselves; what else it waits for is said.
  const said = waits.filter((one) => one.for !== 'step');
  const [first] = said;
  if (!first) return;
  d.finding({
    id: `plan.${axle}.waits`,
    verdict: said.some((one) => one.for === 'sheet' || one.for === 'gate' || one.for === 'hand' || one.for === 'stop')
      ? 'stop'
      : 'watch',
    place: { sheet: 'work', tab: 'step', axle, field: `step-${step.id}-${axle}` },
    station: 'final',
    figures: [],
    rule: 'values out of memory or borrowed stop what can’t be taken back (common practice)',
    facts: { axle, step: step.title, what: said.map(({ what }) => what).join('; ') },
    say: words.waits,
  });
}

/** Parts and tools, before they are missed. */
function stores(axle: AxleName, { work, tools }: WorkState, adjusters: string, d: Derivation): void {
  const common = { station: 'final', figures: [] } as const;
  const wanted = new Set(tools.map(({ id }) => id));
  const missing = work.tools.filter(({ id, state }) => (state === 'missing' || state === 'lent') && wanted.has(id));
  if (missing.length > 0)
    d.finding({
      ...common,
      id: `plan.${axle}.tools`,
      verdict: 'watch',
      place: { sheet: 'parts', tab: 'tools', axle, field: `tool-${missing[0]?.id ?? ''}-${axle}` },
      rule: 'unfit tools are said before the job starts (common practice)',
      facts: { axle, tools: missing.map(({ id }) => toolOf(id).name).join(', ') },
      say: words.tools,
    });
  const pattern = work.tools.find(({ id }) => id === 'adjuster-wrench')?.pattern ?? '';
  if (wanted.has('adjuster-wrench') && samePattern(pattern, adjusters) === false)
    d.finding({
      ...common,
      id: `plan.${axle}.pattern`,
      verdict: 'stop',
      place: { sheet: 'parts', tab: 'tools', axle, field: `tool-pattern-adjuster-wrench-${axle}` },
      rule: 'a wrench fits the adjusters of its own carrier alone (common practice)',
      facts: { axle, wrench: pattern, carrier: adjusters },
      say: words.pattern,
    });
  const away = work.parts.filter(({ state }) => state !== 'here');
  if (away.length > 0)
    d.finding({
      ...common,
      id: `plan.${axle}.parts`,
      verdict: 'watch',
      place: { sheet: 'parts', tab: 'parts', axle, field: `part-${away[0]?.id ?? ''}-${axle}` },
      rule: 'everything in the house before it comes apart (common practice)',
      facts: {
        axle,
        parts: away.map(({ name, state }) => `${name} (${state})`).join(', '),
        last:
          away
            .map(({ promised }) => promised ?? '')
            .sort()
            .at(-1) ?? '',
      },
      say: words.parts,
    });
}

/** What is asked before it is closed, and what is said when it is. */
function ends(axle: AxleName, state: WorkState, d: Derivation): void {
  const { work, steps } = state;
  const common = { station: 'final', figures: [] } as const;
  const at = (field: string, tab?: string, sheet = 'work') => ({ sheet, ...(tab ? { tab } : {}), axle, field });
  // What a step that is still to come puts back is not over.
  const later = new Set(
    steps
      .filter(({ status, passed }) => (status === 'open' || status === 'failed') && !passed)
      .flatMap(({ step }) => step.returns.map(({ part }) => part)),
  );
  const out = work.trays.filter((one) => one.back < one.out && !later.has(one.part));
  const CLOSING: readonly string[] = ['cover', 'housing-in'] satisfies readonly PlanStep[];
  const closing = steps.findIndex(({ step }) => CLOSING.includes(step.id));
  const reached =
    closing >= 0 &&
    steps.slice(0, closing).every(({ status, passed }) => status === 'done' || status === 'skipped' || passed);
  if (out.length > 0 && reached)
    d.finding({
      ...common,
      id: `plan.${axle}.trays`,
      verdict: 'stop',
      place: at(`tray-${out[0]?.id ?? ''}-${axle}`, 'trays', 'parts'),
      rule: 'parts out are parts in, counted (common practice)',
      facts: { axle, left: out.map((one) => `${one.out - one.back} × ${one.part}`).join(', ') },
      say: words.trays,
    });
  const opened = steps.some(({ step, status }) => step.acts.includes('unit-open') && status !== 'skipped');
  if (saidOf(state, 'drain', 'magnet')?.said === 'a piece of a part' && !opened && state.facts.unitKind === 'plate')
    d.finding({
      ...common,
      id: `plan.${axle}.debris`,
      verdict: 'stop',
      place: at(recordField(axle, 'drain', 'magnet'), 'step'),
      rule: 'a piece of a part on the magnet opens the unit, whatever was planned (common practice)',
      facts: { axle },
      say: words.debris,
    });
  if (saidOf(state, 'fill', 'filled')?.said?.startsWith('dry'))
    d.finding({
      ...common,
      id: `plan.${axle}.dry`,
      verdict: 'stop',
      place: at(recordField(axle, 'fill', 'filled'), 'step'),
      rule: 'a dry unit that is handed over and forgotten is ruined (common practice)',
      facts: { axle },
      say: words.dry,
    });
  const cleaned =
    saidOf(state, 'clearances', 'cleaned')?.said === 'cleaned twice' ||
    saidOf(state, 'machining', 'cleaned')?.said === 'yes';
  if (work.cuts.length > 0 && !cleaned)
    d.finding({
      ...common,
      id: `plan.${axle}.cuts`,
      verdict: 'stop',
      place: at(`cut-${work.cuts[0]?.id ?? ''}-${axle}`, 'pass', 'inspect'),
      rule: 'after cutting the case is cleaned twice (common practice)',
      facts: { axle, where: work.cuts.map(({ where }) => where).join(', ') },
      say: words.cuts,
    });
  for (const { step, compound, status } of steps)
    // Whoever called the step done has finished it.
    if (compound?.closed === false && status !== 'done')
      d.finding({
        ...common,
        id: `plan.${axle}.compound.${step.id}`,
        verdict: 'watch',
        place: at(`step-${step.id}-${axle}`, 'step'),
        rule: 'what sets is finished once it is begun, or cleaned off and begun again (common practice)',
        facts: { axle, step: step.title },
        say: words.compound,
      });
  if (state.sealant?.closed === false)
    d.finding({
      ...common,
      id: `plan.${axle}.sealant`,
      verdict: 'watch',
      place: at(`step-cover-${axle}`, 'step'),
      rule: 'sealant is right for closing only for a moment, once it has skinned (common practice)',
      facts: { axle },
      say: words.sealant,
    });
  leaks(axle, state, d);
}

/** Of its pressure, what a locker may lose a minute: a guard of ours. */
export const LEAK_SHARE = 0.01;
/** Pressure lost a minute; null where it was not tested. */
export const lossPerMinute = (start: number | null, end: number | null, minutes: number | null): number | null =>
  start === null || end === null || minutes === null || minutes <= 0 || start <= 0
    ? null
    : Math.max(0, start - end) / minutes;

/** What a locker loses a minute. */
function leaks(axle: AxleName, state: WorkState, d: Derivation): void {
  const [start, end, held] = ['pressure', 'pressure-end', 'minutes'].map(
    (id) => saidOf(state, 'locker-line', id)?.base ?? null,
  );
  const loss = lossPerMinute(start ?? null, end ?? null, held ?? null);
  if (loss === null || typeof start !== 'number' || typeof held !== 'number') return;
  d.figure({
    id: planFigures.leak(axle),
    label: 'Locker loses a minute',
    value: loss,
    quantity: 'pressure',
    rests: 'measured',
  });
  d.finding({
    id: `plan.${axle}.leak`,
    verdict: loss > LEAK_SHARE * start ? 'stop' : loss > 0 ? 'watch' : 'fits',
    place: { sheet: 'work', tab: 'step', axle, field: recordField(axle, 'locker-line', 'pressure-end') },
    station: 'unit',
    figures: [planFigures.leak(axle)],
    rule: 'a leak test has a time and a loss per minute; 1 % a minute is a guard of ours',
    facts: { axle, loss: fact(loss, 'pressure'), minutes: fact(held, 'count') },
    say: words.leak,
  });
}
