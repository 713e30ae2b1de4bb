import {
  ACTS,
  ARRIVALS,
  BEARINGS,
  BOXES,
  BRAKES,
  CONSTRUCTIONS,
  GEARS,
  PERMITTED,
  RETENTIONS,
  SPACERS,
  SPREADS,
  UNIT_KINDS,
  UNIT_WORK,
  WHEEL_BEARINGS,
  caseOf,
  gateAsks,
  planFaults,
  type Act,
  type Asked,
  type Facts,
  type Operation,
} from '@hot-spline/core';
import { orderOfWork } from '../assembly/steps';
import { usualFacts } from './facts';

/** An order of work as somebody sees it who knows nothing of how it was made. */
interface Seen {
  readonly facts: Facts;
  readonly inferred: { readonly ringOff: boolean; readonly pinionOut: boolean };
  readonly steps: readonly { readonly id: string; readonly acts: readonly Act[]; readonly waits: boolean }[];
  readonly A: readonly Asked[];
  readonly B: readonly Asked[];
}

// Written from the trade's rules alone (common practice, no published source), not from the recipes: what blocks what,
// hazards, what can't be taken back, what comes back, what a gate may ask, and no step for what a job leaves alone.
function check({ facts: f, inferred, steps, A, B }: Seen): string[] {
  const wrong: string[] = [];
  const at = (act: Act): number => steps.findIndex(({ acts }) => acts.includes(act));
  const last = (act: Act): number => steps.findLastIndex(({ acts }) => acts.includes(act));
  const has = (act: Act): boolean => at(act) >= 0;
  const say = (right: boolean, what: string): void => {
    if (!right) wrong.push(what);
  };
  /** Where both are done, the first comes first. */
  const before = (first: Act, then: Act): void =>
    say(!has(first) || !has(then) || last(first) < at(then) || first === then, `${first} after ${then}`);
  const only = (act: Act, when: boolean): void =>
    say(has(act) === when, `${act} ${when ? 'missing' : 'not asked for'}`);
  const waits = (act: Act): boolean => steps.some(({ acts, waits: one }) => one && acts.includes(act));

  const electric = f.construction === 'electric-reduction';
  const bevel = !electric;
  const inPieces = f.arrives === 'parts';
  const withShafts = f.arrives === 'car' || f.arrives === 'axle';
  const anotherPair = f.gears !== 'stay';
  const anotherCarrier = ['new-closed', 'new-opened', 'locker', 'spool'].includes(f.unit);
  const open =
    anotherPair ||
    f.unit !== 'stays' ||
    f.sideBearings === 'new' ||
    f.pinionBearings === 'new' ||
    f.ringOff === true ||
    f.pinionOut === true ||
    (inPieces && f.box === 'stays');
  const depth = bevel && inferred.pinionOut && (anotherPair || f.pinionBearings === 'new' || inPieces);
  const position = open && bevel && (anotherPair || anotherCarrier || f.sideBearings === 'new' || inPieces);

  // Hazards.
  only('hv-off', electric);
  if (electric) say(at('hv-off') === 0, 'something before high voltage is off');
  only('raise', f.arrives === 'car');
  only('run-in', withShafts);
  only('fill', withShafts);
  only('dry-label', !withShafts && open);
  for (const act of ['unplug', 'shafts-out', 'drain'] as string[])
    if ((ACTS as readonly string[]).includes(act)) before('raise', act as Act);

  // Access.
  only('shafts-out', open && withShafts);
  only('shafts-in', open && withShafts);
  before('unplug', 'carrier-out');
  before('unplug', 'housing-out');
  before('shafts-out', 'carrier-out');
  only('housing-out', open && withShafts && f.construction === 'drop-out');
  only('housing-in', open && withShafts && f.construction === 'drop-out');
  before('shafts-out', 'housing-out');
  before('housing-out', 'mesh-read-before');
  before('housing-out', 'carrier-out');
  before('housing-in', 'shafts-in');
  before('carrier-final', 'housing-in');
  only('mesh-read-before', open && bevel && !inPieces);
  before('mesh-read-before', 'carrier-out');
  if (f.construction.startsWith('integral-')) before('mesh-read-before', 'shafts-out');
  else before('shafts-out', 'mesh-read-before');
  only('carrier-out', open && !inPieces);
  only('carrier-final', open && bevel);
  only('cover', open && f.construction !== 'drop-out');
  before('carrier-out', 'pinion-out');
  before('carrier-out', 'ring-off');
  for (const act of ['crush', 'pinion-bearing-final', 'seal-in', 'pinion-preload-read', 'gears-on-shaft'] as const)
    if (f.construction !== 'drop-out') before(act, 'carrier-final');
  before('support-oring', 'carrier-final');
  if (f.retention === 'c-clips' && withShafts && f.construction !== 'drop-out') before('shafts-in', 'cover');
  before('carrier-final', 'cover');
  before('carrier-final', 'shafts-in');

  // What comes off comes back; what the job leaves alone has no step.
  only('ring-off', inferred.ringOff && !inPieces);
  only('ring-on', inferred.ringOff);
  only('ring-bolts', inferred.ringOff);
  before('ring-off', 'ring-on');
  before('ring-on', 'ring-bolts');
  before('ring-bolts', 'carrier-final');
  only('pinion-out', inferred.pinionOut && !inPieces);
  say(!anotherPair || (inferred.ringOff && inferred.pinionOut), 'another pair, and ring or pinion stay');
  only('unit-open', ['new-opened', 'own-overhauled', 'insert'].includes(f.unit));
  only('breakaway-outside', f.unit === 'new-closed' && f.unitKind !== 'plain');
  before('breakaway-outside', 'ring-on');
  before('unit-open', 'ring-on');
  only('pinion-trial', depth);
  only('depth-proven', depth && (f.depth !== 'pattern-first' || f.depthShim === 'box-shaft'));
  only('pinion-bearing-final', depth);
  only('seal-in', bevel && inferred.pinionOut && f.construction !== 'transaxle');
  only('pinion-preload-read', bevel && inferred.pinionOut);
  only('crush', bevel && inferred.pinionOut && f.spacer === 'collapsible' && f.construction !== 'transaxle');
  only('gears-on-shaft', inferred.pinionOut && f.construction === 'transaxle');
  only('support-oring', inferred.pinionOut && f.construction === 'drop-out');
  before('pinion-bearing-final', 'seal-in');
  before('seal-in', 'crush');
  if (f.sideBearings === 'stay' && !anotherCarrier && !(position && f.ringPlacedBy === 'inboard-shims'))
    only('side-bearing-press', false);
  if (f.sideBearings === 'new') only('side-bearing-press', true);
  only('locker-trial', bevel && f.unit === 'locker' && f.lockerRings === 'after-dry-trial');
  only('locker-rings', f.unit === 'locker');
  only('leak-test', f.unit === 'locker');
  before('locker-trial', 'locker-rings');
  before('locker-rings', 'leak-test');
  if (bevel) before('locker-rings', 'carrier-final');

  // What waits for Gate A, by where the shim sits.
  const behindA: Record<string, readonly Act[]> = {
    'head-bearing': ['pinion-bearing-final', 'seal-in', 'crush'],
    cup: ['seal-in', 'crush'],
    support: ['support-oring'],
    'box-shaft': ['gears-on-shaft'],
    none: [],
  };
  if (depth)
    for (const act of behindA[f.depthShim] ?? []) {
      before('gate-a', act);
      say(!has(act) || waits(act), `${act} does not wait for Gate A`);
    }
  if (f.depthShim === 'support') {
    for (const act of ['pinion-bearing-final', 'seal-in', 'crush', 'pinion-preload-read'] as const) {
      say(!waits(act), `${act} waits, and its unit is finished on the bench`);
      before(act, 'pinion-trial');
      before(act, 'gate-a');
    }
    before('pinion-trial', 'support-oring');
  }
  if (f.depthShim === 'cup')
    say(!waits('pinion-bearing-final'), 'the bearing on the pinion waits, and its cup holds the shim');
  if (f.depthShim === 'box-shaft') before('depth-proven', 'gears-on-shaft');
  if (position && f.ringPlacedBy === 'inboard-shims') {
    before('gate-a', 'side-bearing-press');
    say(waits('side-bearing-press'), 'side bearings do not wait, and the shims lie under them');
  } else {
    before('side-bearing-press', 'carrier-final');
    say(!waits('side-bearing-press'), 'side bearings wait, and nothing lies under them');
  }
  for (const act of ['ring-bolts', 'ring-on', 'pinion-trial', 'locker-trial'] as const)
    say(!waits(act), `${act} is what the trial needs`);
  only('gate-a', A.length > 0);
  only('gate-b', B.length > 0);
  say(A.length > 0 || !steps.some((one) => one.waits), 'something waits for a gate that is not');
  say(A.length === 0 || steps.some((one) => one.waits), 'a gate for which nothing waits');
  before('gate-a', 'gate-b');
  for (const act of ['pinion-trial', 'depth-proven', 'locker-trial'] as const) before(act, 'gate-a');
  for (const act of [
    'carrier-final',
    'ring-bolts',
    'crush',
    'pinion-preload-read',
    'leak-test',
    'support-oring',
  ] as const)
    before(act, 'gate-b');
  for (const act of ['cover', 'housing-in', 'shafts-in', 'fill', 'dry-label', 'run-in'] as const) before('gate-b', act);
  for (const act of ['cover', 'housing-in', 'shafts-in', 'fill'] as const) before(act, 'run-in');

  // What the gates ask.
  const asksB = new Set<Asked>();
  if (open && bevel) {
    asksB.add('backlash').add(anotherPair || inPieces ? 'pattern' : 'repeats-before');
    if (inferred.pinionOut) asksB.add('pinion-preload');
    else if (B.includes('drag-compared')) asksB.add('drag-compared');
    if (position) asksB.add('side-preload');
    if (f.unit === 'locker') asksB.add('leak');
  }
  if (open && electric) asksB.add('float');
  if (inferred.ringOff) asksB.add('ring-bolts');
  if (f.box === 'input-float' && (bevel || !open)) asksB.add('float');
  say([...asksB].sort().join() === [...new Set(B)].sort().join(), `Gate B asks ${B.join()} for ${[...asksB].join()}`);
  say(!B.includes('drag-compared') || (!inferred.pinionOut && bevel), 'a drag is compared that is gone');
  return wrong;
}

