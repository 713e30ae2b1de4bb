import { mostRingTorque } from './ring-torque';
import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { roadRun, topSpeed } from './run';
import { readyCar, type Vehicle } from './vehicle';
import { crawlRatio, growthFactor, slippingRpm, speedReadingCorrection } from '../gearing/corrections';
import { toothPair, type Hunting, type ToothPair } from '../gearing/tooth-pair';

/** Ratios that one carrier takes, both ends included. */
export interface CarrierSeries {
  readonly name: string;
  readonly fromRatio: number;
  readonly toRatio: number;
  readonly price?: number;
  readonly leadDays?: number;
}

/** Something that is bought beside the set; what is left out nobody has asked. */
export interface Bought {
  readonly price?: number;
  readonly leadDays?: number;
}

/** A gear set that can be had for this axle. */
export interface Candidate extends ToothPair {
  /** Torque that the ring gear stands, N·m. */
  readonly torqueLimitNm?: number;
  readonly price?: number;
  readonly leadDays?: number;
  /** The ring comes welded to its carrier: one piece. */
  readonly welded?: boolean;
}

/** What has to be kept beside the goal; what is left out is not asked. */
export interface FindLimits {
  /** Engine speed at cruise, at the most. */
  readonly cruiseRpm?: number;
  /** Seconds of the run, at the most. */
  readonly timeS?: number;
  /** Top speed, m/s, at the least. */
  readonly topMps?: number;
  /** Crawl ratio, at the least. */
  readonly crawlRatio?: number;
}

/** What the final drive is chosen for. Speeds in m/s, windows in rpm. */
export type FindGoal =
  | { readonly kind: 'time'; readonly distanceM: number }
  | { readonly kind: 'finish'; readonly distanceM: number; readonly lowRpm: number; readonly highRpm: number }
  | { readonly kind: 'cruise'; readonly speedMps: number; readonly lowRpm: number; readonly highRpm: number }
  | { readonly kind: 'crawl'; readonly ratio: number };

export interface FindProblem {
  /** With the final drive that is in the axle now. */
  readonly vehicle: Vehicle;
  readonly candidates: readonly Candidate[];
  readonly goal: FindGoal;
  readonly limits?: FindLimits;
  /** Distance of the run that every candidate makes beside the goal; 402.336 m if left out. */
  readonly distanceM?: number;
  readonly cruiseMps?: number;
  /** Slip of the driven wheels at that cruise as a share of wheel speed; 0 if left out. */
  readonly wheelSlip?: number;
  /** Low range of the transfer case, for crawling; the range of the vehicle if left out. */
  readonly lowRange?: number;
  readonly carriers?: readonly CarrierSeries[];
  readonly presentCarrier?: string;
  /** New ring bolts, and the speed reading set right again, where they have been asked for. */
  readonly extras?: { readonly ringBolts?: Bought; readonly recalibration?: Bought };
  /** Where the speed is read: ahead of the final drive a new ratio changes it. */
  readonly sender?: 'gearbox' | 'wheel';
  /** Cruise at least this far above rated stall: a quarter of it unless told, ours; the converter's sheet wins. */
  readonly aboveStallRpm?: number;
  /** How much more than steady torque arrives for a moment; 1 unless told. */
  readonly shock?: number;
}

/** Coded, so that the wording can be anywhere: `value` against `limit` in base units. */
export interface Reason {
  readonly code:
    | 'goal-best'
    | 'goal-behind'
    | 'window-met'
    | 'window-below'
    | 'window-above'
    | 'crawl-short'
    | 'crawl-met'
    | 'limit-cruise'
    | 'limit-time'
    | 'limit-top'
    | 'limit-crawl'
    | 'stall-near'
    | 'stall-clear'
    | 'cruise-limiter'
    | 'torque-over'
    | 'finish-limiter'
    | 'hunts'
    | 'does-not-hunt'
    | 'carrier-none'
    | 'extra-shift'
    | 'fewer-shifts';
  readonly side: 'for' | 'against';
  readonly value: number;
  readonly limit: number;
}

/** What has to be changed with it. */
export type Change =
  | { readonly code: 'carrier'; readonly name: string }
  | { readonly code: 'speed-reading'; readonly factor: number }
  /** Rolling radius that would keep today's rpm, as a factor. */
  | { readonly code: 'tyre'; readonly factor: number }
  | { readonly code: 'timing-marks'; readonly divisor: number };

