import { entryBase, entryOf, plateOrders, wrenchReading, type Entry } from '@hot-spline/core';
import { SIDES, type AxleName, type Side } from '../base/names';
import type { Complaint, Wheel, Where } from '../identity/schema';
import type { PlateSpec } from '../pack/schema';
import { openUnit } from './new-unit';
import { layPack } from '../pack/wanted';
import { packStateOf, type PackContext } from '../pack/pack-state';
import { isPlate, memberTurns } from '../pack/state';
import type { Readings } from '../frame/readings';
import { unitState } from './derive';

/** Steps of a trial, ours: small enough to feel one at a time. */
export const TUNE_STEPS = { rampDeg: 5, shimMm: 0.1, additive: 0.9 } as const;

/** What a complaint asks for: 1 more, −1 less, and how much of it; what is not named should stay as it is. */
type Wish = Readonly<Partial<Record<keyof Behaviour, number>>>;
/** Common practice, no published source; the directions follow from equilibrium (bias pushes wide on power, steadies on overrun). */
export const WISHES: Readonly<Partial<Record<Complaint, Wish>>> = {
  'one-wheel-spins': { drive: 1, breakaway: 0.5 },
  'pushes-wide': { drive: -1 },
  'snaps-on-lift': { overrun: 1 },
  'drags-in-turns': { breakaway: -1, overrun: -0.5 },
  chatters: { breakaway: -1 },
};

/** Where in a turn a complaint is met says what of the lock it is: into it on overrun, through it the springs, out of it the drive side. */
const MET: Readonly<Partial<Record<Complaint, Readonly<Record<Where, Wish>>>>> = {
  'one-wheel-spins': {
    entry: { overrun: 1, breakaway: 0.5 },
    middle: { breakaway: 1 },
    exit: { drive: 1, breakaway: 0.5 },
  },
  'pushes-wide': { entry: { overrun: -1, breakaway: -0.5 }, middle: { breakaway: -1 }, exit: { drive: -1 } },
  'drags-in-turns': {
    entry: { overrun: -1, breakaway: -0.5 },
    middle: { breakaway: -1 },
    exit: { drive: -1, breakaway: -0.5 },
  },
};

/** Complaints of which it matters where in a turn they are met. */
export const MET_WHERE = Object.keys(MET) as readonly Complaint[];
/** Complaints of which it matters whether it is one and the same wheel always. */
export const OF_A_WHEEL: readonly Complaint[] = ['one-wheel-spins'];

/** Where a complaint is met, and at which wheel; null: nobody has said. */
export interface Met {
  readonly wheel: Wheel | null;
  readonly where: Where | null;
}
const ANYWHERE: Met = { wheel: null, where: null };
const isSide = (wheel: Wheel | null): wheel is Side => wheel === 'left' || wheel === 'right';

function wishOf(complaint: Complaint, { wheel, where }: Met): Wish | undefined {
  // One and the same wheel whichever way it turns: what the packs hold apart, before anything else.
  if (OF_A_WHEEL.includes(complaint) && isSide(wheel)) return { apart: -1 };
  return (where === null ? undefined : MET[complaint]?.[where]) ?? WISHES[complaint];
}

/** How a unit behaves, as the driver meets it. */
export interface Behaviour {
  /** Locking value under power and on overrun; 1 and more is solid. */
  readonly drive: number;
  readonly overrun: number;
  /** Torque wrench with the other wheel held, N·m. */
  readonly breakaway: number;
  /** What the packs hold apart, as a share of their mean. */
  readonly apart: number;
}

/** What a tuning is worked out at. */
export interface Tuning extends PackContext {
  readonly readings: Readings;
  readonly inputNm: number;
  readonly overrunNm: number;
}

export type TuneChange =
  | { readonly kind: 'drive-ramp' | 'overrun-ramp'; readonly from: Entry; readonly to: Entry }
  /** The overrun side cut flatter or steeper by itself: a two-way unit becomes a one-and-a-half-way one. */
  | { readonly kind: 'overrun-ramp-alone'; readonly from: Entry; readonly to: Entry }
  | { readonly kind: 'shim-side'; readonly side: Side; readonly moreMm: number }
  | { readonly kind: 'action'; readonly from: PlateSpec['action']; readonly to: PlateSpec['action'] }
  | { readonly kind: 'shim'; readonly moreMm: number }
  | { readonly kind: 'order'; readonly from: number; readonly to: number }
  | { readonly kind: 'additive' };

