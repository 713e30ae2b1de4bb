import type { Quantity, UnitSystem, Working } from '@hot-spline/core';
import type { AxleName } from '../document/schema';

/** A computed value that can show how it came about. The working is made only when somebody opens it. */
export interface Figure {
  readonly id: string;
  readonly label: string;
  readonly value: number | null;
  readonly quantity: Quantity;
  readonly decimals?: number;
  /** What is said in place of a value where there is none, e.g. `locked`. */
  readonly instead?: string;
  readonly explain?: (() => Working) | undefined;
}

/** Most serious first in every list. */
export const VERDICTS = ['stop', 'watch', 'not-yet', 'fits'] as const;
export type Verdict = (typeof VERDICTS)[number];

export type Sheet = 'brief' | 'engine' | 'gearing' | 'road' | 'sets' | 'unit' | 'pack' | 'ledger';

/** A judgement about figures. */
export interface Finding {
  readonly id: string;
  readonly verdict: Verdict;
  readonly sheet: Sheet;
  readonly axle?: AxleName;
  /** Element id of the place that the finding is about. */
  readonly anchor: string;
  /** Ids of the figures that it rests on. */
  readonly figures: readonly string[];
  /** The rule behind it and how that is marked. */
  readonly rule: string;
  /** What, by how much, and what to do, in the builder's units. */
  readonly say: (system: UnitSystem) => { readonly title: string; readonly detail: string };
}

/** Collects figures and findings while a build is derived. */
export class Derivation {
  readonly figures = new Map<string, Figure>();
  readonly findings: Finding[] = [];

  figure(figure: Figure): Figure {
    this.figures.set(figure.id, figure);
    return figure;
  }

  finding(finding: Finding): void {
    this.findings.push(finding);
  }

  sorted(): Finding[] {
    return [...this.findings].sort((a, b) => VERDICTS.indexOf(a.verdict) - VERDICTS.indexOf(b.verdict));
  }
}
