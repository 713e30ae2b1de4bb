import type { Quantity, Scale, Source, Working } from '@hot-spline/core';

export const EXACT: Source = { kind: 'exact', text: 'arithmetic' };

/** How far a value can be leaned on: how it came into the build, the weakest first. */
export const RESTS = ['assumed', 'memory', 'trade', 'said', 'library', 'sheet', 'measured'] as const;
export type Rests = (typeof RESTS)[number];

/** The weakest of several; `measured` where there is nothing that could be weak. */
export function weakest(all: readonly Rests[]): Rests {
  return RESTS.find((one) => all.includes(one)) ?? 'measured';
}

/** A computed value that can show how it came about. The working is made only when somebody opens it. */
export interface Figure {
  readonly id: string;
  readonly label: string;
  readonly value: number | null;
  readonly quantity: Quantity;
  /** At which size the quantity is met: the unit that it shows in. */
  readonly scale?: Scale;
  readonly decimals?: number;
  /** What is said in place of a value where there is none, e.g. `locked`. */
  readonly instead?: string;
  /** What it rests on, the weakest of its inputs. */
  readonly rests: Rests;
  readonly explain?: (() => Working) | undefined;
}

/** The ids of a capability's figures: each made by a function, so that a mistyped one does not compile. */
export type FigureIds = Readonly<Record<string, (...of: never[]) => string>>;
