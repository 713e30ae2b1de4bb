import { entryBase, type AgreesWith, type Facts, type Operation, type StepRecord } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import type { Verdict } from '../frame/finding';
import { readingBase, readingEntry, type InForce, type Readings } from '../frame/readings';
import type { SubjectOf } from '../frame/subjects';
import { originOf } from '../library/origins';
import { isWeak, sheetField, type SheetKey } from '../library/sheet';
import type { StepKnowledge, StepNumber } from '../frame/work';
import { STEP_READINGS, stepDone, stepSaid, type StepReading } from './readings';
import type { Work } from './schema';
import type { PlanStep } from './steps';

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

/** Since when something that sets is open, or when it was closed on. */
export interface Open {
  readonly closed: boolean;
  readonly at: string;
}
/** @param reading that something was put on, closed on or cleaned off */
export const openOf = (reading: InForce | undefined): Open | null =>
  reading?.value.of === 'choice' && reading.value.choice !== 'cleaned off'
    ? { closed: reading.value.choice === 'closed', at: reading.at }
    : null;

/** A step of the order, with all that is known of it. */
export interface StepState {
  readonly step: Operation;
  readonly status: 'open' | 'done' | 'failed' | 'skipped';
  readonly why: string;
  /** Open, and a later step that rests on it or closes it was done without it: nobody is sent back to it. */
  readonly passed: boolean;
  /** What was said or read that ended it. */
  readonly done: InForce | null;
  /** Done by what was read, not by a tap. */
  readonly byReading: boolean;
  readonly takenMinutes: number | null;
  readonly records: readonly RecordState[];
  readonly photos: readonly string[];
  /** What it is worked by: values of the sheet, shims that are in. */
  readonly numbers: readonly StepNumber[];
  readonly lesson: string | null;
  /** What was learned at the same step of the other axle. */
  readonly lessonBefore: string | null;
  readonly waits: readonly Wait[];
  /** What was found of it and says stop, with no name under it; also where it is done. */
  readonly stops: readonly Wait[];
  /** What has to be read or said before it is done. */
  readonly missing: readonly string[];
  /** What sets in it, where it was put on. */
  readonly compound: Open | null;
}

/** What other capabilities know of the steps of an axle. */
export interface GivenOfSteps {
  /** Whether A and B stand open. */
  readonly gates: Readonly<Record<'A' | 'B', boolean>>;
  readonly steps?: ReadonlyMap<string, StepKnowledge>;
  /** Whether somebody has put a name and a reason under doing a step all the same. */
  readonly override?: (step: string) => boolean;
  /** What was found of what a step works on, and says stop. */
  readonly stops?: (step: Operation) => readonly Wait[];
}

/** How a step stands by itself, whatever stands before it. */
export interface Standing {
  readonly records: readonly RecordState[];
  /** What nobody goes past without a name and a reason. */
  readonly holds: readonly Wait[];
  readonly missing: readonly string[];
  /** What was said or read that ended it. */
  readonly reading: InForce | null;
  readonly choice: 'open' | 'done' | 'failed';
  /** Done by what was read, not by a tap. */
  readonly byReading: boolean;
}
export const NOTHING: Standing = {
  records: [],
  holds: [],
  missing: [],
  reading: null,
  choice: 'open',
  byReading: false,
};

const scaleKey = ({ quantity, scale }: Extract<StepRecord, { of: 'number' }>): StepReading =>
  `${quantity}/${scale ?? ''}` as StepReading;

/** The subject that a record of a step is kept under. */
export function recordSubject(axle: AxleName, step: string, record: StepRecord): SubjectOf {
  const keys = { axle, step, record: record.id };
  return record.of === 'number' ? STEP_READINGS[scaleKey(record)].of(keys) : stepSaid.of(keys);
}

const recordKey = (axle: AxleName, step: string, record: StepRecord): string =>
  stepSaid.key({ axle, step, record: record.id });

export const textOf = (reading: InForce | undefined): string | null =>
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

/** The step that looks at the parts that came: it is not done while some have not. */
const ARRIVAL: PlanStep = 'arrival';
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

/** How each step of an order stands. */
export function standings(
  name: AxleName,
  axle: Axle,
  of: { readonly ordered: readonly Operation[]; readonly facts: Facts; readonly readings: Readings },
  { gates, steps: known = new Map(), override = () => false, stops = () => [] }: GivenOfSteps,
): ReadonlyMap<string, Standing> {
  const { ordered, facts, readings } = of;
  const { work } = axle;
  // Whoever undid them has seen which way they turn.
  const moved = ordered.flatMap((step) =>
    step.records
      .filter((record) => record.of === 'choice' && record.agrees === 'thread-hand')
      .map((record) => ({ step: step.id, said: textOf(readings.get(recordKey(name, step.id, record))) })),
  );
  const handKnown = facts.ringHand !== null || moved.some(({ said }) => said !== null);
  const holdsOf = (step: Operation, records: readonly RecordState[]): Wait[] => [
    ...(step.behind !== null && !gates[step.behind]
      ? [
          {
            for: 'gate',
            holds: true,
            what: `Gate ${step.behind} is not signed`,
            id: `gate-${step.behind.toLowerCase()}`,
          } as const,
        ]
      : []),
    ...weakAsks(step, axle),
    ...(step.hand === 'unknown' && step.acts.includes('ring-bolts') && !handKnown
      ? [{ for: 'hand', holds: true, what: 'Nobody knows the thread hand', id: moved[0]?.step ?? step.id } as const]
      : []),
    ...stopsOf(records),
    ...stops(step),
    ...(step.id === ARRIVAL && work ? notHere(work) : []),
  ];
  const missingOf = ({ id }: Operation, records: readonly RecordState[]): string[] => {
    const unread = known.get(id)?.missing?.(facts) ?? null;
    return [
      ...records.filter(({ record, said }) => record.of !== 'text' && said === null).map(({ record }) => record.label),
      ...(unread === null ? [] : [unread]),
    ];
  };
  const endOf = (
    { id, gate, takes, returns }: Operation,
    free: boolean,
  ): Pick<Standing, 'reading' | 'choice' | 'byReading'> => {
    if (gate !== null) return { reading: null, choice: gates[gate] ? 'done' : 'open', byReading: false };
    const reading = readings.get(stepDone.key({ axle: name, step: id })) ?? null;
    const choice = reading?.value.of === 'choice' ? (reading.value.choice as Standing['choice']) : 'open';
    // What comes off or goes back on is counted by hand.
    const proof = free && takes.length + returns.length === 0 ? (known.get(id)?.proof?.(facts) ?? null) : null;
    return choice !== 'done' && proof !== null && proof.seq > (reading?.seq ?? -1)
      ? { reading: proof, choice: 'done', byReading: true }
      : { reading, choice, byReading: false };
  };
  return new Map(
    ordered.map((step): [string, Standing] => {
      const records = step.records.map((record) => recordState(name, axle, step, record, readings));
      const holds = override(step.id) ? [] : holdsOf(step, records);
      const missing = missingOf(step, records);
      return [step.id, { records, holds, missing, ...endOf(step, missing.length + holds.length === 0) }];
    }),
  );
}