const VALUES = {
  arrives: ARRIVALS,
  place: CONSTRUCTIONS.flatMap((construction) =>
    PERMITTED[construction].depthShim.flatMap((depthShim) =>
      PERMITTED[construction].ringPlacedBy.map((ringPlacedBy) => ({ construction, depthShim, ringPlacedBy })),
    ),
  ),
  gears: GEARS,
  unit: UNIT_WORK,
  sideBearings: BEARINGS,
  pinionBearings: BEARINGS,
  spacer: SPACERS,
  retention: RETENTIONS,
  ringOff: [null, true, false],
  pinionOut: [null, true, false],
  box: BOXES,
  unitKind: UNIT_KINDS,
  depth: ['gauge-first', 'pattern-first', 'gauge-decides'],
  lockerRings: ['after-dry-trial', 'first-fitting'],
} as const;
/** What changes words and parts of steps, not their order: taken in turn beside the triples. */
const ENDS = [null, ...WHEEL_BEARINGS].flatMap((wheelBearing) =>
  [null, ...BRAKES].flatMap((brake) => [null, ...SPREADS].map((spread) => ({ wheelBearing, brake, spread }))),
);
type Key = keyof typeof VALUES;
const KEYS = Object.keys(VALUES) as Key[];
type Pick = Readonly<Record<Key, number>>;