/** One thing that a candidate makes the builder buy. */
export interface BillItem {
  readonly code: 'set' | 'carrier' | 'ring-bolts' | 'recalibration';
  /** Of a carrier. */
  readonly name?: string;
  readonly price: number | null;
  readonly leadDays: number | null;
}

/** Everything that is needed, and what is known of its price. */
export interface Bill {
  readonly items: readonly BillItem[];
  /** Sum of the prices that are known; null where none is. */
  readonly price: number | null;
  /** Whether every price is known. */
  readonly whole: boolean;
  /** The longest lead time of what is needed; null where none is known. */
  readonly leadDays: number | null;
}

export interface FindFigures {
  readonly timeS: number;
  readonly finishMps: number;
  readonly finishRpm: number;
  readonly shifts: number;
  readonly cruiseRpm: number | null;
  readonly aboveStallRpm: number | null;
  readonly crawlRatio: number;
  readonly ringTorqueNm: number;
  readonly topMps: number;
}

export interface FoundFinal {
  readonly candidate: Candidate;
  readonly ratio: number;
  readonly hunting: Hunting;
  readonly verdict: 'fits' | 'watch' | 'stop';
  /** What the goal is measured by, smaller is better: seconds, rpm outside the window, or share of crawl missing. */
  readonly score: number;
  /** How far it misses the limits, each as a share of itself, added up; 0 where it keeps them all. */
  readonly missed: number;
  /** Nothing among the rest is better in one thing that is asked and as good in all: goal and limits. */
  readonly onFront: boolean;
  readonly figures: FindFigures;
  readonly reasons: readonly Reason[];
  readonly changes: readonly Change[];
  /** What it takes beside the hours; nothing for the set that is in. */
  readonly bill: Bill;
  /** Against the next better one: how far its score is behind, and what that one costs more, all that it takes counted. */
  readonly behindNext: {
    readonly score: number;
    readonly price: number | null;
    readonly leadDays: number | null;
  } | null;
}

export const MOST_CANDIDATES = 60;
const QUARTER_MILE_M = 402.336;
/** A tyre that is closer than this to today's is no change of tyre. */
const TYRE_MATTERS = 0.02;

function checkGoal(goal: FindGoal): void {
  const distance = { above: 0, max: 100_000, unit: 'm' };
  if (goal.kind === 'time' || goal.kind === 'finish') requireNumber('goal.distanceM', goal.distanceM, distance);
  if (goal.kind === 'cruise') requireNumber('goal.speedMps', goal.speedMps, { above: 0, max: 600, unit: 'm/s' });
  if (goal.kind === 'crawl') requireNumber('goal.ratio', goal.ratio, { above: 0, max: 2000 });
  if (goal.kind === 'finish' || goal.kind === 'cruise') {
    requireNumber('goal.lowRpm', goal.lowRpm, LIMITS.rpm);
    requireNumber('goal.highRpm', goal.highRpm, LIMITS.rpm);
    if (goal.highRpm <= goal.lowRpm)
      throw new InputError('goal.highRpm', 'goal.highRpm must be above goal.lowRpm.', `more than ${goal.lowRpm} rpm`);
  }
}

function checkLimits({ cruiseRpm, timeS, topMps, crawlRatio: crawl }: FindLimits): void {
  if (cruiseRpm !== undefined) requireNumber('limits.cruiseRpm', cruiseRpm, { ...LIMITS.rpm, min: 1 });
  if (timeS !== undefined) requireNumber('limits.timeS', timeS, { above: 0, max: 3600, unit: 's' });
  if (topMps !== undefined) requireNumber('limits.topMps', topMps, { above: 0, max: 600, unit: 'm/s' });
  if (crawl !== undefined) requireNumber('limits.crawlRatio', crawl, { above: 0, max: 2000 });
}

/** What of a bill has no price: two bills compare where the same is unknown in both. */
const asked = ({ items }: Bill): string =>
  items
    .filter(({ price }) => price === null)
    .map(({ code, name }) => `${code} ${name ?? ''}`)
    .join();

function requireBought(field: string, { price, leadDays }: Bought): void {
  if (price !== undefined) requireNumber(`${field}.price`, price, { min: 0, max: 1e9 });
  if (leadDays !== undefined) requireNumber(`${field}.leadDays`, leadDays, { min: 0, max: 3650 });
}

const outside = (rpm: number, low: number, high: number): number => Math.max(low - rpm, rpm - high, 0);

/** Ours: cruise stays clear of rated stall by this share of it, or the converter runs hot. For automatics alone. */
export const ABOVE_STALL = 0.25;

