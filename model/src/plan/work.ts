import { originOf } from '../library/origins';
import {
  entryBase,
  gateAsks,
  neededParts,
  orderAsWorked,
  orderOfWork,
  partOf,
  planFaults,
  toolOf,
  type AgreesWith,
  type Facts,
  type NeededPart,
  type Operation,
  type PartId,
  type PlanFault,
  type StepId,
  type StepRecord,
  type ToolId,
} from '@hot-spline/core';
import type { AxleName } from '../document/names';
import type { Axle } from '../document/schema';
import type { Verdict } from '../engine/finding';
import { readingBase, readingEntry, type InForce, type Readings } from '../engine/readings';
import type { SubjectOf } from '../engine/subjects';
import { isWeak, sheetField, type SheetKey } from '../library/sheet';
import { STEP_READINGS, lesson, sealant, stepDone, stepPhoto, stepSaid, stepTime, type StepReading } from './readings';
import type { Work } from './schema';
import { factsOf } from './facts';
import { metalOf, type Metal } from './metal';
import { sheetNumbers, type Numbers, type StepNumber } from './numbers';

/** What a step wrote down, and how that is judged. */
export interface RecordState {
  readonly record: StepRecord;
  readonly subject: SubjectOf;
  /** As typed or said; null while it was not. */
  readonly said: string | null;
  readonly base: number | null;
  readonly verdict: Verdict;
  /** What it is judged by, where it is. */
  readonly against: string;
}

/** What a step waits for before it can be begun. */
export interface Wait {
  readonly for: 'gate' | 'sheet' | 'hand' | 'step' | 'tool' | 'part' | 'stop';
  readonly what: string;
  /** The step, tool, part or value of the sheet. */
  readonly id: string;
  /** Nobody calls the step done meanwhile, unless with a name and a reason. */
  readonly holds?: true;
}

export interface StepState {
  readonly step: Operation;
  readonly status: 'open' | 'done' | 'failed' | 'skipped';
  readonly why: string;
  /** Open, and a later step that rests on it or closes it was done without it: nobody is sent back to it. */
  readonly passed: boolean;
  readonly done: InForce | null;
  readonly takenMinutes: number | null;
  readonly records: readonly RecordState[];
  readonly photos: readonly string[];
  /** What it is worked by: values of the sheet, shims that are in. */
  readonly numbers: readonly StepNumber[];
  readonly lesson: string | null;
  /** What was learned at the same step of the other axle. */
  readonly lessonBefore: string | null;
  readonly waits: readonly Wait[];
  /** What has to be read or said before it is done. */
  readonly missing: readonly string[];
}

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
  readonly sealant: { readonly closed: boolean; readonly at: string } | null;
  /** When the first of its steps was done, and the last; null before that. What lies between is calendar time. */
  readonly from: string | null;
  readonly to: string | null;
  readonly minutes: { readonly planned: number; readonly taken: number; readonly left: number; readonly waits: number };
}

/** What other capabilities know of a step: whether what it is to read has been read. Null: nothing is missing. */
export type Evidence = Partial<Record<StepId, () => string | null>>;

const scaleKey = ({ quantity, scale }: Extract<StepRecord, { of: 'number' }>): StepReading =>
  `${quantity}/${scale ?? ''}` as StepReading;

/** The subject that a record of a step is kept under. */
export function recordSubject(axle: AxleName, step: string, record: StepRecord): SubjectOf {
  const keys = { axle, step, record: record.id };
  return record.of === 'number' ? STEP_READINGS[scaleKey(record)].of(keys) : stepSaid.of(keys);
}

const textOf = (reading: InForce | undefined): string | null =>
  reading?.value.of === 'text' ? reading.value.text : null;

/** What is said of the axle that a record has to agree with, and where; null where nobody has said it. */
function knownOf(
  { identity, finalDrive }: Axle,
  what: AgreesWith,
): { readonly value: string | number; readonly where: string } | null {
  if (what === 'thread-hand') {
    const hand = identity?.ringBolts?.value.hand ?? 'unknown';
    return hand === 'unknown' ? null : { value: hand, where: 'the spec of the axle' };
  }
  return { value: what === 'ring-teeth' ? finalDrive.ring : finalDrive.pinion, where: 'the final drive of the build' };
}

function judge(
  record: StepRecord,
  said: string | null,
  base: number | null,
  axle: Axle,
): Pick<RecordState, 'verdict' | 'against'> {
  if (said === null) return { verdict: 'not-yet', against: '' };
  const known = record.of === 'text' || record.agrees === undefined ? null : knownOf(axle, record.agrees);
  if (known !== null && known.value !== (record.of === 'choice' ? said : base))
    return { verdict: 'stop', against: `${known.value} in ${known.where}` };
  if (record.of === 'choice') return { verdict: record.stops.includes(said) ? 'stop' : 'fits', against: '' };
  if (record.of === 'text' || base === null) return { verdict: 'fits', against: '' };
  if (record.pass) {
    const { atLeast = -Infinity, atMost = Infinity, from } = record.pass;
    return { verdict: base < atLeast || base > atMost ? 'stop' : 'fits', against: from };
  }
  const told = record.sheet === undefined ? null : axle.identity?.sheet[record.sheet as SheetKey];
  if (!told || typeof told.value !== 'object' || !('typed' in told.value)) return { verdict: 'fits', against: '' };
  const wanted = entryBase(told.value);
  // A limit is kept below; a torque is what it says, within what a good wrench is good to.
  const fits = record.sheet === 'spreadLimit' ? base <= wanted + 1e-9 : Math.abs(base - wanted) <= 0.05 * wanted;
  return { verdict: fits ? 'fits' : 'stop', against: `${told.value.typed} on the sheet` };
}

