import type { AxleName } from '../base/names';
import { entryBase, type Entry } from '@hot-spline/core';
import { subjectKey, type Subject, type SubjectOf } from './subjects';
import { countedEntry, type ReadingValue } from './values';

/** What every entry of the ledger says. */
interface Written {
  readonly id: string;
  /** Time of the device that wrote it: for people. What counts is the order in the ledger. */
  readonly at: string;
  /** Who wrote it; empty where nobody has said. */
  readonly who: string;
}

/** What a gauge sent for a reading. */
export interface GaugeSent {
  /** The gauge by the name that this device gives it. */
  readonly name: string;
  /** For each number in turn the line as it was sent; several lines of a mean apart by a bar; empty where it was typed by hand. */
  readonly lines: readonly string[];
  /** Unit of the lines, as sent or as somebody said of this gauge. */
  readonly unit: string;
  /** When it was last zeroed on this device; null where it was not. */
  readonly zeroed: string | null;
  /** Made up by the simulated gauge on a real build: kept with that mark for good, and never in force. */
  readonly simulated: boolean;
}

export interface Reading extends Written {
  readonly kind: 'reading';
  readonly subject: SubjectOf;
  readonly value: ReadingValue;
  /** The state that it was taken in. */
  readonly state: Readonly<Record<string, string>>;
  readonly instrument: string;
  readonly note?: string | undefined;
  readonly gauge?: GaugeSent | undefined;
}

/** Something that was decided: what about, how, and why. */
export interface Decision extends Written {
  readonly kind: 'decision';
  readonly about: string;
  readonly decided: string;
  readonly why: string;
}

/** Somebody's name under figures: a gate, a hand-over. */
export interface Signature extends Written {
  readonly kind: 'signature';
  readonly gate: string;
  readonly name: string;
  readonly figures: Readonly<Record<string, number>>;
  readonly note?: string | undefined;
}

export interface Void extends Written {
  readonly kind: 'void';
  readonly voids: string;
  readonly reason: string;
}

export type LedgerEntry = Reading | Decision | Signature | Void;

/** A reading in force with its place in the ledger. */
export interface InForce extends Reading {
  readonly seq: number;
  /** Readings of the same subject before it that are not voided, newest first. */
  readonly earlier: readonly Reading[];
}

/** The reading in force for each subject, by its key. */
export type Readings = ReadonlyMap<string, InForce>;

/** Which entry voids which. */
export function voidedBy(ledger: readonly LedgerEntry[]): ReadonlyMap<string, Void> {
  const voids = new Map<string, Void>();
  for (const entry of ledger) if (entry.kind === 'void' && !voids.has(entry.voids)) voids.set(entry.voids, entry);
  return voids;
}

/**
 * The reading in force for each subject: the last one in the ledger, not by anybody's clock, that is not voided. What a simulated gauge
 * made up on a real build counts for nothing.
 * @param before of an earlier ledger of the same build: what is still the same is handed on as it was
 */
export function inForce(ledger: readonly LedgerEntry[], kinds: readonly Subject[], before: Readings = NONE): Readings {
  const voids = voidedBy(ledger);
  const all = new Map<string, { readonly last: Reading; readonly seq: number; readonly before: Reading[] }>();
  ledger.forEach((entry, seq) => {
    if (entry.kind !== 'reading' || voids.has(entry.id) || entry.gauge?.simulated) return;
    const key = subjectKey(entry.subject, kinds);
    const known = all.get(key);
    known?.before.push(known.last);
    all.set(key, { last: entry, seq, before: known?.before ?? [] });
  });
  // In linear time: a subject may have been read thousands of times.
  return new Map(
    [...all].map(([key, { last, seq, before: earlier }]) => {
      const was = before.get(key);
      const same = was?.id === last.id && was.seq === seq && was.value === last.value && sameOnes(was.earlier, earlier);
      return [key, same ? was : { ...last, seq, earlier: earlier.reverse() }];
    }),
  );
}

const NONE: Readings = new Map();
/** Whether the earlier readings, newest first, are these, newest last. */
const sameOnes = (earlier: readonly Reading[], these: readonly Reading[]): boolean =>
  earlier.length === these.length && earlier.every((one, i) => one === these[these.length - 1 - i]);

/** The signature in force under each gate: the last one that is not voided. */
export function signaturesInForce(ledger: readonly LedgerEntry[]): ReadonlyMap<string, Signature> {
  const voids = voidedBy(ledger);
  const signed = new Map<string, Signature>();
  for (const entry of ledger) if (entry.kind === 'signature' && !voids.has(entry.id)) signed.set(entry.gate, entry);
  return signed;
}

/** The entry that counts of a reading of a number. */
export const readingEntry = ({ value }: Reading): Entry => countedEntry(value);
/** Its value in the base unit. */
export const readingBase = (reading: Reading): number => entryBase(readingEntry(reading));

/** The last reading of one of these kinds on an axle. */
export function lastOf(readings: Readings, axle: AxleName, kinds: readonly string[]): InForce | null {
  let last: InForce | null = null;
  for (const one of readings.values()) {
    const { what, axle: on } = one.subject as { readonly what: string; readonly axle?: string };
    if (kinds.includes(what) && on === axle && (last === null || one.seq > last.seq)) last = one;
  }
  return last;
}

/** A reading, unless it is out of a band that somebody has said. */
export function unlessOut(reading: InForce | null, band: readonly [number, number] | null): InForce | null {
  if (!reading || !band) return reading;
  const value = readingBase(reading);
  return value < band[0] - 1e-9 || value > band[1] + 1e-9 ? null : reading;
}