/**
 * What changing to a candidate makes the builder buy: the set; a carrier where the series changes, or where a ring is welded to
 * it, the one that comes out or the one that goes in; ring bolts, which are not used twice; the speed reading set right.
 */
function billOf(problem: FindProblem, candidate: Candidate, changes: readonly Change[]): Bill {
  const { vehicle, candidates, carriers = [], presentCarrier, extras = {} } = problem;
  const ratio = candidate.ring / candidate.pinion;
  const isPresent = (one: Candidate): boolean => Math.abs(one.ring / one.pinion / vehicle.finalRatio - 1) < 1e-6;
  if (isPresent(candidate)) return { items: [], price: 0, whole: true, leadDays: null };
  const line = (code: BillItem['code'], of: Bought | undefined, name?: string): BillItem => ({
    code,
    ...(name === undefined ? {} : { name }),
    price: of?.price ?? null,
    leadDays: of?.leadDays ?? null,
  });
  const items = [line('set', candidate)];
  const change = changes.find(({ code }) => code === 'carrier');
  const welded = candidate.welded === true || candidates.some((one) => isPresent(one) && one.welded === true);
  if (change || welded) {
    const takes = carriers.filter(({ fromRatio, toRatio }) => ratio >= fromRatio - 1e-9 && ratio <= toRatio + 1e-9);
    const carrier = takes.find(({ name }) => name === presentCarrier) ?? takes[0];
    items.push(line('carrier', carrier, carrier?.name ?? ''));
  }
  if (candidate.welded !== true) items.push(line('ring-bolts', extras.ringBolts));
  if (changes.some(({ code }) => code === 'speed-reading')) items.push(line('recalibration', extras.recalibration));
  const prices = items.flatMap(({ price }) => (price === null ? [] : [price]));
  const days = items.flatMap(({ leadDays }) => (leadDays === null ? [] : [leadDays]));
  return {
    items,
    price: prices.length === 0 ? null : prices.reduce((a, b) => a + b, 0),
    whole: prices.length === items.length,
    leadDays: days.length === 0 ? null : Math.max(...days),
  };
}

type Tried = ReturnType<typeof tryFinal>;

/** A run and the figures of a car with another final drive. */
function tryFinal(problem: FindProblem, ratio: number) {
  const { vehicle, goal } = problem;
  const tried: Vehicle = { ...vehicle, finalRatio: ratio };
  const distanceM =
    goal.kind === 'time' || goal.kind === 'finish' ? goal.distanceM : (problem.distanceM ?? QUARTER_MILE_M);
  const run = roadRun(tried, { distanceM });
  const tallest = readyCar(tried).gears.at(-1);
  const slip = vehicle.converter?.slip ?? 0;
  const wheel = requireNumber('wheelSlip', problem.wheelSlip ?? 0, { min: 0, max: 0.9 });
  const rpmAt = (speed: number): number => {
    const { growth, rollingRadiusMm } = vehicle.tyre;
    const circumference = ((2 * Math.PI * rollingRadiusMm) / 1000) * (growth ? growthFactor(growth, speed) : 1);
    return slippingRpm((60 * speed * (tallest?.totalRatio ?? 1)) / circumference, { converter: slip, wheel });
  };
  const cruiseMps = goal.kind === 'cruise' ? goal.speedMps : problem.cruiseMps;
  const cruiseRpm = cruiseMps === undefined ? null : rpmAt(cruiseMps);
  const stall = vehicle.converter?.stallRpm ?? null;
  const lowRange = problem.lowRange ?? vehicle.rangeRatio ?? 1;
  const figures: FindFigures = {
    timeS: run.timeS,
    finishMps: run.speedMps,
    finishRpm: run.rpm,
    shifts: run.shifts.length,
    cruiseRpm,
    aboveStallRpm: cruiseRpm === null || stall === null ? null : cruiseRpm - stall,
    crawlRatio: crawlRatio(vehicle.gears[0] ?? 1, lowRange, ratio, vehicle.hubRatio ?? 1),
    ringTorqueNm: mostRingTorque(vehicle, ratio, problem.lowRange, problem.shock),
    topMps: topSpeed(readyCar(tried)),
  };
  return { figures, onLimiterS: run.limitTimesS.limiter };
}

/** Times nearer to each other than this share of them are level: less than what grip and air of the day decide; ours. */
export const LEVEL = 0.005;