export interface Advice {
  readonly change: TuneChange;
  /** The plate unit after the change; for a shim, with its target height moved. */
  readonly plate: PlateSpec;
  readonly before: Behaviour;
  readonly after: Behaviour;
  /** What it does besides what was wanted, worst first. */
  readonly besides: readonly SideEffect[];
  /** Moves what is wanted less what it moves besides; the first of a list has the most. */
  readonly score: number;
}

/** What a step does that nobody asked for; common practice, no published source. */
export type SideEffect =
  | 'drive-more'
  | 'drive-less'
  | 'overrun-more'
  | 'overrun-less'
  | 'breakaway-more'
  | 'breakaway-less'
  | 'apart-more'
  | 'new-ring'
  | 'springs-flatter'
  | 'fewer-plates-heat'
  | 'additive-fades'
  | 'no-overrun';

/** Less than this share nobody feels; ours. */
const FELT = 0.03;

function effectsOf(change: TuneChange, wish: Wish, before: Behaviour, after: Behaviour): SideEffect[] {
  const besides: SideEffect[] = [];
  for (const key of ['drive', 'overrun', 'breakaway'] as const) {
    const share = moved(before[key], after[key]);
    const wanted = wish[key];
    if (Math.abs(share) < FELT || (wanted !== undefined && Math.sign(wanted) === Math.sign(share))) continue;
    besides.push(share > 0 ? `${key}-more` : `${key}-less`);
  }
  if (after.apart > before.apart + FELT) besides.push('apart-more');
  if (change.kind.endsWith('ramp') || change.kind === 'overrun-ramp-alone') besides.push('new-ring');
  if ((change.kind === 'shim' || change.kind === 'shim-side') && change.moreMm > 0) besides.push('springs-flatter');
  if (change.kind === 'order' && change.to < change.from) besides.push('fewer-plates-heat');
  if (change.kind === 'additive') besides.push('additive-fades');
  if (change.kind === 'action' && change.to === 'one-way') besides.push('no-overrun');
  return besides;
}

function behaviour(
  plate: PlateSpec,
  axle: AxleName,
  { readings, inputNm, overrunNm, ...context }: Tuning,
  moreMm: PackContext['moreMm'] = 0,
): Behaviour {
  const packs = packStateOf(plate, axle, readings, { ...context, moreMm });
  const state = unitState({ ...openUnit(), type: 'plate', plate }, packs);
  return {
    drive: state.lock('drive', inputNm).lockNm / inputNm,
    overrun: state.lock('overrun', overrunNm).lockNm / overrunNm,
    breakaway: wrenchReading(
      { leftNm: packs.left.breakawayNm, rightNm: packs.right.breakawayNm },
      'other-wheel-held',
      packs.wheel,
    ).torqueNm,
    apart: apartOf(packs.left.breakawayNm, packs.right.breakawayNm),
  };
}

const apartOf = (a: number, b: number): number => (a + b === 0 ? 0 : (2 * Math.abs(a - b)) / (a + b));

interface Step {
  readonly change: TuneChange;
  readonly plate: PlateSpec;
  readonly moreMm?: PackContext['moreMm'];
}

/** Every single step that may be tried on a plate unit, with the unit as it would be. */
function steps(plate: PlateSpec, wheel: Wheel | null): Step[] {
  const all: Step[] = [];
  const ramp = (key: 'driveRamp' | 'overrunRamp', by: number): void => {
    const to = entryBase(plate[key]) + by;
    if (to < 10 || to > 89) return;
    const value = Number(to.toFixed(1));
    const entry: Entry = { typed: `${value}°`, value, unit: '°' };
    const kind = key === 'driveRamp' ? ('drive-ramp' as const) : ('overrun-ramp' as const);
    all.push({ change: { kind, from: plate[key], to: entry }, plate: { ...plate, [key]: entry } });
  };
  /** Both sides of a two-way unit work by one angle: cut the overrun side by itself, and it is no two-way unit any more. */
  const alone = (by: number): void => {
    const to = entryBase(plate.driveRamp) + by;
    if (to < 10 || to > 89) return;
    const value = Number(to.toFixed(1));
    const entry: Entry = { typed: `${value}°`, value, unit: '°' };
    all.push({
      change: { kind: 'overrun-ramp-alone', from: plate.driveRamp, to: entry },
      plate: { ...plate, action: 'one-and-a-half-way', overrunRamp: entry },
    });
  };
  for (const by of [-TUNE_STEPS.rampDeg, TUNE_STEPS.rampDeg]) {
    ramp('driveRamp', by);
    if (plate.action === 'one-and-a-half-way') ramp('overrunRamp', by);
    if (plate.action === 'two-way') alone(by);
  }
  for (const to of ['two-way', 'one-and-a-half-way', 'one-way'] as const) {
    if (to !== plate.action)
      all.push({ change: { kind: 'action', from: plate.action, to }, plate: { ...plate, action: to } });
  }
  if (plate.preload.from === 'dished-springs') {
    for (const moreMm of [-TUNE_STEPS.shimMm, TUNE_STEPS.shimMm]) {
      const height = entryBase(plate.targetHeight) + moreMm;
      const targetHeight = entryOf(Number(height.toFixed(3)), 'mm');
      all.push({ change: { kind: 'shim', moreMm }, plate: { ...plate, targetHeight }, moreMm });
    }
    if (isSide(wheel))
      for (const side of SIDES)
        for (const moreMm of [-TUNE_STEPS.shimMm / 2, TUNE_STEPS.shimMm / 2])
          all.push({
            change: { kind: 'shim-side', side, moreMm },
            plate,
            moreMm: { left: 0, right: 0, [side]: moreMm },
          });
  }
  all.push(...orders(plate));
  const mu = entryBase(plate.frictionCoefficient);
  all.push({
    change: { kind: 'additive' },
    plate: { ...plate, frictionCoefficient: entryOf(Number((TUNE_STEPS.additive * mu).toFixed(4)), '') },
  });
  return all;
}

