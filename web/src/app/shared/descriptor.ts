import type { Type } from '@angular/core';
import type { UnitSystem } from '@hot-spline/core';
import type { Build, Derived, FigureId, Place, StationKind } from '@hot-spline/model';
import type { PaperLines } from './paper';

/** Headings of the Rail, in the order of work. */
export const RAIL_GROUPS = ['Specify', 'Bench', 'Set up', 'Kept'] as const;

export interface TabDescriptor {
  readonly tab: string;
  readonly label: string;
}

/** One sheet of a capability: its place in the frame follows from this. */
export interface SheetDescriptor {
  /** Its address, and what a place of the model names. */
  readonly sheet: string;
  readonly name: string;
  readonly group: (typeof RAIL_GROUPS)[number];
  /** Two letters that follow `g`; every sheet has others. */
  readonly key: string;
  /** The first one is shown where none is named. */
  readonly tabs: readonly TabDescriptor[];
  /** Builds that have this sheet; every one where it is not told. */
  readonly shows?: (build: Build) => boolean;
  readonly load: () => Promise<Type<unknown>>;
  /** Whether a build opens here where no sheet is named; the last one that says so. */
  readonly lands?: (derived: Derived) => boolean;
  /** What `m` measures next here; null where nothing is left to measure. */
  readonly measure?: (derived: Derived) => Place | null;
  /** Parts that the finder knows, and where each is put right. */
  readonly parts?: (build: Build) => readonly { readonly name: string; readonly more: string; readonly place: Place }[];
  /** Shows how many entries it holds, in place of a verdict. */
  readonly counts?: 'ledger';
}

/** What a station shows with: figures of the followed axle at the operating point. */
export interface StationContext {
  readonly build: Build;
  readonly derived: Derived;
  readonly system: UnitSystem;
  /** A figure as text, `–` where there is none. */
  readonly figure: (id: FigureId, decimals?: number) => string;
  /** A figure as a number, 0 where there is none. */
  readonly number: (id: FigureId) => number;
}

export interface StationText {
  readonly name: string;
  readonly main: string;
  readonly sub: string;
}

/** One station of the Line: the sheet that it opens, and what it shows; null where the driveline has no such part. */
export interface StationDescriptor {
  readonly kind: StationKind;
  readonly sheet: string;
  readonly show: (context: StationContext) => StationText | null;
}

/** What a capability puts into the frame, round every sheet of a build. */
export interface FrameParts {
  /** Below the Line. */
  readonly bar?: () => Promise<Type<unknown>>;
  /** In the Line, beside the operating point. */
  readonly line?: () => Promise<Type<unknown>>;
}

/** A field that the finder knows: its sheet and tab (empty: the first), its label, its name; `{axle}` stands for the axle that is followed. */
export type FieldFind = readonly [sheet: string, tab: string, label: string, field: string];

/** What a capability brings to the interface. */
export interface WebCapability {
  readonly name: string;
  readonly sheets: readonly SheetDescriptor[];
  readonly stations: readonly StationDescriptor[];
  readonly frame?: FrameParts;
  /** Fields of its sheets, for the finder; fetched when that opens. */
  readonly fields?: () => Promise<readonly FieldFind[]>;
  /** What it says on papers; fetched when one is made. */
  readonly papers?: () => Promise<PaperLines>;
}
