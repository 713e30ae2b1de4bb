import {
  ARRIVALS,
  BEARINGS,
  BOXES,
  GEARS,
  InputError,
  PERMITTED,
  UNIT_WORK,
  caseOf,
  presetOf,
  type Facts,
  type UnitKind,
} from '@hot-spline/core';
import type { Axle } from '../frame/document';
import type { Work } from './schema';

/** What a type of unit is to the order of work. */
export const UNIT_KIND: Readonly<Record<Axle['unit']['type'], UnitKind>> = {
  plate: 'plate',
  'side-gear-thrust': 'plate',
  cone: 'plain',
  helical: 'geared',
  hybrid: 'geared',
  'friction-insert': 'insert',
  'selectable-locker': 'locker',
  'automatic-locker': 'plain',
  spool: 'plain',
  open: 'plain',
};

/** Facts of a job that somebody can say; each follows from something until they do. */
export const SAID_FACTS = [
  'arrives',
  'gears',
  'unit',
  'sideBearings',
  'pinionBearings',
  'ringOff',
  'pinionOut',
  'depthShim',
  'ringPlacedBy',
  'box',
] as const;
export type SaidFact = (typeof SAID_FACTS)[number];

/** Where a fact comes from. */
export type FactFrom = 'said' | 'job' | 'axle' | 'usual' | 'follows';

/**
 * What decides the steps of an axle: what somebody has said, else the job’s preset, else the axle’s spec, else the usual.
 * @throws InputError on `job` where the unit of the build is none that the job puts in
 */
export function factsOf({ work, identity, unit, setup }: Axle): Facts | null {
  if (!work) return null;
  const unitKind = UNIT_KIND[unit.type];
  const construction = identity?.construction.value ?? 'integral-head-shim';
  const { depthShim, ringPlacedBy } = PERMITTED[construction];
  const facts: Facts = {
    construction,
    depthShim: depthShim[0] ?? 'none',
    ringPlacedBy: ringPlacedBy[0] ?? 'none',
    spacer: construction === 'electric-reduction' ? 'none' : (setup?.spacer ?? 'collapsible'),
    retention: identity?.retention?.value ?? 'c-clips',
    ringHand: identity?.ringBolts?.value.hand ?? null,
    brake: identity?.brake?.value ?? null,
    wheelBearing: identity?.wheelBearing?.value ?? null,
    outerSeal: identity?.outerSeal?.value ?? null,
    spread: identity?.spread?.value ?? null,
    ringOff: null,
    pinionOut: null,
    unitKind,
    ...work.schools,
    ...presetOf(work.job, unitKind),
    ...work.facts,
  };
  for (const kind of ['insert', 'locker'] as const)
    if (facts.unit === kind && unitKind !== kind)
      throw new InputError(
        'job',
        `job ${work.job} needs a unit of that kind, not ${unitKind}.`,
        `a unit that is ${kind}`,
      );
  return facts;
}

/** A switch of a job: what it is, what it would be if nobody had said it, and what it may be. */
export interface FactState {
  readonly fact: SaidFact;
  readonly value: string;
  readonly otherwise: string;
  readonly from: FactFrom;
  readonly may: readonly string[];
}

const yesNo = (value: boolean): string => (value ? 'yes' : 'no');

/** What a fact may be beside the others: what the construction has, what the unit of the build can be. */
function mayBe(fact: SaidFact, facts: Facts): readonly string[] {
  switch (fact) {
    case 'arrives':
      return ARRIVALS;
    case 'gears':
      return GEARS;
    case 'sideBearings':
    case 'pinionBearings':
      return BEARINGS;
    case 'box':
      return BOXES;
    case 'depthShim':
    case 'ringPlacedBy':
      return PERMITTED[facts.construction][fact];
    case 'ringOff':
      return facts.gears === 'stay' ? ['yes', 'no'] : ['yes'];
    case 'pinionOut':
      return facts.gears === 'stay' && facts.pinionBearings === 'stay' ? ['yes', 'no'] : ['yes'];
    case 'unit':
      return UNIT_WORK.filter((one) =>
        one === 'insert' || one === 'locker'
          ? facts.unitKind === one
          : one === 'stays' || (one === 'spool' ? facts.unitKind === 'plain' : facts.unitKind !== 'insert'),
      );
  }
}

/** The switches of a job as they stand, each with why; what may be one thing only is no choice, and is shown all the same. */
export function factStates(axle: Axle): readonly FactState[] {
  const { work } = axle;
  if (!work) return [];
  const shown = (facts: Facts, fact: SaidFact): string => {
    if (fact !== 'ringOff' && fact !== 'pinionOut') return facts[fact];
    const { ringComesOff, pinionComesOut } = caseOf(facts);
    return yesNo(fact === 'ringOff' ? ringComesOff : pinionComesOut);
  };
  return SAID_FACTS.flatMap((fact): FactState[] => {
    const { [fact]: _, ...others } = work.facts;
    const [facts, without] = [axle, { ...axle, work: { ...work, facts: others } }].map(factsOf);
    if (!facts || !without) return [];
    const may = mayBe(fact, facts);
    return [{ fact, value: shown(facts, fact), otherwise: shown(without, fact), from: factFrom(axle, fact), may }];
  });
}

/**
 * Says a fact, or takes back what was said (null). What can't be beside it any more follows from the rest again.
 * @throws InputError naming the fact, where it does not go with the others
 */
export function sayFact(axle: Axle, fact: SaidFact, value: string | null): Work['facts'] {
  const { [fact]: _, ...others } = axle.work?.facts ?? {};
  const said: Work['facts'] = {
    ...others,
    ...(value === null ? {} : { [fact]: fact === 'ringOff' || fact === 'pinionOut' ? value === 'yes' : value }),
  };
  const facts = axle.work && factsOf({ ...axle, work: { ...axle.work, facts: { ...said } } });
  const ofRing = facts?.gears !== 'stay' && said.ringOff === false;
  const ofPinion = (facts?.gears !== 'stay' || facts?.pinionBearings === 'new') && said.pinionOut === false;
  const kept = Object.fromEntries(
    Object.entries(said).filter(([key]) => !(key === 'ringOff' && ofRing) && !(key === 'pinionOut' && ofPinion)),
  );
  if (axle.work) {
    const all = factsOf({ ...axle, work: { ...axle.work, facts: kept } });
    if (all) caseOf(all);
  }
  return kept;
}

/** Why a fact is as it is. */
export function factFrom({ work, identity }: Axle, fact: SaidFact): FactFrom {
  if (work?.facts[fact] !== undefined) return 'said';
  if (fact === 'ringOff' || fact === 'pinionOut') return 'follows';
  if (fact === 'depthShim' || fact === 'ringPlacedBy') return identity ? 'axle' : 'usual';
  return 'job';
}