function recordState(name: AxleName, axle: Axle, step: Operation, record: StepRecord, readings: Readings): RecordState {
  const keys = { axle: name, step: step.id, record: record.id };
  if (record.of === 'number') {
    const kind = STEP_READINGS[scaleKey(record)];
    const reading = readings.get(kind.key(keys));
    const [said, base] = reading ? [readingEntry(reading).typed, readingBase(reading)] : [null, null];
    return { record, subject: kind.of(keys), said, base, ...judge(record, said, base, axle) };
  }
  const said = textOf(readings.get(stepSaid.key(keys)));
  return { record, subject: stepSaid.of(keys), said, base: null, ...judge(record, said, null, axle) };
}

/** Values of the sheet that a step asks for and that nobody has read from one. */
function weakAsks(step: Operation, { identity }: Axle): Wait[] {
  return step.asks.flatMap((id): Wait[] => {
    const key = id as SheetKey;
    const told = identity?.sheet[key];
    if (told && !isWeak(originOf(told))) return [];
    const label = sheetField(key).label;
    const what = told ? `${label}: from memory, borrowed or guessed` : `${label}: nobody has said it`;
    return [{ for: 'sheet', what, id, holds: true }];
  });
}

/** What was written down at a step and says stop: nobody goes past it without a name and a reason. */
const stopsOf = (records: readonly RecordState[]): Wait[] =>
  records.flatMap(({ record, verdict, said, against }): Wait[] =>
    verdict !== 'stop'
      ? []
      : [
          {
            for: 'stop',
            holds: true,
            what: `${record.label}: ${said ?? ''}${against === '' ? '' : `; ${against}`}`,
            id: record.id,
          },
        ],
  );

const HAND_OVER: StepId = 'hand-over';
const RING_OFF: StepId = 'ring-off';
const RING_BOLTS: StepId = 'ring-bolts';
/** Minutes that steps of this axle took, by what was read of each. */
function takenOf(name: AxleName, readings: Readings): number {
  let minutes = 0;
  for (const reading of readings.values()) {
    const { what, axle } = reading.subject as SubjectOf & { readonly axle?: string };
    if (what === stepTime.what && axle === name) minutes += readingBase(reading) / 60;
  }
  return minutes;
}

/** The step that looks at the parts that came: it is not done while some have not. */
const ARRIVAL: StepId = 'arrival';
const notHere = ({ parts }: Work): Wait[] => {
  const away = parts.filter(({ state }) => state !== 'here');
  const more = away.length > 3 ? `, and ${away.length - 3} more` : '';
  return away.length === 0
    ? []
    : [
        {
          for: 'part',
          holds: true,
          what: `Not here: ${away
            .slice(0, 3)
            .map(({ name }) => name)
            .join(', ')}${more}`,
          id: ARRIVAL,
        },
      ];
};

/**
 * The order of work of an axle with what has been done.
 * @param gates whether A and B stand open
 * @param evidence what other capabilities miss of a step
 * @param numbers what other capabilities know of the numbers of a step
 * @param override whether somebody has put a name and a reason under doing a step all the same
 * @throws InputError on `job` where the unit is none that the job puts in, or naming a fact that does not go with the others
 */
