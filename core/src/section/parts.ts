/** What a section can show. A part is one thing that somebody holds in a hand, or a pack of them. */
export const SECTION_PARTS = [
  'case',
  'cover',
  'cover-bolts',
  'support',
  'support-bolts',
  'support-oring',
  'cap-left',
  'cap-right',
  'cap-bolts',
  'side-cover-left',
  'side-cover-right',
  'side-cover-bolts',
  'adjuster-left',
  'adjuster-right',
  'adjuster-locks',
  'shim-left',
  'shim-right',
  'side-bearing-left',
  'side-bearing-right',
  'ring',
  'ring-bolts',
  'carrier',
  'side-gear-left',
  'side-gear-right',
  'pack-left',
  'pack-right',
  'spiders',
  'cross-pin',
  'insert',
  'locker-rings',
  'pinion',
  'pinion-shim',
  'head-bearing',
  'head-cup',
  'spacer',
  'tail-bearing',
  'tail-cup',
  'seal',
  'flange',
  'pinion-nut',
  'bearing-plate',
  'shaft-gears',
  'shaft-left',
  'shaft-right',
  'c-clips',
  'inner-seals',
  'layshaft',
  'motor-shaft',
  'split-ring',
  'case-bolts',
] as const;
export type SectionPart = (typeof SECTION_PARTS)[number];

/** What a part turns with: it is hatched by it. */
export type TurnsWith = 'pinion' | 'carrier' | 'shafts' | 'layshaft' | 'case';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A closed outline, mm. Straight from point to point; circles are polygons of many corners. */
export type Outline = readonly Point[];

export interface DrawnPart {
  readonly part: SectionPart;
  readonly turns: TurnsWith;
  readonly outlines: readonly Outline[];
  /** Lines inside of it: plates of a pack, threads. */
  readonly lines: readonly (readonly [Point, Point])[];
  /** The way that it comes off, of length 1; it goes on the other way. Null where it stays, or comes with something else. */
  readonly off: Point | null;
  /** Where a leader to its label begins. */
  readonly anchor: Point;
  /** Drawn thicker than it is, because it could not be seen. */
  readonly exaggerated: boolean;
}

/** Where an indicator can stand: its tip, and the way that it looks; `right` is where it belongs. */
export interface Stand {
  readonly at: Point;
  readonly looks: Point;
}

/** A section along the pinion and the ring’s axis, seen from above, to scale but for what is `exaggerated`. */
export interface Section {
  readonly parts: readonly DrawnPart[];
  /** Of everything, mm. */
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  /** Ways of length 1; null where nothing can go that way. */
  readonly deeper: Point | null;
  readonly closer: Point | null;
  /** Side at the upper and the lower edge. */
  readonly upper: 'left' | 'right';
  readonly lower: 'left' | 'right';
  readonly axes: readonly (readonly [Point, Point])[];
  readonly stands: Readonly<Partial<Record<'tooth' | 'ring-back' | 'shaft', Stands>>>;
  /** From the ring’s axis to the pinion’s head, as the depth gauge reads it; null where nothing is to be read. */
  readonly depth: readonly [Point, Point] | null;
  /** Outer race to the ring’s flange, both sides. */
  readonly raceToFlange: readonly (readonly [Point, Point])[];
}

export interface Stands {
  readonly right: Stand;
  readonly wrong: readonly Stand[];
}
