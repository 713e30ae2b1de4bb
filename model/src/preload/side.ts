import { entryBase, type Quantity, type Scale } from '@hot-spline/core';
import type { Rests } from '../frame/figure';
import type { Verdict } from '../frame/finding';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { isWeak, type SpecSheet } from '../library/sheet';
import { originOf } from '../library/origins';
import type { MeshAxle } from '../mesh/axle';
import { carrierTorque, caseGrowth, sideSaid, zeroPlay } from '../mesh/readings';

/** What the total says of the carrier bearings. */
export interface CarrierRead {
  /** Null where the two can't be compared. */
  readonly nm: number | null;
  /** ±, from both readings through the ratio. */
  readonly plusMinusNm: number;
  /** What was compared, N·m at the pinion: the seal taken off both where it was in one of them alone. */
  readonly totalNm: number;
  readonly pinionNm: number;
  /** Why there is none: the seal was in one of the two and its drag was not read, or the total is less than the pinion alone. */
  readonly why: '' | 'seal' | 'less';
}

/** Ways to know that the side bearings are preloaded: common practice, the main schools. */
export const SIDE_METHODS = ['shims', 'sequence', 'carrier', 'total', 'growth', 'feel'] as const;
export type SideMethod = (typeof SIDE_METHODS)[number];

/** How far shims beyond zero play may be from what the sheet says: a guard of ours. */
export const BEYOND_MM = 0.02;

/** Side preload as one method reads it. */
export interface SideRead {
  readonly method: SideMethod;
  readonly quantity: Quantity;
  readonly scale: Scale;
  /** In base units; null where it is not read, or is said in words. */
  readonly value: number | null;
  /** What was said, where it is a word. */
  readonly said: string | null;
  /** What it is held against; null where nobody has said it. */
  readonly band: readonly [number, number] | null;
  /** Whether the band is only said, remembered, borrowed or guessed. */
  readonly weak: boolean;
  /** What the judgement rests on. */
  readonly rests: Rests;
  readonly verdict: Verdict;
  readonly reading: InForce | null;
}

const within = (value: number, [low, high]: readonly [number, number]): boolean =>
  value >= low - 1e-9 && value <= high + 1e-9;

function judged(value: number | null, band: readonly [number, number] | null): Verdict {
  if (value === null || band === null) return 'not-yet';
  return within(value, band) ? 'fits' : 'stop';
}

const bandOf = (told: SpecSheet['carrierTorque']): readonly [number, number] | null =>
  told && [entryBase(told.value.low), entryBase(told.value.high)];
/** How far a band can be leaned on. */
const leansOn = (told: Parameters<typeof originOf>[0] | null): Pick<SideRead, 'weak' | 'rests'> => ({
  weak: told !== null && isWeak(originOf(told)),
  rests: told === null ? 'measured' : ORIGIN_RESTS[originOf(told)],
});

/**
 * Side preload of an axle by every method that its construction has, side by side. Nothing is read for another: each has its
 * own reading, and its own band on the sheet.
 * Not counted: the drag of shaft seals, which is in a torque of the carrier where they are in.
 */
export function sideReads(
  mesh: MeshAxle,
  preload: { readonly carrier: CarrierRead | null },
  readings: Readings,
): readonly SideRead[] {
  const { axle, sheet, now, ringBy } = mesh;
  const torque = { quantity: 'torque', scale: 'turning', said: null } as const;
  const length = { quantity: 'length', scale: 'small', said: null } as const;
  const said = (method: 'sequence' | 'feel'): SideRead => {
    const reading = readings.get(sideSaid.key({ axle, method })) ?? null;
    const choice = reading?.value.of === 'choice' ? reading.value.choice : null;
    // A hand is no instrument: what feels right is never more than a watch.
    const good: Verdict = method === 'feel' ? 'watch' : 'fits';
    const verdict = choice === null ? 'not-yet' : choice === 'right' ? good : 'stop';
    return {
      method,
      quantity: 'count',
      scale: 'small',
      value: null,
      said: choice,
      band: null,
      weak: false,
      rests: 'said',
      verdict,
      reading,
    };
  };
  const shims = (): SideRead => {
    const reading = readings.get(zeroPlay.key({ axle })) ?? null;
    const over = reading && now ? now.leftMm + now.rightMm - readingBase(reading) : null;
    const told = sheet.carrierPreload;
    const wanted = told && entryBase(told.value);
    const band = wanted === null ? null : ([wanted - BEYOND_MM, wanted + BEYOND_MM] as const);
    return { method: 'shims', ...length, value: over, band, ...leansOn(told), verdict: judged(over, band), reading };
  };
  const carrier = (): SideRead => {
    const reading = readings.get(carrierTorque.key({ axle })) ?? null;
    const value = reading && readingBase(reading);
    const band = bandOf(sheet.carrierTorque);
    return {
      method: 'carrier',
      ...torque,
      value,
      band,
      ...leansOn(sheet.carrierTorque),
      verdict: judged(value, band),
      reading,
    };
  };
  const total = (): SideRead => {
    const band = bandOf(sheet.carrierTorque);
    const value = preload.carrier?.nm ?? null;
    const coarse = preload.carrier !== null && value !== null && preload.carrier.plusMinusNm > value / 2;
    // What the wrench can't tell apart decides nothing.
    const verdict = coarse && band !== null ? 'watch' : judged(value, band);
    return { method: 'total', ...torque, value, band, ...leansOn(sheet.carrierTorque), verdict, reading: null };
  };
  const growth = (): SideRead => {
    const reading = readings.get(caseGrowth.key({ axle })) ?? null;
    const value = reading && readingBase(reading);
    const band = bandOf(sheet.caseGrowth);
    return {
      method: 'growth',
      ...length,
      value,
      band,
      ...leansOn(sheet.caseGrowth),
      verdict: judged(value, band),
      reading,
    };
  };
  return [...(ringBy === 'adjusters' ? [said('sequence')] : [shims()]), carrier(), total(), growth(), said('feel')];
}
