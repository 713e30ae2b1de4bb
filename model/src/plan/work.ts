import { gateAsks, orderAsWorked, planFaults, type Facts, type Operation, type PlanFault } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import { readingBase, type Readings } from '../frame/readings';
import type { SubjectOf } from '../frame/subjects';
import { compound, lesson, sealant, stepPhoto, stepTime } from './readings';
import type { Work } from './schema';
import { toolOf, type ToolId } from '../frame/tools';
import { neededParts, type AllWork, type NeededPart } from '../frame/work';
import { factsOf } from './facts';
import { planParts, type PlanStep } from './steps';
import { metalOf, type Metal } from './metal';
import { sheetNumbers } from './numbers';
import { NOTHING, openOf, standings, textOf, type Open, type GivenOfSteps, type StepState, type Wait } from './stand';

export interface WorkState {
  readonly axle: AxleName;
  readonly work: Work;
  readonly facts: Facts;
  readonly steps: readonly StepState[];
  /** The first that is neither done nor left out nor passed. */
  readonly next: StepState | null;
  readonly faults: readonly PlanFault[];
  readonly metal: Metal;
  readonly parts: readonly NeededPart[];
  /** Tools of what is still to be done, each with its steps. */
  readonly tools: readonly { readonly id: ToolId; readonly steps: readonly string[] }[];
  /** Since when sealant is on the face, or when the face was closed on it; null where neither is so. */
  readonly sealant: Open | null;
  /** When the first of its steps was done, and the last; null before that. What lies between is calendar time. */
  readonly from: string | null;
  readonly to: string | null;
  readonly minutes: { readonly planned: number; readonly taken: number; readonly left: number; readonly waits: number };
}

const HAND_OVER: PlanStep = 'hand-over';
/** Minutes that steps of this axle took, by what was read of each. */
function takenOf(name: AxleName, readings: Readings): number {
  let minutes = 0;
  for (const reading of readings.values()) {
    const { what, axle } = reading.subject as SubjectOf & { readonly axle?: string };
    if (what === stepTime.what && axle === name) minutes += readingBase(reading) / 60;
  }
  return minutes;
}

/**
 * The order of work of an axle with what has been done.
 * @param all every step and part that there is
 * @param given what other capabilities know of its steps
 * @throws InputError on `job` where the unit is none that the job puts in, or naming a fact that does not go with the others
 */