export function workState(
  name: AxleName,
  axle: Axle,
  readings: Readings,
  {
    gates,
    evidence = {},
    numbers = {},
    override = () => false,
  }: {
    readonly gates: Readonly<Record<'A' | 'B', boolean>>;
    readonly evidence?: Evidence;
    readonly numbers?: Numbers;
    readonly override?: (step: string) => boolean;
  },
): WorkState | null {
  const { work } = axle;
  const facts = factsOf(axle);
  if (!work || !facts) return null;
  const ordered = orderAsWorked(orderOfWork(facts), work.own, work.moves);
  const skipped = new Map(work.skipped.map(({ id, why }) => [id, why]));
  const other: AxleName = name === 'rear' ? 'front' : 'rear';
  const ended = new Map(
    ordered.map(({ id, gate }) => {
      const reading = readings.get(stepDone.key({ axle: name, step: id })) ?? null;
      const choice = reading?.value.of === 'choice' ? reading.value.choice : 'open';
      const signed = gate !== null && gates[gate];
      return [id, { reading, choice: gate === null ? choice : signed ? 'done' : 'open' }];
    }),
  );
  const isDone = (id: string): boolean => skipped.has(id) || ended.get(id)?.choice === 'done';
  const titles = new Map(ordered.map(({ id, title }) => [id, title]));
  const over = ended.get(HAND_OVER)?.choice === 'done';
  // Only work on the metal goes past what it rests on: teeth that were counted early have taken nothing out.
  const wentBy = new Set(
    ordered.filter(({ id, acts }) => acts.length > 0 && ended.get(id)?.choice === 'done').flatMap(({ after }) => after),
  );
  const isPassed = ({ id, closedBy }: Operation): boolean =>
    !isDone(id) && (over || wentBy.has(id) || (closedBy !== null && ended.get(closedBy)?.choice === 'done'));
  const parts = neededParts(ordered);
  const missingPart = (step: Operation): Wait[] =>
    step.parts.flatMap((id): Wait[] => {
      const listed = work.parts.find((one) => one.id === id);
      // A list that nobody has made asks for nothing yet.
      if (work.parts.length === 0 || !listed || listed.state === 'here') return [];
      return [{ for: 'part', what: `${listed.name}: ${listed.state}`, id }];
    });
  const missingTool = (step: Operation): Wait[] =>
    step.tools.flatMap((id): Wait[] =>
      work.tools.some((one) => one.id === id && one.state === 'missing')
        ? [{ for: 'tool', what: toolOf(id).name, id }]
        : [],
    );
  const handKnown =
    facts.ringHand !== null || textOf(readings.get(stepSaid.key({ axle: name, step: RING_OFF, record: 'hand' })));

  const steps = ordered.map((step): StepState => {
    const { id } = step;
    const end = ended.get(id);
    const why = skipped.get(id);
    const status = why !== undefined ? 'skipped' : ((end?.choice ?? 'open') as 'open' | 'done' | 'failed');
    const records = step.records.map((record) => recordState(name, axle, step, record, readings));
    const time = readings.get(stepTime.key({ axle: name, step: id }));
    const photos = readings.get(stepPhoto.key({ axle: name, step: id }));
    const free = override(id);
    const waits: Wait[] =
      status === 'skipped' || status === 'done'
        ? []
        : [
            ...step.after
              .filter((before) => titles.has(before) && !isDone(before))
              .map((before): Wait => ({ for: 'step', what: titles.get(before) ?? before, id: before })),
            ...(step.behind !== null && !gates[step.behind] && !free
              ? [
                  {
                    for: 'gate',
                    holds: true,
                    what: `Gate ${step.behind} is not signed`,
                    id: `gate-${step.behind.toLowerCase()}`,
                  } as const,
                ]
              : []),
            ...(free ? [] : weakAsks(step, axle)),
            ...(!free && step.hand === 'unknown' && id === RING_BOLTS && !handKnown
              ? [{ for: 'hand', holds: true, what: 'Nobody knows the thread hand', id: RING_OFF } as const]
              : []),
            ...(free ? [] : stopsOf(records)),
            ...(free || id !== ARRIVAL ? [] : notHere(work)),
            ...missingTool(step),
            ...missingPart(step),
          ];
    const unread = evidence[id as StepId]?.() ?? null;
    return {
      step,
      status,
      why: why ?? '',
      passed: isPassed(step),
      done: end?.reading ?? null,
      takenMinutes: time ? readingBase(time) / 60 : null,
      records,
      photos: photos?.value.of === 'photos' ? photos.value.photos : [],
      numbers: [...sheetNumbers(name, step, axle), ...(numbers[id as StepId]?.() ?? [])],
      lesson: textOf(readings.get(lesson.key({ axle: name, step: id }))),
      lessonBefore: textOf(readings.get(lesson.key({ axle: other, step: id }))),
      waits,
      missing: [
        ...records
          .filter(({ record, said }) => record.of !== 'text' && said === null)
          .map(({ record }) => record.label),
        ...(unread === null ? [] : [unread]),
      ],
    };
  });
  const left = steps.filter(({ status, passed }) => (status === 'open' || status === 'failed') && !passed);
  const sum = (of: readonly StepState[], minutes: (one: StepState) => number): number =>
    of.reduce((total, one) => total + minutes(one), 0);
  const counted = steps.filter(({ status }) => status !== 'skipped');
  const onFace = readings.get(sealant.key({ axle: name }));
  const ends = steps
    .filter(({ status }) => status === 'done')
    .map(({ done }) => done?.at ?? '')
    .filter(Boolean)
    .sort();
  const tools = new Map<ToolId, string[]>();
  for (const { step } of left) for (const id of step.tools) tools.set(id, [...(tools.get(id) ?? []), step.id]);
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
    sealant:
      onFace?.value.of === 'choice' && onFace.value.choice !== 'cleaned off'
        ? { closed: onFace.value.choice === 'closed', at: onFace.at }
        : null,
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
  const spare: readonly PartId[] = unit === 'spool' ? ['spare-unit'] : [];
  return [...needed.map(({ id }) => id), ...spare].map((id) => ({
    id,
    name: partOf(id).name,
    count: id === 'ring-bolts' && ringBolts !== null ? ringBolts : partOf(id).count,
    state: 'needed',
    supplier: '',
    price: null,
    promised: null,
    number: '',
  }));
}