/** What speaks for a candidate and against it, and how far that goes. */
interface Judged {
  readonly verdict: FoundFinal['verdict'];
  readonly reason: Reason;
}
const judged = (
  verdict: Judged['verdict'],
  side: Reason['side'],
  code: Reason['code'],
  value: number,
  limit: number,
): Judged => ({ verdict, reason: { side, code, value, limit } });

/** How far it misses the goal, 0 where it meets it; of a time the time itself. */
function byGoal(goal: FindProblem['goal'], figures: FindFigures): { readonly score: number; readonly says: Judged[] } {
  if (goal.kind === 'crawl') {
    const score = Math.max(0, 1 - figures.crawlRatio / goal.ratio);
    const [side, code] = score > 0 ? (['against', 'crawl-short'] as const) : (['for', 'crawl-met'] as const);
    // A goal that is missed is no fit, however well the rest is.
    return { score, says: [judged(score > 0 ? 'watch' : 'fits', side, code, figures.crawlRatio, goal.ratio)] };
  }
  if (goal.kind !== 'finish' && goal.kind !== 'cruise') return { score: figures.timeS, says: [] };
  const rpm = goal.kind === 'finish' ? figures.finishRpm : (figures.cruiseRpm ?? 0);
  const score = outside(rpm, goal.lowRpm, goal.highRpm);
  const says =
    score === 0
      ? judged('fits', 'for', 'window-met', rpm, goal.lowRpm)
      : rpm < goal.lowRpm
        ? judged('watch', 'against', 'window-below', rpm, goal.lowRpm)
        : judged('watch', 'against', 'window-above', rpm, goal.highRpm);
  return { score, says: [says] };
}

/** What is asked beside the goal, as coded reasons, and by how much of themselves the limits are missed. */
function byConditions(limits: FindLimits, figures: FindFigures): { readonly missed: number; readonly says: Judged[] } {
  const says: Judged[] = [];
  let missed = 0;
  for (const { code, at, of, most } of conditionsOf(limits, figures)) {
    const short = Math.max(0, most ? at / of - 1 : 1 - at / of);
    missed += short;
    says.push(judged(short > 0 ? 'watch' : 'fits', short > 0 ? 'against' : 'for', code, at, of));
  }
  return { missed, says };
}

/** Each limit that is asked, beside what the candidate has. */
function conditionsOf({ cruiseRpm, timeS, topMps, crawlRatio: crawl }: FindLimits, figures: FindFigures) {
  const all = [
    { code: 'limit-cruise', at: figures.cruiseRpm ?? undefined, of: cruiseRpm, most: true },
    { code: 'limit-time', at: figures.timeS, of: timeS, most: true },
    { code: 'limit-top', at: figures.topMps, of: topMps, most: false },
    { code: 'limit-crawl', at: figures.crawlRatio, of: crawl, most: false },
  ] as const;
  return all.flatMap(({ code, at, of, most }) =>
    at === undefined || of === undefined ? [] : [{ code, at, of, most }],
  );
}

/** Whether `a` is nowhere worse than `b` in what is asked, and somewhere better by more than what is level. */
function beats(limits: FindLimits, a: Assessed, b: Assessed): boolean {
  const costs = ({ score, figures }: Assessed): number[] => [
    score,
    ...conditionsOf(limits, figures).map(({ at, most }) => (most ? at : -at)),
  ];
  const [of, other] = [costs(a), costs(b)];
  const worse = of.some((cost, i) => cost > (other[i] as number) + LEVEL * Math.abs(other[i] as number));
  const better = of.some((cost, i) => cost < (other[i] as number) - LEVEL * Math.abs(other[i] as number));
  return better && !worse;
}

/** Limiter, stall and what the teeth hold. @throws InputError on `aboveStallRpm` */
function byLimits(problem: FindProblem, candidate: Candidate, { figures, onLimiterS }: Tried): Judged[] {
  const { engine, converter } = problem.vehicle;
  const { cruiseRpm, aboveStallRpm, ringTorqueNm } = figures;
  const limit = 'limitRpm' in engine ? engine.limitRpm : Number.POSITIVE_INFINITY;
  const says: Judged[] = [];
  if (cruiseRpm !== null && cruiseRpm > limit) says.push(judged('stop', 'against', 'cruise-limiter', cruiseRpm, limit));
  if (aboveStallRpm !== null) {
    const usual = ABOVE_STALL * (converter?.stallRpm ?? 0);
    const range = { min: 0, max: 5000, unit: 'rpm' };
    const wanted = requireNumber('aboveStallRpm', problem.aboveStallRpm ?? usual, range);
    says.push(
      aboveStallRpm < wanted
        ? judged('watch', 'against', 'stall-near', aboveStallRpm, wanted)
        : judged('fits', 'for', 'stall-clear', aboveStallRpm, wanted),
    );
  }
  if (onLimiterS > 0) says.push(judged('watch', 'against', 'finish-limiter', onLimiterS, 0));
  if (candidate.torqueLimitNm !== undefined && ringTorqueNm > candidate.torqueLimitNm)
    says.push(judged('stop', 'against', 'torque-over', ringTorqueNm, candidate.torqueLimitNm));
  return says;
}