const factsAt = (pick: Pick): Facts => {
  const value = <K extends Key>(key: K) => VALUES[key][pick[key]] as (typeof VALUES)[K][number];
  const { place, ...rest } = Object.fromEntries(KEYS.map((key) => [key, value(key)])) as { place: object };
  return { ...usualFacts(), ...rest, ...place };
};
export const permitted = (f: Facts): boolean =>
  !(f.ringOff === false && f.gears !== 'stay') &&
  !(f.pinionOut === false && (f.gears !== 'stay' || f.pinionBearings === 'new'));

/** The order that is shipped, or one that somebody has broken. */
export type Order = (facts: Facts) => readonly Operation[];
const seen = (facts: Facts, steps: readonly Operation[]): Seen => {
  const c = caseOf(facts);
  return {
    facts,
    inferred: { ringOff: c.ringComesOff, pinionOut: c.pinionComesOut },
    steps: steps.map(({ id, acts, behind }) => ({ id, acts, waits: behind === 'A' })),
    ...gateAsks(facts),
  };
};
/** What is wrong with an order, by the checker and by what its own steps say. */
export const judged = (facts: Facts, order: Order = orderOfWork): string[] => {
  const steps = order(facts);
  const before = seen(facts, steps);
  const { A, B } = before;
  const gates = { A: A.length > 0, B: B.length > 0 };
  /** What is asked and that no step takes before the gate. */
  const untaken = (asked: readonly Asked[], gate: 'A' | 'B'): readonly string[] => {
    const reached = steps
      .slice(
        0,
        steps.findIndex((step) => step.gate === gate),
      )
      .flatMap(({ answers }) => answers);
    return asked.filter((ask) => !reached.includes(ask)).map((ask) => `Gate ${gate} asks ${ask} and no step takes it`);
  };
  return [
    ...check(before),
    ...planFaults(steps)
      .filter((fault) => fault.kind !== 'no-gate' || gates[fault.gate])
      .map((fault) => JSON.stringify(fault)),
    ...untaken(A, 'A'),
    ...untaken(B, 'B'),
    ...(new Set(steps.map(({ id }) => id)).size === steps.length ? [] : ['a step stands twice']),
  ];
};

