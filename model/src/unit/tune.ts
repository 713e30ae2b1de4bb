import { entryBase, entryOf, plateOrders, wrenchReading, type Entry } from '@hot-spline/core';
import { SIDES, type AxleName } from '../base/names';
import type { Complaint } from '../identity/schema';
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
type Wish = Readonly<Partial<Record<'drive' | 'overrun' | 'breakaway', number>>>;
/** Common practice, no published source; the directions follow from equilibrium (bias pushes wide on power, steadies on overrun). */
export const WISHES: Readonly<Partial<Record<Complaint, Wish>>> = {
  'one-wheel-spins': { drive: 1, breakaway: 0.5 },
  'pushes-wide': { drive: -1 },
  'snaps-on-lift': { overrun: 1 },
  'drags-in-turns': { breakaway: -1, overrun: -0.5 },
  chatters: { breakaway: -1 },
};

/** How a unit behaves, as the driver meets it. */
export interface Behaviour {
  /** Locking value under power and on overrun; 1 and more is solid. */
  readonly drive: number;
  readonly overrun: number;
  /** Torque wrench with the other wheel held, N·m. */
  readonly breakaway: number;
}

/** What a tuning is worked out at. */
export interface Tuning extends PackContext {
  readonly readings: Readings;
  readonly inputNm: number;
  readonly overrunNm: number;
}

export type TuneChange =
  | { readonly kind: 'drive-ramp' | 'overrun-ramp'; readonly from: Entry; readonly to: Entry }
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
  /** Moves what is wanted less what it moves besides; the first of a list has the most. */
  readonly score: number;
}

function behaviour(
  plate: PlateSpec,
  axle: AxleName,
  { readings, inputNm, overrunNm, ...context }: Tuning,
  moreMm = 0,
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
  };
}

/** Every single step that may be tried on a plate unit, with the unit as it would be. */
function steps(plate: PlateSpec): { change: TuneChange; plate: PlateSpec; moreMm?: number }[] {
  const all: { change: TuneChange; plate: PlateSpec; moreMm?: number }[] = [];
  const ramp = (key: 'driveRamp' | 'overrunRamp', by: number): void => {
    const to = entryBase(plate[key]) + by;
    if (to < 10 || to > 89) return;
    const value = Number(to.toFixed(1));
    const entry: Entry = { typed: `${value}°`, value, unit: '°' };
    const kind = key === 'driveRamp' ? ('drive-ramp' as const) : ('overrun-ramp' as const);
    all.push({ change: { kind, from: plate[key], to: entry }, plate: { ...plate, [key]: entry } });
  };
  for (const by of [-TUNE_STEPS.rampDeg, TUNE_STEPS.rampDeg]) {
    ramp('driveRamp', by);
    if (plate.action === 'one-and-a-half-way') ramp('overrunRamp', by);
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
 * steps that serve it not at all, and steps that would lock the unit solid where it was not.
 * @param tuning torques into the unit at the operating point, above 0, under power and on overrun
 * @returns none for a complaint that is not the unit's
 */
export function tuneFor(complaint: Complaint, plate: PlateSpec, axle: AxleName, tuning: Tuning): Advice[] {
  const wish = WISHES[complaint];
  if (!wish || tuning.inputNm <= 0 || tuning.overrunNm <= 0) return [];
  const before = behaviour(plate, axle, tuning);
  const keys = ['drive', 'overrun', 'breakaway'] as const;
  return steps(plate)
    .map(({ change, plate: changed, moreMm }): Advice => {
      const after = behaviour(changed, axle, tuning, moreMm);
      const score = keys.reduce((sum, key) => {
        const share = moved(before[key], after[key]);
        const wanted = wish[key];
        return sum + (wanted === undefined ? -0.5 * Math.abs(share) : wanted * share);
      }, 0);
      // Additive is what stops stick and slip, whatever it does to the torque [common practice].
      const bonus = complaint === 'chatters' && change.kind === 'additive' ? 1 : 0;
      return { change, plate: changed, before, after, score: score + bonus };
    })
    .filter(({ score, after }) => score > 1e-3 && (after.drive < 1 || before.drive >= 1))
    .sort((a, b) => b.score - a.score);
}