/** The next order with fewer interfaces and the next with more, where both packs can be laid so. */
function orders(plate: PlateSpec): { change: TuneChange; plate: PlateSpec }[] {
  const plates = SIDES.map((side) => plate.packs[side].members.filter(isPlate).map(memberTurns));
  if (plates.some((list) => list.length === 0 || list.length > 30)) return [];
  const known = plates.map((list) => plateOrders(list));
  const now = known.map((map) => [...map].find(([, order]) => order.moved === 0)?.[0]);
  const from = now[0];
  if (from === undefined || now.some((one) => one !== from)) return [];
  const both = [...(known[0]?.keys() ?? [])].filter((n) => n > 0 && known.every((map) => map.has(n)));
  return [both.filter((n) => n < from).at(-1), both.find((n) => n > from)].flatMap((to) => {
    if (to === undefined) return [];
    const laid = structuredClone(plate) as PlateSpec;
    SIDES.forEach((side, i) => layPack(laid, side, known[i]?.get(to)?.order ?? []));
    return [{ change: { kind: 'order' as const, from, to }, plate: laid }];
  });
}

/** A share of what it was; nought where there was nothing. */
const moved = (before: number, after: number): number => (before === 0 ? Number(after !== 0) : after / before - 1);

/**
 * Single steps that serve a complaint of the driver, best first, each with what it does computed for this unit. Left out:
 * steps that serve it not at all, and steps that would lock the unit solid where it was not. Where in a turn it is met says which lock
 * it is of; one and the same wheel always is of the packs' difference first.
 * @param tuning torques into the unit at the operating point, above 0, under power and on overrun
 * @returns none for a complaint that is not the unit's
 */
export function tuneFor(
  complaint: Complaint,
  plate: PlateSpec,
  axle: AxleName,
  tuning: Tuning,
  met: Met = ANYWHERE,
): Advice[] {
  const wish = wishOf(complaint, met);
  if (!wish || tuning.inputNm <= 0 || tuning.overrunNm <= 0) return [];
  const before = behaviour(plate, axle, tuning);
  const keys = ['drive', 'overrun', 'breakaway', 'apart'] as const;
  return steps(plate, met.wheel)
    .map(({ change, plate: changed, moreMm }): Advice => {
      const after = behaviour(changed, axle, tuning, moreMm);
      const score = keys.reduce((sum, key) => {
        const share = moved(before[key], after[key]);
        const wanted = wish[key];
        // What the packs hold apart counts by itself: a share of next to nothing is no change.
        if (key === 'apart') return sum + (wanted ?? -0.5) * (after.apart - before.apart);
        return sum + (wanted === undefined ? -0.5 * Math.abs(share) : wanted * share);
      }, 0);
      // Additive is what stops stick and slip, whatever it does to the torque [common practice].
      const bonus = complaint === 'chatters' && change.kind === 'additive' ? 1 : 0;
      const besides = effectsOf(change, wish, before, after);
      return { change, plate: changed, before, after, besides, score: score + bonus };
    })
    .filter(({ score, after }) => score > 1e-3 && (after.drive < 1 || before.drive >= 1))
    .sort((a, b) => b.score - a.score);
}