/** Of the carriers of the axle, whether one takes the ratio, and whether it is another than the one that is in. */
function byCarrier(
  { carriers = [], presentCarrier }: FindProblem,
  ratio: number,
): { readonly says: Judged[]; readonly changes: Change[] } {
  if (carriers.length === 0) return { says: [], changes: [] };
  const fitting = carriers.filter(({ fromRatio, toRatio }) => ratio >= fromRatio - 1e-9 && ratio <= toRatio + 1e-9);
  const [first] = fitting;
  if (!first) return { says: [judged('stop', 'against', 'carrier-none', ratio, 0)], changes: [] };
  const other = presentCarrier !== undefined && !fitting.some(({ name }) => name === presentCarrier);
  return { says: [], changes: other ? [{ code: 'carrier', name: first.name }] : [] };
}

/** What has to be set right with it: the speed reading, and the tyre where the window is the ratio's. */
function bySpeed({ vehicle, sender }: FindProblem, ratio: number): Change[] {
  const factor = speedReadingCorrection({
    sender: sender ?? 'gearbox',
    oldRatio: vehicle.finalRatio,
    newRatio: ratio,
    oldCircumferenceMm: 2000,
    newCircumferenceMm: 2000,
  });
  const tyre = ratio / vehicle.finalRatio;
  return [
    ...(Math.abs(factor - 1) > 1e-6 ? [{ code: 'speed-reading', factor } as const] : []),
    ...(Math.abs(tyre - 1) > TYRE_MATTERS ? [{ code: 'tyre', factor: tyre } as const] : []),
  ];
}

type Assessed = Omit<FoundFinal, 'behindNext' | 'onFront'>;

function assess(problem: FindProblem, candidate: Candidate): Assessed {
  const { ratio, hunting, commonDivisor } = toothPair(candidate);
  const tried = tryFinal(problem, ratio);
  const { score, says: ofGoal } = byGoal(problem.goal, tried.figures);
  const hunts = hunting === 'hunting';
  const ofTeeth = judged('fits', hunts ? 'for' : 'against', hunts ? 'hunts' : 'does-not-hunt', commonDivisor, 1);
  const carrier = byCarrier(problem, ratio);
  const { missed, says: ofConditions } = byConditions(problem.limits ?? {}, tried.figures);
  const says = [...ofGoal, ...ofConditions, ...byLimits(problem, candidate, tried), ofTeeth, ...carrier.says];
  const changes: Change[] = [
    ...(hunts ? [] : [{ code: 'timing-marks', divisor: commonDivisor } as const]),
    ...carrier.changes,
    ...bySpeed(problem, ratio),
  ];
  const worst = (['stop', 'watch'] as const).find((one) => says.some(({ verdict }) => verdict === one));
  return {
    candidate,
    ratio,
    hunting,
    verdict: worst ?? 'fits',
    score,
    missed,
    figures: tried.figures,
    reasons: says.map(({ reason }) => reason),
    changes,
    bill: billOf(problem, candidate, changes),
  };
}

/** The goal over any ratio, whether a set of it exists or not. */
export interface GoalAtRatio {
  readonly ratio: number;
  /** As for `findFinals`: seconds, rpm outside the window, or share of crawl missing. */
  readonly score: number;
}

/** Ratios looked at from the shortest to the tallest; ours, close enough that a curve bends nowhere between. */
const SWEPT = 17;
/** How far from the present one, either way, as a factor; ours. */
const SWEEP = 1.35;

/**
 * What the goal would be with any ratio round the present one: where a better set would have to lie, before one is looked for.
 * A ratio with which the car does not move off is left out.
 * Not counted: limits, stops and whether anybody makes it.
 * @throws InputError naming the field
 */