/** All triples: of every three facts every combination of values, the rest in turn. */
export function* triples(): Generator<Facts> {
  let turn = 0;
  for (let i = 0; i < KEYS.length; i++)
    for (let j = i + 1; j < KEYS.length; j++)
      for (let k = j + 1; k < KEYS.length; k++) {
        const [a, b, c] = [KEYS[i] as Key, KEYS[j] as Key, KEYS[k] as Key];
        for (let x = 0; x < VALUES[a].length; x++)
          for (let y = 0; y < VALUES[b].length; y++)
            for (let z = 0; z < VALUES[c].length; z++) {
              turn++;
              const rest = Object.fromEntries(
                KEYS.map((key, n) => [key, Math.floor(turn * (0.618 + n * 0.1732) * 997) % VALUES[key].length]),
              ) as Record<Key, number>;
              yield { ...factsAt({ ...rest, [a]: x, [b]: y, [c]: z }), ...ENDS[turn % ENDS.length] };
            }
      }
}

/** What runs in the end, where the torture run takes one kind each: the others are in the triples. */
const KIND: Partial<Record<Facts['unit'], Facts['unitKind']>> = { insert: 'insert', locker: 'locker', spool: 'plain' };
const TURNED = KEYS.filter((key) => key !== 'unitKind' && key !== 'depth' && key !== 'lockerRings');

/** Every permitted combination of facts; of depth schools and kinds of unit one each, of locker rings both with a locker. */
export function* everyCombination(n = 0, pick: Readonly<Record<string, number>> = {}): Generator<Facts> {
  const key = TURNED[n];
  if (key !== undefined) {
    for (let value = 0; value < VALUES[key].length; value++) yield* everyCombination(n + 1, { ...pick, [key]: value });
    return;
  }
  const facts = factsAt({ unitKind: 0, depth: 0, lockerRings: 0, ...pick } as Pick);
  if (!permitted(facts)) return;
  const unitKind = KIND[facts.unit] ?? 'plate';
  yield { ...facts, unitKind };
  if (facts.unit === 'locker') yield { ...facts, unitKind, lockerRings: 'first-fitting' };
}