export function workState(
  name: AxleName,
  axle: Axle,
  readings: Readings,
  all: AllWork,
  given: GivenOfSteps,
): WorkState | null {
  const { work } = axle;
  const facts = factsOf(axle);
  if (!work || !facts) return null;
  const ordered = orderAsWorked(all.order(facts), work.own, work.moves);
  const skipped = new Map(work.skipped.map(({ id, why }) => [id, why]));
  const other: AxleName = name === 'rear' ? 'front' : 'rear';
  const known = standings(name, axle, { ordered, facts, readings }, given);
  const isDone = (id: string): boolean => skipped.has(id) || known.get(id)?.choice === 'done';
  const titles = new Map(ordered.map(({ id, title }) => [id, title]));
  const over = known.get(HAND_OVER)?.choice === 'done';
  // Only work on the metal goes past what it rests on: teeth that were counted early have taken nothing out.
  const wentBy = new Set(
    ordered.filter(({ id, acts }) => acts.length > 0 && known.get(id)?.choice === 'done').flatMap(({ after }) => after),
  );
  const isPassed = ({ id, closedBy }: Operation): boolean =>
    !isDone(id) && (over || wentBy.has(id) || (closedBy !== null && known.get(closedBy)?.choice === 'done'));
  const passed = new Set(ordered.filter(isPassed).map(({ id }) => id));
  const parts = neededParts(ordered, all.parts);
  const missingPart = (step: Operation): Wait[] =>
    step.parts.flatMap((id): Wait[] => {
      const listed = work.parts.find((one) => one.id === id);
      // A list that nobody has made asks for nothing yet.
      if (work.parts.length === 0 || !listed || listed.state === 'here') return [];
      return [{ for: 'part', what: `${listed.name}: ${listed.state}`, id }];
    });
  const missingTool = (step: Operation): Wait[] =>
    step.tools.flatMap((id): Wait[] =>
      work.tools.flatMap((one): Wait[] => {
        if (one.id !== id || (one.state !== 'missing' && one.state !== 'lent')) return [];
        const { name } = toolOf(one.id);
        return [
          { for: 'tool', what: one.state === 'lent' ? `${name}: lent${one.with && ` to ${one.with}`}` : name, id },
        ];
      }),
    );
  const steps = ordered.map((step): StepState => {
    const { id } = step;
    const stands = known.get(id) ?? NOTHING;
    const { records, holds, missing, reading, byReading } = stands;
    const why = skipped.get(id);
    const status = why !== undefined ? 'skipped' : stands.choice;
    const time = readings.get(stepTime.key({ axle: name, step: id }));
    const photos = readings.get(stepPhoto.key({ axle: name, step: id }));
    const waits: Wait[] =
      status === 'skipped' || status === 'done'
        ? []
        : [
            ...step.after
              .filter((before) => titles.has(before) && !isDone(before) && !passed.has(before))
              .map((before): Wait => ({ for: 'step', what: titles.get(before) ?? before, id: before })),
            ...holds,
            ...missingTool(step),
            ...missingPart(step),
          ];
    return {
      step,
      status,
      why: why ?? '',
      passed: passed.has(id),
      done: reading,
      byReading,
      takenMinutes: time ? readingBase(time) / 60 : null,
      records,
      photos: photos?.value.of === 'photos' ? photos.value.photos : [],
      numbers: [...sheetNumbers(name, step, axle), ...(given.steps?.get(id)?.numbers?.() ?? [])],
      lesson: textOf(readings.get(lesson.key({ axle: name, step: id }))),
      lessonBefore: textOf(readings.get(lesson.key({ axle: other, step: id }))),
      waits,
      stops: holds.filter((one) => one.for === 'stop'),
      missing,
      compound: openOf(readings.get(compound.key({ axle: name, step: id }))),
    };
  });
  const left = steps.filter((one) => (one.status === 'open' || one.status === 'failed') && !one.passed);
  const sum = (of: readonly StepState[], minutes: (one: StepState) => number): number =>
    of.reduce((total, one) => total + minutes(one), 0);
  const counted = steps.filter(({ status }) => status !== 'skipped');
  const ends = steps
    .filter(({ status }) => status === 'done')
    .map(({ done }) => done?.at ?? '')
    .filter(Boolean)
    .sort();
  const tools = new Map<ToolId, string[]>();
  for (const { step } of left)
    for (const id of step.tools as readonly ToolId[]) tools.set(id, [...(tools.get(id) ?? []), step.id]);
  return {
    axle: name,
    work,
    facts,
    steps,
    next: left[0] ?? null,
    metal: metalOf(steps),
    faults: planFaults(ordered, new Set(skipped.keys())).filter(
      (fault) => fault.kind !== 'no-gate' || gateAsks(facts)[fault.gate].length > 0,
    ),
    parts,
    tools: [...tools].map(([id, of]) => ({ id, steps: of })),
    sealant: openOf(readings.get(sealant.key({ axle: name }))),
    from: ends[0] ?? null,
    to: ends.at(-1) ?? null,
    minutes: {
      planned: sum(counted, ({ step }) => step.minutes),
      // Of every step that anybody did: also of those that the plan has no more.
      taken: takenOf(name, readings),
      left: sum(left, ({ step }) => step.minutes),
      waits: sum(left, ({ step }) => step.waitsHours),
    },
  };
}

/** The parts list of a plan: what is not on it yet, as it begins. */
export function newParts(
  needed: readonly NeededPart[],
  ringBolts: number | null,
  unit: Axle['unit']['type'],
): Work['parts'] {
  // No difference in speed at all: what a spool or a welded unit breaks, it breaks whole (common practice).
  const spare = unit === 'spool' ? [{ id: 'spare-unit', ...planParts['spare-unit'] }] : [];
  return [...needed, ...spare].map(({ id, name, count }) => ({
    id,
    name,
    count: id === 'ring-bolts' && ringBolts !== null ? ringBolts : count,
    state: 'needed',
    supplier: '',
    price: null,
    promised: null,
    number: '',
  }));
}
