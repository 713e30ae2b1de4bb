import type { UnitSystem } from '@hot-spline/core';
import { say } from '@hot-spline/core';
import type { AxleName, Build, Derived, InForce, LedgerEntry } from '@hot-spline/model';
import type { Content } from 'pdfmake/interfaces';
import type { LabelSize } from './label-sizes';

/** A station of the driveline as the Line shows it. */
export interface DrivelineStation {
  readonly name: string;
  readonly main: string;
  readonly sub: string;
}

/** Everything that papers are made of: nothing is worked out anew here. */
export interface PaperInput {
  readonly build: Build;
  readonly derived: Derived;
  readonly ledger: readonly LedgerEntry[];
  /** What each capability says on papers, in the order of work. */
  readonly lines: readonly PaperLines[];
  /** In which units: one system, or both beside each other. */
  readonly systems: readonly UnitSystem[];
  readonly shop: { readonly name: string; readonly logo: string | null };
  readonly customer: string;
  readonly stations: readonly DrivelineStation[];
  /** Photos as data addresses, with what they show. */
  readonly photos: readonly { readonly what: string; readonly data: string }[];
  /** What the QR code carries, and its picture. */
  readonly qr: { readonly text: string; readonly svg: string };
  readonly labelSize: LabelSize;
  readonly day: string;
  /** Who made the paper: the name that this device writes with. */
  readonly who: string;
  /** A moment in the device’s language. */
  readonly moment: (at: string) => string;
}

/** Where a label says what, in the order in which it is asked for at the unit; what is said of one stands on one row. */
export const LABEL_PLACES = [
  ...['what', 'thread', 'bolts', 'shims', 'backlash', 'pattern', 'preload', 'oil', 'numbers', 'signed'],
] as const;
export type LabelLines = Partial<Record<(typeof LABEL_PLACES)[number], string>>;

/** Something that was read, with the band that it was held against; null where nobody has said one. */
export interface ReadLine {
  readonly what: string;
  readonly read: string;
  readonly band: string | null;
}

/** A card: a paper of its own, put together from what capabilities say of each axle. */
export interface Card {
  readonly name: string;
  readonly about: string;
  /** What it says where none has anything to say. */
  readonly nothing: string;
}

type OfAxle<T> = (input: PaperInput, axle: AxleName) => T;

/** A table that spreadsheets read: rows, the first one the head. */
export interface PaperTable {
  readonly name: string;
  readonly rows: (input: PaperInput) => readonly (readonly string[])[];
}

/** What a capability says on papers. */
export interface PaperLines {
  /** Build sheet, behind the driveline: why the build is so. */
  readonly why?: (input: PaperInput) => Content[];
  /** Build sheet, behind the readings. */
  readonly found?: OfAxle<Content[]>;
  /** Figures whose working the build sheet shows first. */
  readonly explains?: readonly RegExp[];
  /** What a reading is judged by; null where it is not this capability’s. */
  readonly against?: (input: PaperInput, reading: InForce, axle: AxleName) => string | null;
  /** Letter to the customer: what was done to an axle, what it reads, what its driver has to do. */
  readonly done?: OfAxle<readonly string[]>;
  readonly reads?: OfAxle<readonly ReadLine[]>;
  readonly todo?: OfAxle<readonly string[]>;
  /** What nobody may overlook: printed big, short on the label, whole in the letter. */
  readonly warns?: OfAxle<readonly { readonly short: string; readonly whole: string }[]>;
  readonly label?: OfAxle<LabelLines>;
  /** Cards that it brings, and what it says on these and on those of others, by name. */
  readonly brings?: Readonly<Record<string, Card>>;
  readonly tables?: Readonly<Record<string, PaperTable>>;
  readonly cards?: Readonly<Record<string, OfAxle<Content[]>>>;
}

/** Thin spaces as ordinary ones that don’t break: the font of the papers has no thin one. */
export const plain = (text: string): string => text.replace(/[\u202f\u2009]/g, '\u00a0');

/** A number in the systems that are asked for: `0.20 mm (8.0 thou)`. */
export function inSystems(
  base: number,
  quantity: Parameters<typeof say>[1],
  systems: readonly UnitSystem[],
  decimals?: number,
  scale?: Parameters<typeof say>[4],
): string {
  const said = systems.map((system) => say(base, quantity, system, decimals, scale));
  const [first = '', second] = said;
  return plain(second !== undefined && second !== first ? `${first} (${second})` : first);
}