export function goalOverRatio(problem: FindProblem): GoalAtRatio[] {
  checkGoal(problem.goal);
  const { finalRatio } = problem.vehicle;
  return Array.from({ length: SWEPT }, (_, i) => finalRatio * SWEEP ** ((2 * i) / (SWEPT - 1) - 1)).flatMap((ratio) => {
    try {
      return [{ ratio, score: byGoal(problem.goal, tryFinal(problem, ratio).figures).score }];
    } catch (error) {
      if (!(error instanceof InputError) || error.field !== 'gears[0]') throw error;
      return [];
    }
  });
}

/**
 * Ranks final drives by a goal: each makes the run of {@link roadRun}; those that something stops come last, before them those that
 * miss a limit beside the goal, least missed first. Where the goal can't tell two apart (both inside the window), the quicker one is
 * ahead. Differences below {@link LEVEL} are none: they are told to be level, and no candidate is off the front for one.
 * Not counted: what a change costs in hours, noise and wear.
 * @param problem 1 to 60 candidates
 * @throws InputError naming the field
 */
export function findFinals(problem: FindProblem): FoundFinal[] {
  const { candidates, goal } = problem;
  if (candidates.length === 0 || candidates.length > MOST_CANDIDATES)
    throw new InputError('candidates', `candidates has ${candidates.length} entries.`, `1 to ${MOST_CANDIDATES}`);
  checkGoal(goal);
  checkLimits(problem.limits ?? {});
  if (problem.limits?.cruiseRpm !== undefined && goal.kind !== 'cruise' && problem.cruiseMps === undefined)
    throw new InputError('cruiseMps', 'cruiseMps is missing: a limit of the cruise needs one.', 'a speed in m/s');
  if (problem.lowRange !== undefined) requireNumber('lowRange', problem.lowRange, LIMITS.ratio);
  if (problem.extras?.ringBolts) requireBought('extras.ringBolts', problem.extras.ringBolts);
  if (problem.extras?.recalibration) requireBought('extras.recalibration', problem.extras.recalibration);
  problem.carriers?.forEach((series, i) => {
    requireNumber(`carriers[${i}].fromRatio`, series.fromRatio, LIMITS.ratio);
    requireNumber(`carriers[${i}].toRatio`, series.toRatio, LIMITS.ratio);
    requireBought(`carriers[${i}]`, series);
  });
  candidates.forEach((candidate, i) => {
    requireBought(`candidates[${i}]`, candidate);
    if (candidate.torqueLimitNm !== undefined)
      requireNumber(`candidates[${i}].torqueLimitNm`, candidate.torqueLimitNm, { above: 0, max: 1e6, unit: 'N·m' });
  });
  const { limits = {} } = problem;
  const stopped = ({ verdict }: Assessed): number => Number(verdict === 'stop');
  const assessed = candidates
    .map((candidate) => assess(problem, candidate))
    .sort(
      (a, b) =>
        stopped(a) - stopped(b) ||
        a.missed - b.missed ||
        a.score - b.score ||
        a.figures.timeS - b.figures.timeS ||
        a.ratio - b.ratio,
    );
  const best = assessed[0];
  const present = assessed.find(({ ratio }) => Math.abs(ratio / problem.vehicle.finalRatio - 1) < 1e-6);
  return assessed.map((one, i) => {
    const next = assessed[i - 1];
    const reasons = [...one.reasons];
    if (one === best && goal.kind === 'time')
      reasons.unshift({ side: 'for', code: 'goal-best', value: one.score, limit: one.score });
    else if (best && goal.kind === 'time')
      reasons.unshift({ side: 'against', code: 'goal-behind', value: one.score - best.score, limit: best.score });
    const shifts = present ? one.figures.shifts - present.figures.shifts : 0;
    if (shifts > 0) reasons.push({ side: 'against', code: 'extra-shift', value: shifts, limit: 0 });
    if (shifts < 0) reasons.push({ side: 'for', code: 'fewer-shifts', value: -shifts, limit: 0 });
    const more = (a: number | null, b: number | null): number | null => (a === null || b === null ? null : a - b);
    return {
      ...one,
      onFront: stopped(one) === 0 && !assessed.some((other) => stopped(other) === 0 && beats(limits, other, one)),
      reasons,
      behindNext: next
        ? {
            score: one.score - next.score,
            price: asked(next.bill) === asked(one.bill) ? more(next.bill.price, one.bill.price) : null,
            leadDays: more(next.bill.leadDays, one.bill.leadDays),
          }
        : null,
    };
  });
}
